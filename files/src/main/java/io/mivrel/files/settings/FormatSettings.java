package io.mivrel.files.settings;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Frame;
import io.mivrel.files.forms.RowForms;
import io.mivrel.files.keys.FormatKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.layout.DateWindow;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowOrder;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DateNames;
import io.mivrel.text.DatePattern;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The parts that layouts and deliveries have in common: the file's form, numbers and date patterns. */
final class FormatSettings {
    private static final Map<String, Character> SEPARATORS =
            Map.of("comma", ',', "semicolon", ';', "tab", '\t', "pipe", '|');
    private static final List<String> ENCODINGS =
            List.of("auto", "UTF-8", "windows-1252", "ISO-8859-1", "ISO-8859-15", "UTF-16LE", "UTF-16BE", "IBM850");

    private static final Pattern SLICE = Pattern.compile("([1-9][0-9]{0,4})(?: *- *([1-9][0-9]{0,4}))?");

    private static final Pattern TITLE_ROWS = Pattern.compile("rows ([1-9][0-9]{0,4})-([1-9][0-9]{0,4})");

    private FormatSettings() {}

    /** The {@code file} block of a layout. */
    static FileFormat source(SettingsNode form) {
        if (form == null) {
            return FileFormat.csv();
        }
        FileKind kind = FileKind.of(form.choice(FormatKeys.KIND)).orElseThrow();
        boolean separated = kind == FileKind.SEPARATED;
        boolean fixed = kind == FileKind.FIXED_WIDTH;
        boolean workbook = kind == FileKind.WORKBOOK;
        int titlesRow = fixed || kind.isStatement() ? 0 : titles(form);
        String part = workbook
                ? sheet(form.text(FormatKeys.SHEET, ""))
                : kind.isStatement() ? form.text(FormatKeys.STATEMENTS_OF, "") : "";
        FileFormat source = new FileFormat(
                kind,
                separated ? separator(form) : ',',
                workbook || kind == FileKind.CAMT_053 ? FileFormat.AUTO : encoding(form, FileFormat.AUTO),
                part,
                fixed ? slices(form) : List.of(),
                titlesRow,
                titlesRow == 0 ? 1 : titleRows(form),
                titlesRow > 0 ? titlesRow + 1 : kind.isStatement() ? 1 : row(form, FormatKeys.DATA_FROM, "", "row 1"),
                kind.isStatement() ? "" : form.text(FormatKeys.UNTIL, ""),
                RowOrder.of(form.choice(FormatKeys.ORDER)));
        form.done();
        return source;
    }

    // A whole number is the place of a sheet.
    private static String sheet(String text) {
        return text.matches("[1-9][0-9]{0,3}") ? "#" + text : text;
    }

    private static List<FileFormat.Slice> slices(SettingsNode form) {
        List<FileFormat.Slice> slices = new ArrayList<>();
        SettingsNode columns = form.block(FormatKeys.SLICES);
        if (columns == null) {
            form.wrong("fixed-width text needs 'columns'", "columns: {Date: 1-10, Account: 12-17}");
            return slices;
        }
        for (String name : columns.keys()) {
            String text = columns.text(name);
            Matcher places = SLICE.matcher(text == null ? "" : text.strip());
            if (!places.matches() || from(places) > to(places)) {
                columns.at(
                        name,
                        "'" + name + "' needs its first and last place on the line, not '" + text + "'",
                        name + ": 12-17");
            } else {
                slices.add(new FileFormat.Slice(name, from(places), to(places)));
            }
        }
        return slices;
    }

    private static int from(Matcher places) {
        return Integer.parseInt(places.group(1));
    }

    private static int to(Matcher places) {
        return places.group(2) == null ? from(places) : Integer.parseInt(places.group(2));
    }

    private static char separator(SettingsNode form) {
        return SEPARATORS.get(form.choice(FormatKeys.SEPARATOR));
    }

    private static String encoding(SettingsNode form, String otherwise) {
        String name = form.text(FormatKeys.ENCODING, otherwise);
        if (name.equals(FileFormat.AUTO) && otherwise.equals(FileFormat.AUTO)) {
            return name;
        }
        try {
            if (Charset.forName(name).canEncode()) {
                return Charset.forName(name).name();
            }
        } catch (IllegalCharsetNameException | UnsupportedCharsetException unknown) {
            // Reported below with the usual names.
        }
        form.notAllowed(FormatKeys.ENCODING, name, ENCODINGS);
        return "UTF-8";
    }

    private static int titles(SettingsNode form) {
        String text = form.text(FormatKeys.TITLES, "row 1");
        if (text.equals("none")) {
            return 0;
        }
        Matcher several = TITLE_ROWS.matcher(text);
        if (several.matches()) {
            int first = Integer.parseInt(several.group(1));
            int last = Integer.parseInt(several.group(2));
            if (last > first && last - first < 5) {
                return last;
            }
        }
        return row(form, FormatKeys.TITLES, ", 'rows 3-4' or 'none'", "row 1");
    }

    // Of 'rows 3-4' two, of 'row 4' one.
    private static int titleRows(SettingsNode form) {
        Matcher several = TITLE_ROWS.matcher(form.text(FormatKeys.TITLES, ""));
        return several.matches() ? Integer.parseInt(several.group(2)) - Integer.parseInt(several.group(1)) + 1 : 1;
    }

    private static int row(SettingsNode form, Key key, String or, String otherwise) {
        String text = form.text(key, otherwise);
        if (text.matches("row [1-9][0-9]{0,5}")) {
            return Integer.parseInt(text.substring(4));
        }
        form.at(
                key,
                "'" + key + "' is 'row' with the number of the row in the file" + or + ", not '" + text + "'",
                "row 1");
        return 1;
    }

    /** The {@code file} block of a delivery. */
    static DeliveryFormat delivery(SettingsNode form) {
        if (form == null) {
            return DeliveryFormat.csv("{run}-{date}.csv");
        }
        String kind = form.choice(FormatKeys.DELIVERED_KIND);
        // Which keys have an effect is known of the forms that ship; what is not asked for is refused.
        boolean separated = kind.equals(DeliveryFormat.SEPARATED);
        boolean fixed = kind.equals(RowForms.FIXED);
        boolean workbook = kind.equals(RowForms.WORKBOOK);
        String ending = workbook ? ".xlsx" : fixed ? ".txt" : ".csv";
        String name = form.text(FormatKeys.NAME, "{run}-{date}" + ending);
        if (!name.matches("[A-Za-z0-9 ._+{}()-]{1,150}") || name.startsWith(".") || !name.contains(".")) {
            form.at(
                    FormatKeys.NAME,
                    "'name' must be a plain file name with an ending, not '" + name + "'",
                    "{run}-{date}.csv");
        } else if (name.replaceAll("\\{(run|date|part)}", "").contains("{")) {
            form.at(
                    FormatKeys.NAME,
                    "only {run}, {date} and {part} are filled in, in '" + name + "'",
                    "{run}-{date}-{part}.csv");
        }
        DeliveryFormat delivery = new DeliveryFormat(
                kind,
                fixed || workbook ? ',' : separator(form),
                workbook ? "UTF-8" : encoding(form, "UTF-8"),
                !workbook && form.isSecond(FormatKeys.LINE_ENDS) ? "\n" : "\r\n",
                !workbook && form.yes(FormatKeys.MARK, false),
                form.yes(FormatKeys.HAS_TITLES, true),
                separated && form.isSecond(FormatKeys.QUOTES),
                form.number(FormatKeys.ROWS_AT_MOST),
                name,
                workbook ? form.text(FormatKeys.TAB, "") : "");
        return delivery;
    }

    /** The rows of a delivered file that are no data. */
    static Frame frame(SettingsNode form) {
        return form == null
                ? Frame.NONE
                : new Frame(form.rows(FormatKeys.ABOVE), form.rows(FormatKeys.UNDER), form.rows(FormatKeys.LAST));
    }

    /** The {@code numbers} block of either. */
    static AmountFormat numbers(SettingsNode form, boolean reading) {
        AmountFormat plain = new AmountFormat(2, '.', reading ? ',' : (char) 0, false, false, "");
        if (form == null) {
            return plain;
        }
        String negative = form.choice(reading ? FormatKeys.NEGATIVE : FormatKeys.DELIVERED_NEGATIVE);
        String mark = reading ? form.text(FormatKeys.CURRENCY_MARK, "") : "";
        String plus = reading ? form.text(FormatKeys.PLUS_MARK, "") : "";
        String minus = reading ? form.text(FormatKeys.MINUS_MARK, "") : "";
        String decimalMark = form.choice(reading ? FormatKeys.DECIMAL : FormatKeys.DELIVERED_DECIMAL);
        String thousandsMark = form.choice(FormatKeys.THOUSANDS, reading && decimalMark.equals(".") ? "," : "none");
        form.done();
        if (decimalMark.equals(thousandsMark)) {
            form.wrong("the decimal mark and the thousands mark must differ", "");
            return plain;
        }
        boolean implied = decimalMark.equals(FormatKeys.IMPLIED);
        return new AmountFormat(
                implied ? 0 : 2,
                implied ? AmountFormat.IMPLIED : decimalMark.charAt(0),
                thousandsMark.equals("none") ? 0 : thousandsMark.charAt(0),
                negative.equals("brackets") || negative.equals("any"),
                negative.equals("trailing minus") || negative.equals("any"),
                mark,
                plus,
                minus);
    }

    /**
     * A date pattern, {@code usual} when it is left out; {@code null}, with the problem reported, when there is no usual
     * one or it is wrong.
     */
    static DatePattern pattern(SettingsNode form, String usual) {
        String pattern = form.text(FormatKeys.PATTERN, usual);
        int century = form.number(FormatKeys.CENTURY);
        String language = form.text(FormatKeys.LANGUAGE, "");
        if (!language.isEmpty() && !DateNames.languages().contains(language)) {
            form.notAllowed(FormatKeys.LANGUAGE, language, DateNames.languages());
            return null;
        }
        if (form.isQuestion(FormatKeys.PATTERN)) {
            return null;
        }
        if (pattern == null) {
            form.wrong("a date needs its 'pattern'", "pattern: dd/MM/uuuu");
            return null;
        }
        try {
            return DatePattern.of(pattern, century).in(language);
        } catch (IllegalArgumentException e) {
            form.at(FormatKeys.PATTERN, e.getMessage(), "");
            return null;
        }
    }

    /** A first and a last day, such as {@code 2027-03-01 to 2027-03-31}; all days when it is left out. */
    static DateWindow dates(SettingsNode form, Key key) {
        String text = form.text(key);
        if (text == null) {
            return DateWindow.ALL;
        }
        String[] ends = text.split(" to ", -1);
        try {
            if (ends.length == 2) {
                DateWindow window = new DateWindow(LocalDate.parse(ends[0].strip()), LocalDate.parse(ends[1].strip()));
                if (!window.to().isBefore(window.from())) {
                    return window;
                }
            }
        } catch (DateTimeParseException e) {
            // Reported below.
        }
        form.at(
                key,
                "'" + key + "' is a first and a last day, not '" + text + "'",
                key.name().equals("dates") ? "2027-03-01 to 2027-03-31, or month" : "2027-03-01 to 2027-03-31");
        return DateWindow.ALL;
    }
}
