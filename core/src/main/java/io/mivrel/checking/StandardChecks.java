package io.mivrel.checking;

import io.mivrel.books.Books;
import java.util.List;
import java.util.Set;

/** The checks that every run makes. */
public final class StandardChecks {
    private StandardChecks() {}

    /** New checks for one run; they remember what they saw, so a run makes its own. */
    public static List<Check> of(Books books) {
        return of(books, Set.of());
    }

    /** The same; {@code partiesMissing} are the files whose lines on control accounts need not name a customer or supplier. */
    public static List<Check> of(Books books, Set<String> partiesMissing) {
        return List.of(
                new DateCheck(books),
                new AccountCheck(books, partiesMissing),
                new CodeCheck(books),
                new BalanceCheck(),
                new CurrencyCheck(),
                new TwoEntriesCheck(),
                new RepeatedLinesCheck());
    }
}
