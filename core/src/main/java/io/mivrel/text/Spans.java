package io.mivrel.text;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/** Small tests on a stretch of UTF-8 bytes, end exclusive. The bytes are valid: whoever reads files sees to that. */
public final class Spans {
    private static final VarHandle EIGHT = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final long HIGHEST = 0x8080808080808080L;
    private static final long ONES = 0x0101010101010101L;
    private static final long CONTROLS = ONES * ('\r' + 1);

    private Spans() {}

    /** Eight bytes from a place on, the first one lowest. */
    public static long eight(byte[] bytes, int at) {
        return (long) EIGHT.get(bytes, at);
    }

    /** Writes eight bytes at a place, the lowest one first. */
    public static void eight(byte[] bytes, int at, long value) {
        EIGHT.set(bytes, at, value);
    }

    /** Copies bytes; a few of them faster than the platform, and then bytes behind the copy may change too. */
    public static void copy(byte[] from, int start, byte[] to, int at, int length) {
        if (length > 64 || start + 64 > from.length || at + 64 > to.length) {
            System.arraycopy(from, start, to, at, length);
            return;
        }
        for (int i = 0; i < length; i += 8) {
            eight(to, at + i, eight(from, start + i));
        }
    }

    /** The first {@code length} of these bytes, one to eight, with nil in the place of the others. */
    public static long few(byte[] bytes, int at, int length) {
        return at + 8 <= bytes.length ? eight(bytes, at) & -1L >>> 64 - 8 * length : fewAtEnd(bytes, at, length);
    }

    // Apart, as all that is rarely so: the compiler puts a copy of what is asked often wherever that is asked.
    private static long fewAtEnd(byte[] bytes, int at, int length) {
        long few = 0;
        for (int i = length - 1; i >= 0; i--) {
            few = few << 8 | bytes[at + i] & 0xFF;
        }
        return few;
    }

    /** True when two stretches hold the same bytes; for short ones, faster than the platform. */
    public static boolean same(byte[] a, int atA, byte[] b, int atB, int length) {
        int i = 0;
        for (; i + 8 <= length; i += 8) {
            if (eight(a, atA + i) != eight(b, atB + i)) {
                return false;
            }
        }
        return i >= length || few(a, atA + i, length - i) == few(b, atB + i, length - i);
    }

    /** The start after leading blanks: spaces, other white space, and the no-break spaces that spreadsheets leave. */
    public static int trimStart(byte[] bytes, int from, int to) {
        int i = from;
        while (i < to) {
            byte b = bytes[i];
            if (b > ' ') {
                return i;
            }
            int blank = b >= 0 ? 1 : wideBlank(bytes, i, to);
            if (blank == 0) {
                return i;
            }
            i += blank;
        }
        return i;
    }

    /** The end before trailing blanks. */
    public static int trimEnd(byte[] bytes, int from, int to) {
        int i = to;
        while (i > from) {
            byte b = bytes[i - 1];
            if (b > ' ') {
                return i;
            }
            int blank = b >= 0 ? 1 : wideBlankBefore(bytes, from, i);
            if (blank == 0) {
                return i;
            }
            i -= blank;
        }
        return i;
    }

    private static int wideBlankBefore(byte[] bytes, int from, int to) {
        for (int length = 2; length <= 3 && to - length >= from; length++) {
            if (wideBlank(bytes, to - length, to) == length) {
                return length;
            }
        }
        return 0;
    }

    /** How many bytes a blank beyond ASCII takes (U+00A0, U+2007 or U+202F), or 0 when there is none. */
    public static int wideBlank(byte[] bytes, int at, int to) {
        if (bytes[at] == (byte) 0xC2) {
            return at + 1 < to && bytes[at + 1] == (byte) 0xA0 ? 2 : 0;
        }
        boolean general = bytes[at] == (byte) 0xE2 && at + 2 < to && bytes[at + 1] == (byte) 0x80;
        return general && (bytes[at + 2] == (byte) 0xAF || bytes[at + 2] == (byte) 0x87) ? 3 : 0;
    }

    /** True when every byte is an ASCII character. */
    public static boolean isAscii(byte[] bytes, int from, int to) {
        int i = from;
        long bits = 0;
        for (; i + 8 <= to; i += 8) {
            bits |= eight(bytes, i);
        }
        for (; i < to; i++) {
            bits |= bytes[i];
        }
        return (bits & HIGHEST) == 0;
    }

    /** True when every byte is an ASCII character and none is NUL. */
    public static boolean isAsciiWithoutNul(byte[] bytes, int from, int to) {
        int i = from;
        long bits = 0;
        for (; i + 8 <= to; i += 8) {
            long x = eight(bytes, i);
            // One less than nil brings the highest bit up; nothing is borrowed from a byte unless one below it is nil.
            bits |= x | x - ONES;
        }
        for (; i < to; i++) {
            bits |= bytes[i] | bytes[i] - 1;
        }
        return (bits & HIGHEST) == 0;
    }

    /** Where the first of some bytes is that may end a line, LF or CR; {@code to} when there is none. */
    public static int lineEnd(byte[] bytes, int from, int to) {
        int i = from;
        while (i < to) {
            if (i + 8 <= bytes.length) {
                long x = eight(bytes, i);
                long control = (x - CONTROLS) & ~x & HIGHEST;
                if (control == 0) {
                    i += 8;
                    continue;
                }
                i += Long.numberOfTrailingZeros(control) >>> 3;
            }
            if (i < to && (bytes[i] == '\n' || bytes[i] == '\r')) {
                return i;
            }
            i++;
        }
        return to;
    }

    /** How many bytes a character takes when it stands at this place, or 0 when it does not. No surrogates. */
    public static int match(byte[] bytes, int at, int to, char c) {
        if (at >= to) {
            return 0;
        }
        if (c < 0x80) {
            return bytes[at] == c ? 1 : 0;
        }
        if (c < 0x800) {
            boolean there = at + 1 < to && bytes[at] == (byte) (0xC0 | c >> 6) && bytes[at + 1] == tail(c);
            return there ? 2 : 0;
        }
        boolean there = at + 2 < to
                && bytes[at] == (byte) (0xE0 | c >> 12)
                && bytes[at + 1] == tail(c >> 6)
                && bytes[at + 2] == tail(c);
        return there ? 3 : 0;
    }

    private static byte tail(int bits) {
        return (byte) (0x80 | bits & 0x3F);
    }

    /** The character at a place: its code point. */
    public static int codePoint(byte[] bytes, int at) {
        int b = bytes[at];
        if (b >= 0) {
            return b;
        }
        return switch (length((byte) b)) {
            case 2 -> (b & 0x1F) << 6 | bytes[at + 1] & 0x3F;
            case 3 -> (b & 0x0F) << 12 | (bytes[at + 1] & 0x3F) << 6 | bytes[at + 2] & 0x3F;
            default ->
                (b & 0x07) << 18 | (bytes[at + 1] & 0x3F) << 12 | (bytes[at + 2] & 0x3F) << 6 | bytes[at + 3] & 0x3F;
        };
    }

    /** How many bytes a character takes by its first byte. */
    public static int length(byte first) {
        return first >= 0 ? 1 : (first & 0xE0) == 0xC0 ? 2 : (first & 0xF0) == 0xE0 ? 3 : 4;
    }

    /** Where the character begins that ends before a place. */
    public static int before(byte[] bytes, int at) {
        int i = at - 1;
        while ((bytes[i] & 0xC0) == 0x80) {
            i--;
        }
        return i;
    }

    /** True when the bytes are exactly this text; none of its characters is beyond the basic plane. */
    public static boolean equal(byte[] bytes, int from, int to, String text) {
        return endOf(bytes, from, to, text) == to;
    }

    /** True when the bytes begin with this text; none of its characters is beyond the basic plane. */
    public static boolean startsWith(byte[] bytes, int from, int to, String text) {
        return endOf(bytes, from, to, text) >= 0;
    }

    // Where the text ends that stands at the beginning, or -1 when it does not stand there.
    private static int endOf(byte[] bytes, int from, int to, String text) {
        int at = from;
        for (int i = 0; i < text.length(); i++) {
            int matched = match(bytes, at, to, text.charAt(i));
            if (matched == 0) {
                return -1;
            }
            at += matched;
        }
        return at;
    }
}
