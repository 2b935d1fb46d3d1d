package io.mivrel.practice;

import java.util.Collection;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Small values as JSON, where the database keeps a list or a map in one column. */
final class JsonColumn {
    private static final JsonMapper MAPPER = JsonMapper.builder().build();
    private static final TypeReference<TreeMap<String, String>> NAMES = new TypeReference<>() {};

    private JsonColumn() {}

    static String of(Collection<String> list) {
        return MAPPER.writeValueAsString(list);
    }

    static @Nullable String of(Map<String, String> names) {
        return names.isEmpty() ? null : MAPPER.writeValueAsString(names);
    }

    static Map<String, String> names(@Nullable String json) {
        return json == null ? Map.of() : MAPPER.readValue(json, NAMES);
    }
}
