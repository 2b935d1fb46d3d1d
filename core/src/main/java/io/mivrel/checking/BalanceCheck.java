package io.mivrel.checking;

import io.mivrel.books.Books;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalBatch;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.Money;
import io.mivrel.model.Origin;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import java.util.List;
import java.util.function.Consumer;

/** Debits must equal credits in the double entry of every document. */
final class BalanceCheck implements Check {
    private final int decimals;

    BalanceCheck(Books books) {
        this.decimals = books.decimals();
    }

    @Override
    public boolean passes(Document document) {
        // The two sides of a bank line are the same amount by construction.
        return document instanceof BankTransaction || document.journal().difference() == 0;
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        if (batch instanceof JournalBatch journals) {
            RecordBlock lines = journals.records();
            for (int i = 0; i < journals.size(); i++) {
                long sum = 0;
                for (int line = journals.from(i); marked[i] && line < journals.to(i); line++) {
                    sum = Math.addExact(sum, lines.number(JournalLines.AMOUNT, line));
                }
                marked[i] &= sum == 0;
            }
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (passes(document)) {
            return;
        }
        Journal journal = document.journal();
        long difference = journal.difference();
        List<JournalLine> lines = journal.lines();
        List<Imbalance.Cause> causes = Imbalance.explain(lines, difference);
        Origin place = causes.isEmpty() || causes.get(0).line() < 0
                ? document.origin()
                : lines.get(causes.get(0).line()).source().origin();
        long debit = lines.stream().mapToLong(JournalLine::debit).sum();
        long credit = lines.stream().mapToLong(JournalLine::credit).sum();
        String side = difference > 0 ? "debits are more by " : "credits are more by ";
        findings.accept(new Finding(
                Rule.JOURNAL_UNBALANCED,
                place,
                "reference",
                journal.reference(),
                "debit " + Money.show(debit, decimals) + ", credit " + Money.show(credit, decimals) + ": " + side
                        + Money.show(Math.abs(difference), decimals),
                Imbalance.words(causes, lines, difference, decimals)));
    }
}
