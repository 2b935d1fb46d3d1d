package io.mivrel.intake;

/**
 * What the running balance of one file proves, in minor units.
 *
 * @param steps how many steps from one balance to the next were compared
 * @param broken how many of them the amounts did not explain
 * @param opening balance before the first line
 * @param movement sum of the amounts of all lines, reckoned independently of the balances
 * @param closing balance after the last line
 * @param stated true when the file itself also states this closing balance below its data
 */
public record BalanceProof(long steps, long broken, long opening, long movement, long closing, boolean stated) {

    /** True when every step held and opening + movement = closing. */
    public boolean holds() {
        return broken == 0 && opening + movement == closing;
    }
}
