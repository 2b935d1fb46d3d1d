package io.mivrel.files.lines;

import io.mivrel.files.bytes.LineIndex;
import io.mivrel.files.bytes.Readable;
import io.mivrel.files.bytes.Utf8Input;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Reads separated text by RFC 4180, strictly: a quoted cell ends with a quote before a separator or a line end, and
 * anything else after a quote damages the row. A damaged row costs its first physical line only: reading goes on with
 * the next line, so that a quote that is never closed does not swallow the file. Line ends may be CRLF, LF or CR.
 *
 * <p>Cells are spans of one buffer. A row holds at most {@value #MOST_BYTES} bytes and {@value #MOST_CELLS} cells;
 * a longer one is passed over with a fault. For one thread.
 */
public final class SeparatedRows implements RowSource {
    public static final int MOST_BYTES = 1 << 20;
    public static final int MOST_CELLS = 16_384;
    private static final int PROBE = 8192;
    private static final int SHORT = 2048;

    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = 0x8080808080808080L;
    private static final long QUOTES = ONES * '"';
    private static final long CONTROLS = ONES * ('\r' + 1);

    private enum Scan {
        ROW,
        END,
        NEED_MORE,
        QUOTE_TROUBLE,
        TOO_MANY_CELLS
    }

    private final Utf8Input in;
    private final LineIndex index;
    private final byte separator;
    private final long separators;
    private final Row row = new Row();
    private byte[] buffer = new byte[1 << 16];
    private int at;
    private int limit;
    /** The place in the buffer from which on the end of a row needs a closer look. */
    private int attention;

    private long consumed;
    private boolean ended;
    private boolean probed;
    private boolean skipped;
    private long line = 1;

    private int[] doubled = new int[8];
    private int doubledCount;
    private int rowEnd;
    private int rowLines;
    private boolean sawNul;

    /**
     * @param in the bytes; closed with this
     * @param separator the character between cells
     * @param encoding the name of a character set, or {@code auto}
     */
    public SeparatedRows(InputStream in, char separator, String encoding) throws IOException {
        this(in, separator, encoding, new LineIndex());
    }

    private SeparatedRows(InputStream in, char separator, String encoding, LineIndex index) throws IOException {
        this.index = index;
        this.in = new Utf8Input(in, encoding);
        this.separator = (byte) separator;
        this.separators = ONES * separator;
    }

    /** Opens a file; a missing file, a folder or one that may not be read is an {@link IOException} that says so. */
    public static SeparatedRows open(Path file, char separator, String encoding) throws IOException {
        return open(file, separator, encoding, new LineIndex());
    }

    /** The same with what an earlier reading of the file noted, for {@link #skipTo}, and taking note itself. */
    public static SeparatedRows open(Path file, char separator, String encoding, LineIndex index) throws IOException {
        return new SeparatedRows(
                index.readings().watch(Files.newInputStream(Readable.check(file))), separator, encoding, index);
    }

    @Override
    public @Nullable Row next() throws IOException {
        if (!probed) {
            probed = true;
            if (!probe()) {
                ended = true;
                at = limit;
                row.begin(line);
                row.fault(RowFault.NOT_TEXT);
                return row;
            }
        }
        while (true) {
            Scan scan = scan();
            switch (scan) {
                case ROW -> {
                    return rowEnd - at > MOST_BYTES ? tooLong() : finish();
                }
                case END -> {
                    return null;
                }
                case NEED_MORE -> {
                    if (limit - at >= MOST_BYTES) {
                        return tooLong();
                    }
                    refill();
                }
                case QUOTE_TROUBLE -> {
                    return firstLineOnly(RowFault.QUOTE_UNCLOSED);
                }
                case TOO_MANY_CELLS -> {
                    return skipLine(RowFault.TOO_LONG);
                }
            }
        }
    }

    @Override
    public void skipTo(long physicalRow) throws IOException {
        jump(physicalRow);
        while (line < physicalRow) {
            if (at == limit && !ended && in.canSkipLines()) {
                long found = in.skipLines(physicalRow - line);
                line += found;
                skipped = true;
                if (line < physicalRow) {
                    ended = true;
                    return;
                }
                continue;
            }
            int end = lineEnd(at);
            if (end == limit) {
                in.damagedBefore(consumed + end);
                at = limit;
                if (ended) {
                    return;
                }
                if (!in.canSkipLines()) {
                    refill();
                }
                continue;
            }
            if (buffer[end] == '\r' && end + 1 == limit && !ended) {
                at = end;
                refill();
                continue;
            }
            boolean pair = buffer[end] == '\r' && end + 1 < limit && buffer[end + 1] == '\n';
            advance(pair ? end + 2 : end + 1, 1);
        }
    }

    // To the last line noted before the wanted one, when that lies beyond what is in the buffer.
    private void jump(long physicalRow) throws IOException {
        int place = index.find(physicalRow);
        if (place < 0 || index.line(place) <= line || index.offset(place) < in.offset()) {
            return;
        }
        in.damagedBefore(consumed + limit);
        in.skipTo(index.offset(place));
        at = limit;
        line = index.line(place);
        skipped = true;
    }

    private boolean probe() throws IOException {
        while (limit < PROBE && !ended) {
            refill();
        }
        return Readable.isText(buffer, Math.min(limit, PROBE));
    }

    private void refill() throws IOException {
        if (at > 0) {
            System.arraycopy(buffer, at, buffer, 0, limit - at);
            limit -= at;
            consumed += at;
            at = 0;
        }
        if (buffer.length - limit < Utf8Input.ROOM) {
            buffer = Arrays.copyOf(buffer, buffer.length * 2);
        }
        // Behind a skip often one row is wanted and then another skip.
        int read = in.read(buffer, limit, skipped ? Math.min(buffer.length, limit + SHORT) : buffer.length);
        skipped = false;
        attention = 0;
        if (read < 0) {
            ended = true;
        } else {
            limit += read;
        }
    }

    private Scan scan() {
        final byte[] b = buffer;
        final int end = limit;
        int i = at;
        row.begin(line);
        row.over(b);
        doubledCount = 0;
        sawNul = false;
        rowLines = 1;
        int[] spans = row.spans();
        int cells = 0;
        if (i == end) {
            return ended ? Scan.END : Scan.NEED_MORE;
        }
        while (true) {
            int cell = i;
            int cellEnd;
            if (i < end && b[i] == '"') {
                cell++;
                cellEnd = closingQuote(b, cell, end, cells);
                i = cellEnd + 1;
                if (cellEnd < 0) {
                    return ended ? Scan.QUOTE_TROUBLE : Scan.NEED_MORE;
                }
                if (i < end && b[i] != separator && b[i] != '\n' && b[i] != '\r') {
                    return Scan.QUOTE_TROUBLE;
                }
            } else {
                cellEnd = cellEnd(b, i, end);
                i = cellEnd;
            }
            if (i == end && !ended) {
                return Scan.NEED_MORE;
            }
            if (2 * cells == spans.length) {
                spans = row.growSpans();
            }
            spans[2 * cells] = cell;
            spans[2 * cells + 1] = cellEnd;
            cells++;
            if (i == end || b[i] != separator) {
                break;
            }
            if (cells == MOST_CELLS) {
                return Scan.TOO_MANY_CELLS;
            }
            i++;
        }
        if (i < end && b[i] == '\r' && i + 1 == end && !ended) {
            return Scan.NEED_MORE;
        }
        row.size(cells);
        rowEnd = i == end ? end : b[i] == '\r' && i + 1 < end && b[i + 1] == '\n' ? i + 2 : i + 1;
        return Scan.ROW;
    }

    // The quote that closes a cell whose text begins here; -1 when the bytes that are there do not show it.
    private int closingQuote(byte[] b, int from, int end, int cell) {
        boolean hasDoubled = false;
        int close = quotedEnd(b, from, end);
        for (; close < end; close = quotedEnd(b, close, end)) {
            byte c = b[close];
            if (c == '"') {
                if (close + 1 == end && !ended) {
                    return -1;
                }
                if (close + 1 == end || b[close + 1] != '"') {
                    if (hasDoubled) {
                        rememberDoubled(cell);
                    }
                    return close;
                }
                hasDoubled = true;
                close++;
            } else if (c == '\n' || c == '\r' && !(close + 1 < end && b[close + 1] == '\n')) {
                rowLines++;
            } else if (c == 0) {
                sawNul = true;
            }
            close++;
        }
        return -1;
    }

    // The separator or line end behind a cell without quotes around it.
    private int cellEnd(byte[] b, int from, int end) {
        int i = plainEnd(b, from, end);
        while (i < end) {
            byte c = b[i];
            if (c == separator || c == '\n' || c == '\r') {
                break;
            }
            if (c == '"') {
                row.quoteInside();
            } else if (c == 0) {
                sawNul = true;
            }
            i = plainEnd(b, i + 1, end);
        }
        return i;
    }

    // The first separator, quote or control character. Eight bytes at once: a byte that equals a mark becomes nil, and
    // then, as for a control character, its highest bit comes up. The lowest bit that is up is always right.
    private int plainEnd(byte[] b, int from, int end) {
        int i = from;
        for (; i + 8 <= b.length && i < end; i += 8) {
            long x = Spans.eight(b, i);
            long quote = x ^ QUOTES;
            long sep = x ^ separators;
            long hit = ((quote - ONES) & ~quote | (sep - ONES) & ~sep | (x - CONTROLS) & ~x) & HIGHEST;
            if (hit != 0) {
                return Math.min(end, i + (Long.numberOfTrailingZeros(hit) >>> 3));
            }
        }
        return i < end ? markAtEnd(b, i, end, separator) : end;
    }

    // In the last bytes of the buffer. Apart, for the compiler's sake: rarely are there so few.
    private static int markAtEnd(byte[] b, int from, int end, byte mark) {
        int i = from;
        while (i < end && b[i] != mark && b[i] != '"' && (b[i] > '\r' || b[i] < 0)) {
            i++;
        }
        return i;
    }

    // The first quote or control character.
    private static int quotedEnd(byte[] b, int from, int end) {
        int i = from;
        for (; i + 8 <= b.length && i < end; i += 8) {
            long x = Spans.eight(b, i);
            long quote = x ^ QUOTES;
            long hit = ((quote - ONES) & ~quote | (x - CONTROLS) & ~x) & HIGHEST;
            if (hit != 0) {
                return Math.min(end, i + (Long.numberOfTrailingZeros(hit) >>> 3));
            }
        }
        return i < end ? markAtEnd(b, i, end, (byte) '"') : end;
    }

    private void rememberDoubled(int cell) {
        if (doubledCount == doubled.length) {
            doubled = Arrays.copyOf(doubled, doubledCount * 2);
        }
        doubled[doubledCount++] = cell;
    }

    private Row finish() {
        for (int d = 0; d < doubledCount; d++) {
            undouble(row.spans(), 2 * doubled[d]);
        }
        if (sawNul) {
            row.fault(RowFault.NUL);
        }
        if (ended && rowEnd == limit && rowEnd > 0 && buffer[rowEnd - 1] != '\n' && buffer[rowEnd - 1] != '\r') {
            row.unended();
        }
        advance(rowEnd, rowLines);
        return row;
    }

    private void advance(int end, int lines) {
        at = end;
        line += lines;
        if (end >= attention) {
            attend();
        }
    }

    // What need not be looked at after every row: damage to it, when there is any, and lines to be noted.
    private void attend() {
        if (in.damagedBefore(consumed + at)) {
            row.fault(RowFault.BYTES_UNREADABLE);
        }
        if (in.isAsInFile()) {
            index.note(line, in.offset() - (limit - at));
        }
        attention = in.hasDamage() ? 0 : in.isAsInFile() ? at + LineIndex.APART : Integer.MAX_VALUE;
    }

    // The row's bytes are not needed again, so the doubled quotes are taken out in place.
    private void undouble(int[] spans, int place) {
        int to = spans[place];
        for (int from = to; from < spans[place + 1]; from++) {
            buffer[to++] = buffer[from];
            if (buffer[from] == '"') {
                from++;
            }
        }
        spans[place + 1] = to;
    }

    private Row tooLong() throws IOException {
        int lineEnd = lineEnd(at);
        if (lineEnd < limit && lineEnd - at <= MOST_BYTES) {
            // The line itself is short: an open quote runs over many lines.
            return firstLineOnly(RowFault.QUOTE_UNCLOSED);
        }
        return skipLine(RowFault.TOO_LONG);
    }

    private int lineEnd(int from) {
        int i = from;
        while (i < limit && buffer[i] != '\n' && buffer[i] != '\r') {
            i++;
        }
        return i;
    }

    private Row firstLineOnly(RowFault fault) {
        int end = lineEnd(at);
        row.begin(line);
        row.over(buffer);
        row.add(at, end);
        int next = end;
        if (next < limit && buffer[next] == '\r') {
            next++;
        }
        if (next < limit && buffer[next] == '\n') {
            next++;
        }
        advance(next, 1);
        row.fault(fault);
        return row;
    }

    // Passes over the rest of a physical line without keeping it; shows its beginning.
    private Row skipLine(RowFault fault) throws IOException {
        byte[] shown = Arrays.copyOfRange(buffer, at, Math.min(limit, at + 100));
        long number = line;
        int end = lineEnd(at);
        while (end == limit && !ended) {
            in.damagedBefore(consumed + limit);
            at = limit;
            refill();
            end = lineEnd(at);
        }
        firstLineOnly(fault);
        row.begin(number);
        row.over(shown);
        row.add(0, lineEndOf(shown));
        row.fault(fault);
        return row;
    }

    private static int lineEndOf(byte[] shown) {
        int i = 0;
        while (i < shown.length && shown[i] != '\n' && shown[i] != '\r') {
            i++;
        }
        return i;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
