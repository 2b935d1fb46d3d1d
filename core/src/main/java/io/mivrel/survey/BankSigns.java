package io.mivrel.survey;

import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Signs;
import io.mivrel.intake.Stated;
import io.mivrel.kinds.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowFilter;
import io.mivrel.text.AmountFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Whose plus the plus of bank lines is: by the running balance, by what the texts say, or by the balances that the file states
 * beside its rows; and whether those are what is owed. For one thread.
 */
final class BankSigns {
    private final BankColumns found;
    private final List<Sample.Kept> rows;
    private final Labels above;
    private final AmountFormat form;
    private final boolean whole;
    private Stated stated = Stated.NOTHING;
    /** True when the stated balances fall by what comes in. */
    private boolean byOwed;

    /** {@code null} when nothing tells. */
    @Nullable
    Signs decided;

    /** What decided the signs, for people; empty when the balance did. */
    String by = "";

    /** Marks of the sides beside the figures. */
    String plusMark = "";

    String minusMark = "";

    BankSigns(BankColumns found, Sample sample, Labels above, AmountFormat form) {
        this.found = found;
        this.rows = sample.data();
        this.above = above;
        this.form = form;
        this.whole = sample.isWhole();
    }

    /** As a layout says it, as long as nothing tells otherwise. */
    Signs asRead() {
        return decided == null ? Signs.AS_WRITTEN : decided;
    }

    /** The balances that the file states beside its rows, to be compared each time. */
    Stated stated() {
        return stated;
    }

    /** Finds it out, once the columns are known. */
    void find(Figures figures) {
        decide(figures);
        labels();
    }

    private void decide(Figures figures) {
        marks();
        long[] amounts = amounts(figures);
        int[] evidence = evidence(amounts);
        Relation relation = found.relation;
        boolean agrees = evidence[0] >= BankColumns.LEAST_EVIDENCE && evidence[0] >= 9 * evidence[1];
        boolean contradicts = evidence[1] >= BankColumns.LEAST_EVIDENCE && evidence[1] >= 9 * evidence[0];
        if (relation != null && !relation.unsigned()) {
            boolean owed = Words.fit("owed", relation.balance().title()) > 0;
            if (relation.other() == null && relation.sign() < 0) {
                againstBalance(relation.balance(), agrees, contradicts, owed);
            } else if (contradicts || owed && !agrees) {
                decided = Signs.ALL_REVERSED;
                by = contradicts ? "the texts say which way the money went" : "the balance is what is owed";
            } else if (agrees || !isDoubtful(relation.balance())) {
                decided = Signs.AS_WRITTEN;
            }
            return;
        }
        if (relation != null) {
            decided = found.sources.containsKey(BankLines.AMOUNT)
                    ? Signs.AS_WRITTEN
                    : relation.newestFirst() ? null : Signs.BY_BALANCE;
            return;
        }
        if (found.chargesProved) {
            decided = Signs.AS_WRITTEN;
            by = "the balance is moved by the amounts less the charges";
            return;
        }
        if (agrees || contradicts) {
            decided = agrees ? Signs.AS_WRITTEN : Signs.REVERSED;
            by = "the texts of " + Math.max(evidence[0], evidence[1]) + " rows say which way the money went";
        }
        byStated(amounts);
    }

    // The balance falls by what is positive: the amounts are reversed, or the balance is what is owed. A layout
    // cannot say the latter, so such a balance is not read.
    private void againstBalance(ColumnSurvey balance, boolean agrees, boolean contradicts, boolean owed) {
        if (agrees) {
            decided = Signs.AS_WRITTEN;
            by = "the texts say which way the money went, and the balance goes the other way: it is not read";
            found.fields.remove(BankLines.BALANCE);
        } else if (contradicts || !owed && !isDoubtful(balance)) {
            decided = Signs.REVERSED;
        }
    }

    private static boolean isDoubtful(ColumnSurvey balance) {
        return !balance.sideMarks().isEmpty();
    }

    // CR means money in, as a bank sees it; where only one side is marked, the other is all the rest.
    private void marks() {
        for (ColumnSurvey column : found.fields.values()) {
            for (String mark : column.sideMarks().keySet()) {
                if (Words.is("minus", mark)) {
                    minusMark = mark;
                } else if (Words.is("plus", mark)) {
                    plusMark = mark;
                }
            }
        }
        ColumnSurvey amount = found.fields.get(BankLines.AMOUNT);
        if (amount != null && !amount.sideMarks().isEmpty() && minusMark.isEmpty() && amount.hasUnmarked()) {
            minusMark = plusMark;
            plusMark = "";
        }
    }

    // The amounts as the layout reads them before any sign is turned.
    private long[] amounts(Figures figures) {
        long[] amounts = new long[rows.size()];
        FieldSource source = found.sources.get(BankLines.AMOUNT);
        for (int i = 0; i < amounts.length; i++) {
            long one = value(figures, BankLines.AMOUNT, i);
            if (source != null && source.columns().size() == 2) {
                long other = figureOf(figures, source.columns().get(1), i);
                one = one == SourceRecord.ABSENT ? other : one;
            }
            if (source != null && source.side() != null && one != SourceRecord.ABSENT) {
                String column = source.side().column();
                ColumnSurvey side = found.columns.stream()
                        .filter(c -> Proposal.column(c).equals(column))
                        .findFirst()
                        .orElseThrow();
                one = source.side().minus().contains(BankColumns.cell(rows.get(i), side)) ? -one : one;
            }
            if (one == SourceRecord.ABSENT) {
                long in = value(figures, BankLines.MONEY_IN, i);
                long out = value(figures, BankLines.MONEY_OUT, i);
                one = in != SourceRecord.ABSENT && in != 0 ? in : out == SourceRecord.ABSENT ? 0 : -out;
            }
            amounts[i] = one;
        }
        return amounts;
    }

    private long value(Figures figures, Field field, int row) {
        ColumnSurvey column = found.fields.get(field);
        return column == null || !figures.columns().contains(column) ? SourceRecord.ABSENT : figures.of(column)[row];
    }

    private long figureOf(Figures figures, String name, int row) {
        return figures.columns().stream()
                .filter(c -> Proposal.column(c).equals(name))
                .findFirst()
                .map(c -> figures.of(c)[row])
                .orElse(SourceRecord.ABSENT);
    }

    // How many texts agree with the signs of their amounts, and how many do not.
    private int[] evidence(long[] amounts) {
        int[] counts = new int[2];
        List<ColumnSurvey> texts = found.columns.stream()
                .filter(c -> Words.fit("text", c.title()) > 0 || c == found.fields.get(BankLines.NARRATIVE))
                .toList();
        for (int i = 0; i < amounts.length; i++) {
            StringBuilder words = new StringBuilder();
            for (ColumnSurvey text : texts) {
                words.append(BankColumns.cell(rows.get(i), text)).append(' ');
            }
            int direction = amounts[i] == 0 ? 0 : Words.direction(words.toString());
            if (direction != 0) {
                counts[direction == Long.signum(amounts[i]) ? 0 : 1]++;
            }
        }
        return counts;
    }

    // The balances before and after, which the file states beside its rows: they decide the signs, or by them it shows
    // whether those balances are what is owed.
    private void byStated(long[] amounts) {
        long opening = above.figure("opening", form);
        long closing = above.figure("closing", form);
        boolean owed = isOwed(labelled("opening")) || isOwed(labelled("closing"));
        if (opening == SourceRecord.ABSENT || closing == SourceRecord.ABSENT) {
            opening = above.figure("opening-owed", form);
            closing = above.figure("closing-owed", form);
            owed = true;
        }
        boolean known = whole && opening != SourceRecord.ABSENT && closing != SourceRecord.ABSENT;
        if (!known || opening == closing) {
            return;
        }
        long sum = 0;
        for (int i = 0; i < amounts.length; i++) {
            sum += isLeftOut(rows.get(i)) ? 0 : amounts[i];
        }
        sum = decided == Signs.REVERSED ? -sum : sum;
        long moved = owed ? opening - closing : closing - opening;
        if (decided == null && Math.abs(sum) == Math.abs(moved)) {
            decided = sum == moved ? Signs.AS_WRITTEN : Signs.REVERSED;
            by = "the stated balances before and after";
        } else if (decided != null && sum == -moved) {
            byOwed = !owed;
        }
    }

    private boolean isLeftOut(Sample.Kept row) {
        for (RowFilter filter : found.filters) {
            for (ColumnSurvey column : found.columns) {
                if (Proposal.column(column).equals(filter.column())
                        && filter.texts().contains(BankColumns.cell(row, column))) {
                    return true;
                }
            }
        }
        return false;
    }
    // Balances that the file states beside its rows, to be compared each time.
    private void labels() {
        boolean turned = decided == Signs.ALL_REVERSED;
        Labels.Labelled opening = labelled("opening");
        Labels.Labelled closing = labelled("closing");
        Labels.Labelled owedOpening = labelled("opening-owed");
        Labels.Labelled owedClosing = labelled("closing-owed");
        if (opening != null || closing != null) {
            boolean owed = turned || isOwed(opening) || isOwed(closing) || byOwed;
            stated = new Stated(label(opening), label(closing), owed);
        } else if (owedOpening != null || owedClosing != null) {
            stated = new Stated(label(owedOpening), label(owedClosing), true);
        }
    }

    private static boolean isOwed(Labels.@Nullable Labelled labelled) {
        return labelled != null && Words.longest("owed", labelled.label().replaceAll("[()\\[\\]]", " ")) > 0;
    }

    private static @Nullable String label(Labels.@Nullable Labelled labelled) {
        return labelled == null ? null : labelled.label();
    }

    private Labels.@Nullable Labelled labelled(String meaning) {
        Labels.Labelled found = above.find(meaning);
        return found == null || Figures.read(found.value(), form) == SourceRecord.ABSENT ? null : found;
    }
}
