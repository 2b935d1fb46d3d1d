package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.Shape;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * How a source file is laid out and which field comes from where. Immutable and reusable; built in code here or read
 * from YAML by the files module.
 */
public final class Layout {
    private final String name;
    private final Kind gives;
    private final String account;
    private final FileFormat form;
    private final AmountFormat numbers;
    private final Signs signs;
    private final Map<Field, FieldSource> fields;
    private final Set<String> unused;
    private final List<RowFilter> filters;
    private final List<Shape> shapes;
    private final List<String> columnsInOrder;

    private Layout(Builder builder) {
        this.name = builder.name;
        this.gives = builder.gives;
        this.account = builder.account;
        this.form = builder.form;
        this.numbers = builder.numbers;
        this.signs = builder.signs;
        this.fields = Collections.unmodifiableMap(new LinkedHashMap<>(builder.fields));
        this.unused = Collections.unmodifiableSet(new LinkedHashSet<>(builder.unused));
        this.filters = List.copyOf(builder.filters);
        this.shapes = List.copyOf(builder.shapes);
        this.columnsInOrder = List.copyOf(builder.columnsInOrder);
    }

    /** Starts a layout that gives records of a kind, such as {@code BankLines.KIND}. */
    public static Builder named(String name, Kind gives) {
        return new Builder(name, gives);
    }

    public String name() {
        return name;
    }

    public Kind gives() {
        return gives;
    }

    /** The account in the books that bank lines belong to; {@code null} for other records. */
    public String account() {
        return account;
    }

    public FileFormat format() {
        return form;
    }

    /** How amounts are written; the decimals are those of the books, set when a run binds the layout. */
    public AmountFormat numbers() {
        return numbers;
    }

    /** Whose plus the file's plus is. */
    public Signs signs() {
        return signs;
    }

    /** In the order given. */
    public Map<Field, FieldSource> fields() {
        return fields;
    }

    /** Titles of columns that are knowingly left aside. */
    public Set<String> unused() {
        return unused;
    }

    /** Which rows are left out by what stands in them. */
    public List<RowFilter> filters() {
        return filters;
    }

    /** What is done to the rows before they are flat, in order. */
    public List<Shape> shapes() {
        return shapes;
    }

    /** The titles of the file that the layout was made for, in order; empty when not kept. For comparisons only. */
    public List<String> columnsInOrder() {
        return columnsInOrder;
    }

    /** What is missing for the layout to give whole records, in words; empty when nothing is. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        for (Field field : gives.table().fields()) {
            if (field.required() && !field.derived() && !fields.containsKey(field)) {
                gaps.add("the field '" + field.name() + "' is required for " + gives.name());
            }
        }
        AmountRule rule = new AmountRule(gives);
        gaps.addAll(rule.gaps(fields.keySet()));
        return gaps;
    }

    /** Collects a layout. */
    public static final class Builder {
        private final String name;
        private final Kind gives;
        private String account;
        private FileFormat form = FileFormat.csv();
        private AmountFormat numbers = AmountFormat.marked(2, '.', ',');
        private Signs signs = Signs.AS_WRITTEN;
        private final Map<Field, FieldSource> fields = new LinkedHashMap<>();
        private final Set<String> unused = new LinkedHashSet<>();
        private final List<RowFilter> filters = new ArrayList<>();
        private final List<Shape> shapes = new ArrayList<>();
        private final List<String> columnsInOrder = new ArrayList<>();

        private Builder(String name, Kind gives) {
            this.name = Objects.requireNonNull(name);
            this.gives = Objects.requireNonNull(gives);
        }

        public Builder account(String code) {
            account = code;
            return this;
        }

        public Builder format(FileFormat fileForm) {
            form = Objects.requireNonNull(fileForm);
            return this;
        }

        public Builder numbers(AmountFormat format) {
            numbers = Objects.requireNonNull(format);
            return this;
        }

        public Builder signs(Signs meaning) {
            signs = Objects.requireNonNull(meaning);
            return this;
        }

        public Builder field(Field field, FieldSource source) {
            if (field.table() != gives.table()) {
                throw new IllegalArgumentException(
                        "the layout '" + name + "' gives " + gives.name() + ", but " + field + " is of another table");
            }
            fields.put(Objects.requireNonNull(field), Objects.requireNonNull(source));
            return this;
        }

        /** A field taken from the column with this title. */
        public Builder field(Field field, String title) {
            return field(field, FieldSource.column(title));
        }

        public Builder unused(String title) {
            unused.add(title);
            return this;
        }

        public Builder filter(RowFilter filter) {
            filters.add(Objects.requireNonNull(filter));
            return this;
        }

        public Builder columnInOrder(String title) {
            columnsInOrder.add(title);
            return this;
        }

        public Builder shape(Shape shape) {
            shapes.add(Objects.requireNonNull(shape));
            return this;
        }

        /** Throws {@link IllegalArgumentException} with all {@link Layout#gaps()} when there are any. */
        public Layout build() {
            Layout layout = buildUnchecked();
            List<String> gaps = layout.gaps();
            if (!gaps.isEmpty()) {
                throw new IllegalArgumentException("layout '" + name + "': " + String.join("; ", gaps));
            }
            return layout;
        }

        /** For readers of settings files, which report the gaps themselves. */
        public Layout buildUnchecked() {
            return new Layout(this);
        }
    }
}
