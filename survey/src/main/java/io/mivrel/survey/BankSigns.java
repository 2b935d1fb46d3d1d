package io.mivrel.survey;

import io.mivrel.kinds.BankLines;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.Signs;
import io.mivrel.model.Field;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowOrder;
import io.mivrel.survey.BesideFigures.Role;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Whose plus the plus of bank lines is. Balances and stated figures prove it; a title or heading that says so is told as what
 * it is; texts of rows choose no more than the default of a question. For one thread.
 */
final class BankSigns {
    private final BankColumns found;
    private final List<Sample.Kept> rows;
    private final Collection<Sample.Kept> around;
    private final AmountFormat form;
    private final boolean whole;

    /** What a person says; {@code null} for nothing. */
    @Nullable
    Signs said;

    /** {@code null} when nothing tells. */
    @Nullable
    Signs decided;

    /** What says so where arithmetic does not; empty when it does. */
    String told = "";

    /** The answers that are left open, the likelier first, each with what a row means then. */
    final List<String> open = new ArrayList<>();

    private Signs likely = Signs.AS_WRITTEN;
    private long[] amounts = new long[0];

    /** Marks of the sides beside the figures. */
    String plusMark = "";

    String minusMark = "";

    BankSigns(BankColumns found, Sample sample, Collection<Sample.Kept> around, AmountFormat form) {
        this.found = found;
        this.rows = sample.data();
        this.around = around;
        this.form = form;
        this.whole = sample.isWhole();
    }

    /** As a layout says it, as long as nothing tells otherwise. */
    Signs asRead() {
        return decided == null ? likely : decided;
    }

    /** The figures beside the rows, to be compared each time. */
    FigureLabels stated() {
        return found.beside.stated(asRead().turnsBalances() || found.relation == null && found.beside.owed());
    }

    /** Finds it out, once the columns are known. */
    void find() {
        marks();
        amounts = found.amounts;
        decide();
        if (decided == null) {
            ask();
        }
        decided = said == null ? decided : said;
        explain();
    }

    private void decide() {
        Relation relation = found.relation;
        if (relation != null) {
            byBalance(relation);
            return;
        }
        byStated();
        if (decided == null) {
            byTitles();
        }
    }

    // Amounts whose balance is proved are as written; what is owed turns both, and such balances turn alone where the
    // amounts go
    // against them.
    private void byBalance(Relation relation) {
        String owed = owed(relation.moves().balance());
        if (relation.unsigned()) {
            decided = relation.order() == RowOrder.OLDEST_FIRST ? Signs.BY_BALANCE : null;
        } else if (found.fields.containsKey(BankLines.AMOUNT) && relation.sign() < 0) {
            int[] evidence = evidence();
            Signs reversed = evidence[0] > evidence[1] ? null : Signs.REVERSED;
            decided = owed.isEmpty() ? reversed : Signs.BALANCE_REVERSED;
            told = owed;
        } else {
            boolean crIsPlus = plusMark.isEmpty() && !minusMark.isEmpty() && TradeWords.is("plus", minusMark);
            owed = owed.isEmpty() && isTitled(BankLines.MONEY_IN, "charged", "out")
                    ? "the balance rises by what goes out, so it is what is owed"
                    : owed;
            decided = owed.isEmpty() && !crIsPlus ? Signs.AS_WRITTEN : Signs.ALL_REVERSED;
            told = crIsPlus ? "'" + minusMark + "' stands beside what comes in" : owed;
        }
    }

    private boolean isTitled(Field field, String meaning, String other) {
        ColumnSurvey column = found.fields.get(field);
        return column != null
                && (TradeWords.fit(meaning, column.title()) > 0 || TradeWords.fit(other, column.title()) > 0);
    }

    private String owed(ColumnSurvey balance) {
        return TradeWords.fit("owed", balance.title()) > 0
                ? "'" + balance.title() + "' is what is owed"
                : found.beside.owed() ? "the file says that its balances are what is owed" : "";
    }

    // CR means money in, as a bank sees it; where only one side is marked, the other is all the rest.
    private void marks() {
        for (ColumnSurvey column : found.fields.values()) {
            for (String mark : column.sideMarks().keySet()) {
                if (TradeWords.is("minus", mark)) {
                    minusMark = mark;
                } else if (TradeWords.is("plus", mark)) {
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

    // The balances before and after, or the sums of both sides, that the file states beside its rows.
    private void byStated() {
        if (!whole) {
            return;
        }
        if (agreesWithStated(amounts)) {
            decided = Signs.AS_WRITTEN;
        } else if (agreesWithStated(turned(amounts))) {
            decided = Signs.REVERSED;
        }
    }

    /** True when amounts, as the books see them, come to what the file states: its balances, or the sum of a side. */
    boolean agreesWithStated(long[] signed) {
        long opening = found.beside.value(Role.OPENING);
        long closing = found.beside.value(Role.CLOSING);
        long in = 0;
        long out = 0;
        for (int i = 0; i < signed.length; i++) {
            if (signed[i] != SourceRecord.ABSENT && !isLeftOut(rows.get(i))) {
                in += Math.max(signed[i], 0);
                out += Math.max(-signed[i], 0);
            }
        }
        boolean owed = found.beside.owed();
        if (opening != SourceRecord.ABSENT && closing != SourceRecord.ABSENT && in != out) {
            long moved = owed ? opening - closing : closing - opening;
            if (moved == in - out) {
                return true;
            }
        }
        long statedIn = found.beside.value(Role.IN);
        long statedOut = found.beside.value(Role.OUT);
        return in != out
                && (statedIn != SourceRecord.ABSENT && Math.abs(statedIn) == in && in != 0
                        || statedOut != SourceRecord.ABSENT && Math.abs(statedOut) == out && out != 0);
    }

    static long[] turned(long[] amounts) {
        long[] turned = new long[amounts.length];
        for (int i = 0; i < turned.length; i++) {
            turned[i] = amounts[i] == SourceRecord.ABSENT ? amounts[i] : -amounts[i];
        }
        return turned;
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

    // Titles of two sides, words of a side, or a sentence above the rows: said, not proved.
    private void byTitles() {
        ColumnSurvey amount = found.fields.get(BankLines.AMOUNT);
        if (found.fields.containsKey(BankLines.MONEY_IN) || found.fields.containsKey(BankLines.MONEY_OUT)) {
            decided = Signs.AS_WRITTEN;
        } else if (found.sides != null || !plusMark.isEmpty() && !minusMark.isEmpty()) {
            decided = Signs.AS_WRITTEN;
            told = found.sides == null ? "marks beside the figures say the side" : "the words of a column say the side";
        } else if (!minusMark.isEmpty()) {
            boolean plus = TradeWords.is("plus", minusMark);
            decided = plus ? Signs.REVERSED : Signs.AS_WRITTEN;
            told = "'" + minusMark + "' stands beside what " + (plus ? "comes in" : "goes out");
        } else if (amount != null && TradeWords.fit("charged", amount.title()) > 0) {
            decided = Signs.REVERSED;
            told = "'" + amount.title() + "' is what was charged";
        } else {
            bySentence();
        }
    }

    private void bySentence() {
        for (Sample.Kept row : around) {
            for (String cell : row.cells()) {
                int positive = TradeWords.placeOf("positive", cell);
                int charged = TradeWords.placeOf("charged", cell);
                if (positive >= 0 && charged >= 0) {
                    int negative = TradeWords.placeOf("negative", cell);
                    boolean chargesArePositive =
                            negative < 0 || Math.abs(positive - charged) < Math.abs(negative - charged);
                    decided = chargesArePositive ? Signs.REVERSED : Signs.AS_WRITTEN;
                    told = "the file says: " + cell;
                    return;
                }
            }
        }
    }

    // What each answer means for a row of the file; the texts say which is the likelier.
    private void ask() {
        int[] evidence = evidence();
        boolean against = evidence[1] > evidence[0];
        Relation relation = found.relation;
        Signs other = relation != null && relation.sign() < 0 ? Signs.BALANCE_REVERSED : Signs.AS_WRITTEN;
        likely = against || other == Signs.BALANCE_REVERSED ? Signs.REVERSED : other;
        if (other == Signs.BALANCE_REVERSED && evidence[0] > evidence[1]) {
            likely = other;
        }
        int shown = shown();
        String row = shown < 0 ? "" : example(rows.get(shown));
        for (Signs sign : List.of(likely, likely == Signs.REVERSED ? other : Signs.REVERSED)) {
            boolean in = shown >= 0 && (amounts[shown] > 0) != sign.turnsAmounts();
            open.add(sign.word() + (shown < 0 ? "" : " ('" + row + "' " + (in ? "came in" : "went out") + ")"));
        }
    }

    private String example(Sample.Kept row) {
        StringBuilder words = new StringBuilder();
        for (Field field : List.of(BankLines.AMOUNT, BankLines.MONEY_OUT, BankLines.MONEY_IN, BankLines.NARRATIVE)) {
            ColumnSurvey column = found.fields.get(field);
            String cell = column == null ? "" : BankColumns.cell(row, column);
            words.append(words.isEmpty() || cell.isEmpty() ? "" : " ").append(cell);
        }
        return words.length() > 60 ? words.substring(0, 60) : words.toString();
    }

    /**
     * What follows where the account is one that is owed and its balance is written as positive; empty where the file says so
     * itself, or has no balance.
     */
    String ifOwed() {
        boolean open = found.relation != null
                && (decided == Signs.AS_WRITTEN || decided == Signs.REVERSED)
                && told.isEmpty()
                && !isTitled(BankLines.MONEY_OUT, "charged", "out")
                && said == null;
        int shown = shown();
        if (!open || shown < 0) {
            return "";
        }
        boolean turned = decided == Signs.REVERSED;
        boolean in = amounts[shown] > 0 == turned;
        return " Of a card or loan whose balance here is what is owed, "
                + (turned
                        ? "write 'signs: balance reversed'"
                        : "add 'signs: all reversed', and 'signs: as written' of another card")
                + ": '" + example(rows.get(shown)) + "' " + (in ? "came in" : "went out") + " then";
    }

    private int shown() {
        int shown = -1;
        for (int i = 0; i < amounts.length; i++) {
            boolean first = shown < 0 || amounts[i] < 0 && amounts[shown] > 0;
            shown = amounts[i] != SourceRecord.ABSENT && amounts[i] != 0 && first ? i : shown;
        }
        return shown;
    }

    // How many texts agree with the signs of their amounts, and how many do not.
    private int[] evidence() {
        int[] counts = new int[2];
        List<ColumnSurvey> texts = found.columns.stream()
                .filter(c -> TradeWords.fit("text", c.title()) > 0 || c == found.fields.get(BankLines.NARRATIVE))
                .toList();
        for (int i = 0; i < amounts.length; i++) {
            StringBuilder words = new StringBuilder();
            for (ColumnSurvey text : texts) {
                words.append(BankColumns.cell(rows.get(i), text)).append(' ');
            }
            int direction =
                    amounts[i] == 0 || amounts[i] == SourceRecord.ABSENT ? 0 : TradeWords.direction(words.toString());
            if (direction != 0) {
                counts[direction == Long.signum(amounts[i]) ? 0 : 1]++;
            }
        }
        return counts;
    }

    // Figures beside the rows whose labels are not known.
    private void explain() {
        if (!whole || decided == null) {
            return;
        }
        long[] signed = decided.turnsAmounts() ? turned(amounts) : amounts;
        Relation relation = found.relation;
        if (relation == null) {
            found.beside.explain(signed, SourceRecord.ABSENT, SourceRecord.ABSENT);
            return;
        }
        found.beside.explain(signed, relation.opening(), relation.closing());
    }
}
