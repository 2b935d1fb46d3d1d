package io.mivrel.practice;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * Where a practice ledger lies: in a file, or on a PostgreSQL server. The password is never shown.
 *
 * @param file the database file of SQLite; {@code null} for one on a server
 * @param url address for JDBC; {@code null} for a file
 */
public record PracticePlace(
        @Nullable Path file,
        @Nullable String url,
        @Nullable String user,
        @Nullable String password) {
    public static PracticePlace file(Path file) {
        return new PracticePlace(file, null, null, null);
    }

    public static PracticePlace server(String url, @Nullable String user, @Nullable String password) {
        return new PracticePlace(null, url, user, password);
    }

    @Override
    public String toString() {
        // An address may carry a password behind its question mark.
        return file != null ? file.toString() : String.valueOf(url).replaceAll("\\?.*", "");
    }
}
