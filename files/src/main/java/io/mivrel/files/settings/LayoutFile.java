package io.mivrel.files.settings;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads a layout from YAML. */
final class LayoutFile {
    private LayoutFile() {}

    /** The layout, or {@code null} when it cannot be used; then its problems were reported. */
    static Layout read(Path path, String shown, Problems problems) {
        int before = problems.count();
        Form form = Form.open(path, shown, problems);
        if (form == null) {
            return null;
        }
        String name = form.required("layout");
        List<String> kinds = FieldTable.all().stream().map(FieldTable::name).toList();
        String gives = form.required("gives");
        Optional<FieldTable> table =
                FieldTable.all().stream().filter(t -> t.name().equals(gives)).findFirst();
        if (gives != null && table.isEmpty()) {
            form.notAllowed("gives", gives, kinds);
        }
        if (name == null || table.isEmpty()) {
            return null;
        }
        Layout.Builder layout = Layout.named(name, table.get())
                .account(form.text("account"))
                .form(FileForms.text(form.block("file")))
                .signsReversed(form.choice("signs", "as written", "as written", "reversed")
                        .equals("reversed"));
        AmountFormat numbers = FileForms.numbers(form.block("numbers"), true);
        layout.numbers(numbers);
        form.texts("unused").forEach(layout::unused);
        Form fields = form.block("fields");
        if (fields == null) {
            form.wrong("the layout lacks 'fields'", "");
        } else {
            readFields(fields, table.get(), layout, numbers);
        }
        form.done();
        if (problems.count() > before) {
            return null;
        }
        Layout built = layout.buildUnchecked();
        built.gaps().forEach(gap -> form.at("fields", gap, ""));
        return problems.count() > before ? null : built;
    }

    private static void readFields(Form fields, FieldTable table, Layout.Builder layout, AmountFormat numbers) {
        for (String key : fields.keys()) {
            Optional<Field> field = table.find(key).filter(f -> !f.derived());
            if (field.isEmpty()) {
                fields.keyNotAllowed(key, table.readable());
            } else {
                FieldSource source = source(fields.block(key), field.get(), numbers);
                if (source != null) {
                    layout.field(field.get(), source);
                }
            }
        }
    }

    private static FieldSource source(Form form, Field field, AmountFormat numbers) {
        List<String> columns = new ArrayList<>();
        form.texts("column").forEach(c -> columns.add(columnRef(c)));
        form.texts("columns").forEach(c -> columns.add(columnRef(c)));
        String constant = form.text("constant");
        DatePattern date = field.type() == FieldType.DATE ? FileForms.pattern(form) : null;
        boolean texty = field.type() == FieldType.TEXT || field.type() == FieldType.CODE;
        String between = texty ? form.text("between", " ") : " ";
        String ifBlank = texty ? form.text("if blank") : null;
        Map<String, String> values = texty ? values(form.block("values")) : Map.of();
        form.done();
        if (columns.isEmpty() == (constant == null)) {
            form.wrong("'" + field.name() + "' needs either 'column' or 'constant'", "");
            return null;
        }
        if (columns.size() > 1 && !texty) {
            form.wrong("'" + field.name() + "' is a " + field.type().word() + " and comes from one column only", "");
            return null;
        }
        if (constant != null && !isUsable(constant, field, date, numbers)) {
            form.at("constant", "'" + constant + "' is no " + field.type().word(), "");
            return null;
        }
        return new FieldSource(columns, between, date, values, constant, ifBlank);
    }

    // A whole number is the place of a column, so a title of digits only is named by its place.
    private static String columnRef(String column) {
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

    private static Map<String, String> values(Form form) {
        Map<String, String> values = new LinkedHashMap<>();
        if (form != null) {
            for (String key : form.keys()) {
                String value = form.text(key);
                if (value != null) {
                    values.put(key, value);
                }
            }
        }
        return values;
    }
}
