package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.Level;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;

/**
 * How a receiver wants its documents: one sheet, or several joined by their keys, which appear together or not at all.
 * Immutable and reusable; built in code here or read from YAML by the files module.
 *
 * @param name the delivery's own name
 * @param takes the kind of documents
 * @param sheets its files, at least one
 */
public record Delivery(String name, Kind takes, List<Sheet> sheets) {
    public Delivery {
        Objects.requireNonNull(name);
        Objects.requireNonNull(takes);
        sheets = List.copyOf(sheets);
    }

    public static Builder named(String name, Kind takes) {
        return new Builder(name, takes);
    }

    /** True when documents of a kind can be delivered so: as they are, or as the journals that they amount to. */
    public boolean accepts(Kind kind) {
        return takes == kind || takes.isJournal() && kind.hasJournal();
    }

    /** What keeps the delivery from being proved or read, in words; empty when nothing does. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        if (sheets.isEmpty()) {
            gaps.add("a delivery has at least one sheet");
        }
        sheets.forEach(sheet -> gaps.addAll(sheet.gaps(takes)));
        if (sheets.stream().noneMatch(sheet -> sheet.carriesAmount(takes))) {
            gaps.add("no column carries the amount, so what is written could not be proved: give " + amountFields());
        }
        if (sheets.size() > 1) {
            joinGaps(gaps);
        }
        return gaps;
    }

    private void joinGaps(List<String> gaps) {
        if (sheets.stream().map(Sheet::name).distinct().count() < sheets.size()) {
            gaps.add("two sheets have the same name");
        }
        for (Sheet sheet : sheets) {
            List<Field> missing = sheet.missingKeys(takes);
            if (!missing.isEmpty()) {
                gaps.add("the sheet '" + sheet.name() + "' needs "
                        + missing.stream().map(f -> "'" + f.name() + "'").collect(Collectors.joining(" and "))
                        + ", so that its rows can be joined to those of the other sheets");
            }
        }
    }

    private String amountFields() {
        if (takes.plusSide() != null && takes.minusSide() != null) {
            return "'" + takes.amount().name() + "', or '" + takes.plusSide().name() + "' and '"
                    + takes.minusSide().name() + "'";
        }
        return "'" + takes.amount().name() + "'"
                + (takes.grossAmount() == null
                        ? ""
                        : " or '" + takes.grossAmount().name() + "'");
    }

    /** Collects a delivery. What is said of format, numbers and columns is said of the sheet begun last. */
    public static final class Builder {
        private static final DatePattern ISO = DatePattern.of("uuuu-MM-dd");

        private final String name;
        private final Kind takes;
        private final List<Sheet> sheets = new ArrayList<>();
        private String sheetName = "";
        private Level level;
        private DeliveryFormat format;
        private AmountFormat numbers;
        private List<DeliveryColumn> columns;
        private Frame frame;

        private Builder(String name, Kind takes) {
            this.name = name;
            this.takes = takes;
            begin("", takes.amount().level());
        }

        private void begin(String sheet, Level rows) {
            sheetName = sheet;
            level = rows;
            format = DeliveryFormat.csv(sheet.isEmpty() ? "{run}-{date}.csv" : "{run}-" + sheet + "-{date}.csv");
            numbers = AmountFormat.plain(2);
            columns = new ArrayList<>();
            frame = Frame.NONE;
        }

        private void end() {
            if (!columns.isEmpty() || !sheetName.isEmpty()) {
                sheets.add(new Sheet(sheetName, level, format, numbers, columns, frame));
            }
        }

        /** Begins a sheet of a delivery that has several; {@code rows} is the level of its rows. */
        public Builder sheet(String sheet, Level rows) {
            end();
            begin(Objects.requireNonNull(sheet), Objects.requireNonNull(rows));
            return this;
        }

        public Builder format(DeliveryFormat deliveryFormat) {
            format = deliveryFormat;
            return this;
        }

        /** Rows of the file that are no data. */
        public Builder frame(Frame rows) {
            frame = rows;
            return this;
        }

        public Builder numbers(AmountFormat amountFormat) {
            numbers = amountFormat;
            return this;
        }

        /** Adds a column; a date without a pattern is written as ISO 8601, {@code 2027-03-31}. */
        public Builder column(DeliveryColumn column) {
            boolean bare = column.field() != null && column.field().type() == FieldType.DATE && column.date() == null;
            columns.add(bare ? DeliveryColumn.date(column.title(), column.field(), ISO.pattern()) : column);
            return this;
        }

        public Builder column(String title, Field field) {
            return column(DeliveryColumn.of(title, field));
        }

        /** Throws {@link IllegalArgumentException} with all {@link Delivery#gaps()} when there are any. */
        public Delivery build() {
            Delivery delivery = buildUnchecked();
            if (!delivery.gaps().isEmpty()) {
                throw new IllegalArgumentException("delivery '" + name + "': " + String.join("; ", delivery.gaps()));
            }
            return delivery;
        }

        /** For readers of settings files, which report the gaps themselves. */
        public Delivery buildUnchecked() {
            List<Sheet> all = new ArrayList<>(sheets);
            if (!columns.isEmpty() || !sheetName.isEmpty() || all.isEmpty()) {
                all.add(new Sheet(sheetName, level, format, numbers, columns, frame));
            }
            return new Delivery(name, takes, all);
        }
    }
}
