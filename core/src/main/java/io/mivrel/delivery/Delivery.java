package io.mivrel.delivery;

import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.JournalLines;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;

/**
 * How a receiver wants its file. Immutable and reusable; built in code here or read from YAML by the files module.
 *
 * @param name the delivery's own name
 * @param takes the kind of documents
 * @param format the form of the file
 * @param numbers how amounts are written; the decimals are those of the books
 * @param columns the columns in their order
 */
public record Delivery(
        String name, Takes takes, DeliveryFormat format, AmountFormat numbers, List<DeliveryColumn> columns) {

    public Delivery {
        Objects.requireNonNull(name);
        Objects.requireNonNull(takes);
        Objects.requireNonNull(format);
        Objects.requireNonNull(numbers);
        columns = List.copyOf(columns);
    }

    public static Builder named(String name, Takes takes) {
        return new Builder(name, takes);
    }

    /** What keeps the delivery from being proved or read, in words; empty when nothing does. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        if (columns.isEmpty()) {
            gaps.add("a delivery has at least one column");
        }
        if (!carriesAmount()) {
            gaps.add("no column carries the amount, so what is written could not be proved: give "
                    + switch (takes) {
                        case JOURNALS -> "'amount', or 'debit' and 'credit'";
                        case BANK_TRANSACTIONS -> "'amount', or 'money in' and 'money out'";
                        case INVOICES -> "'net' or 'gross'";
                    });
        }
        if (format.rowsAtMost() > 0 && !format.name().contains("{part}")) {
            gaps.add("'rows at most' needs {part} in the file name");
        }
        return gaps;
    }

    private boolean carriesAmount() {
        return switch (takes) {
            case JOURNALS -> has(JournalLines.AMOUNT) || has(JournalLines.DEBIT) && has(JournalLines.CREDIT);
            case BANK_TRANSACTIONS -> has(BankLines.AMOUNT) || has(BankLines.MONEY_IN) && has(BankLines.MONEY_OUT);
            case INVOICES -> has(InvoiceLines.NET) || has(InvoiceLines.GROSS);
        };
    }

    private boolean has(Field field) {
        return columns.stream().anyMatch(c -> c.field() == field);
    }

    /** Collects a delivery. */
    public static final class Builder {
        private static final DatePattern ISO = DatePattern.of("uuuu-MM-dd");
        private final String name;
        private final Takes takes;
        private DeliveryFormat form = DeliveryFormat.csv("{run}-{date}.csv");
        private AmountFormat numbers = AmountFormat.plain(2);
        private final List<DeliveryColumn> columns = new ArrayList<>();

        private Builder(String name, Takes takes) {
            this.name = name;
            this.takes = takes;
        }

        public Builder format(DeliveryFormat deliveryForm) {
            form = deliveryForm;
            return this;
        }

        public Builder numbers(AmountFormat format) {
            numbers = format;
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
            return new Delivery(name, takes, form, numbers, columns);
        }
    }
}
