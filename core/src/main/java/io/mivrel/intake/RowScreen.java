package io.mivrel.intake;

import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.layout.RowEquation;
import io.mivrel.model.Rule;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFilter;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Spans;
import org.jspecify.annotations.Nullable;

/** Tells which rows of a file are data, and looks at a row as a whole before its cells are read. For one thread. */
final class RowScreen {
    private final FileFormat format;
    private final TitleBinding titles;
    private final RowProblems problems;
    private final String[] stated;
    /** Behind the figure too, as in {@code 61 rows}. */
    private final @Nullable String count;

    private final RowFilter[] filters;
    private final RowFilter[] expectations;
    private final RowEquation[] equations;
    private final AmountFormat numbers;
    private final LastCell lastCell = new LastCell();
    private final boolean separated;
    /** True when the file has one byte a character. */
    private final boolean narrow;

    private final @Nullable DatePattern datePattern;
    private final int dateCell;

    RowScreen(Layout layout, TitleBinding titles, AmountFormat numbers, RowProblems problems) {
        this.numbers = numbers;
        this.equations = layout.equations().toArray(RowEquation[]::new);
        this.format = layout.format();
        this.titles = titles;
        this.problems = problems;
        this.count = layout.stated().count();
        this.stated = layout.stated().labels().toArray(String[]::new);
        this.filters = layout.filters().toArray(RowFilter[]::new);
        this.expectations = layout.expectations().toArray(RowFilter[]::new);
        this.separated = format.kind() == FileKind.SEPARATED;
        this.narrow =
                !format.encoding().startsWith("UTF-") && !format.encoding().equals(FileFormat.AUTO);
        FieldSource date = layout.fields().get(layout.gives().date());
        int[] places = titles.places.get(layout.gives().date());
        if (date != null && places != null && places.length > 0) {
            this.datePattern = date.date();
            this.dateCell = places[0];
        } else {
            this.datePattern = null;
            this.dateCell = -1;
        }
    }

    /** False for a row that need not be looked at for it: one with a cell under each title, of more than one. */
    boolean mayBeBlank(Row row) {
        return row.size() < titles.width || row.size() == 1;
    }

    /** True for the row that the layout says the data end with. */
    boolean endsData(Row row) {
        String until = format.until();
        if (until.isEmpty()) {
            return false;
        }
        for (int i = 0; i < row.size(); i++) {
            int start = Spans.trimStart(row.bytes(), row.start(i), row.end(i));
            if (Spans.startsWith(row.bytes(), start, row.end(i), until)) {
                // A narrative may begin with the same words: a row with a date of its own is data.
                return !hasDate(row);
            }
        }
        return false;
    }

    /** True for a row that states a figure of the file as a whole, among the rows of data. */
    boolean isStated(Row row) {
        if (stated.length == 0) {
            return false;
        }
        for (int i = 0; i < row.size(); i++) {
            int start = Spans.trimStart(row.bytes(), row.start(i), row.end(i));
            if (start == row.end(i)) {
                continue;
            }
            boolean counts =
                    count != null && row.bytes()[start] <= '9' && row.trimmed(i).endsWith(count);
            for (String label : stated) {
                if (counts || Spans.startsWith(row.bytes(), start, row.end(i), label)) {
                    return !hasDate(row);
                }
            }
            if (row.size() >= titles.width) {
                // In a row of full width only the first cell that is filled can be a label.
                return false;
            }
        }
        return false;
    }

    boolean hasDate(Row row) {
        return dateCell >= 0
                && datePattern != null
                && row.size() >= titles.width
                && DatePattern.isDate(datePattern.parse(row.bytes(), row.start(dateCell), row.end(dateCell)));
    }

    /** True when a filter of the layout leaves the row out. */
    boolean isFilteredOut(Row row) {
        for (int i = 0; i < filters.length; i++) {
            if (filters[i].leavesOut(row, titles.filters[i])) {
                return true;
            }
        }
        return false;
    }

    /** Why a row of the right width is no data; {@code null} when it is. */
    @Nullable
    LeftOut aside(Row row) {
        if (row.isBlank()) {
            return LeftOut.BLANK;
        }
        return dateCell >= 0 && titles.isRepeatedBy(row) ? LeftOut.TITLES_AGAIN : null;
    }

    /** False, with a finding, when the row has not a cell for each title. */
    boolean fitsWidth(Row row) {
        if (titles.lacksCell(row)) {
            problems.add(
                    Rule.CELLS_MISSING,
                    "",
                    Row.NO_CELL,
                    "the row had fewer cells than titles, and where one was missing nothing was put yet",
                    "put each cell under its title, and take the words '" + Row.NO_CELL + "' out");
            return false;
        }
        if (row.size() == titles.width) {
            return true;
        }
        if (row.size() < titles.width && format.kind() == FileKind.WORKBOOK) {
            // A workbook does not keep the blank cells at the end of a row.
            row.pad(titles.width);
            return true;
        }
        String count = "has " + row.size() + " cells, but there are " + titles.width + " titles";
        if (row.size() < titles.width) {
            problems.add(Rule.CELLS_MISSING, "", row.text(0), count, "was the row broken in two, or a separator lost?");
            return false;
        }
        for (int i = titles.width; i < row.size(); i++) {
            if (Spans.trimStart(row.bytes(), row.start(i), row.end(i)) < row.end(i)) {
                String why = "a text with '" + format.separator() + "' in it is probably not quoted";
                problems.add(Rule.CELLS_EXTRA, "", row.text(i), count, why);
                return false;
            }
        }
        return true;
    }

    /** Notes what is wrong with a row of data, whatever its cells hold. */
    void look(Row row) {
        String shorter = separated ? lastCell.cutOff(row) : null;
        if (shorter != null) {
            problems.add(
                    Rule.ROW_CUT_OFF,
                    "",
                    shorter,
                    "the file ends here without a line end, and this figure is shorter than those above it",
                    "download the file again");
        }
        if (narrow && MixedEncoding.isIn(row)) {
            problems.add(
                    Rule.TEXT_MIXED_ENCODING,
                    "",
                    MixedEncoding.word(row),
                    "looks like UTF-8 that was read as " + format.encoding(),
                    "compare it with its source");
        }
        for (int i = 0; i < expectations.length; i++) {
            expect(row, expectations[i], titles.expectations[i]);
        }
        for (int i = 0; i < equations.length; i++) {
            addUp(row, equations[i], titles.equations[i]);
        }
        if (row.hasRemarks()) {
            lookAtRemarks(row);
        }
    }

    // Only where all of its columns are filled and can be read.
    private void addUp(Row row, RowEquation equation, int[] places) {
        long sum = 0;
        for (int i = 0; i < places.length; i++) {
            if (places[i] >= row.size()) {
                return;
            }
            long amount = numbers.parse(row.bytes(), row.start(places[i]), row.end(places[i]));
            if (!AmountFormat.isAmount(amount)) {
                return;
            }
            sum += i < equation.plus().size() ? amount : -amount;
        }
        if (sum != 0) {
            problems.add(
                    Rule.ROW_SUM_DIFFERS,
                    equation.plus().get(0),
                    row.trimmed(places[0]),
                    equation.words() + " does not hold in this row",
                    Rule.ROW_SUM_DIFFERS.remedy());
        }
    }

    private void expect(Row row, RowFilter expected, int place) {
        String cell = place < row.size() ? row.trimmed(place) : "";
        if (!cell.isEmpty() && expected.leavesOut(row, place)) {
            problems.add(
                    Rule.VALUE_UNKNOWN,
                    expected.column(),
                    cell,
                    "the layout expects only " + String.join(", ", expected.texts()) + " here",
                    "take the row out, or read it under a layout of its own");
        }
    }

    private void lookAtRemarks(Row row) {
        if (row.placeBetween() > 0) {
            problems.add(
                    Rule.TEXT_BETWEEN_COLUMNS,
                    "",
                    row.textBetween(),
                    format.gapAt(row.placeBetween()) + ", and what stands there would be lost",
                    "compare the places of the columns with this row");
        }
        if (row.hasQuoteInside()) {
            problems.add(Rule.QUOTE_INSIDE, "", row.text(0), "a quote stands inside an unquoted cell", "");
        }
    }
}
