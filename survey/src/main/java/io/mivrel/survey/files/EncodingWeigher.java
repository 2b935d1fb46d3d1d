package io.mivrel.survey.files;

import io.mivrel.text.TradeWords;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Weighs the encodings of one byte a character by the words that have bytes beyond ASCII: letters of one language count for
 * an encoding; signs within words, capitals within small letters and control characters count against it.
 */
final class EncodingWeigher {
    /** The likelier first: of two that read all words alike, the first is named. */
    private static final List<String> CANDIDATES = List.of(
            "windows-1252",
            "ISO-8859-15",
            "windows-1250",
            "ISO-8859-2",
            "windows-1254",
            "ISO-8859-9",
            "windows-1257",
            "ISO-8859-13",
            "windows-1253",
            "ISO-8859-7",
            "windows-1251",
            "KOI8-R",
            "ISO-8859-5",
            "IBM850",
            "IBM437",
            "IBM852",
            "IBM857",
            "IBM737",
            "IBM775",
            "IBM866",
            "ISO-8859-1");

    /** Letters beyond ASCII by language (CLDR exemplar characters). */
    private static final Map<String, String> ALPHABETS = Map.ofEntries(
            Map.entry("en", "éèêëïöç"),
            Map.entry("de", "äöüß"),
            Map.entry("fr", "àâæçéèêëîïôœùûüÿ"),
            Map.entry("es", "áéíñóúü¡¿ªº"),
            Map.entry("it", "àèéìíîòóùú"),
            Map.entry("pt", "áâãàçéêíóôõúªº"),
            Map.entry("nl", "éëïóöüè"),
            Map.entry("sv", "åäöé"),
            Map.entry("da", "æøåé"),
            Map.entry("pl", "ąćęłńóśźż"),
            Map.entry("cs", "áčďéěíňóřšťúůýž"),
            Map.entry("sk", "áäčďéíĺľňóôŕšťúýž"),
            Map.entry("sl", "čćđšž"),
            Map.entry("hu", "áéíóöőúüű"),
            Map.entry("ro", "ăâîşţșț"),
            Map.entry("tr", "âçğıîöşüi\u0307"),
            Map.entry("fi", "äöå"),
            Map.entry("nb", "æøåéòô"),
            Map.entry("et", "äõöüšž"),
            Map.entry("lv", "āčēģīķļņšūž"),
            Map.entry("lt", "ąčęėįšųūž"),
            Map.entry("el", "αάβγδεέζηήθιίϊΐκλμνξοόπρσςτυύϋΰφχψωώ"),
            Map.entry("ru", "абвгдеёжзийклмнопрстуфхцчшщъыьэюя"),
            Map.entry("uk", "абвгґдеєжзиіїйклмнопрстуфхцчшщьюя"),
            Map.entry("bg", "абвгдежзийклмнопрстуфхцчшщъьюя"));

    /** What the letters of a right reading weigh at least, in hundredths each: measured 209 and more; of wrong ones to 166. */
    private static final int BAR = 188;
    /** Fewer letters beyond ASCII must say it more clearly. */
    private static final int FEW_LETTERS = 40;

    private static final int BAR_OF_FEW = 250;
    /** Below it an encoding of two bytes a character may be meant. */
    private static final int BAR_AGAINST_WIDE = 320;

    private static final String ALL = String.join("", ALPHABETS.values());
    private static final String QUOTES = "\u2018\u2019\u201c\u201d\u201e\u201a\u00ab\u00bb\u2013\u2014\u2026\u2022";
    private static final String SIGNS = "\u20ac\u00a3\u00b0\u00a7\u00ba\u00aa\u00bf\u00a1\u2122\u00ae\u00a9\u00b7";

    /** Texts that are shown in both readings. */
    private static final int SHOWN = 3;

    /** What a word of the trade counts. */
    private static final int KNOWN = 6;

    private EncodingWeigher() {}

    /**
     * What the words say.
     *
     * @param encoding the encoding that fits best
     * @param other the next that reads them otherwise; the same where none comes near
     * @param example a word that the two read differently, in both readings; empty when there is no other
     */
    record Verdict(String encoding, String other, String example) {
        boolean isSure() {
            return encoding.equals(other);
        }
    }

    private record Weighed(String encoding, List<String> words, long weight) {}

    /** {@code words} are stretches of letters and bytes beyond ASCII, each byte as the character of its number. */
    static Verdict weigh(Collection<String> words) {
        List<Weighed> all = new ArrayList<>();
        for (String encoding : CANDIDATES) {
            if (Charset.isSupported(encoding)) {
                List<String> read = words.stream().map(w -> read(w, encoding)).toList();
                all.add(new Weighed(encoding, read, weight(read)));
            }
        }
        Weighed best = all.stream().max(Comparator.comparing(Weighed::weight)).orElseThrow();
        // max takes the last of equals; the first is the likelier.
        for (Weighed weighed : all) {
            if (weighed.weight == best.weight) {
                best = weighed;
                break;
            }
        }
        Weighed chosen = best;
        long letters = chosen.words.stream()
                .flatMapToInt(String::chars)
                .filter(c -> c >= 0x80 && Character.isLetter(c))
                .count();
        long beyond = chosen.words.stream()
                .flatMapToInt(String::chars)
                .filter(c -> c >= 0x80)
                .count();
        boolean low = letters > 0 && chosen.weight * 100 < letters * (letters < FEW_LETTERS ? BAR_OF_FEW : BAR);
        EncodingWeigher.Verdict wide =
                chosen.weight * 100 < beyond * BAR_AGAINST_WIDE ? WideEncodings.weigh(words) : null;
        if (wide != null) {
            return wide;
        }
        long margin = low ? Math.max(1, Math.abs(chosen.weight)) : margin(words.size());
        Weighed near = all.stream()
                .filter(w -> !w.words.equals(chosen.words) && chosen.weight - w.weight <= margin)
                .max(Comparator.comparing(Weighed::weight))
                .orElse(null);
        if (near == null) {
            return new Verdict(chosen.encoding, chosen.encoding, "");
        }
        List<String> here = new ArrayList<>();
        List<String> there = new ArrayList<>();
        for (int at = 0; at < chosen.words.size() && here.size() < SHOWN; at++) {
            if (!chosen.words.get(at).equals(near.words.get(at))) {
                here.add(chosen.words.get(at).strip());
                there.add(near.words.get(at).strip());
            }
        }
        return new Verdict(
                chosen.encoding,
                near.encoding,
                "'" + String.join("', '", here) + "' by the first, '" + String.join("', '", there) + "' by the second");
    }

    private static long margin(int words) {
        return Math.max(1, words / 40);
    }

    private static String read(String word, String encoding) {
        try {
            CharBuffer read = Charset.forName(encoding)
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .onUnmappableCharacter(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(word.getBytes(StandardCharsets.ISO_8859_1)));
            return read.toString();
        } catch (CharacterCodingException impossible) {
            return word.replaceAll("[^\\x00-\\x7f]", "\ufffd");
        }
    }

    private static long weight(List<String> words) {
        long most = Long.MIN_VALUE;
        for (String alphabet : ALPHABETS.values()) {
            long weight = 0;
            for (String word : words) {
                weight += weight(word, alphabet) + (TradeWords.knows(word) ? KNOWN : 0);
            }
            most = Math.max(most, weight);
        }
        return most;
    }

    private static int weight(String word, String alphabet) {
        int weight = 0;
        for (int i = 0; i < word.length(); i++) {
            char c = word.charAt(i);
            if (c >= 0x80) {
                char before = i > 0 ? word.charAt(i - 1) : ' ';
                char behind = i + 1 < word.length() ? word.charAt(i + 1) : ' ';
                weight += weight(c, before, behind, alphabet);
            }
        }
        return weight;
    }

    private static boolean isLatin(char c) {
        return Character.isLetter(c) && Character.UnicodeScript.of(c) == Character.UnicodeScript.LATIN;
    }

    // The strokes of boxes, which print files of old code pages draw.
    private static boolean isStroke(char c) {
        return c >= '\u2500' && c < '\u2580';
    }

    private static int weight(char c, char before, char behind, String alphabet) {
        if (c == '\ufffd' || Character.isISOControl(c)) {
            return -12;
        }
        boolean within = Character.isLetter(before) && Character.isLetter(behind);
        if (isStroke(c)) {
            return within ? -5 : 2;
        }
        if (before == c && behind == c) {
            // No word has a letter three times in turn, but a line of strokes in another encoding has.
            return -4;
        }
        return Character.isLetter(c) ? letter(c, before, behind, alphabet) : sign(c, before, behind, within);
    }

    private static int letter(char c, char before, char behind, String alphabet) {
        String small = String.valueOf(c).toLowerCase(Locale.ROOT);
        int known = alphabet.contains(small) ? 4 : ALL.contains(small) ? 1 : -4;
        // A capital stands at the beginning of a word, or among capitals.
        boolean oddCase = Character.isUpperCase(c)
                && (Character.isLowerCase(before) || Character.isLetter(before) && Character.isLowerCase(behind));
        boolean alone = !Character.isLetter(before) && !Character.isLetter(behind);
        // No word mixes letters of the Latin alphabet with those of another.
        boolean mixed =
                Character.UnicodeScript.of(c) != Character.UnicodeScript.LATIN && (isLatin(before) || isLatin(behind));
        return known - (oddCase ? 5 : 0) - (alone ? 3 : 0) - (mixed ? 8 : 0);
    }

    private static int sign(char c, char before, char behind, boolean within) {
        if (QUOTES.indexOf(c) >= 0) {
            return within && c != '\u2019' ? -4 : 2;
        }
        if (c == '\u00a0' || c == '\u202f') {
            return within ? -2 : 2;
        }
        if (SIGNS.indexOf(c) >= 0) {
            return within ? -4 : 2;
        }
        return Character.isLetter(before) || Character.isLetter(behind) ? -5 : -2;
    }
}
