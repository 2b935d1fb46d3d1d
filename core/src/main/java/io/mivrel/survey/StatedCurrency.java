package io.mivrel.survey;

import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The currency that a file states: in a column of codes, under a label, in a title, or beside its amounts. */
final class StatedCurrency {
    private static final Pattern CODE = Pattern.compile("\\b[A-Z]{3}\\b");
    private static final Map<String, String> SIGNS =
            Map.of("\u20ac", "EUR", "\u00a3", "GBP", "\u20b9", "INR", "\u20aa", "ILS");

    private StatedCurrency() {}

    /** {@code null} when it states none. */
    static @Nullable Currency of(Sample sample) {
        List<ColumnSurvey> columns = sample.surveyed();
        for (ColumnSurvey column : columns) {
            Currency ofRows = Words.fit("original-currency", column.title()) > 0 ? null : ofColumn(column, sample);
            if (ofRows != null) {
                return ofRows;
            }
        }
        Currency labelled = new Labels(sample.above()).currency();
        if (labelled != null) {
            return labelled;
        }
        for (ColumnSurvey column : columns) {
            Currency titled = BankColumns.isMoney(column) ? inTitle(column.title()) : null;
            if (titled != null) {
                return titled;
            }
        }
        for (ColumnSurvey column : columns) {
            for (String mark : column.currencyMarks().keySet()) {
                Currency marked = Labels.currency(SIGNS.getOrDefault(mark, mark.toUpperCase(java.util.Locale.ROOT)));
                if (marked != null) {
                    return marked;
                }
            }
        }
        return null;
    }

    // The code that most rows have, where every cell is one.
    private static @Nullable Currency ofColumn(ColumnSurvey column, Sample sample) {
        List<String> words = column.fewValues();
        if (words.isEmpty() || words.stream().anyMatch(w -> Labels.currency(w) == null)) {
            return null;
        }
        Map<String, Integer> counts = new HashMap<>();
        for (Sample.Kept row : sample.data()) {
            String cell = column.place() <= row.cells().size() ? row.cells().get(column.place() - 1) : "";
            if (!cell.isEmpty()) {
                counts.merge(cell, 1, Integer::sum);
            }
        }
        return counts.entrySet().stream()
                .max(Map.Entry.<String, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(entry -> Labels.currency(entry.getKey()))
                .orElse(null);
    }

    private static @Nullable Currency inTitle(String title) {
        Matcher code = CODE.matcher(title);
        while (code.find()) {
            Currency found = Labels.currency(code.group());
            if (found != null) {
                return found;
            }
        }
        return null;
    }
}
