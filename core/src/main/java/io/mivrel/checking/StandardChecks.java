package io.mivrel.checking;

import io.mivrel.books.Books;
import java.util.List;

/** The checks that every run makes. */
public final class StandardChecks {
    private StandardChecks() {}

    /** New checks for one run; they remember what they saw, so a run makes its own. */
    public static List<Check> of(Books books) {
        return List.of(
                new DateCheck(books),
                new AccountCheck(books),
                new CodeCheck(books),
                new BalanceCheck(),
                new CurrencyCheck(),
                new TwoEntriesCheck(),
                new RepeatedLinesCheck());
    }
}
