package io.mivrel.checking;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Sources;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.TaxCode;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
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
            .party(Party.customer("CUS-001", "St Aldhelm"))
            .party(Party.supplier("SUP-001", "Calder Vale"))
            .build();

    private static SourceRecord line(String number, String kind, long net) {
        boolean sale = kind.equals("invoice") || kind.equals("credit note");
        return SourceRecord.builder(InvoiceLines.TABLE, Sources.file("list.csv"), Long.parseLong(number))
                .put(InvoiceLines.NUMBER, number)
                .put(InvoiceLines.DOCUMENT_KIND, kind)
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
        Drafter drafter = InvoiceLines.KIND.drafter(DraftingContext.of(BOOKS));
        return drafter.draft(RecordRange.of(List.of(lines)), null, finding -> {
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
            assertThat(document.journal().lines().get(0).minor()).as(kinds[i]).isEqualTo(control[i]);
            assertThat(document.journal().lines().get(0).account()).isEqualTo(i < 2 ? "1300" : "2100");
            assertThat(check(List.of(document))).isEmpty();
        }
    }

    @Test
    public void aVoucherTakenInTwiceUnderOneNumberIsNoticed() {
        List<Finding> findings = check(List.of(draft(
                line("1", "bill", 50_00),
                line("1", "bill", 20_00),
                line("1", "bill", 50_00),
                line("1", "bill", 20_00))));
        assertThat(findings).extracting(Finding::rule).containsExactly(Rule.LINES_REPEATED);
        assertThat(findings.get(0).reason()).contains("twice");
        assertThat(check(List.of(draft(
                        line("1", "bill", 50_00),
                        line("1", "bill", 20_00),
                        line("1", "bill", 50_00),
                        line("1", "bill", 21_00)))))
                .isEmpty();
        assertThat(check(List.of(draft(line("1", "bill", 50_00), line("1", "bill", 50_00)))))
                .isEmpty();
    }

    @Test
    public void chartsWithoutControlAccountsAreNamed() {
        Books bare = Books.named("x", Currency.getInstance("GBP")).build();
        assertThat(InvoiceLines.KIND.drafter(DraftingContext.of(bare)).gaps())
                .extracting(gap -> gap.replaceAll(".*'(.*)'.*", "$1"))
                .containsExactly("receivables", "payables");
        assertThat(InvoiceLines.KIND.drafter(DraftingContext.of(BOOKS)).gaps()).isEmpty();
    }
}
