package io.mivrel.files;

import io.mivrel.delivery.DeliveryForm;
import io.mivrel.delivery.RowWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;

/**
 * Writes separated text by RFC 4180: a cell that holds the separator, a quote or a line end is quoted, and its quotes
 * are doubled. A character that the encoding cannot write is an {@link IOException}, never a question mark. Plain ASCII
 * cells go to the bytes in one pass; all others through an encoder. For one thread.
 */
final class SeparatedWriter implements RowWriter {
    private final OutputStream out;
    private final char separator;
    private final String lineEnd;
    private final boolean quoteAll;
    private final CharsetEncoder encoder;
    private final boolean asciiCompatible;
    private final byte[] bytes = new byte[1 << 16];
    private final boolean[] special = new boolean[128];
    private int length;
    private boolean rowBegun;
    private char[] quoted = new char[256];

    SeparatedWriter(OutputStream out, DeliveryForm form) throws IOException {
        this.out = out;
        this.separator = form.separator();
        this.lineEnd = form.lineEnd();
        this.quoteAll = form.quoteAll();
        Charset charset = Charset.forName(form.encoding());
        this.encoder = charset.newEncoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.asciiCompatible = Encodings.isAsciiCompatible(charset);
        for (char c : new char[] {separator, '"', '\n', '\r'}) {
            special[c] = true;
        }
        if (form.byteOrderMark()) {
            encode(new char[] {'\uFEFF'}, 0, 1);
        }
    }

    @Override
    public void cell(char[] from, int start, int end) throws IOException {
        if (rowBegun) {
            mark(separator);
        }
        rowBegun = true;
        if (quoteAll || !asciiCompatible || !plain(from, start, end)) {
            cellWithCare(from, start, end);
        }
    }

    // The common case in one pass; false, with nothing written, when the cell needs quotes or an encoder.
    private boolean plain(char[] from, int start, int end) throws IOException {
        int size = end - start;
        if (size > bytes.length) {
            return false;
        }
        if (size > bytes.length - length) {
            flush();
        }
        byte[] to = bytes;
        boolean[] careful = special;
        int n = length;
        for (int i = start; i < end; i++) {
            char c = from[i];
            if (c >= careful.length || careful[c]) {
                return false;
            }
            to[n++] = (byte) c;
        }
        length = n;
        return true;
    }

    private void cellWithCare(char[] from, int start, int end) throws IOException {
        if (!quoteAll && !needsQuotes(from, start, end)) {
            put(from, start, end);
            return;
        }
        if (quoted.length < 2 * (end - start) + 2) {
            quoted = new char[2 * (end - start) + 2];
        }
        int n = 0;
        quoted[n++] = '"';
        for (int i = start; i < end; i++) {
            if (from[i] == '"') {
                quoted[n++] = '"';
            }
            quoted[n++] = from[i];
        }
        quoted[n++] = '"';
        put(quoted, 0, n);
    }

    private boolean needsQuotes(char[] from, int start, int end) {
        for (int i = start; i < end; i++) {
            char c = from[i];
            if (c == separator || c == '"' || c == '\n' || c == '\r') {
                return true;
            }
        }
        return false;
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
            encode(new char[] {c}, 0, 1);
        }
    }

    private void put(char[] from, int start, int end) throws IOException {
        if (asciiCompatible && end - start <= bytes.length && isAscii(from, start, end)) {
            if (end - start > bytes.length - length) {
                flush();
            }
            for (int i = start; i < end; i++) {
                bytes[length++] = (byte) from[i];
            }
        } else {
            encode(from, start, end);
        }
    }

    private static boolean isAscii(char[] from, int start, int end) {
        int bits = 0;
        for (int i = start; i < end; i++) {
            bits |= from[i];
        }
        return bits < 128;
    }

    private void encode(char[] from, int start, int end) throws IOException {
        ByteBuffer encoded = encoder.encode(CharBuffer.wrap(from, start, end - start));
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
