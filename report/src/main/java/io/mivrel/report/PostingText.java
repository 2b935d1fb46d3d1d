package io.mivrel.report;

import de.siegmar.fastcsv.writer.CsvWriter;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.money.Money;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.PostingReport;
import io.mivrel.posting.Proof;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** What came of posting, told to a bookkeeper: the counts, the proof, and what the ledger refused, next to its row. */
public final class PostingText {
    private final RunReport report;
    private final PostingReport posting;
    private final TextPage page;

    /**
     * Further facts.
     *
     * @param settled documents of an earlier attempt that was cut off, found in the ledger
     * @param parties customers and suppliers that were created, or would be
     */
    public record Details(long settled, int parties) {}

    private PostingText(RunReport report, PostingReport posting, TextPage page) {
        this.report = report;
        this.posting = posting;
        this.page = page;
    }

    /** The whole text. {@code places} are lines that say where the evidence lies. */
    public static String of(
            RunReport report,
            PostingReport posting,
            @Nullable Proof proof,
            String ledger,
            Details details,
            List<String> places,
            SummaryText.Style style) {
        TextPage page = new TextPage(style);
        PostingText text = new PostingText(report, posting, page);
        text.figures(ledger, details);
        if (proof != null) {
            ProofText.brief(proof, page);
        }
        page.add(SummaryText.problems(report, style));
        if (posting.isRehearsal()) {
            page.blank().say("nothing was sent but the question; to post: the same without --dry-run");
        } else if (!places.isEmpty()) {
            page.blank();
            places.forEach(page::say);
        }
        return page.toString();
    }

    /** Only the figures and the proof. */
    public static String figures(
            RunReport report,
            PostingReport posting,
            @Nullable Proof proof,
            String ledger,
            Details details,
            SummaryText.Style style) {
        TextPage page = new TextPage(style);
        new PostingText(report, posting, page).figures(ledger, details);
        if (proof != null) {
            ProofText.brief(proof, page);
        }
        return page.toString();
    }

    private void figures(String ledger, Details details) {
        boolean rehearsal = posting.isRehearsal();
        page.title(report.company() + ", " + report.name() + " to " + ledger + ", as "
                + posting.batch().standing().word() + (rehearsal ? "   (asked only, nothing posted)" : ""));
        page.line(
                "read",
                Words.count(report.rowsRead(), "row") + " in "
                        + Words.count(report.files().size(), "file"));
        long clear = report.clear().documents();
        page.line(
                "clear",
                documents(clear)
                        + (report.held().documents() == 0
                                ? ""
                                : "; " + documents(report.held().documents()) + " held before sending"));
        if (details.settled() > 0) {
            page.line(
                    "found",
                    documents(details.settled())
                            + " of an attempt that was cut off: the ledger was asked and has them");
        }
        if (details.parties() > 0) {
            page.line(
                    rehearsal ? "to create" : "created",
                    details.parties() == 1 ? "1 customer or supplier" : details.parties() + " customers and suppliers");
        }
        String kinds = ways(Result.ADDED, "added", Result.REPLACED, "replaced", Result.THERE, "there already");
        page.line(rehearsal ? "would post" : "posted", documents(posting.posted()) + kinds + amounts());
        if (posting.count(Result.REFUSED) > 0) {
            page.line("refused", documents(posting.count(Result.REFUSED)));
        }
        if (posting.count(Result.DIFFERS) > 0) {
            page.line(
                    "differ",
                    documents(posting.count(Result.DIFFERS)) + ": there with other content, left as they are there");
        }
        if (posting.count(Result.SKIPPED) > 0) {
            page.line("skipped", documents(posting.count(Result.SKIPPED)) + ": there with other content");
        }
        page.line("accounted", accounted(clear));
        if (!rehearsal && posting.sent() > 0) {
            page.line("batch", posting.batch().name());
        }
    }

    private String accounted(long clear) {
        StringBuilder parts = new StringBuilder(String.format(
                Locale.ROOT,
                "%,d clear = %,d %s",
                clear,
                posting.posted(),
                posting.isRehearsal() ? "to post" : "posted"));
        part(parts, posting.held(), "not taken");
        part(parts, posting.count(Result.SKIPPED), "skipped");
        part(parts, posting.postedBefore(), "posted before");
        part(parts, posting.beyondPilot(), "beyond the pilot");
        return parts.toString();
    }

    private static void part(StringBuilder parts, long count, String what) {
        if (count > 0) {
            parts.append(String.format(Locale.ROOT, " + %,d %s", count, what));
        }
    }

    private static String documents(long count) {
        return Words.count(count, "document");
    }

    private String ways(Object... resultsAndWords) {
        StringBuilder words = new StringBuilder();
        for (int i = 0; i < resultsAndWords.length; i += 2) {
            long count = posting.count((Result) resultsAndWords[i]);
            if (count > 0) {
                words.append(words.isEmpty() ? ": " : ", ")
                        .append(String.format(Locale.ROOT, "%,d ", count))
                        .append(resultsAndWords[i + 1]);
            }
        }
        return words.toString();
    }

    private String amounts() {
        Map<String, Long> debits = new TreeMap<>();
        for (Map.Entry<BalanceChanges.Place, BalanceChanges.Sides> side :
                posting.effect().sides().entrySet()) {
            debits.merge(side.getKey().currency(), side.getValue().debit(), Math::addExact);
        }
        Map<String, Long> off = new TreeMap<>();
        posting.takenOff()
                .sides()
                .forEach((place, sides) -> off.merge(place.currency(), sides.debit(), Math::addExact));
        StringBuilder words = new StringBuilder();
        debits.forEach((currency, debit) -> {
            java.util.Currency in = java.util.Currency.getInstance(currency);
            long taken = off.getOrDefault(currency, 0L);
            words.append("   debit and credit ").append(Money.show(debit + taken, in));
            words.append(taken == 0 ? "" : ", in the place of " + Money.show(taken, in));
        });
        return words.toString();
    }

    /** A document that the ledger did not take, as a finding next to its row. */
    public static Finding finding(PostingReport.NotTaken one) {
        Entry sent = one.sent().entry();
        Answer answer = one.answer();
        Origin origin = Origin.of(one.sent().file(), one.sent().row());
        if (answer.result() == Result.DIFFERS) {
            return new Finding(
                    Rule.LEDGER_DIFFERS,
                    origin,
                    "",
                    sent.reference(),
                    sideBySide(sent, one.there()),
                    Rule.LEDGER_DIFFERS.remedy());
        }
        Ledger.Plain plain = one.plain();
        String own = answer.code() == null
                ? ""
                : " (the ledger says: " + answer.code()
                        + (answer.words() == null || answer.words().isEmpty() ? "" : " " + answer.words())
                        + (answer.line() > 0 ? ", line " + answer.line() : "") + ")";
        String reason = plain == null ? "the ledger refused it" : plain.reason();
        return new Finding(
                Rule.LEDGER_REFUSED,
                origin,
                "",
                sent.reference(),
                reason + own,
                plain == null ? Rule.LEDGER_REFUSED.remedy() : plain.suggestion());
    }

    private static String sideBySide(Entry sent, @Nullable Entry there) {
        if (there == null) {
            return "the ledger has it with other content";
        }
        return "the ledger has it with other content: here " + shown(sent) + "; there " + shown(there);
    }

    private static String shown(Entry entry) {
        StringBuilder text = new StringBuilder(entry.date().toString());
        for (EntryLine line : entry.lines()) {
            text.append(", ").append(line.account()).append(' ').append(Money.show(line.minor(), entry.currency()));
        }
        return entry.narrative().isEmpty() ? text.toString() : text + " \"" + entry.narrative() + "\"";
    }

    /** Writes the documents of a batch, each with its state, for the evidence. */
    public static void documents(Path file, PostingLog log, String batch) throws IOException {
        try (CsvWriter csv = CsvWriter.builder().build(file)) {
            csv.writeRecord(
                    "key",
                    "kind",
                    "reference",
                    "date",
                    "amount",
                    "currency",
                    "state",
                    "result",
                    "ledger number",
                    "ledger code",
                    "file",
                    "row",
                    "digest");
            log.documents(
                    batch,
                    sent -> csv.writeRecord(
                            sent.key(),
                            sent.kind(),
                            SpreadsheetText.of(sent.reference()),
                            sent.day().toString(),
                            Money.show(sent.amount().minor(), sent.amount().currency())
                                    .replace(",", ""),
                            sent.amount().currency().getCurrencyCode(),
                            sent.state().word(),
                            sent.answer() == null
                                    ? ""
                                    : sent.answer().result().name().toLowerCase(Locale.ROOT),
                            sent.answer() == null || sent.answer().number() == null
                                    ? ""
                                    : sent.answer().number(),
                            sent.answer() == null || sent.answer().code() == null
                                    ? ""
                                    : sent.answer().code(),
                            sent.file(),
                            Long.toString(sent.row()),
                            sent.digest()));
        }
    }
}
