package io.mivrel.delivery;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import io.mivrel.model.Field;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What becomes of a text on its way into a column, in this order: fields are put together, blanks squeezed, something is taken
 * out, divided, and put into the receiver's words; then characters are left out and the text is cut. Immutable.
 *
 * @param more further fields that stand behind the column's own; a blank one is passed over
 * @param between what stands between them
 * @param squeezed true to make one blank of each run of white space, and none at the ends
 * @param take the first group of this pattern, or all that it matches, and nothing where it does not match; {@code null} to take
 *     the text whole
 * @param divider what stands between the parts of a segmented code; empty when it is not divided
 * @param part which of the parts is meant, from 1; nothing where there are fewer
 * @param words the receiver's words by ours; a text that is not among them is a blocker; empty to write it as it is
 * @param refuse characters that must not occur; empty for none
 * @param atMost longest text; 0 for any length
 */
public record TextForm(
        List<Field> more,
        String between,
        boolean squeezed,
        @Nullable Pattern take,
        String divider,
        int part,
        Map<String, String> words,
        String refuse,
        int atMost) {

    /** A text as it is. */
    public static final TextForm WHOLE = new TextForm(List.of(), " ", false, null, "", 1, Map.of(), "", 0);

    public TextForm {
        more = List.copyOf(more);
        words = Map.copyOf(words);
        Objects.requireNonNull(between);
        Objects.requireNonNull(divider);
        Objects.requireNonNull(refuse);
        if (part < 1) {
            throw new IllegalArgumentException("parts are counted from 1, not " + part);
        }
    }

    /** With no more than so many characters. */
    public TextForm atMost(int length) {
        return new TextForm(more, between, squeezed, take, divider, part, words, refuse, length);
    }

    /** Without these characters. */
    public TextForm refusing(String characters) {
        return new TextForm(more, between, squeezed, take, divider, part, words, characters, atMost);
    }

    /** With further fields behind the first. */
    public TextForm joined(String mark, List<Field> fields) {
        return new TextForm(fields, mark, squeezed, take, divider, part, words, refuse, atMost);
    }

    /** With one blank in place of several. */
    public TextForm squeezing() {
        return new TextForm(more, between, true, take, divider, part, words, refuse, atMost);
    }

    /** What a pattern finds. */
    public TextForm taking(String pattern) {
        return new TextForm(more, between, squeezed, Pattern.compile(pattern), divider, part, words, refuse, atMost);
    }

    /** One part of a segmented code. */
    public TextForm part(int number, String mark) {
        return new TextForm(more, between, squeezed, take, mark, number, words, refuse, atMost);
    }

    /** In the receiver's words. */
    public TextForm inWords(Map<String, String> receivers) {
        return new TextForm(more, between, squeezed, take, divider, part, receivers, refuse, atMost);
    }

    /** True when a text is written as its field has it, but for what is refused or cut. */
    boolean isWhole() {
        return more.isEmpty() && !squeezed && take == null && divider.isEmpty() && words.isEmpty();
    }

    /** What becomes of a text before anything is left out or cut. */
    String of(String text) {
        String made = ours(text);
        return words.getOrDefault(made, made);
    }

    /** True when the receiver has no word for a text. */
    boolean isWordless(String text) {
        String made = ours(text);
        return !words.isEmpty() && !made.isEmpty() && !words.containsKey(made);
    }

    private String ours(String text) {
        String made = squeezed ? text.strip().replaceAll("[\\s\\u00a0]+", " ") : text;
        if (take != null) {
            Matcher found = take.matcher(made);
            String group = !found.find() ? "" : found.groupCount() > 0 ? found.group(1) : found.group();
            made = group == null ? "" : group;
        }
        if (!divider.isEmpty()) {
            String[] parts = made.split(java.util.regex.Pattern.quote(divider), -1);
            made = parts.length < part ? "" : parts[part - 1];
        }
        return made;
    }
}
