package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.money.Money;
import java.util.Currency;
import java.util.List;
import java.util.function.Consumer;

/** Debits must equal credits in the double entry of every document. */
final class BalanceCheck implements Check {
    @Override
    public Columns columns() {
        return BalanceCheck::unmark;
    }

    private static void unmark(DocumentBlock documents, boolean[] marked) {
        if (!documents.kind().isJournal()) {
            // Of one posting, the two sides are the same amount by construction.
            return;
        }
        for (int i = 0; i < documents.size(); i++) {
            long sum = 0;
            for (int line = documents.from(i); marked[i] && line < documents.to(i); line++) {
                sum = Math.addExact(
                        sum, documents.records().number(documents.kind().amount(), line));
            }
            marked[i] &= sum == 0;
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Document journal = document.journal();
        long difference = journal == null ? 0 : journal.difference();
        if (journal == null || difference == 0) {
            return;
        }
        List<Line> lines = journal.lines();
        List<Imbalance.Cause> causes = Imbalance.explain(lines, difference);
        Origin place = causes.isEmpty() || causes.get(0).line() < 0
                ? document.origin()
                : lines.get(causes.get(0).line()).source().origin();
        long debit = lines.stream().mapToLong(line -> Math.max(0, line.minor())).sum();
        Currency currency = journal.heading().currency();
        String side = difference > 0 ? "debits are more by " : "credits are more by ";
        findings.accept(new Finding(
                Rule.JOURNAL_UNBALANCED,
                place,
                "reference",
                journal.reference(),
                "debit " + Money.show(debit, currency) + ", credit " + Money.show(debit - difference, currency) + ": "
                        + side + Money.show(Math.abs(difference), currency),
                Imbalance.words(causes, lines, difference, currency)));
    }
}
