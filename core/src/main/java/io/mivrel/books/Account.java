package io.mivrel.books;

/** One account of the chart. {@code taxCode} is {@code null} when there is no default. */
public record Account(
        String code, String name, AccountType type, AccountUse use, AccountStatus status, String taxCode) {

    /** True for the accounts that stand for money itself. */
    public boolean holdsMoney() {
        return use == AccountUse.BANK || use == AccountUse.CARD;
    }

    /** Code and name, for people. */
    public String label() {
        return code + " " + name;
    }
}
