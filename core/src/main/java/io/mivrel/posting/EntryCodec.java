package io.mivrel.posting;

import io.mivrel.money.Money;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** Entries as bytes: for the digest, for what waits on disk, and for the register. */
public final class EntryCodec {
    /** So many bytes of a SHA-256 are kept: two entries never share them by chance. */
    private static final int DIGEST_BYTES = 16;

    private EntryCodec() {}

    static String digest(
            String key,
            String kind,
            String reference,
            LocalDate date,
            Currency currency,
            String narrative,
            List<EntryLine> lines) {
        try {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream(64 * (lines.size() + 2));
            write(new DataOutputStream(bytes), key, kind, reference, date, currency, narrative, lines);
            MessageDigest sha = MessageDigest.getInstance("SHA-256");
            return HexFormat.of().formatHex(sha.digest(bytes.toByteArray()), 0, DIGEST_BYTES);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (NoSuchAlgorithmException everyJavaHasIt) {
            throw new IllegalStateException(everyJavaHasIt);
        }
    }

    /** Writes an entry with its source. */
    public static void write(DataOutputStream out, SourcedEntry sourced) throws IOException {
        Entry e = sourced.entry();
        write(out, e.key(), e.kind(), e.reference(), e.date(), e.currency(), e.narrative(), e.lines());
        out.writeUTF(e.digest());
        out.writeUTF(sourced.file());
        out.writeInt(sourced.rows().length);
        for (long row : sourced.rows()) {
            out.writeLong(row);
        }
    }

    private static void write(
            DataOutputStream out,
            String key,
            String kind,
            String reference,
            LocalDate date,
            Currency currency,
            String narrative,
            List<EntryLine> lines)
            throws IOException {
        out.writeUTF(key);
        out.writeUTF(kind);
        text(out, reference);
        out.writeLong(date.toEpochDay());
        out.writeUTF(currency.getCurrencyCode());
        text(out, narrative);
        out.writeInt(lines.size());
        for (EntryLine line : lines) {
            text(out, line.account());
            out.writeLong(line.minor());
            text(out, line.narrative());
            code(out, line.taxCode());
            code(out, line.party());
            Money foreign = line.foreign();
            code(out, foreign == null ? null : foreign.currency().getCurrencyCode());
            if (foreign != null) {
                out.writeLong(foreign.minor());
            }
            out.writeInt(line.dimensions().size());
            for (Map.Entry<String, String> dimension : line.dimensions().entrySet()) {
                text(out, dimension.getKey());
                text(out, dimension.getValue());
            }
        }
    }

    // writeUTF takes 64 KB at most, and a cell may hold more.
    private static void text(DataOutputStream out, String text) throws IOException {
        byte[] bytes = text.getBytes(java.nio.charset.StandardCharsets.UTF_8);
        out.writeInt(bytes.length);
        out.write(bytes);
    }

    private static String text(DataInputStream in) throws IOException {
        byte[] bytes = new byte[in.readInt()];
        in.readFully(bytes);
        return new String(bytes, java.nio.charset.StandardCharsets.UTF_8);
    }

    private static void code(DataOutputStream out, @Nullable String code) throws IOException {
        out.writeBoolean(code != null);
        if (code != null) {
            text(out, code);
        }
    }

    private static @Nullable String code(DataInputStream in) throws IOException {
        return in.readBoolean() ? text(in) : null;
    }

    /** Reads what {@link #write} wrote. */
    public static SourcedEntry read(DataInputStream in) throws IOException {
        String key = in.readUTF();
        String kind = in.readUTF();
        String reference = text(in);
        LocalDate date = LocalDate.ofEpochDay(in.readLong());
        Currency currency = Currency.getInstance(in.readUTF());
        String narrative = text(in);
        int count = in.readInt();
        List<EntryLine> lines = new ArrayList<>(count);
        for (int i = 0; i < count; i++) {
            lines.add(line(in));
        }
        String digest = in.readUTF();
        String file = in.readUTF();
        long[] rows = new long[in.readInt()];
        for (int i = 0; i < rows.length; i++) {
            rows[i] = in.readLong();
        }
        return new SourcedEntry(new Entry(key, kind, reference, date, currency, narrative, lines, digest), file, rows);
    }

    private static EntryLine line(DataInputStream in) throws IOException {
        String account = text(in);
        long minor = in.readLong();
        String narrative = text(in);
        String taxCode = code(in);
        String party = code(in);
        String other = code(in);
        Money foreign = other == null ? null : new Money(in.readLong(), Currency.getInstance(other));
        int count = in.readInt();
        Map<String, String> dimensions = new TreeMap<>();
        for (int i = 0; i < count; i++) {
            dimensions.put(text(in), text(in));
        }
        return new EntryLine(account, minor, narrative, taxCode, party, foreign, dimensions);
    }
}
