package io.mivrel.posting;

import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.run.ClearDocuments;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Makes entries of the clear documents of a run and keeps them on disk until the run is proved: nothing is sent of a run that
 * reads once more, or fails. For one thread.
 */
public final class EntrySpool implements ClearDocuments, EntrySource, AutoCloseable {
    private static final int BUFFER = 1 << 16;
    /** The digits of a key: no letter looks like another, or like a digit. */
    private static final String DIGITS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";

    private static final int KEY_LENGTH = 13;
    private static final int BITS = 5;

    private final Path file;
    private final Occurrences occurrences = new Occurrences();
    private DataOutputStream out;
    private long count;

    public EntrySpool() throws IOException {
        file = Files.createTempFile("mivrel-", ".entries");
        out = open();
    }

    private DataOutputStream open() throws IOException {
        return new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(file), BUFFER));
    }

    @Override
    public long size() {
        return count;
    }

    @Override
    public void take(Document document, long identity) throws IOException {
        // Only lines without a name of their own can be there twice.
        int nth = document.kind().key() == null ? occurrences.next(identity) : 1;
        Document journal = Objects.requireNonNull(document.journal(), "the plan has no gaps");
        String key = key(identity) + (nth == 1 ? "" : "-" + nth);
        long[] rows = document.records().stream().mapToLong(SourceRecord::row).toArray();
        EntryCodec.write(
                out,
                new SourcedEntry(
                        entry(document, journal, key), document.origin().file(), rows));
        count++;
    }

    /** The key of a document: the digits of its identity. */
    public static String key(long identity) {
        char[] key = new char[KEY_LENGTH];
        long rest = identity;
        for (int i = KEY_LENGTH - 1; i >= 0; i--) {
            key[i] = DIGITS.charAt((int) (rest & (1 << BITS) - 1));
            rest >>>= BITS;
        }
        return new String(key);
    }

    private static Entry entry(Document document, Document journal, String key) {
        List<EntryLine> lines = new ArrayList<>(journal.lines().size());
        for (Line line : journal.lines()) {
            lines.add(line(line));
        }
        Field narrative = document.kind().narrative();
        String text = narrative == null || narrative.level().depth() > 0
                ? null
                : document.heading().text(narrative);
        return Entry.of(
                key,
                document.kind().documents(),
                // What is only named by its place in a file is called by its key, which stays when the place changes.
                document.kind().key() == null ? key : document.reference(),
                Objects.requireNonNull(document.date(), "a clear document has a date"),
                journal.lines().isEmpty()
                        ? document.heading().currency()
                        : journal.lines().get(0).currency(),
                text == null ? "" : text,
                lines);
    }

    private static EntryLine line(Line line) {
        Kind kind = line.kind();
        String account = Objects.requireNonNull(line.account(), "a clear document has accounts");
        Field text = kind.narrative();
        String narrative = text == null ? null : line.text(text);
        Map<String, String> dimensions = new HashMap<>();
        @Nullable Money foreign = null;
        for (Field field : kind.table().fields()) {
            if (field.level() != line.level() || field.derived()) {
                continue;
            }
            if (field.currency() != null && foreign == null) {
                foreign = line.money(field);
            } else if (kind.dimensions().contains(field)) {
                String code = line.text(field);
                if (code != null) {
                    dimensions.put(field.name(), code);
                }
            }
        }
        return new EntryLine(
                account,
                line.minor(),
                narrative == null ? "" : narrative,
                line.taxCode(),
                line.party(),
                foreign,
                dimensions);
    }

    @Override
    public void startOver() throws IOException {
        out.close();
        out = open();
        count = 0;
        occurrences.clear();
    }

    @Override
    public void entries(Target target) throws IOException {
        out.flush();
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file), BUFFER))) {
            for (long i = 0; i < count; i++) {
                target.take(EntryCodec.read(in));
            }
        } catch (EOFException cut) {
            throw new IOException(
                    String.format(Locale.ROOT, "%s: the entries of this run were cut off; nothing more is sent", file),
                    cut);
        }
    }

    @Override
    public void close() throws IOException {
        out.close();
        Files.deleteIfExists(file);
    }
}
