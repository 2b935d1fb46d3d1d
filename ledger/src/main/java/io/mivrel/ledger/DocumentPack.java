package io.mivrel.ledger;

import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.DocumentIdentity.Form;
import io.mivrel.model.SourceFile;
import io.mivrel.text.Hash64;
import io.mivrel.text.Spans;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Some documents of one file in few bytes. Of each: identity; content, unless it is equal; of a line without a name, how it was
 * coded; day and row as differences from
 * the document before; amount; how it is told from others; and its reference, unless that is made of account, day and row.
 * Numbers are written seven bits to a byte, the lowest first, those with a sign zigzag.
 */
final class DocumentPack {
    /** Most documents of a pack. */
    static final int MOST = 4096;

    private static final int NAMED = 0x80;
    /** The figures stand in the place of the content, which follows from them. */
    private static final int FIGURES = 0x40;

    final SourceFile source;
    final long deliveries;
    private final boolean indexed;
    int count;
    long firstDay = Long.MAX_VALUE;
    long lastDay = Long.MIN_VALUE;
    private long day;
    private long row;
    private byte[] bytes = new byte[1 << 14];
    private int length;
    /** At most two to a document. */
    private int[] keys = new int[64];

    private int keyed;

    /** {@code indexed} is true for kinds whose documents are found by {@link PackIndex}, each of them by its keys. */
    DocumentPack(SourceFile source, long deliveries, boolean indexed) {
        this.indexed = indexed;
        this.source = source;
        this.deliveries = deliveries;
    }

    /** Takes what {@link #read} gives. */
    interface Reader {
        /** {@code figures} is 0 when they are not known. */
        void document(
                long identity,
                long figures,
                long content,
                long day,
                long amount,
                Form form,
                long row,
                String reference);
    }

    boolean isOf(SourceFile file, long by) {
        return (source == file || source.equals(file)) && deliveries == by;
    }

    boolean isFull() {
        return count == MOST;
    }

    /** {@code reference} lies in the bytes from {@code from} up to {@code to}; none when they are equal. */
    void add(
            long identity,
            long figures,
            long content,
            long onDay,
            long amount,
            Form form,
            long onRow,
            byte[] reference,
            int from,
            int to) {
        int size = to - from;
        if (bytes.length - length < 64 + size) {
            bytes = Arrays.copyOf(bytes, bytes.length * 2 + size);
        }
        boolean named = identity != content;
        boolean more = named || figures != 0;
        bytes[length++] = (byte) (form.ordinal() | (named ? NAMED : 0) | (more ? FIGURES : 0));
        putLong(identity);
        if (more) {
            putLong(figures);
        }
        putSigned(onDay - day);
        putSigned(onRow - row);
        putSigned(amount);
        put(size);
        System.arraycopy(reference, from, bytes, length, size);
        length += size;
        if (indexed) {
            if (keys.length < keyed + 2) {
                keys = Arrays.copyOf(keys, keys.length * 2);
            }
            keys[keyed++] = PackIndex.key(identity);
            if (figures != 0) {
                keys[keyed++] = PackIndex.key(KnownDocuments.aroundDay(figures, onDay));
            }
        }
        day = onDay;
        row = onRow;
        firstDay = Math.min(firstDay, onDay);
        lastDay = Math.max(lastDay, onDay);
        count++;
    }

    private void putLong(long value) {
        Spans.eight(bytes, length, value);
        length += Long.BYTES;
    }

    private void putSigned(long value) {
        put(value << 1 ^ value >> 63);
    }

    private void put(long value) {
        long rest = value;
        while ((rest & ~0x7FL) != 0) {
            bytes[length++] = (byte) (rest | 0x80);
            rest >>>= 7;
        }
        bytes[length++] = (byte) rest;
    }

    byte[] content() {
        return Arrays.copyOf(bytes, length);
    }

    /** What leads to the documents with a name, for {@link PackIndex}: the first {@link #keyed} numbers. */
    int[] keys() {
        return keys;
    }

    int keyed() {
        return keyed;
    }

    /** Once it was written, only its {@link #keys} are wanted. */
    void forgetContent() {
        bytes = new byte[0];
    }

    static long checksum(byte[] content) {
        return Hash64.of(content, 0, content.length);
    }

    /** Hands out the documents of a pack; a document without a reference of its own is called by its place. */
    static void read(byte[] content, int count, SourceFile source, Reader reader) {
        ByteBuffer in = ByteBuffer.wrap(content).order(ByteOrder.LITTLE_ENDIAN);
        long day = 0;
        long row = 0;
        for (int i = 0; i < count; i++) {
            int mark = in.get();
            Form form = Form.values()[mark & ~(NAMED | FIGURES) & 0xFF];
            long identity = in.getLong();
            boolean named = (mark & NAMED) != 0;
            long second = (mark & (NAMED | FIGURES)) != 0 ? in.getLong() : identity;
            long figures = (mark & FIGURES) != 0 ? second : 0;
            day += getSigned(in);
            row += getSigned(in);
            long amount = getSigned(in);
            byte[] text = new byte[(int) get(in)];
            in.get(text);
            String reference = text.length == 0 ? source.reference(day, row) : new String(text, StandardCharsets.UTF_8);
            long own = !named ? identity : figures == 0 ? second : DocumentIdentity.content(identity, day, figures);
            reader.document(identity, figures, own, day, amount, form, row, reference);
        }
    }

    private static long getSigned(ByteBuffer in) {
        long value = get(in);
        return value >>> 1 ^ -(value & 1);
    }

    private static long get(ByteBuffer in) {
        long value = 0;
        int shift = 0;
        byte next;
        do {
            next = in.get();
            value |= (next & 0x7FL) << shift;
            shift += 7;
        } while (next < 0);
        return value;
    }
}
