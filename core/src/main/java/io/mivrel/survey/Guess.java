package io.mivrel.survey;

import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.intake.StatementColumns;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceKind;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
        List<Question> questions) {

    static Guess of(Facts facts, Sample sample, List<ColumnSurvey> columns, String until) {
        List<Question> questions = new ArrayList<>();
        @Nullable Kind gives;
        Map<Field, ColumnSurvey> fields = new LinkedHashMap<>();
        boolean own = facts.kind().isStatement();
        if (own) {
            gives = BankLines.KIND;
            statement(facts.kind(), columns, fields);
        } else if (sample.titlesRow > 0 || sample.fixedTitles) {
            gives = FieldGuess.kind(columns);
            fields.putAll(gives == null ? Map.of() : FieldGuess.fields(gives.table(), columns));
        } else {
            gives = FieldGuess.kindByPlace(columns);
            fields.putAll(gives == null ? Map.of() : FieldGuess.fieldsByPlace(columns));
        }
        Guess guess = new Guess(facts, sample, columns, until, gives, fields, null, AmountFormat.plain(2), questions);
        if (gives == null) {
            guess.ask("gives", "bank lines, journal lines or invoice lines? The titles do not tell");
        }
        guess.kinds(fields.get(InvoiceLines.DOCUMENT_KIND));
        guess.credits();
        boolean plain = own && facts.kind() != FileKind.QIF;
        DatePattern pattern = plain ? DatePattern.ISO : guess.findPattern();
        AmountFormat numbers = plain ? AmountFormat.plain(Money.decimals(facts.currency())) : guess.findNumbers();
        return new Guess(facts, sample, columns, until, gives, fields, pattern, numbers, List.copyOf(questions));
    }

    private static void statement(FileKind kind, List<ColumnSurvey> columns, Map<Field, ColumnSurvey> fields) {
        Map<Field, FieldSource> usual = new LinkedHashMap<>(StatementColumns.fields(kind));
        usual.putIfAbsent(BankLines.DATE, FieldSource.column(StatementColumns.DATE));
        usual.forEach((field, source) -> fields.put(
                field, columns.get(StatementColumns.ALL.indexOf(source.columns().get(0)))));
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

    private @Nullable DatePattern findPattern() {
        ColumnSurvey dates = fields.entrySet().stream()
                .filter(e -> e.getKey().type() == FieldType.DATE && e.getKey().required())
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null);
        return dates(dates, questions);
    }

    /** How the dates of a column are written, with a question when more than one order fits; {@code null} for none. */
    static @Nullable DatePattern dates(@Nullable ColumnSurvey dates, List<Question> questions) {
        if (dates == null || dates.patterns().isEmpty()) {
            return null;
        }
        Map<String, DatePattern> orders = new LinkedHashMap<>();
        for (DatePattern pattern : dates.patterns()) {
            orders.putIfAbsent(pattern.pattern().replaceAll("[^dMu]", "").replaceAll("(.)\\1+", "$1"), pattern);
        }
        List<DatePattern> inOrder =
                orders.values().stream().filter(dates::isInOrder).toList();
        if (inOrder.size() == 1) {
            return inOrder.get(0);
        }
        if (orders.size() > 1) {
            questions.add(new Question(
                    "date",
                    String.join(
                                    " or ",
                                    orders.values().stream()
                                            .map(DatePattern::pattern)
                                            .toList())
                            + "? Every date fits "
                            + (orders.size() == 2 ? "both" : "all")));
        }
        return orders.values().iterator().next();
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
                amounts().stream().filter(c -> c.filled() > 0).toList();
        int chosen = -1;
        for (int form = 0; form < KnownFormats.AMOUNT_FORMS; form++) {
            int here = form;
            if (!amounts.stream().allMatch(c -> c.fittingAmounts()[here])) {
                continue;
            }
            if (chosen < 0) {
                chosen = form;
            } else if (differ(amounts, chosen, form)) {
                AmountFormat one = KnownFormats.amounts(facts.currency()).get(chosen);
                AmountFormat other = KnownFormats.amounts(facts.currency()).get(form);
                ask(
                        "numbers",
                        "decimal '" + one.decimalMark() + "' or decimal '" + other.decimalMark()
                                + "'? Every amount can be read both ways");
                break;
            }
        }
        if (chosen < 0) {
            ask("numbers", "'.' or ','? No single way of writing fits all the columns of amounts");
        }
        AmountFormat form = KnownFormats.amounts(facts.currency()).get(Math.max(chosen, 0));
        return new AmountFormat(
                Money.decimals(facts.currency()),
                form.decimalMark(),
                form.thousandsMark(),
                amounts.stream().anyMatch(ColumnSurvey::hasBrackets),
                amounts.stream().anyMatch(ColumnSurvey::hasTrailingMinus),
                form.currencyMark(),
                // By custom the side that is not marked is the usual one; the signs are proved or asked beside this.
                marks(amounts, true),
                marks(amounts, false));
    }

    private static String marks(List<ColumnSurvey> amounts, boolean plus) {
        boolean credit = amounts.stream().anyMatch(ColumnSurvey::hasCreditMarks);
        boolean debit = amounts.stream().anyMatch(ColumnSurvey::hasDebitMarks);
        // DR is plus and CR minus, as in a ledger; with DR alone the unmarked side is plus.
        return plus ? credit && debit ? "DR" : "" : credit ? "CR" : debit ? "DR" : "";
    }

    private static boolean differ(List<ColumnSurvey> amounts, int one, int other) {
        return amounts.stream().anyMatch(c -> c.amountHash(one) != c.amountHash(other));
    }
}
