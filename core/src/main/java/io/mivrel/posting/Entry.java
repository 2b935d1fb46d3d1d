package io.mivrel.posting;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Objects;

/**
 * A document as a ledger takes it: the journal it amounts to, under the key by which it is known on both sides. Immutable.
 *
 * @param key external reference: one document has the same from run to run, and no other has it; letters, digits, hyphens
 * @param kind what it was, such as {@code journals} or {@code bank transactions}
 * @param reference its own number, for people
 * @param date posting date
 * @param currency of the amounts of its lines
 * @param narrative what it is about; empty for nothing
 * @param lines at least one; their sum is nil unless the document is wrong
 * @param digest of everything above: two entries with the same digest say the same
 */
public record Entry(
        String key,
        String kind,
        String reference,
        LocalDate date,
        Currency currency,
        String narrative,
        List<EntryLine> lines,
        String digest) {
    public Entry {
        Objects.requireNonNull(key, "key");
        Objects.requireNonNull(date, "date");
        lines = List.copyOf(lines);
    }

    /** Makes an entry with its digest. */
    public static Entry of(
            String key,
            String kind,
            String reference,
            LocalDate date,
            Currency currency,
            String narrative,
            List<EntryLine> lines) {
        String digest = EntryCodec.digest(key, kind, reference, date, currency, narrative, lines);
        return new Entry(key, kind, reference, date, currency, narrative, lines, digest);
    }

    /** True when the digest is that of the content: it was not changed on the way. */
    public boolean isWhole() {
        return digest.equals(EntryCodec.digest(key, kind, reference, date, currency, narrative, lines));
    }

    /** The sum of its debits in minor units. */
    public long debit() {
        long sum = 0;
        for (EntryLine line : lines) {
            sum = Math.addExact(sum, Math.max(0, line.minor()));
        }
        return sum;
    }

    /** The sum of its lines; nil when it balances. */
    public long difference() {
        long sum = 0;
        for (EntryLine line : lines) {
            sum = Math.addExact(sum, line.minor());
        }
        return sum;
    }

    /** Its kind, number and date, for people. */
    public String title() {
        return kind + " " + reference + " of " + date;
    }
}
