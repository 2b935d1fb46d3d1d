package io.mivrel.ledger;

import java.nio.file.Path;
import java.util.Objects;

/**
 * Where a register is kept. Immutable; the password never shows.
 *
 * @param file the SQLite file; {@code null} for a server
 * @param url the JDBC address of a PostgreSQL database; {@code null} for a file
 * @param user user of the server; {@code null} for a file
 * @param password of the user; {@code null} for none
 */
public record RegisterPlace(Path file, String url, String user, String password) {
    /** A file of its own. */
    public static RegisterPlace file(Path file) {
        return new RegisterPlace(Objects.requireNonNull(file), null, null, null);
    }

    /** A PostgreSQL database, which several machines may share. */
    public static RegisterPlace server(String url, String user, String password) {
        return new RegisterPlace(null, Objects.requireNonNull(url), user, password);
    }

    /** How messages name it. */
    @Override
    public String toString() {
        return file != null ? file.toString() : url.replaceAll("\\?.*", "");
    }
}
