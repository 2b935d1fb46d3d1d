package io.mivrel.intake;

/** Why a row that was read is neither delivered nor held. */
public enum LeftOut {
    ABOVE_TITLES("above the titles"),
    TITLES("title row"),
    TITLES_AGAIN("titles again"),
    BLANK("blank"),
    BELOW_DATA("below the data"),
    OUTSIDE_DATES("outside the wanted dates"),
    DELIVERED_BEFORE("delivered before"),
    BEYOND_PILOT("beyond the pilot");

    private final String words;

    LeftOut(String words) {
        this.words = words;
    }

    /** As printed after a count: {@code 3 blank}. */
    public String words() {
        return words;
    }
}
