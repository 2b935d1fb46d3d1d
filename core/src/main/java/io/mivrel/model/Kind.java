package io.mivrel.model;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * A kind of document: its table of fields and what each of them is for, who drafts it, what makes two the same, and what
 * people call it. Everything that reads, checks, delivers or tells of documents asks the kind; nothing asks which kind it
 * is. Immutable.
 *
 * <pre>{@code
 * Kind.of(TABLE, "journals").words(KindWords.of("journal", "journals", "debit", "credit"))
 *     .date(DATE).key(REFERENCE).amount(AMOUNT).sides(DEBIT, CREDIT).narrative(NARRATIVE)
 *     .codes(ACCOUNT, TAX_CODE, PARTY).identity(...).drafter(JournalDrafter::new).build();
 * }</pre>
 */
public final class Kind {
    /** The numbers of identities that are taken, each by a table. */
    private static final Map<Integer, String> NUMBERS = new ConcurrentHashMap<>();

    private final Builder made;
    private final KindWords words;
    private final Field date;
    private final Field amount;
    private final DocumentIdentity identity;
    private final Function<DraftingContext, Drafter> drafter;
    private final @Nullable Field[] keys;
    private final List<Field> foreignAmounts;
    private final List<Field> dimensions;
    /** Read when they are first asked for. */
    private volatile @Nullable Map<Field, List<String>> titles;

    private Kind(Builder made) {
        this.made = made;
        this.words = Objects.requireNonNull(made.words, "words");
        this.date = Objects.requireNonNull(made.date, "date");
        this.amount = Objects.requireNonNull(made.amount, "amount");
        this.identity = Objects.requireNonNull(made.identity, "identity");
        this.drafter = Objects.requireNonNull(made.drafter, "drafter");
        this.keys = new Field[made.table.levels().size()];
        for (Field key : made.keyFields) {
            keys[key.level().depth()] = key;
        }
        String other = identity.number() == 0 ? null : NUMBERS.putIfAbsent(identity.number(), made.table.name());
        if (other != null && !other.equals(made.table.name())) {
            throw new IllegalArgumentException("'" + other + "' and '" + made.table.name()
                    + "' have the same number of identity, " + identity.number() + "; choose another");
        }
        made.table.complete();
        this.foreignAmounts = made.table.fields().stream()
                .filter(field -> field.currency() != null)
                .toList();
        this.dimensions = made.table.fields().stream().filter(this::isDimension).toList();
    }

    // A code of a line that has no meaning of its own.
    private boolean isDimension(Field field) {
        return field.type() == FieldType.CODE
                && !field.derived()
                && field.level() == amount.level()
                && field != made.account
                && field != made.taxCode
                && field != made.party
                && field != made.item
                && foreignAmounts.stream().noneMatch(foreign -> foreign.currency() == field)
                && !made.keyFields.contains(field);
    }

    /**
     * Starts a kind.
     *
     * @param table its fields
     * @param documents the documents in the plural, as deliveries write it: {@code bank transactions}
     */
    public static Builder of(FieldTable table, String documents) {
        return new Builder(table, documents);
    }

    /** Its records in the plural, as layouts write it: {@code bank lines}. */
    public String name() {
        return made.table.name();
    }

    /** Its documents in the plural, as deliveries write it: {@code bank transactions}. */
    public String documents() {
        return made.documents;
    }

    public FieldTable table() {
        return made.table;
    }

    public KindWords words() {
        return words;
    }

    /** Titles of columns by the fields that they give, in the order in which fields take their columns. */
    public Map<Field, List<String>> titles() {
        Map<Field, List<String>> known = titles;
        if (known == null) {
            Map<Field, List<String>> read = new LinkedHashMap<>();
            made.titles
                    .get()
                    .forEach((name, words) -> read.put(table().find(name).orElseThrow(), words));
            known = Collections.unmodifiableMap(read);
            titles = known;
        }
        return known;
    }

    /** Fields that tell a file to be of the kind: of each of these, one is among its columns. Empty: titles never tell. */
    public List<List<Field>> toldBy() {
        return made.toldBy;
    }

    /** The date of a document. */
    public Field date() {
        return date;
    }

    /** The field that records of one document have in common; {@code null} when each record is a document. */
    public @Nullable Field key() {
        return keys[0];
    }

    /** Fields of the heading besides the key that tell documents apart, such as whose books they are for. */
    public List<Field> apart() {
        return made.apart;
    }

    /** The field that says the currency of a record; {@code null} when the kind has none. */
    public @Nullable Field currency() {
        return made.currency;
    }

    /** The same for the nodes of a level; {@code null} when each record is one. */
    public @Nullable Field key(int depth) {
        return keys[depth];
    }

    /** The signed amount, debit or money in positive. Its level is that of the {@linkplain Document#lines() lines}. */
    public Field amount() {
        return amount;
    }

    /** Another field that carries the amount when it is delivered; {@code null} for none. */
    public @Nullable Field grossAmount() {
        return made.gross;
    }

    /** The amount when it is positive; {@code null} when the kind has no sides. */
    public @Nullable Field plusSide() {
        return made.plus;
    }

    /** The amount without sign when it is negative; {@code null} when the kind has no sides. */
    public @Nullable Field minusSide() {
        return made.minus;
    }

    /** Amounts that may stand beside the amount in a currency of their own. */
    public List<Field> foreignAmounts() {
        return foreignAmounts;
    }

    /** With {@link #price}, what an amount that is not given is computed from; {@code null} for none. */
    public @Nullable Field quantity() {
        return made.quantity;
    }

    public @Nullable Field price() {
        return made.price;
    }

    /** {@code null} for none, as all that follow. */
    public @Nullable Field narrative() {
        return made.narrative;
    }

    public @Nullable Field payee() {
        return made.payee;
    }

    /** The running balance after the line. */
    public @Nullable Field balance() {
        return made.balance;
    }

    /** What a document itself says that its lines come to. */
    public @Nullable Field statedTotal() {
        return made.statedTotal;
    }

    /** What the bank calls the line. */
    public @Nullable Field bankIdentifier() {
        return made.bankIdentifier;
    }

    public @Nullable Field account() {
        return made.account;
    }

    public @Nullable Field taxCode() {
        return made.taxCode;
    }

    public @Nullable Field party() {
        return made.party;
    }

    /** Further codes of a line, such as its department. Kinds share them by name: what amounts to a journal hands them on. */
    public List<Field> dimensions() {
        return dimensions;
    }

    /** True when a coding table may decide the account. */
    public boolean isCoded() {
        return made.coded;
    }

    /** True when every file is of one bank or card account, which its layout names. */
    public boolean isOfAccount() {
        return made.ofAccount;
    }

    /** True for journals themselves: every other kind may amount to one of these. */
    public boolean isJournal() {
        return made.journal;
    }

    /** True when a document of the kind amounts to a journal and can be delivered as one. */
    public boolean hasJournal() {
        return made.journal || made.amountsToJournal;
    }

    /**
     * True when the lines of a document are its records, one for one, with no value worked out: such documents are checked
     * and delivered in columns, without an object for each.
     */
    public boolean isColumnar() {
        return made.columnar;
    }

    /** True when two documents of one day with the same party and lines are one that was entered twice. */
    public boolean isEnteredOnce() {
        return made.enteredOnce;
    }

    /**
     * The fields of a record that carry figures of a credit, where the record being filled is of one; empty where it is not.
     * Decimal ones turn their sign only when they are negative: a quantity or a price, whichever has the minus.
     */
    public List<Field> creditFigures(RecordBlock block) {
        return made.credits != null && made.credits.test(block) ? made.creditFigures : List.of();
    }

    /** True when some of its documents are credits. */
    public boolean hasCredits() {
        return made.credits != null;
    }

    public DocumentIdentity identity() {
        return identity;
    }

    /** A new drafter for one run. */
    public Drafter drafter(DraftingContext context) {
        return drafter.apply(context);
    }

    /** The amount of a record for control totals, with the sign that the books give it; ABSENT when it has none. */
    public long signedAmount(RecordBlock block, int index) {
        long amount = block.number(this.amount, index);
        return amount == SourceRecord.ABSENT || made.sign == null ? amount : amount * made.sign.of(block, index);
    }

    @Override
    public String toString() {
        return made.documents;
    }

    /** The sign that a record's amount has in the books: 1 or -1. */
    public interface RecordSign {
        int of(RecordBlock block, int index);
    }

    /** Collects a kind; used once. */
    public static final class Builder {
        private final FieldTable table;
        private final String documents;
        private @Nullable KindWords words;
        private @Nullable Field date;
        private List<Field> keyFields = List.of();
        private @Nullable Field amount;
        private @Nullable Field gross;
        private @Nullable Field plus;
        private @Nullable Field minus;
        private @Nullable Field quantity;
        private @Nullable Field price;
        private @Nullable Field narrative;
        private @Nullable Field payee;
        private @Nullable Field balance;
        private @Nullable Field statedTotal;
        private @Nullable Field bankIdentifier;
        private @Nullable Field account;
        private @Nullable Field taxCode;
        private @Nullable Field party;
        private boolean coded;
        private boolean ofAccount;
        private boolean journal;
        private boolean amountsToJournal;
        private boolean columnar;
        private boolean enteredOnce;
        private @Nullable Predicate<RecordBlock> credits;
        private List<Field> creditFigures = List.of();
        private @Nullable RecordSign sign;
        private List<Field> apart = List.of();
        private @Nullable Field item;
        private @Nullable Field currency;
        private @Nullable DocumentIdentity identity;
        private @Nullable Function<DraftingContext, Drafter> drafter;
        private Supplier<Map<String, List<String>>> titles = Map::of;
        private List<List<Field>> toldBy = List.of();

        private Builder(FieldTable table, String documents) {
            this.table = Objects.requireNonNull(table);
            this.documents = Objects.requireNonNull(documents);
        }

        public Builder words(KindWords spoken) {
            words = spoken;
            return this;
        }

        /**
         * Titles of columns by the names of fields, in any language, the likelier first. A word behind {@code @} is a meaning
         * of the trade's words. They are asked for when a file is surveyed; no run needs them.
         */
        public Builder titles(Supplier<Map<String, List<String>>> words) {
            titles = words;
            return this;
        }

        /** A file with one of each of these among its columns is of the kind, where no arithmetic says otherwise. */
        @SafeVarargs
        public final Builder toldBy(List<Field>... someOfEach) {
            toldBy = List.of(someOfEach);
            return this;
        }

        public Builder date(Field field) {
            date = own(field);
            return this;
        }

        /** The key of the document and those of lower levels, each a code field of its level. */
        public Builder key(Field... fields) {
            keyFields = List.of(fields);
            keyFields.forEach(this::own);
            return this;
        }

        /** Fields of the heading besides the key: records that differ by one of them are never one document. */
        public Builder apart(Field... fields) {
            apart = List.of(fields);
            apart.forEach(this::own);
            return this;
        }

        /** The currency of a record. */
        public Builder currency(Field field) {
            currency = own(field);
            return this;
        }

        public Builder amount(Field field) {
            amount = own(field);
            return this;
        }

        /** Another field that carries the amount when it is delivered. */
        public Builder orGross(Field field) {
            gross = own(field);
            return this;
        }

        /** Two fields that exclude each other and may stand in the place of the amount. */
        public Builder sides(Field whenPlus, Field whenMinus) {
            plus = own(whenPlus);
            minus = own(whenMinus);
            return this;
        }

        /** What an amount that is not given is computed from. */
        public Builder computedFrom(Field quantityField, Field priceField) {
            quantity = own(quantityField);
            price = own(priceField);
            return this;
        }

        public Builder narrative(Field field) {
            narrative = own(field);
            return this;
        }

        public Builder payee(Field field) {
            payee = own(field);
            return this;
        }

        public Builder balance(Field field) {
            balance = own(field);
            return this;
        }

        public Builder statedTotal(Field field) {
            statedTotal = own(field);
            return this;
        }

        public Builder bankIdentifier(Field field) {
            bankIdentifier = own(field);
            return this;
        }

        /** The codes that the books know; each may be {@code null}. */
        public Builder codes(@Nullable Field accountField, @Nullable Field taxCodeField, @Nullable Field partyField) {
            account = own(accountField);
            taxCode = own(taxCodeField);
            party = own(partyField);
            return this;
        }

        /** What is sold, which is no dimension. */
        public Builder item(Field field) {
            item = own(field);
            return this;
        }

        /** A coding table may decide the account. */
        public Builder coded() {
            coded = true;
            return this;
        }

        /** Every file is of one bank or card account. */
        public Builder ofAccount() {
            ofAccount = true;
            return this;
        }

        /** Its documents are journals. */
        public Builder isJournal() {
            journal = true;
            return this;
        }

        /** Its drafter makes a journal of each document. */
        public Builder amountsToJournal() {
            amountsToJournal = true;
            return this;
        }

        /** Its lines are its records, one for one. */
        public Builder columnar() {
            columnar = true;
            return this;
        }

        /** Two documents of one day with the same party and lines are one, entered twice. */
        public Builder enteredOnce() {
            enteredOnce = true;
            return this;
        }

        /** The sign that a record's amount has in the books, where it is not always its own. */
        public Builder sign(RecordSign rule) {
            sign = rule;
            return this;
        }

        /**
         * Some documents are credits, whose figures files write positive or negative and records have positive.
         *
         * @param ofCredit tells whether the record that is being filled is of a credit
         * @param figures the fields that carry figures
         */
        public Builder credits(Predicate<RecordBlock> ofCredit, Field... figures) {
            credits = ofCredit;
            creditFigures = List.of(figures);
            return this;
        }

        public Builder identity(DocumentIdentity rule) {
            identity = rule;
            return this;
        }

        public Builder drafter(Function<DraftingContext, Drafter> factory) {
            drafter = factory;
            return this;
        }

        private @Nullable Field own(@Nullable Field field) {
            if (field != null) {
                field.requireOf(table);
            }
            return field;
        }

        /** Throws {@link NullPointerException} that names what is missing. */
        public Kind build() {
            return new Kind(this);
        }
    }
}
