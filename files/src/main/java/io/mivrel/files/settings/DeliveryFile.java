package io.mivrel.files.settings;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.Sheet;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.Level;
import io.mivrel.text.DatePattern;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;

/** Reads a delivery from YAML. */
final class DeliveryFile {
    private DeliveryFile() {}

    /** The delivery, or {@code null} when it cannot be used; then its problems were reported. */
    static Delivery read(Path path, String shown, Problems problems) {
        int before = problems.count();
        SettingsNode form = SettingsNode.open(path, shown, problems);
        if (form == null) {
            return null;
        }
        String name = form.required("delivery");
        String takes = form.required("takes");
        Optional<Kind> kind = takes == null ? Optional.empty() : Kinds.ofDocuments(takes);
        if (takes != null && kind.isEmpty()) {
            form.notAllowed(
                    "takes", takes, Kinds.ALL.stream().map(Kind::documents).toList());
        }
        if (name == null || kind.isEmpty()) {
            return null;
        }
        Delivery.Builder delivery = Delivery.named(name, kind.get());
        SettingsNode sheets = form.block("sheets");
        if (sheets == null) {
            sheet(form, kind.get(), delivery);
        } else {
            sheets(sheets, kind.get(), delivery);
        }
        form.done();
        if (problems.count() > before) {
            return null;
        }
        Delivery built = delivery.buildUnchecked();
        built.gaps().forEach(gap -> form.at(sheets == null ? "columns" : "sheets", gap, ""));
        built.sheets().forEach(sheet -> checkEncodable(sheet, form));
        return problems.count() > before ? null : built;
    }

    // Several files, each with a form and columns of its own.
    private static void sheets(SettingsNode sheets, Kind kind, Delivery.Builder delivery) {
        List<String> levels = kind.table().levels().stream().map(Level::name).toList();
        for (String sheetName : sheets.keys()) {
            SettingsNode sheet = sheets.block(sheetName);
            String rows = sheet.required("rows");
            Optional<Level> level = kind.table().levels().stream()
                    .filter(l -> l.name().equals(rows))
                    .findFirst();
            if (rows != null && level.isEmpty()) {
                sheet.notAllowed("rows", rows, levels);
            }
            delivery.sheet(sheetName, level.orElse(kind.table().deepest()));
            sheet(sheet, kind, delivery);
            sheet.done();
        }
    }

    private static void sheet(SettingsNode form, Kind kind, Delivery.Builder delivery) {
        delivery.format(FormatSettings.delivery(form.block("file")))
                .numbers(FormatSettings.numbers(form.block("numbers"), false));
        SettingsNode columns = form.block("columns");
        if (columns == null) {
            form.wrong("the delivery lacks 'columns'", "");
            return;
        }
        for (String title : columns.keys()) {
            DeliveryColumn column = column(title, columns.block(title), kind);
            if (column != null) {
                delivery.column(column);
            }
        }
    }

    private static DeliveryColumn column(String title, SettingsNode form, Kind kind) {
        String constant = form.text("constant");
        String fieldName = form.text("field");
        if ((constant == null) == (fieldName == null)) {
            form.wrong("the column '" + title + "' needs either 'field' or 'constant'", "");
            return null;
        }
        if (constant != null) {
            form.done();
            return DeliveryColumn.constant(title, constant);
        }
        Optional<Field> field = kind.table().find(fieldName);
        if (field.isEmpty()) {
            List<String> all = kind.table().fields().stream().map(Field::name).toList();
            form.notAllowed("field", fieldName, all);
            return null;
        }
        FieldType type = field.get().type();
        DatePattern date = type == FieldType.DATE ? FormatSettings.pattern(form, null) : null;
        boolean amount = type == FieldType.AMOUNT;
        boolean text = type == FieldType.TEXT || type == FieldType.CODE;
        DeliveryColumn column = new DeliveryColumn(
                title,
                field.get(),
                null,
                date,
                text ? form.number("at most", 0, 1, 10_000) : 0,
                text ? form.text("refuse", "") : "",
                amount && form.yes("blank zero", false),
                amount
                        && form.choice("sign", "as reckoned", "as reckoned", "turned")
                                .equals("turned"));
        form.done();
        return column;
    }

    private static void checkEncodable(Sheet delivery, SettingsNode form) {
        var encoder = Charset.forName(delivery.format().encoding()).newEncoder();
        for (DeliveryColumn column : delivery.columns()) {
            String constant = column.constant() == null ? "" : column.constant();
            if (!encoder.canEncode(column.title() + constant)) {
                form.at(
                        "columns",
                        delivery.format().encoding() + " cannot write the column '" + column.title() + "'",
                        "encoding: UTF-8");
            }
        }
    }
}
