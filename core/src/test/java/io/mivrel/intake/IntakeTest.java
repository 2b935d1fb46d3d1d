package io.mivrel.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.Sources;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;

/** Rows become records by their layout, and every row is counted. The core alone: rows come from memory. */
public class IntakeTest {
    /** Rows written with | between their cells. */
    private static final class Rows implements RowSource {
        private final String[] lines;
        private final Row row = new Row();
        private int next;

        Rows(String... lines) {
            this.lines = lines;
        }

        @Override
        public Row next() {
            if (next == lines.length) {
                return null;
            }
            List<String> cells = List.of(lines[next].split("\\|", -1));
            row.fill(++next, cells);
            return row;
        }

        @Override
        public void close() {}
    }

    private final List<SourceRecord> records = new ArrayList<>();
    private final List<Finding> findings = new ArrayList<>();

    private IntakeTally read(Layout layout, DateWindow wanted, String... rows) {
        Intake intake = new Intake(layout, Sources.file("file.csv"), new Rows(rows)).dates(wanted);
        IntakeTally first = read(intake, rows.length);
        return first.foundLate()
                ? read(
                        new Intake(layout, Sources.file("file.csv"), new Rows(rows))
                                .dates(wanted)
                                .holdFoundLate(first),
                        rows.length)
                : first;
    }

    private IntakeTally read(Intake intake, int rows) {
        records.clear();
        findings.clear();
        try {
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBlock();
                more = intake.fill(batch);
                batch.findings().stream()
                        .filter(finding -> finding.rule() != Rule.ROWS_NOT_PROVED)
                        .forEach(findings::add);
                for (int i = 0; i < batch.records().size(); i++) {
                    records.add(batch.records().get(i));
                }
            }
        } catch (IOException e) {
            throw new AssertionError(e);
        }
        IntakeTally tally = intake.tally();
        long leftOut =
                tally.leftOut().values().stream().mapToLong(Long::longValue).sum();
        assertThat(tally.rows()).isEqualTo(rows).isEqualTo(tally.records() + leftOut + tally.unreadable());
        return tally;
    }

    private static Layout.Builder bank() {
        return Layout.named("bank", BankLines.KIND)
                .account("1200")
                .field(BankLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
                .field(BankLines.NARRATIVE, FieldSource.joined(" - ", "kind", "text", "cheque"))
                .field(BankLines.AMOUNT, "amount");
    }

    private List<FindingRule> rules() {
        return findings.stream().map(Finding::rule).toList();
    }

    @Test
    public void textsAreJoinedWithoutDanglingMarks() {
        read(
                bank().build(),
                DateWindow.ALL,
                "date|kind|text|cheque|amount",
                "2027-03-01|Card| Tin |100|1.00",
                "2027-03-01||Tin||1.00",
                "2027-03-01|Card||100|1.00",
                "2027-03-01||||1.00");
        assertThat(records)
                .extracting(r -> r.text(BankLines.NARRATIVE))
                .containsExactly("Card - Tin - 100", "Tin", "Card - 100", null);
    }

    @Test
    public void rowsAreLeftOutByCause() {
        Layout layout = bank().format(
                        FileFormat.separated('|', "UTF-8").titlesIn(2).endingAt("Total"))
                .build();
        IntakeTally tally = read(
                layout,
                new DateWindow(LocalDate.of(2027, 3, 1), LocalDate.of(2027, 3, 31)),
                "Some Bank",
                "date|kind|text|cheque|amount",
                "2027-02-28|Card|early||1.00",
                "2027-03-01|Card|Total tools||1.00",
                "||||",
                "",
                "date|kind|text|cheque|amount",
                "2027-03-31|Card|Tin||2.00",
                "2027-04-01|Card|late||4.00",
                "Total|||||",
                "printed on paper");
        assertThat(tally.leftOut())
                .isEqualTo(Map.of(
                        LeftOut.ABOVE_TITLES, 1L,
                        LeftOut.TITLES, 1L,
                        LeftOut.OUTSIDE_DATES, 2L,
                        LeftOut.BLANK, 2L,
                        LeftOut.TITLES_AGAIN, 1L,
                        LeftOut.BELOW_DATA, 2L));
        assertThat(records).extracting(SourceRecord::row).containsExactly(4L, 8L);
        assertThat(tally.totals().debit()).isEqualTo(3_00);
        assertThat(tally.firstDate()).contains(LocalDate.of(2027, 3, 1));
        assertThat(tally.lastDate()).contains(LocalDate.of(2027, 3, 31));
    }

    @Test
    public void withoutTitlesColumnsGoByPlace() {
        Layout layout = Layout.named("plain", JournalLines.KIND)
                .format(FileFormat.separated('|', "UTF-8").titlesIn(0))
                .field(JournalLines.REFERENCE, "#1")
                .field(JournalLines.DATE, FieldSource.date("#2", "dd.MM.uuuu"))
                .field(JournalLines.ACCOUNT, FieldSource.constant("9999"))
                .field(JournalLines.AMOUNT, "#3")
                .build();
        IntakeTally tally = read(layout, DateWindow.ALL, "7|31.12.2027|-5", "8|01.01.2028|5");
        assertThat(tally.records()).isEqualTo(2);
        assertThat(records.get(0).text(JournalLines.ACCOUNT)).isEqualTo("9999");
        assertThat(records.get(0).number(JournalLines.AMOUNT)).isEqualTo(-5_00);
        assertThat(records.get(1).date(JournalLines.DATE)).isEqualTo("2028-01-01");
        read(layout, DateWindow.ALL, "7|31.12.2027");
        assertThat(rules()).containsExactly(Rule.COLUMN_MISSING);
    }

    @Test
    public void wordsAreTranslatedAndBlanksDefaulted() {
        Layout layout = Layout.named("invoices", InvoiceLines.KIND)
                .field(InvoiceLines.NUMBER, "no")
                .field(
                        InvoiceLines.DOCUMENT_KIND,
                        FieldSource.column("kind").translating(Map.of("I", "invoice", "C", "credit note")))
                .field(InvoiceLines.PARTY, new FieldSource(List.of("party"), "", null, Map.of(), null, "CASH"))
                .field(InvoiceLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
                .field(InvoiceLines.ACCOUNT, FieldSource.constant("4000"))
                .field(InvoiceLines.QUANTITY, "qty")
                .field(InvoiceLines.PRICE, "price")
                .build();
        IntakeTally tally = read(
                layout,
                DateWindow.ALL,
                "no|kind|party|date|qty|price",
                "1|I|CUS-001|2027-03-01|2.5|1,234.567",
                "2|C||2027-03-01|-1|0.005",
                "3|C|X|2027-03-01|1|2x",
                "4|C|X|2027-03-01||2");
        assertThat(records.get(0).text(InvoiceLines.DOCUMENT_KIND)).isEqualTo("invoice");
        assertThat(records.get(0).decimal(InvoiceLines.PRICE)).isEqualTo(new BigDecimal("1234.567"));
        assertThat(records.get(0).number(InvoiceLines.NET)).isEqualTo(308_642);
        assertThat(records.get(1).text(InvoiceLines.PARTY)).isEqualTo("CASH");
        assertThat(records.get(1).number(InvoiceLines.NET)).isEqualTo(-1);
        assertThat(rules()).containsExactly(Rule.AMOUNT_UNREADABLE, Rule.AMOUNT_MISSING);
        assertThat(tally.totals().count()).isEqualTo(2);
        // A credit note counts against the party: minus minus one.
        assertThat(tally.totals().debit()).isEqualTo(308_643);
    }

    @Test
    public void aRowThatCannotBeReadIsHeldWithItsRowNumber() {
        read(
                bank().build(),
                DateWindow.ALL,
                "date|kind|text|cheque|amount",
                "2027-03-01|Card|Tin||x",
                "2027-03-02|Card|Tin||1");
        assertThat(records).extracting(SourceRecord::isValid).containsExactly(false, true);
        assertThat(findings.get(0).origin().toString()).isEqualTo("file.csv row 2");
        assertThat(findings.get(0).field()).isEqualTo("amount");
    }

    @Test
    public void anUnreadableSideIsNotTakenForBlank() {
        Layout layout = Layout.named("sides", JournalLines.KIND)
                .field(JournalLines.REFERENCE, "r")
                .field(JournalLines.DATE, FieldSource.date("d", "uuuu-MM-dd"))
                .field(JournalLines.ACCOUNT, "a")
                .field(JournalLines.DEBIT, "dr")
                .field(JournalLines.CREDIT, "cr")
                .build();
        IntakeTally tally = read(layout, DateWindow.ALL, "r|d|a|dr|cr", "1|2027-03-01|5010|1O.00|5.00");
        assertThat(rules()).containsExactly(Rule.AMOUNT_UNREADABLE);
        assertThat(records.get(0).has(JournalLines.AMOUNT)).isFalse();
        assertThat(tally.totals().count()).isZero();
        read(layout, DateWindow.ALL, "r|d|a|dr|cr", "1|2027-03-01|5010|0.00|5.00");
        assertThat(records.get(0).number(JournalLines.AMOUNT)).isEqualTo(-5_00);
        assertThat(findings).isEmpty();
    }

    @Test
    public void aLineWithoutBalanceIsCarriedOver() {
        Layout layout = bank().field(BankLines.BALANCE, "balance").build();
        IntakeTally tally = read(
                layout,
                DateWindow.ALL,
                "date|kind|text|cheque|amount|balance",
                "2027-03-01|||a|1.00|",
                "2027-03-01|||a|2.00|13.00",
                "2027-03-01|||a|3.00|",
                "2027-03-01|||a|-4.00|12.00");
        assertThat(findings).isEmpty();
        assertThat(tally.proof()).contains(new BalanceProof(1, 0, 10_00, 2_00, 12_00, false));
        // Nothing states what stood before the first two.
        assertThat(tally.unproved()).isEqualTo(new Unproved(2, 3_00, 0, 2));
    }

    @Test
    public void aWrongSignIsRecognised() {
        Layout layout = bank().field(BankLines.BALANCE, "balance").build();
        read(
                layout,
                DateWindow.ALL,
                "date|kind|text|cheque|amount|balance",
                "2027-03-01|||a|1.00|10.00",
                "2027-03-01|||a|2.00|8.00",
                "2027-03-01|||a|2.00|10.00");
        assertThat(rules()).containsExactly(Rule.BALANCE_BROKEN);
        assertThat(findings.get(0).suggestion()).contains("sign is probably wrong");
        assertThat(findings.get(0).reason()).isEqualTo("balance should be 10.00 + 2.00 = 12.00, but is 8.00");
    }

    @Test
    public void moreRecordsThanABatchStayInOrder() {
        String[] rows = new String[2001];
        rows[0] = "date|kind|text|cheque|amount";
        for (int i = 1; i < rows.length; i++) {
            rows[i] = "2027-03-01|Card|line " + i + "||" + i;
        }
        IntakeTally tally = read(bank().build(), DateWindow.ALL, rows);
        assertThat(records).hasSize(2000);
        for (int i = 0; i < 2000; i++) {
            assertThat(records.get(i).row()).isEqualTo(i + 2);
            assertThat(records.get(i).text(BankLines.NARRATIVE)).isEqualTo("Card - line " + (i + 1));
        }
        assertThat(tally.totals().debit()).isEqualTo(2000L * 2001 / 2 * 100);
    }

    @Test
    public void aLayoutWithGapsIsRefused() {
        assertThatThrownBy(() -> Layout.named("x", BankLines.KIND).build())
                .hasMessageContaining("'date' is required")
                .hasMessageContaining("an amount is required");
        assertThatThrownBy(() -> bank().field(BankLines.MONEY_IN, "in").build()).hasMessageContaining("give both");
        assertThatThrownBy(() -> AmountFormat.marked(2, '.', '.')).hasMessageContaining("must differ");
    }
}
