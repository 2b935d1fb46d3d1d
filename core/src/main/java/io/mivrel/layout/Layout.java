package io.mivrel.layout;

import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowOrder;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.Shape;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * How a source file is laid out and which field comes from where. Immutable and reusable; built in code here or read
 * from YAML by the files module.
 *
 * @param gives the kind of its records
 * @param account the account in the books that bank lines belong to, or {@link #BY_NUMBER}; {@code null} for other records
 * @param numbers how amounts are written; the decimals are those of the books, set when a run binds the layout
 * @param signs whose plus the file's plus is
 * @param signsSaid false when the layout does not say so itself, and amounts are taken as they are written
 * @param credits how the figures of credits are written; of kinds that have none it says nothing
 * @param fields where each field comes from, in the order given
 * @param unused titles of columns that are knowingly left aside
 * @param filters which rows are left out by what stands in them
 * @param shapes what is done to the rows before they are flat, in order
 * @param stated labels of balances beside the rows
 * @param expectations what each row must hold, or it is held
 * @param equations what the columns of each row add up to, or it is held
 * @param whose whose files it reads; others are held
 * @param acrossFiles true when lines of one document may stand in several files of a run
 * @param terms what it lets pass, and for which days
 * @param columnsInOrder the titles of the file that the layout was made for; empty when not kept. For comparisons only
 */
public record Layout(
        String name,
        Kind gives,
        @Nullable String account,
        FileFormat format,
        AmountFormat numbers,
        Signs signs,
        boolean signsSaid,
        Credits credits,
        Map<Field, FieldSource> fields,
        Set<String> unused,
        List<RowFilter> filters,
        List<Shape> shapes,
        FigureLabels stated,
        List<RowFilter> expectations,
        List<RowEquation> equations,
        Whose whose,
        boolean acrossFiles,
        Permissions terms,
        List<String> columnsInOrder) {
    public Layout {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
        unused = Collections.unmodifiableSet(new LinkedHashSet<>(unused));
        filters = List.copyOf(filters);
        shapes = List.copyOf(shapes);
        expectations = List.copyOf(expectations);
        equations = List.copyOf(equations);
        columnsInOrder = List.copyOf(columnsInOrder);
    }

    /** In place of an account: each statement belongs to the account of the books that has its number. */
    public static final String BY_NUMBER = "by number";

    /** The same for the statements of one account of a file of several. */
    public Layout ofAccount(String code, String number) {
        FileFormat part = new FileFormat(
                format.kind(),
                format.separator(),
                format.encoding(),
                number,
                format.slices(),
                format.titlesRow(),
                format.titleRows(),
                format.dataRow(),
                format.until(),
                format.order());
        return new Layout(
                name,
                gives,
                code,
                part,
                numbers,
                signs,
                signsSaid,
                credits,
                fields,
                unused,
                filters,
                shapes,
                stated,
                expectations,
                equations,
                whose,
                acrossFiles,
                terms,
                columnsInOrder);
    }

    /** Starts a layout that gives records of a kind, such as {@code BankLines.KIND}. */
    public static Builder named(String name, Kind gives) {
        return new Builder(name, gives);
    }

    /** The currencies that it says its files have: beside the rows, or in each of them. */
    public List<String> statedCurrencies() {
        List<String> codes = new ArrayList<>();
        Whose.Mark said = whose.marks().get(Whose.CURRENCY);
        if (said != null) {
            codes.addAll(said.is());
        }
        Field own = gives.table().find("currency").orElse(null);
        for (RowFilter cell : expectations) {
            boolean ofRecords = own != null && fields.containsKey(own);
            if (!ofRecords
                    && cell.texts().size() == 1
                    && isCurrency(cell.texts().get(0))) {
                codes.add(cell.texts().get(0));
            }
        }
        return codes;
    }

    private static boolean isCurrency(String text) {
        return text.length() == 3
                && Currency.getAvailableCurrencies().stream()
                        .anyMatch(c -> c.getCurrencyCode().equals(text));
    }

    // A setting that changes nothing is a mistake, or a misunderstanding.
    private List<String> withoutEffect(AmountRule rule) {
        List<String> gaps = ofOtherKinds(rule);
        Field balance = gives.balance();
        boolean balances =
                balance != null && (fields.containsKey(balance) || format.kind().isStatement());
        boolean beside = stated.opening() != null || stated.closing() != null;
        boolean sides = rule.hasSides() && fields.containsKey(rule.plusSide());
        if (signs == Signs.BALANCE_REVERSED && !balances && !beside) {
            gaps.add("'signs: balance reversed' has no effect without a balance");
        }
        if (stated.owed() && !beside && !balances) {
            gaps.add("'stated: owed' has no effect without a balance");
        }
        if (!stated.carried().isEmpty() && !balances) {
            gaps.add("'stated: carried' has no effect without the balance of each row");
        }
        if (terms.netsSides() && !sides && fields.values().stream().allMatch(source -> source.less() == null)) {
            gaps.add("'allow: " + Permissions.NET
                    + "' has no effect without two sides, or an amount that another is taken from");
        }
        return gaps;
    }

    // Settings that only other kinds of records use.
    private List<String> ofOtherKinds(AmountRule rule) {
        List<String> gaps = new ArrayList<>();
        if (account != null && !gives.isOfAccount()) {
            gaps.add("'account' has no effect on " + gives.name() + ", which are of no one account");
        }
        if (format.order() != RowOrder.OLDEST_FIRST && !gives.isOfAccount()) {
            gaps.add("'order' has no effect on " + gives.name());
        }
        if (credits != Credits.POSITIVE && !gives.hasCredits()) {
            gaps.add("'credits' has no effect on " + gives.name() + ", of which none is a credit");
        }
        if (terms.blankIsNil() && !rule.hasSides()) {
            gaps.add("'allow: " + Permissions.NIL + "' has no effect on " + gives.name());
        }
        if (terms.partiesMissing() && !gives.isJournal() && !gives.isOfAccount()) {
            gaps.add("'allow: " + Permissions.PARTIES + "' has no effect on " + gives.name());
        }
        return gaps;
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
        boolean names = format.kind().isStatement() && format.part().isEmpty() || whose.numberColumn() != null;
        if (BY_NUMBER.equals(account) && !names) {
            gaps.add(
                    "'account: by number' is for statement formats, which name their accounts, without 'statements of';"
                            + " other files need 'whose: {number: {column: ...}}'");
        }
        if (signs != Signs.AS_WRITTEN && !rule.hasSides()) {
            gaps.add("'signs' has no effect on " + gives.name() + "; 'credits' says how a credit is written");
        }
        if (!stated.totals().isEmpty() && shapes.stream().anyMatch(FanOut.class::isInstance)) {
            gaps.add("'stated: totals' has no effect where rows are fanned out: no column of them is one amount");
        }
        gaps.addAll(withoutEffect(rule));
        if (signs == Signs.BY_BALANCE && (gives.balance() == null || !fields.containsKey(gives.balance()))) {
            gaps.add("with 'signs: by balance' the layout needs the balance");
        }
        if (signs == Signs.BY_BALANCE && format.order() != RowOrder.OLDEST_FIRST) {
            gaps.add("'signs: by balance' reads files with the oldest row first");
        }
        if (credits == Credits.BOTH_SIDES && fields.values().stream().allMatch(source -> source.less() == null)) {
            gaps.add("with 'credits: both sides' an amount needs 'less', the column of the credits");
        }
        return gaps;
    }

    /** Collects a layout. */
    public static final class Builder {
        private final String name;
        private final Kind gives;
        private @Nullable String account;
        private FileFormat form = FileFormat.csv();
        private AmountFormat numbers = AmountFormat.marked(2, '.', ',');
        private Signs signs = Signs.AS_WRITTEN;
        private boolean signsSaid;
        private Credits credits = Credits.POSITIVE;
        private final Map<Field, FieldSource> fields = new LinkedHashMap<>();
        private final Set<String> unused = new LinkedHashSet<>();
        private final List<RowFilter> filters = new ArrayList<>();
        private final List<Shape> shapes = new ArrayList<>();
        private final List<String> columnsInOrder = new ArrayList<>();
        private boolean acrossFiles;
        private Permissions terms = Permissions.STRICT;
        private FigureLabels stated = FigureLabels.NOTHING;
        private final List<RowFilter> expectations = new ArrayList<>();
        private final List<RowEquation> equations = new ArrayList<>();
        private Whose whose = Whose.ANYBODY;

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

        public Builder credits(Credits written) {
            credits = Objects.requireNonNull(written);
            return this;
        }

        public Builder stated(FigureLabels labels) {
            stated = Objects.requireNonNull(labels);
            return this;
        }

        /** A row in which the cell is filled and does not fit is held. */
        public Builder expect(RowFilter cell) {
            expectations.add(Objects.requireNonNull(cell));
            return this;
        }

        /** A row in which these columns are filled and do not add up is held. */
        public Builder equation(RowEquation columns) {
            equations.add(Objects.requireNonNull(columns));
            return this;
        }

        public Builder whose(Whose owner) {
            whose = Objects.requireNonNull(owner);
            return this;
        }

        /** The same reference in another file of the run is the same document. */
        public Builder acrossFiles() {
            acrossFiles = true;
            return this;
        }

        public Builder terms(Permissions taken) {
            terms = Objects.requireNonNull(taken);
            return this;
        }

        public Builder signs(Signs meaning) {
            signs = Objects.requireNonNull(meaning);
            signsSaid = true;
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
            return new Layout(
                    name,
                    gives,
                    account,
                    form,
                    numbers,
                    signs,
                    signsSaid,
                    credits,
                    fields,
                    unused,
                    filters,
                    shapes,
                    stated,
                    expectations,
                    equations,
                    whose,
                    acrossFiles,
                    terms,
                    columnsInOrder);
        }
    }
}
