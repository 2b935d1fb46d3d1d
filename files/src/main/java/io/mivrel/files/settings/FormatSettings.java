package io.mivrel.files.settings;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.intake.DateWindow;
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

    /** In place of a decimal mark: the digits are minor units. */
    private static final String IMPLIED = "implied";

    private static final Pattern SLICE = Pattern.compile("([1-9][0-9]{0,4})(?: *- *([1-9][0-9]{0,4}))?");

    private static final Pattern TITLE_ROWS = Pattern.compile("rows ([1-9][0-9]{0,4})-([1-9][0-9]{0,4})");

    private FormatSettings() {}

    /** The {@code file} block of a layout. */
    static FileFormat source(SettingsNode form) {
        if (form == null) {
            return FileFormat.csv();
        }
        FileKind kind = FileKind.of(form.choice("kind", FileKind.SEPARATED.word(), FileKind.words()))
                .orElseThrow();
        boolean separated = kind == FileKind.SEPARATED;
        boolean fixed = kind == FileKind.FIXED_WIDTH;
        boolean workbook = kind == FileKind.WORKBOOK;
        int titlesRow = fixed || kind.isStatement() ? 0 : titles(form);
        String part =
                workbook ? sheet(form.text("sheet", "")) : kind.isStatement() ? form.text("statements of", "") : "";
        FileFormat source = new FileFormat(
                kind,
                separated ? separator(form) : ',',
                workbook || kind == FileKind.CAMT_053 ? FileFormat.AUTO : encoding(form, FileFormat.AUTO),
                part,
                fixed ? slices(form) : List.of(),
                titlesRow,
                titlesRow == 0 ? 1 : titleRows(form),
                titlesRow > 0 ? titlesRow + 1 : kind.isStatement() ? 1 : row(form, "data from", "", "row 1"),
                kind.isStatement() ? "" : form.text("until", ""),
                RowOrder.of(form.choice("order", RowOrder.OLDEST_FIRST.word(), RowOrder.words())));
        form.done();
        return source;
    }

    // A whole number is the place of a sheet.
    private static String sheet(String text) {
        return text.matches("[1-9][0-9]{0,3}") ? "#" + text : text;
    }

    private static List<FileFormat.Slice> slices(SettingsNode form) {
        List<FileFormat.Slice> slices = new ArrayList<>();
        SettingsNode columns = form.block("columns");
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
        return SEPARATORS.get(form.choice("separator", "comma", "comma", "semicolon", "tab", "pipe"));
    }

    private static String encoding(SettingsNode form, String otherwise) {
        String name = form.text("encoding", otherwise);
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
        form.notAllowed("encoding", name, ENCODINGS);
        return "UTF-8";
    }

    private static int titles(SettingsNode form) {
        String text = form.text("titles", "row 1");
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
        return row(form, "titles", ", 'rows 3-4' or 'none'", "row 1");
    }

    // Of 'rows 3-4' two, of 'row 4' one.
    private static int titleRows(SettingsNode form) {
        Matcher several = TITLE_ROWS.matcher(form.text("titles", ""));
        return several.matches() ? Integer.parseInt(several.group(2)) - Integer.parseInt(several.group(1)) + 1 : 1;
    }

    private static int row(SettingsNode form, String key, String or, String otherwise) {
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
        form.choice("kind", "separated", "separated");
        String name = form.text("name", "{run}-{date}.csv");
        if (!name.matches("[A-Za-z0-9 ._+{}()-]{1,150}") || name.startsWith(".") || !name.contains(".")) {
            form.at("name", "'name' must be a plain file name with an ending, not '" + name + "'", "{run}-{date}.csv");
        } else if (name.replaceAll("\\{(run|date|part)}", "").contains("{")) {
            form.at(
                    "name",
                    "only {run}, {date} and {part} are filled in, in '" + name + "'",
                    "{run}-{date}-{part}.csv");
        }
        DeliveryFormat delivery = new DeliveryFormat(
                separator(form),
                encoding(form, "UTF-8"),
                form.choice("line ends", "CRLF", "CRLF", "LF").equals("CRLF") ? "\r\n" : "\n",
                form.yes("byte order mark", false),
                form.yes("titles", true),
                form.choice("quotes", "where needed", "where needed", "always").equals("always"),
                form.number("rows at most", 0, 1, Integer.MAX_VALUE),
                name);
        form.done();
        return delivery;
    }

    /** The {@code numbers} block of either. */
    static AmountFormat numbers(SettingsNode form, boolean reading) {
        AmountFormat plain = new AmountFormat(2, '.', reading ? ',' : (char) 0, false, false, "");
        if (form == null) {
            return plain;
        }
        String negative =
                reading ? form.choice("negative", "minus", "minus", "brackets", "trailing minus", "any") : "minus";
        String mark = reading ? form.text("currency mark", "") : "";
        String plus = reading ? form.text("plus mark", "") : "";
        String minus = reading ? form.text("minus mark", "") : "";
        String decimalMark =
                reading ? form.choice("decimal", ".", ".", ",", IMPLIED) : form.choice("decimal", ".", ".", ",");
        String thousandsMark =
                form.choice("thousands", reading && decimalMark.equals(".") ? "," : "none", ",", ".", " ", "'", "none");
        form.done();
        if (decimalMark.equals(thousandsMark)) {
            form.wrong("the decimal mark and the thousands mark must differ", "");
            return plain;
        }
        boolean implied = decimalMark.equals(IMPLIED);
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
        String pattern = form.text("pattern", usual);
        int century = form.number("century from", 0, 1800, 2100);
        String language = form.text("language", "");
        if (!language.isEmpty() && !DateNames.languages().contains(language)) {
            form.notAllowed("language", language, DateNames.languages());
            return null;
        }
        if (form.isQuestion("pattern")) {
            return null;
        }
        if (pattern == null) {
            form.wrong("a date needs its 'pattern'", "pattern: dd/MM/uuuu");
            return null;
        }
        try {
            return DatePattern.of(pattern, century).in(language);
        } catch (IllegalArgumentException e) {
            form.at("pattern", e.getMessage(), "");
            return null;
        }
    }

    /** A first and a last day, such as {@code 2027-03-01 to 2027-03-31}; all days when it is left out. */
    static DateWindow dates(SettingsNode form, String key) {
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
                key.equals("dates") ? "2027-03-01 to 2027-03-31, or month" : "2027-03-01 to 2027-03-31");
        return DateWindow.ALL;
    }
}
