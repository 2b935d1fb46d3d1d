package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;

/** A foreign amount beside a home amount has the same sign, and the same figure where its currency is the home currency. */
final class CurrencyCheck implements Check {
    /** A rate that is so many times another is no rate of the same months. */
    private static final BigDecimal MOST = BigDecimal.valueOf(2);

    private static final MathContext SHOWN = new MathContext(6);

    /** The first rate of each currency in this run. */
    private final Map<Currency, BigDecimal> rates = new HashMap<>();

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
            Map<Currency, Long> sums = new LinkedHashMap<>();
            boolean every = true;
            for (Line line : document.lines(field.level())) {
                Money foreign = line.money(field);
                Money home = line.amount();
                every &= foreign != null;
                if (foreign == null || home == null) {
                    continue;
                }
                sums.merge(foreign.currency(), foreign.minor(), Math::addExact);
                if (differs(foreign, home)) {
                    findings.accept(differs(
                            line, field, "stands beside " + home, "correct the sign, the amount or the currency"));
                } else if (!foreign.currency().equals(home.currency()) && foreign.minor() != 0) {
                    compareRate(line, field, foreign, home, findings);
                }
            }
            if (every && sums.size() == 1) {
                sums.forEach((currency, sum) -> balanced(document, field, currency, sum, findings));
            }
        }
    }

    private static void balanced(
            Document document, Field field, Currency currency, long sum, Consumer<Finding> findings) {
        if (sum != 0) {
            findings.accept(new Finding(
                    Rule.JOURNAL_UNBALANCED,
                    document.origin(),
                    field.name(),
                    document.reference(),
                    "its lines are all in " + currency + ", and in that they differ by "
                            + Money.show(Math.abs(sum), currency),
                    "compare the foreign amounts with the source"));
        }
    }

    // Until rates are known, the file's own amounts are all that a rate can be held against.
    private void compareRate(Line line, Field field, Money foreign, Money home, Consumer<Finding> findings) {
        BigDecimal rate =
                decimal(home).divide(decimal(foreign), MathContext.DECIMAL64).abs();
        BigDecimal before = rates.putIfAbsent(foreign.currency(), rate);
        if (before == null) {
            findings.accept(differs(
                            line,
                            field,
                            "stands beside " + home + ", one " + foreign.currency() + " for "
                                    + rate.round(SHOWN).toPlainString()
                                    + "; nothing before it in this run confirms such a rate",
                            "compare it with a rate of the day; the rest of the run is held against it")
                    .asCaution());
            return;
        }
        if (rate.signum() == 0 || before.signum() == 0) {
            return;
        }
        BigDecimal times = rate.divide(before, MathContext.DECIMAL64);
        if (times.compareTo(MOST) > 0 || times.compareTo(BigDecimal.ONE.divide(MOST, MathContext.DECIMAL64)) < 0) {
            findings.accept(differs(
                    line,
                    field,
                    "stands beside " + home + ", one " + foreign.currency() + " for "
                            + rate.round(SHOWN).toPlainString() + ", where the first of this run was for "
                            + before.round(SHOWN).toPlainString(),
                    "one of the two amounts has too many digits or too few: compare both with the source"));
        }
    }

    private static BigDecimal decimal(Money money) {
        return BigDecimal.valueOf(money.minor(), Money.decimals(money.currency()));
    }

    private static Finding differs(Line line, Field field, String reason, String suggestion) {
        return new Finding(
                Rule.FOREIGN_AMOUNT_DIFFERS,
                line.source().origin(),
                field.name(),
                String.valueOf(line.money(field)),
                reason,
                suggestion);
    }

    private static boolean differs(Money foreign, Money home) {
        return foreign.currency().equals(home.currency())
                ? foreign.minor() != home.minor()
                : Long.signum(foreign.minor()) * Long.signum(home.minor()) < 0;
    }
}
