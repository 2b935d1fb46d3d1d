package io.mivrel.history;

import io.mivrel.history.DocumentHistory.Earlier;
import io.mivrel.intake.Input;
import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The documents that a pass has met, to find one that comes twice: under the same name from another file, or with the same
 * figures under another name. Of kinds that name a party, all are kept; of others, those of the day at hand, since a list
 * of millions is in the order of its days, and equal vouchers of different days are ordinary. For one thread.
 */
public final class RepeatedDocuments {
    private final Kind kind;
    private final List<Input> inputs;
    private final boolean keepsAll;
    /** By name, when several files could have the same; else {@code null}, since names of one file are brought together. */
    private final @Nullable PlaceTable named;

    private final Map<Long, List<Met>> alike = new HashMap<>();
    private final PlaceTable alikeOfDay = new PlaceTable();
    private long day = Long.MIN_VALUE;

    /**
     * A document with the same figures under another name.
     *
     * @param sameTexts true when its lines have the same texts too
     */
    public record Alike(Earlier document, boolean sameTexts) {}

    private record Met(Earlier document, long texts) {}

    public RepeatedDocuments(Kind kind, List<Input> inputs, boolean joinsFiles) {
        this.kind = kind;
        this.inputs = inputs;
        this.keepsAll = kind.isEnteredOnce();
        this.named = inputs.size() > 1 && !joinsFiles ? new PlaceTable() : null;
    }

    /** The document of this name that another file had before; {@code null} when there is none. */
    @Nullable
    public Earlier named(long identity, RecordRange records) {
        long before = named == null ? 0 : named.get(identity);
        return before == 0 || before == place(records) ? null : earlier(before, day(records), reference(records));
    }

    /** The nearest document before with these figures under another name; {@code null} when there is none. */
    @Nullable
    public Alike alike(long figures, RecordRange records) {
        if (!keepsAll) {
            long before = day(records) == day ? alikeOfDay.get(figures) : 0;
            return before == 0 || before == place(records) ? null : new Alike(earlier(before, day, ""), false);
        }
        Met nearest = null;
        for (Met met : alike.getOrDefault(figures, List.of())) {
            if (!met.document.equals(earlier(records))
                    && RepeatFinding.isNear(kind, met.document, records)
                    && (nearest == null || apart(met.document, records) < apart(nearest.document, records))) {
                nearest = met;
            }
        }
        return nearest == null ? null : new Alike(nearest.document, nearest.texts == texts(records));
    }

    /** Takes note of a document; a second time changes nothing. */
    public void add(long identity, long figures, RecordRange records) {
        long place = place(records);
        if (named != null) {
            named.putIfAbsent(identity, place);
        }
        if (keepsAll) {
            List<Met> same = alike.computeIfAbsent(figures, f -> new ArrayList<>(1));
            Met own = new Met(earlier(records), texts(records));
            if (!same.contains(own)) {
                same.add(own);
            }
            return;
        }
        if (day(records) != day) {
            alikeOfDay.clear();
            day = day(records);
        }
        alikeOfDay.putIfAbsent(figures, place);
    }

    private static long place(RecordRange records) {
        RecordBlock block = records.block();
        return PlaceTable.place(block.source().ordinal(), block.row(records.from()));
    }

    private long texts(RecordRange records) {
        Field narrative = kind.narrative();
        long sum = 0;
        for (int i = records.from(); narrative != null && i < records.to(); i++) {
            sum += DocumentIdentity.add(1, records.block(), narrative, i);
        }
        return sum;
    }

    private Earlier earlier(RecordRange records) {
        return earlier(place(records), day(records), reference(records));
    }

    private Earlier earlier(long place, long on, String reference) {
        String file = inputs.get(PlaceTable.file(place) - 1).name();
        return new Earlier(reference, file, PlaceTable.row(place), LocalDate.ofEpochDay(on), null);
    }

    private String reference(RecordRange records) {
        return kind.key() == null ? "" : String.valueOf(records.block().text(kind.key(), records.from()));
    }

    private long day(RecordRange records) {
        return records.block().number(kind.date(), records.from());
    }

    private long apart(Earlier before, RecordRange records) {
        return Math.abs(before.day().toEpochDay() - day(records));
    }
}
