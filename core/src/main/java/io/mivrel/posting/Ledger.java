package io.mivrel.posting;

import io.mivrel.books.Books;
import io.mivrel.books.Party;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The receiving books. The interface to implement for a receiver of one's own; {@code docs/ledgers.md} says how, and
 * {@code LedgerPromises} of the test kit tells whether an implementation keeps what is promised here.
 *
 * <p>The promises: an entry is posted whole or not at all; a live entry's key is that of no other; posting the same entry
 * twice posts it once and answers {@link Answer.Result#THERE}; a withdrawn batch takes no entry any more. Each call fails
 * with a {@link LedgerException} that says what is known. For one thread; calls may be repeated.
 */
public interface Ledger extends AutoCloseable {
    /** What it is called in settings and messages. */
    String name();

    /** What it can do. */
    Abilities abilities() throws LedgerException;

    /** Its chart, tax codes, parties and periods. */
    Books books() throws LedgerException;

    /** Creates customers and suppliers that are not there yet. */
    void create(List<Party> parties) throws LedgerException;

    /**
     * Posts entries of a batch, at most as many as a call takes; one answer for each, in their order. What is refused does
     * not keep the others back.
     */
    List<Answer> post(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException;

    /** Says what {@link #post} would answer, and does nothing. */
    List<Answer> rehearse(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException;

    /** The live entries with these keys, by key; those that are not there are missing in the map. */
    Map<String, PostedEntry> find(Collection<String> keys) throws LedgerException;

    /** Makes all drafts of a batch final; one answer for each that it could not, none when all are. */
    List<Answer> makeFinal(String batch) throws LedgerException;

    /**
     * Takes back entries of a batch: drafts are removed, final ones reversed on a day. One answer for each; one that was
     * taken back before is answered alike. Refused are those that something later depends on.
     */
    List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) throws LedgerException;

    /** From now on the batch takes no entry; to be called before all of it is withdrawn. May be called again. */
    void seal(String batch) throws LedgerException;

    /** The balances at the end of a day, of accounts that have any entry. */
    List<Balance> balances(LocalDate day) throws LedgerException;

    /** The place of what was recorded last, in the order in which this ledger records things; it only grows. */
    long mark() throws LedgerException;

    /** Hands out entries, in the order in which they were recorded. */
    void entries(Query query, Consumer<PostedEntry> target) throws LedgerException;

    /**
     * Which entries are wanted.
     *
     * @param since a {@link Ledger#mark}: those recorded or removed after it, whether they stand now or not; -1 for all
     *     that stand now
     * @param account those with a line on this account; {@code null} for all
     * @param batch those of this batch; {@code null} for all
     */
    record Query(
            long since, @Nullable String account, @Nullable String batch) {
        /** All that stand now. */
        public static final Query ALL = new Query(-1, null, null);

        public static Query since(long mark) {
            return new Query(mark, null, null);
        }

        public static Query ofAccount(String account) {
            return new Query(-1, account, null);
        }

        public static Query ofBatch(String batch) {
            return new Query(-1, null, batch);
        }
    }

    /**
     * A refusal in plain words; {@code null} where the ledger's own are the best there is. The codes are the ledger's, so it
     * is the implementation that knows what they mean.
     */
    default @Nullable Plain plain(Answer answer) {
        return null;
    }

    /** What a refusal means, and what to do. */
    record Plain(String reason, String suggestion) {}

    @Override
    void close();
}
