package io.mivrel.files.bytes;

import io.mivrel.text.Spans;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * The physical lines of a text as spans of UTF-8 bytes, ended by LF, CRLF or CR. A span is valid until the next line is
 * asked for. For one thread.
 */
public final class TextLines implements Closeable {
    /** Longest line that is kept; of a longer one only its beginning is. */
    public static final int LONGEST = 1 << 20;

    private static final int PROBE = 4096;

    private final Utf8Input in;
    private byte[] buffer = new byte[1 << 16];
    private int at;
    private int limit;
    private long consumed;
    private boolean ended;
    private int start;
    private int end;
    private long number;
    private boolean tooLong;
    private boolean damaged;

    private TextLines(Utf8Input in) {
        this.in = in;
    }

    /** Opens a file in an encoding, or {@code auto}. */
    public static TextLines open(Path file, String encoding) throws IOException {
        return of(Files.newInputStream(Readable.check(file)), encoding);
    }

    /** The lines of a stream, which is closed with them. */
    public static TextLines of(InputStream in, String encoding) throws IOException {
        return new TextLines(new Utf8Input(in, encoding));
    }

    /** False when its beginning holds too many control characters for a text. */
    public boolean isText() throws IOException {
        while (limit < PROBE && !ended) {
            refill();
        }
        return Readable.isText(buffer, Math.min(limit, PROBE));
    }

    /** Goes to the next line; false at the end. */
    public boolean next() throws IOException {
        tooLong = false;
        int from = at;
        int scan = at;
        while (true) {
            scan = Spans.lineEnd(buffer, scan, limit);
            boolean lineEnds = scan < limit && (buffer[scan] == '\n' || scan + 1 < limit || ended);
            if (lineEnds || (scan == limit && ended)) {
                break;
            }
            if (scan - from > LONGEST) {
                // Only the beginning is kept, so that memory stays bounded.
                tooLong = true;
                consumed += scan - from - LONGEST;
                System.arraycopy(buffer, scan, buffer, from + LONGEST, limit - scan);
                limit -= scan - from - LONGEST;
                scan = from + LONGEST;
            }
            scan -= at;
            refill();
            scan += at;
            from = at;
        }
        if (scan == from && scan == limit) {
            return false;
        }
        start = from;
        end = scan;
        number++;
        if (scan < limit) {
            boolean pair = buffer[scan] == '\r' && scan + 1 < limit && buffer[scan + 1] == '\n';
            at = scan + (pair ? 2 : 1);
        } else {
            at = scan;
        }
        damaged = in.damagedBefore(consumed + at);
        return true;
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
        int read = in.read(buffer, limit, buffer.length);
        if (read < 0) {
            ended = true;
        } else {
            limit += read;
        }
    }

    public byte[] bytes() {
        return buffer;
    }

    public int start() {
        return start;
    }

    public int end() {
        return end;
    }

    /** Its place in the file, from 1. */
    public long number() {
        return number;
    }

    /** True when only its first {@link #LONGEST} bytes were kept. */
    public boolean isTooLong() {
        return tooLong;
    }

    /** True when it has bytes that are not valid in its encoding. */
    public boolean isDamaged() {
        return damaged;
    }

    public String text() {
        return new String(buffer, start, end - start, StandardCharsets.UTF_8);
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
