package io.mivrel.files.settings;

import io.mivrel.files.keys.Block;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.keys.LedgerKeys;
import io.mivrel.files.keys.RunKeys;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Kind;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;

/**
 * The settings files as JSON Schemas (draft 2020-12), for editors that complete and check YAML by them; made from the keys by
 * which they are read. What a schema allows may still be refused, where two settings contradict each other; what it refuses is
 * always refused.
 */
public final class SettingsSchema {
    /** Where a company folder keeps them. */
    public static final String FOLDER = ".mivrel/schemas";

    private static final String DRAFT = "https://json-schema.org/draft/2020-12/schema";
    private static final List<Object> SCALARS = List.of("string", "number", "boolean");
    private static final Map<String, Object> OBJECT = Map.of("type", "object");

    private SettingsSchema() {}

    /** The schemas by the names of their files. */
    public static Map<String, String> all() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("run-sheet.json", whole("A run sheet", block(RunKeys.ALL)));
        all.put("layout.json", whole("A layout: how a source file is laid out", layout()));
        all.put("delivery.json", whole("A delivery: how a receiver wants its file", delivery()));
        all.put("books.json", whole("The company and its currency", block(LedgerKeys.COMPANY_BOOKS)));
        all.put("ledger.json", whole("A ledger to post to", block(LedgerKeys.ALL)));
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

    private static Map<String, Object> layout() {
        return byKind(
                LayoutKeys.ALL,
                LayoutKeys.GIVES,
                LayoutKeys.FIELDS,
                Kind::name,
                kind -> block(LayoutKeys.fields(kind)));
    }

    private static Map<String, Object> delivery() {
        return byKind(
                DeliveryKeys.ALL,
                DeliveryKeys.TAKES,
                DeliveryKeys.COLUMNS,
                Kind::documents,
                kind -> under(block(DeliveryKeys.column(kind))));
    }

    // What stands under one key depends on the kind that another one names.
    private static Map<String, Object> byKind(
            Block all, Key names, Key depends, Function<Kind, String> name, Function<Kind, Map<String, Object>> form) {
        Map<String, Object> whole = block(all);
        whole.put(
                "allOf",
                Kinds.ALL.stream()
                        .map(kind -> Map.of(
                                "if", properties(names, Map.of("const", name.apply(kind))),
                                "then", properties(depends, form.apply(kind))))
                        .toList());
        return whole;
    }

    private static Map<String, Object> properties(Key key, Map<String, Object> value) {
        return Map.of("properties", Map.of(key.name(), value));
    }

    private static Map<String, Object> block(Block block) {
        Map<String, Object> properties = new LinkedHashMap<>();
        block.keys().forEach(key -> properties.put(key.name(), value(key)));
        Map<String, Object> form = new LinkedHashMap<>(OBJECT);
        form.put("properties", properties);
        List<String> required =
                block.keys().stream().filter(Key::required).map(Key::name).toList();
        if (!required.isEmpty()) {
            form.put("required", required);
        }
        if (!block.oneOf().isEmpty()) {
            form.put("oneOf", needs(block.oneOf()));
        }
        if (!block.someOf().isEmpty()) {
            form.put("anyOf", needs(block.someOf()));
        }
        form.put("additionalProperties", false);
        return form;
    }

    private static List<Map<String, List<String>>> needs(List<Key> keys) {
        return keys.stream().map(key -> Map.of("required", List.of(key.name()))).toList();
    }

    private static Map<String, Object> value(Key key) {
        Map<String, Object> value = new LinkedHashMap<>(
                switch (key.form()) {
                    case TEXT -> one(key);
                    case TEXTS -> Map.of("anyOf", List.of(one(key), list(one(key))));
                    case YES -> Map.of("enum", List.of("yes", "no", true, false));
                    case NUMBER -> Map.of("type", "integer", "minimum", key.least(), "maximum", key.most());
                    case BLOCK -> block(blockOf(key));
                    case LIST -> list(block(blockOf(key)));
                    case NAMED -> key.block() == null ? OBJECT : under(block(blockOf(key)));
                    case ROWS -> list(Map.of("anyOf", List.of(one(key), list(one(key)))));
                    case OPEN -> OBJECT;
                });
        value.put("description", key.meaning());
        return value;
    }

    private static Block blockOf(Key key) {
        return Objects.requireNonNull(key.block());
    }

    private static Map<String, Object> under(Map<String, Object> value) {
        Map<String, Object> names = new LinkedHashMap<>(OBJECT);
        names.put("additionalProperties", value);
        return names;
    }

    private static Map<String, Object> list(Map<String, Object> entry) {
        return Map.of("type", "array", "items", entry);
    }

    // A value that begins with a question mark is a question of a survey that nobody has answered.
    private static Map<String, Object> one(Key key) {
        if (!key.words().isEmpty()) {
            return Map.of("enum", key.words());
        }
        if (!key.pattern().isEmpty()) {
            return Map.of("type", "string", "pattern", "^(" + key.pattern() + ")$");
        }
        Map<String, Object> text = new LinkedHashMap<>();
        text.put("type", SCALARS);
        text.put("not", Map.of("type", "string", "pattern", "^\\? "));
        return text;
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
