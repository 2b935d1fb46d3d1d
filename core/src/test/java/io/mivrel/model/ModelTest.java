package io.mivrel.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.quicktheories.QuickTheory.qt;
import static org.quicktheories.generators.SourceDSL.integers;
import static org.quicktheories.generators.SourceDSL.longs;

import io.mivrel.Sources;
import io.mivrel.books.Books;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.money.Money;
import io.mivrel.money.Totals;
import java.math.BigDecimal;
import java.util.Currency;
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
        assertThat(Money.extend(new BigDecimal("3"), new BigDecimal("0.335"), Sources.GBP))
                .isEqualTo(101);
        assertThatThrownBy(() -> Money.extend(new BigDecimal("1e30"), BigDecimal.TEN, Sources.GBP))
                .isInstanceOf(ArithmeticException.class);
    }

    @Test
    public void sumsNeverWrapRound() {
        Totals totals = new Totals(Sources.GBP);
        totals.add(Long.MAX_VALUE, Sources.GBP);
        assertThatThrownBy(() -> totals.add(1, Sources.GBP)).isInstanceOf(ArithmeticException.class);
        totals.add(-5, Sources.GBP);
        assertThat(totals.credit()).isEqualTo(5);
        assertThat(totals.count()).isEqualTo(3);
    }

    @Test
    public void twoCurrenciesNeverAdd() {
        Currency euro = Currency.getInstance("EUR");
        Money pounds = new Money(1_00, Sources.GBP);
        Money euros = new Money(1_00, euro);
        assertThatThrownBy(() -> pounds.plus(euros)).hasMessageContaining("GBP and EUR do not add");
        Totals totals = new Totals(Sources.GBP);
        assertThatThrownBy(() -> totals.add(euros)).hasMessageContaining("do not add");
        assertThatThrownBy(() -> totals.add(new Totals(euro))).hasMessageContaining("do not add");
        assertThat(totals.agreesWith(new Totals(euro))).isFalse();
        assertThat(pounds.plus(pounds)).isEqualTo(new Money(2_00, Sources.GBP));
    }

    @Test
    public void aCurrencyHasItsOwnDecimals() {
        assertThat(Money.show(1_234_567, Currency.getInstance("JPY"))).isEqualTo("1,234,567");
        assertThat(Money.show(-1_234_567, Sources.GBP)).isEqualTo("-12,345.67");
        assertThat(new Money(1_234_567, Currency.getInstance("KWD"))).hasToString("1,234.567 KWD");
        assertThat(new Money(1_234_567, Currency.getInstance("CLF"))).hasToString("123.4567 CLF");
    }

    @Test
    public void aRecordKeepsWhatItWasGivenAndNothingElse() {
        SourceRecord record = SourceRecord.builder(
                        InvoiceLines.TABLE, new SourceFile("f.csv", "Sheet 1", 1, null, Sources.GBP), 7)
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
    public void aFieldBelongsToItsTableOnly() {
        SourceRecord record = SourceRecord.builder(JournalLines.TABLE, Sources.file("f"), 1)
                .put(JournalLines.NARRATIVE, "tin")
                .build(true);
        assertThat(BankLines.DATE).isNotEqualTo(JournalLines.DATE);
        assertThatThrownBy(() -> record.text(BankLines.NARRATIVE))
                .hasMessageContaining("'narrative' is a field of bank lines, and these are journal lines");
        assertThatThrownBy(() -> record.number(InvoiceLines.DATE)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> record.decimal(InvoiceLines.PRICE)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> record.text(JournalLines.PLACE)).hasMessageContaining("worked out");
        assertThatThrownBy(() -> JournalLines.TABLE.level(1).optional("late", FieldType.CODE, "too late"))
                .hasMessageContaining("comes too late");
    }

    @Test
    public void aRowGivenUpLeavesNoTrace() {
        RecordBlock batch = new RecordBlock(BankLines.TABLE, Sources.file("f"), 2);
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
        for (FieldTable table : Kinds.ALL.stream().map(Kind::table).toList()) {
            assertThat(table.fields()).extracting(Field::name).doesNotHaveDuplicates();
            assertThat(table.fields()).allSatisfy(f -> assertThat(f.meaning()).isNotBlank());
            assertThat(table.readable()).contains("date").doesNotContain("source row");
            assertThat(table.find("no such field")).isEmpty();
        }
    }

    @Test
    public void aDocumentIsAHeadingAndLines() {
        RecordBlock block = new RecordBlock(JournalLines.TABLE, Sources.file("f"), 2);
        for (int i = 0; i < 2; i++) {
            block.begin(i + 1);
            block.put(JournalLines.REFERENCE, i == 0 ? "V-1" : null);
            block.put(JournalLines.DATE, 20_000);
            block.put(JournalLines.ACCOUNT, "501" + i);
            block.put(JournalLines.AMOUNT, i == 0 ? 500 : -450);
            block.end(true);
        }
        Document journal = JournalLines.KIND
                .drafter(DraftingContext.of(Books.named("x", Sources.GBP).build()))
                .draft(block.range(0, 2), null, finding -> {});
        assertThat(journal.difference()).isEqualTo(50);
        assertThat(journal.journal()).isSameAs(journal);
        assertThat(journal.lines()).extracting(Line::account).containsExactly("5010", "5011");
        assertThat(journal.lines())
                .extracting(line -> line.number(JournalLines.DEBIT))
                .containsExactly(500L, 0L);
        assertThat(journal.lines())
                .extracting(line -> line.number(JournalLines.CREDIT))
                .containsExactly(0L, 450L);
        // A line asks its heading: a blank there means, as above.
        assertThat(journal.lines().get(1).text(JournalLines.REFERENCE)).isEqualTo("V-1");
        assertThat(journal.lines().get(1).amount()).hasToString("-4.50 GBP");
        assertThatThrownBy(() -> journal.heading().text(JournalLines.ACCOUNT)).hasMessageContaining("below journal");
        assertThatThrownBy(() -> journal.lines().get(0).put(JournalLines.ACCOUNT, "1"))
                .hasMessageContaining("complete");
    }
}
