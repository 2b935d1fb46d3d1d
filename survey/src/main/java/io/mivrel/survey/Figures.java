package io.mivrel.survey;

import io.mivrel.model.SourceRecord;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.TradeWords;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** The columns of figures among the first rows, read in one form. */
final class Figures {
    private final Map<ColumnSurvey, long[]> values = new LinkedHashMap<>();

    Figures(List<Sample.Kept> rows, List<ColumnSurvey> columns, AmountFormat form) {
        for (ColumnSurvey column : columns) {
            long[] read = new long[rows.size()];
            for (int i = 0; i < read.length; i++) {
                List<String> cells = rows.get(i).cells();
                read[i] = column.place() <= cells.size()
                        ? read(cells.get(column.place() - 1), form, onlyPlusMarked(column))
                        : SourceRecord.ABSENT;
            }
            values.put(column, read);
        }
    }

    // Where only CR is marked, what is not marked is the other side, and the marks turn the sign.
    private static boolean onlyPlusMarked(ColumnSurvey column) {
        return column.hasUnmarked()
                && !column.sideMarks().isEmpty()
                && column.sideMarks().keySet().stream().noneMatch(mark -> TradeWords.is("minus", mark));
    }

    /** An amount without the mark beside it, or {@link SourceRecord#ABSENT}. */
    static long read(String cell, AmountFormat form) {
        return read(cell, form, false);
    }

    private static long read(String cell, AmountFormat form, boolean plusTurns) {
        byte[] bytes = cell.getBytes(StandardCharsets.UTF_8);
        MarkedFigure marked = MarkedFigure.of(bytes, 0, bytes.length);
        byte[] figure = marked == null ? bytes : marked.figure();
        long value = form.parse(figure, 0, figure.length);
        if (!AmountFormat.isAmount(value)) {
            return SourceRecord.ABSENT;
        }
        boolean turns = marked != null && marked.isSide() && (plusTurns || TradeWords.is("minus", marked.mark()));
        return turns ? -value : value;
    }

    List<ColumnSurvey> columns() {
        return List.copyOf(values.keySet());
    }

    long[] of(ColumnSurvey column) {
        return Objects.requireNonNull(values.get(column));
    }
}
