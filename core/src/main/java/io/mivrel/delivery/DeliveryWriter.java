package io.mivrel.delivery;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.CellBuffer;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowSource;
import io.mivrel.model.BankBatch;
import io.mivrel.model.Document;
import io.mivrel.model.RecordBatch;
import io.mivrel.model.RecordRange;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Writes the clear documents of one delivery, divides them into parts, and proves what was written. For one thread. */
public final class DeliveryWriter {
    private final Delivery delivery;
    private final Outlet outlet;
    private final ColumnRenderer[] columns;
    private final ColumnRenderer[] readers;
    private final Proof meant;
    private final CellBuffer cell = new CellBuffer();
    private final long[] values;
    private RowWriter out;
    private int part;
    private long rowsInPart;
    private long documents;
    private final List<String> digests = new ArrayList<>();
    private final Object progress = new Object();
    private int opened;
    private boolean finished;

    /** Nothing is opened before the first document or {@link #finish}. */
    public DeliveryWriter(Delivery delivery, int decimals, Outlet outlet) {
        this.delivery = delivery;
        this.outlet = outlet;
        AmountFormat amounts = delivery.numbers().withDecimals(decimals);
        this.columns = renderers(delivery, amounts);
        this.readers = renderers(delivery, amounts);
        this.meant = new Proof(columns, delivery.takes());
        this.values = new long[columns.length];
    }

    static ColumnRenderer[] renderers(Delivery delivery, AmountFormat amounts) {
        return delivery.columns().stream()
                .map(c -> ColumnRenderer.of(c, amounts))
                .toArray(ColumnRenderer[]::new);
    }

    /** Writes one clear document. */
    public void write(Document document) throws IOException {
        Document delivered = delivery.takes().of(document);
        int lines = delivery.takes().lines(delivered);
        int most = delivery.form().rowsAtMost();
        if (out == null || (most > 0 && rowsInPart > 0 && rowsInPart + lines > most)) {
            openPart();
        }
        RecordRange asRead = delivery.takes().asRead(delivered);
        if (asRead != null) {
            writeAsRead(delivered, asRead);
        } else {
            writeLines(delivered, lines);
        }
        rowsInPart += lines;
        documents++;
    }

    /** Writes bank lines of a batch, clear ones, from one place up to another. */
    public void write(BankBatch lines, int from, int to) throws IOException {
        for (int i = from; i < to; i++) {
            write(lines.get(i));
        }
    }

    private void writeLines(Document delivered, int lines) throws IOException {
        for (int index = 0; index < lines; index++) {
            Object line = LineValues.line(delivered, index);
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].write(delivered, line, index, cell, out);
            }
            out.endRow();
            meant.row(values);
        }
    }

    private void writeAsRead(Document delivered, RecordRange lines) throws IOException {
        RecordBatch batch = lines.batch();
        for (int at = lines.from(); at < lines.to(); at++) {
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].writeAsRead(delivered, batch, at, at - lines.from(), cell, out);
            }
            out.endRow();
            meant.row(values);
        }
    }

    private void openPart() throws IOException {
        closePart();
        out = outlet.open(++part);
        synchronized (progress) {
            opened = part;
            progress.notifyAll();
        }
        rowsInPart = 0;
        if (delivery.form().titles()) {
            for (DeliveryColumn column : delivery.columns()) {
                byte[] title = column.title().getBytes(StandardCharsets.UTF_8);
                out.cell(title, 0, title.length);
            }
            out.endRow();
        }
    }

    private void closePart() throws IOException {
        if (out != null) {
            out.close();
            out = null;
        }
    }

    /** Ends writing. With no clear document no file comes to be. */
    public void finish() throws IOException {
        closePart();
        synchronized (progress) {
            finished = true;
            progress.notifyAll();
        }
    }

    /**
     * Reads back all parts and compares rows, totals and every value with what was meant. Meant for a thread of its own
     * beside the writing: it follows what is written and ends after {@link #finish}. Throws {@link
     * DeliveryMismatchException} when they differ.
     */
    public void prove() throws IOException {
        Proof found = new Proof(readers, delivery.takes());
        for (int p = 1; awaitPart(p); p++) {
            readBack(p, found);
        }
        if (!meant.agreesWith(found)) {
            throw new DeliveryMismatchException("delivery '" + delivery.name()
                    + "': what was read back is not what was meant (meant " + meant + "; found " + found
                    + "); nothing was delivered");
        }
    }

    /** Works out the digests of what lies on disk; after {@link #finish}. */
    public void digest() throws IOException {
        for (int p = 1; p <= part; p++) {
            digests.add(outlet.digest(p));
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

    private void readBack(int number, Proof found) throws IOException {
        long[] read = new long[readers.length];
        try (RowSource rows = outlet.readBack(number)) {
            boolean skip = delivery.form().titles();
            for (Row row = rows.next(); row != null; row = rows.next()) {
                if (skip) {
                    skip = false;
                    continue;
                }
                if (row.fault() != null || row.size() != readers.length) {
                    throw new DeliveryMismatchException("delivery '" + delivery.name() + "': row " + row.number()
                            + " of the written file does not read back; nothing was delivered");
                }
                for (int i = 0; i < readers.length; i++) {
                    read[i] = readers[i].readBack(row.bytes(), row.start(i), row.end(i));
                }
                found.row(read);
            }
        }
    }

    /** Gives the files their names; only after {@link #prove} and {@link #digest}. */
    public DeliveredFile publish() throws IOException {
        List<String> files = part == 0 ? new ArrayList<>() : outlet.publish();
        return new DeliveredFile(
                delivery.name(),
                delivery.takes(),
                files,
                List.copyOf(digests),
                documents,
                meant.rows(),
                meant.totals());
    }

    /** Removes all traces, also of what {@link #publish} named. */
    public void discard() {
        try {
            closePart();
        } catch (IOException alreadyFailing) {
            // The part is removed in any case.
        }
        outlet.discard();
    }
}
