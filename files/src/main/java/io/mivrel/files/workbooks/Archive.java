package io.mivrel.files.workbooks;

import io.mivrel.files.bytes.SafeXml;
import io.mivrel.model.Rule;
import io.mivrel.rows.UnreadableFileException;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Enumeration;
import java.util.HashSet;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;

/**
 * Looks through the archive that a workbook is before anything is made of it: every part is unpacked once and counted,
 * because what an archive says about its sizes need not be true.
 */
final class Archive {
    /** Most parts of an archive. */
    private static final int MOST_PARTS = 10_000;
    /** Most bytes that all parts may unpack to. */
    private static final long MOST_BYTES = 4L << 30;
    /** A part that grows to more than this many times its packed size is no honest one, from {@link #SMALL} on. */
    private static final long MOST_GROWTH = 500;

    private static final long SMALL = 8L << 20;
    /** Most bytes of the parts that must be kept in memory: shared texts and styles. */
    private static final long MOST_KEPT = 128L << 20;

    /** Longest text between two tags; a cell takes 32,767 characters. */
    private static final long LONGEST_TEXT = 1L << 20;

    private final Set<String> names = new HashSet<>();

    private Archive() {}

    static Archive check(Path file) throws IOException {
        Archive archive = new Archive();
        try (ZipFile zip = new ZipFile(file.toFile())) {
            if (zip.size() > MOST_PARTS) {
                throw beyond("the archive has " + zip.size() + " parts");
            }
            long total = 0;
            Enumeration<? extends ZipEntry> entries = zip.entries();
            while (entries.hasMoreElements()) {
                ZipEntry entry = entries.nextElement();
                if (!archive.names.add(entry.getName())) {
                    throw new UnreadableFileException(
                            Rule.FILE_DAMAGED,
                            0,
                            "the archive has two parts '" + entry.getName() + "'",
                            "save it again");
                }
                total += count(zip, entry, total);
            }
        } catch (ZipException | EOFException e) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    0,
                    "the workbook cannot be unpacked: " + e.getMessage(),
                    Rule.FILE_DAMAGED.remedy());
        } catch (IllegalArgumentException e) {
            // A name that is no text.
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED, 0, "the workbook cannot be unpacked", Rule.FILE_DAMAGED.remedy());
        }
        return archive;
    }

    /** Follows the bytes of an XML part: how far its tags stand apart, and that it declares no document type. */
    private static final class Markup {
        private long sinceTag;
        private int tagOpens;
        private boolean endsWithTag;

        void take(byte[] block, int length, String name) throws UnreadableFileException {
            int last = -1;
            for (int i = 0; i < length; i++) {
                byte c = block[i];
                if (c == '<') {
                    last = i;
                } else if (c == '!' || tagOpens > 0) {
                    // '<!D' begins a document type; it may lie across two blocks.
                    tagOpens = c == '!' && (last == i - 1 && last >= 0 || i == 0 && endsWithTag)
                            ? 1
                            : tagOpens == 1 && c == 'D' ? 2 : 0;
                    if (tagOpens == 2) {
                        throw SafeXml.documentType("'" + name + "'");
                    }
                }
            }
            endsWithTag = length > 0 && block[length - 1] == '<';
            sinceTag = last < 0 ? sinceTag + length : length - last;
            if (sinceTag > LONGEST_TEXT) {
                throw beyond("'" + name + "' holds a text of more than " + (LONGEST_TEXT >> 20) + " MB");
            }
        }
    }

    private static long count(ZipFile zip, ZipEntry entry, long before) throws IOException {
        boolean kept = entry.getName().endsWith("sharedStrings.xml")
                || entry.getName().endsWith("styles.xml")
                || entry.getName().endsWith("workbook.xml");
        Markup markup = entry.getName().endsWith(".xml") ? new Markup() : null;
        byte[] block = new byte[1 << 16];
        long size = 0;
        try (InputStream in = zip.getInputStream(entry)) {
            for (int n = in.read(block); n > 0; n = in.read(block)) {
                size += n;
                if (markup != null) {
                    markup.take(block, n, entry.getName());
                }
                if (kept && size > MOST_KEPT) {
                    throw beyond("'" + entry.getName() + "' unpacks to more than " + (MOST_KEPT >> 20) + " MB");
                }
                if (size > SMALL && size > MOST_GROWTH * Math.max(1, entry.getCompressedSize())) {
                    throw beyond("'" + entry.getName() + "' unpacks to more than " + MOST_GROWTH + " times its size");
                }
                if (before + size > MOST_BYTES) {
                    throw beyond("the archive unpacks to more than " + (MOST_BYTES >> 30) + " GB");
                }
            }
        }
        return size;
    }

    private static UnreadableFileException beyond(String what) {
        return new UnreadableFileException(Rule.FILE_BEYOND_CAP, 0, what, Rule.FILE_BEYOND_CAP.remedy());
    }

    boolean has(String name) {
        return names.contains(name);
    }
}
