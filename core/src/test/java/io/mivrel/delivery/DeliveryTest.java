package io.mivrel.delivery;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.Sources;
import io.mivrel.books.Books;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Posting;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;

/** Documents become cells exactly as a delivery says, and a file that differs is never published. The core alone. */
public class DeliveryTest {
    private static final long DAY = LocalDate.of(2027, 3, 1).toEpochDay();
    private static final Books BOOKS = Books.named("x", Sources.GBP).build();

    /** Keeps rows in memory, and can spoil one cell on the way back. */
    private static final class MemoryOutlet implements Outlet {
        private final List<List<List<String>>> parts = new ArrayList<>();
        private final int spoiledColumn;
        private boolean published;

        MemoryOutlet(int spoiledColumn) {
            this.spoiledColumn = spoiledColumn;
        }

        @Override
        public String named(String text, int part) {
            return DeliveryFormat.filled(text, "march", "2027-03-31", part);
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
        public List<PreparedFile> prepare() {
            return List.of(new PreparedFile("hidden", "memory", 0, "none:"));
        }

        @Override
        public List<PreparedFile> publish() {
            published = true;
            return prepare();
        }

        @Override
        public void release() {}

        @Override
        public void discard() {
            parts.clear();
        }
    }

    private static Drafter drafter(Kind kind) {
        return kind.drafter(DraftingContext.of(BOOKS));
    }

    private static RecordBlock lines(String reference, long... amounts) {
        RecordBlock block = new RecordBlock(JournalLines.TABLE, Sources.file("ledger.csv"), amounts.length);
        for (int i = 0; i < amounts.length; i++) {
            block.begin(11 + i);
            block.put(JournalLines.REFERENCE, reference);
            block.put(JournalLines.DATE, DAY);
            block.put(JournalLines.ACCOUNT, "501" + i);
            block.put(JournalLines.NARRATIVE, "line <" + (i + 1) + "> of 1");
            block.put(JournalLines.AMOUNT, amounts[i]);
            block.end(true);
        }
        return block;
    }

    private static Document journal(String reference, long... amounts) {
        return drafter(JournalLines.KIND)
                .draft(lines(reference, amounts).range(0, amounts.length), null, finding -> {});
    }

    private static Delivery.Builder journals() {
        return Delivery.named("test", JournalLines.KIND)
                .column("ref", JournalLines.REFERENCE)
                .column(DeliveryColumn.date("date", JournalLines.DATE, "dd MMM uuuu"))
                .column("account", JournalLines.ACCOUNT)
                .column(DeliveryColumn.of("text", JournalLines.NARRATIVE)
                        .atMost(8)
                        .refusing("<>"))
                .column(DeliveryColumn.of("debit", JournalLines.DEBIT).blankForZero())
                .column(DeliveryColumn.of("credit", JournalLines.CREDIT).blankForZero())
                .column(DeliveryColumn.constant("source", "M1"))
                .column("row", JournalLines.TABLE.find("source row").orElseThrow());
    }

    private interface Written {
        void by(DeliveryWriter writer) throws IOException;
    }

    private static DeliveredFile deliver(Delivery delivery, MemoryOutlet outlet, Written written) throws IOException {
        DeliveryWriter writer = new DeliveryWriter(delivery, Sources.GBP, sheet -> outlet);
        written.by(writer);
        writer.finish();
        for (DeliveryWriter.Proof proof : writer.proofs()) {
            proof.prove();
        }
        writer.prepare();
        writer.publish();
        return writer.delivered().get(0);
    }

    private static DeliveredFile deliver(Delivery delivery, MemoryOutlet outlet, Document... documents)
            throws IOException {
        return deliver(delivery, outlet, writer -> {
            for (Document document : documents) {
                writer.write(document);
            }
        });
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

    // A record of a kind with a value of its own in every field, and what each value is as a cell.
    private static RecordBlock full(Kind kind, Map<Field, String> meant) {
        SourceFile file = Sources.file("full.csv").ofAccount("1200");
        RecordBlock block = new RecordBlock(kind.table(), file, 1);
        block.begin(77);
        int n = 100;
        for (Field field : kind.table().fields()) {
            n++;
            if (field.derived()) {
                continue;
            }
            switch (field.type()) {
                case DATE -> {
                    block.put(field, DAY + n);
                    meant.put(field, LocalDate.ofEpochDay(DAY + n).toString());
                }
                case AMOUNT -> {
                    block.put(field, n);
                    meant.put(field, "1." + Integer.toString(n).substring(1));
                }
                case DECIMAL -> {
                    block.put(field, BigDecimal.valueOf(n));
                    meant.put(field, Integer.toString(n));
                }
                case TEXT, CODE -> {
                    String text = field == InvoiceLines.DOCUMENT_KIND
                            ? "bill"
                            : field.name().endsWith("currency") ? "EUR" : field.name() + " " + n;
                    block.put(field, text);
                    meant.put(field, text);
                }
            }
        }
        if (kind.plusSide() != null) {
            // The amount is what the sides are made of.
            meant.put(kind.plusSide(), meant.get(kind.amount()));
            meant.put(kind.minusSide(), "0.00");
        }
        block.end(true);
        return block;
    }

    private static Delivery everyField(Kind takes) {
        Delivery.Builder delivery = Delivery.named("every field", takes);
        for (Field field : takes.table().fields()) {
            delivery.column(field.name(), field);
        }
        return delivery.build();
    }

    private static Map<String, String> cells(MemoryOutlet outlet, int row) {
        Map<String, String> cells = new HashMap<>();
        List<List<String>> rows = outlet.parts.get(0);
        for (int i = 0; i < rows.get(0).size(); i++) {
            cells.put(rows.get(0).get(i), rows.get(row).get(i));
        }
        return cells;
    }

    @Test
    public void everyFieldOfEveryKindIsDeliveredAsItWasPutIn() throws IOException {
        for (Kind kind : Kinds.ALL) {
            Map<Field, String> meant = new LinkedHashMap<>();
            RecordBlock block = full(kind, meant);
            Document document = drafter(kind).draft(block.range(0, 1), null, finding -> {
                throw new AssertionError(finding);
            });
            if (kind == InvoiceLines.KIND) {
                meant.put(
                        InvoiceLines.TOTAL,
                        document.heading().money(InvoiceLines.TOTAL).toString().replace(" GBP", ""));
            }
            MemoryOutlet byObject = new MemoryOutlet(-1);
            deliver(everyField(kind), byObject, document);
            meant.forEach((field, value) ->
                    assertThat(cells(byObject, 1)).as("%s", field).containsEntry(field.name(), value));
            assertThat(cells(byObject, 1))
                    .containsEntry("source file", "full.csv")
                    .containsEntry("source row", "77");
            if (kind.isColumnar()) {
                MemoryOutlet byColumn = new MemoryOutlet(-1);
                DocumentBlock documents = new DocumentBlock(kind, block, null, 1, null, drafter(kind));
                deliver(everyField(kind), byColumn, writer -> writer.write(documents, 0, 1));
                assertThat(byColumn.parts).isEqualTo(byObject.parts);
            }
        }
    }

    @Test
    public void noValueOfAnotherTableComesToAJournal() throws IOException {
        for (Kind kind : List.of(BankLines.KIND, InvoiceLines.KIND)) {
            Map<Field, String> meant = new LinkedHashMap<>();
            Document document = drafter(kind).draft(full(kind, meant).range(0, 1), null, finding -> {});
            MemoryOutlet outlet = new MemoryOutlet(-1);
            deliver(everyField(JournalLines.KIND), outlet, document);
            assertThat(outlet.parts.get(0).size()).isGreaterThan(2);
            for (int row = 1; row < outlet.parts.get(0).size(); row++) {
                Map<String, String> cells = cells(outlet, row);
                assertThat(cells)
                        .containsEntry("currency", "")
                        .containsEntry("foreign amount", "")
                        .containsEntry("reference", document.reference())
                        .containsEntry("date", document.date().toString())
                        .containsEntry("line", Integer.toString(row))
                        .containsEntry("source row", "77");
            }
            assertThat(document.journal().difference()).isZero();
        }
    }

    @Test
    public void aCodedLineIsDeliveredByColumnAsItIsByObject() throws IOException {
        RecordBlock block = full(BankLines.KIND, new HashMap<>());
        for (String narrative : new String[] {null, "own text"}) {
            Coding coding = new Coding("tin", narrative, List.of(Posting.whole("5010", "STD", "SUP-1")));
            DocumentBlock documents =
                    new DocumentBlock(BankLines.KIND, block, null, 1, new Coding[] {coding}, drafter(BankLines.KIND));
            MemoryOutlet byColumn = new MemoryOutlet(-1);
            MemoryOutlet byObject = new MemoryOutlet(-1);
            deliver(everyField(BankLines.KIND), byColumn, writer -> writer.write(documents, 0, 1));
            deliver(everyField(BankLines.KIND), byObject, documents.get(0));
            assertThat(byColumn.parts).isEqualTo(byObject.parts);
            assertThat(cells(byColumn, 1))
                    .containsEntry("account", "5010")
                    .containsEntry("tax code", "STD")
                    .containsEntry("party", "SUP-1")
                    .containsEntry("coding entry", "tin")
                    .containsEntry("bank account", "1200");
            assertThat(cells(byColumn, 1).get("narrative")).isEqualTo(narrative == null ? "narrative 102" : narrative);
        }
    }

    @Test
    public void oneWrongCharacterAnywhereStopsTheDelivery() {
        for (int column = 0; column < 8; column++) {
            MemoryOutlet outlet = new MemoryOutlet(column);
            Document journal = journal("A1", -111_11, 111_11, -1_00, 1_00, 111_11);
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
        Delivery delivery = Delivery.named("turned", JournalLines.KIND)
                .column(DeliveryColumn.of("amount", JournalLines.AMOUNT).signTurned())
                .build();
        DeliveredFile delivered = deliver(delivery, outlet, journal("1", 5_00, -4_00));
        assertThat(outlet.parts.get(0)).containsExactly(List.of("amount"), List.of("-5.00"), List.of("4.00"));
        assertThat(delivered.totals().debit()).isEqualTo(5_00);
        assertThat(delivered.totals().credit()).isEqualTo(4_00);
    }

    @Test
    public void theCheckSaysBeforehandWhatTheReceiverWouldRefuse() {
        List<Finding> findings = new ArrayList<>();
        Delivery delivery = Delivery.named("short", JournalLines.KIND)
                .column(DeliveryColumn.of("ref", JournalLines.REFERENCE).atMost(3))
                .column(DeliveryColumn.of("text", JournalLines.NARRATIVE)
                        .atMost(6)
                        .refusing("<"))
                .column("amount", JournalLines.AMOUNT)
                .build();
        new DeliveryCheck(delivery, Sources.GBP).check(journal("LONG", 1, -1), findings::add);
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
        assertThatThrownBy(() -> Delivery.named("x", JournalLines.KIND)
                        .column("a", JournalLines.ACCOUNT)
                        .build())
                .hasMessageContaining("could not be proved");
        assertThatThrownBy(() -> Delivery.named("x", InvoiceLines.KIND)
                        .column("a", InvoiceLines.TAX)
                        .build())
                .hasMessageContaining("'net' or 'gross'");
        assertThatThrownBy(() -> Delivery.named("x", BankLines.KIND)
                        .column("a", BankLines.MONEY_IN)
                        .build())
                .hasMessageContaining("'money in' and 'money out'");
        assertThatThrownBy(() -> Delivery.named("x", JournalLines.KIND)
                        .column("a", BankLines.AMOUNT)
                        .column("b", JournalLines.AMOUNT)
                        .build())
                .hasMessageContaining("amount of bank lines, which its rows do not have");
        Delivery journals = everyField(JournalLines.KIND);
        assertThat(journals.accepts(BankLines.KIND)).isTrue();
        assertThat(everyField(InvoiceLines.KIND).accepts(BankLines.KIND)).isFalse();
        assertThat(FieldType.values()).hasSize(5);
    }
}
