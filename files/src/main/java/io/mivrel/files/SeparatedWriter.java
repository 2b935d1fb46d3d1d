package io.mivrel.files;

import io.mivrel.delivery.DeliveryForm;
import io.mivrel.delivery.RowWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;

/**
 * Writes separated text by RFC 4180: a cell that holds the separator, a quote or a line end is quoted, and its quotes
 * are doubled. A character that the encoding cannot write is an {@link IOException}, never a question mark. For one
 * thread.
 */
final class SeparatedWriter implements RowWriter {
    private final OutputStream out;
    private final char separator;
    private final String lineEnd;
    private final boolean quoteAll;
    private final CharsetEncoder encoder;
    private final boolean asciiCompatible;
    private final char[] chars = new char[1 << 15];
    private final byte[] bytes = new byte[1 << 17];
    private int length;
    private boolean rowBegun;

    SeparatedWriter(OutputStream out, DeliveryForm form) {
        this.out = out;
        this.separator = form.separator();
        this.lineEnd = form.lineEnd();
        this.quoteAll = form.quoteAll();
        Charset charset = Charset.forName(form.encoding());
        this.encoder = charset.newEncoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.asciiCompatible = Encodings.isAsciiCompatible(charset);
        if (form.byteOrderMark()) {
            chars[length++] = '\uFEFF';
        }
    }

    @Override
    public void cell(char[] from, int start, int end) throws IOException {
        if (rowBegun) {
            put(separator);
        }
        rowBegun = true;
        if (quoteAll || needsQuotes(from, start, end)) {
            quoted(from, start, end);
        } else {
            copy(from, start, end);
        }
    }

    private void quoted(char[] from, int start, int end) throws IOException {
        put('"');
        int at = start;
        while (at < end) {
            // Room for the piece even if every character of it is a quote.
            int step = Math.min(end - at, chars.length / 4);
            if (chars.length - length < 2 * step) {
                flush(false);
            }
            char[] to = chars;
            int n = length;
            for (int i = at; i < at + step; i++) {
                char c = from[i];
                if (c == '"') {
                    to[n++] = '"';
                }
                to[n++] = c;
            }
            length = n;
            at += step;
        }
        put('"');
    }

    private boolean needsQuotes(char[] from, int start, int end) {
        char sep = separator;
        for (int i = start; i < end; i++) {
            char c = from[i];
            if (c == sep || c == '"' || c == '\n' || c == '\r') {
                return true;
            }
        }
        return false;
    }

    @Override
    public void endRow() throws IOException {
        for (int i = 0; i < lineEnd.length(); i++) {
            put(lineEnd.charAt(i));
        }
        rowBegun = false;
    }

    private void put(char c) throws IOException {
        if (length == chars.length) {
            flush(false);
        }
        chars[length++] = c;
    }

    private void copy(char[] from, int start, int end) throws IOException {
        int at = start;
        while (at < end) {
            if (length == chars.length) {
                flush(false);
            }
            int step = Math.min(end - at, chars.length - length);
            System.arraycopy(from, at, chars, length, step);
            length += step;
            at += step;
        }
    }

    private void flush(boolean last) throws IOException {
        int narrowed = asciiCompatible ? narrow() : 0;
        if (narrowed == length) {
            out.write(bytes, 0, length);
            length = 0;
            return;
        }
        CharBuffer in = CharBuffer.wrap(chars, 0, length);
        ByteBuffer encoded = ByteBuffer.wrap(bytes);
        CoderResult result;
        do {
            encoded.clear();
            result = encoder.encode(in, encoded, last);
            out.write(bytes, 0, encoded.position());
        } while (result.isOverflow());
        if (result.isError()) {
            throw new CharacterCodingException();
        }
        // Half a pair of surrogates waits for the other half.
        length = in.remaining();
        in.get(chars, 0, length);
    }

    // Plain ASCII needs no encoder; both loops are vectorised by the compiler.
    private int narrow() {
        int bits = 0;
        for (int i = 0; i < length; i++) {
            bits |= chars[i];
        }
        if (bits >= 128) {
            return 0;
        }
        for (int i = 0; i < length; i++) {
            bytes[i] = (byte) chars[i];
        }
        return length;
    }

    @Override
    public void close() throws IOException {
        try (out) {
            flush(true);
        }
    }
}
