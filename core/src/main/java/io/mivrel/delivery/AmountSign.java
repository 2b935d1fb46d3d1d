package io.mivrel.delivery;

/** The sign with which a column has an amount. */
public enum AmountSign {
    /** That of the documents: a debit, or money in, is positive. */
    AS_RECKONED("as reckoned"),
    /** The other one. */
    TURNED("turned"),
    /** None: a column of {@link Sides} says it. */
    NONE("none");

    private final String word;

    AmountSign(String word) {
        this.word = word;
    }

    /** Its word in settings. */
    public String word() {
        return word;
    }

    /** An amount as it is written. */
    long of(long amount) {
        return switch (this) {
            case AS_RECKONED -> amount;
            case TURNED -> -amount;
            case NONE -> Math.abs(amount);
        };
    }
}
