package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.Level;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One file of a delivery: a row for each node of a level, with columns of that level and of those above. Immutable.
 *
 * @param name its name within the delivery; empty when it is the only one
 * @param level the level whose nodes are its rows
 * @param format the form of the file
 * @param numbers how amounts are written; the decimals are those of the run's currency
 * @param columns the columns in their order
 * @param frame rows of it that are no data
 */
public record Sheet(
        String name,
        Level level,
        DeliveryFormat format,
        AmountFormat numbers,
        List<DeliveryColumn> columns,
        Frame frame) {
    public Sheet {
        Objects.requireNonNull(frame);
        Objects.requireNonNull(name);
        Objects.requireNonNull(level);
        Objects.requireNonNull(format);
        Objects.requireNonNull(numbers);
        columns = List.copyOf(columns);
    }

    /** What keeps the sheet from being written or read, in words; empty when nothing does. */
    List<String> gaps(Kind takes) {
        List<String> gaps = new ArrayList<>();
        String called = name.isEmpty() ? "a delivery" : "the sheet '" + name + "'";
        if (columns.isEmpty()) {
            gaps.add(called + " has at least one column");
        }
        for (DeliveryColumn column : columns) {
            Field field = column.field();
            if (field != null
                    && (field.table() != takes.table() || field.level().depth() > level.depth())) {
                gaps.add("the column '" + column.title() + "' of " + called + " has the field " + field
                        + ", which its rows do not have");
            }
        }
        textGaps(takes, gaps);
        signGaps(takes, gaps);
        zerosGaps(gaps);
        String frameGap = frame.gap(summable());
        if (frameGap != null) {
            gaps.add(frameGap);
        }
        if (format.rowsAtMost() > 0 && !format.name().contains("{part}")) {
            gaps.add("'rows at most' needs {part} in the file name");
        }
        return gaps;
    }

    private void signGaps(Kind takes, List<String> gaps) {
        for (DeliveryColumn column : columns) {
            boolean amount = column.field() == takes.amount();
            if (column.sides() != null && !amount) {
                gaps.add("'side' of the column '" + column.title() + "' goes with the field '"
                        + takes.amount().name() + "'");
            }
            if (column.sign() == AmountSign.NONE && (!amount || sidesPlace() < 0)) {
                gaps.add("the column '" + column.title() + "' has no sign, and no column with 'side' says it of '"
                        + takes.amount().name() + "'");
            }
        }
    }

    private void zerosGaps(List<String> gaps) {
        for (DeliveryColumn column : columns) {
            String zeros = "'leading zeros' of the column '" + column.title() + "'";
            if (column.most() > 0 && column.zeros() > column.most()) {
                gaps.add(zeros + " are more than the " + column.most() + " characters that it takes");
            }
            boolean amount = column.field() != null && column.field().type() == FieldType.AMOUNT;
            if (amount && column.zeros() > 0 && numbers.thousandsMark() != 0) {
                gaps.add(zeros + " need 'thousands: none'");
            }
        }
    }

    private void textGaps(Kind takes, List<String> gaps) {
        for (DeliveryColumn column : columns) {
            FieldType own =
                    column.field() == null ? FieldType.TEXT : column.field().type();
            if (!column.text().more().isEmpty() && own != FieldType.TEXT && own != FieldType.CODE) {
                gaps.add("the column '" + column.title() + "' cannot be put together with others: " + column.field()
                        + " is neither a text nor a code");
            }
            for (Field field : column.text().more()) {
                boolean isText = field.type() == FieldType.TEXT || field.type() == FieldType.CODE;
                if (!isText || field.table() != takes.table() || field.level().depth() > level.depth()) {
                    gaps.add("the column '" + column.title() + "' cannot be put together with the field " + field
                            + ": only texts and codes of its rows can");
                }
            }
        }
    }

    /** Titles of the columns whose sums can be stated: amounts of the currency of the books, each title once. */
    private List<String> summable() {
        return columns.stream()
                .filter(column -> column.field() != null
                        && column.field().type() == FieldType.AMOUNT
                        && column.field().currency() == null)
                .map(DeliveryColumn::title)
                .filter(title -> columns.stream()
                                .filter(other -> other.title().equals(title))
                                .count()
                        == 1)
                .toList();
    }

    /** Rows above the data: the frame's, and the titles. */
    public int rowsAbove() {
        return frame.above().size() + (format.titles() ? 1 : 0) + frame.under().size();
    }

    /** The key fields that join its rows to those of the sheets above, and that it lacks. */
    List<Field> missingKeys(Kind takes) {
        List<Field> missing = new ArrayList<>();
        for (int depth = 0; depth <= level.depth(); depth++) {
            Field key = takes.key(depth);
            if (key != null && !has(key)) {
                missing.add(key);
            }
        }
        return missing;
    }

    /** True when it carries the amount of every line, so that what is written can be proved. */
    boolean carriesAmount(Kind takes) {
        int place = place(takes.amount());
        if (place >= 0 && columns.get(place).sign() == AmountSign.NONE && sidesPlace() < 0) {
            return false;
        }
        return level == takes.amount().level()
                && (has(takes.amount()) || has(takes.plusSide()) && has(takes.minusSide()) || has(takes.grossAmount()));
    }

    /** The place of the column that says the side of an amount without a sign; -1 when there is none. */
    int sidesPlace() {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).sides() != null) {
                return i;
            }
        }
        return -1;
    }

    boolean has(@Nullable Field field) {
        return place(field) >= 0;
    }

    /** The place of the first column with a field, from 0; -1 when there is none. */
    int place(@Nullable Field field) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).field() == field && columns.get(i).sides() == null) {
                return i;
            }
        }
        return -1;
    }
}
