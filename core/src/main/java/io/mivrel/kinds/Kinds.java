package io.mivrel.kinds;

import io.mivrel.model.Kind;
import java.util.List;
import java.util.Optional;

/** The kinds that settings can name. */
public final class Kinds {
    /** In the order of the documentation. */
    public static final List<Kind> ALL = List.of(BankLines.KIND, JournalLines.KIND, InvoiceLines.KIND);

    private Kinds() {}

    /** The kind whose records have this name in layouts: {@code bank lines}. */
    public static Optional<Kind> ofRecords(String name) {
        return ALL.stream().filter(k -> k.name().equals(name)).findFirst();
    }

    /** The kind whose documents have this name in deliveries: {@code bank transactions}. */
    public static Optional<Kind> ofDocuments(String name) {
        return ALL.stream().filter(k -> k.documents().equals(name)).findFirst();
    }
}
