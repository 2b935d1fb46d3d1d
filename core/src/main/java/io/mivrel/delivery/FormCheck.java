package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.DatePattern;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Holds a file, whoever wrote it, against the form that a delivery gives its files. For one thread. */
public final class FormCheck {
    private static final DatePattern ISO = DatePattern.of("uuuu-MM-dd");

    private final Sheet sheet;
    private final Kind takes;
    private final AmountFormat amounts;
    private final Currency currency;
    /** Whether figures are numbers, whose decimals nobody writes. */
    private final boolean numbers;

    private final List<Difference> found = new ArrayList<>();
    private final Map<String, Long> sums = new HashMap<>();
    /** What each document sums to, by its key. */
    private final Map<String, Long> balances = new LinkedHashMap<>();

    private final Map<String, Long> firstRows = new HashMap<>();
    private final Map<String, Integer> numberOf = new HashMap<>();
    private final int most;
    private int document;
    private long rows;
    private long all;

    /**
     * A difference.
     *
     * @param row the row of the file, from 1; 0 for the file as a whole
     * @param column the title of the column, or what else it is about
     * @param value what stands there
     * @param reason what is wrong with it
     */
    public record Difference(long row, String column, String value, String reason) {}

    /**
     * What was found.
     *
     * @param rows rows of data
     * @param documents documents that they make; 0 where no column tells
     * @param differences the first of them
     * @param all how many there are
     */
    public record Result(long rows, long documents, List<Difference> differences, long all) {}

    private FormCheck(Sheet sheet, Kind takes, Currency currency, int most) {
        this.most = most;
        this.sheet = sheet;
        this.takes = takes;
        this.currency = currency;
        this.amounts = sheet.numbers().withDecimals(Money.decimals(currency));
        this.numbers = sheet.format().kind().equals("workbook");
    }

    /**
     * Holds rows against a sheet of a delivery.
     *
     * @param currency the currency of amounts
     * @param rows the rows of the file, titles and all
     * @param most differences that are listed
     */
    public static Result of(Sheet sheet, Kind takes, Currency currency, RowSource rows, int most) throws IOException {
        FormCheck check = new FormCheck(sheet, takes, currency, most);
        check.read(rows);
        return new Result(check.rows, check.balances.size(), List.copyOf(check.found), check.all);
    }

    private void add(long row, String column, String value, String reason) {
        all++;
        if (found.size() < most) {
            found.add(new Difference(row, column, value, reason));
        }
    }

    private void read(RowSource source) throws IOException {
        expect(source, sheet.frame().above(), "a row above the titles");
        if (sheet.format().titles()) {
            titles(next(source, true));
        }
        expect(source, sheet.frame().under(), "a row under the titles");
        ArrayDeque<Cells> ahead = new ArrayDeque<>();
        int last = sheet.frame().last().size();
        for (Cells row = next(source, true); row != null; row = next(source, true)) {
            ahead.add(row);
            if (ahead.size() > last) {
                data(ahead.remove());
            }
        }
        if (ahead.size() < last) {
            add(0, "last rows", "", "the file ends without the " + last + " rows that stand under the data");
        }
        for (List<String> row : sheet.frame().last()) {
            Cells there = ahead.poll();
            if (there != null) {
                compare(there, row, "a row under the data");
            }
        }
        balances.forEach((key, balance) -> {
            if (takes.isJournal() && balance != 0) {
                add(
                        Objects.requireNonNull(firstRows.get(key)),
                        takes.words().one() + " " + key,
                        Money.show(balance, currency),
                        "does not sum to nil");
            }
        });
    }

    /** The cells of a row, and what keeps it from being read. */
    private record Cells(
            long number, List<String> texts, @Nullable String fault) {}

    private static @Nullable Cells next(RowSource source, boolean passBlank) throws IOException {
        Row row = source.next();
        while (row != null && passBlank && row.fault() == null && row.isBlank()) {
            row = source.next();
        }
        if (row == null) {
            return null;
        }
        List<String> texts = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            texts.add(row.text(i));
        }
        return new Cells(
                row.number(),
                texts,
                row.fault() == null
                        ? null
                        : row.fault()
                                .toString()
                                .toLowerCase(java.util.Locale.ROOT)
                                .replace('_', ' '));
    }

    private void expect(RowSource source, List<List<String>> rows, String what) throws IOException {
        for (List<String> row : rows) {
            if (row.stream().anyMatch(cell -> !cell.isBlank())) {
                Cells there = next(source, true);
                if (there == null) {
                    add(0, what, "", "the file ends before '" + String.join(" | ", row) + "'");
                } else {
                    compare(there, row, what);
                }
            }
        }
    }

    // Cell by cell; a row that is one text is compared without what divides cells.
    private void compare(Cells there, List<String> row, String what) {
        String mark = String.valueOf(sheet.format().separator());
        if (row.size() == 1) {
            String whole =
                    String.join("", there.texts()).replaceAll("[\\s\"]", "").replace(mark, "");
            String meant = row.get(0).replaceAll("[\\s\"](?![^{]*})", "").replace(mark, "");
            if (!pattern(meant).matcher(whole).matches()) {
                add(there.number(), what, String.join(mark, there.texts()), "is to be '" + row.get(0) + "'");
            }
            return;
        }
        for (int i = 0; i < Math.max(row.size(), there.texts().size()); i++) {
            String cell = i < there.texts().size() ? there.texts().get(i).strip() : "";
            String meant = i < row.size() ? row.get(i).strip() : "";
            String counted = counted(meant);
            if (counted != null
                    ? !isSame(cell, counted)
                    : !pattern(meant).matcher(cell).matches()) {
                add(
                        there.number(),
                        what,
                        cell,
                        counted == null
                                ? "is to be '" + meant + "'"
                                : "is to be " + counted + ", " + meant.replaceAll("[{}]", ""));
            }
        }
    }

    private boolean isSame(String cell, String counted) {
        return cell.equals(counted)
                || numbers
                        && isNumber(cell)
                        && isNumber(counted)
                        && new BigDecimal(cell).compareTo(new BigDecimal(counted)) == 0;
    }

    private static boolean isNumber(String text) {
        return text.matches("-?[0-9]+([.][0-9]+)?");
    }

    // A count or a sum; null for what is neither.
    private @Nullable String counted(String meant) {
        if (meant.equals("{rows}")) {
            return Long.toString(rows);
        }
        if (meant.equals("{documents}")) {
            return balances.isEmpty() ? null : Long.toString(balances.size());
        }
        if (meant.startsWith("{sum of ") && meant.endsWith("}")) {
            CellBuffer text = new CellBuffer();
            AmountRenderer.append(sums.getOrDefault(meant.substring(8, meant.length() - 1), 0L), amounts, 0, text);
            return text.toString();
        }
        return null;
    }

    // What is counted is compared also where it is only a part of the cell.
    private Pattern pattern(String text) {
        Matcher counts = Pattern.compile("\\{[^{}]*}").matcher(text);
        String meant = counts.replaceAll(found -> {
            String counted = counted(found.group());
            return Matcher.quoteReplacement(counted == null ? found.group() : counted);
        });
        Matcher filled = Pattern.compile("\\{[^{}]*}").matcher(meant);
        StringBuilder pattern = new StringBuilder();
        int from = 0;
        while (filled.find()) {
            pattern.append(Pattern.quote(meant.substring(from, filled.start()))).append(".*");
            from = filled.end();
        }
        return Pattern.compile(pattern + Pattern.quote(meant.substring(from)));
    }

    private void titles(@Nullable Cells row) {
        if (row == null) {
            add(0, "titles", "", "the file has no row of titles");
            return;
        }
        for (int i = 0; i < Math.max(row.texts().size(), sheet.columns().size()); i++) {
            String there = i < row.texts().size() ? row.texts().get(i).strip() : "";
            String meant =
                    i < sheet.columns().size() ? sheet.columns().get(i).title().strip() : "";
            if (!there.equals(meant)) {
                add(row.number(), "title " + (i + 1), there, "is to be '" + meant + "'");
            }
        }
    }

    private void data(Cells row) {
        rows++;
        if (row.fault() != null) {
            add(row.number(), "row", String.join(" | ", row.texts()), row.fault());
            return;
        }
        int size = row.texts().size();
        boolean right = numbers
                ? size <= sheet.columns().size()
                : size == sheet.columns().size();
        if (!right) {
            add(
                    row.number(),
                    "row",
                    String.join(" | ", row.texts()),
                    "has " + size + " cells; there are " + sheet.columns().size() + " columns");
            return;
        }
        Map<Field, Long> figures = new HashMap<>();
        int place = sheet.place(takes.key());
        String key = place < 0 || place >= size ? null : row.texts().get(place);
        if (key != null) {
            numberOf.putIfAbsent(key, numberOf.size() + 1);
        }
        document = key == null ? 0 : Objects.requireNonNull(numberOf.get(key));
        for (int i = 0; i < sheet.columns().size(); i++) {
            DeliveryColumn column = sheet.columns().get(i);
            String cell = i < size ? row.texts().get(i) : "";
            cell(row.number(), column, cell, figures);
        }
        int amount = sheet.place(takes.amount());
        boolean isUnsigned = amount >= 0 && sheet.columns().get(amount).sign() == AmountSign.NONE;
        int side = isUnsigned ? sheet.sidesPlace() : -1;
        Long unsigned = figures.get(takes.amount());
        if (side >= 0 && side < size && unsigned != null) {
            Sides sides = Objects.requireNonNull(sheet.columns().get(side).sides());
            figures.put(takes.amount(), row.texts().get(side).equals(sides.minus()) ? -unsigned : unsigned);
        }
        count(row.number(), key, figures);
    }

    private void count(long row, @Nullable String key, Map<Field, Long> figures) {
        if (key == null) {
            return;
        }
        Long one = figures.get(takes.amount());
        Long amount = one != null
                ? one
                : Long.valueOf(
                        figures.getOrDefault(takes.plusSide(), 0L) - figures.getOrDefault(takes.minusSide(), 0L));
        boolean carries = sheet.carriesAmount(takes);
        balances.merge(key, carries ? amount : 0L, Math::addExact);
        firstRows.putIfAbsent(key, row);
    }

    private void cell(long row, DeliveryColumn column, String cell, Map<Field, Long> figures) {
        Field field = column.field();
        String constant = column.constant();
        if (constant != null) {
            require(cell.equals(constant), row, column, cell, "is to be '" + constant + "' in every row");
        } else if (column.counts() == Counting.ROWS) {
            String number = CountRenderer.text(rows, column.zeros());
            require(cell.equals(number), row, column, cell, "is to be " + number + ", the number of the row");
        } else if (column.counts() == Counting.DOCUMENTS && document > 0) {
            String number = CountRenderer.text(document, column.zeros());
            require(cell.equals(number), row, column, cell, "is to be " + number + ", the number of the document");
        } else if (column.sides() != null) {
            Sides sides = column.sides();
            boolean known = cell.equals(sides.plus()) || cell.equals(sides.minus());
            require(known, row, column, cell, "is neither '" + sides.plus() + "' nor '" + sides.minus() + "'");
        } else if (field != null && cell.isBlank()) {
            require(!column.must(), row, column, cell, "is blank, and the column is required");
        } else if (field != null) {
            switch (field.type()) {
                case DATE -> day(row, column, cell);
                case AMOUNT -> amount(row, column, field, cell, figures);
                case TEXT, CODE, DECIMAL -> text(row, column, field, cell);
            }
        }
    }

    private void require(boolean holds, long row, DeliveryColumn column, String cell, String reason) {
        if (!holds) {
            add(row, column.title(), cell, reason);
        }
    }

    private void day(long row, DeliveryColumn column, String cell) {
        DatePattern pattern = column.dateCell() ? ISO : Objects.requireNonNull(column.date());
        boolean day = pattern.parse(cell) > DatePattern.WRONG_WEEKDAY;
        require(day, row, column, cell, "is not a day written " + pattern.pattern());
    }

    private void amount(long row, DeliveryColumn column, Field field, String cell, Map<Field, Long> figures) {
        if (field.currency() != null) {
            return;
        }
        long value = amounts.parse(cell);
        if (!AmountFormat.isAmount(value)) {
            add(row, column.title(), cell, amounts.why(value));
            return;
        }
        CellBuffer written = new CellBuffer();
        AmountRenderer.append(value, amounts, column.zeros(), written);
        boolean blank = value == 0 && column.blankZero();
        require(!blank, row, column, cell, "is nil, which is left blank");
        require(numbers || blank || written.toString().equals(cell), row, column, cell, "is written " + written);
        figures.put(field, column.sign().of(value));
        sums.merge(column.title(), value, Math::addExact);
    }

    private void text(long row, DeliveryColumn column, Field field, String cell) {
        TextForm form = column.text();
        int length = cell.codePointCount(0, cell.length());
        require(
                column.most() == 0 || length <= column.most(),
                row,
                column,
                cell,
                "has " + length + " characters; the column takes " + column.most());
        require(
                form.words().isEmpty() || form.words().containsValue(cell),
                row,
                column,
                cell,
                "is not among "
                        + String.join(
                                ", ", form.words().values().stream().sorted().toList()));
        boolean refused = cell.chars().anyMatch(c -> form.refuse().indexOf(c) >= 0);
        require(!refused, row, column, cell, "has a character of " + form.refuse() + ", which is refused");
        require(
                !form.squeezed() || cell.equals(cell.strip().replaceAll("\\s+", " ")),
                row,
                column,
                cell,
                "has blanks too many");
        boolean digits = field.type() == FieldType.CODE && cell.matches("[0-9]+");
        require(!digits || length >= column.zeros(), row, column, cell, "has fewer than " + column.zeros() + " digits");
    }
}
