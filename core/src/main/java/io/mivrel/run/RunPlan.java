package io.mivrel.run;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.coding.CodingTable;
import io.mivrel.intake.DateWindow;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Kind;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Objects;

/** Everything a run needs, frozen. */
public final class RunPlan {
    private final String name;
    private final Books books;
    private final List<Input> inputs;
    private final CodingTable coding;
    private final String suspense;
    private final DateWindow dates;
    private final List<DeliveryTarget> targets;
    private final List<Check> ownChecks;
    private final boolean holdsEverything;
    private final long first;
    private final DocumentHistory history;
    private final Publication publication;
    private final boolean checksOnly;
    private final int documentsKept;

    private RunPlan(Builder builder) {
        this.name = builder.name;
        this.books = builder.books;
        this.inputs = List.copyOf(builder.inputs);
        this.coding = builder.coding;
        this.suspense = builder.suspense;
        this.dates = builder.dates;
        this.targets = List.copyOf(builder.targets);
        this.ownChecks = List.copyOf(builder.ownChecks);
        this.holdsEverything = builder.holdsEverything;
        this.first = builder.first;
        this.history = builder.history;
        this.publication = builder.publication;
        this.checksOnly = builder.checksOnly;
        this.documentsKept = builder.documentsKept;
    }

    public static Builder named(String name, Books books) {
        return new Builder(name, books);
    }

    public String name() {
        return name;
    }

    /** What is checked against. */
    public Books books() {
        return books;
    }

    /** The files, in order; all of one kind and one currency. */
    public List<Input> inputs() {
        return inputs;
    }

    /** {@code null} when nothing is coded. */
    public CodingTable coding() {
        return coding;
    }

    /** The account of what nothing decides; {@code null} to hold it. */
    public String suspense() {
        return suspense;
    }

    /** The wanted dates. */
    public DateWindow dates() {
        return dates;
    }

    public List<DeliveryTarget> targets() {
        return targets;
    }

    /** Checks beside the standard ones. */
    public List<Check> ownChecks() {
        return ownChecks;
    }

    /** True when one blocker stops the whole delivery. */
    public boolean holdsEverything() {
        return holdsEverything;
    }

    /** At most this many documents are delivered, as a pilot; 0 for all. */
    public long first() {
        return first;
    }

    /** What earlier runs delivered. */
    public DocumentHistory history() {
        return history;
    }

    /** Who hears of the files' names. */
    public Publication publication() {
        return publication;
    }

    /** True when nothing is delivered. */
    public boolean checksOnly() {
        return checksOnly;
    }

    /** How many documents are reported one by one; 0 for none. */
    public int documentsKept() {
        return documentsKept;
    }

    /** The kind, which all inputs share. */
    public Kind kind() {
        return inputs.get(0).layout().gives();
    }

    /** The currency of all amounts that name none of their own: that of the account, else the home currency. */
    public Currency currency() {
        Account account = books.account(inputs.get(0).layout().account());
        return account == null || account.currency() == null
                ? books.currency()
                : Currency.getInstance(account.currency());
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
        for (DeliveryTarget target : targets) {
            if (!target.delivery().accepts(kind)) {
                gaps.add("the delivery '" + target.delivery().name() + "' takes "
                        + target.delivery().takes().documents() + ", but " + kind.name()
                        + " can only be delivered as " + kind.documents() + (kind.hasJournal() ? " or journals" : ""));
            }
        }
        if (kind.isOfAccount()) {
            inputs.forEach(input -> accountGaps(input, gaps));
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
        if (code == null) {
            gaps.add("the layout '" + input.layout().name() + "' must name the bank account under 'account'");
        } else if (account == null || !account.holdsMoney()) {
            gaps.add("the layout '" + input.layout().name() + "' names the account " + code
                    + ", which is no bank or card account of the books");
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
        if (inputs.stream().anyMatch(i -> {
            Account other = books.account(i.layout().account());
            return other == null || !account.currency().equals(other.currency());
        })) {
            gaps.add("a run takes in accounts of one currency, because its totals are sums");
        }
    }

    private void codingGaps(List<String> gaps) {
        boolean coded = inputs.stream().allMatch(i -> i.layout().fields().containsKey(kind().account()));
        if (deliversJournals() && coding == null && !coded) {
            gaps.add("to deliver bank lines as journals the run sheet needs 'coding'");
        }
    }

    private boolean deliversJournals() {
        return targets.stream().anyMatch(t -> t.delivery().takes().isJournal());
    }

    /** Collects a plan. */
    public static final class Builder {
        private final String name;
        private final Books books;
        private List<Input> inputs = List.of();
        private CodingTable coding;
        private String suspense;
        private DateWindow dates = DateWindow.ALL;
        private List<DeliveryTarget> targets = List.of();
        private List<Check> ownChecks = List.of();
        private boolean holdsEverything;
        private long first;
        private DocumentHistory history = DocumentHistory.NONE;
        private Publication publication = Publication.NONE;
        private boolean checksOnly;
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
        public Builder coding(CodingTable table, String suspenseAccount) {
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

        /** Reports so many documents one by one; makes large runs slower. */
        public Builder keepDocuments(int most) {
            documentsKept = most;
            return this;
        }

        public RunPlan build() {
            return new RunPlan(this);
        }
    }
}
