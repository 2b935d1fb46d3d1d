package io.mivrel.survey;

import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
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
            if (isCodes(column) && TradeWords.fit("original-currency", column.title()) == 0) {
                return ofCode(most(column, sample.data()));
            }
        }
        Currency labelled = underLabel(sample);
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
                Currency marked = ofCode(SIGNS.getOrDefault(mark, mark.toUpperCase(java.util.Locale.ROOT)));
                if (marked != null) {
                    return marked;
                }
            }
        }
        return null;
    }

    private static @Nullable Currency inTitle(String title) {
        Matcher code = CODE.matcher(title);
        while (code.find()) {
            Currency found = ofCode(code.group());
            if (found != null) {
                return found;
            }
        }
        return null;
    }

    // Under a label, or directly behind it as in the heading of a page.
    private static @Nullable Currency underLabel(Sample sample) {
        List<OwnerSearch.Labelled> found = new ArrayList<>(OwnerSearch.labelled(sample.above()));
        for (Sample.Kept row : sample.above()) {
            for (String cell : row.cells()) {
                int blank = cell.lastIndexOf(' ');
                found.add(new OwnerSearch.Labelled(cell.substring(0, Math.max(blank, 0)), cell.substring(blank + 1)));
            }
        }
        return found.stream()
                .filter(one -> TradeWords.is("currency-label", one.label()))
                .map(one -> ofCode(one.value()))
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
    }

    /** The currency of a code; {@code null} when it is none. */
    static @Nullable Currency ofCode(String code) {
        try {
            return code.strip().length() == 3 ? Currency.getInstance(code.strip()) : null;
        } catch (IllegalArgumentException none) {
            return null;
        }
    }

    /** True for a column of codes and nothing else. */
    static boolean isCodes(ColumnSurvey column) {
        return !column.fewValues().isEmpty() && column.fewValues().stream().allMatch(w -> ofCode(w) != null);
    }

    /** The text that most rows have in a column; empty when it is blank. */
    static String most(ColumnSurvey column, List<Sample.Kept> rows) {
        Map<String, Integer> counts = new TreeMap<>();
        rows.forEach(row -> counts.merge(BankColumns.cell(row, column), 1, Integer::sum));
        counts.remove("");
        return counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
    }
}
