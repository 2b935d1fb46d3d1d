package io.mivrel.layout;

import java.util.List;

/**
 * What the layout lets pass, and the days it is made for. Immutable.
 *
 * @param netsSides true when a row with amounts on both sides means their difference
 * @param blankIsNil true when a row without an amount means nil
 * @param homeMoney true when the amounts are home money, whatever currency a row names
 * @param partiesMissing true when lines on control accounts of customers and suppliers name none of them
 * @param days the days that the layout reads; a file with others is held, because its form may have changed
 */
public record Permissions(
        boolean netsSides, boolean blankIsNil, boolean homeMoney, boolean partiesMissing, DateWindow days) {
    /** Nothing beyond the usual, for all days. */
    public static final Permissions STRICT = new Permissions(false, false, false, false, DateWindow.ALL);

    /** The word for {@link #netsSides} in a layout. */
    public static final String NET = "both sides netted";

    /** The word for {@link #blankIsNil} in a layout. */
    public static final String NIL = "blank is nil";

    /** The word for {@link #homeMoney} in a layout. */
    public static final String HOME = "amounts are home money";

    /** The word for {@link #partiesMissing} in a layout. */
    public static final String PARTIES = "control lines without party";

    /** All the words. */
    public static final List<String> WORDS = List.of(NET, NIL, HOME, PARTIES);
}
