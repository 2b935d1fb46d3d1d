package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
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
    private final ColumnRenderer.Counter counter = new ColumnRenderer.Counter();
    /** Columns whose sums the last rows state, and those so far. */
    private final Map<String, Long> sums = new LinkedHashMap<>();

    private final int[] summed;

    private @Nullable RowWriter out;
    private int part;
    private List<PreparedFile> prepared = List.of();

    private final Object progress = new Object();
    private int opened;
    private boolean finished;
    /** How each part that is closed ends, where the last rows say something. */
    private final List<End> ends = new ArrayList<>();

    /** Rows of data of a part, and the rows under them. */
    private record End(long rows, List<List<String>> last) {}

    SheetWriter(Delivery delivery, Sheet sheet, Currency currency, Outlet outlet) {
        this.delivery = delivery;
        this.sheet = sheet;
        this.currency = currency;
        this.outlet = outlet;
        this.columns = renderers(sheet, delivery.takes(), currency, counter);
        this.readers = renderers(sheet, delivery.takes(), currency, counter);
        this.meant = new ValueTally(columns, sheet, delivery.takes(), currency);
        this.values = new long[columns.length];
        this.summed = sheet.frame().sums().stream().mapToInt(titles()::indexOf).toArray();
    }

    static ColumnRenderer[] renderers(Sheet sheet, Kind takes, Currency currency, ColumnRenderer.Counter counter) {
        AmountFormat amounts = sheet.numbers().withDecimals(Money.decimals(currency));
        return sheet.columns().stream()
                .map(column -> ColumnRenderer.of(column, takes, amounts, counter))
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
        counter.documents++;
        for (Line line : lines) {
            counter.rows++;
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].write(line, cell, out);
            }
            out.endRow();
            meant.row(values);
            addUp();
        }
    }

    /** Writes a document of a block whose records are the rows. */
    void write(DocumentBlock documents, int document) throws IOException {
        int from = documents.from(document);
        int to = documents.to(document);
        RowWriter out = room(to - from);
        counter.documents++;
        for (int at = from; at < to; at++) {
            counter.rows++;
            for (int i = 0; i < columns.length; i++) {
                values[i] = columns[i].write(documents, document, at, cell, out);
            }
            out.endRow();
            meant.row(values);
            addUp();
        }
    }

    private void addUp() {
        for (int place : summed) {
            long amount = values[place] == SourceRecord.ABSENT ? 0 : values[place];
            sums.merge(sheet.columns().get(place).title(), amount, Math::addExact);
        }
    }

    private RowWriter room(int rows) throws IOException {
        int most = sheet.format().rowsAtMost();
        return out == null || most > 0 && counter.rows > 0 && counter.rows + rows > most ? openPart() : out;
    }

    private RowWriter openPart() throws IOException {
        closePart();
        counter.rows = 0;
        counter.documents = 0;
        sums.clear();
        RowWriter opened = outlet.open(++part);
        out = opened;
        synchronized (progress) {
            this.opened = part;
            progress.notifyAll();
        }
        texts(frame(sheet.frame().above(), part, Map.of()), opened);
        if (sheet.format().titles()) {
            opened.texts(titles());
        }
        texts(frame(sheet.frame().under(), part, Map.of()), opened);
        return opened;
    }

    private List<String> titles() {
        return sheet.columns().stream().map(DeliveryColumn::title).toList();
    }

    private static void texts(List<List<String>> rows, RowWriter out) throws IOException {
        for (List<String> row : rows) {
            if (row.size() == 1) {
                out.line(row.get(0));
            } else {
                out.texts(row);
            }
        }
    }

    private List<List<String>> frame(List<List<String>> rows, int number, Map<String, String> counts) {
        return Frame.filled(rows, text -> outlet.named(text, number), counts);
    }

    private void closePart() throws IOException {
        RowWriter open = out;
        if (open == null) {
            return;
        }
        out = null;
        try (open) {
            if (!sheet.frame().last().isEmpty()) {
                List<List<String>> last = frame(sheet.frame().last(), part, counts());
                texts(last, open);
                synchronized (progress) {
                    ends.add(new End(counter.rows, last));
                    progress.notifyAll();
                }
            }
        }
    }

    private Map<String, String> counts() {
        Map<String, String> counts = new HashMap<>();
        counts.put("rows", Long.toString(counter.rows));
        counts.put("documents", Long.toString(counter.documents));
        AmountFormat amounts = sheet.numbers().withDecimals(Money.decimals(currency));
        for (String title : sheet.frame().sums()) {
            AmountRenderer.append(sums.getOrDefault(title, 0L), amounts, 0, cell.clear());
            counts.put(title, cell.toString());
        }
        return counts;
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
                await();
            }
            return opened >= number;
        }
    }

    private void await() throws IOException {
        try {
            progress.wait();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("the proof was given up");
        }
    }

    private void readBack(int number, ValueTally found) throws IOException {
        long[] read = new long[readers.length];
        End end = sheet.frame().last().isEmpty() ? new End(Long.MAX_VALUE, List.of()) : awaitEnd(number);
        try (RowSource rows = outlet.readBack(number)) {
            readBack(rows, frame(sheet.frame().above(), number, Map.of()));
            readBack(rows, sheet.format().titles() ? List.of(titles()) : List.of());
            readBack(rows, frame(sheet.frame().under(), number, Map.of()));
            long left = end.rows();
            for (Row row = left == 0 ? null : rows.next(); row != null; row = --left == 0 ? null : rows.next()) {
                if (row.fault() != null || row.size() != readers.length) {
                    throw unread(row);
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
            readBack(rows, end.last());
        }
    }

    // Rows of texts; which blank rows a form keeps does not matter.
    private void readBack(RowSource rows, List<List<String>> expected) throws IOException {
        for (List<String> cells : expected) {
            boolean blank = cells.stream().allMatch(String::isBlank);
            Row row = blank ? null : rows.next();
            while (row != null && row.isBlank()) {
                row = rows.next();
            }
            if (!blank && (row == null || !isMeant(row, cells))) {
                throw new DeliveryMismatchException("delivery '" + delivery.name() + "': the row '"
                        + String.join(" | ", cells) + "' does not read back as it was meant; nothing was delivered");
            }
        }
    }

    // Cell by cell, or as one text without what divides cells.
    private boolean isMeant(Row row, List<String> cells) {
        List<String> found = IntStream.range(0, row.size()).mapToObj(row::text).toList();
        boolean cellByCell = found.size() >= cells.size();
        for (int i = 0; i < found.size() && cellByCell; i++) {
            cellByCell =
                    isSame(found.get(i).strip(), i < cells.size() ? cells.get(i).strip() : "");
        }
        return cellByCell || plain(String.join("", found)).equals(plain(String.join("", cells)));
    }

    // A sum of a workbook may be a number.
    private static boolean isSame(String found, String meant) {
        String number = "-?[0-9]+([.][0-9]+)?";
        return found.equals(meant)
                || found.matches(number)
                        && meant.matches(number)
                        && new BigDecimal(found).compareTo(new BigDecimal(meant)) == 0;
    }

    private String plain(String text) {
        return text.replaceAll("[\\s\"]", "")
                .replace(String.valueOf(sheet.format().separator()), "");
    }

    private DeliveryMismatchException unread(Row row) {
        return new DeliveryMismatchException("delivery '" + delivery.name() + "': row " + row.number()
                + " of the written file does not read back; nothing was delivered");
    }

    private End awaitEnd(int number) throws IOException {
        synchronized (progress) {
            while (ends.size() < number) {
                await();
            }
            return ends.get(number - 1);
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
