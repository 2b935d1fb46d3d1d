package io.mivrel.survey;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowFault;
import io.mivrel.intake.RowSource;
import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.InvoiceKind;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.JournalLines;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.survey.Survey.Question;
import io.mivrel.survey.Survey.TextFacts;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Surveys one file: its titles from the first rows, its columns from all of them, then the proof. For one thread. */
public final class Surveyor {
    private static final int SAMPLE = 500;
    /** Rows without a date that may stand below the data before they count as data. */
    private static final int TAIL = 50;

    private static final int MOST_COLUMNS = 400;

    /** Opens the rows of the file anew. */
    public interface Opener {
        RowSource open() throws IOException;
    }

    private record Sampled(long number, List<String> cells) {}

    private final String file;
    private final TextFacts text;
    private final Opener opener;
    private final List<ColumnSurvey> columns = new ArrayList<>();
    private final List<Question> questions = new ArrayList<>();
    private final Deque<Sampled> tail = new ArrayDeque<>();
    private int width;
    private int widest;
    private int titlesRow;
    private long firstRow;
    private int dateColumn = -1;
    private long rows;
    private long above;
    private long dataRows;
    private long blankRows;
    private long faults;
    private String firstFault;

    public Surveyor(String file, TextFacts text, Opener opener) {
        this.file = file;
        this.text = text;
        this.opener = opener;
    }

    public Survey survey() throws IOException {
        findTitles();
        readAll();
        FieldTable gives = titlesRow > 0 ? FieldGuess.table(columns) : FieldGuess.tableByPlace(columns);
        Map<Field, ColumnSurvey> fields = new LinkedHashMap<>();
        if (gives != null) {
            fields.putAll(titlesRow > 0 ? FieldGuess.fields(gives, columns) : FieldGuess.fieldsByPlace(columns));
        } else {
            ask("gives", "bank lines, journal lines or invoice lines? The titles do not tell");
        }
        kinds(fields.get(InvoiceLines.KIND));
        DatePattern pattern = pattern(fields);
        AmountFormat numbers = numbers(fields);
        String until = tail.isEmpty() ? "" : until(tail.peekFirst());
        Survey proposal = new Survey(
                file,
                text,
                rows,
                above,
                titlesRow,
                dataRows,
                blankRows,
                tail.size(),
                until,
                columns,
                gives,
                fields,
                pattern,
                numbers,
                false,
                false,
                List.of(),
                List.of());
        return proved(proposal);
    }

    private void ask(String about, String words) {
        questions.add(new Question(about, words));
    }

    // The file's own words for the kinds of documents need a translation.
    private void kinds(ColumnSurvey kinds) {
        if (kinds != null && kinds.fewValues().stream().anyMatch(word -> InvoiceKind.of(word) == null)) {
            ask(
                    "kind",
                    "which of " + String.join(", ", kinds.fewValues()) + " is " + String.join(", ", InvoiceKind.words())
                            + "? Write it as {INV: invoice}");
        }
    }

    private void findTitles() throws IOException {
        List<Sampled> sample = new ArrayList<>();
        try (RowSource source = opener.open()) {
            for (Row row = source.next(); row != null && sample.size() < SAMPLE; row = source.next()) {
                sample.add(new Sampled(row.number(), cells(row)));
            }
        }
        Map<Integer, Integer> sizes = new HashMap<>();
        for (Sampled row : sample) {
            if (row.cells.size() > 1) {
                sizes.merge(row.cells.size(), 1, Integer::sum);
            }
        }
        widest = sizes.entrySet().stream()
                .max(Map.Entry.<Integer, Integer>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(1);
        width = Math.min(widest, MOST_COLUMNS);
        Sampled first = sample.stream().filter(this::isFull).findFirst().orElse(null);
        boolean titled = first != null && areTitles(first.cells);
        titlesRow = titled ? (int) first.number : 0;
        firstRow = first == null ? 1 : titled ? first.number + 1 : first.number;
        for (int i = 0; i < width; i++) {
            columns.add(new ColumnSurvey(i + 1, titled ? first.cells.get(i) : ""));
        }
        List<ColumnSurvey> trial = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            ColumnSurvey column = new ColumnSurvey(i + 1, "");
            for (Sampled row : sample) {
                if (row.number >= firstRow && row.cells.size() == widest) {
                    column.add(row.number, row.cells.get(i));
                }
            }
            trial.add(column);
        }
        for (int i = 0; i < width && dateColumn < 0; i++) {
            dateColumn = trial.get(i).type() == FieldType.DATE ? i : -1;
        }
    }

    private boolean isFull(Sampled row) {
        return row.cells.size() == widest
                && row.cells.stream().filter(c -> !c.isEmpty()).count() * 2 > widest;
    }

    // Titles are words: no dates, no figures, none twice.
    private static boolean areTitles(List<String> cells) {
        Set<String> seen = new LinkedHashSet<>();
        for (String cell : cells) {
            boolean words = !isDate(cell)
                    && (cell.chars().anyMatch(Character::isLetter)
                            || cell.chars().noneMatch(Character::isDigit));
            if (!words || !cell.isEmpty() && !seen.add(cell)) {
                return false;
            }
        }
        return true;
    }

    private static boolean isDate(String cell) {
        return Forms.DATES.stream().anyMatch(p -> DatePattern.isDate(p.parse(cell)));
    }

    private static List<String> cells(Row row) {
        List<String> cells = new ArrayList<>(row.size());
        for (int i = 0; i < row.size(); i++) {
            cells.add(row.trimmed(i));
        }
        return cells;
    }

    private void readAll() throws IOException {
        try (RowSource source = opener.open()) {
            for (Row row = source.next(); row != null; row = source.next()) {
                rows++;
                if (row.fault() == RowFault.NOT_TEXT) {
                    throw new IOException(file + ": is no text; a survey reads separated text");
                }
                if (row.fault() != null) {
                    faults++;
                    firstFault = firstFault == null
                            ? "row " + row.number() + " " + row.fault().reason()
                            : firstFault;
                } else if (row.number() < firstRow) {
                    above += titlesRow == row.number() ? 0 : 1;
                } else if (row.isBlank()) {
                    blankRows++;
                } else {
                    take(new Sampled(row.number(), cells(row)));
                }
            }
        }
    }

    private void take(Sampled row) {
        boolean dated = dateColumn < 0 || dateColumn < row.cells.size() && isDated(row.cells.get(dateColumn));
        if (row.cells.size() == widest && dated) {
            tail.forEach(this::profile);
            tail.clear();
            profile(row);
        } else {
            tail.add(row);
            if (tail.size() > TAIL) {
                profile(tail.remove());
            }
        }
    }

    // Something with figures in the place of a date is data, though perhaps wrong.
    private static boolean isDated(String cell) {
        int digits = 0;
        for (int i = 0; i < cell.length(); i++) {
            digits += Character.isDigit(cell.charAt(i)) ? 1 : 0;
        }
        return digits >= 2 && digits <= 10 && cell.length() <= 40;
    }

    private void profile(Sampled row) {
        dataRows++;
        for (int i = 0; i < width && i < row.cells.size(); i++) {
            columns.get(i).add(row.number, row.cells.get(i));
        }
    }

    private static String until(Sampled row) {
        return row.cells.stream()
                .filter(c -> !c.isEmpty() && Character.isLetter(c.charAt(0)))
                .findFirst()
                .orElse("");
    }

    private DatePattern pattern(Map<Field, ColumnSurvey> fields) {
        ColumnSurvey dates = fields.entrySet().stream()
                .filter(e -> e.getKey().type() == FieldType.DATE && e.getKey().required())
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(null);
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
            ask(
                    "date",
                    String.join(
                                    " or ",
                                    orders.values().stream()
                                            .map(DatePattern::pattern)
                                            .toList())
                            + "? Every date fits "
                            + (orders.size() == 2 ? "both" : "all"));
        }
        return orders.values().iterator().next();
    }

    private AmountFormat numbers(Map<Field, ColumnSurvey> fields) {
        List<ColumnSurvey> amounts = fields.entrySet().stream()
                .filter(e -> e.getKey().type() == FieldType.AMOUNT || e.getKey().type() == FieldType.DECIMAL)
                .map(Map.Entry::getValue)
                .filter(c -> c.filled() > 0)
                .toList();
        int chosen = -1;
        for (int form = 0; form < Forms.AMOUNTS.size(); form++) {
            int here = form;
            if (!amounts.stream().allMatch(c -> c.fittingAmounts()[here])) {
                continue;
            }
            if (chosen < 0) {
                chosen = form;
            } else if (differ(amounts, chosen, form)) {
                AmountFormat one = Forms.AMOUNTS.get(chosen);
                AmountFormat other = Forms.AMOUNTS.get(form);
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
        AmountFormat form = Forms.AMOUNTS.get(Math.max(chosen, 0));
        return new AmountFormat(
                2,
                form.decimalMark(),
                form.thousandsMark(),
                amounts.stream().anyMatch(ColumnSurvey::hasBrackets),
                amounts.stream().anyMatch(ColumnSurvey::hasTrailingMinus),
                form.currencyMark());
    }

    private static boolean differ(List<ColumnSurvey> amounts, int one, int other) {
        return amounts.stream().anyMatch(c -> c.amountHash(one) != c.amountHash(other));
    }

    private Survey proved(Survey proposal) throws IOException {
        if (proposal.gives() != null && proposal.pattern() == null) {
            ask("date", "which column holds the date, and by which pattern? None was found by its title");
        }
        if (proposal.gives() == null || proposal.pattern() == null) {
            return finished(proposal, false, false, List.of());
        }
        Layout layout = Proposal.layout(proposal);
        try (RowSource source = opener.open()) {
            Trial trial = Trial.of(layout, file, source);
            boolean bank = proposal.gives() == BankLines.TABLE;
            if (bank) {
                ask("account", "which account of the books do these lines belong to?");
            }
            if (!trial.provesSigns() && signsMatter(proposal)) {
                ask(
                        "signs",
                        bank
                                ? "as written or reversed? Nothing proves that money in is positive here"
                                : "as written or reversed? Sums to nil do not tell that debit is positive here");
            }
            return finished(proposal, trial.newestFirst(), trial.reversed(), trial.proofs());
        }
    }

    // Two columns that are named for what they hold need no proof of their signs.
    private static boolean signsMatter(Survey proposal) {
        if (proposal.fields().containsKey(BankLines.AMOUNT) || proposal.fields().containsKey(JournalLines.AMOUNT)) {
            return true;
        }
        ColumnSurvey in = proposal.fields().get(BankLines.MONEY_IN);
        return in != null && in.title().toLowerCase(Locale.ROOT).matches(".*(credit|haben).*");
    }

    private Survey finished(Survey s, boolean newestFirst, boolean reversed, List<Proof> proofs) {
        if (!text.encodingSure()) {
            ask("encoding", text.encodingWhy());
        }
        List<Proof> all = new ArrayList<>(proofs);
        if (faults > 0) {
            all.add(
                    0,
                    new Proof(
                            false,
                            faults + (faults == 1 ? " row" : " rows") + " cannot be divided into cells: "
                                    + firstFault));
        }
        if (widest > MOST_COLUMNS) {
            all.add(
                    0,
                    new Proof(false, "of " + widest + " columns only the first " + MOST_COLUMNS + " were looked at"));
        }
        return new Survey(
                s.file(),
                s.text(),
                s.rows(),
                s.above(),
                s.titlesRow(),
                s.dataRows(),
                s.blankRows(),
                s.below(),
                s.until(),
                s.columns(),
                s.gives(),
                s.fields(),
                s.pattern(),
                s.numbers(),
                newestFirst,
                reversed,
                List.copyOf(all),
                List.copyOf(questions));
    }
}
