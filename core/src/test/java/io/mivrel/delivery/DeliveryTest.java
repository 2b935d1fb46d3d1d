package io.mivrel.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

/** Documents become cells exactly as a delivery says, and a file that differs is never published. The core alone. */
public class DeliveryTest {
    /** Keeps rows in memory, and can spoil one cell on the way back. */
    private static final class MemoryOutlet implements Outlet {
        private final List<List<List<String>>> parts = new ArrayList<>();
        private final int spoiledColumn;
        private boolean published;

        MemoryOutlet(int spoiledColumn) {
            this.spoiledColumn = spoiledColumn;
        }

        @Override
        public RowWriter open(int part) {
            List<List<String>> rows = new ArrayList<>();
            parts.add(rows);
            return new RowWriter() {
                private List<String> row = new ArrayList<>();

                @Override
                public void cell(byte[] bytes, int from, int to) {
                    row.add(new String(bytes, from, to - from, StandardCharsets.UTF_8));
                }

                @Override
                public void endRow() {
                    rows.add(row);
                    row = new ArrayList<>();
                }

                @Override
                public void close() {}
            };
        }

        @Override
        public RowSource readBack(int part) {
            List<List<String>> rows = parts.get(part - 1);
            return new RowSource() {
                private final Row row = new Row();
                private int next;

                @Override
                public Row next() {
                    if (next == rows.size()) {
                        return null;
                    }
                    List<String> cells = new ArrayList<>(rows.get(next++));
                    if (spoiledColumn >= 0 && next == rows.size()) {
                        String cell = cells.get(spoiledColumn);
                        cells.set(
                                spoiledColumn,
                                cell.isEmpty() ? "7" : (cell.startsWith("7") ? "8" : "7") + cell.substring(1));
                    }
                    row.fill(next, cells);
                    return row;
                }

                @Override
                public void close() {}
            };
        }

        @Override
        public String digest(int part) {
            return "none:" + part;
        }

        @Override
        public List<String> publish() {
            published = true;
            return List.of("memory");
        }

        @Override
        public void discard() {
            parts.clear();
        }
    }

    private static Journal journal(String reference, long... amounts) {
        List<JournalLine> lines = new ArrayList<>();
        List<SourceRecord> records = new ArrayList<>();
        for (int i = 0; i < amounts.length; i++) {
            SourceRecord source = SourceRecord.builder(JournalLines.TABLE, "ledger.csv", "", 11 + i)
                    .put(JournalLines.NARRATIVE, "line <" + (i + 1) + "> of 1")
                    .build(true);
            records.add(source);
            lines.add(JournalLine.of("501" + i, amounts[i], null, source));
        }
        return new Journal(reference, LocalDate.of(2027, 3, 1), lines, records);
    }

    private static Delivery.Builder journals() {
        return Delivery.named("test", Takes.JOURNALS)
                .column("ref", JournalLines.REFERENCE)
                .column(DeliveryColumn.date("date", JournalLines.DATE, "dd MMM uuuu"))
                .column("account", JournalLines.ACCOUNT)
                .column(new DeliveryColumn("text", JournalLines.NARRATIVE, null, null, 8, "<>", false, false))
                .column(DeliveryColumn.of("debit", JournalLines.DEBIT).blankForZero())
                .column(DeliveryColumn.of("credit", JournalLines.CREDIT).blankForZero())
                .column(DeliveryColumn.constant("source", "M1"))
                .column("row", JournalLines.SOURCE_ROW);
    }

    private static DeliveredFile deliver(Delivery delivery, MemoryOutlet outlet, Journal... documents)
            throws IOException {
        DeliveryWriter writer = new DeliveryWriter(delivery, 2, outlet);
        for (Journal document : documents) {
            writer.write(document);
        }
        writer.finish();
        writer.prove();
        writer.digest();
        return writer.publish();
    }

    @Test
    public void cellsAreAsTheDeliverySays() throws IOException {
        MemoryOutlet outlet = new MemoryOutlet(-1);
        DeliveredFile delivered = deliver(journals().build(), outlet, journal("A1", 123_45, -123_45));
        assertThat(outlet.parts.get(0))
                .containsExactly(
                        List.of("ref", "date", "account", "text", "debit", "credit", "source", "row"),
                        List.of("A1", "01 Mar 2027", "5010", "line 1 o", "123.45", "", "M1", "11"),
                        List.of("A1", "01 Mar 2027", "5011", "line 2 o", "", "123.45", "M1", "12"));
        assertThat(delivered.rows()).isEqualTo(2);
        assertThat(delivered.totals().debit()).isEqualTo(123_45);
        assertThat(delivered.totals().credit()).isEqualTo(123_45);
        assertThat(outlet.published).isTrue();
    }

    @Test
    public void aJournalAsReadIsDeliveredAsItsLinesWouldBe() throws IOException {
        RecordBlock batch = new RecordBlock(JournalLines.TABLE, "ledger.csv", "", 3);
        String[] texts = {"rope <1>", null, "Glockengießerei, große Glocke"};
        for (int i = 0; i < 3; i++) {
            batch.begin(20 + i);
            batch.put(JournalLines.REFERENCE, "A7");
            batch.put(JournalLines.DATE, LocalDate.of(2027, 3, 1).toEpochDay());
            batch.put(JournalLines.ACCOUNT, "501" + i);
            batch.put(JournalLines.NARRATIVE, texts[i]);
            batch.put(JournalLines.DEPARTMENT, i == 1 ? "CAST" : null);
            batch.put(JournalLines.AMOUNT, new long[] {5_00, -3_00, -2_00}[i]);
            batch.end(true);
        }
        Journal asRead = Journal.asRead(batch.range(0, 3));
        Journal own = new Journal(asRead.reference(), asRead.date(), asRead.lines(), asRead.records());
        assertThat(own.asRead()).isNull();
        Delivery.Builder all = journals();
        for (Field field : JournalLines.TABLE.fields()) {
            all.column(field.name(), field);
        }
        MemoryOutlet one = new MemoryOutlet(-1);
        MemoryOutlet other = new MemoryOutlet(-1);
        DeliveredFile first = deliver(all.build(), one, asRead, asRead);
        DeliveredFile second = deliver(all.build(), other, own, own);
        assertThat(one.parts).isEqualTo(other.parts);
        assertThat(one.parts.get(0)).hasSize(7);
        assertThat(first.totals().agreesWith(second.totals())).isTrue();
        DeliveryCheck check = new DeliveryCheck(journals().build(), 2);
        assertThat(check.passes(asRead)).isFalse();
        assertThat(check.passes(own)).isFalse();
    }

    @Test
    public void oneWrongCharacterAnywhereStopsTheDelivery() {
        for (int column = 0; column < 8; column++) {
            MemoryOutlet outlet = new MemoryOutlet(column);
            Journal journal = journal("A1", -111_11, 111_11, -1_00, 1_00, 111_11);
            Delivery delivery = journals().build();
            assertThatThrownBy(() -> deliver(delivery, outlet, journal))
                    .as("column %s", column)
                    .isInstanceOf(DeliveryMismatchException.class);
            assertThat(outlet.published).isFalse();
        }
    }

    @Test
    public void aTurnedSignIsProvedInTheBooksSign() throws IOException {
        MemoryOutlet outlet = new MemoryOutlet(-1);
        Delivery delivery = Delivery.named("turned", Takes.JOURNALS)
                .column(new DeliveryColumn("amount", JournalLines.AMOUNT, null, null, 0, "", false, true))
                .build();
        DeliveredFile delivered = deliver(delivery, outlet, journal("1", 5_00, -4_00));
        assertThat(outlet.parts.get(0)).containsExactly(List.of("amount"), List.of("-5.00"), List.of("4.00"));
        assertThat(delivered.totals().debit()).isEqualTo(5_00);
        assertThat(delivered.totals().credit()).isEqualTo(4_00);
    }

    @Test
    public void everyFieldOfEveryKindCanBeDelivered() {
        for (Takes takes : Takes.values()) {
            for (Field field : takes.table().fields()) {
                FieldType type = field.type();
                Object access = type == FieldType.DATE || type == FieldType.AMOUNT
                        ? LineValues.number(field)
                        : type == FieldType.TEXT ? LineValues.span(field) : LineValues.text(field);
                assertThat(access).as(field.name()).isNotNull();
            }
        }
    }

    @Test
    public void theCheckSaysBeforehandWhatTheReceiverWouldRefuse() {
        List<Finding> findings = new ArrayList<>();
        Delivery delivery = Delivery.named("short", Takes.JOURNALS)
                .column(DeliveryColumn.of("ref", JournalLines.REFERENCE).atMost(3))
                .column(new DeliveryColumn("text", JournalLines.NARRATIVE, null, null, 6, "<", false, false))
                .column("amount", JournalLines.AMOUNT)
                .build();
        new DeliveryCheck(delivery, 2).check(journal("LONG", 1, -1), findings::add);
        assertThat(findings)
                .extracting(f -> f.rule().id() + " " + f.origin().row())
                .containsExactly(
                        "code-too-long 11",
                        "text-cut 11",
                        "text-refused-characters 11",
                        "code-too-long 12",
                        "text-cut 12",
                        "text-refused-characters 12");
    }

    @Test
    public void aDeliveryThatCouldNotBeProvedIsRefused() {
        assertThatThrownBy(() -> Delivery.named("x", Takes.JOURNALS)
                        .column("a", JournalLines.ACCOUNT)
                        .build())
                .hasMessageContaining("could not be proved");
        assertThatThrownBy(() -> Delivery.named("x", Takes.INVOICES)
                        .column("a", InvoiceLines.TAX)
                        .build())
                .hasMessageContaining("'net' or 'gross'");
        assertThatThrownBy(() -> Delivery.named("x", Takes.BANK_TRANSACTIONS)
                        .column("a", BankLines.MONEY_IN)
                        .build())
                .hasMessageContaining("'money in' and 'money out'");
        assertThat(Takes.JOURNALS.accepts(BankLines.TABLE)).isTrue();
        assertThat(Takes.INVOICES.accepts(BankLines.TABLE)).isFalse();
        assertThat(Takes.of("journals")).isEqualTo(Takes.JOURNALS);
        assertThat(Takes.natural(InvoiceLines.TABLE)).isEqualTo(Takes.INVOICES);
    }
}
