package io.mivrel.text;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;

/** Lists of words that ship as text: a line is what they are for, a colon, and words with strokes between them. */
public final class WordLists {
    private WordLists() {}

    /** Lists of words in the form of {@code words.txt}, in its order, from a resource beside a class. */
    public static Map<String, List<String>> of(Class<?> beside, String resource) {
        Map<String, List<String>> lists = new LinkedHashMap<>();
        InputStream bytes = Objects.requireNonNull(beside.getResourceAsStream(resource), resource);
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(bytes, StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                int colon = line.indexOf(':');
                if (!line.startsWith("#") && colon > 0) {
                    lists.computeIfAbsent(line.substring(0, colon), m -> new ArrayList<>())
                            .addAll(Stream.of(line.substring(colon + 1).split("\\|"))
                                    .map(String::strip)
                                    .toList());
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return lists;
    }
}
