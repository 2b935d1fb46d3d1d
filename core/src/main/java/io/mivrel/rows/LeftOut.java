package io.mivrel.rows;

/** Why a row that was read is neither delivered nor held. */
public enum LeftOut {
    ABOVE_TITLES("above the titles"),
    TITLES("title row"),
    TITLES_AGAIN("titles again"),
    BLANK("blank"),
    BELOW_DATA("below the data"),
    BY_LAYOUT("named in the layout"),
    HEADING("headings"),
    PAGE_HEAD("page headings"),
    CONTINUED("lines that go on"),
    WITHOUT_AMOUNTS("without amounts"),
    NOT_BOOKED("not booked yet"),
    OPENING("opening balance"),
    OTHER_ACCOUNT("of another account"),
    TAKEN_ONCE("in another file too"),
    BY_DECISION("by a decision"),
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
