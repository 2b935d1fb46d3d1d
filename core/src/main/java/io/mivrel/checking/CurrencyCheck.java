package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.util.function.Consumer;

/** A foreign amount beside a home amount has the same sign, and the same figure where its currency is the home currency. */
final class CurrencyCheck implements Check {
    @Override
    public Columns columns() {
        return CurrencyCheck::unmark;
    }

    private static void unmark(DocumentBlock documents, boolean[] marked) {
        for (Field field : documents.kind().foreignAmounts()) {
            for (int i = 0; i < documents.size(); i++) {
                for (int line = documents.from(i); marked[i] && line < documents.to(i); line++) {
                    marked[i] = documents.records().number(field, line) == SourceRecord.ABSENT;
                }
            }
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        for (Field field : document.kind().foreignAmounts()) {
            for (Line line : document.lines(field.level())) {
                Money foreign = line.money(field);
                if (foreign != null && line.amount() != null && differs(foreign, line.amount())) {
                    findings.accept(new Finding(
                            Rule.FOREIGN_AMOUNT_DIFFERS,
                            line.source().origin(),
                            field.name(),
                            foreign.toString(),
                            "stands beside " + line.amount(),
                            "correct the sign, the amount or the currency"));
                }
            }
        }
    }

    private static boolean differs(Money foreign, Money home) {
        return foreign.currency().equals(home.currency())
                ? foreign.minor() != home.minor()
                : Long.signum(foreign.minor()) * Long.signum(home.minor()) < 0;
    }
}
