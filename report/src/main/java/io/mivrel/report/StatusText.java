package io.mivrel.report;

import io.mivrel.money.Money;
import io.mivrel.posting.Answer;
import io.mivrel.posting.PostingLog;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Where the documents stand that were sent to a ledger, batch by batch. */
public final class StatusText {
    private final TextPage page;
    private boolean open;
    private boolean any;

    public StatusText(String ledger, String company, SummaryText.Style style) {
        page = new TextPage(style);
        page.title(company + ", what was sent to " + ledger);
    }

    /** True when a batch was cut off, or a document of it is refused, different or waiting. */
    public boolean isOpen() {
        return open;
    }

    /** Adds a batch with its counts, how many of its documents are open, and the documents to list. */
    public void batch(
            PostingLog.Noted batch,
            Map<PostingLog.State, Long> counts,
            long openOnes,
            List<PostingLog.Sent> documents) {
        any = true;
        StringBuilder words = new StringBuilder();
        counts.forEach((of, count) -> words.append(words.isEmpty() ? "" : ", ")
                .append(String.format(Locale.ROOT, "%,d %s", count, of.word())));
        page.strong(batch.batch().name() + "   " + standing(batch));
        page.say("  " + words);
        for (PostingLog.Sent sent : documents) {
            document(sent);
        }
        open |= batch.state() == PostingLog.BatchState.OPEN || openOnes > 0;
        page.blank();
    }

    /** Batches to choose from, a line for each. */
    public static List<String> batches(List<PostingLog.Noted> batches) {
        int width =
                batches.stream().mapToInt(b -> b.batch().name().length()).max().orElse(1);
        return batches.stream()
                .map(b -> String.format(
                        Locale.ROOT,
                        "%-" + width + "s   %-9s   of the run '%s'",
                        b.batch().name(),
                        standing(b),
                        b.run()))
                .toList();
    }

    private static String standing(PostingLog.Noted batch) {
        return batch.state() == PostingLog.BatchState.ENDED
                ? batch.batch().standing().word()
                : batch.state() == PostingLog.BatchState.OPEN ? "cut off" : "withdrawn";
    }

    private void document(PostingLog.Sent sent) {
        Answer answer = sent.answer();
        String said = answer == null || answer.code() == null
                ? ""
                : "   the ledger says: " + answer.code() + " " + answer.words();
        page.say(String.format(
                Locale.ROOT,
                "    %-9s %-18s %s %14s   %s row %d%s",
                sent.state().word(),
                sent.reference(),
                sent.day(),
                Money.show(sent.amount().minor(), sent.amount().currency()),
                sent.file(),
                sent.row(),
                said));
    }

    /** The whole text. */
    public String end() {
        return any ? page.toString() : page.say("nothing yet").toString();
    }
}
