package io.mivrel.files;

import io.mivrel.intake.TextForm;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;

/**
 * Decodes a stream of bytes strictly: a byte-order mark decides the encoding, else the declared one, else UTF-8. Bytes
 * that are nothing in the encoding become U+FFFD and their places are remembered, so that their rows can be held.
 */
final class CharInput implements Closeable {
    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = 0x8080808080808080L;
    private static final char REPLACEMENT = '\uFFFD';

    private final InputStream in;
    private final byte[] bytes = new byte[1 << 16];
    private final ByteBuffer pending = ByteBuffer.wrap(bytes);
    private final CharsetDecoder decoder;
    private final boolean asciiCompatible;
    private final ArrayDeque<Long> damage = new ArrayDeque<>();
    private long charsSoFar;
    private boolean ended;

    CharInput(InputStream in, String encoding) throws IOException {
        this.in = in;
        pending.limit(0);
        fill();
        Charset marked = byteOrderMark();
        Charset charset = marked != null
                ? marked
                : encoding.equals(TextForm.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(encoding);
        this.decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.asciiCompatible = Encodings.isAsciiCompatible(charset);
    }

    private Charset byteOrderMark() {
        if (startsWith(0xEF, 0xBB, 0xBF)) {
            pending.position(3);
            return StandardCharsets.UTF_8;
        }
        if (startsWith(0xFF, 0xFE)) {
            pending.position(2);
            return StandardCharsets.UTF_16LE;
        }
        if (startsWith(0xFE, 0xFF)) {
            pending.position(2);
            return StandardCharsets.UTF_16BE;
        }
        return null;
    }

    private boolean startsWith(int... mark) {
        if (pending.remaining() < mark.length) {
            return false;
        }
        for (int i = 0; i < mark.length; i++) {
            if ((bytes[i] & 0xFF) != mark[i]) {
                return false;
            }
        }
        return true;
    }

    /** Decodes into the target from {@code from} on; answers how many characters came, or -1 at the end. */
    int read(char[] target, int from) throws IOException {
        int at = from;
        while (at == from && from < target.length) {
            if (!pending.hasRemaining() && !fill()) {
                return -1;
            }
            at = decode(target, at);
        }
        charsSoFar += at - from;
        return at - from;
    }

    private int decode(char[] target, int from) throws IOException {
        int at = from;
        if (asciiCompatible) {
            at = widen(target, at);
            if (!pending.hasRemaining() || at == target.length) {
                return at;
            }
        }
        CharBuffer out = CharBuffer.wrap(target, at, target.length - at);
        // Beside a stretch of plain ASCII only a short way is decoded slowly, then the fast way is tried again.
        int limit = pending.limit();
        if (asciiCompatible && pending.remaining() > 64) {
            pending.limit(pending.position() + 64);
        }
        CoderResult result = decoder.decode(pending, out, ended && pending.limit() == limit);
        pending.limit(limit);
        at = out.position();
        if (result.isError()) {
            damage.add(charsSoFar + at - from);
            if (at < target.length) {
                target[at++] = REPLACEMENT;
                pending.position(pending.position() + result.length());
            }
        } else if (at == from && pending.hasRemaining()) {
            cutCharacter(limit);
        }
        return at;
    }

    // The bytes left begin a character whose end has not been read.
    private void cutCharacter(int limit) throws IOException {
        if (!fill() && pending.limit() == limit) {
            damage.add(charsSoFar);
            pending.position(limit);
        }
    }

    // Copies the leading bytes that are plain ASCII.
    @SuppressWarnings("deprecation")
    private int widen(char[] target, int from) {
        int start = pending.position();
        int length = Math.min(pending.remaining(), target.length - from);
        int plain = plainLength(start, start + length) - start;
        if (plain > 0) {
            // By way of a string of single bytes: the platform copies into and out of those many bytes at a time.
            new String(bytes, 0, start, plain).getChars(0, plain, target, from);
        }
        pending.position(start + plain);
        return from + plain;
    }

    // Where the first byte that is not ASCII stands.
    private int plainLength(int start, int end) {
        int i = start;
        while (i + 8 <= end && ((long) EIGHT.get(bytes, i) & HIGHEST) == 0) {
            i += 8;
        }
        while (i < end && bytes[i] >= 0) {
            i++;
        }
        return i;
    }

    /** True when {@link #skipLines} can find line ends among the bytes. */
    boolean canSkipLines() {
        return asciiCompatible;
    }

    /**
     * Passes over so many line ends (CRLF, LF or CR) without decoding, from the first byte that was not yet decoded;
     * answers how many there were, which is less only at the end.
     */
    long skipLines(long want) throws IOException {
        long found = 0;
        while (found < want && (pending.hasRemaining() || fill())) {
            int i = pending.position();
            int limit = pending.limit();
            while (found < want && i < limit) {
                if (i + 8 <= limit) {
                    long ends = lineEnds((long) EIGHT.get(bytes, i));
                    if (ends == 0) {
                        i += 8;
                        continue;
                    }
                    i += Long.numberOfTrailingZeros(ends) >>> 3;
                }
                byte b = bytes[i++];
                if (b == '\n') {
                    found++;
                } else if (b == '\r') {
                    pending.position(i);
                    boolean more = i < limit || fill();
                    i = pending.position();
                    limit = pending.limit();
                    // Of a pair the second one counts.
                    if (!more || bytes[i] != '\n') {
                        found++;
                    }
                }
            }
            pending.position(i);
        }
        return found;
    }

    // Eight bytes at once: a byte that equals a mark becomes nil, and then its highest bit comes up. The lowest bit
    // that
    // is up is always right; those above it need not be.
    private static long lineEnds(long eight) {
        long lf = eight ^ ONES * '\n';
        long cr = eight ^ ONES * '\r';
        return ((lf - ONES) & ~lf | (cr - ONES) & ~cr) & HIGHEST;
    }

    private boolean fill() throws IOException {
        if (ended) {
            return false;
        }
        pending.compact();
        int room = pending.remaining();
        int read = in.readNBytes(bytes, pending.position(), room);
        ended = read < room;
        pending.limit(pending.position() + read);
        pending.position(0);
        return read > 0;
    }

    /** True when an undecodable place lies before the given count of characters; forgets the places up to there. */
    boolean damagedBefore(long chars) {
        boolean found = false;
        while (!damage.isEmpty() && damage.peek() < chars) {
            damage.remove();
            found = true;
        }
        return found;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
