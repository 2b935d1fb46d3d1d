package io.mivrel.run;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Origin;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What became of one document. A value that keeps nothing of the file.
 *
 * @param reference empty when it has none, or when it could not be read
 * @param date {@code null} when it could not be read
 * @param rows how many source rows it has
 * @param findings what was noticed about it
 */
public record SortedDocument(
        Kind kind,
        String reference,
        @Nullable LocalDate date,
        Origin origin,
        int rows,
        Disposition disposition,
        List<Finding> findings) {

    /** What can become of a document. */
    public enum Disposition {
        /** It is delivered, or would be if the run did more than check. */
        CLEAR,
        /** A blocker holds it. */
        HELD,
        /** An earlier run delivered it. */
        DELIVERED_BEFORE,
        /** It is clear, and beyond the pilot. */
        BEYOND_PILOT,
        /** An earlier file of the run has it. */
        TAKEN_ONCE
    }

    static SortedDocument of(Document document, Disposition disposition, List<Finding> findings) {
        return new SortedDocument(
                document.kind(),
                document.reference() == null ? "" : document.reference(),
                document.date(),
                document.origin(),
                document.records().size(),
                disposition,
                List.copyOf(findings));
    }

    SortedDocument stopped() {
        return disposition == Disposition.CLEAR
                ? new SortedDocument(kind, reference, date, origin, rows, Disposition.HELD, findings)
                : this;
    }

    @Override
    public String toString() {
        return kind.words().one() + " " + reference + " (" + origin + "): "
                + disposition.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
