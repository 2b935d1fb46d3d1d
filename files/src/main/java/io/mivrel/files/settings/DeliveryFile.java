package io.mivrel.files.settings;

import io.mivrel.delivery.AmountSign;
import io.mivrel.delivery.Counting;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Sheet;
import io.mivrel.delivery.Sides;
import io.mivrel.delivery.TextForm;
import io.mivrel.files.forms.RowForms;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.Level;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/** Reads a delivery from YAML. */
final class DeliveryFile {
    private DeliveryFile() {}

    /** The delivery, or {@code null} when it cannot be used; then its problems were reported. */
    static Delivery read(Path path, String shown, Problems problems) {
        return read(path, shown, problems, new ArrayList<>());
    }

    private static Delivery read(Path path, String shown, Problems problems, List<Path> above) {
        int before = problems.count();
        SettingsNode form = open(path, shown, problems, above);
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

    // With what it takes from the delivery that it is like.
    private static SettingsNode open(Path path, String shown, Problems problems, List<Path> before) {
        SettingsNode form = SettingsNode.open(path, shown, problems);
        String like = form == null ? null : form.text(DeliveryKeys.LIKE);
        if (like == null) {
            return form;
        }
        before.add(path.normalize());
        Path other = path.resolveSibling(like).normalize();
        if (before.contains(other)) {
            form.at(DeliveryKeys.LIKE, "the delivery would be like itself", "");
            return null;
        }
        problems.table(other);
        // Mistakes of the other are told with its own name and lines.
        int found = problems.count();
        if (read(other, like, problems, new ArrayList<>(before)) == null || problems.count() > found) {
            return null;
        }
        SettingsNode base = open(other, like, problems, before);
        return base == null ? null : form.over(base, DeliveryKeys.COLUMNS);
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
        SettingsNode file = form.block(DeliveryKeys.FILE);
        DeliveryFormat format = FormatSettings.delivery(file);
        // A form of a program's own may have places too.
        boolean wide = !List.of(DeliveryFormat.SEPARATED, RowForms.WORKBOOK).contains(format.kind());
        boolean dates = !List.of(DeliveryFormat.SEPARATED, RowForms.FIXED).contains(format.kind());
        delivery.format(format)
                .frame(FormatSettings.frame(file))
                .numbers(FormatSettings.numbers(form.block(DeliveryKeys.NUMBERS), false));
        if (file != null) {
            file.done();
        }
        SettingsNode columns = form.block(DeliveryKeys.COLUMNS);
        if (columns == null) {
            form.wrong("the delivery lacks 'columns'", "");
            return;
        }
        for (String title : columns.keys()) {
            SettingsNode block = columns.block(title);
            boolean dropped = block.yes(DeliveryKeys.DROP, false);
            DeliveryColumn column = dropped ? null : column(title, block, kind, wide, dates);
            if (column != null) {
                delivery.column(column);
            }
        }
    }

    private static DeliveryColumn column(String name, SettingsNode form, Kind kind, boolean wide, boolean dates) {
        String title = form.text(DeliveryKeys.TITLE, name);
        String constant = form.text(DeliveryKeys.CONSTANT);
        Key fieldKey = DeliveryKeys.field(kind);
        List<String> names = form.texts(fieldKey);
        boolean counts = form.has(DeliveryKeys.COUNTS);
        if ((constant == null ? 0 : 1) + (names.isEmpty() ? 0 : 1) + (counts ? 1 : 0) != 1) {
            form.wrong("the column '" + name + "' needs one of 'field', 'constant' and 'counts'", "");
            return null;
        }
        List<Field> fields = new ArrayList<>();
        for (String field : names) {
            kind.table()
                    .find(field)
                    .ifPresentOrElse(fields::add, () -> form.notAllowed(fieldKey, field, fieldKey.words()));
        }
        if (fields.size() < names.size()) {
            return null;
        }
        DeliveryColumn column = constant != null
                ? DeliveryColumn.constant(title, constant)
                : counts
                        ? counting(title, form)
                        : ofField(title, fields.get(0), fields.subList(1, fields.size()), form);
        if (dates && column.date() != null && form.isSecond(DeliveryKeys.CELL)) {
            column = column.dateCells();
        }
        if (wide) {
            column = column.wide(form.number(DeliveryKeys.WIDTH), form.isSecond(DeliveryKeys.ALIGN));
        }
        form.done();
        return column;
    }

    private static DeliveryColumn counting(String title, SettingsNode form) {
        Counting counting = form.isSecond(DeliveryKeys.COUNTS) ? Counting.DOCUMENTS : Counting.ROWS;
        return DeliveryColumn.counting(title, counting).zeros(form.number(DeliveryKeys.ZEROS));
    }

    private static DeliveryColumn ofField(String title, Field field, List<Field> more, SettingsNode form) {
        FieldType type = field.type();
        boolean amount = type == FieldType.AMOUNT;
        boolean text = type == FieldType.TEXT || type == FieldType.CODE;
        return new DeliveryColumn(
                title,
                field,
                null,
                null,
                type == FieldType.DATE ? FormatSettings.pattern(form, null) : null,
                false,
                text ? text(more, form) : TextForm.WHOLE.joined(" ", more),
                amount ? sides(form) : null,
                form.yes(DeliveryKeys.REQUIRED, false),
                amount && form.yes(DeliveryKeys.BLANK_ZERO, false),
                amount ? sign(form) : AmountSign.AS_RECKONED,
                type == FieldType.CODE || amount ? form.number(DeliveryKeys.ZEROS) : 0,
                0,
                false);
    }

    private static AmountSign sign(SettingsNode form) {
        String word = form.choice(DeliveryKeys.SIGN);
        return Stream.of(AmountSign.values())
                .filter(sign -> sign.word().equals(word))
                .findFirst()
                .orElseThrow();
    }

    private static Sides sides(SettingsNode form) {
        List<String> words = form.texts(DeliveryKeys.SIDE);
        if (words.isEmpty()) {
            return null;
        }
        if (words.size() != 2 || words.get(0).equals(words.get(1))) {
            form.at(DeliveryKeys.SIDE, "'side' has two words that differ: for plus, and for minus", "side: [D, C]");
            return null;
        }
        return new Sides(words.get(0), words.get(1));
    }

    private static TextForm text(List<Field> more, SettingsNode form) {
        String divider = form.text(DeliveryKeys.DIVIDED, "");
        int part = form.number(DeliveryKeys.PART);
        if (divider.isEmpty() != (part == 0)) {
            form.wrong("'part' and 'divided by' go together", "part: 2, divided by: \"-\"");
        }
        SettingsNode values = form.block(DeliveryKeys.VALUES);
        return new TextForm(
                more,
                more.isEmpty() ? " " : form.text(LayoutKeys.BETWEEN, " "),
                form.yes(DeliveryKeys.SQUEEZE, false),
                ShapeSettings.take(form),
                divider,
                Math.max(1, part),
                values == null ? Map.of() : values.all(),
                form.text(DeliveryKeys.REFUSE, ""),
                form.number(DeliveryKeys.AT_MOST));
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
