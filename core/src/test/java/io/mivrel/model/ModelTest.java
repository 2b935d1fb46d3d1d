package io.mivrel.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.quicktheories.QuickTheory.qt;
import static org.quicktheories.generators.SourceDSL.integers;
import static org.quicktheories.generators.SourceDSL.longs;

import java.math.BigDecimal;
import java.util.HashSet;
import java.util.Set;
import org.testng.annotations.Test;

/** Exactness and limits of the values that everything is built on. */
public class ModelTest {
    @Test
    public void taxTakenOutOfAGrossAddsUpAgain() {
        qt().forAll(longs().between(-10_000_000_00L, 10_000_000_00L), integers().between(0, 99))
                .checkAssert((gross, rate) -> {
                    BigDecimal perCent = BigDecimal.valueOf(rate);
                    long tax = Money.taxWithin(gross, perCent);
                    long net = gross - tax;
                    assertThat(net + tax).isEqualTo(gross);
                    // Reckoned forward again, the tax is at most one minor unit away.
                    assertThat(Math.abs(Money.taxOn(net, perCent) - tax)).isLessThanOrEqualTo(1);
                });
    }

    @Test
    public void roundingIsHalfUpAwayFromNil() {
        assertThat(Money.taxOn(25, BigDecimal.valueOf(10))).isEqualTo(3);
        assertThat(Money.taxOn(-25, BigDecimal.valueOf(10))).isEqualTo(-3);
        assertThat(Money.extend(new BigDecimal("3"), new BigDecimal("0.335"), 2))
                .isEqualTo(101);
        assertThatThrownBy(() -> Money.extend(new BigDecimal("1e30"), BigDecimal.TEN, 2))
                .isInstanceOf(ArithmeticException.class);
    }

    @Test
    public void sumsNeverWrapRound() {
        Totals totals = new Totals();
        totals.add(Long.MAX_VALUE);
        assertThatThrownBy(() -> totals.add(1)).isInstanceOf(ArithmeticException.class);
        totals.add(-5);
        assertThat(totals.credit()).isEqualTo(5);
        assertThat(totals.count()).isEqualTo(3);
    }

    @Test
    public void aRecordKeepsWhatItWasGivenAndNothingElse() {
        SourceRecord record = SourceRecord.builder(InvoiceLines.TABLE, "f.csv", "Sheet 1", 7)
                .put(InvoiceLines.NARRATIVE, "bell")
                .put(InvoiceLines.QUANTITY, new BigDecimal("1.50"))
                .put(InvoiceLines.NET, 150)
                .build(true);
        assertThat(record.text(InvoiceLines.NARRATIVE)).isEqualTo("bell");
        assertThat(record.decimal(InvoiceLines.QUANTITY)).isEqualTo(new BigDecimal("1.50"));
        assertThat(record.number(InvoiceLines.NET)).isEqualTo(150);
        assertThat(record.origin().toString()).isEqualTo("f.csv sheet Sheet 1 row 7");
        Set<Field> given = new HashSet<>(Set.of(InvoiceLines.NARRATIVE, InvoiceLines.QUANTITY, InvoiceLines.NET));
        for (Field field : InvoiceLines.TABLE.fields()) {
            if (!field.derived()) {
                assertThat(record.has(field)).as(field.name()).isEqualTo(given.contains(field));
            }
        }
        assertThat(record.date(InvoiceLines.DATE)).isNull();
    }

    @Test
    public void aRowGivenUpLeavesNoTrace() {
        RecordBlock batch = new RecordBlock(BankLines.TABLE, "f", "", 2);
        batch.begin(1);
        batch.put(BankLines.NARRATIVE, "given up");
        batch.put(BankLines.AMOUNT, 5);
        batch.begin(2);
        batch.end(true);
        assertThat(batch.size()).isEqualTo(1);
        assertThat(batch.get(0).has(BankLines.NARRATIVE)).isFalse();
        assertThat(batch.get(0).has(BankLines.AMOUNT)).isFalse();
        assertThat(batch.get(0).row()).isEqualTo(2);
    }

    @Test
    public void findingsClipWhatTheyQuote() {
        Finding finding = new Finding(Rule.TEXT_CUT, Origin.of("f", 0), "", "x".repeat(200), "", "");
        assertThat(finding.value()).hasSize(Finding.CLIP + 3).endsWith("...");
        assertThat(Finding.clip("a\u001b[31m\nb")).doesNotContain("\u001b").doesNotContain("\n");
        assertThat(finding.blocks()).isFalse();
        assertThat(Origin.of("f", 0).toString()).isEqualTo("f");
    }

    @Test
    public void everyTableSaysWhatItsFieldsMean() {
        for (FieldTable table : FieldTable.all()) {
            assertThat(table.fields()).extracting(Field::name).doesNotHaveDuplicates();
            assertThat(table.fields()).allSatisfy(f -> assertThat(f.meaning()).isNotBlank());
            assertThat(table.readable()).contains("date").doesNotContain("source row");
            assertThat(table.find("no such field")).isEmpty();
        }
    }

    @Test
    public void aJournalKnowsItsDifference() {
        SourceRecord source = SourceRecord.builder(JournalLines.TABLE, "f", "", 1)
                .put(JournalLines.NARRATIVE, "tin")
                .build(true);
        Journal journal = new Journal(
                "1",
                null,
                java.util.List.of(
                        JournalLine.of("5010", 500, null, source), JournalLine.of("2100", -450, "own", source)),
                java.util.List.of(source));
        assertThat(journal.difference()).isEqualTo(50);
        assertThat(journal.lines()).extracting(JournalLine::narrative).containsExactly("tin", "own");
        assertThat(journal.lines()).extracting(JournalLine::debit).containsExactly(500L, 0L);
        assertThat(journal.lines()).extracting(JournalLine::credit).containsExactly(0L, 450L);
    }
}
