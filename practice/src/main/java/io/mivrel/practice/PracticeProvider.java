package io.mivrel.practice;

import io.mivrel.books.Books;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.LedgerPlace;
import io.mivrel.posting.LedgerProvider;
import java.util.Objects;

/** Opens practice ledgers: {@code kind: practice}. */
public final class PracticeProvider implements LedgerProvider {
    @Override
    public String kind() {
        return "practice";
    }

    @Override
    public Ledger open(LedgerPlace place) throws LedgerException {
        return PracticeLedger.open(place.name(), books(place), place.company());
    }

    @Override
    public Ledger openOrCreate(LedgerPlace place, Books books) throws LedgerException {
        return PracticeLedger.openOrCreate(place.name(), books(place), books);
    }

    private static PracticePlace books(LedgerPlace place) {
        return place.file() != null
                ? PracticePlace.file(place.file())
                : PracticePlace.server(Objects.requireNonNull(place.address()), place.user(), place.secret());
    }
}
