package io.mivrel.ledger;

import io.mivrel.history.DocumentHistory;
import io.mivrel.history.DocumentHistory.Verdict;
import io.mivrel.model.DocumentIdentity.Form;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.LongUnaryOperator;
import org.jspecify.annotations.Nullable;

/** The documents that earlier runs delivered and that can matter to this one. For one thread. */
final class KnownDocuments implements AutoCloseable {
    /** Further apart, a number that comes again has begun anew. */
    private static final int DAYS_OF_A_NUMBER = 183;

    /** So many days apart, a line with the same amount and balance may be the same one. */
    static final int MOST_APART = 31;

    /** Days of a stretch that documents with the same figures are kept in. */
    private static final int NEAR = 2 * DocumentHistory.NEAR_DAYS + 1;

    private static final int IDENTITY = 0;
    private static final int CONTENT = 1;
    private static final int DAY = 2;
    private static final int DELIVERIES = 3;
    /** Where the register keeps it, as {@link Register} numbers its places. */
    private static final int PLACE = 4;
    /** How many there are in the high half, how many are left to be met in the low half; nil for a free row. */
    private static final int COUNTS = 6;
    /** How a line without a name was coded; nil where that is not known, or of equal lines not alike. */
    private static final int CODED = 5;

    private static final long ONE = (1L << 32) + 1;
    /** With the stretch of days. */
    private static final int FIGURES = 0;

    private static final int ALIKE_DAY = 1;
    private static final int ALIKE_PLACE = 2;
    private static final int ALIKE_IDENTITY = 3;

    /** A document and where the register keeps it. */
    record Found(long identity, long place) {}

    private static final int AMOUNT_KEY = 0;
    private static final int AMOUNT_COUNTS = 1;

    private KnownTable documents;
    /** Figures, day and identity of documents with names, for those with the same figures. */
    private @Nullable KnownTable alike;
    /** By form: how many lines of a day and amount are left to be met; none for kinds with numbers. */
    private final List<KnownTable> amounts = new ArrayList<>();

    private final List<Days> days = new ArrayList<>();
    private final boolean empty;
    /** How many documents there is room for, and how many there are. */
    private long room;

    private long size;
    /** By account: the epoch days that any line of it is of. */
    private final Map<Integer, BitSet> daysOfLines = new HashMap<>();
    /** Days of an account that some line came anew for, though they were delivered before. */
    private final Set<Long> newDays = new HashSet<>();
    /** Days that changed since they were delivered. */
    private final Set<Long> changedDays = new HashSet<>();

    /** Lines of this pass that are like a delivered one but for the day, by their identity, and the identity of that. */
    private final Map<Long, Long> otherwiseDated = new HashMap<>();
    /** Those of which the delivered one did not come again, though the file covers its day. */
    private final Map<Long, Long> moved = new HashMap<>();
    /** First and last day of each account in this pass. */
    private final Map<Integer, long[]> covered = new HashMap<>();

    private long lastDeliveries;
    private long lastCoded;
    private long matchedByAmount;

    /** Days of an account that were delivered from a file in a form. */
    private record Days(int account, Form form, long first, long last) {}

    /**
     * @param count how many may be added in all
     * @param byAmount true when lines of files in other forms are to be met by day and amount
     */
    KnownDocuments(long count, boolean byAmount) throws IOException {
        this.empty = count == 0;
        this.documents = new KnownTable(7, room);
        this.alike = byAmount ? null : new KnownTable(4, room);
        for (int i = 0; byAmount && i < Form.values().length; i++) {
            amounts.add(new KnownTable(2, room));
        }
    }

    /** Makes room for so many documents more, before they are added: only some of all can matter. */
    void reserve(long more) throws IOException {
        if (size + more > room) {
            room = Math.max(2 * room, size + more);
            documents = documents.grown(room);
            alike = alike == null ? null : alike.grown(room);
            for (int i = 0; i < amounts.size(); i++) {
                amounts.set(i, amounts.get(i).grown(room));
            }
        }
    }

    void add(
            String account,
            long identity,
            long figures,
            long content,
            long day,
            long amount,
            Form form,
            long deliveries,
            long place) {
        size++;
        if (alike != null && figures != 0) {
            addAlike(alike, identity, figures, day, place);
        }
        long slot = find(identity, content);
        if (documents.isFree(slot)) {
            documents.set(slot, IDENTITY, identity);
            documents.set(slot, CONTENT, content);
            documents.set(slot, DAY, dayOf(account, day));
            documents.set(slot, CODED, figures);
        } else if (documents.get(slot, CODED) != figures) {
            documents.set(slot, CODED, 0);
        }
        documents.set(slot, PLACE, place);
        documents.set(slot, DELIVERIES, documents.get(slot, DELIVERIES) | deliveries);
        documents.set(slot, COUNTS, documents.get(slot, COUNTS) + ONE);
        if (!amounts.isEmpty()) {
            daysOfLines.computeIfAbsent(account.hashCode(), a -> new BitSet()).set((int) Math.max(0, day));
            KnownTable table = amounts.get(form.ordinal());
            long key = key(account, day, amount);
            long at = find(table, key);
            table.set(at, AMOUNT_KEY, key);
            table.set(at, AMOUNT_COUNTS, table.get(at, AMOUNT_COUNTS) + ONE);
        }
    }

    // Two of a day are enough: one of them is another than any that is looked for.
    private static void addAlike(KnownTable alike, long identity, long figures, long day, long place) {
        long key = aroundDay(figures, day);
        int sameDay = 0;
        long slot = alike.start(key);
        for (; !alike.isFree(slot); slot = alike.next(slot)) {
            sameDay += alike.get(slot, FIGURES) == key && alike.get(slot, ALIKE_DAY) == day ? 1 : 0;
        }
        if (sameDay < 2) {
            alike.set(slot, FIGURES, key);
            alike.set(slot, ALIKE_DAY, day);
            alike.set(slot, ALIKE_PLACE, place);
            alike.set(slot, ALIKE_IDENTITY, identity);
        }
    }

    // Figures that come again month after month do not stand in one long row.
    static long aroundDay(long figures, long day) {
        return Hash64.add(figures, Math.floorDiv(day, NEAR));
    }

    /** The hashes under which documents with these figures near a day are found. */
    static long[] aroundDays(long figures, long day) {
        long before = aroundDay(figures, day - DocumentHistory.NEAR_DAYS);
        long behind = aroundDay(figures, day + DocumentHistory.NEAR_DAYS);
        return before == behind ? new long[] {before} : new long[] {before, behind};
    }

    void addDays(String account, Form form, long first, long last) {
        days.add(new Days(account.hashCode(), form, first, last));
    }

    /** True when there are none at all, and each document is new. */
    boolean isEmpty() {
        return empty;
    }

    /** {@code on} gives the identity of the same document on another day. */
    Verdict judge(String account, long identity, long content, long day, long amount, Form form, LongUnaryOperator on) {
        if (!amounts.isEmpty()) {
            long[] days = covered.computeIfAbsent(account.hashCode(), a -> new long[] {day, day});
            days[0] = Math.min(days[0], day);
            days[1] = Math.max(days[1], day);
        }
        long slot = find(identity, content);
        if (!documents.isFree(slot)) {
            lastDeliveries = documents.get(slot, DELIVERIES);
            lastCoded = documents.get(slot, CODED);
            if (identity != content) {
                return Verdict.DELIVERED;
            }
            // Without a name, as many are known as were delivered.
            long counts = documents.get(slot, COUNTS);
            if ((int) counts > 0) {
                documents.set(slot, COUNTS, counts - 1);
                return Verdict.DELIVERED;
            }
        }
        if (identity != content) {
            return byName(identity, day);
        }
        if (amounts.isEmpty()) {
            return Verdict.NEW;
        }
        Verdict verdict = byAmount(account, day, amount, form);
        if (verdict == Verdict.NEW && isCovered(account, day, form)) {
            if (changedDays.contains(dayOf(account, day))) {
                return Verdict.AMENDED;
            }
            newDays.add(dayOf(account, day));
        }
        boolean inChain = form == Form.BALANCE || form == Form.BANK_IDENTIFIER;
        if (verdict == Verdict.NEW && moved.containsKey(identity)) {
            return Verdict.AMENDED;
        }
        if (verdict == Verdict.NEW && inChain) {
            lookOnOtherDays(account, identity, day, on);
        }
        return verdict;
    }

    private void lookOnOtherDays(String account, long identity, long day, LongUnaryOperator on) {
        BitSet known = daysOfLines.get(account.hashCode());
        int from = (int) Math.max(0, day - MOST_APART);
        for (int other = known == null ? -1 : known.nextSetBit(from);
                other >= 0 && other <= day + MOST_APART;
                other = Objects.requireNonNull(known).nextSetBit(other + 1)) {
            if (other != day) {
                long dated = on.applyAsLong(other);
                long at = find(dated, dated);
                if (!documents.isFree(at) && (int) documents.get(at, COUNTS) > 0) {
                    otherwiseDated.putIfAbsent(identity, dated);
                }
            }
        }
    }

    // Of documents with names there is no account, and the day stands alone.
    private static long dayOf(String account, long day) {
        return (long) account.hashCode() << 32 | day & 0xFFFFFFFFL;
    }

    private boolean isCovered(String account, long day, Form form) {
        for (Days span : days) {
            if (span.account == account.hashCode() && span.form == form && day >= span.first && day <= span.last) {
                return true;
            }
        }
        return false;
    }

    /** True when one file had all days of an account from one to another. */
    boolean covers(String account, long from, long to) {
        return days.stream()
                .anyMatch(span -> span.account == account.hashCode() && from >= span.first && to <= span.last);
    }

    /** True when days are found to have changed that were not known to: delivered lines are missing, and others came. */
    boolean foundChangedDays() {
        boolean found = false;
        for (long slot = 0; !newDays.isEmpty() && slot < documents.slots(); slot++) {
            long day = documents.get(slot, DAY);
            if (!documents.isFree(slot) && (int) documents.get(slot, COUNTS) > 0 && newDays.contains(day)) {
                found |= changedDays.add(day);
            }
        }
        newDays.clear();
        for (Map.Entry<Long, Long> line : otherwiseDated.entrySet()) {
            long at = find(line.getValue(), line.getValue());
            long before = documents.get(at, DAY);
            long[] days = covered.get((int) (before >> 32));
            int day = (int) before;
            boolean gone = (int) documents.get(at, COUNTS) > 0;
            if (gone && days != null && day >= days[0] && day <= days[1]) {
                found |= moved.put(line.getKey(), line.getValue()) == null;
            }
        }
        otherwiseDated.clear();
        return found;
    }

    private Verdict byName(long identity, long day) {
        boolean known = false;
        boolean near = false;
        for (long slot = documents.start(identity); !documents.isFree(slot); slot = documents.next(slot)) {
            if (documents.get(slot, IDENTITY) == identity) {
                known = true;
                near |= Math.abs((int) documents.get(slot, DAY) - day) <= DAYS_OF_A_NUMBER;
            }
        }
        return near ? Verdict.CHANGED : known ? Verdict.NUMBER_RETURNS : Verdict.NEW;
    }

    // A line can only be one of a file in another form: of its own form, its identity would be known.
    private Verdict byAmount(String account, long day, long amount, Form form) {
        boolean covered = false;
        for (Days span : days) {
            covered |= span.account == account.hashCode() && span.form != form && day >= span.first && day <= span.last;
        }
        if (!covered) {
            return Verdict.NEW;
        }
        long key = key(account, day, amount);
        for (Form other : Form.values()) {
            KnownTable table = amounts.get(other.ordinal());
            long at = find(table, key);
            if (other != form && !table.isFree(at) && (int) table.get(at, AMOUNT_COUNTS) > 0) {
                table.set(at, AMOUNT_COUNTS, table.get(at, AMOUNT_COUNTS) - 1);
                matchedByAmount++;
                lastDeliveries = -1;
                lastCoded = 0;
                return Verdict.DELIVERED;
            }
        }
        return Verdict.UNSURE;
    }

    /** The document with this identity that was delivered last; {@code null} when there is none. */
    @Nullable
    Found named(long identity) {
        Long before = moved.get(identity);
        if (before != null) {
            return new Found(before, documents.get(find(before, before), PLACE));
        }
        Found last = null;
        for (long slot = documents.start(identity); !documents.isFree(slot); slot = documents.next(slot)) {
            if (documents.get(slot, IDENTITY) == identity
                    && (last == null || documents.get(slot, PLACE) > last.place)) {
                last = new Found(identity, documents.get(slot, PLACE));
            }
        }
        return last;
    }

    /** The nearest document with these figures under another name; {@code null} when none is near. */
    @Nullable
    Found alike(long identity, long figures, long day) {
        Found nearest = null;
        long apart = DocumentHistory.NEAR_DAYS + 1;
        if (empty || alike == null) {
            return null;
        }
        for (long key : aroundDays(figures, day)) {
            for (long slot = alike.start(key); !alike.isFree(slot); slot = alike.next(slot)) {
                long days = Math.abs(alike.get(slot, ALIKE_DAY) - day);
                if (alike.get(slot, FIGURES) == key && alike.get(slot, ALIKE_IDENTITY) != identity && days < apart) {
                    nearest = new Found(alike.get(slot, ALIKE_IDENTITY), alike.get(slot, ALIKE_PLACE));
                    apart = days;
                }
            }
        }
        return nearest;
    }

    private static long key(String account, long day, long amount) {
        return Hash64.add(Hash64.add(account.hashCode(), day), amount);
    }

    /** The deliveries of the document judged last, a bit for each. */
    long lastDeliveries() {
        return lastDeliveries;
    }

    /** How the line judged last was coded when it was delivered; 0 when that is not known. */
    long lastCoded() {
        return lastCoded;
    }

    long matchedByAmount() {
        return matchedByAmount;
    }

    void startOver() {
        matchedByAmount = 0;
        newDays.clear();
        otherwiseDated.clear();
        covered.clear();
        restore(documents, COUNTS);
        amounts.forEach(table -> restore(table, AMOUNT_COUNTS));
    }

    private static void restore(KnownTable table, int column) {
        for (long slot = 0; slot < table.slots(); slot++) {
            long counts = table.get(slot, column);
            table.set(slot, column, counts & 0xFFFFFFFF00000000L | counts >>> 32);
        }
    }

    // The place of the pair, or the free one where it would stand; all of one identity lie in one run of slots.
    private long find(long identity, long content) {
        long slot = documents.start(identity);
        while (!documents.isFree(slot)
                && (documents.get(slot, IDENTITY) != identity || documents.get(slot, CONTENT) != content)) {
            slot = documents.next(slot);
        }
        return slot;
    }

    private static long find(KnownTable table, long key) {
        long slot = table.start(key);
        while (!table.isFree(slot) && table.get(slot, AMOUNT_KEY) != key) {
            slot = table.next(slot);
        }
        return slot;
    }

    @Override
    public void close() {
        documents.close();
        if (alike != null) {
            alike.close();
        }
        amounts.forEach(KnownTable::close);
    }
}
