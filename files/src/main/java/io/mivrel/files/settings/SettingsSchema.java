package io.mivrel.files.settings;

import io.mivrel.intake.Credits;
import io.mivrel.intake.Signs;
import io.mivrel.intake.Terms;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The settings files as JSON Schemas (draft 2020-12), for editors that complete and check YAML by them. Kinds and fields come
 * from the tables that the readers use too. What a schema allows may still be refused, where two settings contradict each
 * other; what it refuses is always refused.
 */
public final class SettingsSchema {
    /** Where a company folder keeps them. */
    public static final String FOLDER = ".mivrel/schemas";

    private static final String DRAFT = "https://json-schema.org/draft/2020-12/schema";
    private static final List<Object> SCALARS = List.of("string", "number", "boolean");

    private SettingsSchema() {}

    /** The schemas by the names of their files. */
    public static Map<String, String> all() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("run-sheet.json", whole("A run sheet", runSheet()));
        all.put("layout.json", whole("A layout: how a source file is laid out", layout()));
        all.put("delivery.json", whole("A delivery: how a receiver wants its file", delivery()));
        all.put("books.json", whole("The company and its currency", books()));
        all.put("ledger.json", whole("A ledger to post to", ledger()));
        return all;
    }

    /** The first line of a settings file, by which editors find its schema; it lies so many folders below the company's. */
    public static String line(String schema, int depth) {
        return "# yaml-language-server: $schema=" + "../".repeat(depth) + FOLDER + "/" + schema + ".json\n";
    }

    private static String whole(String title, Map<String, Object> form) {
        Map<String, Object> whole = new LinkedHashMap<>();
        whole.put("$schema", DRAFT);
        whole.put("title", title);
        whole.putAll(form);
        StringBuilder json = new StringBuilder();
        write(whole, json, "");
        return json.append('\n').toString();
    }

    private static Map<String, Object> runSheet() {
        Form form = new Form()
                .must("run", text("The name of the run; {month} stands for its month"))
                .must("books", text("The folder of the books"))
                .must(
                        "intake",
                        list(new Form()
                                .must("files", text("A file, or several by a pattern with stars"))
                                .must("layout", text("The file of their layout"))
                                .done()))
                .may(
                        "coding",
                        new Form()
                                .must("table", text("The coding table, a CSV file"))
                                .must("uncoded", text("hold, or the code of a suspense account"))
                                .done())
                .may("dates", pattern("month|" + window(), "A first and a last day, or month"))
                .may(
                        "deliver",
                        list(new Form()
                                .must("as", text("The file of the delivery"))
                                .must("to", text("The folder that it goes to"))
                                .may("earlier", words("leave out", "deliver too"))
                                .done()))
                .may("when blocked", words("hold documents", "hold everything"));
        return form.done();
    }

    private static Map<String, Object> books() {
        return new Form()
                .must("books", text("The name of the company"))
                .must(
                        "currency",
                        words(Currency.getAvailableCurrencies().stream()
                                .map(Currency::getCurrencyCode)
                                .sorted()
                                .toList()))
                .done();
    }

    private static Map<String, Object> ledger() {
        return new Form()
                .must("ledger", text("What it is called"))
                .may("kind", text("practice, http, or the kind of a ledger of your own"))
                .may("file", text("The file of a practice ledger"))
                .may("delivered in files", words("tell", "hold"))
                .may("address", text("The address of a server"))
                .may("certificate", text("The file of the server's certificate"))
                .may("company", text("What the company is called there"))
                .may("user from", text("The environment variable with the user"))
                .may("token from", text("The environment variable with the token"))
                .may("password from", text("The environment variable with the password"))
                .may("with", new Form().open())
                .done();
    }

    private static Map<String, Object> layout() {
        Map<String, Object> form = shape(new Form()
                        .must("layout", text("What it is called"))
                        .must("gives", words(Kinds.ALL.stream().map(Kind::name).toList()))
                        .may("account", text("The account that bank lines belong to; or: by number"))
                        .may("signs", words(Signs.words()))
                        .may("credits", words(Credits.words()))
                        .may("documents", words("in one file", "across files"))
                        .may("file", sourceFile())
                        .may("numbers", numbers(true))
                        .may("allow", texts(Terms.WORDS.toArray(String[]::new)))
                        .may("for dates", pattern(window(), "The days that it is made for"))
                        .may("unused", texts())
                        .may("columns in order", texts())
                        .may("leave out", list(filter()))
                        .may("only", list(filter()))
                        .may(
                                "expect",
                                list(new Form()
                                        .must("column", text(""))
                                        .must("is", texts())
                                        .done()))
                        .may(
                                "row sums",
                                list(new Form()
                                        .must("plus", texts())
                                        .must("minus", texts())
                                        .done()))
                        .may(
                                "whose",
                                new Form()
                                        .may("number", mark(true))
                                        .may("bank", mark(false))
                                        .may("currency", mark(false))
                                        .may("holder", mark(false))
                                        .done())
                        .may(
                                "stated",
                                new Form()
                                        .may("opening", text("The label of the opening balance"))
                                        .may("closing", text("The label of the closing balance"))
                                        .may("in", text("The label of the sum of all that comes in"))
                                        .may("out", text("The label of the sum of all that goes out"))
                                        .may("count", text("The label of the number of movements"))
                                        .may("owed", yes())
                                        .may("carried", texts())
                                        .may("totals", texts())
                                        .done())
                        .may("fields", Map.of("type", "object")))
                .done();
        // Which fields there are depends on the kind.
        form.put(
                "allOf",
                Kinds.ALL.stream()
                        .map(kind -> Map.of(
                                "if", Map.of("properties", Map.of("gives", Map.of("const", kind.name()))),
                                "then", Map.of("properties", Map.of("fields", fields(kind)))))
                        .toList());
        return form;
    }

    private static Map<String, Object> mark(boolean ofRows) {
        Form form =
                new Form().may("label", text("How the cell before it begins")).may("is", texts());
        return (ofRows ? form.may("column", text("The column of it, in a file of several accounts")) : form).done();
    }

    private static Form shape(Form form) {
        return form.may("years", list(years()))
                .may(
                        "carry down",
                        list(new Form()
                                .must("title", text(""))
                                .may("column", text(""))
                                .may("begins", text(""))
                                .may("take", text(""))
                                .done()))
                .may(
                        "page heads",
                        new Form()
                                .must("begins", text(""))
                                .may("ends", text(""))
                                .done())
                .may(
                        "wrapped",
                        new Form()
                                .must("begins", texts())
                                .must("joins", texts())
                                .may("filler", text(""))
                                .done())
                .may(
                        "fill down",
                        new Form()
                                .must("columns", texts())
                                .may("where", texts())
                                .done())
                .may("tags", Map.of("type", "object"))
                .may("link", Map.of("type", "object", "additionalProperties", link()))
                .may(
                        "fan out",
                        list(new Form()
                                .must("column", text(""))
                                .may("account", text(""))
                                .may("text", text(""))
                                .must("side", words("debit", "credit"))
                                .done()));
    }

    private static Map<String, Object> fields(Kind kind) {
        Form fields = new Form();
        for (Field field : kind.table().fields()) {
            if (!field.derived()) {
                fields.may(field.name(), source(field));
            }
        }
        return fields.done();
    }

    private static Map<String, Object> source(Field field) {
        Form form = new Form()
                .may("column", texts())
                .may("columns", texts())
                .may("constant", text("The same for every row"));
        if (field.type() == FieldType.DATE) {
            form.may("pattern", text("How the day is written, such as dd/MM/uuuu"))
                    .may("century from", number(1800, 2100))
                    .may("language", text("The language of its names, by its code"));
        } else if (field.type() == FieldType.AMOUNT) {
            form.may(
                            "side",
                            new Form()
                                    .must("column", text(""))
                                    .must("plus", texts())
                                    .must("minus", texts())
                                    .done())
                    .may("less", text("A column that is taken off"));
        } else if (field.type() == FieldType.TEXT || field.type() == FieldType.CODE) {
            form.may("between", text("What stands between several columns"))
                    .may("if blank", text("What stands for a blank cell"))
                    .may("values", Map.of("type", "object"))
                    .may("values from", text("A CSV file with the columns from and to"))
                    .may("take", text("A pattern of what is taken out of the cell"));
        }
        Map<String, Object> done = form.done();
        done.put("description", field.meaning());
        done.put(
                "anyOf",
                List.of(
                        Map.of("required", List.of("column")),
                        Map.of("required", List.of("columns")),
                        Map.of("required", List.of("constant"))));
        return done;
    }

    private static Map<String, Object> years() {
        return new Form()
                .must("column", text(""))
                .must("pattern", text(""))
                .must("period", text(""))
                .must(
                        "days",
                        new Form()
                                .must("pattern", text(""))
                                .may("century from", number(1800, 2100))
                                .may("language", text("The language of its names, by its code"))
                                .done())
                .must("title", text(""))
                .done();
    }

    private static Map<String, Object> link() {
        return new Form()
                .may("file", text("A file beside the one that is read"))
                .must("key", text(""))
                .may("their key", text(""))
                .may("keys", words("once", "first counts"))
                .may("is", sourceFile())
                .may("sheet", text(""))
                .done();
    }

    private static Map<String, Object> filter() {
        Map<String, Object> form = new Form()
                .may("column", text(""))
                .may("is", texts())
                .may("begins", texts())
                .may("contains", texts())
                .done();
        form.put(
                "oneOf",
                List.of(
                        Map.of("required", List.of("is")),
                        Map.of("required", List.of("begins")),
                        Map.of("required", List.of("contains"))));
        return form;
    }

    private static Map<String, Object> sourceFile() {
        return new Form()
                .may("kind", words(FileKind.words()))
                .may("separator", words("comma", "semicolon", "tab", "pipe"))
                .may("encoding", text("auto, UTF-8, windows-1252 and so on"))
                .may("sheet", text("A sheet of a workbook, by name or place"))
                .may("statements of", text("The number of one account"))
                .may(
                        "columns",
                        Map.of(
                                "type",
                                "object",
                                "additionalProperties",
                                Map.of("anyOf", List.of(number(1, 99_999), pattern("[0-9]+ *(- *[0-9]+)?", "12-17")))))
                .may("titles", pattern("none|row [1-9][0-9]{0,5}|rows [0-9]+-[0-9]+", "row 1, rows 3-4 or none"))
                .may("data from", pattern("row [1-9][0-9]{0,5}", "row 2"))
                .may("until", text("How the first row below the data begins"))
                .may("order", words(RowOrder.words()))
                .done();
    }

    private static Map<String, Object> numbers(boolean reading) {
        Form form = new Form()
                .may("decimal", reading ? words(".", ",", "implied") : words(".", ","))
                .may("thousands", words(",", ".", " ", "'", "none"));
        if (reading) {
            form.may("negative", words("minus", "brackets", "trailing minus", "any"))
                    .may("currency mark", text(""))
                    .may("plus mark", text(""))
                    .may("minus mark", text(""));
        }
        return form.done();
    }

    private static Map<String, Object> delivery() {
        Form form = new Form()
                .must("delivery", text("What it is called"))
                .must("takes", words(Kinds.ALL.stream().map(Kind::documents).toList()))
                .may("file", deliveredFile())
                .may("numbers", numbers(false))
                .may("columns", Map.of("type", "object"))
                .may(
                        "sheets",
                        Map.of(
                                "type",
                                "object",
                                "additionalProperties",
                                new Form()
                                        .must("rows", text("A level of the document"))
                                        .may("file", deliveredFile())
                                        .may("numbers", numbers(false))
                                        .must("columns", Map.of("type", "object"))
                                        .done()));
        Map<String, Object> done = form.done();
        done.put(
                "allOf",
                Kinds.ALL.stream()
                        .map(kind -> Map.of(
                                "if", Map.of("properties", Map.of("takes", Map.of("const", kind.documents()))),
                                "then", Map.of("properties", Map.of("columns", columns(kind)))))
                        .toList());
        return done;
    }

    private static Map<String, Object> deliveredFile() {
        return new Form()
                .may("kind", words("separated"))
                .may("separator", words("comma", "semicolon", "tab", "pipe"))
                .may("encoding", text("UTF-8, windows-1252 and so on"))
                .may(
                        "name",
                        pattern("[A-Za-z0-9 _+{}()-][A-Za-z0-9 ._+{}()-]*", "{run}, {date} and {part} are filled in"))
                .may("line ends", words("CRLF", "LF"))
                .may("byte order mark", yes())
                .may("titles", yes())
                .may("quotes", words("where needed", "always"))
                .may("rows at most", number(1, Integer.MAX_VALUE))
                .done();
    }

    private static Map<String, Object> columns(Kind kind) {
        Map<String, Object> column = new Form()
                .may(
                        "field",
                        words(kind.table().fields().stream().map(Field::name).toList()))
                .may("constant", text("The same in every row"))
                .may("pattern", text("How a day is written"))
                .may("century from", number(1800, 2100))
                .may("language", text("The language of its names, by its code"))
                .may("at most", number(1, 10_000))
                .may("refuse", text("Characters that are taken out"))
                .may("blank zero", yes())
                .may("sign", words("as reckoned", "turned"))
                .done();
        column.put("oneOf", List.of(Map.of("required", List.of("field")), Map.of("required", List.of("constant"))));
        return Map.of("type", "object", "additionalProperties", column);
    }

    private static String window() {
        return "\\d{4}-\\d{2}-\\d{2} +to +\\d{4}-\\d{2}-\\d{2}";
    }

    // A value that begins with a question mark is a question of a survey that nobody has answered.
    private static Map<String, Object> text(String description) {
        Map<String, Object> text = new LinkedHashMap<>();
        text.put("type", SCALARS);
        text.put("not", Map.of("type", "string", "pattern", "^\\? "));
        if (!description.isEmpty()) {
            text.put("description", description);
        }
        return text;
    }

    private static Map<String, Object> pattern(String pattern, String description) {
        Map<String, Object> text = new LinkedHashMap<>();
        text.put("type", "string");
        text.put("pattern", "^(" + pattern + ")$");
        text.put("description", description);
        return text;
    }

    private static Map<String, Object> words(String... allowed) {
        return words(Arrays.asList(allowed));
    }

    private static Map<String, Object> words(Collection<String> allowed) {
        return new LinkedHashMap<>(Map.of("enum", new ArrayList<>(allowed)));
    }

    private static Map<String, Object> yes() {
        return Map.of("enum", List.of("yes", "no", true, false));
    }

    private static Map<String, Object> number(int least, int most) {
        return Map.of("type", "integer", "minimum", least, "maximum", most);
    }

    private static Map<String, Object> texts(String... allowed) {
        Map<String, Object> one = allowed.length == 0 ? text("") : words(allowed);
        return Map.of("anyOf", List.of(one, Map.of("type", "array", "items", one)));
    }

    private static Map<String, Object> list(Map<String, Object> entry) {
        return Map.of("type", "array", "items", entry);
    }

    /** A block with its keys. */
    private static final class Form {
        private final Map<String, Object> properties = new LinkedHashMap<>();
        private final List<String> required = new ArrayList<>();

        Form must(String key, Map<String, Object> value) {
            required.add(key);
            return may(key, value);
        }

        Form may(String key, Map<String, Object> value) {
            properties.put(key, value);
            return this;
        }

        Map<String, Object> done() {
            Map<String, Object> form = open();
            form.put("additionalProperties", false);
            return form;
        }

        /** With other keys too. */
        Map<String, Object> open() {
            Map<String, Object> form = new LinkedHashMap<>();
            form.put("type", "object");
            form.put("properties", properties);
            if (!required.isEmpty()) {
                form.put("required", required);
            }
            return form;
        }
    }

    private static void write(Object value, StringBuilder json, String indent) {
        String inner = indent + "  ";
        if (value instanceof Map<?, ?> map) {
            String divider = "{\n";
            for (Map.Entry<?, ?> entry : map.entrySet()) {
                json.append(divider)
                        .append(inner)
                        .append(Quoted.quoted((String) entry.getKey()))
                        .append(": ");
                write(entry.getValue(), json, inner);
                divider = ",\n";
            }
            json.append(map.isEmpty() ? "{}" : "\n" + indent + "}");
        } else if (value instanceof Collection<?> list) {
            String divider = "[";
            for (Object item : list) {
                json.append(divider);
                write(item, json, inner);
                divider = ", ";
            }
            json.append(list.isEmpty() ? "[]" : "]");
        } else if (value instanceof String text) {
            json.append(Quoted.quoted(text));
        } else {
            json.append(value);
        }
    }
}
