package io.mivrel.survey;

import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.text.TradeWords;
import java.text.Normalizer;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Which fields titles of columns mean, by the words that kinds give for them. */
public final class ColumnTitles {
    private ColumnTitles() {}

    /** The places of titles by the fields of a kind that they mean, each title for one field. */
    public static Map<Field, Integer> fields(Kind kind, List<String> titles) {
        Map<Field, Integer> found = new LinkedHashMap<>();
        kind.titles().forEach((field, words) -> {
            int place = place(words, titles, found);
            if (place >= 0) {
                found.put(field, place);
            }
        });
        return found;
    }

    // The first word that some title is, not the first title that is some word.
    private static int place(List<String> words, List<String> titles, Map<Field, Integer> taken) {
        for (String word : words) {
            for (int i = 0; i < titles.size(); i++) {
                if (!taken.containsValue(i) && is(word, titles.get(i))) {
                    return i;
                }
            }
        }
        return -1;
    }

    /** True when a title is a word: the word itself, or of a meaning of the trade's where one is named behind {@code @}. */
    static boolean is(String word, String title) {
        return word.startsWith("@")
                ? TradeWords.fit(word.substring(1), title) == TradeWords.IS
                : plain(title).equals(word);
    }

    private static String plain(String title) {
        return Normalizer.normalize(title.toLowerCase(Locale.ROOT), Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .replace("\u00df", "ss")
                .replace('\u0142', 'l')
                .replace('\u00f8', 'o')
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .strip();
    }
}
