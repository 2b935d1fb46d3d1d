package io.mivrel.model;

/**
 * What people call the documents of a kind and their amounts.
 *
 * @param one a document in the singular
 * @param many the plural
 * @param plus what positive amounts are called, as seen from the books
 * @param minus what negative amounts are called
 * @param deliveredPlus what positive amounts of a delivered file are called
 * @param deliveredMinus what negative ones are called
 * @param minusIsUsual false when a delivered file seldom has negative amounts, so that none are not worth a word
 */
public record KindWords(
        String one,
        String many,
        String plus,
        String minus,
        String deliveredPlus,
        String deliveredMinus,
        boolean minusIsUsual) {
    /** The same words for what was read and what was delivered. */
    public static KindWords of(String one, String many, String plus, String minus) {
        return new KindWords(one, many, plus, minus, plus, minus, true);
    }

    /** The same, with other words for delivered files, which seldom have negative amounts. */
    public KindWords delivered(String whenPlus, String whenMinus) {
        return new KindWords(one, many, plus, minus, whenPlus, whenMinus, false);
    }

    /** What so many documents are called. */
    public String documents(long count) {
        return count == 1 ? one : many;
    }
}
