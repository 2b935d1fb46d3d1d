package io.mivrel.ledger;

import java.nio.file.Path;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Where a register is kept. Immutable; the password never shows.
 *
 * @param file the SQLite file; {@code null} for a server
 * @param url the JDBC address of a PostgreSQL database; {@code null} for a file
 * @param user user of the server; {@code null} for a file
 * @param password of the user; {@code null} for none
 */
public record RegisterPlace(
        @Nullable Path file,
        @Nullable String url,
        @Nullable String user,
        @Nullable String password) {
    /** A file of its own. */
    public static RegisterPlace file(@Nullable Path file) {
        return new RegisterPlace(Objects.requireNonNull(file), null, null, null);
    }

    /** A PostgreSQL database, which several machines may share. */
    public static RegisterPlace server(@Nullable String url, @Nullable String user, @Nullable String password) {
        return new RegisterPlace(null, Objects.requireNonNull(url), user, password);
    }

    /** How messages name it. */
    @Override
    public String toString() {
        return file != null ? file.toString() : String.valueOf(url).replaceAll("\\?.*", "");
    }
}
