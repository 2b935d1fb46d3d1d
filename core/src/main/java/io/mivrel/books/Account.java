package io.mivrel.books;

import java.util.List;
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

    /** Code and name, for people. */
    public String label() {
        return code + " " + name;
    }
}
