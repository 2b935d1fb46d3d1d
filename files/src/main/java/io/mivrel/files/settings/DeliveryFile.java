package io.mivrel.files.settings;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.forms.RowForms;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.Key;
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
        String name = form.required(DeliveryKeys.DELIVERY);
        String takes = form.required(DeliveryKeys.TAKES);
        Optional<Kind> kind = takes == null ? Optional.empty() : Kinds.ofDocuments(takes);
        if (takes != null && kind.isEmpty()) {
            form.notAllowed(
                    DeliveryKeys.TAKES,
                    takes,
                    Kinds.ALL.stream().map(Kind::documents).toList());
        }
        if (name == null || kind.isEmpty()) {
            return null;
        }
        Delivery.Builder delivery = Delivery.named(name, kind.get());
        SettingsNode sheets = form.block(DeliveryKeys.SHEETS);
        if (sheets == null) {
            sheet(form, kind.get(), delivery);
        } else {
            sheets(sheets, kind.get(), delivery);
        }
        form.done();
        if (problems.count() > before) {
            return null;
        }
        Key place = sheets == null ? DeliveryKeys.COLUMNS : DeliveryKeys.SHEETS;
        Delivery built = delivery.buildUnchecked();
        built.gaps().forEach(gap -> form.at(place, gap, ""));
        for (Sheet sheet : built.sheets()) {
            checkEncodable(sheet, form);
            RowForms.of(sheet.format().kind()).gaps(sheet).forEach(gap -> form.at(place, gap, ""));
        }
        return problems.count() > before ? null : built;
    }

    // Several files, each with a form and columns of its own.
    private static void sheets(SettingsNode sheets, Kind kind, Delivery.Builder delivery) {
        List<String> levels = kind.table().levels().stream().map(Level::name).toList();
        for (String sheetName : sheets.keys()) {
            SettingsNode sheet = sheets.block(sheetName);
            String rows = sheet.required(DeliveryKeys.ROWS);
            Optional<Level> level = kind.table().levels().stream()
                    .filter(l -> l.name().equals(rows))
                    .findFirst();
            if (rows != null && level.isEmpty()) {
                sheet.notAllowed(DeliveryKeys.ROWS, rows, levels);
            }
            delivery.sheet(sheetName, level.orElse(kind.table().deepest()));
            sheet(sheet, kind, delivery);
            sheet.done();
        }
    }

    private static void sheet(SettingsNode form, Kind kind, Delivery.Builder delivery) {
        DeliveryFormat format = FormatSettings.delivery(form.block(DeliveryKeys.FILE));
        // A form of a program's own may have places too.
        boolean wide = !List.of(DeliveryFormat.SEPARATED, RowForms.WORKBOOK).contains(format.kind());
        delivery.format(format).numbers(FormatSettings.numbers(form.block(DeliveryKeys.NUMBERS), false));
        SettingsNode columns = form.block(DeliveryKeys.COLUMNS);
        if (columns == null) {
            form.wrong("the delivery lacks 'columns'", "");
            return;
        }
        for (String title : columns.keys()) {
            DeliveryColumn column = column(title, columns.block(title), kind, wide);
            if (column != null) {
                delivery.column(column);
            }
        }
    }

    private static DeliveryColumn column(String title, SettingsNode form, Kind kind, boolean wide) {
        String constant = form.text(DeliveryKeys.CONSTANT);
        Key fieldKey = DeliveryKeys.field(kind);
        String fieldName = form.text(fieldKey);
        if ((constant == null) == (fieldName == null)) {
            form.wrong("the column '" + title + "' needs either 'field' or 'constant'", "");
            return null;
        }
        if (constant != null) {
            DeliveryColumn same = DeliveryColumn.constant(title, constant)
                    .wide(wide ? form.number(DeliveryKeys.WIDTH) : 0, wide && form.isSecond(DeliveryKeys.ALIGN));
            form.done();
            return same;
        }
        Optional<Field> field = kind.table().find(fieldName);
        if (field.isEmpty()) {
            form.notAllowed(fieldKey, fieldName, fieldKey.words());
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
                text ? form.number(DeliveryKeys.AT_MOST) : 0,
                text ? form.text(DeliveryKeys.REFUSE, "") : "",
                amount && form.yes(DeliveryKeys.BLANK_ZERO, false),
                amount && form.isSecond(DeliveryKeys.SIGN),
                type == FieldType.CODE || amount ? form.number(DeliveryKeys.ZEROS) : 0,
                wide ? form.number(DeliveryKeys.WIDTH) : 0,
                wide && form.isSecond(DeliveryKeys.ALIGN));
        form.done();
        return column;
    }

    private static void checkEncodable(Sheet delivery, SettingsNode form) {
        var encoder = Charset.forName(delivery.format().encoding()).newEncoder();
        for (DeliveryColumn column : delivery.columns()) {
            String constant = column.constant() == null ? "" : column.constant();
            if (!encoder.canEncode(column.title() + constant)) {
                form.at(
                        DeliveryKeys.COLUMNS,
                        delivery.format().encoding() + " cannot write the column '" + column.title() + "'",
                        "encoding: UTF-8");
            }
        }
    }
}
