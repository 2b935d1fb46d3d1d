package io.mivrel.files.lines;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.RowWriter;
import io.mivrel.files.bytes.Encodings;
import io.mivrel.text.Spans;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;

/**
 * Writes separated text by RFC 4180: a cell that holds the separator, a quote or a line end is quoted, and its quotes
 * are doubled. A character that the encoding cannot write is an {@link IOException}, never a question mark. UTF-8 and plain ASCII
 * are copied; all else goes through an encoder. For one thread.
 */
public final class SeparatedWriter implements RowWriter {
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = 0x8080808080808080L;
    private static final long QUOTES = ONES * '"';
    private static final long BLANKS = ONES * ' ';
    private static final long CONTROLS = ONES * ('\r' + 1);

    private final OutputStream out;
    private final char separator;
    private final long separators;
    private final String lineEnd;
    private final boolean quoteAll;
    private final CharsetEncoder encoder;
    private final boolean asciiCompatible;
    private final boolean isUtf8;
    /** The bits of bytes that cannot be written as they are. */
    private final long encoded;

    private final byte[] bytes = new byte[1 << 16];
    private int length;
    private boolean rowBegun;
    private byte[] quoted = new byte[256];

    public SeparatedWriter(OutputStream out, DeliveryFormat form) throws IOException {
        this.out = out;
        this.separator = form.separator();
        this.separators = ONES * separator;
        this.lineEnd = form.lineEnd();
        this.quoteAll = form.quoteAll();
        Charset charset = Charset.forName(form.encoding());
        this.encoder = charset.newEncoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.asciiCompatible = Encodings.isAsciiCompatible(charset);
        this.isUtf8 = charset.equals(StandardCharsets.UTF_8);
        this.encoded = isUtf8 ? 0 : HIGHEST;
        if (form.byteOrderMark()) {
            encode("\uFEFF");
        }
    }

    @Override
    public void cell(byte[] from, int start, int end) throws IOException {
        if (rowBegun) {
            mark(separator);
        }
        rowBegun = true;
        if (!quoteAll && asciiCompatible && plain(from, start, end)) {
            return;
        }
        if (quoteAll || needsQuotes(from, start, end)) {
            putQuoted(from, start, end);
        } else {
            put(from, start, end);
        }
    }

    // The common case in one pass; false, with nothing written, when the cell may need quotes or an encoder.
    private boolean plain(byte[] from, int start, int end) throws IOException {
        int size = end - start;
        if (size + 8 > bytes.length - length) {
            flush();
            if (size + 8 > bytes.length) {
                return false;
            }
        }
        byte[] to = bytes;
        int n = length;
        int i = start;
        for (; i + 8 <= end; i += 8, n += 8) {
            long x = Spans.eight(from, i);
            if (isSpecial(x)) {
                return false;
            }
            Spans.eight(to, n, x);
        }
        int rest = end - i;
        if (rest > 0) {
            long x = Spans.few(from, i, rest);
            // What lies behind the cell is nobody's business: blanks in its place.
            if (isSpecial(x | BLANKS & ~(-1L >>> 64 - 8 * rest))) {
                return false;
            }
            Spans.eight(to, n, x);
            n += rest;
        }
        length = n;
        return true;
    }

    // Eight bytes at once: a byte that equals a mark becomes nil, and then its highest bit comes up.
    private boolean isSpecial(long x) {
        return (special(x) & HIGHEST) != 0;
    }

    private long special(long x) {
        long quote = x ^ QUOTES;
        long sep = x ^ separators;
        return (quote - ONES) & ~quote | (sep - ONES) & ~sep | (x - CONTROLS) & ~x | x & encoded;
    }

    private boolean needsQuotes(byte[] from, int start, int end) {
        for (int i = start; i < end; i++) {
            byte c = from[i];
            if (c == separator || c == '"' || c == '\n' || c == '\r') {
                return true;
            }
        }
        return false;
    }

    private void putQuoted(byte[] from, int start, int end) throws IOException {
        if (quoted.length < 2 * (end - start) + 2) {
            quoted = new byte[2 * (end - start) + 2];
        }
        put(quoted, 0, putQuoted(from, start, end, quoted, 0));
    }

    // Writes a cell in quotes at a place that has room for two bytes and twice the cell; answers the place behind it.
    private static int putQuoted(byte[] from, int start, int end, byte[] to, int at) {
        int n = at;
        to[n++] = '"';
        for (int i = start; i < end; i++) {
            if (from[i] == '"') {
                to[n++] = '"';
            }
            to[n++] = from[i];
        }
        to[n++] = '"';
        return n;
    }

    @Override
    public void line(String text) throws IOException {
        byte[] whole = text.getBytes(StandardCharsets.UTF_8);
        put(whole, 0, whole.length);
        endRow();
    }

    @Override
    public void endRow() throws IOException {
        for (int i = 0; i < lineEnd.length(); i++) {
            mark(lineEnd.charAt(i));
        }
        rowBegun = false;
    }

    private void mark(char c) throws IOException {
        if (asciiCompatible) {
            if (length == bytes.length) {
                flush();
            }
            bytes[length++] = (byte) c;
        } else {
            encode(String.valueOf(c));
        }
    }

    private void put(byte[] from, int start, int end) throws IOException {
        int size = end - start;
        if (size > bytes.length || !isUtf8 && !(asciiCompatible && Spans.isAscii(from, start, end))) {
            encode(new String(from, start, size, StandardCharsets.UTF_8));
            return;
        }
        if (size > bytes.length - length) {
            flush();
        }
        System.arraycopy(from, start, bytes, length, size);
        length += size;
    }

    private void encode(String text) throws IOException {
        ByteBuffer encoded = encoder.encode(CharBuffer.wrap(text));
        flush();
        out.write(encoded.array(), encoded.arrayOffset(), encoded.remaining());
    }

    private void flush() throws IOException {
        out.write(bytes, 0, length);
        length = 0;
    }

    @Override
    public void close() throws IOException {
        try (out) {
            flush();
        }
    }
}
