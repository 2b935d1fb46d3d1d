package io.mivrel.cells;

import java.util.Arrays;

/** A growing stretch of characters in which one cell is built. For one thread. */
public final class CellBuffer {
    private char[] chars = new char[256];
    private int length;

    public char[] chars() {
        return chars;
    }

    public int length() {
        return length;
    }

    public CellBuffer clear() {
        length = 0;
        return this;
    }

    /** Cuts it to the given length. */
    public void cut(int newLength) {
        length = newLength;
    }

    public CellBuffer append(char c) {
        room(1);
        chars[length++] = c;
        return this;
    }

    public CellBuffer append(String text) {
        int n = text.length();
        room(n);
        text.getChars(0, n, chars, length);
        length += n;
        return this;
    }

    public CellBuffer append(char[] from, int start, int end) {
        int n = end - start;
        room(n);
        System.arraycopy(from, start, chars, length, n);
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
            chars[i] = (char) ('0' + rest % 10);
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

    /** Makes room behind what stands there and answers the characters, to be filled and {@link #cut} to length. */
    char[] room(int more) {
        if (length + more > chars.length) {
            chars = Arrays.copyOf(chars, Math.max(chars.length * 2, length + more));
        }
        return chars;
    }

    @Override
    public String toString() {
        return new String(chars, 0, length);
    }
}
