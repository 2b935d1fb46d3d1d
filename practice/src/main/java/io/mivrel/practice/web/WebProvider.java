package io.mivrel.practice.web;

import io.mivrel.books.Books;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.LedgerPlace;
import io.mivrel.posting.LedgerProvider;
import java.util.Objects;

/** Opens ledgers over HTTP: {@code kind: http}. */
public final class WebProvider implements LedgerProvider {
    @Override
    public String kind() {
        return "http";
    }

    @Override
    public Ledger open(LedgerPlace place) throws LedgerException {
        String address = Objects.requireNonNull(place.address());
        return new WebLedger(place.name(), new WebPlace(address, place.requireSecret(), place.certificate()));
    }

    @Override
    public Ledger openOrCreate(LedgerPlace place, Books books) throws LedgerException {
        throw new LedgerException(
                LedgerException.Kind.REFUSED,
                "the ledger '" + place.name() + "' is reached over HTTP; its books are opened where they lie",
                null);
    }
}
