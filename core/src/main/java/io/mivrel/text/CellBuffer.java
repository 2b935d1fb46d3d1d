package io.mivrel.text;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** A growing stretch of UTF-8 bytes in which one cell is built. For one thread. */
public final class CellBuffer {
    private byte[] bytes = new byte[256];
    private int length;

    public byte[] bytes() {
        return bytes;
    }

    public int length() {
        return length;
    }

    public CellBuffer clear() {
        length = 0;
        return this;
    }

    /** Cuts it to the given length. */
    void cut(int newLength) {
        length = newLength;
    }

    /** Appends a character that is no surrogate. */
    public CellBuffer append(char c) {
        if (c >= 0x80) {
            return append(String.valueOf(c));
        }
        room(1);
        bytes[length++] = (byte) c;
        return this;
    }

    public CellBuffer append(String text) {
        byte[] encoded = text.getBytes(StandardCharsets.UTF_8);
        return append(encoded, 0, encoded.length);
    }

    public CellBuffer append(byte[] from, int start, int end) {
        int n = end - start;
        room(n);
        Spans.copy(from, start, bytes, length, n);
        length += n;
        return this;
    }

    /** Appends a number of at least {@code width} digits, padded with zeros; the value is not negative. */
    public CellBuffer digits(long value, int width) {
        int count = width;
        for (long v = pow10(width); v <= value && count < 19; v *= 10) {
            count++;
        }
        room(count);
        long rest = value;
        for (int i = length + count - 1; i >= length; i--) {
            bytes[i] = (byte) ('0' + rest % 10);
            rest /= 10;
        }
        length += count;
        return this;
    }

    private static long pow10(int n) {
        long p = 1;
        for (int i = 0; i < n; i++) {
            p *= 10;
        }
        return p;
    }

    /** Makes room behind what stands there and answers the bytes, to be filled and {@link #cut} to length. */
    byte[] room(int more) {
        if (length + more > bytes.length) {
            bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, length + more));
        }
        return bytes;
    }

    @Override
    public String toString() {
        return new String(bytes, 0, length, StandardCharsets.UTF_8);
    }
}
