package io.mivrel.posting;

import io.mivrel.money.Money;

/**
 * What stands on an account in one currency.
 *
 * @param posted the sum of final entries, debit positive
 * @param drafts the sum of drafts
 */
public record Balance(String account, Money posted, Money drafts) {
    /** Both together. */
    public Money all() {
        return posted.plus(drafts);
    }
}
