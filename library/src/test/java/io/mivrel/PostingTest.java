package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.money.Money;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.ExportProof;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Poster;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.Proof;
import io.mivrel.posting.Standing;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import io.mivrel.report.ProofText;
import io.mivrel.report.SummaryText;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** From a run sheet to entries in a real ledger, back out, and proved. */
public class PostingTest {
    /** Rules that only posting can raise; each is raised below. */
    static final Set<FindingRule> RULES = Set.of(
            Rule.LEDGER_LACKS, Rule.LEDGER_LIMIT, Rule.LEDGER_REFUSED, Rule.LEDGER_DIFFERS, Rule.DELIVERED_IN_FILE);

    private static final String VOUCHERS = """
            1,01/03/2027,5010,tin,10.00,,,
            1,01/03/2027,1200,tin,,10.00,,
            2,02/03/2027,5020,copper,27.50,,,
            2,02/03/2027,1200,copper,,27.50,,
            3,03/03/2027,5010,tin again,4.30,,,
            3,03/03/2027,2900,tin again,,4.30,,
            """;

    private Workshop workshop;
    private PracticeLedger ledger;

    @BeforeMethod
    public void open() throws Exception {
        workshop = new Workshop().journal(VOUCHERS);
        ledger = practice(BooksFolder.read(workshop.folder.resolve("books")));
    }

    private PracticeLedger practice(Books books) throws Exception {
        return PracticeLedger.openOrCreate(
                "practice", PracticePlace.file(workshop.folder.resolve("practice.db")), books);
    }

    @AfterMethod(alwaysRun = true)
    public void close() {
        ledger.close();
    }

    private LedgerPosting posting() throws Exception {
        return workshop.open("journal").postTo(ledger);
    }

    private Map<String, Long> balances() throws Exception {
        Map<String, Long> found = new TreeMap<>();
        for (Balance balance : ledger.balances(LocalDate.MAX)) {
            if (balance.all().minor() != 0) {
                found.put(balance.account(), balance.all().minor());
            }
        }
        return found;
    }

    private static Finding of(PostOutcome outcome, Rule rule) {
        List<Finding> found = outcome.report().findings().worstFirst().stream()
                .filter(f -> f.rule() == rule)
                .toList();
        assertThat(found).as(outcome.summary(SummaryText.Style.PLAIN)).isNotEmpty();
        return found.get(0);
    }

    @Test
    public void aRunIsPostedOnceAndProved() throws Exception {
        PostOutcome asked = posting().rehearse();
        assertThat(asked.posting().count(Result.ADDED)).isEqualTo(3);
        assertThat(balances()).isEmpty();
        PostOutcome outcome = posting().post();
        assertThat(outcome.status()).isZero();
        assertThat(outcome.posting().count(Result.ADDED)).isEqualTo(3);
        assertThat(outcome.proof().holds()).isTrue();
        assertThat(balances()).isEqualTo(Map.of("1200", -3750L, "2900", -430L, "5010", 1430L, "5020", 2750L));
        assertThat(outcome.evidence().resolve("posted.csv"))
                .content()
                .contains("journals,2,2027-03-02,27.50,GBP,posted,added");
        PostOutcome again = posting().post();
        assertThat(again.posting().sent()).isZero();
        assertThat(again.posting().postedBefore()).isEqualTo(3);
        assertThat(again.summary(SummaryText.Style.PLAIN)).contains("3 posted before");
    }

    @Test
    public void aLostRegisterPostsNothingTwice() throws Exception {
        posting().post();
        Files.delete(workshop.folder.resolve(".mivrel/register.db"));
        assertThatThrownBy(() -> posting().post()).hasMessageContaining("the register is missing");
        Files.move(workshop.folder.resolve("evidence"), workshop.folder.resolve("evidence-before"));
        PostOutcome again = posting().post();
        assertThat(again.posting().count(Result.THERE)).isEqualTo(3);
        assertThat(again.proof().holds()).isTrue();
        assertThat(balances()).containsEntry("5010", 1430L);
    }

    @Test
    public void aPilotSendsTheFirstOnesAndLaterTheRest() throws Exception {
        PostOutcome pilot = posting().first(2).post();
        assertThat(pilot.posting().posted()).isEqualTo(2);
        assertThat(pilot.posting().beyondPilot()).isEqualTo(1);
        PostOutcome rest = posting().first(2).post();
        assertThat(rest.posting().posted()).isEqualTo(1);
        assertThat(rest.posting().postedBefore()).isEqualTo(2);
    }

    @Test
    public void whatTheLedgerLacksIsSaidBeforeAnythingIsSent() throws Exception {
        ledger.desk().setStatus("5020", AccountStatus.CLOSED);
        PostOutcome outcome = posting().post();
        assertThat(outcome.posting().posted()).isEqualTo(2);
        Finding finding = of(outcome, Rule.LEDGER_LACKS);
        assertThat(finding.origin().row()).isEqualTo(4);
        assertThat(finding.reason()).contains("not open in the ledger");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(outcome.held()).hasSize(1);
        ledger.desk().setStatus("5020", AccountStatus.OPEN);
        assertThat(posting().post().posting().posted()).isEqualTo(1);
        assertThat(balances()).containsEntry("5020", 2750L);
    }

    @Test
    public void aClosedPeriodAndATextTooLongAreHeld() throws Exception {
        workshop.journal(VOUCHERS.replace("tin again", "x".repeat(201)));
        assertThat(of(posting().rehearse(), Rule.LEDGER_LIMIT).reason()).contains("201 characters");
        ledger.desk().setOpen(LocalDate.of(2027, 3, 1), false);
        assertThat(of(posting().rehearse(), Rule.LEDGER_LACKS).reason()).contains("closed in the ledger");
    }

    @Test
    public void aKindThatTheLedgerDoesNotTakeIsHeldAndNeverSent() throws Exception {
        Abilities all = ledger.abilities();
        Abilities invoicesOnly = new Abilities(
                true,
                true,
                true,
                true,
                true,
                true,
                Set.of("invoices"),
                all.entriesAtMost(),
                all.linesAtMost(),
                200,
                40);
        // Whatever else it is asked, the practice ledger behind it answers.
        Ledger picky = (Ledger) Proxy.newProxyInstance(
                Ledger.class.getClassLoader(), new Class<?>[] {Ledger.class}, (proxy, method, args) -> {
                    assertThat(method.getName()).isNotEqualTo("post");
                    return method.getName().equals("abilities") ? invoicesOnly : method.invoke(ledger, args);
                });
        PostOutcome outcome = workshop.open("journal").postTo(picky).post();
        assertThat(of(outcome, Rule.LEDGER_LIMIT).reason()).isEqualTo("the ledger takes no journals");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(balances()).isEmpty();
        assertThat(posting().post().posting().count(Result.ADDED)).isEqualTo(3);
    }

    @Test
    public void aRefusalStandsNextToItsRowAndOnlyThatIsSentAgain() throws Exception {
        // Entered by hand under the same number, which nobody can know beforehand.
        ledger.desk()
                .enter(Entry.of(
                        "",
                        "journals",
                        "2",
                        LocalDate.of(2027, 3, 9),
                        ledger.books().currency(),
                        "by hand",
                        List.of(EntryLine.of("5010", 1, ""), EntryLine.of("1200", -1, ""))));
        PostOutcome outcome = posting().post();
        assertThat(outcome.posting().posted()).isEqualTo(2);
        assertThat(outcome.posting().count(Result.REFUSED)).isEqualTo(1);
        Finding refused = of(outcome, Rule.LEDGER_REFUSED);
        assertThat(refused.origin().toString()).isEqualTo("journal.csv row 4");
        assertThat(refused.reason()).contains("number 2 already").contains("R1 2");
        String held = Files.readString(outcome.held().get(0));
        assertThat(held).contains("2,02/03/2027,5020,copper").doesNotContain("tin");
        // Corrected in the copy that came back, it is posted as any other document.
        workshop.put("journal.csv", held.replace("\n2,", "\n2B,"));
        PostOutcome corrected = posting().post();
        assertThat(corrected.posting().posted())
                .as(corrected.summary(SummaryText.Style.PLAIN))
                .isEqualTo(1);
        assertThat(corrected.status()).isZero();
        assertThat(balances()).containsEntry("5020", 2750L);
    }

    @Test
    public void otherContentUnderTheSameKeyIsShownSideBySide() throws Exception {
        posting().post();
        workshop.journal(VOUCHERS.replace("27.50", "27.05"));
        PostOutcome outcome = posting().post();
        assertThat(outcome.posting().count(Result.DIFFERS)).isEqualTo(1);
        assertThat(of(outcome, Rule.LEDGER_DIFFERS).reason())
                .contains("here 2027-03-02, 5020 27.05")
                .contains("there 2027-03-02, 5020 27.50");
        assertThat(posting().mode(PostMode.SKIP_EXISTING).post().posting().count(Result.SKIPPED))
                .isEqualTo(1);
        PostOutcome replaced = posting().mode(PostMode.ADD_OR_REPLACE).post();
        assertThat(replaced.posting().count(Result.REPLACED)).isEqualTo(1);
        assertThat(replaced.proof().differences()).isEmpty();
        assertThat(balances()).containsEntry("5020", 2705L);
        // Withdrawn, nothing of either is left.
        posting().withdraw(replaced.posting().batch().name(), List.of());
        assertThat(balances()).doesNotContainKey("5020");
    }

    @Test
    public void partiesAreCreatedOnlyWhenTold() throws Exception {
        workshop.put("books/parties.csv", workshop.read("books/parties.csv") + "SUP-009,Torrow Metals,supplier\n");
        workshop.journal("7,01/03/2027,5010,tin,10.00,,,SUP-009\n7,01/03/2027,1200,tin,,10.00,,\n");
        assertThat(of(posting().post(), Rule.LEDGER_LACKS).suggestion()).contains("--create-parties");
        PostOutcome outcome = posting().createParties().post();
        assertThat(outcome.posting().posted()).isEqualTo(1);
        assertThat(ledger.books().party("SUP-009").name()).isEqualTo("Torrow Metals");
    }

    @Test
    public void whatWentOutInAFileIsSaid() throws Exception {
        workshop.run("journal");
        PostOutcome outcome = posting().post();
        assertThat(outcome.posting().posted()).isEqualTo(3);
        assertThat(of(outcome, Rule.DELIVERED_IN_FILE).reason())
                .contains("3 documents", "by the run 'journal'", "journals-journal-2027-04-02-1.csv on 2027-04-02");
    }

    @Test
    public void whatWentOutInAFileIsNotPostedWhereTheLedgerSaysSo() throws Exception {
        workshop.run("journal");
        workshop.put(
                "journal.csv",
                workshop.read("journal.csv") + "4,04/03/2027,5010,tin,7.00,,,\n4,04/03/2027,2900,tin,,7.00,,\n");
        PostOutcome outcome = posting().holdDelivered().post();
        assertThat(outcome.posting().posted()).isEqualTo(1);
        assertThat(balances()).isEqualTo(Map.of("5010", 700L, "2900", -700L));
        assertThat(of(outcome, Rule.DELIVERED_IN_FILE).reason()).contains("3 documents", "not posted");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(outcome.proof().holds()).isTrue();
    }

    @Test
    public void aBatchIsWithdrawnAndTheBalancesAreAsBefore() throws Exception {
        posting().first(1).post();
        Map<String, Long> before = balances();
        posting().asFinal().called("The rest").post();
        LedgerPosting.Withdrawn done =
                posting().dated(LocalDate.of(2027, 3, 31)).withdraw("The rest", List.of());
        assertThat(done.withdrawal().takenBack()).isEqualTo(2);
        assertThat(done.proof().holds())
                .as(ProofText.of(done.proof(), "p", "c", SummaryText.Style.PLAIN))
                .isTrue();
        assertThat(balances()).isEqualTo(before);
        PostOutcome again = posting().post();
        assertThat(again.posting().count(Result.ADDED)).isEqualTo(2);
    }

    @Test
    public void whatSomethingRestsUponStays() throws Exception {
        PostOutcome outcome = posting().post();
        List<PostedEntry> entries = new ArrayList<>();
        ledger.entries(Ledger.Query.ALL, entries::add);
        String payment = ledger.desk()
                .enter(Entry.of(
                        "",
                        "receipts",
                        "R1",
                        LocalDate.of(2027, 3, 20),
                        ledger.books().currency(),
                        "",
                        List.of(EntryLine.of("2900", 430, ""), EntryLine.of("1200", -430, ""))));
        ledger.desk().rest(payment, entries.get(2).number());
        LedgerPosting.Withdrawn done = posting().withdraw(null, List.of());
        assertThat(done.withdrawal().takenBack()).isEqualTo(2);
        assertThat(done.withdrawal().refused()).hasSize(1);
        assertThat(done.withdrawal().refused().get(0).plain().reason()).contains("rests upon it");
        assertThat(done.proof().holds()).isTrue();
        assertThat(balances()).isEqualTo(Map.of("1200", -430L, "5010", 430L));
        assertThat(outcome.posting().posted()).isEqualTo(3);
    }

    @Test
    public void someDocumentsAreWithdrawnByNumber() throws Exception {
        posting().post();
        assertThat(posting().withdraw(null, List.of("2")).withdrawal().takenBack())
                .isEqualTo(1);
        assertThat(balances()).isEqualTo(Map.of("1200", -1000L, "2900", -430L, "5010", 1430L));
        assertThatThrownBy(() -> posting().withdraw(null, List.of("9"))).hasMessageContaining("no document 9");
        Poster.Withdrawal again = posting().withdraw(null, List.of("2", "3")).withdrawal();
        assertThat(again.takenBack()).isEqualTo(1);
        assertThat(again.notPosted()).extracting(PostingLog.Sent::reference).containsExactly("2");
        LedgerPosting.Status status = posting().status(false).get(0);
        assertThat(status.counts())
                .containsEntry(PostingLog.State.POSTED, 1L)
                .containsEntry(PostingLog.State.WITHDRAWN, 2L);
    }

    @Test
    public void oneDocumentThatTheLedgerKeepsDoesNotStopTheOthers() throws Exception {
        posting().asFinal().post();
        ledger.desk().setStatus("5020", AccountStatus.CLOSED);
        LedgerPosting.Withdrawn some = posting().withdraw(null, List.of("1", "2", "3"));
        assertThat(some.withdrawal().takenBack()).isEqualTo(2);
        assertThat(some.withdrawal().refused())
                .extracting(one -> one.document().reference())
                .containsExactly("2");
        assertThat(balances()).isEqualTo(Map.of("1200", -2750L, "5020", 2750L));
    }

    @Test
    public void batchesAreListedWhereNoneIsMeant() throws Exception {
        posting().called("the first").post();
        assertThatThrownBy(() -> posting().prove("another"))
                .isInstanceOfSatisfying(
                        NoBatchException.class,
                        none -> assertThat(none.batches())
                                .singleElement()
                                .asString()
                                .contains("the first", "draft", "of the run 'journal'"));
    }

    @Test
    public void makingTheLastBatchFinalTellsTheDraftsOfEarlierOnes() throws Exception {
        posting().called("pilot").first(2).post();
        posting().post();
        assertThat(posting().makeFinal(null).drafts()).isEqualTo(Map.of("pilot", 2L));
        assertThat(posting().makeFinal("pilot").drafts()).isEmpty();
        assertThat(posting().makeFinal(null).drafts()).isEmpty();
    }

    @Test
    public void draftsAreMadeFinal() throws Exception {
        posting().post();
        assertThat(posting().makeFinal(null).refused()).isEmpty();
        assertThat(ledger.balances(LocalDate.MAX))
                .allMatch(balance -> balance.drafts().minor() == 0);
        assertThat(posting().prove((String) null)).allMatch(Proof::holds);
    }

    // What a person with the database in hand may do is told from what was sent.
    @Test
    public void tamperedBooksAreDiagnosed() throws Exception {
        posting().post();
        tamper("UPDATE entry_line SET minor = CASE WHEN minor > 0 THEN 2570 ELSE -2570 END WHERE abs(minor) = 2750");
        Proof swapped = posting().prove((String) null).get(0);
        assertThat(swapped.holds()).isFalse();
        assertThat(swapped.references().changed()).isEqualTo(1);
        assertThat(swapped.differences().get(0).at()).isEqualTo("journal.csv row 4");
        assertThat(swapped.differences().get(0).likely()).isEqualTo("two digits swapped");
        tamper("UPDATE entry_line SET minor = CASE WHEN minor > 0 THEN -2750 ELSE 2750 END WHERE abs(minor) = 2570");
        assertThat(posting().prove((String) null).get(0).differences().get(0).likely())
                .isEqualTo("on the wrong side");
        tamper("DELETE FROM entry_line WHERE abs(minor) = 2750; DELETE FROM entry WHERE reference = '2'");
        Proof omitted = posting().prove((String) null).get(0);
        assertThat(omitted.references().missing()).isEqualTo(1);
        assertThat(omitted.differences().get(0).what())
                .contains("journals 2 of 2027-03-02, 27.50, is not in the ledger");
        assertThat(omitted.accounts().stream().filter(line -> !line.holds()))
                .extracting(line -> line.place().account())
                .containsExactly("1200", "5020");
    }

    private void tamper(String sql) throws Exception {
        try (Connection connection =
                        DriverManager.getConnection("jdbc:sqlite:" + workshop.folder.resolve("practice.db"));
                Statement statement = connection.createStatement()) {
            for (String trigger : List.of("line_does_not_change", "line_stays", "entry_stays")) {
                statement.executeUpdate("DROP TRIGGER IF EXISTS " + trigger);
            }
            for (String one : sql.split(";")) {
                statement.executeUpdate(one);
            }
        }
    }

    @Test
    public void aStatementIsComparedWithTheBankAccount() throws Exception {
        workshop.bank("Mon 01/03/2027,shop,50.00,,150.00\nTue 02/03/2027,tin,,20.00,130.00\n"
                + "Wed 03/03/2027,unknown,,5.00,125.00\n,Total,,,125.00\n");
        ledger.desk()
                .enter(Entry.of(
                        "",
                        "journals",
                        "OPENING",
                        LocalDate.of(2027, 2, 28),
                        ledger.books().currency(),
                        "",
                        List.of(EntryLine.of("1200", 10_000, ""), EntryLine.of("2900", -10_000, ""))));
        ledger.desk()
                .enter(Entry.of(
                        "",
                        "journals",
                        "FEE",
                        LocalDate.of(2027, 3, 2),
                        ledger.books().currency(),
                        "bank fee by hand",
                        List.of(EntryLine.of("1200", -300, ""), EntryLine.of("5010", 300, ""))));
        PostOutcome outcome = workshop.open("bank").postTo(ledger).post();
        Proof.ClosingLine line = outcome.proof().closings().get(0);
        assertThat(line.closing().balance())
                .isEqualTo(new Money(12_500, ledger.books().currency()));
        assertThat(line.ledger().minor()).isEqualTo(12_700);
        assertThat(line.earlier().minor()).isZero();
        assertThat(line.notPosted().minor()).isEqualTo(-500);
        assertThat(line.others().minor()).isEqualTo(-300);
        assertThat(line.difference())
                .isEqualTo(line.earlier().minor()
                        + line.notPosted().minor()
                        - line.others().minor());
        assertThat(line.items().get(0)).contains("bank fee by hand");
        // The suspense account has the opening balance on it.
        assertThat(outcome.proof().open().get(0).left().minor()).isEqualTo(-10_000);
    }

    @Test
    public void withoutALedgerExportedBooksAreCompared() throws Exception {
        workshop.put("tb.yaml", """
                layout: Trial balance
                gives: journal lines
                fields:
                  reference: {constant: TB}
                  date:      {constant: 2027-03-31, pattern: uuuu-MM-dd}
                  account:   {column: account}
                  debit:     {column: dr}
                  credit:    {column: cr}
                """);
        workshop.put("before.csv", "account,dr,cr\n1200,100.00,\n2900,,100.00\n");
        workshop.put("after.csv", "account,dr,cr\n1200,62.50,\n2900,,104.30\n5010,14.30,\n5020,27.50,\n");
        Mivrel run = workshop.open("journal");
        assertThat(run.proveByBalances(path("before.csv"), path("after.csv"), path("tb.yaml"))
                        .differences())
                .isEmpty();
        workshop.replace("after.csv", "5020,27.50,", "5020,25.70,").replace("after.csv", "62.50", "64.30");
        ExportProof swapped = run.proveByBalances(path("before.csv"), path("after.csv"), path("tb.yaml"));
        assertThat(swapped.differences())
                .hasSize(2)
                .allSatisfy(one -> assertThat(one.likely()).contains("2 (journal.csv row 4): two digits swapped"));
        workshop.put("list.yaml", workshop.read("journal-layout.yaml")).put("list.csv", workshop.read("journal.csv"));
        assertThat(run.proveByEntries(path("list.csv"), path("list.yaml")).there())
                .isEqualTo(3);
        workshop.put("list.csv", workshop.read("journal.csv").replaceAll("(?m)^3,.*\n", ""));
        assertThat(run.proveByEntries(path("list.csv"), path("list.yaml"))
                        .differences()
                        .get(0)
                        .what())
                .contains("journals 3 of 2027-03-03 is not in the list");
        String doubled = workshop.read("journal.csv");
        workshop.put("list.csv", doubled + doubled.substring(doubled.indexOf('\n') + 1));
        assertThat(run.proveByEntries(path("list.csv"), path("list.yaml")).differences())
                .allMatch(one -> one.likely().equals("doubled"));
    }

    private Path path(String name) {
        return workshop.folder.resolve(name);
    }

    @Test
    public void numbersThatStartAgainGetAKeyWithTheirYear() throws Exception {
        workshop.put("books/periods.csv", "from,to,status\n2027-01-01,2028-12-31,open\n");
        ledger.close();
        Files.delete(workshop.folder.resolve("practice.db"));
        ledger = practice(BooksFolder.read(workshop.folder.resolve("books")));
        posting().post();
        workshop.journal(VOUCHERS.replace("2027", "2028").replace("27.50", "99.00"));
        PostOutcome next = posting().rehearse();
        assertThat(next.posting().count(Result.ADDED)).isEqualTo(3);
    }

    /** A line that carries each request to the ledger twice, and the second answer back. */
    private Ledger stammering() {
        return (Ledger) Proxy.newProxyInstance(
                Ledger.class.getClassLoader(), new Class<?>[] {Ledger.class}, (proxy, method, args) -> {
                    try {
                        Object answer = method.invoke(ledger, args);
                        return method.getName().equals("post") ? method.invoke(ledger, args) : answer;
                    } catch (InvocationTargetException e) {
                        throw e.getCause();
                    }
                });
    }

    @Test
    public void aRequestThatArrivesTwiceIsOfItsBatchAllTheSame() throws Exception {
        PostOutcome outcome = workshop.open("journal").postTo(stammering()).post();
        assertThat(outcome.posting().count(Result.ADDED)).isEqualTo(3);
        assertThat(outcome.proof().holds()).isTrue();
        assertThat(balances()).isEqualTo(Map.of("1200", -3750L, "2900", -430L, "5010", 1430L, "5020", 2750L));
        LedgerPosting.Withdrawn withdrawn = posting().withdraw(null, List.of());
        assertThat(withdrawn.withdrawal().takenBack()).isEqualTo(3);
        assertThat(withdrawn.withdrawal().left()).isZero();
        assertThat(balances()).isEmpty();
        assertThat(posting().status(true).get(0).counts()).containsOnly(Map.entry(PostingLog.State.WITHDRAWN, 3L));
    }

    @Test
    public void aBatchWhoseDocumentWasReplacedStandsForTheRest() throws Exception {
        posting().post();
        workshop.journal(VOUCHERS.replace("27.50", "72.50"));
        PostOutcome replaced = posting().mode(PostMode.ADD_OR_REPLACE).post();
        assertThat(replaced.posting().count(Result.REPLACED)).isEqualTo(1);
        assertThat(replaced.summary(SummaryText.Style.PLAIN)).contains("72.50, in the place of 27.50");
        List<Proof> proofs = posting().prove(null);
        assertThat(proofs).hasSize(2).allMatch(Proof::holds);
        assertThat(posting().status(true))
                .extracting(status -> status.counts().getOrDefault(PostingLog.State.POSTED, 0L))
                .containsExactly(2L, 1L);
        String first = posting().status(true).get(0).batch().batch().key();
        LedgerPosting.Withdrawn withdrawn = posting().withdraw(first, List.of());
        assertThat(withdrawn.withdrawal().takenBack()).isEqualTo(2);
        assertThat(withdrawn.proof().holds()).isTrue();
        assertThat(balances()).isEqualTo(Map.of("1200", -7250L, "5020", 7250L));
    }

    @Test
    public void proofSaysOnlyProvedWhenTheStatementAgreesToo() throws Exception {
        workshop.bank("""
                Mon 01/03/2027,shop,12.00,,112.00
                Tue 02/03/2027,tin,,6.00,106.00
                ,Total,,,106.00
                """);
        workshop.open("bank").postTo(ledger).post();
        Proof apart = workshop.open("bank").postTo(ledger).prove(null).get(0);
        assertThat(apart.holds()).isTrue();
        assertThat(apart.agrees()).isFalse();
        assertThat(apart.but()).containsExactly("bank.csv closes 100.00 apart from account 1200");
        assertThat(ProofText.of(apart, "practice", "Larkmoor", SummaryText.Style.PLAIN))
                .contains("Proved, but:", "100.00  the statement opens with 100.00, and the ledger had 0.00")
                .doesNotContain("not posted from here");
        workshop.journal("O1,28/02/2027,1200,opening,100.00,,,\nO1,28/02/2027,5020,opening,,100.00,,\n");
        posting().post();
        Proof whole = workshop.open("bank").postTo(ledger).prove(null).get(0);
        assertThat(whole.agrees()).as(whole.but().toString()).isTrue();
        assertThat(ProofText.of(whole, "practice", "Larkmoor", SummaryText.Style.PLAIN))
                .contains("Proved: everything that was sent");
    }

    // What is reserved for the receiver's own documents takes those, and no line that names nobody.
    @Test
    public void controlAccountsThatAreReservedTakeInvoices() throws Exception {
        ledger.close();
        Workshop shop = new Workshop()
                .invoice("10,INV,CUS-001,01/03/2027,,bell,,,100.00,STD,20.00,4000,\n")
                .replace(
                        "books/chart.csv",
                        "1300,Customers,asset,receivables,,",
                        "1300,Customers,asset,receivables,reserved,");
        ledger = PracticeLedger.openOrCreate(
                "practice",
                PracticePlace.file(shop.folder.resolve("practice.db")),
                BooksFolder.read(shop.folder.resolve("books")));
        PostOutcome outcome = shop.open("invoice").postTo(ledger).post();
        assertThat(outcome.status())
                .as(outcome.summary(SummaryText.Style.PLAIN))
                .isZero();
        assertThat(balances()).isEqualTo(Map.of("1300", 12000L, "2200", -2000L, "4000", -10000L));
        Entry manual = Entry.of(
                "K1",
                "journals",
                "1",
                LocalDate.of(2027, 3, 1),
                java.util.Currency.getInstance("GBP"),
                "",
                List.of(EntryLine.of("1300", 100, ""), EntryLine.of("4000", -100, "")));
        assertThat(ledger.post(
                        new Batch("b", "b", LocalDate.of(2027, 3, 1), Standing.DRAFT), PostMode.ADD, List.of(manual)))
                .singleElement()
                .satisfies(answer -> assertThat(answer.result()).isEqualTo(Result.REFUSED));
    }
}
