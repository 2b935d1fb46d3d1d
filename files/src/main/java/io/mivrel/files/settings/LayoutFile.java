package io.mivrel.files.settings;

import com.google.re2j.Pattern;
import io.mivrel.files.keys.FormatKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.keys.ShapeKeys;
import io.mivrel.kinds.Kinds;
import io.mivrel.layout.Credits;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Permissions;
import io.mivrel.layout.RowEquation;
import io.mivrel.layout.Signs;
import io.mivrel.layout.StatementColumns;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.Shape;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads a layout from YAML. */
final class LayoutFile {
    /** The layout, or {@code null} when it cannot be used; then its problems were reported. */
    static Layout read(Path path, String shown, Problems problems) {
        int before = problems.count();
        SettingsNode form = SettingsNode.open(path, shown, problems);
        if (form == null) {
            return null;
        }
        String name = form.required(LayoutKeys.LAYOUT);
        String gives = form.required(LayoutKeys.GIVES);
        Optional<Kind> kind = gives == null ? Optional.empty() : Kinds.ofRecords(gives);
        if (gives != null && kind.isEmpty()) {
            form.notAllowed(
                    LayoutKeys.GIVES, gives, Kinds.ALL.stream().map(Kind::name).toList());
        }
        if (name == null || kind.isEmpty()) {
            readRest(form, path);
            return null;
        }
        FileFormat file = FormatSettings.source(form.block(LayoutKeys.FILE));
        if (form.has(LayoutKeys.CREDITS) && !kind.get().hasCredits()) {
            form.at(
                    LayoutKeys.CREDITS,
                    "'credits' has no effect on " + kind.get().name() + ", of which none is a credit",
                    "");
        }
        Layout.Builder layout = Layout.named(name, kind.get())
                .account(form.text(LayoutKeys.ACCOUNT))
                .format(file)
                .credits(Credits.of(form.choice(LayoutKeys.CREDITS)));
        if (form.text(LayoutKeys.SIGNS) != null) {
            layout.signs(Signs.of(form.choice(LayoutKeys.SIGNS)));
        }
        if (acrossFiles(form)) {
            layout.acrossFiles();
        }
        new LayoutFile(form, file, kind.get(), layout, path).read();
        form.done();
        if (problems.count() > before) {
            return null;
        }
        Layout built = layout.buildUnchecked();
        built.gaps().forEach(gap -> form.at(LayoutKeys.FIELDS, gap, ""));
        return problems.count() > before ? null : built;
    }

    private static boolean acrossFiles(SettingsNode form) {
        return form.isSecond(LayoutKeys.DOCUMENTS);
    }

    // What else is wrong is told at once: the keys that do not depend on the kind, and those that no kind would know.
    private static void readRest(SettingsNode form, Path path) {
        FileFormat file = FormatSettings.source(form.block(LayoutKeys.FILE));
        Kind any = Kinds.ALL.stream().filter(k -> !k.isOfAccount()).findFirst().orElseThrow();
        Layout.Builder unused = Layout.named("-", any);
        form.choice(LayoutKeys.SIGNS);
        form.choice(LayoutKeys.CREDITS);
        form.text(LayoutKeys.ACCOUNT);
        acrossFiles(form);
        LayoutFile rest = new LayoutFile(form, file, any, unused, path);
        rest.readShape();
        SettingsNode fields = form.block(LayoutKeys.FIELDS);
        if (fields != null) {
            List<String> known = Kinds.ALL.stream()
                    .flatMap(kind -> kind.table().readable().stream())
                    .distinct()
                    .toList();
            for (String key : fields.keys()) {
                List<Field> meant = Kinds.ALL.stream()
                        .flatMap(kind -> kind.table().find(key).stream())
                        .toList();
                if (meant.isEmpty()) {
                    fields.keyNotAllowed(key, known);
                } else {
                    rest.source(fields.block(key), meant.get(0));
                }
            }
        }
        form.done();
    }

    private final SettingsNode form;
    private final FileFormat file;
    private final Kind kind;
    private final Layout.Builder layout;
    private final Path path;
    private final AmountFormat numbers;

    private LayoutFile(SettingsNode form, FileFormat file, Kind kind, Layout.Builder layout, Path path) {
        this.form = form;
        this.file = file;
        this.kind = kind;
        this.layout = layout;
        this.path = path;
        // Statement formats other than QIF write their amounts in one way only.
        boolean own = file.kind().isStatement() && file.kind() != FileKind.QIF;
        this.numbers = own ? AmountFormat.plain(2) : FormatSettings.numbers(form.block(LayoutKeys.NUMBERS), true);
    }

    private void read() {
        readShape();
        readAllFields();
    }

    private void readShape() {
        layout.numbers(numbers);
        layout.terms(terms());
        form.texts(LayoutKeys.UNUSED).forEach(layout::unused);
        form.texts(LayoutKeys.IN_ORDER).forEach(layout::columnInOrder);
        List<RowFilter> apart = filters(LayoutKeys.LEAVE_OUT, false);
        filters(LayoutKeys.ONLY, true);
        for (SettingsNode cell : form.blocks(LayoutKeys.EXPECT)) {
            String column = cell.required(FormatKeys.COLUMN);
            List<String> is = cell.texts(LayoutKeys.IS);
            cell.done();
            if (column != null && is.isEmpty()) {
                cell.wrong("an entry of 'expect' needs 'is'", "{column: Currency, is: EUR}");
            } else if (column != null) {
                layout.expect(new RowFilter(columnRef(column), RowFilter.Test.IS, is, true));
            }
        }
        for (SettingsNode sum : form.blocks(LayoutKeys.ROW_SUMS)) {
            List<String> plus = sum.texts(LayoutKeys.PLUS);
            List<String> minus = sum.texts(LayoutKeys.MINUS);
            sum.done();
            if (plus.isEmpty() || minus.isEmpty()) {
                sum.wrong("an entry of 'row sums' needs 'plus' and 'minus'", "{plus: Gross, minus: [Net, Fee]}");
            } else {
                layout.equation(new RowEquation(
                        plus.stream().map(LayoutFile::columnRef).toList(),
                        minus.stream().map(LayoutFile::columnRef).toList()));
            }
        }
        SettingsNode whose = form.block(LayoutKeys.WHOSE);
        if (whose != null) {
            layout.whose(whose(whose));
        }
        SettingsNode stated = form.block(LayoutKeys.STATED);
        if (stated != null) {
            layout.stated(new FigureLabels(
                    stated.text(LayoutKeys.OPENING),
                    stated.text(LayoutKeys.CLOSING),
                    stated.text(LayoutKeys.IN),
                    stated.text(LayoutKeys.OUT),
                    stated.text(LayoutKeys.COUNT),
                    stated.yes(LayoutKeys.OWED, false),
                    stated.texts(LayoutKeys.CARRIED),
                    stated.texts(LayoutKeys.TOTALS)));
            stated.done();
        }
        for (Shape shape : ShapeSettings.read(form, file, apart)) {
            layout.shape(shape);
            if (shape instanceof FanOut && kind.isOfAccount()) {
                form.at(ShapeKeys.FAN_OUT, "bank lines are not fanned out: each is one movement", "");
            }
        }
    }

    private static Whose whose(SettingsNode form) {
        Map<String, Whose.Mark> marks = new LinkedHashMap<>();
        String column = null;
        for (Key mark : LayoutKeys.MARKS) {
            String what = mark.name();
            SettingsNode said = form.block(mark);
            if (said == null) {
                continue;
            }
            String label = said.text(LayoutKeys.LABEL);
            List<String> is = said.texts(LayoutKeys.IS);
            String ofRows = what.equals(Whose.NUMBER) ? said.text(LayoutKeys.ANY_COLUMN) : null;
            said.done();
            if (ofRows != null) {
                column = columnRef(ofRows);
            } else if (label == null || is.isEmpty()) {
                said.wrong("'" + what + "' needs 'label' and 'is'", "{label: Account, is: \"12345678\"}");
            } else {
                marks.put(what, new Whose.Mark(label, is));
            }
        }
        form.done();
        return new Whose(marks, column);
    }

    private Permissions terms() {
        List<String> allowed = form.texts(LayoutKeys.ALLOW);
        allowed.stream()
                .filter(a -> !Permissions.WORDS.contains(a))
                .forEach(a -> form.notAllowed(LayoutKeys.ALLOW, a, Permissions.WORDS));
        return new Permissions(
                allowed.contains(Permissions.NET),
                allowed.contains(Permissions.NIL),
                allowed.contains(Permissions.HOME),
                allowed.contains(Permissions.PARTIES),
                FormatSettings.dates(form, LayoutKeys.FOR_DATES));
    }

    private void readAllFields() {
        SettingsNode fields = form.block(LayoutKeys.FIELDS);
        if (file.kind().isStatement()) {
            if (kind != StatementColumns.KIND) {
                form.at(
                        LayoutKeys.GIVES,
                        "a statement gives " + StatementColumns.KIND.name() + ", not " + kind.name(),
                        "");
                return;
            }
            StatementColumns.fields(file.kind()).forEach(layout::field);
        } else if (fields == null) {
            form.wrong("the layout lacks 'fields'", "");
        }
        if (fields != null) {
            readFields(fields);
        }
    }

    private List<RowFilter> filters(Key key, boolean keep) {
        List<RowFilter> filters = new ArrayList<>();
        for (SettingsNode filter : form.blocks(key)) {
            String column = filter.text(LayoutKeys.ANY_COLUMN, "");
            List<String> is = filter.texts(LayoutKeys.IS);
            List<String> begins = filter.texts(LayoutKeys.BEGINS);
            List<String> contains = filter.texts(LayoutKeys.CONTAINS);
            filter.done();
            if ((is.isEmpty() ? 0 : 1) + (begins.isEmpty() ? 0 : 1) + (contains.isEmpty() ? 0 : 1) != 1) {
                filter.wrong("an entry of '" + key + "' needs one of 'is', 'begins' and 'contains'", "");
                continue;
            }
            RowFilter.Test test = !is.isEmpty()
                    ? RowFilter.Test.IS
                    : !begins.isEmpty() ? RowFilter.Test.BEGINS : RowFilter.Test.CONTAINS;
            List<String> texts = !is.isEmpty() ? is : !begins.isEmpty() ? begins : contains;
            filters.add(new RowFilter(columnRef(column), test, texts, keep));
        }
        filters.forEach(layout::filter);
        return filters;
    }

    private void readFields(SettingsNode fields) {
        for (String key : fields.keys()) {
            Optional<Field> field = kind.table().find(key).filter(f -> !f.derived());
            if (field.isEmpty()) {
                fields.keyNotAllowed(key, kind.table().readable());
            } else {
                FieldSource source = source(fields.block(key), field.get());
                if (source != null) {
                    layout.field(field.get(), source);
                }
            }
        }
    }

    private FieldSource source(SettingsNode form, Field field) {
        List<String> columns = new ArrayList<>();
        List<String> titles = form.texts(LayoutKeys.ONE_COLUMN);
        titles.stream().limit(1).forEach(c -> columns.add(columnRef(c)));
        form.texts(LayoutKeys.COLUMNS).forEach(c -> columns.add(columnRef(c)));
        String constant = form.text(LayoutKeys.CONSTANT);
        boolean iso = file.kind() == FileKind.WORKBOOK
                || (file.kind().isStatement() && file.kind() != FileKind.QIF)
                || constant != null && !form.has(FormatKeys.PATTERN);
        DatePattern date =
                field.type() == FieldType.DATE ? FormatSettings.pattern(form, iso ? "uuuu-MM-dd" : null) : null;
        boolean texty = isText(field);
        String between = texty ? form.text(LayoutKeys.BETWEEN, " ") : " ";
        String ifBlank = texty ? form.text(LayoutKeys.IF_BLANK) : null;
        Map<String, String> values = texty ? values(form) : Map.of();
        Pattern take = texty ? ShapeSettings.take(form) : null;
        FieldSource.Side side = field.type() == FieldType.AMOUNT ? side(form.block(LayoutKeys.SIDE)) : null;
        String less = field.type() == FieldType.AMOUNT ? form.text(LayoutKeys.LESS) : null;
        form.done();
        String takenOff = less == null ? null : columnRef(less);
        FieldSource source = new FieldSource(
                columns,
                between,
                date,
                values,
                constant,
                ifBlank,
                take,
                side,
                takenOff,
                titles.stream().skip(1).toList());
        return fits(form, field, source) ? source : null;
    }

    private boolean fits(SettingsNode form, Field field, FieldSource source) {
        int columns = source.columns().size();
        String constant = source.constant();
        boolean alone = source.side() == null && source.less() == null;
        if (columns == 0 == (constant == null)) {
            form.wrong("'" + field.name() + "' needs either 'column' or 'constant'", "");
        } else if (columns > 1 && !isText(field) && !(field.type() == FieldType.AMOUNT && columns == 2 && alone)) {
            form.wrong("'" + field.name() + "' is " + field.type().one() + " and comes from one column only", "");
        } else if (constant != null && !isUsable(constant, field, source.date(), numbers)) {
            form.at(
                    LayoutKeys.CONSTANT,
                    "'" + constant + "' is not " + field.type().one(),
                    "");
        } else if (source.less() != null && (constant != null || source.side() != null)) {
            form.at(LayoutKeys.LESS, "'less' goes with 'column' alone", "");
        } else {
            return true;
        }
        return false;
    }

    private static boolean isText(Field field) {
        return field.type() == FieldType.TEXT || field.type() == FieldType.CODE;
    }

    private static FieldSource.Side side(SettingsNode form) {
        if (form == null) {
            return null;
        }
        String column = form.required(FormatKeys.COLUMN);
        List<String> plus = form.texts(LayoutKeys.PLUS);
        List<String> minus = form.texts(LayoutKeys.MINUS);
        form.done();
        if (column == null || plus.isEmpty() || minus.isEmpty()) {
            form.wrong("'side' needs 'column', 'plus' and 'minus'", "side: {column: D/C, plus: D, minus: C}");
            return null;
        }
        return new FieldSource.Side(columnRef(column), plus, minus);
    }

    // A whole number is the place of a column, so a title of digits only is named by its place.
    static String columnRef(String column) {
        return column.matches("[1-9][0-9]{0,4}") ? "#" + column : column;
    }

    private static boolean isUsable(String constant, Field field, DatePattern date, AmountFormat numbers) {
        return switch (field.type()) {
            case DATE -> date == null || DatePattern.isDate(date.parse(constant));
            case AMOUNT -> AmountFormat.isAmount(numbers.parse(constant));
            case DECIMAL -> isDecimal(constant);
            default -> true;
        };
    }

    private static boolean isDecimal(String text) {
        try {
            return new BigDecimal(text).scale() <= 12;
        } catch (NumberFormatException e) {
            return false;
        }
    }

    private Map<String, String> values(SettingsNode form) {
        Map<String, String> values = new LinkedHashMap<>();
        String from = form.text(LayoutKeys.VALUES_FROM);
        if (from != null) {
            lookup(form, from, values);
        }
        SettingsNode here = form.block(LayoutKeys.VALUES);
        if (here != null) {
            for (String key : here.keys()) {
                String value = here.text(key);
                if (value != null) {
                    values.put(key, value);
                }
            }
        }
        return values;
    }

    // A list that is too long for the layout stands in a CSV file beside it.
    private void lookup(SettingsNode form, String from, Map<String, String> values) {
        Path folder = path.toAbsolutePath().getParent();
        Table table = Table.read(folder.resolve(from), from, List.of("from", "to"), List.of(), form.problems());
        if (table == null) {
            return;
        }
        form.problems().table(folder.resolve(from).normalize());
        for (Table.Line line : table.lines()) {
            String key = line.required("from");
            String value = line.required("to");
            if (key != null && value != null && values.put(key, value) != null) {
                line.wrong("'" + key + "' stands twice", "");
            }
        }
    }
}
