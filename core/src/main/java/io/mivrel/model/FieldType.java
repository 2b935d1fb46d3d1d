package io.mivrel.model;

/** What a field's values are, and so how they are read, compared and written. */
public enum FieldType {
    /** Free text; may be cut to a receiver's length. */
    TEXT("text"),
    /** A code, number or reference; never cut or changed. */
    CODE("code"),
    /** A calendar date, kept as its epoch day. */
    DATE("date"),
    /** Money in minor units of the books' currency. */
    AMOUNT("amount"),
    /** An exact decimal number such as a quantity or a price. */
    DECIMAL("number");

    private final String word;

    FieldType(String word) {
        this.word = word;
    }

    /** The word used in settings and documents. */
    public String word() {
        return word;
    }

    /** The word with its article, for messages. */
    public String one() {
        return (this == AMOUNT ? "an " : "a ") + word;
    }

    /** True for the types that a {@link SourceRecord} keeps as {@code long}. */
    boolean isNumeric() {
        return this == DATE || this == AMOUNT;
    }

    /** True for the types that a {@link RecordBlock} keeps as a stretch of characters. */
    boolean isSpan() {
        return this == TEXT || this == CODE;
    }
}
