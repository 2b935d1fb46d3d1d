package io.mivrel.text;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The trade's words in the languages that are read, by what they mean: titles of columns, labels of figures, and what a
 * text says of its movement. They stand in {@code words.txt}. Compared without case, accents, points, brackets and
 * currency codes.
 */
public final class TradeWords {
    /** How well a text fits a meaning: it is a word of it, it holds one, or neither. */
    public static final int IS = 3;

    public static final int HOLDS = 2;

    private static final Set<String> CURRENCIES = Currency.getAvailableCurrencies().stream()
            .map(currency -> currency.getCurrencyCode().toLowerCase(Locale.ROOT))
            .collect(Collectors.toUnmodifiableSet());

    private static final Map<String, Set<String>> MEANINGS = read();

    private static final Set<String> TOKENS = MEANINGS.values().stream()
            .flatMap(Set::stream)
            .flatMap(word -> Stream.of(word.split(" ")))
            .filter(token -> token.length() > 3)
            .collect(Collectors.toUnmodifiableSet());

    private TradeWords() {}

    /** True for a text of more than three letters that is a word of the trade in some language, or a part of one. */
    public static boolean knows(String text) {
        return TOKENS.contains(plain(text));
    }

    /**
     * Adds the words of a file in the form of {@code words.txt}. Throws {@link IOException} with the line that is wrong; then
     * nothing is added.
     */
    public static void learn(Path file) throws IOException {
        List<String> lines = Files.readAllLines(file);
        for (int i = 0; i < lines.size(); i++) {
            String line = lines.get(i).strip();
            int colon = line.indexOf(':');
            if (!line.isEmpty()
                    && !line.startsWith("#")
                    && (colon < 0 || !MEANINGS.containsKey(line.substring(0, colon)))) {
                throw new IOException(file + ":" + (i + 1) + ": '" + line + "' does not begin with one of "
                        + String.join(", ", MEANINGS.keySet()) + " and a colon");
            }
        }
        lines.forEach(line -> take(line.strip(), MEANINGS));
    }

    private static void take(String line, Map<String, Set<String>> meanings) {
        int colon = line.indexOf(':');
        if (line.startsWith("#") || colon < 0) {
            return;
        }
        Set<String> known = meanings.computeIfAbsent(line.substring(0, colon), m -> ConcurrentHashMap.newKeySet());
        for (String word : line.substring(colon + 1).split("\\|")) {
            String plain = sign(word.strip());
            if (!plain.isEmpty()) {
                known.add(plain);
            }
        }
    }

    private static Map<String, Set<String>> read() {
        Map<String, Set<String>> meanings = new LinkedHashMap<>();
        WordLists.of(TradeWords.class, "words.txt")
                .forEach((meaning, words) -> take(meaning + ":" + String.join("|", words), meanings));
        return meanings;
    }

    // A side may be a sign alone.
    private static String sign(String word) {
        return word.equals("+") || word.equals("-") ? word : plain(word);
    }

    /** A text in small letters without accents, marks, what stands in brackets, and the codes of currencies. */
    public static String plain(String text) {
        String bare = Normalizer.normalize(text.toLowerCase(Locale.ROOT), Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .replace('\u0142', 'l')
                .replace('\u00f8', 'o')
                .replace("\u00df", "ss")
                .replace("\u00e6", "ae")
                .replaceAll("\\([^)]*\\)?|\\[[^]]*]?", " ")
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .strip();
        StringBuilder kept = new StringBuilder();
        for (String token : bare.split(" ")) {
            if (!CURRENCIES.contains(token) || token.equals("all") || token.equals("top")) {
                kept.append(kept.isEmpty() ? "" : " ").append(token);
            }
        }
        return kept.toString();
    }

    private static Set<String> of(String meaning) {
        return Objects.requireNonNull(MEANINGS.get(meaning), meaning);
    }

    /** How well a title fits a meaning: {@link #IS}, {@link #HOLDS} or 0. A number behind a title counts for nothing. */
    public static int fit(String meaning, String title) {
        String plain = plain(title).replaceAll(" ?\\d+$", "");
        if (plain.isEmpty()) {
            return 0;
        }
        if (of(meaning).contains(plain)) {
            return IS;
        }
        String within = " " + plain + " ";
        return of(meaning).stream().anyMatch(word -> word.length() > 2 && within.contains(" " + word + " "))
                ? HOLDS
                : 0;
    }

    /** True for a text that is a word of a meaning and nothing else. */
    public static boolean is(String meaning, String text) {
        String word = sign(text.strip());
        return !word.isEmpty() && of(meaning).contains(word);
    }

    /** True for a text that begins with a word of a meaning. */
    public static boolean begins(String meaning, String text) {
        String plain = plain(text) + " ";
        return of(meaning).stream().anyMatch(word -> plain.startsWith(word + " "));
    }

    /** The length of the longest word of a meaning that a text holds; 0 when it holds none. */
    public static int longest(String meaning, String text) {
        String within = " " + plain(text) + " ";
        int longest = 0;
        for (String word : of(meaning)) {
            if (word.length() > longest && within.contains(" " + word + " ")) {
                longest = word.length();
            }
        }
        return longest;
    }

    /** Where a text first holds a word of a meaning, in its plain form; -1 when it holds none. */
    public static int placeOf(String meaning, String text) {
        String within = " " + plain(text) + " ";
        return of(meaning).stream()
                .mapToInt(word -> within.indexOf(" " + word + " "))
                .filter(place -> place >= 0)
                .min()
                .orElse(-1);
    }

    /** 1 when a text says that money came in, -1 when it says that it went out, 0 when it says neither. */
    public static int direction(String text) {
        int out = longest("spends", text);
        int in = longest("earns", text);
        return Integer.compare(in, out);
    }
}
