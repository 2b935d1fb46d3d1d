package io.mivrel.posting;

import io.mivrel.money.Money;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The memory of what was sent to one ledger for one company. Each call that notes something has noted it for good when it
 * answers. For one thread; only one program at a time posts to a ledger with the same memory.
 */
public interface PostingLog {
    /** Where a document stands, as far as is known. */
    enum State {
        /** About to be sent: whether the ledger has it must be asked. */
        INTENDED,
        /** In the ledger. */
        POSTED,
        /** The ledger refused it. */
        REFUSED,
        /** It is in the ledger under its key with other content, and was not touched. */
        DIFFERS,
        /** Not in the ledger: it was to be sent, and did not get there. */
        WAITING,
        /** Taken back. */
        WITHDRAWN;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        public static State of(String word) {
            return valueOf(word.toUpperCase(Locale.ROOT));
        }
    }

    /**
     * A batch.
     *
     * @param run the run that it came of
     * @param began when it began
     * @param mark the ledger's {@link Ledger#mark} before it
     */
    record Noted(Batch batch, String run, PostMode mode, Instant began, long mark, BatchState state) {}

    /** Where a batch stands. */
    enum BatchState {
        /** Not all of it is settled. */
        OPEN,
        ENDED,
        /** All of it was taken back. */
        WITHDRAWN
    }

    /**
     * A document of a batch.
     *
     * @param amount sum of its debits
     * @param answer the ledger's answer; {@code null} when there is none yet
     */
    record Sent(
            String batch,
            String key,
            String digest,
            String kind,
            String reference,
            LocalDate day,
            Money amount,
            String file,
            long row,
            State state,
            @Nullable Answer answer) {}

    /** What came of a document: its state, with the ledger's answer. */
    record Settled(String key, State state, @Nullable Answer answer) {}

    /**
     * A closing balance that a statement states.
     *
     * @param account the bank account
     * @param from the first day that had a line
     * @param day the last day that had a line
     * @param opening the balance before the first day
     * @param balance the balance at the end of the last day
     */
    record Closing(String account, LocalDate from, LocalDate day, Money opening, Money balance, String file) {}

    /** Begins a batch. */
    void begin(Noted batch, List<Balance> before, List<Closing> closings) throws IOException;

    /**
     * Notes that entries are about to be sent.
     *
     * @param replaced what the ledger has under their keys now and is to be replaced
     */
    void intend(String batch, List<SourcedEntry> parcel, Collection<Entry> replaced) throws IOException;

    /** Notes what came of entries, with what they do to the balances. */
    void settle(String batch, List<Settled> settled, BalanceChanges effect) throws IOException;

    /** Notes that all of a batch is settled, or taken back. */
    void end(String batch, boolean withdrawn) throws IOException;

    /** Notes that the entries of a batch are final now. */
    void madeFinal(String batch) throws IOException;

    /**
     * All documents that are {@link State#INTENDED}, and those {@link State#WAITING} that were not sent again, in the order
     * in which they were.
     */
    List<Sent> unsettled() throws IOException;

    /** Of each key that was ever sent, the document that was sent last. */
    Map<String, Sent> latest(Collection<String> keys) throws IOException;

    /** The documents with these keys that stand as {@link State#POSTED}, in whichever batch. */
    List<Sent> posted(Collection<String> keys) throws IOException;

    /** All batches, the earliest first. */
    List<Noted> batches() throws IOException;

    /** The balances before a batch. */
    List<Balance> before(String batch) throws IOException;

    /** What the posted documents of a batch do to the balances, as they were sent. */
    BalanceChanges effect(String batch) throws IOException;

    List<Closing> closings(String batch) throws IOException;

    /** Hands out the documents of a batch, in the order in which they were sent. */
    void documents(String batch, Consumer<Sent> target) throws IOException;

    /** Those of its documents that have these keys, by key. */
    Map<String, Sent> documents(String batch, Collection<String> keys) throws IOException;

    /** How many of its documents are not in the ledger, and were not posted or taken back later by another batch. */
    long waiting(String batch) throws IOException;

    /** Hands out the entries of a batch as they were sent, in that order. */
    default void entries(String batch, EntryTarget target) throws IOException {
        for (long place = 1; place <= parcels(batch); place++) {
            parcel(batch, place, target);
        }
    }

    /** How many parcels a batch was sent in. */
    long parcels(String batch) throws IOException;

    /** Hands out the entries of one parcel, from 1, as they were sent. */
    void parcel(String batch, long place, EntryTarget target) throws IOException;

    /** Takes entries as they were sent. */
    interface EntryTarget {
        /** {@code replaced} is what the ledger had before and was to be replaced; {@code null} for nothing. */
        void take(SourcedEntry sent, @Nullable Entry replaced) throws IOException;
    }
}
