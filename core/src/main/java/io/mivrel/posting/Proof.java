package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.money.Money;
import io.mivrel.posting.BalanceChanges.Place;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What the arithmetic says of a batch, as the ledger answered.
 *
 * @param accounts every account that had or has a balance, or that the batch touches
 * @param references what became of the keys
 * @param differences what is not as it was sent, or not explained; empty when all is proved
 * @param closings closing balances of statements against the ledger's bank accounts
 * @param open clearing and suspense accounts that are not nil
 * @param waiting documents of the batch that are in the ledger by no batch: refused, different or waiting
 * @param results what the batch does to the profit and loss, income negative, by currency
 */
public record Proof(
        PostingLog.Noted batch,
        List<AccountLine> accounts,
        References references,
        List<Difference> differences,
        List<ClosingLine> closings,
        List<OpenAccount> open,
        long waiting,
        List<Money> results) {

    /** True when everything that was sent is there as it was sent, and every balance is explained. */
    public boolean holds() {
        return differences.isEmpty();
    }

    /** True when it holds, and all else that is told with it agrees: statements, accounts that should be nil, nothing waits. */
    public boolean agrees() {
        return holds() && but().isEmpty();
    }

    /** What does not agree though the batch is proved, in words; of a batch that is gone nothing is expected to. */
    public List<String> but() {
        List<String> but = new ArrayList<>();
        if (references.posted() == 0) {
            return but;
        }
        for (ClosingLine line : closings) {
            if (line.difference() != 0) {
                Currency currency = line.closing().balance().currency();
                but.add(line.closing().file() + " closes " + Money.show(line.difference(), currency)
                        + " apart from account " + line.closing().account());
            }
        }
        for (OpenAccount one : open) {
            but.add("account " + one.account().label() + " is not nil: "
                    + Money.show(one.left().minor(), one.left().currency()));
        }
        if (waiting > 0) {
            but.add(waiting + (waiting == 1 ? " document is" : " documents are")
                    + " not in the ledger: refused, different there, or waiting");
        }
        return but;
    }

    /**
     * One account in one currency, in minor units.
     *
     * @param account {@code null} when the ledger's chart does not have it
     * @param before what stood there before the batch
     * @param sent what the batch was to add, from what was sent
     * @param landed what the ledger says that the batch added
     * @param others what else was recorded since
     * @param after what stands there now
     */
    public record AccountLine(
            Place place, @Nullable Account account, long before, long sent, long landed, long others, long after) {
        public boolean holds() {
            return sent == landed && before + landed + others == after;
        }
    }

    /**
     * Keys.
     *
     * @param posted how many documents were posted and not taken back
     * @param there how many of these are in the ledger as they were sent
     * @param missing how many are not there
     * @param changed how many are there with other content
     * @param doubled how many stand there twice
     * @param foreign entries of the batch that were never sent
     */
    public record References(long posted, long there, long missing, long changed, long doubled, long foreign) {}

    /**
     * Something that is not as it should be.
     *
     * @param what in plain words, with figures
     * @param at the source of the document, such as {@code current.csv row 88}; empty where there is none
     * @param likely what probably happened; empty when nothing fits
     */
    public record Difference(String what, String at, String likely) {}

    /**
     * A statement against the ledger. The parts add up to the difference: the first two plus, the third minus.
     *
     * @param ledger the balance of the account there at the end of the day
     * @param earlier the opening balance of the statement less what the ledger had before its first day
     * @param notPosted movements of the statement that were not posted from here
     * @param others movements in the ledger that did not come from here
     * @param items entries that make up the others, the first ones
     */
    public record ClosingLine(
            PostingLog.Closing closing,
            Money ledger,
            Money earlier,
            Money notPosted,
            Money others,
            List<String> items) {
        public long difference() {
            return closing.balance().minor() - ledger.minor();
        }
    }

    /** A clearing or suspense account with something left on it, and the entries that are. */
    public record OpenAccount(Account account, Money left, List<String> items) {}

    /** The date of the last thing that is proved. */
    public LocalDate day() {
        return batch.batch().day();
    }
}
