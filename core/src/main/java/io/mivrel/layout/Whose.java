package io.mivrel.layout;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Whose files a layout reads, as the files say it beside their rows: a file of another account, bank or currency is a stranger's.
 * Immutable.
 *
 * @param marks what a file says of its owner, by what it says: {@value #NUMBER}, {@value #BANK}, {@value #CURRENCY}, {@value
 *     #HOLDER}
 * @param numberColumn the column that says the account of each row, in a file of several accounts; {@code null} for none
 */
public record Whose(Map<String, Mark> marks, @Nullable String numberColumn) {
    public static final String NUMBER = "number";
    public static final String BANK = "bank";
    public static final String CURRENCY = "currency";
    public static final String HOLDER = "holder";

    /** All that a file may say. */
    public static final List<String> WORDS = List.of(NUMBER, BANK, CURRENCY, HOLDER);

    /** Nothing is known. */
    public static final Whose ANYBODY = new Whose(Map.of(), null);

    private static final List<String> LEGAL_FORMS = List.of(
            "ltd", "limited", "plc", "llp", "llc", "inc", "gmbh", "ag", "kg", "ohg", "ug", "ek", "sa", "sarl", "sas",
            "sl", "srl", "spa", "bv", "nv", "ab", "as", "aps", "oy", "oyj", "sp", "zoo", "sro", "kft", "zrt", "lda");

    /**
     * What stands under a label.
     *
     * @param label how the cell before it begins
     * @param is what it says, or all of several, since one file may be told by any of them
     */
    public record Mark(String label, List<String> is) {
        public Mark {
            is = List.copyOf(is);
        }
    }

    public Whose {
        marks = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(marks));
    }

    /** True when two texts name the same: without case, blanks and marks, and of names without their legal form. */
    public static boolean isSame(String what, String one, String other) {
        return plain(what, one).equals(plain(what, other));
    }

    private static String plain(String what, String text) {
        String bare = Normalizer.normalize(text.toLowerCase(Locale.ROOT), Normalizer.Form.NFKD)
                .replaceAll("\\p{M}", "");
        if (!what.equals(HOLDER)) {
            return bare.replaceAll("[^\\p{L}\\p{N}]", "");
        }
        List<String> words = new ArrayList<>(List.of(bare.replaceAll("[.]", "").split("[^\\p{L}\\p{N}]+")));
        words.removeIf(word -> word.isEmpty() || LEGAL_FORMS.contains(word));
        return String.join("", words);
    }
}
