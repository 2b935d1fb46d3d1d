package io.mivrel.testkit;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.money.Money;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.testng.SkipException;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/**
 * The promises of {@link Ledger}, as tests. Extend it and answer a ledger with {@link #books} and nothing posted; what the
 * ledger says it cannot do is skipped.
 *
 * <pre>{@code
 * public class MyLedgerTest extends LedgerPromises {
 *     protected Ledger open() { return new MyLedger(...); }
 * }
 * }</pre>
 */
public abstract class LedgerPromises {
    /** The currency of the books. */
    protected static final Currency POUND = Currency.getInstance("GBP");

    private static final LocalDate DAY = LocalDate.of(2027, 3, 15);
    private static final LocalDate LATER = LocalDate.of(2027, 3, 31);

    private Ledger ledger;

    /** A ledger with these books and nothing posted; called for each test. */
    protected abstract Ledger open() throws Exception;

    /** The books that the tests need. */
    protected static Books books() {
        return Books.named("Larkmoor Bell Foundry", POUND)
                .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
                .account("1300", "Customers", AccountType.ASSET, AccountUse.RECEIVABLES, AccountStatus.OPEN)
                .account("2900", "Suspense", AccountType.LIABILITY, AccountUse.SUSPENSE, AccountStatus.OPEN)
                .account("4000", "Tower bells", AccountType.INCOME)
                .account("5010", "Tin", AccountType.EXPENSE)
                .account("6215", "Old exchange", AccountType.EXPENSE, AccountUse.GENERAL, AccountStatus.CLOSED)
                .party(Party.customer("CUS-001", "Parish of St Aldhelm"))
                .period(Period.closed(LocalDate.of(2027, 1, 1), LocalDate.of(2027, 1, 31)))
                .period(Period.open(LocalDate.of(2027, 2, 1), LocalDate.of(2027, 12, 31)))
                .build();
    }

    @BeforeMethod
    public void openLedger() throws Exception {
        ledger = open();
    }

    @AfterMethod(alwaysRun = true)
    public void closeLedger() {
        if (ledger != null) {
            ledger.close();
        }
    }

    /** An entry of two lines that balances. */
    protected static Entry entry(String key, long minor) {
        return entry(key, DAY, EntryLine.of("5010", minor, "tin"), EntryLine.of("1200", -minor, "tin"));
    }

    private static Entry entry(String key, LocalDate day, EntryLine... lines) {
        return Entry.of(key, "journals", "TR-" + key, day, POUND, "tin ingots", List.of(lines));
    }

    private Batch batch(String key) throws Exception {
        Standing standing = ledger.abilities().drafts() ? Standing.DRAFT : Standing.FINAL;
        return new Batch(key, "Batch " + key, LATER, standing);
    }

    private List<Result> post(Batch batch, PostMode mode, Entry... entries) throws Exception {
        List<Answer> answers = ledger.post(batch, mode, List.of(entries));
        assertThat(answers)
                .extracting(Answer::key)
                .containsExactly(List.of(entries).stream().map(Entry::key).toArray(String[]::new));
        return answers.stream().map(Answer::result).toList();
    }

    private Map<String, Long> balances() throws Exception {
        Map<String, Long> balances = new TreeMap<>();
        for (Balance balance : ledger.balances(LocalDate.MAX)) {
            if (balance.all().minor() != 0) {
                balances.put(balance.account(), balance.all().minor());
            }
        }
        return balances;
    }

    private void need(boolean able, String what) {
        if (!able) {
            throw new SkipException(ledger.name() + " cannot " + what);
        }
    }

    @Test
    public void theBooksAreThere() throws Exception {
        Books there = ledger.books();
        assertThat(there.currency()).isEqualTo(POUND);
        assertThat(there.accountCodes()).containsAll(books().accountCodes());
        assertThat(there.account("6215").status()).isNotEqualTo(AccountStatus.OPEN);
        assertThat(there.period(DAY).orElseThrow().isOpen()).isTrue();
        assertThat(there.period(LocalDate.of(2027, 1, 15)).filter(Period::isOpen))
                .isEmpty();
        assertThat(balances()).isEmpty();
    }

    @Test
    public void whatIsPostedIsThereAsItWasSent() throws Exception {
        String odd = "tab\there, \"quotes\", back\\slash, café \u2013 Ω, line\nend";
        Entry sent = Entry.of(
                "K1",
                "journals",
                "TR-1",
                DAY,
                POUND,
                odd,
                List.of(
                        new EntryLine(
                                "5010",
                                12_345,
                                odd,
                                null,
                                null,
                                new Money(14_000, Currency.getInstance("EUR")),
                                Map.of("department", "casting")),
                        EntryLine.of("1300", -12_345, "").withParty("CUS-001")));
        assertThat(post(batch("b"), PostMode.ADD, sent)).containsExactly(Result.ADDED);
        PostedEntry there = ledger.find(List.of("K1", "K2")).get("K1");
        assertThat(there.entry()).isEqualTo(sent);
        assertThat(there.batch()).isEqualTo("b");
        assertThat(ledger.find(List.of("K2"))).isEmpty();
        assertThat(balances()).isEqualTo(Map.of("5010", 12_345L, "1300", -12_345L));
        assertThat(ledger.balances(DAY.minusDays(1)).stream()
                        .mapToLong(b -> Math.abs(b.all().minor()))
                        .sum())
                .isZero();
    }

    @Test
    public void theSameTwiceIsThereOnce() throws Exception {
        Entry sent = entry("K1", 100);
        post(batch("b"), PostMode.ADD, sent);
        for (PostMode mode : PostMode.values()) {
            if (!mode.replaces() || ledger.abilities().replaces()) {
                assertThat(post(batch("b"), mode, sent)).containsExactly(Result.THERE);
                assertThat(post(batch("c"), mode, sent)).containsExactly(Result.THERE);
            }
        }
        assertThat(balances()).isEqualTo(Map.of("5010", 100L, "1200", -100L));
    }

    @Test
    public void otherContentUnderAKeyIsNotTaken() throws Exception {
        post(batch("b"), PostMode.ADD, entry("K1", 100));
        assertThat(post(batch("c"), PostMode.ADD, entry("K1", 200), entry("K2", 5)))
                .containsExactly(Result.DIFFERS, Result.ADDED);
        assertThat(post(batch("c"), PostMode.SKIP_EXISTING, entry("K1", 200))).containsExactly(Result.SKIPPED);
        assertThat(balances()).isEqualTo(Map.of("5010", 105L, "1200", -105L));
    }

    @Test
    public void anEntryIsReplacedUnderItsKey() throws Exception {
        need(ledger.abilities().replaces(), "replace");
        post(batch("b"), PostMode.ADD, entry("K1", 100));
        assertThat(post(batch("c"), PostMode.REPLACE, entry("K1", 200), entry("K2", 5)))
                .containsExactly(Result.REPLACED, Result.REFUSED);
        assertThat(post(batch("c"), PostMode.ADD_OR_REPLACE, entry("K1", 300), entry("K2", 5)))
                .containsExactly(Result.REPLACED, Result.ADDED);
        assertThat(balances()).isEqualTo(Map.of("5010", 305L, "1200", -305L));
        assertThat(ledger.find(List.of("K1")).get("K1").entry().debit()).isEqualTo(300);
    }

    @Test
    public void aFinalEntryIsReplacedByReversingIt() throws Exception {
        need(ledger.abilities().replaces() && ledger.abilities().finals(), "replace what is final");
        Batch first = new Batch("b", "b", LATER, Standing.FINAL);
        post(first, PostMode.ADD, entry("K1", 100));
        post(new Batch("c", "c", LATER, Standing.FINAL), PostMode.REPLACE, entry("K1", 250));
        assertThat(balances()).isEqualTo(Map.of("5010", 250L, "1200", -250L));
    }

    @Test
    public void whatIsRefusedLeavesNoTraceAndKeepsNothingBack() throws Exception {
        Entry unknown = entry("K2", DAY, EntryLine.of("9999", 50, ""), EntryLine.of("1200", -50, ""));
        Entry closed = entry("K3", DAY, EntryLine.of("6215", 50, ""), EntryLine.of("1200", -50, ""));
        Entry unbalanced = entry("K4", DAY, EntryLine.of("5010", 50, ""), EntryLine.of("1200", -49, ""));
        Entry early = entry("K5", LocalDate.of(2027, 1, 15), EntryLine.of("5010", 1, ""), EntryLine.of("1200", -1, ""));
        List<Result> results =
                post(batch("b"), PostMode.ADD, entry("K1", 100), unknown, closed, unbalanced, early, entry("K6", 7));
        assertThat(results)
                .containsExactly(
                        Result.ADDED, Result.REFUSED, Result.REFUSED, Result.REFUSED, Result.REFUSED, Result.ADDED);
        assertThat(balances()).isEqualTo(Map.of("5010", 107L, "1200", -107L));
        assertThat(ledger.find(List.of("K2", "K3", "K4", "K5"))).isEmpty();
    }

    @Test
    public void aRehearsalAnswersAndDoesNothing() throws Exception {
        need(ledger.abilities().rehearses(), "say beforehand");
        Entry closed = entry("K2", DAY, EntryLine.of("6215", 50, ""), EntryLine.of("1200", -50, ""));
        assertThat(ledger.rehearse(batch("b"), PostMode.ADD, List.of(entry("K1", 100), closed)))
                .extracting(Answer::result)
                .containsExactly(Result.ADDED, Result.REFUSED);
        assertThat(balances()).isEmpty();
        assertThat(ledger.find(List.of("K1"))).isEmpty();
    }

    @Test
    public void aBatchComesOutAgain() throws Exception {
        need(ledger.abilities().withdraws(), "withdraw");
        post(batch("a"), PostMode.ADD, entry("K0", 9));
        Map<String, Long> before = balances();
        post(batch("b"), PostMode.ADD, entry("K1", 100), entry("K2", 200));
        ledger.seal("b");
        for (int time = 0; time < 2; time++) {
            assertThat(ledger.withdraw("b", List.of("K1", "K2"), LATER))
                    .extracting(Answer::result)
                    .allMatch(result -> result == Result.REMOVED || result == Result.REVERSED);
            assertThat(balances()).isEqualTo(before);
        }
        assertThat(ledger.find(List.of("K1", "K2"))).isEmpty();
        assertThat(post(batch("b"), PostMode.ADD, entry("K1", 100))).containsExactly(Result.REFUSED);
        assertThat(post(batch("c"), PostMode.ADD, entry("K1", 100))).containsExactly(Result.ADDED);
    }

    @Test
    public void finalEntriesComeOutByReversal() throws Exception {
        need(ledger.abilities().withdraws() && ledger.abilities().finals(), "withdraw what is final");
        Batch batch = new Batch("b", "b", LATER, Standing.FINAL);
        post(batch, PostMode.ADD, entry("K1", 100), entry("K2", 200));
        assertThat(ledger.withdraw("b", List.of("K1"), LATER).get(0).result()).isEqualTo(Result.REVERSED);
        assertThat(balances()).isEqualTo(Map.of("5010", 200L, "1200", -200L));
        // On its own day it stood, and still does.
        assertThat(ledger.balances(DAY).stream()
                        .mapToLong(b -> Math.max(0, b.all().minor()))
                        .sum())
                .isEqualTo(300);
    }

    @Test
    public void draftsBecomeFinal() throws Exception {
        need(ledger.abilities().drafts() && ledger.abilities().finals(), "make drafts final");
        post(batch("b"), PostMode.ADD, entry("K1", 100));
        assertThat(ledger.find(List.of("K1")).get("K1").standing()).isEqualTo(Standing.DRAFT);
        assertThat(ledger.makeFinal("b")).isEmpty();
        assertThat(ledger.find(List.of("K1")).get("K1").standing()).isEqualTo(Standing.FINAL);
        assertThat(ledger.balances(LATER).stream()
                        .mapToLong(b -> b.drafts().minor())
                        .boxed()
                        .toList())
                .containsOnly(0L);
        assertThat(balances()).isEqualTo(Map.of("5010", 100L, "1200", -100L));
    }

    @Test
    public void everythingSinceAMarkExplainsTheBalances() throws Exception {
        need(ledger.abilities().withdraws() && ledger.abilities().replaces(), "withdraw and replace");
        post(batch("a"), PostMode.ADD, entry("K1", 100), entry("K2", 200), entry("K3", 400));
        Map<String, Long> expected = balances();
        long mark = ledger.mark();
        post(batch("b"), PostMode.ADD_OR_REPLACE, entry("K2", 250), entry("K4", 800));
        ledger.withdraw("a", List.of("K3"), LATER);
        ledger.withdraw("b", List.of("K4"), LATER);
        assertThat(ledger.mark()).isGreaterThan(mark);
        ledger.entries(Ledger.Query.since(mark), recorded -> {
            boolean isNew = recorded.recorded() > mark;
            boolean gone = recorded.standing() == Standing.REMOVED;
            int sign = isNew && !gone ? 1 : !isNew && gone ? -1 : 0;
            for (EntryLine line : recorded.entry().lines()) {
                expected.merge(line.account(), sign * line.minor(), Long::sum);
            }
        });
        assertThat(balances()).isEqualTo(expected).isEqualTo(Map.of("5010", 350L, "1200", -350L));
    }

    @Test
    public void entriesAreHandedOutByAccountAndBatch() throws Exception {
        post(batch("a"), PostMode.ADD, entry("K1", 100));
        post(batch("b"), PostMode.ADD, entry("K2", DAY, EntryLine.of("4000", -70, ""), EntryLine.of("1200", 70, "")));
        assertThat(keys(Ledger.Query.ALL)).containsExactly("K1", "K2");
        assertThat(keys(Ledger.Query.ofAccount("4000"))).containsExactly("K2");
        assertThat(keys(Ledger.Query.ofBatch("a"))).containsExactly("K1");
    }

    private List<String> keys(Ledger.Query query) throws Exception {
        List<String> keys = new ArrayList<>();
        ledger.entries(query, posted -> keys.add(posted.entry().key()));
        return keys;
    }

    @Test
    public void manyEntriesGoThroughAllCalls() throws Exception {
        int most = Math.min(1_200, ledger.abilities().entriesAtMost());
        List<Entry> entries = new ArrayList<>();
        long sum = 0;
        for (int i = 1; i <= most; i++) {
            entries.add(entry("K" + i, i));
            sum += i;
        }
        assertThat(ledger.post(batch("b"), PostMode.ADD, entries))
                .extracting(Answer::result)
                .containsOnly(Result.ADDED);
        assertThat(balances()).isEqualTo(Map.of("5010", sum, "1200", -sum));
        assertThat(keys(Ledger.Query.ofBatch("b"))).hasSize(most).doesNotHaveDuplicates();
    }

    @Test
    public void partiesAreCreated() throws Exception {
        need(ledger.abilities().createsParties(), "create parties");
        ledger.create(List.of(Party.customer("CUS-777", "Torrow Shipyard"), Party.customer("CUS-001", "Other name")));
        assertThat(ledger.books().party("CUS-777").name()).isEqualTo("Torrow Shipyard");
        assertThat(ledger.books().party("CUS-001").name()).isEqualTo("Parish of St Aldhelm");
    }
}
