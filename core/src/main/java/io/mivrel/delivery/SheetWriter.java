package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Writes the documents of one sheet, divides them into parts, and proves what was written. */
final class SheetWriter {
    private final Delivery delivery;
    private final Sheet sheet;
    private final Currency currency;
    private final Outlet outlet;
    private final ColumnRenderer[] columns;
    private final ColumnRenderer[] readers;
    private final ValueTally meant;
    private final CellBuffer cell = new CellBuffer();
    private final long[] values;

    private @Nullable RowWriter out;
    private int part;
    private long rowsInPart;
    private List<PreparedFile> prepared = List.of();

    private final Object progress = new Object();
    private int opened;
    private boolean finished;

    SheetWriter(Delivery delivery, Sheet sheet, Currency currency, Outlet outlet) {
        this.delivery = delivery;
        this.sheet = sheet;
        this.currency = currency;
        this.outlet = outlet;
        this.columns = renderers(sheet, delivery.takes(), currency);
        this.readers = renderers(sheet, delivery.takes(), currency);
        this.meant = new ValueTally(columns, sheet, delivery.takes(), currency);
        this.values = new long[columns.length];
    }

    static ColumnRenderer[] renderers(Sheet sheet, Kind takes, Currency currency) {
        AmountFormat amounts = sheet.numbers().withDecimals(Money.decimals(currency));
        return sheet.columns().stream()
                .map(column -> ColumnRenderer.of(column, takes, amounts))
                .toArray(ColumnRenderer[]::new);
    }

    /** True when the rows of the sheet are the records of such documents, one for one. */
    static boolean takesRecords(Sheet sheet, Kind takes, DocumentBlock documents) {
        return takes == documents.kind()
                && takes.isColumnar()
                && sheet.level() == takes.table().deepest();
    }

    void write(Document delivered) throws IOException {
        List<Line> lines = delivered.lines(sheet.level());
        RowWriter out = room(lines.size());
        for (Line line : lines) {
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].write(line, cell, out);
            }
            out.endRow();
            meant.row(values);
        }
        rowsInPart += lines.size();
    }

    /** Writes a document of a block whose records are the rows. */
    void write(DocumentBlock documents, int document) throws IOException {
        int from = documents.from(document);
        int to = documents.to(document);
        RowWriter out = room(to - from);
        for (int at = from; at < to; at++) {
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].write(documents, document, at, cell, out);
            }
            out.endRow();
            meant.row(values);
        }
        rowsInPart += to - from;
    }

    private RowWriter room(int rows) throws IOException {
        int most = sheet.format().rowsAtMost();
        return out == null || most > 0 && rowsInPart > 0 && rowsInPart + rows > most ? openPart() : out;
    }

    private RowWriter openPart() throws IOException {
        closePart();
        RowWriter opened = outlet.open(++part);
        out = opened;
        synchronized (progress) {
            this.opened = part;
            progress.notifyAll();
        }
        rowsInPart = 0;
        if (sheet.format().titles()) {
            for (DeliveryColumn column : sheet.columns()) {
                byte[] title = column.title().getBytes(StandardCharsets.UTF_8);
                opened.cell(title, 0, title.length);
            }
            opened.endRow();
        }
        return opened;
    }

    private void closePart() throws IOException {
        if (out != null) {
            out.close();
            out = null;
        }
    }

    void finish() throws IOException {
        closePart();
        synchronized (progress) {
            finished = true;
            progress.notifyAll();
        }
    }

    void prove() throws IOException {
        ValueTally found = new ValueTally(readers, sheet, delivery.takes(), currency);
        for (int p = 1; awaitPart(p); p++) {
            readBack(p, found);
        }
        if (!meant.agreesWith(found)) {
            throw new DeliveryMismatchException("delivery '" + delivery.name()
                    + "': what was read back is not what was meant (meant " + meant + "; found " + found
                    + "); nothing was delivered");
        }
    }

    // True once the part is open; false when there will be none.
    private boolean awaitPart(int number) throws IOException {
        synchronized (progress) {
            while (opened < number && !finished) {
                try {
                    progress.wait();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                    throw new InterruptedIOException("the proof was given up");
                }
            }
            return opened >= number;
        }
    }

    private void readBack(int number, ValueTally found) throws IOException {
        long[] read = new long[readers.length];
        try (RowSource rows = outlet.readBack(number)) {
            if (sheet.format().titles()) {
                rows.next();
            }
            for (Row row = rows.next(); row != null; row = rows.next()) {
                if (row.fault() != null || row.size() != readers.length) {
                    throw new DeliveryMismatchException("delivery '" + delivery.name() + "': row " + row.number()
                            + " of the written file does not read back; nothing was delivered");
                }
                byte[] bytes = row.bytes();
                for (int i = 0; i < readers.length; i++) {
                    ColumnRenderer reader = readers[i];
                    int from = row.start(i);
                    int to = row.end(i);
                    read[i] = reader.hashed ? Hash64.of(bytes, from, to) : reader.readBack(bytes, from, to);
                }
                found.row(read);
            }
        }
    }

    void prepare() throws IOException {
        prepared = part == 0 ? List.of() : outlet.prepare();
    }

    void publish() throws IOException {
        if (part > 0) {
            prepared = outlet.publish();
        }
    }

    void release() {
        if (part > 0) {
            outlet.release();
        }
    }

    DeliveredFile delivered(long documents) {
        return new DeliveredFile(
                delivery.name(), sheet.name(), delivery.takes(), prepared, documents, meant.rows(), meant.totals());
    }

    void discard() {
        try {
            closePart();
        } catch (IOException alreadyFailing) {
            // The part is removed in any case.
        }
        outlet.discard();
    }
}
