package io.mivrel.survey;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceKind;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.StatementColumns;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.TradeWords;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What the columns probably are: the kind of records, the fields, how dates and amounts are written; and what the columns
 * do not tell, as questions.
 */
final class Interpretation {
    private static final Pattern DATE_LIKE = Pattern.compile("\\d{1,4}[-./]\\d{1,2}[-./]\\d{1,4}");

    private static final Pattern YEAR = Pattern.compile("(?<![0-9.,])(?:19|20)[0-9]{2}(?![0-9.,])");

    final FileProfile facts;
    private final Sample sample;
    final List<ColumnSurvey> columns;
    final Collection<Sample.Kept> beside;
    final Answers answers;
    final @Nullable Kind gives;
    /** Why, and what arithmetic says of each other kind. */
    final String why;

    final @Nullable BankColumns bank;
    final Map<Field, ColumnSurvey> fields = new LinkedHashMap<>();
    final List<Question> questions = new ArrayList<>();
    final @Nullable DatePattern pattern;
    final AmountFormat numbers;

    /**
     * {@code beside} are the rows above and below the data; {@code kinds} are those that the rows may be of; {@code answers}
     * are what somebody says of it.
     */
    Interpretation(
            FileProfile facts,
            Sample sample,
            List<ColumnSurvey> columns,
            Collection<Sample.Kept> beside,
            List<Kind> kinds,
            Answers answers) {
        this.facts = facts;
        this.sample = sample;
        this.columns = columns;
        this.beside = beside;
        this.answers = answers;
        boolean own = facts.kind().isStatement();
        Found known =
                own ? new Found(BankLines.KIND, "", null, null) : found(facts, sample, columns, beside, kinds, answers);
        gives = known.gives;
        why = known.why;
        bank = known.bank;
        if (own) {
            statement(facts.kind(), columns, fields);
        } else if (gives != null) {
            fields(known, usable(facts, columns), answers, fields, questions);
        } else {
            String open = why.isEmpty() ? "neither a balance, nor sums to nil, nor the titles tell" : why;
            ask("gives", names(kinds) + "? " + open.substring(0, 1).toUpperCase(Locale.ROOT) + open.substring(1));
        }
        if (sample.languages().size() > 1) {
            ask(
                    "language",
                    String.join(" or ", sample.languages())
                            + "? The names of months in the dates are known in these languages, and mean other months");
        }
        kinds(fields.get(InvoiceLines.DOCUMENT_KIND));
        credits();
        boolean plain = own && facts.kind() != FileKind.QIF;
        DatePattern told = said(answers);
        DatePattern written = plain ? DatePattern.ISO : told != null ? told : findPattern();
        pattern = written == null ? null : KnownFormats.around(year(), written);
        numbers = plain ? AmountFormat.plain(Money.decimals(facts.currency())) : findNumbers();
    }

    /** What the rows are, why, and what shows it; of rows that nothing tells, what speaks for one kind and against it. */
    private record Found(
            @Nullable Kind gives,
            String why,
            @Nullable BankColumns bank,
            @Nullable NilGroups nil) {}

    // By arithmetic, else by the titles; a person's word goes before both.
    private static Found found(
            FileProfile facts,
            Sample sample,
            List<ColumnSurvey> columns,
            Collection<Sample.Kept> beside,
            List<Kind> kinds,
            Answers answers) {
        Kind wanted = answers.gives(kinds);
        List<ColumnSurvey> usable = usable(facts, columns);
        AmountFormat first = form(facts, usable, beside);
        // Accounts above their movements make a ledger, though each has a running balance of its own.
        boolean byAccount = facts.print() != null && facts.print().carriesAccounts();
        BankColumns bank = BankColumns.find(usable, sample, beside, first, answers);
        boolean balanced = bank != null && bank.relation != null && !byAccount;
        NilGroups nil =
                balanced ? null : NilGroups.find(sample.data(), usable, BankColumns.figures(sample, usable, first));
        Kind words = FieldGuess.kind(kinds, usable);
        Kind told = words == null && bank != null && bank.isToldAsStatement() ? BankLines.KIND : words;
        ColumnSurvey doubtful = balanced && wanted == null ? besideTitles(words, bank) : null;
        if (doubtful != null && words != null) {
            String doubt = "the titles are those of " + words.name() + ", but '" + Proposal.column(doubtful)
                    + "' runs like a balance";
            return new Found(null, doubt, null, null);
        }
        Kind gives = wanted != null
                ? wanted
                : byAccount ? JournalLines.KIND : balanced ? BankLines.KIND : nil != null ? JournalLines.KIND : told;
        String why = because(wanted, bank, balanced, nil, gives, words);
        return new Found(gives, why, gives == BankLines.KIND ? bank : null, nil);
    }

    // A column that runs like a balance and is not called one, where the titles tell another kind; null for none.
    private static @Nullable ColumnSurvey besideTitles(@Nullable Kind words, @Nullable BankColumns bank) {
        if (words == null || words.balance() != null || bank == null || bank.relation == null) {
            return null;
        }
        ColumnSurvey balance = bank.relation.moves().balance();
        boolean called = TradeWords.fit("balance", balance.title()) > 0 || TradeWords.fit("owed", balance.title()) > 0;
        return called ? null : balance;
    }

    private static void fields(
            Found known,
            List<ColumnSurvey> usable,
            Answers answers,
            Map<Field, ColumnSurvey> fields,
            List<Question> questions) {
        Kind gives = Objects.requireNonNull(known.gives);
        if (known.bank != null) {
            fields.putAll(known.bank.fields);
            return;
        }
        fields.putAll(FieldGuess.fields(gives, usable));
        if (gives.isJournal() && known.nil != null) {
            byNil(gives, known.nil, fields);
        }
        String asked = amountsAsked(gives, usable, fields, answers);
        if (!asked.isEmpty()) {
            questions.add(new Question("amount", asked));
        }
        FieldGuess.byShape(gives, usable, fields);
    }

    // What the rows are, why, and what arithmetic says of each other kind.
    private static String because(
            @Nullable Kind wanted,
            @Nullable BankColumns bank,
            boolean balanced,
            @Nullable NilGroups nil,
            @Nullable Kind gives,
            @Nullable Kind words) {
        if (gives == null) {
            return "";
        }
        String reason = wanted != null
                ? "as was answered"
                : balanced
                        ? "a running balance proves it"
                        : nil != null && gives == JournalLines.KIND
                                ? nil.words()
                                : gives == words ? "by the titles" : "by a date and an amount in each row";
        List<String> others = new ArrayList<>();
        if (gives != BankLines.KIND) {
            others.add(
                    balanced && bank != null && bank.relation != null
                            ? "as bank lines '"
                                    + Proposal.column(bank.relation.moves().balance()) + "' would be their balance"
                            : "as bank lines no balance would prove them");
        }
        if (gives != JournalLines.KIND && !balanced) {
            others.add(nil == null ? "as journals nothing sums to nil" : "as journals " + nil.words());
        }
        return reason + (others.isEmpty() ? "" : "; " + String.join(", ", others));
    }

    // Of several columns of figures none is taken for the amounts without a word.
    private static String amountsAsked(
            Kind gives, List<ColumnSurvey> columns, Map<Field, ColumnSurvey> fields, Answers answers) {
        boolean known = Stream.of(gives.amount(), gives.plusSide(), gives.minusSide(), gives.price())
                .anyMatch(field -> field != null && fields.containsKey(field));
        List<ColumnSurvey> figures = columns.stream()
                .filter(c -> !fields.containsValue(c) && c.couldBeAmounts() && c.type() != FieldType.DATE)
                .toList();
        if (known || figures.isEmpty()) {
            return "";
        }
        String said = answers.of("amount");
        for (ColumnSurvey column : figures) {
            if (Proposal.column(column).equals(said) || figures.size() == 1 && column.type() == FieldType.AMOUNT) {
                fields.put(gives.amount(), column);
                return "";
            }
        }
        return "which column holds the amounts: "
                + String.join(
                        " or ",
                        figures.stream()
                                .map(c -> "'" + Proposal.column(c) + "'")
                                .toList()) + "?";
    }

    // The columns that sum to nil are those of journals, whatever their titles.
    private static void byNil(Kind kind, NilGroups nil, Map<Field, ColumnSurvey> fields) {
        // Beside a foreign amount the sides in home money are known by their titles.
        if (kind.foreignAmounts().stream().noneMatch(fields::containsKey)) {
            fields.values().removeIf(c -> c == nil.debit() || c == nil.credit());
            fields.remove(kind.amount());
            fields.put(nil.credit() == null ? kind.amount() : Objects.requireNonNull(kind.plusSide()), nil.debit());
            if (nil.credit() != null) {
                fields.put(Objects.requireNonNull(kind.minusSide()), nil.credit());
            }
        }
        Field reference = Objects.requireNonNull(kind.key());
        if (!fields.containsKey(reference) && nil.key().type() != FieldType.DATE) {
            fields.values().removeIf(c -> c == nil.key());
            fields.put(reference, nil.key());
        }
    }

    // bank lines, journal lines or invoice lines
    private static String names(List<Kind> kinds) {
        List<String> names = kinds.stream().map(Kind::name).toList();
        int last = names.size() - 1;
        return String.join(", ", names.subList(0, last)) + " or " + names.get(last);
    }

    private static @Nullable DatePattern said(Answers answers) {
        String pattern = answers.of("date");
        try {
            return pattern == null ? null : DatePattern.of(pattern, KnownFormats.CENTURY_FROM);
        } catch (IllegalArgumentException noPattern) {
            return null;
        }
    }

    private static List<ColumnSurvey> usable(FileProfile facts, List<ColumnSurvey> columns) {
        FileProfile.Print print = facts.print();
        return print == null
                ? columns
                : columns.stream().filter(c -> !print.isSource(c.title())).toList();
    }

    private static void statement(FileKind kind, List<ColumnSurvey> columns, Map<Field, ColumnSurvey> fields) {
        Map<Field, FieldSource> usual = new LinkedHashMap<>(StatementColumns.fields(kind));
        usual.putIfAbsent(BankLines.DATE, FieldSource.column(StatementColumns.DATE));
        usual.forEach((field, source) -> fields.put(
                field, columns.get(StatementColumns.ALL.indexOf(source.columns().get(0)))));
    }

    // Figures beside the rows may have thousands where those of the rows have none.
    private static long besideFits(FileProfile facts, Collection<Sample.Kept> beside, int form) {
        AmountFormat amounts = KnownFormats.amounts(facts.currency()).get(form);
        return beside.stream()
                .flatMap(row -> row.cells().stream())
                .filter(cell ->
                        Figures.read(cell.substring(cell.lastIndexOf(':') + 1).strip(), amounts) != SourceRecord.ABSENT)
                .count();
    }

    // The form that most columns of figures have, for a first look.
    private static AmountFormat form(FileProfile facts, List<ColumnSurvey> columns, Collection<Sample.Kept> around) {
        long[] fits = new long[KnownFormats.AMOUNT_FORMS];
        for (ColumnSurvey column : columns) {
            if (column.type() == FieldType.AMOUNT || column.couldBeAmounts() && BankColumns.isMoney(column)) {
                for (int form = 0; form < fits.length; form++) {
                    fits[form] += column.amountFits(form);
                }
            }
        }
        boolean none = Arrays.stream(fits).allMatch(f -> f == 0);
        for (ColumnSurvey column : columns) {
            for (int form = 0; none && column.couldBeAmounts() && form < fits.length; form++) {
                fits[form] += column.amountFits(form);
            }
        }
        int best = 0;
        for (int form = 1; form < fits.length; form++) {
            boolean beside =
                    fits[form] == fits[best] && besideFits(facts, around, form) > besideFits(facts, around, best);
            best = fits[form] > fits[best] || beside ? form : best;
        }
        return KnownFormats.amounts(facts.currency()).get(best);
    }

    /** What the layout says beyond the columns, with rows that add up the amounts above them. */
    Refinement refinement() {
        Refinement found = bank == null ? Refinement.NONE : bank.refinement();
        return gives == null || facts.print() != null
                ? found
                : found.with(found.stated().among(found.stated().carried(), totals(gives)));
    }

    private List<String> totals(Kind kind) {
        List<ColumnSurvey> amounts = Stream.of(kind.amount(), kind.plusSide(), kind.minusSide())
                .map(field -> field == null ? null : fields.get(field))
                .filter(Objects::nonNull)
                .toList();
        return Stream.concat(beside.stream(), sample.between().stream())
                .filter(row -> bank == null || !bank.beside.holds(row))
                .filter(row -> amounts.stream()
                        .anyMatch(c -> Figures.read(BankColumns.cell(row, c), numbers) != SourceRecord.ABSENT))
                .map(BesideFigures::total)
                .filter(label -> !label.isEmpty())
                .distinct()
                .toList();
    }

    /** True for a row beside the data whose figures the layout compares. */
    boolean isStated(Sample.Kept row) {
        return bank != null && bank.beside.holds(row)
                || !BesideFigures.total(row).isEmpty()
                        && refinement().stated().totals().contains(BesideFigures.total(row));
    }

    private void ask(String about, String words) {
        questions.add(new Question(about, words));
    }

    /** True when the guess is enough to read records by. */
    boolean isWhole() {
        return gives != null && pattern != null;
    }

    /** What a person said of something; {@code null} for nothing. */
    @Nullable
    String answerTo(String about) {
        return answers.of(about);
    }

    // The file's own words for the kinds of documents need a translation.
    private void kinds(@Nullable ColumnSurvey kinds) {
        if (kinds != null && kinds.fewValues().stream().anyMatch(word -> InvoiceKind.of(word) == null)) {
            ask(
                    "kind",
                    "which of " + String.join(", ", kinds.fewValues()) + " is " + String.join(", ", InvoiceKind.words())
                            + "? Write it as {INV: invoice}");
        }
    }

    // Figures below nil are those of credits, or deductions: nothing in the file itself can tell.
    private void credits() {
        if (gives == null || !gives.hasCredits()) {
            return;
        }
        ColumnSurvey total = fields.get(gives.statedTotal());
        ColumnSurvey figures = total == null ? fields.get(gives.amount()) : total;
        long[] range = figures == null ? null : figures.amounts();
        if (range != null && range[0] < 0) {
            ask(
                    "credits",
                    "some figures are below nil: has a credit a minus ('negative'), or are these deductions ('positive')?");
        }
    }

    // A year that the file writes in full, in another column or beside its rows; else this one.
    private int year() {
        for (ColumnSurvey column : columns) {
            long latest = column.type() == FieldType.DATE ? column.latestInFull() : DatePattern.UNREADABLE;
            if (DatePattern.isDate(latest)) {
                return LocalDate.ofEpochDay(latest).getYear();
            }
        }
        for (Sample.Kept row : beside) {
            for (String cell : row.cells()) {
                Matcher year = YEAR.matcher(cell);
                if (year.find()) {
                    return Integer.parseInt(year.group());
                }
            }
        }
        return LocalDate.now(ZoneId.systemDefault()).getYear();
    }

    private @Nullable DatePattern findPattern() {
        ColumnSurvey dates = fields.entrySet().stream()
                .filter(e -> e.getKey().type() == FieldType.DATE && e.getKey().required())
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null);
        return dates(dates, questions, beside);
    }

    /** How the dates of a column are written, with a question when more than one order fits; {@code null} for none. */
    static @Nullable DatePattern dates(
            @Nullable ColumnSurvey dates, List<Question> questions, Collection<Sample.Kept> beside) {
        if (dates == null || dates.patterns().isEmpty()) {
            return null;
        }
        Map<String, DatePattern> orders = new LinkedHashMap<>();
        List<DatePattern> fitting = dates.patterns();
        for (DatePattern pattern : fitting) {
            // What leaves some cells odd is no doubt about a form that leaves none.
            if (dates.fits(pattern) == dates.fits(fitting.get(0))) {
                orders.putIfAbsent(pattern.order(), pattern);
            }
        }
        List<DatePattern> inOrder =
                orders.values().stream().filter(dates::isInOrder).toList();
        if (inOrder.size() == 1) {
            return timed(inOrder.get(0), dates);
        }
        if (orders.size() > 1) {
            DatePattern told = toldBeside(orders.values(), beside);
            if (told != null) {
                return timed(told, dates);
            }
        }
        if (orders.size() > 1) {
            questions.add(new Question(
                    "date",
                    String.join(
                                    " or ",
                                    orders.values().stream()
                                            .map(pattern ->
                                                    timed(pattern, dates).pattern())
                                            .toList())
                            + "? Every date fits "
                            + (orders.size() == 2 ? "both" : "all")));
        }
        return timed(orders.values().iterator().next(), dates);
    }

    // A period or a day of export that only one order can read.
    private static @Nullable DatePattern toldBeside(Collection<DatePattern> orders, Collection<Sample.Kept> beside) {
        Set<DatePattern> possible = new LinkedHashSet<>(orders);
        for (Sample.Kept row : beside) {
            for (String cell : row.cells()) {
                Matcher found = DATE_LIKE.matcher(cell);
                while (found.find()) {
                    String text = found.group();
                    List<DatePattern> fit = orders.stream()
                            .filter(p -> DatePattern.isDate(p.parse(marked(text, p))))
                            .toList();
                    if (!fit.isEmpty()) {
                        possible.retainAll(fit);
                    }
                }
            }
        }
        return possible.size() == 1 ? possible.iterator().next() : null;
    }

    // With the marks that the pattern has: a period may be written with others than the rows.
    private static String marked(String date, DatePattern pattern) {
        for (String mark : List.of("/", ".", "-")) {
            if (pattern.pattern().contains(mark)) {
                return date.replaceAll("[-./]", mark);
            }
        }
        return date;
    }

    private static DatePattern timed(DatePattern pattern, ColumnSurvey dates) {
        return dates.time().isEmpty() || pattern == KnownFormats.SERIAL
                ? pattern
                : DatePattern.of(pattern.pattern() + dates.time(), KnownFormats.CENTURY_FROM)
                        .in(pattern.language());
    }

    // Of the columns that are known to hold amounts; of all that look so when nothing is known.
    private List<ColumnSurvey> amounts() {
        return gives == null
                ? columns.stream().filter(c -> c.type() == FieldType.AMOUNT).toList()
                : fields.entrySet().stream()
                        .filter(e -> e.getKey().type() == FieldType.AMOUNT
                                || e.getKey().type() == FieldType.DECIMAL)
                        .map(Map.Entry::getValue)
                        .toList();
    }

    private AmountFormat findNumbers() {
        List<ColumnSurvey> amounts = figures();
        int chosen = -1;
        boolean asked = answers.of("numbers") != null;
        for (int form : fitting(amounts)) {
            if (chosen < 0) {
                chosen = form;
            } else if (sameMark(chosen, form)) {
                // Only the thousands differ: what reads more cells.
                long more = fits(amounts, form) - fits(amounts, chosen);
                boolean reads = more == 0 && besideFits(facts, beside, form) > besideFits(facts, beside, chosen);
                chosen = more > 0 || reads ? form : chosen;
            } else if (differ(amounts, chosen, form) && !asked) {
                if (facts.currencyStated() && Money.decimals(facts.currency()) == 3 && threeBehind(amounts)) {
                    // Amounts of such a currency have three decimals.
                    chosen = decimals(amounts, chosen, form);
                } else {
                    asked = true;
                    askNumbers(chosen, form);
                }
            }
        }
        if (chosen < 0) {
            ask("numbers", "'.' or ','? No single way of writing fits all the columns of amounts");
        } else if (!asked && !facts.currencyStated() && threeBehind(amounts)) {
            askNumbers(chosen, chosen ^ 1);
        }
        AmountFormat form = KnownFormats.amounts(facts.currency()).get(Math.max(chosen, 0));
        return new AmountFormat(
                Money.decimals(facts.currency()),
                form.decimalMark(),
                form.thousandsMark(),
                amounts.stream().anyMatch(ColumnSurvey::hasBrackets),
                amounts.stream().anyMatch(ColumnSurvey::hasTrailingMinus),
                currencyMark(amounts),
                bank != null ? bank.signs.plusMark : ledgerMark(amounts, true),
                bank != null ? bank.signs.minusMark : ledgerMark(amounts, false));
    }

    // The columns of amounts that hold some, with the second of two that are read as one.
    private List<ColumnSurvey> figures() {
        List<ColumnSurvey> amounts =
                new ArrayList<>(amounts().stream().filter(c -> c.filled() > 0).toList());
        if (bank != null) {
            columns.stream()
                    .filter(c -> bank.sources.values().stream()
                            .anyMatch(s -> s.columns().size() == 2
                                    && c.couldBeAmounts()
                                    && s.columns().get(1).equals(Proposal.column(c))))
                    .forEach(amounts::add);
        }
        return amounts;
    }

    // The ways of writing that fit all of them, with the decimal mark that a person said.
    private int[] fitting(List<ColumnSurvey> amounts) {
        String mark = answers.of("numbers");
        List<AmountFormat> forms = KnownFormats.amounts(facts.currency());
        return IntStream.range(0, KnownFormats.AMOUNT_FORMS)
                .filter(form ->
                        mark == null || mark.isEmpty() || forms.get(form).decimalMark() == mark.charAt(0))
                .filter(form -> amounts.stream().allMatch(c -> c.fittingAmounts()[form]))
                .toArray();
    }

    private boolean sameMark(int one, int other) {
        List<AmountFormat> forms = KnownFormats.amounts(facts.currency());
        return forms.get(one).decimalMark() == forms.get(other).decimalMark();
    }

    private static long fits(List<ColumnSurvey> amounts, int form) {
        return amounts.stream().mapToLong(c -> c.amountFits(form)).sum();
    }

    private void askNumbers(int first, int second) {
        AmountFormat one = KnownFormats.amounts(facts.currency()).get(first);
        AmountFormat other = KnownFormats.amounts(facts.currency()).get(second);
        ask(
                "numbers",
                "decimal '" + one.decimalMark() + "' or decimal '" + other.decimalMark()
                        + "'? Every amount can be read both ways");
    }

    private static boolean threeBehind(List<ColumnSurvey> amounts) {
        return amounts.stream().anyMatch(ColumnSurvey::hasThreeBehindEveryMark)
                && amounts.stream().noneMatch(ColumnSurvey::hasTwoDecimals);
    }

    // The form by which the mark is that of decimals, and so the figures are smaller.
    private static int decimals(List<ColumnSurvey> amounts, int one, int other) {
        long first = 0;
        long second = 0;
        for (ColumnSurvey column : amounts) {
            first += column.size(one);
            second += column.size(other);
        }
        return first <= second ? one : other;
    }

    private static String currencyMark(List<ColumnSurvey> amounts) {
        Map<String, Integer> marks = new TreeMap<>();
        amounts.forEach(c -> c.currencyMarks().forEach((mark, count) -> marks.merge(mark, count, Integer::sum)));
        return marks.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
    }

    // DR is plus and CR minus, as in a ledger; with DR alone the unmarked side is plus.
    private static String ledgerMark(List<ColumnSurvey> amounts, boolean plus) {
        boolean credit = amounts.stream().anyMatch(c -> c.sideMarks().containsKey("CR"));
        boolean debit = amounts.stream().anyMatch(c -> c.sideMarks().containsKey("DR"));
        return plus ? credit && debit ? "DR" : "" : credit ? "CR" : debit ? "DR" : "";
    }

    private static boolean differ(List<ColumnSurvey> amounts, int one, int other) {
        return amounts.stream().anyMatch(c -> c.amountHash(one) != c.amountHash(other));
    }
}
