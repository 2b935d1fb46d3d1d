package io.mivrel.files.bytes;

import io.mivrel.rows.FileFormat;
import io.mivrel.text.Spans;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import org.jspecify.annotations.Nullable;

/**
 * Makes UTF-8 of a stream of bytes, strictly: a byte-order mark decides the encoding, else the declared one, else UTF-8.
 * Bytes that are nothing in the encoding become U+FFFD and their places are remembered, so that their rows can be held.
 */
public final class Utf8Input implements Closeable {
    private static final long ONES = 0x0101010101010101L;
    private static final long HIGHEST = 0x8080808080808080L;
    private static final byte[] REPLACEMENT = "\uFFFD".getBytes(StandardCharsets.UTF_8);
    /** Least room that a target must have. */
    public static final int ROOM = 256;

    /** Bytes that are decoded slowly at a time, before the fast way is tried again. */
    private static final int SLICE = 64;

    private final InputStream in;
    private final byte[] bytes = new byte[1 << 16];
    private final ByteBuffer pending = ByteBuffer.wrap(bytes);
    private final CharsetDecoder decoder;
    private final boolean asciiCompatible;
    private final boolean isUtf8;
    private final CharBuffer decoded = CharBuffer.allocate(SLICE);
    private final ArrayDeque<Long> damage = new ArrayDeque<>();
    private long bytesSoFar;
    private long bytesRead;
    private boolean damaged;
    private boolean ended;

    public Utf8Input(InputStream in, String encoding) throws IOException {
        this.in = in;
        pending.limit(0);
        fill();
        Charset marked = byteOrderMark();
        Charset charset = marked != null
                ? marked
                : encoding.equals(FileFormat.AUTO) ? StandardCharsets.UTF_8 : Charset.forName(encoding);
        this.decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.asciiCompatible = Encodings.isAsciiCompatible(charset);
        this.isUtf8 = charset.equals(StandardCharsets.UTF_8);
    }

    private @Nullable Charset byteOrderMark() {
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

    /**
     * Fills the target from {@code from} up to {@code to} at most, which must be {@link #ROOM} away; answers how many bytes
     * came, or -1 at the end.
     */
    public int read(byte[] target, int from, int to) throws IOException {
        int at = from;
        while (at == from) {
            if (!pending.hasRemaining() && asciiCompatible && !ended) {
                at = readPlain(target, at, to);
            }
            if (at == from) {
                if (!pending.hasRemaining() && !fill()) {
                    return -1;
                }
                at = take(target, at, to);
            }
        }
        bytesSoFar += at - from;
        return at - from;
    }

    // Straight into the target; from the first byte that is not ASCII on, all that came is left pending.
    private int readPlain(byte[] target, int from, int to) throws IOException {
        int room = Math.min(to - from, bytes.length);
        int read = in.readNBytes(target, from, room);
        ended = read < room;
        bytesRead += read;
        int end = plainEnd(target, from, from + read);
        System.arraycopy(target, end, bytes, 0, from + read - end);
        pending.limit(from + read - end);
        pending.position(0);
        return end;
    }

    private int take(byte[] target, int from, int to) throws IOException {
        int at = from;
        // A little of what is not ASCII is followed by much that is, so both ways take turns.
        while (to - at >= ROOM && pending.hasRemaining()) {
            int before = pending.position();
            if (asciiCompatible) {
                at = copyPlain(target, at, to);
            }
            if (to - at >= ROOM && pending.hasRemaining()) {
                at = isUtf8 ? copyWide(target, at, from) : transcode(target, at, from);
            }
            if (pending.position() == before) {
                return at == from ? cutCharacter(target, at) : at;
            }
        }
        return at;
    }

    // Copies a character of more than one byte when it is valid; does nothing when its end has not been read yet.
    private int copyWide(byte[] target, int at, int from) {
        int start = pending.position();
        int length = validLength(bytes, start, pending.limit());
        if (length > 0) {
            for (int i = 0; i < length; i++) {
                target[at + i] = bytes[start + i];
            }
            pending.position(start + length);
            return at + length;
        }
        if (length == 0 && !ended) {
            return at;
        }
        // What begins a character at the very end of the file is cut off as a whole.
        return replace(target, at, from, length == 0 ? pending.remaining() : -length);
    }

    // Puts the replacement character in the place of so many bytes.
    private int replace(byte[] target, int at, int from, int unreadable) {
        damage.add(bytesSoFar + at - from);
        damaged = true;
        pending.position(Math.min(pending.limit(), pending.position() + unreadable));
        System.arraycopy(REPLACEMENT, 0, target, at, REPLACEMENT.length);
        return at + REPLACEMENT.length;
    }

    /**
     * The length of the character that begins at a place, by The Unicode Standard, table 3-7; 0 when its end lies beyond
     * the limit; else, negative, the number of bytes that belong to no character.
     */
    private static int validLength(byte[] b, int at, int limit) {
        int first = b[at] & 0xFF;
        if (first < 0x80) {
            return 1;
        }
        if (first < 0xC2 || first > 0xF4) {
            return -1;
        }
        int length = first < 0xE0 ? 2 : first < 0xF0 ? 3 : 4;
        // The second byte has a narrower range after four of the first ones: no overlong forms, surrogates or beyond.
        int least = first == 0xE0 ? 0xA0 : first == 0xF0 ? 0x90 : 0x80;
        int most = first == 0xED ? 0x9F : first == 0xF4 ? 0x8F : 0xBF;
        for (int i = 1; i < length; i++) {
            if (at + i == limit) {
                return 0;
            }
            int next = b[at + i] & 0xFF;
            if (next < least || next > most) {
                return -i;
            }
            least = 0x80;
            most = 0xBF;
        }
        return length;
    }

    // By way of the platform's decoder, a slice at a time.
    private int transcode(byte[] target, int at, int from) {
        int limit = pending.limit();
        pending.limit(Math.min(limit, pending.position() + SLICE));
        decoded.clear();
        CoderResult result = decoder.decode(pending, decoded, ended && pending.limit() == limit);
        pending.limit(limit);
        byte[] encoded = decoded.flip().toString().getBytes(StandardCharsets.UTF_8);
        System.arraycopy(encoded, 0, target, at, encoded.length);
        int end = at + encoded.length;
        return result.isError() ? replace(target, end, from, result.length()) : end;
    }

    // The bytes left begin a character whose end has not been read.
    private int cutCharacter(byte[] target, int at) throws IOException {
        if (fill()) {
            return at;
        }
        return pending.hasRemaining() ? replace(target, at, at, pending.remaining()) : at;
    }

    // Copies the leading bytes that are plain ASCII.
    private int copyPlain(byte[] target, int from, int to) {
        int start = pending.position();
        int length = Math.min(pending.remaining(), to - from);
        int plain = plainEnd(bytes, start, start + length) - start;
        System.arraycopy(bytes, start, target, from, plain);
        pending.position(start + plain);
        return from + plain;
    }

    // Where the first byte that is not ASCII stands.
    private static int plainEnd(byte[] b, int start, int end) {
        int i = start;
        while (i + 8 <= end && (Spans.eight(b, i) & HIGHEST) == 0) {
            i += 8;
        }
        while (i < end && b[i] >= 0) {
            i++;
        }
        return i;
    }

    /** True when every byte that was handed out is one of the file, so that places can be told. */
    public boolean isAsInFile() {
        return isUtf8 && !damaged;
    }

    /** The place in the file of the first byte that was not yet handed out. */
    public long offset() {
        return bytesRead - pending.remaining();
    }

    /** Goes on from a place in the file that is not before {@link #offset}. */
    public void skipTo(long offset) throws IOException {
        long ahead = offset - offset();
        int inMemory = (int) Math.min(ahead, pending.remaining());
        pending.position(pending.position() + inMemory);
        if (ahead > inMemory) {
            in.skipNBytes(ahead - inMemory);
            bytesRead += ahead - inMemory;
        }
    }

    /** True when {@link #skipLines} can find line ends among the bytes. */
    public boolean canSkipLines() {
        return asciiCompatible;
    }

    /**
     * Passes over so many line ends (CRLF, LF or CR) without decoding, from the first byte that was not yet decoded;
     * answers how many there were, which is less only at the end.
     */
    public long skipLines(long want) throws IOException {
        long found = 0;
        while (found < want && (pending.hasRemaining() || fill())) {
            int i = pending.position();
            int limit = pending.limit();
            while (found < want && i < limit) {
                if (i + 8 <= limit) {
                    long ends = lineEnds(Spans.eight(bytes, i));
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
    // that is up is always right; those above it need not be.
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
        bytesRead += read;
        pending.limit(pending.position() + read);
        pending.position(0);
        return read > 0;
    }

    /** True when undecodable places are waiting to be asked for. */
    public boolean hasDamage() {
        return !damage.isEmpty();
    }

    /** True when an undecodable place lies before the given count of bytes handed out; forgets the places up to there. */
    public boolean damagedBefore(long count) {
        boolean found = false;
        while (!damage.isEmpty() && damage.peek() < count) {
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
