package io.mivrel.layout;

import java.util.Arrays;
import java.util.List;

/** Whether a positive figure means money in or money out. Declared once in a layout, and nothing flips twice. */
public enum Signs {
    AS_WRITTEN("as written"),
    /** Amounts mean the opposite, while a running balance is written as the books see it. */
    REVERSED("reversed"),
    /** Amounts and balances are seen from the other side, as by a card company: what is owed to it is positive. */
    ALL_REVERSED("all reversed"),
    /** Amounts are written as the books see them, while a running balance is what is owed. */
    BALANCE_REVERSED("balance reversed"),
    /** Amounts have none of their own: the running balance tells which way each went. */
    BY_BALANCE("by balance");

    private final String word;

    Signs(String word) {
        this.word = word;
    }

    /** True when amounts mean the opposite of what is written. */
    public boolean turnsAmounts() {
        return this == REVERSED || this == ALL_REVERSED;
    }

    /** True when running balances do. */
    public boolean turnsBalances() {
        return this == ALL_REVERSED || this == BALANCE_REVERSED;
    }

    /** As layouts write it. */
    public String word() {
        return word;
    }

    public static Signs of(String word) {
        return Arrays.stream(values())
                .filter(s -> s.word.equals(word))
                .findFirst()
                .orElseThrow();
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(Signs::word).toList();
    }
}
