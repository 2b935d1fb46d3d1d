package io.mivrel.files.settings;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.delivery.DeliveryForm;
import io.mivrel.intake.TextForm;
import java.nio.charset.Charset;
import java.nio.charset.IllegalCharsetNameException;
import java.nio.charset.UnsupportedCharsetException;
import java.util.List;
import java.util.Map;

/** The parts that layouts and deliveries have in common: the file's form, numbers and date patterns. */
final class FileForms {
    private static final Map<String, Character> SEPARATORS =
            Map.of("comma", ',', "semicolon", ';', "tab", '\t', "pipe", '|');
    private static final List<String> ENCODINGS =
            List.of("auto", "UTF-8", "windows-1252", "ISO-8859-1", "ISO-8859-15", "UTF-16LE", "UTF-16BE", "IBM850");

    private FileForms() {}

    /** The {@code file} block of a layout. */
    static TextForm text(Form form) {
        if (form == null) {
            return TextForm.csv();
        }
        form.choice("kind", "separated", "separated");
        int titlesRow = titles(form);
        TextForm text = new TextForm(
                separator(form),
                encoding(form, TextForm.AUTO),
                titlesRow,
                titlesRow > 0 ? titlesRow + 1 : row(form, "data from", "", "row 1"),
                form.text("until", ""),
                form.choice("order", "oldest first", "oldest first", "newest first")
                        .equals("newest first"));
        form.done();
        return text;
    }

    private static char separator(Form form) {
        return SEPARATORS.get(form.choice("separator", "comma", "comma", "semicolon", "tab", "pipe"));
    }

    private static String encoding(Form form, String otherwise) {
        String name = form.text("encoding", otherwise);
        if (name.equals(TextForm.AUTO) && otherwise.equals(TextForm.AUTO)) {
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

    private static int titles(Form form) {
        String text = form.text("titles", "row 1");
        if (text.equals("none")) {
            return 0;
        }
        return row(form, "titles", ", or 'none'", "row 1");
    }

    private static int row(Form form, String key, String or, String otherwise) {
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
    static DeliveryForm delivery(Form form) {
        if (form == null) {
            return DeliveryForm.csv("{run}-{date}.csv");
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
        DeliveryForm delivery = new DeliveryForm(
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
    static AmountFormat numbers(Form form, boolean reading) {
        AmountFormat plain = new AmountFormat(2, '.', reading ? ',' : (char) 0, false, false, "");
        if (form == null) {
            return plain;
        }
        String negative =
                reading ? form.choice("negative", "minus", "minus", "brackets", "trailing minus", "any") : "minus";
        String mark = reading ? form.text("currency mark", "") : "";
        String decimalMark = form.choice("decimal", ".", ".", ",");
        String thousandsMark =
                form.choice("thousands", reading && decimalMark.equals(".") ? "," : "none", ",", ".", " ", "'", "none");
        form.done();
        if (decimalMark.equals(thousandsMark)) {
            form.wrong("the decimal mark and the thousands mark must differ", "");
            return plain;
        }
        return new AmountFormat(
                2,
                decimalMark.charAt(0),
                thousandsMark.equals("none") ? 0 : thousandsMark.charAt(0),
                negative.equals("brackets") || negative.equals("any"),
                negative.equals("trailing minus") || negative.equals("any"),
                mark);
    }

    /** A date pattern; {@code null}, with the problem reported, when it is left out or wrong. */
    static DatePattern pattern(Form form) {
        String pattern = form.text("pattern");
        int century = form.number("century from", 0, 1800, 2100);
        if (form.isQuestion("pattern")) {
            return null;
        }
        if (pattern == null) {
            form.wrong("a date needs its 'pattern'", "pattern: dd/MM/uuuu");
            return null;
        }
        try {
            return DatePattern.of(pattern, century);
        } catch (IllegalArgumentException e) {
            form.at("pattern", e.getMessage(), "");
            return null;
        }
    }
}
