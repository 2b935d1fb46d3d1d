package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;

/** Writes the clear documents of one delivery, divides them into parts, and proves what was written. For one thread. */
public final class DeliveryWriter {
    private final Delivery delivery;
    private final Outlet outlet;
    private final ColumnRenderer[] columns;
    private final ColumnRenderer[] readers;
    private final Proof meant;
    private final CellBuffer cell = new CellBuffer();
    private final long[] values;
    private final CellColumn[] cells;
    /** By column, the first line of those being written that is not to be written as it was read. */
    private final int[] reached;

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
        this.reached = new int[columns.length];
        this.cells = Stream.generate(CellColumn::new).limit(columns.length).toArray(CellColumn[]::new);
    }

    static ColumnRenderer[] renderers(Delivery delivery, AmountFormat amounts) {
        return delivery.columns().stream()
                .map(c -> ColumnRenderer.of(c, amounts))
                .toArray(ColumnRenderer[]::new);
    }

    /** Writes clear documents in their order. */
    public void write(List<Document> some) throws IOException {
        for (Document document : some) {
            write(document);
        }
    }

    /** Writes one clear document. */
    public void write(Document document) throws IOException {
        Document delivered = delivery.takes().of(document);
        int lines = delivery.takes().lines(delivered);
        int most = delivery.format().rowsAtMost();
        if (out == null || (most > 0 && rowsInPart > 0 && rowsInPart + lines > most)) {
            openPart();
        }
        RecordRange asRead = delivery.takes().asRead(delivered);
        if (asRead != null) {
            writeAsRead(delivered, asRead.batch(), asRead.from(), asRead.from(), asRead.to());
        } else {
            writeLines(delivered, lines);
        }
        rowsInPart += lines;
        documents++;
    }

    /** Writes clear documents of a batch, from one up to another. */
    public void write(DocumentBlock some, int from, int to) throws IOException {
        if (!delivery.takes().takesAsRead(some) || delivery.format().rowsAtMost() > 0) {
            for (int i = from; i < to; i++) {
                write(some.get(i));
            }
            return;
        }
        if (out == null) {
            openPart();
        }
        AsRead lines = AsRead.of(some);
        Arrays.fill(reached, -1);
        int end = some.from(to);
        int document = from;
        for (int at = writeColumns(lines, some.from(from), end); at < end; at = writeColumns(lines, at + 1, end)) {
            while (some.to(document) <= at) {
                document++;
            }
            writeAsRead(some.get(document), lines.records(), some.from(document), at, at + 1);
        }
        documents += to - from;
    }

    // Answers the place of the first line that some column does not have as it is to be written. Each column's own such
    // place is kept, so that lines are looked at once, however many there are of those.
    private int writeColumns(AsRead lines, int from, int to) throws IOException {
        int end = to;
        for (int i = 0; i < columns.length; i++) {
            if (reached[i] < from) {
                reached[i] = columns[i].reach(lines, from, to);
            }
            end = Math.min(end, reached[i]);
        }
        if (end == from) {
            return end;
        }
        for (int i = 0; i < columns.length; i++) {
            columns[i].render(lines, from, end, cells[i].clear(end - from));
        }
        out.rows(cells, end - from);
        meant.rows(cells, end - from);
        return end;
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

    private void writeAsRead(Document delivered, RecordBlock lines, int first, int from, int to) throws IOException {
        for (int at = from; at < to; at++) {
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].writeAsRead(delivered, lines, at, at - first, cell, out);
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
        if (delivery.format().titles()) {
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
            if (delivery.format().titles()) {
                rows.next();
            }
            for (Row row = rows.next(); row != null; row = rows.next()) {
                if (row.fault() != null || row.size() != readers.length) {
                    throw new DeliveryMismatchException("delivery '" + delivery.name() + "': row " + row.number()
                            + " of the written file does not read back; nothing was delivered");
                }
                for (int i = 0; i < readers.length; i++) {
                    ColumnRenderer reader = readers[i];
                    byte[] bytes = row.bytes();
                    int from = row.start(i);
                    int to = row.end(i);
                    read[i] = reader.hashed ? Hash64.of(bytes, from, to) : reader.readBack(bytes, from, to);
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
