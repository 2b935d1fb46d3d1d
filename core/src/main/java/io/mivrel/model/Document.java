package io.mivrel.model;

import io.mivrel.money.CurrencyTotals;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The smallest thing that is delivered or held: a heading with a tree of lines over the table of its kind, and the journal
 * it amounts to. Made by the {@link Drafter} of its kind. Immutable, except that the journal is made when it is first
 * asked for; so for one thread at a time.
 */
public final class Document {
    private final Kind kind;
    private final RecordRange records;
    private final Line heading;
    private final @Nullable String reference;
    private final @Nullable Drafter drafter;
    private @Nullable List<Line> lines;
    private @Nullable Document journal;

    /**
     * @param records the source records, in the order of the file
     * @param heading the top of its tree, which is complete from now on
     * @param reference what it is called; {@code null} only when it is not valid
     * @param drafter makes its journal; {@code null} for a journal itself
     */
    public Document(
            Kind kind, RecordRange records, Line heading, @Nullable String reference, @Nullable Drafter drafter) {
        this.kind = kind;
        this.records = records;
        this.heading = heading;
        this.reference = reference;
        this.drafter = drafter;
        heading.complete();
    }

    public Kind kind() {
        return kind;
    }

    /** The source records, in the order of the file. */
    public RecordRange records() {
        return records;
    }

    /** The reference or number; empty only when the document is not valid for want of one. */
    public String reference() {
        return reference == null ? "" : reference;
    }

    public Line heading() {
        return heading;
    }

    /** The lines that carry the amounts. */
    public List<Line> lines() {
        if (lines == null) {
            lines = lines(kind.amount().level());
        }
        return lines;
    }

    /** All nodes of a level, in the order of the source. */
    public List<Line> lines(Level level) {
        List<Line> found = List.of(heading);
        for (int depth = 0; depth < level.depth(); depth++) {
            List<Line> below = new ArrayList<>();
            found.forEach(line -> below.addAll(line.children()));
            found = below;
        }
        return found;
    }

    /** The date as an epoch day; {@link SourceRecord#ABSENT} when there is none. */
    public long day() {
        return heading.number(kind.date());
    }

    /** The date; {@code null} only when the document is not valid. */
    public @Nullable LocalDate date() {
        long day = day();
        return day == SourceRecord.ABSENT ? null : LocalDate.ofEpochDay(day);
    }

    /** False when a blocker was found while one of its records was read: it is held, and checks of values skip it. */
    public boolean isValid() {
        return records.isValid();
    }

    /** The place of its first record. */
    public Origin origin() {
        return records.get(0).origin();
    }

    /** The double entry of this document; only to be asked of a valid one. {@code null} when its kind has none. */
    public @Nullable Document journal() {
        if (kind.isJournal()) {
            return this;
        }
        if (journal == null && drafter != null) {
            journal = drafter.journal(this);
        }
        return journal;
    }

    /** The sum of its lines' amounts in minor units; nil for a journal that balances. */
    public long difference() {
        long sum = 0;
        for (Line line : lines()) {
            sum = Math.addExact(sum, line.minor());
        }
        return sum;
    }

    /** Adds the amounts of its records, signed as the books see them, to control totals. */
    public void addTo(CurrencyTotals totals) {
        RecordBlock block = records.block();
        for (int i = records.from(); i < records.to(); i++) {
            long amount = kind.signedAmount(block, i);
            if (amount != SourceRecord.ABSENT) {
                totals.add(amount, block.currency());
            }
        }
    }

    @Override
    public String toString() {
        return kind.words().one() + " " + reference + " (" + origin() + ")";
    }
}
