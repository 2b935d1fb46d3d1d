package io.mivrel.report;

import io.mivrel.books.Account;
import io.mivrel.money.Money;
import io.mivrel.posting.ExportProof;
import io.mivrel.posting.PostingLog;
import io.mivrel.posting.Proof;
import io.mivrel.posting.Proof.AccountLine;
import io.mivrel.posting.Proof.ClosingLine;
import io.mivrel.posting.Proof.Difference;
import java.util.Currency;
import java.util.List;
import java.util.Locale;

/** The arithmetic of a batch, told to a bookkeeper. */
public final class ProofText {
    private static final int NAME = 30;

    private ProofText() {}

    /** In one or two lines, for the end of posting. */
    static void brief(Proof proof, TextPage page) {
        long touched = proof.accounts().stream().filter(ProofText::isTouched).count();
        if (proof.holds()) {
            page.line(
                    "proof",
                    String.format(
                            Locale.ROOT,
                            "%,d of %,d documents are there as sent; on %,d accounts before + batch = after, as the ledger says",
                            proof.references().there(),
                            proof.references().posted(),
                            touched));
        } else {
            page.line(
                    "proof", "does not hold: " + Words.count(proof.differences().size(), "difference"));
            differences(proof.differences(), page);
        }
        for (ClosingLine closing : proof.closings()) {
            page.line("statement", closing(closing));
        }
    }

    private static boolean isTouched(AccountLine line) {
        return line.sent() != 0 || line.landed() != 0;
    }

    private static void differences(List<Difference> differences, TextPage page) {
        for (Difference one : differences) {
            page.alarm("  " + (one.at().isEmpty() ? "" : one.at() + ": ") + one.what()
                    + (one.likely().isEmpty() ? "" : "; probably " + one.likely()));
        }
    }

    private static String closing(ClosingLine line) {
        PostingLog.Closing closing = line.closing();
        Currency currency = closing.balance().currency();
        String start = closing.file() + " closes " + closing.day() + " at "
                + Money.show(closing.balance().minor(), currency) + "; account " + closing.account() + " stands at "
                + Money.show(line.ledger().minor(), currency);
        return line.difference() == 0
                ? start + ": they agree"
                : start + ", " + Money.show(line.difference(), currency) + " apart";
    }

    /** The whole proof. */
    public static String of(Proof proof, String ledger, String company, SummaryText.Style style) {
        TextPage page = new TextPage(style);
        page.title(company + ", proof of \"" + proof.batch().batch().name() + "\" in " + ledger);
        references(proof, page);
        accounts(proof, page);
        result(proof, page);
        closings(proof, page);
        open(proof, page);
        page.blank();
        boolean gone = proof.references().posted() == 0;
        if (proof.holds() && gone) {
            page.strong("Proved: nothing of the batch is left, and before + others = after on every account.");
        } else if (proof.holds() && !proof.agrees()) {
            page.alarm("Proved, but:");
            proof.but().forEach(words -> page.alarm("  " + words));
            page.say(
                    "What the ledger took is there once and as it was sent, and before + batch + others = after on every account.");
        } else if (proof.holds()) {
            page.strong("Proved: everything that was sent is there once and as it was sent, and before + batch + others"
                    + " = after on every account.");
        } else {
            page.alarm("Not proved: " + Words.count(proof.differences().size(), "difference"));
            differences(proof.differences(), page);
        }
        return page.toString();
    }

    /** The proof against what a ledger exported. */
    public static String of(ExportProof proof, String company, SummaryText.Style style) {
        TextPage page = new TextPage(style);
        page.title(company + ", proof against exported books");
        page.line("documents", String.format(Locale.ROOT, "%,d cleared by the run", proof.documents()));
        if (!proof.accounts().isEmpty()) {
            page.blank();
            page.strong(String.format(
                    Locale.ROOT, "%-8s %14s %14s %14s %14s", "account", "before", "batch", "makes", "after"));
        } else {
            page.line("there", String.format(Locale.ROOT, "%,d of them, as they are", proof.there()));
        }
        for (Proof.AccountLine line : proof.accounts()) {
            Currency currency = Currency.getInstance(line.place().currency());
            String text = String.format(
                    Locale.ROOT,
                    "%-8s %14s %14s %14s %14s",
                    line.place().account(),
                    Money.show(line.before(), currency),
                    Money.show(line.sent(), currency),
                    Money.show(line.before() + line.sent(), currency),
                    Money.show(line.after(), currency));
            if (!line.holds()) {
                page.alarm(text + "  does not hold");
            } else if (line.sent() != 0) {
                page.say(text);
            }
        }
        page.blank();
        if (proof.holds()) {
            page.strong(
                    proof.accounts().isEmpty()
                            ? "Proved: every document stands in the list with its amounts."
                            : "Proved: before + batch = after on every account.");
        } else {
            page.alarm("Not proved: " + Words.count(proof.differences().size(), "difference"));
            differences(proof.differences(), page);
        }
        return page.toString();
    }

    private static void references(Proof proof, TextPage page) {
        Proof.References r = proof.references();
        String state = proof.batch().state() == PostingLog.BatchState.WITHDRAWN ? ", withdrawn" : "";
        page.line(
                "batch",
                proof.batch().batch().standing().word() + ", "
                        + proof.batch().batch().day() + state);
        page.line(
                "documents",
                String.format(
                        Locale.ROOT,
                        "%,d posted = %,d there as sent + %,d missing + %,d changed; %,d doubled, %,d foreign",
                        r.posted(),
                        r.there(),
                        r.missing(),
                        r.changed(),
                        r.doubled(),
                        r.foreign()));
    }

    private static void accounts(Proof proof, TextPage page) {
        page.blank();
        page.strong(row("", "account", "before", "batch", "others", "after"));
        long[] sums = new long[4];
        Currency currency = null;
        boolean one = true;
        // Of a batch that is gone, what is left to show is that all is as before.
        boolean gone = proof.references().posted() == 0;
        for (AccountLine line : proof.accounts()) {
            Currency of = Currency.getInstance(line.place().currency());
            one &= currency == null || currency.equals(of);
            currency = of;
            sums[0] += line.before();
            sums[1] += line.landed();
            sums[2] += line.others();
            sums[3] += line.after();
            boolean stays = gone && (line.before() != 0 || line.after() != 0);
            if (isTouched(line) || line.others() != 0 || stays || !line.holds()) {
                Account account = line.account();
                String text = row(
                        line.place().account(),
                        account == null ? "" : account.name(),
                        Money.show(line.before(), of),
                        Money.show(line.landed(), of),
                        Money.show(line.others(), of),
                        Money.show(line.after(), of));
                if (line.holds()) {
                    page.say(text);
                } else {
                    page.alarm(text + "  does not hold");
                }
            }
        }
        if (one && currency != null) {
            page.strong(row(
                    "",
                    "all accounts",
                    Money.show(sums[0], currency),
                    Money.show(sums[1], currency),
                    Money.show(sums[2], currency),
                    Money.show(sums[3], currency)));
        }
    }

    private static String row(String code, String name, String before, String batch, String others, String after) {
        String shown = name.length() > NAME ? name.substring(0, NAME - 3) + "..." : name;
        return String.format(Locale.ROOT, "%-6s %-30s %14s %14s %14s %14s", code, shown, before, batch, others, after);
    }

    private static void result(Proof proof, TextPage page) {
        page.blank();
        for (Money result : proof.results()) {
            long profit = -result.minor();
            page.line(
                    "effect",
                    (profit >= 0 ? "profit up by " : "profit down by ")
                            + Money.show(Math.abs(profit), result.currency())
                            + "; balance sheet accounts by the same, so that all is "
                            + Money.show(0, result.currency()));
        }
    }

    private static void closings(Proof proof, TextPage page) {
        for (ClosingLine line : proof.closings()) {
            Currency currency = line.closing().balance().currency();
            page.line("statement", closing(line));
            if (line.difference() == 0) {
                continue;
            }
            part(
                    page,
                    line.earlier().minor(),
                    currency,
                    "the statement opens with "
                            + Money.show(line.closing().opening().minor(), currency)
                            + ", and the ledger had "
                            + Money.show(
                                    line.closing().opening().minor()
                                            - line.earlier().minor(),
                                    currency)
                            + " on the account before "
                            + line.closing().from());
            part(page, line.notPosted().minor(), currency, "moves on the statement that were not posted from here");
            part(page, -line.others().minor(), currency, "moves in the ledger that did not come from here");
            line.items().forEach(item -> page.say("                    " + item));
        }
    }

    private static void part(TextPage page, long minor, Currency currency, String why) {
        if (minor != 0) {
            page.say(String.format(Locale.ROOT, "          %14s  %s", Money.show(minor, currency), why));
        }
    }

    private static void open(Proof proof, TextPage page) {
        for (Proof.OpenAccount open : proof.open()) {
            page.line(
                    "not nil",
                    open.account().label() + ": "
                            + Money.show(open.left().minor(), open.left().currency()) + " is left on it");
            open.items().forEach(item -> page.say("            " + item));
        }
    }
}
