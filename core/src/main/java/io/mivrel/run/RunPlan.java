package io.mivrel.run;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.coding.CodingTable;
import io.mivrel.corrections.Corrections;
import io.mivrel.history.DocumentHistory;
import io.mivrel.intake.Input;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.Layout;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Kind;
import io.mivrel.money.Money;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Everything a run needs, frozen.
 *
 * @param books what is checked against
 * @param inputs the files, in order; all of one kind
 * @param coding {@code null} when nothing is coded
 * @param suspense the account of what nothing decides; {@code null} to hold it
 * @param dates the wanted dates
 * @param targets what is delivered where
 * @param ownChecks checks beside the standard ones
 * @param holdsEverything true when one blocker stops the whole delivery
 * @param first at most this many documents are delivered, as a pilot; 0 for all
 * @param history what earlier runs delivered
 * @param publication who hears of the files' names
 * @param checksOnly true when nothing is delivered
 * @param clearTo who gets the clear documents one by one as the journals they amount to; {@code null} for nobody
 * @param heldTo who gets the held documents; {@code null} for nobody
 * @param corrections what people have made of held rows
 * @param documentsKept how many documents are reported one by one; 0 for none
 */
public record RunPlan(
        String name,
        Books books,
        List<Input> inputs,
        @Nullable CodingTable coding,
        @Nullable String suspense,
        DateWindow dates,
        List<DeliveryTarget> targets,
        List<Check> ownChecks,
        boolean holdsEverything,
        long first,
        DocumentHistory history,
        Publication publication,
        boolean checksOnly,
        @Nullable ClearDocuments clearTo,
        @Nullable HeldDocuments heldTo,
        Corrections corrections,
        int documentsKept) {
    public RunPlan {
        inputs = List.copyOf(inputs);
        targets = List.copyOf(targets);
        ownChecks = List.copyOf(ownChecks);
    }

    public static Builder named(String name, Books books) {
        return new Builder(name, books);
    }

    /** The kind, which all inputs share. */
    public Kind kind() {
        return inputs.get(0).layout().gives();
    }

    /** The main currency: that of the first file. */
    public Currency currency() {
        return currency(inputs.get(0));
    }

    /** The currencies of all files, the main one first. */
    List<Currency> currencies() {
        return inputs.stream().map(this::currency).distinct().toList();
    }

    /** The currency of the amounts of a file that name none of their own: that of its account, else the home currency. */
    Currency currency(Input input) {
        Account account = books.account(input.layout().account());
        return account == null || account.currency() == null
                ? books.currency()
                : Currency.getInstance(account.currency());
    }

    /** True when the layouts say that lines of one document may stand in several files. */
    boolean joinsFiles() {
        return inputs.stream().allMatch(input -> input.layout().acrossFiles());
    }

    Drafter drafter() {
        return kind().drafter(new DraftingContext(books, coding != null, suspense));
    }

    /** What keeps the plan from being run, in words; empty when nothing does. */
    public List<String> gaps() {
        List<String> gaps = new ArrayList<>();
        if (inputs.isEmpty()) {
            gaps.add("a run takes in at least one file");
            return gaps;
        }
        Kind kind = kind();
        for (Input input : inputs) {
            if (input.layout().gives() != kind) {
                gaps.add("a run takes in one kind of records, but there are " + kind.name() + " and "
                        + input.layout().gives().name());
            }
        }
        if (!joinsFiles() && inputs.stream().anyMatch(input -> input.layout().acrossFiles())) {
            gaps.add("the layouts of a run must all say 'documents: across files', or none");
        }
        for (DeliveryTarget target : targets) {
            if (!target.delivery().accepts(kind)) {
                gaps.add("the delivery '" + target.delivery().name() + "' takes "
                        + target.delivery().takes().documents() + ", but " + kind.name()
                        + " can only be delivered as " + kind.documents() + (kind.hasJournal() ? " or journals" : ""));
            }
        }
        if (clearTo != null && !kind.isJournal() && !kind.hasJournal()) {
            gaps.add(kind.documents() + " amount to no journal, so they cannot be posted to a ledger");
        }
        if (kind.isOfAccount()) {
            inputs.forEach(input -> accountGaps(input, gaps));
            currencyGaps(gaps);
        }
        if (kind.isCoded()) {
            codingGaps(gaps);
        } else if (coding != null) {
            gaps.add("only bank lines are coded, not " + kind.name());
        }
        gaps.addAll(drafter().gaps());
        return gaps;
    }

    private void accountGaps(Input input, List<String> gaps) {
        String code = input.layout().account();
        Account account = books.account(code);
        if (Layout.BY_NUMBER.equals(code)) {
            gaps.add(input.name() + ": its statements cannot be read, so nobody knows whose they are");
        } else if (account == null && input.layout().format().part().equals(code)) {
            gaps.add(input.name() + ": no bank or card account of the books has the number " + code
                    + "; give it to its account in chart.csv, under 'number'");
        } else if (code == null) {
            gaps.add("the layout '" + input.layout().name() + "' must name the bank account under 'account'");
        } else if (account == null || !account.holdsMoney()) {
            gaps.add("the layout '" + input.layout().name() + "' names the account " + code
                    + ", which is not set up as a bank or card account");
        } else if (account.currency() != null) {
            foreignGaps(account, gaps);
        }
    }

    // No rates are applied yet, and foreign amounts in home journals would be silently wrong.
    private void foreignGaps(Account account, List<String> gaps) {
        if (deliversJournals()) {
            gaps.add("the account " + account.label() + " is kept in " + account.currency()
                    + ", so its lines can be delivered as bank transactions, but not as journals in "
                    + books.currency().getCurrencyCode());
        }
    }

    // Amounts of several currencies go into files of their own, which all have the decimals of the delivery.
    private void currencyGaps(List<String> gaps) {
        if (currencies().stream().map(Money::decimals).distinct().count() > 1) {
            gaps.add("a run takes in accounts whose currencies have the same decimals, not "
                    + currencies().stream().map(Currency::getCurrencyCode).collect(Collectors.joining(" and ")));
        }
    }

    private void codingGaps(List<String> gaps) {
        boolean coded = inputs.stream().allMatch(i -> i.layout().fields().containsKey(kind().account()));
        if (deliversJournals() && coding == null && !coded) {
            gaps.add(
                    "to deliver bank lines as journals, or to post them, a coding table is needed: 'coding' in a run sheet");
        }
    }

    private boolean deliversJournals() {
        return clearTo != null
                || targets.stream().anyMatch(t -> t.delivery().takes().isJournal());
    }

    /** Collects a plan. */
    public static final class Builder {
        private final String name;
        private final Books books;
        private List<Input> inputs = List.of();
        private @Nullable CodingTable coding;
        private @Nullable String suspense;
        private DateWindow dates = DateWindow.ALL;
        private List<DeliveryTarget> targets = List.of();
        private List<Check> ownChecks = List.of();
        private boolean holdsEverything;
        private long first;
        private DocumentHistory history = DocumentHistory.NONE;
        private Publication publication = Publication.NONE;
        private boolean checksOnly;
        private @Nullable ClearDocuments clearTo;
        private @Nullable HeldDocuments heldTo;
        private Corrections corrections = Corrections.none();
        private int documentsKept;

        private Builder(String name, Books books) {
            this.name = Objects.requireNonNull(name);
            this.books = Objects.requireNonNull(books);
        }

        public Builder inputs(List<Input> files) {
            inputs = files;
            return this;
        }

        /** {@code suspenseAccount} may be {@code null}, and so may the table. */
        public Builder coding(@Nullable CodingTable table, @Nullable String suspenseAccount) {
            coding = table;
            suspense = suspenseAccount;
            return this;
        }

        public Builder dates(DateWindow wanted) {
            dates = Objects.requireNonNull(wanted);
            return this;
        }

        public Builder targets(List<DeliveryTarget> deliveries) {
            targets = deliveries;
            return this;
        }

        public Builder ownChecks(List<Check> checks) {
            ownChecks = checks;
            return this;
        }

        /** One blocker stops the whole delivery. */
        public Builder holdEverything() {
            holdsEverything = true;
            return this;
        }

        public Builder first(long documents) {
            first = documents;
            return this;
        }

        public Builder history(DocumentHistory earlier) {
            history = Objects.requireNonNull(earlier);
            return this;
        }

        public Builder publication(Publication listener) {
            publication = Objects.requireNonNull(listener);
            return this;
        }

        /** Delivers nothing. */
        public Builder checkOnly() {
            checksOnly = true;
            return this;
        }

        /** Hands out the clear documents one by one; makes large runs slower. */
        public Builder clearTo(ClearDocuments target) {
            clearTo = Objects.requireNonNull(target);
            return this;
        }

        /** Hands out the held documents. */
        public Builder heldTo(HeldDocuments target) {
            heldTo = Objects.requireNonNull(target);
            return this;
        }

        /** What people have made of held rows; the inputs are those that it has {@linkplain Corrections#correct corrected}. */
        public Builder corrections(Corrections said) {
            corrections = Objects.requireNonNull(said);
            return this;
        }

        /** Reports so many documents one by one; makes large runs slower. */
        public Builder keepDocuments(int most) {
            documentsKept = most;
            return this;
        }

        public RunPlan build() {
            return new RunPlan(
                    name,
                    books,
                    inputs,
                    coding,
                    suspense,
                    dates,
                    targets,
                    ownChecks,
                    holdsEverything,
                    first,
                    history,
                    publication,
                    checksOnly,
                    clearTo,
                    heldTo,
                    corrections,
                    documentsKept);
        }
    }
}
