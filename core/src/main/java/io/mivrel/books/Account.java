package io.mivrel.books;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * One account of the chart.
 *
 * @param taxCode default tax code; {@code null} when there is none
 * @param numbers for a bank or card account, the numbers that its statements may name; empty when they are not known
 * @param currency ISO 4217 code of a foreign currency it is kept in; {@code null} for the home currency
 */
public record Account(
        String code,
        String name,
        AccountType type,
        AccountUse use,
        AccountStatus status,
        @Nullable String taxCode,
        List<String> numbers,
        @Nullable String currency) {

    public Account {
        numbers = List.copyOf(numbers);
    }

    /** An account in the home currency that no statement names. */
    public Account(
            String code,
            String name,
            AccountType type,
            AccountUse use,
            AccountStatus status,
            @Nullable String taxCode) {
        this(code, name, type, use, status, taxCode, List.of(), null);
    }

    /** True for the accounts that stand for money itself. */
    public boolean holdsMoney() {
        return use == AccountUse.BANK || use == AccountUse.CARD;
    }

    /** True for an account that should come to nil: what stands on it waits for something. */
    public boolean shouldBeNil() {
        return use == AccountUse.CLEARING || use == AccountUse.TRANSFER || use == AccountUse.SUSPENSE;
    }

    /** True for the control account of customers or suppliers: each line on it names one of them. */
    public boolean isControl() {
        return use == AccountUse.RECEIVABLES || use == AccountUse.PAYABLES;
    }

    /** True for a card or a loan, whose balance is what is owed. */
    public boolean isOwed() {
        return holdsMoney() && (use == AccountUse.CARD || type == AccountType.LIABILITY);
    }

    /**
     * True when a number that a statement in a currency ({@code null} when it states none) names is one of this account:
     * banks put their own code before the number, and the currency behind it.
     */
    public boolean hasNumber(String stated, @Nullable String ofCurrency) {
        String whole = plain(stated);
        String own = plain(stated.substring(stated.lastIndexOf('/') + 1));
        String behind = ofCurrency == null ? "" : ofCurrency;
        for (String number : numbers) {
            String wanted = plain(number);
            if (whole.equals(wanted)
                    || own.equals(wanted)
                    || whole.equals(wanted + behind)
                    || own.equals(wanted + behind)) {
                return true;
            }
        }
        return false;
    }

    private static String plain(String number) {
        return number.replaceAll("[^0-9A-Za-z]", "").toUpperCase(Locale.ROOT);
    }

    /** Code and name, for people. */
    public String label() {
        return code + " " + name;
    }
}
