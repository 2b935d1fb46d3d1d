package io.mivrel.intake;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Permissions;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Spans;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Reads one field of a row into a record. Compiled once from a {@link FieldSource}, bound to column places. */
abstract class CellReader {
    final Field field;
    /** How findings name the place: the column's title, or the field for a constant. */
    final String place;

    CellReader(Field field, String place) {
        this.field = field;
        this.place = place;
    }

    abstract void read(Row row, RecordBlock into, RowProblems problems);

    final void missing(RowProblems problems) {
        problems.add(
                Rule.VALUE_MISSING, place, "", field.name() + " is required and blank", "fill in " + field.meaning());
    }

    /**
     * Compiles a source whose columns were found at {@code places}; {@code isoToo} when dates may also come as
     * {@code uuuu-MM-dd}, as those of a workbook do that are dates there; {@code terms} are those of the layout.
     */
    static CellReader of(
            Field field,
            FieldSource source,
            int @Nullable [] places,
            String place,
            AmountFormat numbers,
            boolean isoToo,
            Permissions terms) {
        if (source.constant() != null || places == null) {
            return new Constant(field, source.date(), Objects.requireNonNull(source.constant()), numbers);
        }
        if (field.type() == FieldType.DATE) {
            return new Date(field, place, places[0], Objects.requireNonNull(source.date()), isoToo);
        }
        if (field.type() == FieldType.AMOUNT) {
            if (field.currency() != null) {
                return new ForeignAmount(field, place, places[0], numbers);
            }
            if (source.less() != null) {
                return new TwoColumns(field, place, places, numbers, source.less(), true, terms.netsSides());
            }
            if (source.columns().size() == 2) {
                return new TwoColumns(
                        field,
                        source.columns().get(0),
                        places,
                        numbers,
                        source.columns().get(1),
                        false,
                        false);
            }
            return source.side() == null
                    ? new Amount(field, place, places[0], numbers)
                    : new SidedAmount(field, place, places, numbers, source.side());
        }
        if (field.type() == FieldType.DECIMAL) {
            return new Decimal(field, place, places[0], numbers);
        }
        return places.length == 1 && source.values().isEmpty() && source.ifBlank() == null && source.extract() == null
                ? new Text(field, place, places[0])
                : new RichText(field, place, places, source);
    }

    private static final class Date extends CellReader {
        private static final int NEAR_DAYS = 7;

        private final int cell;
        private final DatePattern pattern;

        // The same day tends to come in row after row.
        private final byte[] last = new byte[32];
        private int lastLength = -1;
        private long lastDay;

        private final boolean isoToo;

        Date(Field field, String place, int cell, DatePattern pattern, boolean isoToo) {
            super(field, place);
            this.isoToo = isoToo;
            this.cell = cell;
            this.pattern = pattern;
        }

        private long day(byte[] bytes, int start, int end) {
            if (end - start == lastLength && Spans.same(bytes, start, last, 0, lastLength)) {
                return lastDay;
            }
            long day = pattern.parse(bytes, start, end);
            if (isoToo && !DatePattern.isDate(day) && DatePattern.isDate(DatePattern.ISO.parse(bytes, start, end))) {
                day = DatePattern.ISO.parse(bytes, start, end);
            }
            if (DatePattern.isDate(day) && end - start <= last.length) {
                lastLength = end - start;
                System.arraycopy(bytes, start, last, 0, lastLength);
                lastDay = day;
            }
            return day;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            byte[] bytes = row.bytes();
            int start = row.start(cell);
            int end = row.end(cell);
            long day = row.isPlain(cell) ? DatePattern.ISO.parse(bytes, start, end) : DatePattern.UNREADABLE;
            day = DatePattern.isDate(day) ? day : day(bytes, start, end);
            if (DatePattern.isDate(day)) {
                into.put(field, day);
            } else if (day == DatePattern.BLANK) {
                if (field.required()) {
                    missing(problems);
                }
            } else {
                String text = row.trimmed(cell);
                DatePattern.Refusal why = pattern.explain(text.length() > 100 ? text.substring(0, 100) : text);
                Rule rule = day == DatePattern.WRONG_WEEKDAY ? Rule.DATE_WEEKDAY : Rule.DATE_UNREADABLE;
                problems.add(rule, place, text, why.reason(), nearOnly(why.suggestion()));
            }
        }

        // A date far from that of the row before is not what was meant.
        private String nearOnly(String suggestion) {
            if (lastLength < 0 || suggestion.isEmpty()) {
                return suggestion;
            }
            List<String> candidates = Stream.of(suggestion.replace("?", "").split(" or "))
                    .filter(candidate -> DatePattern.isDate(pattern.parse(candidate)))
                    .toList();
            List<String> near = candidates.stream()
                    .filter(candidate -> Math.abs(pattern.parse(candidate) - lastDay) <= NEAR_DAYS)
                    .toList();
            return near.size() == candidates.size()
                    ? suggestion
                    : near.isEmpty()
                            ? "a row before it is of " + pattern.format(LocalDate.ofEpochDay(lastDay))
                            : String.join(" or ", near) + "?";
        }
    }

    private static final class Amount extends CellReader {
        private final int cell;
        private final AmountFormat format;
        private final AmountFormat plain;

        Amount(Field field, String place, int cell, AmountFormat format) {
            super(field, place);
            this.cell = cell;
            this.format = format;
            this.plain = AmountFormat.plain(format.decimals());
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            long amount = (row.isPlain(cell) ? plain : format).parse(row.bytes(), row.start(cell), row.end(cell));
            if (AmountFormat.isAmount(amount)) {
                into.put(field, amount);
            } else if (amount != AmountFormat.BLANK) {
                Rule rule = amount == AmountFormat.TOO_PRECISE
                        ? Rule.AMOUNT_TOO_PRECISE
                        : amount == AmountFormat.TOO_LARGE ? Rule.AMOUNT_TOO_LARGE : Rule.AMOUNT_UNREADABLE;
                String text = row.trimmed(cell);
                problems.unreadable(field);
                problems.add(rule, place, text, format.why(amount), text.length() > 60 ? "" : format.suggestion(text));
            }
        }
    }

    /** An amount with the decimals of the currency that another field of the row names. */
    private static final class ForeignAmount extends CellReader {
        private final int cell;
        private final AmountFormat numbers;
        private final Map<String, Amount> byCurrency = new HashMap<>();

        ForeignAmount(Field field, String place, int cell, AmountFormat numbers) {
            super(field, place);
            this.cell = cell;
            this.numbers = numbers;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            if (row.trimmed(cell).isEmpty()) {
                return;
            }
            Field currency = Objects.requireNonNull(field.currency());
            String code = into.text(currency);
            Amount reader = code == null ? null : byCurrency.computeIfAbsent(code, this::reader);
            if (reader == null) {
                String why = code == null
                        ? "'" + currency.name() + "' is blank, so the amount has no currency"
                        : "ISO 4217 has no such currency";
                problems.unreadable(field);
                problems.add(Rule.CURRENCY_UNKNOWN, place, code == null ? row.trimmed(cell) : code, why, "");
                return;
            }
            reader.read(row, into, problems);
        }

        private @Nullable Amount reader(String code) {
            try {
                int decimals = Money.decimals(Currency.getInstance(code));
                return new Amount(field, place, cell, numbers.withDecimals(decimals));
            } catch (IllegalArgumentException unknown) {
                return null;
            }
        }
    }

    /** An amount whose side stands in another column. */
    private static final class SidedAmount extends CellReader {
        private final Amount amount;
        private final int sideCell;
        private final FieldSource.Side side;

        SidedAmount(Field field, String place, int[] places, AmountFormat format, FieldSource.Side side) {
            super(field, place);
            this.amount = new Amount(field, place, places[0], format);
            this.sideCell = places[1];
            this.side = side;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            amount.read(row, into, problems);
            long value = into.number(field);
            if (value == SourceRecord.ABSENT) {
                return;
            }
            String word = row.trimmed(sideCell);
            boolean minus = side.minus().contains(word);
            if (!minus && !side.plus().contains(word)) {
                into.put(field, SourceRecord.ABSENT);
                problems.unreadable(field);
                problems.add(
                        Rule.VALUE_UNKNOWN,
                        side.column(),
                        word,
                        "the layout knows only " + String.join(", ", side.plus()) + " for plus and "
                                + String.join(", ", side.minus()) + " for minus",
                        "");
                return;
            }
            if (value < 0) {
                problems.add(
                        Rule.AMOUNT_NEGATIVE_ON_SIDE,
                        place,
                        row.trimmed(amount.cell),
                        "a negative amount marked " + word + " is taken to the other side",
                        "");
            }
            into.put(field, minus ? -value : value);
        }
    }

    /** An amount that stands in one of two columns, as it is signed or with the second taken off. */
    private static final class TwoColumns extends CellReader {
        private final Amount more;
        private final Amount less;

        private final boolean takenOff;
        /** True when a row with both means their difference. */
        private final boolean nets;

        TwoColumns(
                Field field,
                String place,
                int[] places,
                AmountFormat format,
                String second,
                boolean takenOff,
                boolean nets) {
            super(field, place);
            this.more = new Amount(field, place, places[0], format);
            this.less = new Amount(field, second, places[1], format);
            this.takenOff = takenOff;
            this.nets = nets;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            more.read(row, into, problems);
            long charged = into.number(field);
            into.put(field, SourceRecord.ABSENT);
            less.read(row, into, problems);
            long credited = into.number(field);
            if (problems.isUnreadable(field)) {
                into.put(field, SourceRecord.ABSENT);
            } else if (charged == SourceRecord.ABSENT || charged == 0 && credited != SourceRecord.ABSENT) {
                into.put(field, credited == SourceRecord.ABSENT || !takenOff ? credited : -credited);
            } else if (credited == SourceRecord.ABSENT || credited == 0) {
                into.put(field, charged);
            } else if (nets) {
                into.put(field, Math.subtractExact(charged, credited));
            } else {
                into.put(field, SourceRecord.ABSENT);
                problems.unreadable(field);
                problems.add(
                        Rule.AMOUNT_ON_BOTH_SIDES,
                        less.place,
                        row.trimmed(less.cell),
                        "'" + place + "' is filled too, with " + row.trimmed(more.cell),
                        "leave one of the two blank");
            }
        }
    }

    /** Quantities and prices: exact, with any number of decimals up to 12. */
    private static final class Decimal extends CellReader {
        private final int cell;
        private final AmountFormat format;

        Decimal(Field field, String place, int cell, AmountFormat format) {
            super(field, place);
            this.cell = cell;
            this.format = format;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            String text = row.trimmed(cell);
            if (text.isEmpty()) {
                return;
            }
            BigDecimal number = row.isPlain(cell) ? plain(text) : parse(text);
            if (number == null) {
                problems.unreadable(field);
                problems.add(Rule.AMOUNT_UNREADABLE, place, text, format.why(AmountFormat.UNREADABLE), "");
            } else {
                into.put(field, number);
            }
        }

        private static @Nullable BigDecimal plain(String text) {
            try {
                return new BigDecimal(text);
            } catch (NumberFormatException none) {
                return null;
            }
        }

        // The whole part follows the same strict rules as an amount; the decimals are kept as they are.
        private @Nullable BigDecimal parse(String text) {
            int mark = text.indexOf(format.decimalMark());
            String decimals = mark < 0 ? "" : text.substring(mark + 1);
            String whole = mark < 0 ? text : text.substring(0, mark);
            AmountFormat wholeNumbers = new AmountFormat(
                    0, format.decimalMark(), format.thousandsMark(), false, false, format.currencyMark());
            long value = wholeNumbers.parse(whole);
            boolean decimalsAreDigits =
                    decimals.length() <= 12 && decimals.chars().allMatch(c -> c >= '0' && c <= '9');
            if (!AmountFormat.isAmount(value) || !decimalsAreDigits || (mark >= 0 && decimals.isEmpty())) {
                return null;
            }
            BigDecimal size = new BigDecimal(Math.abs(value) + (decimals.isEmpty() ? "" : "." + decimals));
            return whole.startsWith("-") ? size.negate() : size;
        }
    }

    private static final class Text extends CellReader {
        private final int cell;
        private final boolean isCode;

        Text(Field field, String place, int cell) {
            super(field, place);
            this.cell = cell;
            this.isCode = field.type() == FieldType.CODE;
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            byte[] bytes = row.bytes();
            int start = Spans.trimStart(bytes, row.start(cell), row.end(cell));
            int end = Spans.trimEnd(bytes, start, row.end(cell));
            // A code as ="0012", so that a spreadsheet leaves it alone.
            if (isCode && end - start > 3 && bytes[start] == '=' && bytes[start + 1] == '"' && bytes[end - 1] == '"') {
                start += 2;
                end--;
            }
            // The same as '0012.
            if (isCode
                    && end - start > 1
                    && bytes[start] == '\''
                    && bytes[start + 1] >= '0'
                    && bytes[start + 1] <= '9') {
                start++;
            }
            if (start < end) {
                into.put(field, bytes, start, end);
                if (isCode) {
                    lookAtCode(bytes, start, end, problems);
                }
            } else if (field.required()) {
                missing(problems);
            }
        }

        // Two codes that look the same and are not one would be two documents, or two parties.
        private void lookAtCode(byte[] bytes, int start, int end, RowProblems problems) {
            boolean plain = bytes[start] >= '0' && bytes[start] != '=' && bytes[start] != '@';
            for (int i = start; plain && i < end; i++) {
                plain = bytes[i] >= ' ';
            }
            if (plain) {
                return;
            }
            String code = new String(bytes, start, end - start, StandardCharsets.UTF_8);
            int at = 0;
            while (at < code.length() && !isInvisible(code.charAt(at))) {
                at++;
            }
            if (at < code.length()) {
                problems.add(
                        Rule.CODE_INVISIBLE,
                        place,
                        code,
                        String.format("character %d is U+%04X, which cannot be seen", at + 1, (int) code.charAt(at)),
                        "take it out; a code without it looks the same and is another one");
            } else if ("=+-@".indexOf(code.charAt(0)) >= 0) {
                problems.add(
                        Rule.CODE_FORMULA,
                        place,
                        code,
                        "begins with '" + code.charAt(0) + "', which a spreadsheet may run",
                        "do not open the delivered file in a spreadsheet, or change the code");
            }
        }

        private static boolean isInvisible(char c) {
            int type = Character.getType(c);
            return type == Character.FORMAT
                    || type == Character.CONTROL
                    || type == Character.SPACE_SEPARATOR && c != ' ';
        }
    }

    private static final class RichText extends CellReader {
        private final int[] cells;
        private final String between;
        private final Map<String, String> values;
        private final @Nullable String ifBlank;
        private final @Nullable Pattern extract;

        RichText(Field field, String place, int[] cells, FieldSource source) {
            super(field, place);
            this.cells = cells;
            this.between = source.between();
            this.values = source.values();
            this.ifBlank = source.ifBlank();
            this.extract = source.extract();
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            String text = extracted(joined(row));
            if (text.isEmpty()) {
                if (ifBlank != null) {
                    into.put(field, ifBlank);
                } else if (field.required()) {
                    missing(problems);
                }
                return;
            }
            if (!values.isEmpty()) {
                String meant = values.get(text);
                if (meant == null) {
                    problems.add(
                            Rule.VALUE_UNKNOWN,
                            place,
                            text,
                            "the layout knows only "
                                    + String.join(
                                            ", ",
                                            values.keySet().stream().sorted().toList()),
                            "");
                    return;
                }
                text = meant;
            }
            into.put(field, text);
        }

        private String extracted(String text) {
            if (extract == null || text.isEmpty()) {
                return text;
            }
            Matcher matcher = extract.matcher(text);
            if (!matcher.find()) {
                return "";
            }
            String found = matcher.groupCount() > 0 ? matcher.group(1) : matcher.group();
            return found == null ? "" : found.strip();
        }

        private String joined(Row row) {
            StringBuilder joined = new StringBuilder();
            for (int cell : cells) {
                String text = row.trimmed(cell);
                if (!text.isEmpty()) {
                    joined.append(joined.isEmpty() ? "" : between).append(text);
                }
            }
            return joined.toString();
        }
    }

    private static final class Constant extends CellReader {
        private final @Nullable Object value;
        private final long number;

        Constant(Field field, @Nullable DatePattern date, String constant, AmountFormat numbers) {
            super(field, field.name());
            if (field.type() == FieldType.DATE) {
                value = null;
                number = Objects.requireNonNull(date).parse(constant);
            } else if (field.type() == FieldType.AMOUNT) {
                value = null;
                number = numbers.parse(constant);
            } else {
                value = field.type() == FieldType.DECIMAL ? new BigDecimal(constant) : constant;
                number = 0;
            }
        }

        @Override
        void read(Row row, RecordBlock into, RowProblems problems) {
            if (value instanceof String text) {
                into.put(field, text);
            } else if (value instanceof BigDecimal decimal) {
                into.put(field, decimal);
            } else {
                into.put(field, number);
            }
        }
    }
}
