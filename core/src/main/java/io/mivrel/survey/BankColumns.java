package io.mivrel.survey;

import com.google.re2j.Pattern;
import io.mivrel.intake.FieldSource;
import io.mivrel.kinds.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import io.mivrel.text.AmountFormat;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Which columns hold what a bank line needs: by arithmetic where there is a running balance, then by shape, then by the
 * words of titles. For one thread.
 */
final class BankColumns {
    /** So many texts at least must say which way their money went before they say anything. */
    static final int LEAST_EVIDENCE = 3;
    /** The column that the headings of sections make. */
    private static final String SECTION = "Section";

    final List<ColumnSurvey> columns;
    private final List<Sample.Kept> rows;
    private final Set<ColumnSurvey> used = new HashSet<>();

    final Map<Field, ColumnSurvey> fields = new LinkedHashMap<>();
    final Map<Field, FieldSource> sources = new LinkedHashMap<>();
    final List<RowFilter> filters = new ArrayList<>();
    private final List<RowFilter> expectations = new ArrayList<>();
    private final List<CarryDown.Heading> sections = new ArrayList<>();

    /** The running balance and what moves it; {@code null} when there is none. */
    @Nullable
    Relation relation;

    /** A column of charges beside the amounts; {@code null} for none. */
    @Nullable
    ColumnSurvey charged;

    /** True when the balances say that the charges are taken off besides the amounts. */
    boolean chargesProved;

    /** Whose plus is whose. */
    final BankSigns signs;

    private final AmountFormat form;
    private final List<String> headings;

    private BankColumns(List<ColumnSurvey> columns, Sample sample, Labels above, AmountFormat form) {
        this.columns = columns;
        this.rows = sample.data();
        this.form = form;
        this.headings = sample.headings();
        this.signs = new BankSigns(this, sample, above, form);
    }

    /** What the layout says beyond the columns. */
    Refinement refinement() {
        return new Refinement(signs.asRead(), sources, filters, expectations, sections, signs.stated());
    }

    /** {@code null} when the columns are not those of bank lines. */
    static @Nullable BankColumns find(List<ColumnSurvey> columns, Sample sample, Labels above, AmountFormat form) {
        BankColumns found = new BankColumns(columns, sample, above, form);
        return found.find() ? found : null;
    }

    private boolean find() {
        ColumnSurvey date = date();
        if (date == null) {
            return false;
        }
        put(BankLines.DATE, date);
        Figures figures = new Figures(rows, figures(), form);
        relation = Relation.find(figures);
        if (relation != null) {
            byBalance(relation, figures);
        } else if (!byWords()) {
            return false;
        }
        charges();
        texts();
        status();
        sections();
        brought();
        currency();
        signs.find(figures);
        return true;
    }

    private void put(Field field, ColumnSurvey column) {
        fields.put(field, column);
        used.add(column);
    }

    // The day of booking before that of the deed, and that before the value day.
    private @Nullable ColumnSurvey date() {
        List<ColumnSurvey> dates =
                columns.stream().filter(c -> c.type() == FieldType.DATE).toList();
        ColumnSurvey best = null;
        for (ColumnSurvey column : dates) {
            if (best == null || rank(column) > rank(best)) {
                best = column;
            }
        }
        for (ColumnSurvey column : dates) {
            if (column != best
                    && best != null
                    && Words.fit("value-date", column.title()) > 0
                    && sameForm(column, best)) {
                put(BankLines.VALUE_DATE, column);
            }
        }
        used.addAll(dates);
        return best;
    }

    private static boolean sameForm(ColumnSurvey one, ColumnSurvey other) {
        return !one.patterns().isEmpty()
                && !other.patterns().isEmpty()
                && one.time().equals(other.time())
                && other.patterns().stream().anyMatch(one.patterns()::contains);
    }

    private static int rank(ColumnSurvey column) {
        int written = column.hasWrittenDates() ? 100 : 0;
        int full = column.blank() * 10 > column.filled() ? -200 : 0;
        int words = Words.fit("booked", column.title()) * 8;
        words = Math.max(words, Words.fit("date", column.title()) == Words.IS ? 20 : 0);
        words = Math.max(words, Words.fit("deed", column.title()) == Words.IS ? 12 : 0);
        if (words == 0) {
            words = Words.fit("value-date", column.title()) > 0 || Words.fit("bought", column.title()) > 0 ? -5 : 1;
        }
        return written + full + words;
    }

    // Columns of figures, but not those whose titles say that they are something else.
    private List<ColumnSurvey> figures() {
        return columns.stream()
                .filter(c -> !used.contains(c) && c.couldBeAmounts())
                .filter(c -> c.type() == FieldType.AMOUNT || isMoney(c) || !isOther(c) && c.longest() < 16)
                .sorted(Comparator.comparing((ColumnSurvey c) -> !isMoney(c)).thenComparing(ColumnSurvey::place))
                .limit(8)
                .toList();
    }

    /** True when the title says that the column holds money. */
    static boolean isMoney(ColumnSurvey column) {
        for (String meaning :
                List.of("amount", "in", "out", "debit", "credit", "charged", "repaid", "balance", "owed")) {
            if (Words.fit(meaning, column.title()) > 0) {
                return Words.fit("original-amount", column.title()) == 0;
            }
        }
        return false;
    }

    private static boolean isOther(ColumnSurvey column) {
        for (String meaning : List.of(
                "reference", "cheque", "own-account", "branch", "type", "category", "original-amount", "fee", "text")) {
            if (Words.fit(meaning, column.title()) > 0) {
                return true;
            }
        }
        return false;
    }

    private void byBalance(Relation found, Figures figures) {
        put(BankLines.BALANCE, found.balance());
        ColumnSurvey other = found.other();
        if (other == null) {
            put(BankLines.AMOUNT, found.amount());
            if (found.unsigned() || mayBeUnsigned(found, figures)) {
                side(found.directions(figures));
            }
            if (sources.containsKey(BankLines.AMOUNT)) {
                relation = found.bySide();
            }
        } else if (found.taken() > 0) {
            put(BankLines.AMOUNT, found.amount());
            used.add(other);
            twoSigned(found.amount(), other);
        } else {
            put(found.sign() > 0 ? BankLines.MONEY_IN : BankLines.MONEY_OUT, found.amount());
            put(found.sign() > 0 ? BankLines.MONEY_OUT : BankLines.MONEY_IN, other);
        }
    }

    // Where nearly all money goes out, unsigned amounts look as if they were signed the other way round.
    private static boolean mayBeUnsigned(Relation found, Figures figures) {
        return found.holds() < found.steps()
                && Arrays.stream(figures.of(found.amount()))
                        .allMatch(amount -> amount >= 0 || amount == SourceRecord.ABSENT);
    }

    // Two columns of which one is filled, each with its own sign.
    private void twoSigned(ColumnSurvey one, ColumnSurvey other) {
        List<String> columns = List.of(Proposal.column(one), Proposal.column(other));
        sources.put(BankLines.AMOUNT, new FieldSource(columns, " ", null, Map.of(), null, null));
    }

    // A column of a few words, each of which goes with one direction of the balance.
    private void side(List<Integer> directions) {
        for (ColumnSurvey column : columns) {
            List<String> words = column.fewValues();
            if (used.contains(column)
                    || words.size() < 2
                    || words.size() > 4
                    || column.blank() > column.filled() / 10) {
                continue;
            }
            Map<String, int[]> seen = new LinkedHashMap<>();
            for (int i = 0; i < rows.size(); i++) {
                int direction = directions.get(i);
                String word = cell(rows.get(i), column);
                if (direction != 0 && !word.isEmpty()) {
                    seen.computeIfAbsent(word, w -> new int[2])[direction > 0 ? 0 : 1]++;
                }
            }
            List<String> plus = new ArrayList<>();
            List<String> minus = new ArrayList<>();
            boolean clear = true;
            for (Map.Entry<String, int[]> word : seen.entrySet()) {
                int up = word.getValue()[0];
                int down = word.getValue()[1];
                (up > down ? plus : minus).add(word.getKey());
                clear &= Math.min(up, down) * 10 <= Math.max(up, down);
            }
            if (clear && !plus.isEmpty() && !minus.isEmpty()) {
                side(column, plus, minus);
                return;
            }
        }
    }

    private void side(ColumnSurvey column, List<String> plus, List<String> minus) {
        used.add(column);
        ColumnSurvey amount = fields.get(BankLines.AMOUNT);
        if (amount != null) {
            sources.put(
                    BankLines.AMOUNT,
                    FieldSource.column(Proposal.column(amount))
                            .withSide(new FieldSource.Side(Proposal.column(column), plus, minus)));
        }
    }

    static String cell(Sample.Kept row, ColumnSurvey column) {
        return column.place() <= row.cells().size() ? row.cells().get(column.place() - 1) : "";
    }

    private boolean byWords() {
        for (List<String> sides :
                List.of(List.of("in", "out"), List.of("credit", "debit"), List.of("repaid", "charged"))) {
            ColumnSurvey in = figure(sides.get(0), null);
            ColumnSurvey out = figure(sides.get(1), in);
            if (in != null && out != null && excludeEachOther(in, out)) {
                if (signedSides(in, out)) {
                    put(BankLines.AMOUNT, in);
                    used.add(out);
                    twoSigned(in, out);
                } else {
                    put(BankLines.MONEY_IN, in);
                    put(BankLines.MONEY_OUT, out);
                }
                balanceByWords();
                return true;
            }
        }
        ColumnSurvey amount = figure("amount", null);
        List<ColumnSurvey> figures = figures();
        if (amount == null) {
            List<ColumnSurvey> free = figures.stream()
                    .filter(c -> c.type() == FieldType.AMOUNT && Words.fit("balance", c.title()) == 0)
                    .toList();
            amount = free.size() == 1 || !free.isEmpty() && free.get(0).title().isEmpty() ? free.get(0) : null;
        }
        if (amount == null) {
            return false;
        }
        put(BankLines.AMOUNT, amount);
        sideByWords();
        balanceByWords();
        return true;
    }

    private void balanceByWords() {
        ColumnSurvey balance = figure("balance", null);
        balance = balance == null ? figure("owed", null) : balance;
        if (balance != null) {
            put(BankLines.BALANCE, balance);
        }
    }

    private @Nullable ColumnSurvey figure(String meaning, @Nullable ColumnSurvey taken) {
        ColumnSurvey best = null;
        int fit = 0;
        for (ColumnSurvey column : columns) {
            boolean figures = column.couldBeAmounts() || column.filled() == 0;
            int here = Words.fit(meaning, column.title());
            if (!used.contains(column)
                    && column != taken
                    && figures
                    && here > fit
                    && Words.fit("original-amount", column.title()) == 0) {
                best = column;
                fit = here;
            }
        }
        return best;
    }

    private boolean excludeEachOther(ColumnSurvey one, ColumnSurvey other) {
        int both = 0;
        for (Sample.Kept row : rows) {
            both += isFilled(cell(row, one)) && isFilled(cell(row, other)) ? 1 : 0;
        }
        return both * 10 <= rows.size();
    }

    // A column of charges moves the account too when the balances say so; where nothing tells, it is asked about.
    private void charges() {
        ColumnSurvey amount = fields.get(BankLines.AMOUNT);
        ColumnSurvey fee = figure("fee", null);
        if (relation != null || amount == null || fee == null || sources.containsKey(BankLines.AMOUNT) || isNil(fee)) {
            return;
        }
        ColumnSurvey balance = fields.get(BankLines.BALANCE);
        used.add(fee);
        chargesProved = balance != null && explains(amount, fee, balance);
        charged = fee;
        if (chargesProved) {
            sources.put(
                    BankLines.AMOUNT,
                    FieldSource.column(Proposal.column(amount)).less(Proposal.column(fee)));
        }
    }

    private boolean isNil(ColumnSurvey column) {
        return rows.stream().noneMatch(row -> isFilled(cell(row, column)));
    }

    private boolean explains(ColumnSurvey amount, ColumnSurvey fee, ColumnSurvey balance) {
        int steps = 0;
        int[] holds = new int[2];
        for (int i = 1; i < rows.size(); i++) {
            long one = Figures.read(cell(rows.get(i - 1), balance), form);
            long two = Figures.read(cell(rows.get(i), balance), form);
            if (one == SourceRecord.ABSENT || two == SourceRecord.ABSENT) {
                continue;
            }
            steps++;
            holds[0] += two - one == moved(rows.get(i), amount, fee) ? 1 : 0;
            holds[1] += one - two == moved(rows.get(i - 1), amount, fee) ? 1 : 0;
        }
        return steps >= LEAST_EVIDENCE && Math.max(holds[0], holds[1]) * 20 >= steps * 19;
    }

    private long moved(Sample.Kept row, ColumnSurvey amount, ColumnSurvey fee) {
        long one = Figures.read(cell(row, amount), form);
        long less = Figures.read(cell(row, fee), form);
        return one == SourceRecord.ABSENT ? one : one - (less == SourceRecord.ABSENT ? 0 : less);
    }

    private static boolean isFilled(String cell) {
        return cell.chars().anyMatch(c -> c >= '1' && c <= '9');
    }

    // One side all below nil: both are signed.
    private static boolean signedSides(ColumnSurvey in, ColumnSurvey out) {
        long[] spent = out.amounts();
        long[] got = in.amounts();
        return spent != null && spent[1] <= 0 && spent[0] < 0 && (got == null || got[0] >= 0);
    }

    private void sideByWords() {
        for (ColumnSurvey column : columns) {
            List<String> words = column.fewValues();
            boolean named = Words.fit("side", column.title()) > 0;
            if (used.contains(column) || words.isEmpty() || words.size() > 4 || words.size() < (named ? 1 : 2)) {
                continue;
            }
            List<String> plus = words.stream().filter(w -> Words.is("plus", w)).toList();
            List<String> minus =
                    words.stream().filter(w -> Words.is("minus", w)).toList();
            if (plus.size() + minus.size() == words.size() && !minus.isEmpty() && (!plus.isEmpty() || named)) {
                side(column, plus.isEmpty() ? List.of("+") : plus, minus);
                return;
            }
        }
    }

    private void texts() {
        named(BankLines.PAYEE, "payee");
        named(BankLines.REFERENCE, "reference");
        if (!fields.containsKey(BankLines.REFERENCE)) {
            named(BankLines.REFERENCE, "cheque");
        }
        if (!fields.containsKey(BankLines.REFERENCE)) {
            referenceByShape();
        }
        List<ColumnSurvey> texts = new ArrayList<>();
        for (int fit = Words.IS; fit >= Words.HOLDS && texts.isEmpty(); fit--) {
            for (ColumnSurvey column : columns) {
                if (isText(column) && Words.fit("text", column.title()) >= fit) {
                    texts.add(column);
                }
            }
        }
        if (texts.isEmpty()) {
            longestTexts(texts);
        }
        if (texts.isEmpty()) {
            return;
        }
        put(BankLines.NARRATIVE, texts.get(0));
        used.addAll(texts);
        if (texts.size() > 1) {
            String[] names = texts.stream().map(Proposal::column).toArray(String[]::new);
            sources.put(BankLines.NARRATIVE, FieldSource.joined(" ", names));
        }
    }

    // Codes that are different in nearly every row, under no title.
    private void referenceByShape() {
        for (ColumnSurvey column : columns) {
            boolean isCode = !used.contains(column)
                    && column.title().isEmpty()
                    && column.type() == FieldType.CODE
                    && column.longest() >= 6;
            if (isCode && column.filled() * 2 > rows.size()) {
                Set<String> different = new HashSet<>();
                rows.forEach(row -> different.add(cell(row, column)));
                if (different.size() * 10 >= column.filled() * 9) {
                    put(BankLines.REFERENCE, column);
                    return;
                }
            }
        }
    }

    private boolean isText(ColumnSurvey column) {
        return !used.contains(column)
                && column.filled() > 0
                && (column.type() == FieldType.TEXT || column.type() == FieldType.CODE);
    }

    private void longestTexts(List<ColumnSurvey> texts) {
        columns.stream()
                .filter(c ->
                        isText(c) && c.type() == FieldType.TEXT && c.fewValues().isEmpty() && !isOther(c))
                .filter(c -> c.blank() <= c.filled() && Words.fit("note", c.title()) == 0)
                .max(Comparator.comparingInt(ColumnSurvey::longest))
                .ifPresent(texts::add);
    }

    private void named(Field field, String meaning) {
        ColumnSurvey best = null;
        int fit = 0;
        for (ColumnSurvey column : columns) {
            int here = Words.fit(meaning, column.title());
            boolean better = here > fit || here == fit && best != null && column.filled() > best.filled();
            if (here > 0 && better && !used.contains(column) && column.filled() > 0) {
                best = column;
                fit = here;
            }
        }
        if (best != null) {
            put(field, best);
        }
    }

    // What is not booked yet is no movement yet.
    private void status() {
        for (ColumnSurvey column : columns) {
            List<String> words = column.fewValues();
            if (used.contains(column) || words.isEmpty() || words.size() > 5) {
                continue;
            }
            List<String> pending =
                    words.stream().filter(w -> Words.is("pending", w)).toList();
            boolean settled = words.stream().anyMatch(w -> Words.is("settled", w));
            if (!pending.isEmpty() && (settled || Words.fit("status", column.title()) > 0)) {
                used.add(column);
                filters.add(new RowFilter(Proposal.column(column), RowFilter.Test.IS, pending, false));
                return;
            }
        }
    }

    // A heading that says that the rows below it are not booked yet, and another that ends them.
    private void sections() {
        List<String> pending =
                headings.stream().filter(h -> Words.is("pending", h)).distinct().toList();
        if (pending.isEmpty()) {
            return;
        }
        List<String> all = new ArrayList<>(pending);
        headings.stream().filter(h -> Words.is("settled", h)).distinct().forEach(all::add);
        String take = "^(" + String.join("|", all.stream().map(Pattern::quote).toList()) + ")$";
        sections.add(new CarryDown.Heading(SECTION, "", "", Pattern.compile(take)));
        filters.add(new RowFilter(SECTION, RowFilter.Test.IS, pending, false));
    }

    // Rows in another currency than most are no movements of this account.
    private void currency() {
        for (ColumnSurvey column : columns) {
            boolean codes = !column.fewValues().isEmpty()
                    && column.fewValues().stream().allMatch(w -> Labels.currency(w) != null);
            if (codes && !used.contains(column) && Words.fit("original-currency", column.title()) == 0) {
                Map<String, Integer> counts = new TreeMap<>();
                rows.forEach(row -> counts.merge(cell(row, column), 1, Integer::sum));
                counts.remove("");
                String most = counts.entrySet().stream()
                        .max(Map.Entry.comparingByValue())
                        .map(Map.Entry::getKey)
                        .orElse("");
                used.add(column);
                expectations.add(new RowFilter(Proposal.column(column), RowFilter.Test.IS, List.of(most), true));
                return;
            }
        }
    }

    // A balance that is carried over is no movement: its row has no amount.
    private void brought() {
        ColumnSurvey text = fields.get(BankLines.NARRATIVE);
        if (text == null) {
            return;
        }
        Set<String> words = new LinkedHashSet<>();
        for (Sample.Kept row : rows) {
            String cell = cell(row, text);
            if (!hasAmount(row) && (Words.begins("brought", cell) || Words.begins("carried", cell))) {
                words.add(cell);
            }
        }
        if (!words.isEmpty() && words.size() <= 4) {
            filters.add(new RowFilter(Proposal.column(text), RowFilter.Test.IS, List.copyOf(words), false));
        }
    }

    private boolean hasAmount(Sample.Kept row) {
        for (Field field : List.of(BankLines.AMOUNT, BankLines.MONEY_IN, BankLines.MONEY_OUT)) {
            ColumnSurvey column = fields.get(field);
            if (column != null && isFilled(cell(row, column))) {
                return true;
            }
        }
        return false;
    }
}
