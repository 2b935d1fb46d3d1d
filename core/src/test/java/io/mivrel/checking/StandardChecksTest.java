package io.mivrel.checking;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.TaxCode;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryCheck;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.Takes;
import io.mivrel.drafting.Drafter;
import io.mivrel.drafting.InvoiceDrafter;
import io.mivrel.drafting.JournalDrafter;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** Drafting and checking on the core alone: documents of every kind balance, and doubles are noticed. */
public class StandardChecksTest {
    private static final Books BOOKS = Books.named("Larkmoor", Currency.getInstance("GBP"))
            .account("1300", "Customers", AccountType.ASSET, AccountUse.RECEIVABLES, AccountStatus.OPEN)
            .account("2100", "Suppliers", AccountType.LIABILITY, AccountUse.PAYABLES, AccountStatus.OPEN)
            .account("2200", "Tax", AccountType.LIABILITY, AccountUse.TAX, AccountStatus.OPEN)
            .account("4000", "Tower bells", AccountType.INCOME)
            .account("5010", "Tin", AccountType.EXPENSE)
            .taxCode(new TaxCode("STD", "Standard", BigDecimal.valueOf(20), "2200"))
            .party(new Party("CUS-001", "St Aldhelm", true))
            .party(new Party("SUP-001", "Calder Vale", false))
            .build();

    private static SourceRecord line(String number, String kind, long net) {
        boolean sale = kind.equals("invoice") || kind.equals("credit note");
        return SourceRecord.builder(InvoiceLines.TABLE, "list.csv", "", Long.parseLong(number))
                .put(InvoiceLines.NUMBER, number)
                .put(InvoiceLines.KIND, kind)
                .put(InvoiceLines.PARTY, sale ? "CUS-001" : "SUP-001")
                .put(InvoiceLines.DATE, LocalDate.of(2027, 3, 1).toEpochDay())
                .put(InvoiceLines.ACCOUNT, sale ? "4000" : "5010")
                .put(InvoiceLines.TAX_CODE, "STD")
                .put(InvoiceLines.NET, net)
                .build(true);
    }

    private static List<Finding> check(List<Document> documents) {
        List<Finding> findings = new ArrayList<>();
        List<Check> checks = StandardChecks.of(BOOKS);
        documents.forEach(d -> checks.forEach(c -> c.check(d, findings::add)));
        return findings;
    }

    private static Document draft(SourceRecord... lines) {
        Drafter drafter = new InvoiceDrafter(BOOKS);
        return drafter.draft(RecordRange.of(List.of(lines)), finding -> {
            throw new AssertionError(finding);
        });
    }

    @Test
    public void everyKindOfDocumentBalances() {
        long[] control = {120_00, -120_00, -120_00, 120_00};
        String[] kinds = {"invoice", "credit note", "bill", "supplier credit"};
        for (int i = 0; i < kinds.length; i++) {
            Document document = draft(line("1", kinds[i], 70_00), line("1", kinds[i], 30_00));
            assertThat(document.journal().difference()).isZero();
            assertThat(document.journal().lines().get(0).amount()).as(kinds[i]).isEqualTo(control[i]);
            assertThat(document.journal().lines().get(0).account()).isEqualTo(i < 2 ? "1300" : "2100");
            assertThat(check(List.of(document))).isEmpty();
        }
    }

    @Test
    public void whatPassesTheQuickLookHasNoFinding() {
        Random random = new Random(5);
        Drafter drafter = new JournalDrafter();
        List<Check> checks = new ArrayList<>(StandardChecks.of(BOOKS));
        checks.add(new DeliveryCheck(
                Delivery.named("short", Takes.JOURNALS)
                        .column(DeliveryColumn.of("text", JournalLines.NARRATIVE)
                                .atMost(6))
                        .column(DeliveryColumn.of("account", JournalLines.ACCOUNT)
                                .atMost(4))
                        .column("amount", JournalLines.AMOUNT)
                        .build(),
                2));
        String[] accounts = {"1300", "4000", "5010", "5010", "9000", "50100"};
        String[] texts = {"tin", "été", "=1+1", "copper wire", null};
        int[] passed = new int[checks.size()];
        int clear = 0;
        for (int round = 0; round < 20_000; round++) {
            int lines = 2 + random.nextInt(2);
            RecordBlock batch = new RecordBlock(JournalLines.TABLE, "f", "", lines);
            long sum = 0;
            for (int i = 0; i < lines; i++) {
                batch.begin(i + 1);
                batch.put(JournalLines.REFERENCE, "R");
                batch.put(JournalLines.DATE, 20_000 + (random.nextInt(9) == 0 ? i : 0));
                batch.put(JournalLines.ACCOUNT, accounts[random.nextInt(accounts.length)]);
                batch.put(JournalLines.NARRATIVE, texts[random.nextInt(texts.length)]);
                batch.put(JournalLines.TAX_CODE, random.nextInt(6) == 0 ? "NONE" : null);
                batch.put(JournalLines.PARTY, random.nextInt(6) == 0 ? "CUS-001" : null);
                long amount = i == lines - 1 && random.nextInt(4) > 0 ? -sum : random.nextInt(5) - 2;
                sum += amount;
                batch.put(JournalLines.AMOUNT, amount);
                batch.end(true);
            }
            List<Finding> findings = new ArrayList<>();
            Document journal = drafter.draft(batch.range(0, lines), findings::add);
            boolean all = true;
            for (int c = 0; c < passed.length; c++) {
                boolean passes = checks.get(c).passes(journal);
                findings.clear();
                checks.get(c).check(journal, findings::add);
                assertThat(passes && !findings.isEmpty())
                        .as("%s %s", checks.get(c), findings)
                        .isFalse();
                passed[c] += passes ? 1 : 0;
                all &= passes;
            }
            clear += all ? 1 : 0;
        }
        // Each of them lets something pass.
        assertThat(passed).doesNotContain(0);
        assertThat(clear).isBetween(100, 15_000);
    }

    @Test
    public void theSameUnderAnotherNumberIsNoticedOnce() {
        List<Finding> findings = check(List.of(
                draft(line("1", "bill", 50_00)), draft(line("2", "bill", 50_00)), draft(line("3", "bill", 50_01))));
        assertThat(findings).extracting(Finding::rule).containsExactly(Rule.DOCUMENT_REPEATED);
        assertThat(findings.get(0).reason()).contains("as 1 (list.csv row 1)");
    }

    @Test
    public void chartsWithoutControlAccountsAreNamed() {
        Books bare = Books.named("x", Currency.getInstance("GBP")).build();
        assertThat(InvoiceDrafter.missingAccounts(bare)).containsExactly(AccountUse.RECEIVABLES, AccountUse.PAYABLES);
        assertThat(InvoiceDrafter.missingAccounts(BOOKS)).isEmpty();
    }
}
