package io.mivrel.survey;

import com.google.re2j.Pattern;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Signs;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Which columns hold what a bank line needs: by arithmetic where there is a running balance, then by shape, then by the
 * words of titles. For one thread.
 */
final class BankColumns {
    private static final int MOST_SIDES = 4;
    private static final int MOST_KEYS = 6;
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

    /** A column of charges beside the amounts that no balance explains; {@code null} for none. */
    @Nullable
    ColumnSurvey charged;

    /** Rows without a balance by a value that no other row has, which may be left out; {@code null} for none. */
    @Nullable
    RowFilter unbalanced;

    int unbalancedRows;

    /** Which rows of unsigned amounts go out, by a column or by headings; {@code null} when the amounts say it. */
    Relation.@Nullable Sides sides;

    /** What each row moves, before any sign is turned; absent where it moves nothing. */
    long[] amounts = new long[0];

    /** Whose plus is whose. */
    final BankSigns signs;

    final BesideFigures beside;
    private @Nullable String numberColumn;
    /** How rows begin that carry a balance over. */
    private List<String> carried = List.of();

    private @Nullable String amountSaid;
    private @Nullable String leftOut;
    private final Sample sample;
    private final AmountFormat form;
    private final List<String> headings;
    /** The heading above each row; empty where there is none. */
    private final List<String> headingOf;

    private BankColumns(
            List<ColumnSurvey> columns,
            Sample sample,
            Collection<Sample.Kept> around,
            AmountFormat form,
            Answers answers) {
        this.columns = columns;
        this.sample = sample;
        this.rows = sample.data();
        this.form = form;
        this.headings = sample.headings();
        this.headingOf = sample.headingOfEach();
        List<Sample.Kept> all = new ArrayList<>(around);
        all.addAll(sample.between());
        this.beside = new BesideFigures(all, sample, form, answers);
        this.signs = new BankSigns(this, sample, all, form);
    }

    List<Sample.Kept> rows() {
        return rows;
    }

    /** What the layout says beyond the columns. */
    Refinement refinement() {
        return new Refinement(
                signs.asRead(),
                sources,
                filters,
                expectations,
                List.of(),
                Whose.ANYBODY,
                sections,
                signs.stated().among(carried, List.of()));
    }

    /** {@code null} when the columns are not those of bank lines. */
    static @Nullable BankColumns find(
            List<ColumnSurvey> columns,
            Sample sample,
            Collection<Sample.Kept> around,
            AmountFormat form,
            Answers answers) {
        BankColumns found = new BankColumns(columns, sample, around, form, answers);
        String said = answers.of("signs");
        found.signs.said = said == null || !Signs.words().contains(said) ? null : Signs.of(said);
        found.amountSaid = answers.of("amount");
        found.leftOut = answers.of("leave out");
        return found.find() ? found : null;
    }

    private boolean find() {
        ColumnSurvey date = date();
        if (date != null) {
            put(BankLines.DATE, date);
        }
        Figures figures = new Figures(rows, figures(columns.stream().filter(c -> !used.contains(c))), form);
        List<Relation.Sides> ways = waysOfSides();
        relation = Relation.find(search(date, figures, ways));
        if (relation != null) {
            byBalance(relation);
        } else if (date == null || !byWords(ways, figures)) {
            return false;
        }
        charges();
        texts();
        status();
        if (relation != null && filters.isEmpty()) {
            withoutBalance(relation.moves().balance());
            if (unbalanced != null && !Survey.NOT_POSTED.equals(leftOut)) {
                filters.add(unbalanced);
            }
        }
        sections();
        brought();
        currency();
        accounts();
        signs.find();
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
                    && TradeWords.fit("value-date", column.title()) > 0
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
        int words = TradeWords.fit("booked", column.title()) * 8;
        words = Math.max(words, TradeWords.fit("date", column.title()) == TradeWords.IS ? 20 : 0);
        words = Math.max(words, TradeWords.fit("deed", column.title()) == TradeWords.IS ? 12 : 0);
        if (words == 0) {
            words = TradeWords.fit("value-date", column.title()) > 0 || TradeWords.fit("bought", column.title()) > 0
                    ? -5
                    : 1;
        }
        return written + full + words;
    }

    /** The figures of rows in columns that may be amounts. */
    static Figures figures(Sample sample, List<ColumnSurvey> columns, AmountFormat form) {
        return new Figures(sample.data(), figures(columns.stream()), form);
    }

    // Columns of figures, but not those whose titles say that they are something else.
    private static List<ColumnSurvey> figures(Stream<ColumnSurvey> columns) {
        return columns.filter(ColumnSurvey::couldBeAmounts)
                .filter(c -> c.type() == FieldType.AMOUNT || isMoney(c) || !isOther(c) && c.longest() < 16)
                .sorted(Comparator.comparing((ColumnSurvey c) -> !isMoney(c)).thenComparing(ColumnSurvey::place))
                .limit(8)
                .toList();
    }

    /** True when the title says that the column holds money. */
    static boolean isMoney(ColumnSurvey column) {
        for (String meaning :
                List.of("amount", "in", "out", "debit", "credit", "charged", "repaid", "balance", "owed")) {
            if (TradeWords.fit(meaning, column.title()) > 0) {
                return TradeWords.fit("original-amount", column.title()) == 0;
            }
        }
        return false;
    }

    private static boolean isOther(ColumnSurvey column) {
        for (String meaning : List.of(
                "reference", "cheque", "own-account", "branch", "type", "category", "original-amount", "fee", "text")) {
            if (TradeWords.fit(meaning, column.title()) > 0) {
                return true;
            }
        }
        return false;
    }

    private Relation.Search search(@Nullable ColumnSurvey date, Figures figures, List<Relation.Sides> ways) {
        long[] days = new long[rows.size()];
        DatePattern pattern = date == null || date.patterns().isEmpty()
                ? null
                : date.patterns().get(0);
        Map<ColumnSurvey, List<String>> keys = new LinkedHashMap<>();
        columns.stream()
                .filter(c -> !used.contains(c) && isSplit(c, MOST_KEYS) && c.blank() == 0)
                .forEach(c -> keys.put(c, cells(c)));
        for (int i = 0; i < days.length; i++) {
            long day = pattern == null || date == null ? SourceRecord.ABSENT : pattern.parse(cell(rows.get(i), date));
            days[i] = DatePattern.isDate(day) ? day : SourceRecord.ABSENT;
        }
        return new Relation.Search(
                figures,
                days,
                sample.isWhole() ? beside.value(BesideFigures.Role.OPENING) : SourceRecord.ABSENT,
                sample.isWhole() ? beside.value(BesideFigures.Role.CLOSING) : SourceRecord.ABSENT,
                ways,
                keys);
    }

    private List<String> cells(ColumnSurvey column) {
        return rows.stream().map(row -> cell(row, column)).toList();
    }

    private boolean isSplit(ColumnSurvey column, int most) {
        List<String> values = column.fewValues();
        return values.size() > 1 && values.size() <= most && !column.couldBeAmounts() || isAccountNumbers(column, most);
    }

    private static boolean isAccountNumbers(ColumnSurvey column, int most) {
        List<String> values = column.fewValues();
        return values.size() > 1
                && values.size() <= most
                && values.stream().allMatch(v -> v.length() >= 6 && v.chars().allMatch(Character::isLetterOrDigit));
    }

    // Each column of a few words, and headings above rows, in each way to divide them into two sides.
    private List<Relation.Sides> waysOfSides() {
        List<Relation.Sides> ways = new ArrayList<>();
        List<String> over = headingOf.stream()
                .filter(h -> !h.isEmpty() && !TradeWords.is("pending", h) && !TradeWords.is("settled", h))
                .distinct()
                .toList();
        if (over.size() > 1 && over.size() <= MOST_SIDES) {
            ways.addAll(Relation.Sides.all(null, over, headingOf));
        }
        columns.stream()
                .filter(c -> !used.contains(c) && isSplit(c, MOST_SIDES) && c.blank() <= c.filled() / 10)
                // As many texts as rows would fit any sum.
                .filter(c -> c.fewValues().size() * 2 <= rows.size() || TradeWords.fit("side", c.title()) > 0)
                .sorted(Comparator.comparing(c -> -TradeWords.fit("side", c.title())))
                .forEach(c -> ways.addAll(Relation.Sides.all(c, c.fewValues(), cells(c))));
        return ways;
    }

    private void byBalance(Relation found) {
        Relation.Moves moves = found.moves();
        ColumnSurvey other = moves.other();
        put(BankLines.BALANCE, moves.balance());
        if (other == null || moves.second() != Relation.Second.SIDE) {
            put(BankLines.AMOUNT, moves.amount());
        }
        if (moves.sides() != null) {
            side(moves.sides());
        } else if (other != null && moves.second() == Relation.Second.CHARGES) {
            used.add(other);
            sources.put(
                    BankLines.AMOUNT,
                    FieldSource.column(Proposal.column(moves.amount())).less(Proposal.column(other)));
        } else if (other != null && moves.second() == Relation.Second.SIGNED_SIDE) {
            used.add(other);
            twoSigned(moves.amount(), other);
        } else if (other != null) {
            put(found.sign() > 0 ? BankLines.MONEY_IN : BankLines.MONEY_OUT, moves.amount());
            put(found.sign() > 0 ? BankLines.MONEY_OUT : BankLines.MONEY_IN, other);
        }
        if (moves.key() != null) {
            used.add(moves.key());
        }
        boolean turned = moves.sides() == null && fields.containsKey(BankLines.MONEY_IN) && found.sign() < 0;
        amounts = turned ? BankSigns.turned(moves.amounts()) : moves.amounts();
    }

    // Two columns of which one is filled, each with its own sign.
    private void twoSigned(ColumnSurvey one, ColumnSurvey other) {
        List<String> columns = List.of(Proposal.column(one), Proposal.column(other));
        sources.put(BankLines.AMOUNT, new FieldSource(columns, " ", null, Map.of(), null, null));
    }

    private void side(Relation.Sides found) {
        ColumnSurvey amount = fields.get(BankLines.AMOUNT);
        if (amount == null) {
            return;
        }
        sides = found;
        amounts = found.over(amounts);
        ColumnSurvey column = found.column();
        String name = column == null ? SECTION : Proposal.column(column);
        if (column == null) {
            section(headingOf.stream().filter(h -> !h.isEmpty()).distinct().toList());
        } else {
            used.add(column);
        }
        sources.put(
                BankLines.AMOUNT,
                FieldSource.column(Proposal.column(amount))
                        .withSide(new FieldSource.Side(name, found.plus(), found.minus())));
    }

    static String cell(Sample.Kept row, ColumnSurvey column) {
        return column.place() <= row.cells().size() ? row.cells().get(column.place() - 1) : "";
    }

    private boolean byWords(List<Relation.Sides> ways, Figures figures) {
        for (List<String> sides :
                List.of(List.of("in", "out"), List.of("credit", "debit"), List.of("repaid", "charged"))) {
            ColumnSurvey in = figure(sides.get(0), null);
            ColumnSurvey out = figure(sides.get(1), in);
            if (in != null && out != null && excludeEachOther(in, out)) {
                boolean signed = signedSides(in, out);
                amounts = together(read(in, figures), read(out, figures), signed);
                if (signed) {
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
        ColumnSurvey net = figure("fee", null) == null ? null : figure("net", null);
        ColumnSurvey told = columns.stream()
                .filter(c -> Proposal.column(c).equals(amountSaid))
                .findFirst()
                .orElse(null);
        ColumnSurvey amount = told != null ? told : net != null ? net : figure("amount", null);
        if (amount == null) {
            List<ColumnSurvey> free = figures.columns().stream()
                    .filter(c -> c.type() == FieldType.AMOUNT && TradeWords.fit("balance", c.title()) == 0)
                    .toList();
            amount = free.size() == 1 || !free.isEmpty() && free.get(0).title().isEmpty() ? free.get(0) : null;
        }
        if (amount == null) {
            return false;
        }
        put(BankLines.AMOUNT, amount);
        amounts = read(amount, figures);
        sideWithoutBalance(ways);
        balanceByWords();
        return true;
    }

    private long[] read(ColumnSurvey column, Figures figures) {
        return figures.columns().contains(column)
                ? figures.of(column)
                : LongStream.generate(() -> SourceRecord.ABSENT)
                        .limit(rows.size())
                        .toArray();
    }

    private static long[] together(long[] in, long[] out, boolean signed) {
        long[] both = in.clone();
        for (int i = 0; i < both.length; i++) {
            boolean other = out[i] != SourceRecord.ABSENT && (in[i] == SourceRecord.ABSENT || in[i] == 0);
            both[i] = other ? signed ? out[i] : -out[i] : in[i];
        }
        return both;
    }

    // By what the file states beside its rows, else by what the words mean.
    private void sideWithoutBalance(List<Relation.Sides> ways) {
        if (Arrays.stream(amounts).anyMatch(amount -> amount < 0 && amount != SourceRecord.ABSENT)) {
            return;
        }
        List<Relation.Sides> agreeing = ways.stream()
                .filter(way -> sample.isWhole() && signs.agreesWithStated(way.over(amounts)))
                .toList();
        boolean one = agreeing.stream()
                        .map(way -> Arrays.toString(way.over(amounts)))
                        .distinct()
                        .count()
                == 1;
        if (one) {
            side(agreeing.get(0));
            return;
        }
        sideByWords(ways);
    }

    private void balanceByWords() {
        ColumnSurvey balance = figure("balance", null);
        balance = balance == null ? figure("owed", null) : balance;
        if (balance != null) {
            put(BankLines.BALANCE, balance);
        }
    }

    private @Nullable ColumnSurvey figure(String meaning, @Nullable ColumnSurvey taken) {
        return best(
                meaning,
                column -> column != taken
                        && (column.couldBeAmounts() || column.filled() == 0)
                        && TradeWords.fit("original-amount", column.title()) == 0);
    }

    // The column whose title fits best, of equal ones the fullest; {@code null} for none.
    private @Nullable ColumnSurvey best(String meaning, Predicate<ColumnSurvey> fits) {
        return columns.stream()
                .filter(c -> !used.contains(c) && fits.test(c) && TradeWords.fit(meaning, c.title()) > 0)
                .max(Comparator.comparingInt((ColumnSurvey c) -> TradeWords.fit(meaning, c.title()))
                        .thenComparing(ColumnSurvey::filled)
                        .thenComparing(c -> -c.place()))
                .orElse(null);
    }

    private boolean excludeEachOther(ColumnSurvey one, ColumnSurvey other) {
        int both = 0;
        for (Sample.Kept row : rows) {
            both += isFilled(cell(row, one)) && isFilled(cell(row, other)) ? 1 : 0;
        }
        return both * 10 <= rows.size();
    }

    // A column of charges that no balance explains is asked about.
    private void charges() {
        ColumnSurvey amount = fields.get(BankLines.AMOUNT);
        ColumnSurvey fee = figure("fee", null);
        boolean nil = fee == null || rows.stream().noneMatch(row -> isFilled(cell(row, fee)));
        if (relation == null && amount != null && !nil && !sources.containsKey(BankLines.AMOUNT)) {
            used.add(fee);
            charged = TradeWords.fit("net", amount.title()) > 0 ? null : fee;
        }
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

    private void sideByWords(List<Relation.Sides> ways) {
        for (Relation.Sides way : ways) {
            if (way.plus().stream().allMatch(w -> isSide("plus", "in", "credit", w))
                    && way.minus().stream().allMatch(w -> isSide("minus", "out", "debit", w))) {
                side(way);
                return;
            }
        }
        // One side alone, under a title that says so.
        for (ColumnSurvey column : columns) {
            List<String> words = column.fewValues();
            if (!used.contains(column) && words.size() == 1 && TradeWords.fit("side", column.title()) > 0) {
                String word = words.get(0);
                boolean minus = TradeWords.is("minus", word);
                if (minus || TradeWords.is("plus", word)) {
                    List<String> here = List.of(word);
                    side(new Relation.Sides(
                            column, minus ? List.of("+") : here, minus ? here : List.of("-"), row -> minus));
                    return;
                }
            }
        }
    }

    private static boolean isSide(String sign, String title, String side, String word) {
        return TradeWords.is(sign, word) || TradeWords.is(title, word) || TradeWords.is(side, word);
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
        for (int fit = TradeWords.IS; fit >= TradeWords.HOLDS && texts.isEmpty(); fit--) {
            for (ColumnSurvey column : columns) {
                if (isText(column) && TradeWords.fit("text", column.title()) >= fit) {
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
                    && !isOther(column)
                    && column.type() == FieldType.CODE
                    && column.longest() >= 6;
            if (isCode && column.filled() * 2 > rows.size() && column.filled() > 1) {
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

    // Where no title is known: the longest texts, and codes only when there is nothing else.
    private void longestTexts(List<ColumnSurvey> texts) {
        for (FieldType type : List.of(FieldType.TEXT, FieldType.CODE)) {
            columns.stream()
                    .filter(c -> isText(c) && c.type() == type && !isOther(c) && TradeWords.fit("note", c.title()) == 0)
                    .filter(c -> type == FieldType.TEXT && c.blank() <= c.filled()
                            || c.fewValues().size() != 1)
                    .max(Comparator.comparingInt(ColumnSurvey::longest))
                    .filter(c -> texts.isEmpty())
                    .ifPresent(texts::add);
        }
    }

    private void named(Field field, String meaning) {
        ColumnSurvey best = best(meaning, column -> column.filled() > 0);
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
                    words.stream().filter(w -> TradeWords.is("pending", w)).toList();
            boolean settled = words.stream().anyMatch(w -> TradeWords.is("settled", w));
            if (!pending.isEmpty() && (settled || TradeWords.fit("status", column.title()) > 0)) {
                used.add(column);
                filters.add(new RowFilter(Proposal.column(column), RowFilter.Test.IS, pending, false));
                return;
            }
        }
    }

    // Rows of some value stand together at the late edge, and have no balance where all others have one.
    private void withoutBalance(ColumnSurvey balance) {
        Set<Integer> bare = new TreeSet<>();
        for (int i = 0; i < rows.size(); i++) {
            if (cell(rows.get(i), balance).isEmpty()) {
                bare.add(i);
            }
        }
        boolean atEdge = bare.contains(0)
                ? bare.size() < rows.size() && !bare.contains(bare.size())
                : bare.contains(rows.size() - 1) && !bare.contains(rows.size() - 1 - bare.size());
        for (ColumnSurvey column : columns) {
            if (used.contains(column) || !isSplit(column, MOST_SIDES) || !atEdge || bare.size() * 2 > rows.size()) {
                continue;
            }
            List<String> words =
                    bare.stream().map(i -> cell(rows.get(i), column)).distinct().toList();
            boolean only = IntStream.range(0, rows.size())
                    .allMatch(i -> bare.contains(i) || !words.contains(cell(rows.get(i), column)));
            if (only && !words.contains("")) {
                unbalanced = new RowFilter(Proposal.column(column), RowFilter.Test.IS, words, false);
                unbalancedRows = bare.size();
                used.add(column);
                return;
            }
        }
    }

    // A heading that says that the rows below it are not booked yet, and another that ends them.
    private void sections() {
        List<String> pending = headings.stream()
                .filter(h -> TradeWords.is("pending", h))
                .distinct()
                .toList();
        if (pending.isEmpty()) {
            return;
        }
        List<String> all = new ArrayList<>(pending);
        headings.stream().filter(h -> TradeWords.is("settled", h)).distinct().forEach(all::add);
        section(all);
        filters.add(new RowFilter(SECTION, RowFilter.Test.IS, pending, false));
    }

    private void section(List<String> texts) {
        Set<String> all = new LinkedHashSet<>(texts);
        headings.stream()
                .filter(h -> TradeWords.is("pending", h) || TradeWords.is("settled", h))
                .forEach(all::add);
        String take = "^(" + String.join("|", all.stream().map(Pattern::quote).toList()) + ")$";
        sections.clear();
        sections.add(new CarryDown.Heading(SECTION, "", "", Pattern.compile(take)));
    }

    // Rows in another currency than most are no movements of this account.
    private void currency() {
        for (ColumnSurvey column : columns) {
            if (StatedCurrency.isCodes(column)
                    && !used.contains(column)
                    && TradeWords.fit("original-currency", column.title()) == 0) {
                used.add(column);
                List<String> most = List.of(StatedCurrency.most(column, rows));
                expectations.add(new RowFilter(Proposal.column(column), RowFilter.Test.IS, most, true));
                return;
            }
        }
    }

    // The account of each row: always the same, or those of several accounts.
    private void accounts() {
        for (ColumnSurvey column : columns) {
            boolean key = relation != null && relation.moves().key() == column;
            List<String> values = column.fewValues();
            boolean numbers = !values.isEmpty()
                    && column.blank() == 0
                    && values.stream()
                            .allMatch(v -> v.length() >= 6 && v.chars().anyMatch(Character::isDigit));
            boolean own = numbers && TradeWords.fit("own-account", column.title()) > 0 && !used.contains(column);
            if (key && numbers || own && values.size() > 1) {
                used.add(column);
                numberColumn = Proposal.column(column);
                return;
            }
            if (own && values.size() == 1) {
                used.add(column);
                expectations.add(new RowFilter(Proposal.column(column), RowFilter.Test.IS, values, true));
                return;
            }
        }
    }

    /**
     * True when something tells that the rows are movements of an account, though no balance proves it: stated figures that the
     * rows come to, two titled sides, or the title of a text or of who was paid. A list of documents has none of these.
     */
    boolean isToldAsStatement() {
        boolean stated = signs.decided != null && signs.told.isEmpty();
        return stated
                || columns.stream().allMatch(c -> c.title().isEmpty())
                || columns.stream()
                        .anyMatch(c -> TradeWords.fit("text", c.title()) > 0 || TradeWords.fit("payee", c.title()) > 0);
    }

    @Nullable
    String numberColumn() {
        return numberColumn;
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
            if (!hasAmount(row) && (TradeWords.begins("brought", cell) || TradeWords.begins("carried", cell))) {
                words.add(cell);
            }
        }
        if (!words.isEmpty() && words.size() <= 4) {
            filters.add(new RowFilter(Proposal.column(text), RowFilter.Test.IS, List.copyOf(words), false));
            carried = List.copyOf(words);
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
