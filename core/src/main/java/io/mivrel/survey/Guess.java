package io.mivrel.survey;

import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.intake.StatementColumns;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceKind;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What the columns probably are: the kind of records, the fields, how dates and amounts are written; and what the columns
 * do not tell, as questions.
 */
record Guess(
        Facts facts,
        Sample sample,
        List<ColumnSurvey> columns,
        String until,
        @Nullable Kind gives,
        Map<Field, ColumnSurvey> fields,
        @Nullable DatePattern pattern,
        AmountFormat numbers,
        @Nullable BankColumns bank,
        Collection<Sample.Kept> beside,
        List<Question> questions) {
    private static final Pattern DATE_LIKE = Pattern.compile("\\d{1,4}[-./]\\d{1,2}[-./]\\d{1,4}");

    private static final Pattern YEAR = Pattern.compile("(?<![0-9.,])(?:19|20)[0-9]{2}(?![0-9.,])");

    /** {@code beside} are the rows above and below the data; {@code wanted} is the kind that somebody named, or null. */
    static Guess of(
            Facts facts,
            Sample sample,
            List<ColumnSurvey> columns,
            String until,
            Collection<Sample.Kept> beside,
            @Nullable Kind wanted) {
        List<Question> questions = new ArrayList<>();
        @Nullable Kind gives;
        @Nullable BankColumns bank = null;
        Map<Field, ColumnSurvey> fields = new LinkedHashMap<>();
        boolean own = facts.kind().isStatement();
        if (own) {
            gives = BankLines.KIND;
            statement(facts.kind(), columns, fields);
        } else {
            List<ColumnSurvey> usable = usable(facts, columns);
            // Accounts above their movements make a ledger, though each has a running balance of its own.
            boolean byAccount = facts.print() != null && facts.print().carriesAccounts();
            gives = wanted != null ? wanted : byAccount ? JournalLines.KIND : FieldGuess.kind(usable);
            if (gives != InvoiceLines.KIND) {
                bank = BankColumns.find(usable, sample, new Labels(beside), form(facts, usable));
                // A running balance makes bank lines, whatever the titles say; else a ledger has accounts.
                boolean fits = wanted != null ? wanted == BankLines.KIND : gives != JournalLines.KIND;
                if (bank != null && (fits || bank.relation != null && wanted == null && !byAccount)) {
                    gives = BankLines.KIND;
                    fields.putAll(bank.fields);
                } else {
                    bank = null;
                }
            }
            if (bank == null && gives != null) {
                fields.putAll(FieldGuess.fields(gives.table(), usable));
            }
            if (bank == null) {
                FieldGuess.byShape(gives == null ? BankLines.KIND : gives, usable, fields);
            }
        }
        Guess guess = new Guess(
                facts, sample, columns, until, gives, fields, null, AmountFormat.plain(2), bank, beside, questions);
        if (gives == null) {
            guess.ask("gives", "bank lines, journal lines or invoice lines? The titles do not tell");
        }
        guess.kinds(fields.get(InvoiceLines.DOCUMENT_KIND));
        guess.credits();
        boolean plain = own && facts.kind() != FileKind.QIF;
        DatePattern found = plain ? DatePattern.ISO : guess.findPattern();
        DatePattern pattern = found == null ? null : KnownFormats.around(guess.year(), found);
        AmountFormat numbers = plain ? AmountFormat.plain(Money.decimals(facts.currency())) : guess.findNumbers();
        return new Guess(
                facts, sample, columns, until, gives, fields, pattern, numbers, bank, beside, List.copyOf(questions));
    }

    private static List<ColumnSurvey> usable(Facts facts, List<ColumnSurvey> columns) {
        Facts.Print print = facts.print();
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

    // The form that most columns of figures have, for a first look.
    private static AmountFormat form(Facts facts, List<ColumnSurvey> columns) {
        long[] fits = new long[KnownFormats.AMOUNT_FORMS];
        for (ColumnSurvey column : columns) {
            if (column.type() == FieldType.AMOUNT || column.couldBeAmounts() && BankColumns.isMoney(column)) {
                for (int form = 0; form < fits.length; form++) {
                    fits[form] += column.amountFits(form);
                }
            }
        }
        int best = 0;
        for (int form = 1; form < fits.length; form++) {
            best = fits[form] > fits[best] ? form : best;
        }
        return KnownFormats.amounts(facts.currency()).get(best);
    }

    Refinement refinement() {
        return bank == null ? Refinement.NONE : bank.refinement();
    }

    private void ask(String about, String words) {
        questions.add(new Question(about, words));
    }

    /** True when the guess is enough to read records by. */
    boolean isWhole() {
        return gives != null && pattern != null;
    }

    /** True when two guesses read the same records. */
    boolean readsLike(Guess other) {
        return gives == other.gives
                && places().equals(other.places())
                && pattern != null
                && other.pattern != null
                && pattern.pattern().equals(other.pattern.pattern())
                && numbers.equals(other.numbers);
    }

    private Map<Field, Integer> places() {
        Map<Field, Integer> places = new LinkedHashMap<>();
        fields.forEach((field, column) -> places.put(field, column.place()));
        return places;
    }

    /** The layout by this guess, its signs as they are written. */
    Layout layout() {
        return Proposal.layout(facts, sample, this);
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
        ColumnSurvey figures = fields.getOrDefault(InvoiceLines.TOTAL, fields.get(InvoiceLines.NET));
        long[] range = figures == null ? null : figures.amounts();
        if (gives == InvoiceLines.KIND && range != null && range[0] < 0) {
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
                orders.putIfAbsent(pattern.pattern().replaceAll("[^dMu]", "").replaceAll("(.)\\1+", "$1"), pattern);
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
                : DatePattern.of(pattern.pattern() + dates.time(), KnownFormats.CENTURY_FROM);
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
        int chosen = -1;
        boolean asked = false;
        for (int form = 0; form < KnownFormats.AMOUNT_FORMS; form++) {
            int here = form;
            if (!amounts.stream().allMatch(c -> c.fittingAmounts()[here])) {
                continue;
            }
            if (chosen < 0) {
                chosen = form;
            } else if (sameMark(chosen, form)) {
                // Only the thousands differ: what reads more cells.
                chosen = fits(amounts, form) > fits(amounts, chosen) ? form : chosen;
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
