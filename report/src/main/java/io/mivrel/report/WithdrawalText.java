package io.mivrel.report;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.Poster;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.Proof;

/** What was taken back, and that the balances are as before, told to a bookkeeper. */
public final class WithdrawalText {
    private static final int MOST = 12;

    private WithdrawalText() {}

    /** The whole text. */
    public static String of(
            Poster.Withdrawal withdrawal, Proof proof, String ledger, String company, SummaryText.Style style) {
        TextPage page = new TextPage(style);
        page.title(company + ", withdrawn from " + ledger);
        page.line("batch", proof.batch().batch().name());
        page.line("taken back", Words.count(withdrawal.takenBack(), "document"));
        if (!withdrawal.refused().isEmpty()) {
            page.line("stay", Words.count(withdrawal.refused().size(), "document"));
            withdrawal.refused().stream().limit(MOST).forEach(one -> refused(one, page));
        }
        for (PostingLog.Sent one : withdrawal.notPosted()) {
            page.line("not there", one.reference() + " (" + one.file() + " row " + one.row() + "): " + why(one));
        }
        if (withdrawal.left() > 0) {
            page.line(
                    "left",
                    Words.count(withdrawal.left(), "document")
                            + " of the batch in the ledger, unknown here: look there");
        }
        boolean nil = proof.accounts().stream().allMatch(line -> line.landed() == 0);
        page.line(
                "balances",
                nil
                        ? "as before the batch on all " + proof.accounts().size() + " accounts"
                                + (proof.accounts().stream().anyMatch(line -> line.others() != 0)
                                        ? ", but for what others added since"
                                        : "")
                        : "what stays of the batch is below");
        page.add(ProofText.of(proof, ledger, company, style));
        return page.toString();
    }

    private static String why(PostingLog.Sent one) {
        return switch (one.state()) {
            case POSTED -> "another batch posted it, and takes it back";
            case WITHDRAWN -> "it was taken back before, or replaced";
            case DIFFERS -> "the ledger has another entry under its key, which was not touched";
            case REFUSED -> "the ledger refused it when it was posted";
            case WAITING, INTENDED -> "it never got there";
        };
    }

    private static void refused(Poster.Refused one, TextPage page) {
        Answer answer = one.answer();
        Ledger.Plain plain = one.plain();
        page.say("  " + one.document().reference() + " (" + one.document().file() + " row "
                + one.document().row() + "): " + (plain == null ? "refused" : plain.reason()) + " (the ledger says: "
                + answer.code() + " " + answer.words() + ")");
        if (plain != null) {
            page.say("    -> " + plain.suggestion());
        }
    }
}
