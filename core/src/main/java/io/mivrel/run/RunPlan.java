package io.mivrel.run;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.coding.CodingTable;
import io.mivrel.delivery.Takes;
import io.mivrel.drafting.InvoiceDrafter;
import io.mivrel.intake.DateWindow;
import io.mivrel.model.BankLines;
import io.mivrel.model.FieldTable;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Money;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Objects;

/**
 * Everything a run needs, frozen.
 *
 * @param name the run's name
 * @param books what is checked against
 * @param inputs the files, in order; all of one kind of record
 * @param coding the coding table of bank lines; {@code null} when nothing is coded
 * @param suspense the account of what nothing decides; {@code null} to hold it
 * @param dates the wanted dates
 * @param orders the deliveries
 * @param ownChecks checks beside the standard ones
 * @param holdEverything true when one blocker stops the whole delivery
 * @param first at most this many documents are delivered, as a pilot; 0 for all
 * @param memory what earlier runs delivered
 * @param deliver false to check only
 */
public record RunPlan(
        String name,
        Books books,
        List<Input> inputs,
        CodingTable coding,
        String suspense,
        DateWindow dates,
        List<DeliveryTarget> orders,
        List<Check> ownChecks,
        boolean holdEverything,
        long first,
        DocumentHistory memory,
        boolean deliver) {

    public RunPlan {
        Objects.requireNonNull(name);
        Objects.requireNonNull(books);
        Objects.requireNonNull(dates);
        Objects.requireNonNull(memory);
        inputs = List.copyOf(inputs);
        orders = List.copyOf(orders);
        ownChecks = List.copyOf(ownChecks);
    }

    /** The kind of records, which all inputs share. */
    public FieldTable records() {
        return inputs.get(0).layout().gives();
    }

    /** What keeps the plan from being run, in words; empty when nothing does. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        if (inputs.isEmpty()) {
            gaps.add("a run takes in at least one file");
            return gaps;
        }
        FieldTable kind = records();
        for (Input input : inputs) {
            if (input.layout().gives() != kind) {
                gaps.add("a run takes in one kind of records, but there are " + kind.name() + " and "
                        + input.layout().gives().name());
            }
        }
        for (DeliveryTarget order : orders) {
            if (!order.delivery().takes().accepts(kind)) {
                gaps.add("the delivery '" + order.delivery().name() + "' takes "
                        + order.delivery().takes().words() + ", but " + kind.name() + " can only be delivered as "
                        + Takes.natural(kind).words() + " or journals");
            }
        }
        if (kind == BankLines.TABLE) {
            bankGaps(gaps);
        } else if (coding != null) {
            gaps.add("only bank lines are coded, not " + kind.name());
        }
        if (kind == InvoiceLines.TABLE) {
            InvoiceDrafter.missingAccounts(books)
                    .forEach(use -> gaps.add(
                            "the chart has no account with the use '" + use.word() + "', which invoices need"));
        }
        return gaps;
    }

    // No rates are applied yet, and foreign amounts in home journals would be silently wrong.
    private void foreignGaps(Account account, List<String> gaps) {
        if (orders.stream().anyMatch(o -> o.delivery().takes() == Takes.JOURNALS)) {
            gaps.add("the account " + account.label() + " is kept in " + account.currency()
                    + ", so its lines can be delivered as bank transactions, but not as journals in "
                    + books.currency().getCurrencyCode());
        }
        if (Money.decimals(Currency.getInstance(account.currency())) != books.decimals()) {
            gaps.add("the account " + account.label() + " is kept in " + account.currency()
                    + ", which has other decimals than " + books.currency().getCurrencyCode()
                    + "; such accounts are not taken yet");
        }
        if (inputs.stream().anyMatch(i -> {
            Account other = books.account(i.layout().account());
            return other == null || !account.currency().equals(other.currency());
        })) {
            gaps.add("a run takes in accounts of one currency, because its totals are sums");
        }
    }

    private void bankGaps(List<String> gaps) {
        for (Input input : inputs) {
            String account = input.layout().account();
            if (account == null) {
                gaps.add("the layout '" + input.layout().name() + "' must name the bank account under 'account'");
            } else if (books.account(account) == null || !books.account(account).holdsMoney()) {
                gaps.add("the layout '" + input.layout().name() + "' names the account " + account
                        + ", which is no bank or card account of the books");
            }
        }
        for (Input input : inputs) {
            Account account = books.account(input.layout().account());
            if (account != null && account.currency() != null) {
                foreignGaps(account, gaps);
            }
        }
        boolean journals = orders.stream().anyMatch(o -> o.delivery().takes() == Takes.JOURNALS);
        boolean coded = inputs.stream().allMatch(i -> i.layout().fields().containsKey(BankLines.ACCOUNT));
        if (journals && coding == null && !coded) {
            gaps.add("to deliver bank lines as journals the run sheet needs 'coding'");
        }
    }
}
