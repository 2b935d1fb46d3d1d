package io.mivrel.history;

import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import java.io.IOException;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/**
 * What earlier runs delivered, and what this one is about to. A document is known by the hashes of its kind's {@link
 * io.mivrel.model.DocumentIdentity}; where identity and content are equal it has no name, and two equal ones are two.
 * Called from the run's thread.
 */
public interface DocumentHistory {
    /** What earlier runs say of a document. */
    enum Verdict {
        NEW,
        /** Delivered before with the same figures. */
        DELIVERED,
        /** Delivered before under this name with other figures. */
        CHANGED,
        /** Delivered before under this name so long ago that numbers have begun anew. */
        NUMBER_RETURNS,
        /** A line of a day that was delivered before, and of which delivered lines have not come again. */
        AMENDED,
        /** Its day was delivered before from a file in another form, and nothing there has its date and amount. */
        UNSURE
    }

    /** Nothing was delivered before, and nothing is remembered. */
    DocumentHistory NONE = new DocumentHistory() {
        @Override
        public Verdict judge(Kind kind, RecordRange records, long identity, long content) {
            return Verdict.NEW;
        }

        @Override
        public @Nullable Earlier named(long identity) {
            return null;
        }

        @Override
        public @Nullable Earlier alike(long identity, long figures, long day) {
            return null;
        }

        @Override
        public long lacking() {
            return 0;
        }

        @Override
        public long matchedByAmount() {
            return 0;
        }

        @Override
        public void remember(
                Kind kind, RecordRange records, long identity, long figures, long content, long deliveries) {}

        @Override
        public void startOver() {}

        @Override
        public boolean foundChangedDays() {
            return false;
        }

        @Override
        public @Nullable Closing lastClosing(String account, LocalDate day) {
            return null;
        }
    };

    /** Judges the next document of the run. Of equal ones without a name, as many are known as were delivered. */
    Verdict judge(Kind kind, RecordRange records, long identity, long content) throws IOException;

    /**
     * Of the document that was judged {@link Verdict#DELIVERED} last: which of the run's deliveries it did not go out by, a
     * bit for each in the order of the plan.
     */
    long lacking();

    /**
     * Of the line that was judged {@link Verdict#DELIVERED} last: how it was coded then, as {@link #remember} was told; 0 when
     * that is not known.
     */
    default long coded() {
        return 0;
    }

    /**
     * How many documents were judged {@link Verdict#DELIVERED} because one with their date and amount was, in a file of
     * another form.
     */
    long matchedByAmount() throws IOException;

    /** The document with this identity that was delivered last; {@code null} when there is none. */
    @Nullable
    Earlier named(long identity) throws IOException;

    /**
     * A document that was delivered with the same figures under another name, the nearest by date within {@value
     * #NEAR_DAYS} days; {@code null} when there is none.
     *
     * @param figures not 0
     * @param day its date, as an epoch day
     */
    @Nullable
    Earlier alike(long identity, long figures, long day) throws IOException;

    /**
     * A line that was delivered of another account with this amount, within {@value #NEAR_DAYS} days; {@code null} when there
     * is none.
     *
     * @param amount minor units, as that account has it
     * @param day an epoch day
     * @param identity of the line that asks, which is not its own counterpart
     */
    default @Nullable Earlier counterpart(String account, long amount, long day, long identity) throws IOException {
        return null;
    }

    /** True when lines of an account were delivered for all days from one to another, epoch days both. */
    default boolean covers(String account, long from, long to) throws IOException {
        return false;
    }

    /** So many days apart, the same figures under two numbers are probably one document, entered twice. */
    int NEAR_DAYS = 5;

    /**
     * A document that came before.
     *
     * @param reference its number
     * @param file the file that it stood in
     * @param row its first row there; 0 where that has no rows
     * @param day its date
     * @param run the run that delivered it; {@code null} for the run at hand
     */
    record Earlier(
            String reference,
            String file,
            long row,
            LocalDate day,
            @Nullable String run) {
        @Override
        public String toString() {
            return (reference.isEmpty() ? "one" : reference) + " of " + day + " (" + file
                    + (row == 0 ? "" : " row " + row)
                    + (run == null ? ")" : ", delivered by '" + run + "')");
        }
    }

    /**
     * Takes note of a document that this run delivers.
     *
     * @param figures of a line without a name, how it is coded
     * @param deliveries by which deliveries of the run, a bit for each; all bits for all
     */
    void remember(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries)
            throws IOException;

    /** Forgets what this run has judged and noted so far, but not which days have changed. */
    void startOver() throws IOException;

    /**
     * All lines of the pass were judged: true when days of an account were found, not known before, that were delivered with
     * lines that did not come again, while others came anew. The next pass judges those {@link Verdict#AMENDED}.
     */
    boolean foundChangedDays() throws IOException;

    /**
     * The closing balance of an account that was delivered last, when nothing of it was delivered for days behind the given
     * one; else {@code null}.
     */
    @Nullable
    Closing lastClosing(String account, LocalDate day) throws IOException;

    /**
     * A closing balance.
     *
     * @param minor minor units
     * @param day the last day that had a line
     * @param file the file that stated it
     */
    record Closing(long minor, LocalDate day, String file, String run) {}
}
