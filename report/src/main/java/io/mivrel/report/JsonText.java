package io.mivrel.report;

import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;

/** JSON of what is put together from maps, lists, texts, whole numbers and truth values, in their order. */
public final class JsonText {
    private JsonText() {}

    /** Indented, with a line end; a {@code null} is written as such. */
    public static String of(Map<String, ?> content) {
        return OutcomeJson.text(json -> write(json, content));
    }

    private static void write(JsonGenerator json, Object value) {
        if (value instanceof Map<?, ?> map) {
            json.writeStartObject();
            map.forEach((name, inner) -> {
                json.writeName(String.valueOf(name));
                write(json, inner);
            });
            json.writeEndObject();
        } else if (value instanceof List<?> list) {
            json.writeStartArray();
            list.forEach(inner -> write(json, inner));
            json.writeEndArray();
        } else if (value instanceof Integer || value instanceof Long) {
            json.writeNumber(((Number) value).longValue());
        } else if (value instanceof Boolean truth) {
            json.writeBoolean(truth);
        } else if (value == null) {
            json.writeNull();
        } else {
            json.writeString(value.toString());
        }
    }
}
