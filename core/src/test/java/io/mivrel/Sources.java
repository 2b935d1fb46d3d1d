package io.mivrel;

import io.mivrel.model.SourceFile;
import java.util.Currency;

/** Files that tests pretend to have read. */
public final class Sources {
    public static final Currency GBP = Currency.getInstance("GBP");

    private Sources() {}

    public static SourceFile file(String name) {
        return SourceFile.of(name, GBP);
    }
}
