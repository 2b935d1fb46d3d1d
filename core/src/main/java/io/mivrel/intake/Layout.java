package io.mivrel.intake;

import io.mivrel.cells.AmountFormat;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
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
    private final FieldTable gives;
    private final String account;
    private final TextForm form;
    private final AmountFormat numbers;
    private final boolean signsReversed;
    private final Map<Field, FieldSource> fields;
    private final Set<String> unused;

    private Layout(Builder builder) {
        this.name = builder.name;
        this.gives = builder.gives;
        this.account = builder.account;
        this.form = builder.form;
        this.numbers = builder.numbers;
        this.signsReversed = builder.signsReversed;
        this.fields = Collections.unmodifiableMap(new LinkedHashMap<>(builder.fields));
        this.unused = Collections.unmodifiableSet(new LinkedHashSet<>(builder.unused));
    }

    /** Starts a layout that gives records of one of the tables, such as {@code BankLines.TABLE}. */
    public static Builder named(String name, FieldTable gives) {
        return new Builder(name, gives);
    }

    public String name() {
        return name;
    }

    public FieldTable gives() {
        return gives;
    }

    /** The account in the books that bank lines belong to; {@code null} for other records. */
    public String account() {
        return account;
    }

    public TextForm form() {
        return form;
    }

    /** How amounts are written; the decimals are those of the books, set when a run binds the layout. */
    public AmountFormat numbers() {
        return numbers;
    }

    /** True when the file's plus is our minus, as on card statements. */
    public boolean signsReversed() {
        return signsReversed;
    }

    /** In the order given. */
    public Map<Field, FieldSource> fields() {
        return fields;
    }

    /** Titles of columns that are knowingly left aside. */
    public Set<String> unused() {
        return unused;
    }

    /** What is missing for the layout to give whole records, in words; empty when nothing is. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        for (Field field : gives.fields()) {
            if (field.required() && !field.derived() && !fields.containsKey(field)) {
                gaps.add("the field '" + field.name() + "' is required for " + gives.name());
            }
        }
        AmountRule rule = AmountRule.of(gives);
        gaps.addAll(rule.gaps(fields.keySet()));
        return gaps;
    }

    /** Collects a layout. */
    public static final class Builder {
        private final String name;
        private final FieldTable gives;
        private String account;
        private TextForm form = TextForm.csv();
        private AmountFormat numbers = new AmountFormat(2, '.', ',', false, false, "");
        private boolean signsReversed;
        private final Map<Field, FieldSource> fields = new LinkedHashMap<>();
        private final Set<String> unused = new LinkedHashSet<>();

        private Builder(String name, FieldTable gives) {
            this.name = Objects.requireNonNull(name);
            this.gives = Objects.requireNonNull(gives);
        }

        public Builder account(String code) {
            account = code;
            return this;
        }

        public Builder form(TextForm textForm) {
            form = Objects.requireNonNull(textForm);
            return this;
        }

        public Builder numbers(AmountFormat format) {
            numbers = Objects.requireNonNull(format);
            return this;
        }

        public Builder signsReversed(boolean reversed) {
            signsReversed = reversed;
            return this;
        }

        public Builder field(Field field, FieldSource source) {
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
