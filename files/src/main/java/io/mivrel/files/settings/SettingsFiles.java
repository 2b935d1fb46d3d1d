package io.mivrel.files.settings;

import io.mivrel.books.Books;
import io.mivrel.coding.CodingTable;
import io.mivrel.delivery.Delivery;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** Tells settings files from one another, and from what is none. */
public final class SettingsFiles {
    private static final List<String> KINDS = List.of("run", "layout", "delivery", "ledger", "books");

    private SettingsFiles() {}

    /** The first word of the form: {@code run}, {@code layout}, {@code delivery}, {@code ledger} or {@code books}. */
    public static Optional<String> kind(Path file) {
        SettingsNode form = SettingsNode.open(file, file.toString(), new Problems());
        if (form == null) {
            return Optional.empty();
        }
        // A run sheet names its books too, and its first word may be mistyped.
        return form.keys().contains("intake")
                ? Optional.of("run")
                : KINDS.stream().filter(form.keys()::contains).findFirst();
    }

    /** Reads a delivery by itself. Throws with every mistake. */
    public static Delivery delivery(Path file) throws SettingsException {
        Problems problems = new Problems();
        Delivery read = DeliveryFile.read(file, file.toString(), problems);
        problems.throwIfAny();
        return read;
    }

    /** Reads a coding table by itself. Throws with every mistake. */
    public static CodingTable coding(Path table, Books books) throws SettingsException {
        Problems problems = new Problems();
        CodingTable read = CodingFile.read(table, table.toString(), books, problems);
        problems.throwIfAny();
        return read;
    }
}
