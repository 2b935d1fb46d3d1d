package io.mivrel.posting;

import io.mivrel.books.Books;
import java.util.Map;
import java.util.ServiceLoader;
import java.util.TreeMap;

/**
 * Opens ledgers of one kind, which settings name: {@code kind: practice}. A program has a ledger of its own opened by the
 * command with a provider of its own: {@link ServiceLoader} finds it, by {@code provides} or by a file in
 * {@code META-INF/services}.
 */
public interface LedgerProvider {

    /** The word under {@code kind} in settings, such as {@code practice}. */
    String kind();

    /** Opens books that exist. */
    Ledger open(LedgerPlace place) throws LedgerException;

    /** Opens books, and makes them of these when there are none. Refused where that is not for callers to do. */
    default Ledger openOrCreate(LedgerPlace place, Books books) throws LedgerException {
        throw new LedgerException(
                LedgerException.Kind.REFUSED,
                "the ledger '" + place.name() + "' does not have its books opened from here",
                null);
    }

    /** Those that are there, by kind. */
    static Map<String, LedgerProvider> all() {
        Map<String, LedgerProvider> all = new TreeMap<>();
        ServiceLoader.load(LedgerProvider.class).forEach(provider -> all.put(provider.kind(), provider));
        return all;
    }
}
