package io.mivrel.files;

import io.mivrel.intake.Row;
import io.mivrel.intake.RowFault;
import io.mivrel.intake.RowSource;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * Reads separated text by RFC 4180, strictly: a quoted cell ends with a quote before a separator or a line end, and
 * anything else after a quote damages the row. A damaged row costs its first physical line only: reading goes on with
 * the next line, so that a quote that is never closed does not swallow the file. Line ends may be CRLF, LF or CR.
 *
 * <p>Cells are spans of one buffer. A row holds at most {@value #MOST_CHARS} characters and {@value #MOST_CELLS} cells;
 * a longer one is passed over with a fault. For one thread.
 */
public final class SeparatedRows implements RowSource {
    static final int MOST_CHARS = 1 << 20;
    static final int MOST_CELLS = 16_384;
    private static final int PROBE = 8192;

    private enum Scan {
        ROW,
        END,
        NEED_MORE,
        QUOTE_TROUBLE,
        TOO_MANY_CELLS
    }

    private final CharInput in;
    private final char separator;
    private final Row row = new Row();
    private char[] buffer = new char[1 << 16];
    private int at;
    private int limit;
    private long consumed;
    private boolean ended;
    private boolean probed;
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
        this.in = new CharInput(in, encoding);
        this.separator = separator;
    }

    /** Opens a file; a missing file, a folder or one that may not be read is an {@link IOException} that says so. */
    public static SeparatedRows open(Path file, char separator, String encoding) throws IOException {
        return new SeparatedRows(Files.newInputStream(Readable.check(file)), separator, encoding);
    }

    @Override
    public Row next() throws IOException {
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
                    return finish();
                }
                case END -> {
                    return null;
                }
                case NEED_MORE -> {
                    if (limit - at >= MOST_CHARS) {
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
        while (line < physicalRow) {
            if (at == limit && !ended && in.canSkipLines()) {
                long found = in.skipLines(physicalRow - line);
                line += found;
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

    // Text has hardly any control characters; a few NULs damage their rows only.
    private boolean probe() throws IOException {
        while (limit < PROBE && !ended) {
            refill();
        }
        int seen = Math.min(limit, PROBE);
        int odd = 0;
        for (int i = 0; i < seen; i++) {
            char c = buffer[i];
            if (c < ' ' && c != '\t' && c != '\n' && c != '\r' && c != '\f' && c != 0x1A) {
                odd++;
            }
        }
        return odd <= 2 || odd * 50 <= seen;
    }

    private void refill() throws IOException {
        if (at > 0) {
            System.arraycopy(buffer, at, buffer, 0, limit - at);
            limit -= at;
            consumed += at;
            at = 0;
        }
        if (limit == buffer.length) {
            buffer = Arrays.copyOf(buffer, buffer.length * 2);
        }
        int read = in.read(buffer, limit);
        if (read < 0) {
            ended = true;
        } else {
            limit += read;
        }
    }

    private Scan scan() {
        final char[] b = buffer;
        final int end = limit;
        final char sep = separator;
        final char most = (char) Math.max(sep, '"');
        int i = at;
        row.begin(line);
        row.over(b);
        doubledCount = 0;
        sawNul = false;
        int lines = 1;
        int[] spans = row.spans();
        int cells = 0;
        if (i == end) {
            return ended ? Scan.END : Scan.NEED_MORE;
        }
        while (true) {
            int cell = i;
            int cellEnd;
            if (i < end && b[i] == '"') {
                int close = i + 1;
                boolean hasDoubled = false;
                while (true) {
                    while (close < end && b[close] != '"' && b[close] > '\r') {
                        close++;
                    }
                    if (close == end) {
                        return ended ? Scan.QUOTE_TROUBLE : Scan.NEED_MORE;
                    }
                    char c = b[close];
                    if (c == '"') {
                        if (close + 1 == end && !ended) {
                            return Scan.NEED_MORE;
                        }
                        if (close + 1 < end && b[close + 1] == '"') {
                            hasDoubled = true;
                            close += 2;
                            continue;
                        }
                        break;
                    }
                    if (c == '\n' || (c == '\r' && !(close + 1 < end && b[close + 1] == '\n'))) {
                        lines++;
                    } else if (c == 0) {
                        sawNul = true;
                    }
                    close++;
                }
                cell = i + 1;
                cellEnd = close;
                if (hasDoubled) {
                    rememberDoubled(cells);
                }
                i = close + 1;
                if (i < end && b[i] != sep && b[i] != '\n' && b[i] != '\r') {
                    return Scan.QUOTE_TROUBLE;
                }
            } else {
                while (i < end) {
                    char c = b[i];
                    if (c <= most) {
                        if (c == sep || c == '\n' || c == '\r') {
                            break;
                        }
                        if (c == '"') {
                            row.quoteInside();
                        } else if (c == 0) {
                            sawNul = true;
                        }
                    }
                    i++;
                }
                cellEnd = i;
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
            if (i == end) {
                break;
            }
            if (b[i] != sep) {
                if (b[i] == '\r') {
                    if (i + 1 == end && !ended) {
                        return Scan.NEED_MORE;
                    }
                    if (i + 1 < end && b[i + 1] == '\n') {
                        i++;
                    }
                }
                i++;
                break;
            }
            if (cells == MOST_CELLS) {
                return Scan.TOO_MANY_CELLS;
            }
            i++;
        }
        row.size(cells);
        rowEnd = i;
        rowLines = lines;
        return Scan.ROW;
    }

    private void rememberDoubled(int cell) {
        if (doubledCount == doubled.length) {
            doubled = Arrays.copyOf(doubled, doubledCount * 2);
        }
        doubled[doubledCount++] = cell;
    }

    private Row finish() {
        for (int d = 0; d < doubledCount; d++) {
            undouble(doubled[d]);
        }
        if (sawNul) {
            row.fault(RowFault.NUL);
        }
        advance(rowEnd, rowLines);
        return row;
    }

    private void advance(int end, int lines) {
        if (in.damagedBefore(consumed + end)) {
            row.fault(RowFault.BYTES_UNREADABLE);
        }
        at = end;
        line += lines;
    }

    // The row's characters are not needed again, so the doubled quotes are taken out in place.
    private void undouble(int cell) {
        int to = row.start(cell);
        for (int from = to; from < row.end(cell); from++) {
            buffer[to++] = buffer[from];
            if (buffer[from] == '"') {
                from++;
            }
        }
        row.end(cell, to);
    }

    private Row tooLong() throws IOException {
        int lineEnd = lineEnd(at);
        if (lineEnd < limit) {
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
        char[] shown = Arrays.copyOfRange(buffer, at, Math.min(limit, at + 100));
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

    private static int lineEndOf(char[] shown) {
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
