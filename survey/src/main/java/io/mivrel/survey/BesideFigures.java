package io.mivrel.survey;

import io.mivrel.layout.FigureLabels;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * The figures that a file states beside its rows, above, below or between them, and what each of them is: by its label, and
 * where that is not known by what the rows come to. For one thread.
 */
final class BesideFigures {
    /** What a figure can be. */
    enum Role {
        OPENING,
        CLOSING,
        IN,
        OUT,
        COUNT
    }

    /** A figure, and the words before it that will stand there next month too. */
    static final class Figure {
        final String label;
        final long value;
        private final boolean whole;
        private final String written;
        final boolean owed;

        @Nullable
        Role role;

        Figure(String label, long value, String written) {
            this.label = label;
            this.value = value;
            this.written = written;
            this.whole = written.chars().allMatch(Character::isDigit);
            this.owed = TradeWords.longest("owed", label.replaceAll("[()\\[\\]]", " ")) > 0
                    || fits("opening-owed", label)
                    || fits("closing-owed", label);
        }
    }

    /** As in {@code 61 transactions}. */
    private static final Pattern COUNTED = Pattern.compile("(\\d{1,9}) (\\D+)");

    private final List<Figure> all = new ArrayList<>();
    private final boolean headedOwed;

    /** {@code answers} may say the labels of the opening and of the closing balance. */
    BesideFigures(Collection<Sample.Kept> rows, Sample sample, AmountFormat form, Answers answers) {
        boolean owed = false;
        for (Sample.Kept row : rows) {
            List<String> cells = row.cells();
            int before = all.size();
            for (int i = 0; i < cells.size(); i++) {
                String cell = cells.get(i);
                owed |= cell.indexOf(' ') > 0 && TradeWords.longest("owed", cell) >= 6;
                Matcher counted = COUNTED.matcher(cell);
                if (counted.matches() && TradeWords.is("count", counted.group(2))) {
                    all.add(new Figure(counted.group(2), Long.parseLong(counted.group(1)), counted.group(1)));
                } else if (!cell.isEmpty() && Character.isLetter(cell.codePointAt(0))) {
                    take(cells, i, form);
                }
            }
            if (sample.isOfData(row)) {
                // It was cut off, or states a balance on a day.
                all.subList(before, all.size()).removeIf(figure -> role(figure) == null);
            }
        }
        headedOwed = owed;
        byLabels();
        for (Role role : List.of(Role.OPENING, Role.CLOSING)) {
            all.stream()
                    .filter(figure -> figure.label.equals(answers.of(role.name().toLowerCase(Locale.ROOT))))
                    .forEach(figure -> figure.role = role);
        }
    }

    // In the same cell, behind a colon or a blank, or in the next cell that holds a figure.
    private void take(List<String> cells, int at, AmountFormat form) {
        String cell = cells.get(at);
        String label = label(cell);
        if (label.isEmpty()) {
            return;
        }
        String rest = cell.substring(label.length());
        String behind = rest.substring(rest.lastIndexOf(':') + 1).strip();
        String last = rest.strip().substring(rest.strip().lastIndexOf(' ') + 1);
        for (String text : List.of(behind, last)) {
            if (isFigure(text, form)) {
                add(label, text, form);
                return;
            }
        }
        for (int next = at + 1; next < cells.size(); next++) {
            String text = cells.get(next);
            if (isFigure(text, form)) {
                add(label, text, form);
                return;
            }
            boolean between = text.isEmpty()
                    || StatedCurrency.ofCode(text) != null
                    || text.chars().filter(Character::isDigit).count() >= 6;
            if (!between) {
                return;
            }
        }
    }

    private void add(String label, String text, AmountFormat form) {
        long value = Figures.read(text, form);
        all.add(new Figure(label, value, text));
    }

    /** How a row begins that adds up those above it, and will next month too; empty for another row. */
    static String total(Sample.Kept row) {
        String first =
                row.cells().stream().filter(c -> !c.isEmpty()).findFirst().orElse("");
        String label = label(first);
        String word = first.split("[ :]", 2)[0];
        return TradeWords.is("total", label) ? label : TradeWords.is("total", word) ? word : "";
    }

    // Numbers of accounts and days are none.
    private static boolean isFigure(String text, AmountFormat form) {
        boolean whole = text.chars().allMatch(Character::isDigit);
        return !text.isEmpty() && !(whole && text.length() > 8) && Figures.read(text, form) != SourceRecord.ABSENT;
    }

    // What stands before the first figure or colon.
    private static String label(String cell) {
        int end = 0;
        while (end < cell.length() && cell.charAt(end) != ':' && !Character.isDigit(cell.charAt(end))) {
            end++;
        }
        String label = cell.substring(0, end).strip();
        while (label.endsWith("-") || label.endsWith("(") || label.endsWith("+") || label.endsWith("=")) {
            label = label.substring(0, label.length() - 1).strip();
        }
        return label;
    }

    private static boolean fits(String meaning, String label) {
        return TradeWords.is(meaning, label) || TradeWords.begins(meaning, label);
    }

    private void byLabels() {
        Figure dated = null;
        for (Figure figure : all) {
            figure.role = role(figure);
            boolean bare = figure.role == null && !figure.whole && fits("balance", figure.label);
            // A balance under two days: the first stands before the rows.
            if (bare && dated == null) {
                dated = figure;
            } else if (bare && dated != null && dated.label.equals(figure.label)) {
                dated.role = Role.OPENING;
                figure.role = Role.CLOSING;
            }
        }
    }

    private static @Nullable Role role(Figure figure) {
        String label = figure.label;
        if (figure.whole && (TradeWords.is("count", label) || TradeWords.begins("count", label))) {
            return Role.COUNT;
        }
        if (fits("opening-owed", label) || fits("opening", label)) {
            return Role.OPENING;
        }
        if (fits("closing-owed", label) || fits("closing", label)) {
            return Role.CLOSING;
        }
        if (TradeWords.longest("total", label) > 0 || TradeWords.longest("turnover", label) > 0) {
            int in = Math.max(TradeWords.longest("in", label), TradeWords.longest("credit", label));
            int out = Math.max(TradeWords.longest("out", label), TradeWords.longest("debit", label));
            return in > out ? Role.IN : out > in ? Role.OUT : null;
        }
        return null;
    }

    /** The figure of a role; {@code null} when none has it. Of several that of the closing balance is the last. */
    @Nullable
    Figure of(Role role) {
        Figure found = null;
        for (Figure figure : all) {
            if (figure.role == role && (found == null || role == Role.CLOSING)) {
                found = figure;
            }
        }
        return found;
    }

    long value(Role role) {
        Figure figure = of(role);
        return figure == null ? SourceRecord.ABSENT : figure.value;
    }

    /** True when balances beside the rows are called what is owed. */
    boolean owed() {
        Figure opening = of(Role.OPENING);
        Figure closing = of(Role.CLOSING);
        return headedOwed || opening != null && opening.owed || closing != null && closing.owed;
    }

    /**
     * Finds out what figures without a known label are, by what the rows come to: amounts as the books see them.
     *
     * @param opening the balance before the rows as the balances beside them say, and {@code closing} after them; absent when
     *     they have none
     */
    void explain(long[] amounts, long opening, long closing) {
        long in = 0;
        long out = 0;
        for (long amount : amounts) {
            in += amount == SourceRecord.ABSENT ? 0 : Math.max(amount, 0);
            out += amount == SourceRecord.ABSENT ? 0 : Math.max(-amount, 0);
        }
        boolean sided = in != out;
        for (Figure figure : all) {
            if (figure.role == null && !figure.whole) {
                long value = Math.abs(figure.value);
                if (opening != SourceRecord.ABSENT && isFree(Role.OPENING, figure.value, opening)) {
                    figure.role = Role.OPENING;
                } else if (closing != SourceRecord.ABSENT && isFree(Role.CLOSING, figure.value, closing)) {
                    figure.role = Role.CLOSING;
                } else if (sided && in != 0 && isFree(Role.IN, value, in)) {
                    figure.role = Role.IN;
                } else if (sided && out != 0 && isFree(Role.OUT, value, out)) {
                    figure.role = Role.OUT;
                }
            }
        }
        if (opening == SourceRecord.ABSENT && of(Role.OPENING) == null && of(Role.CLOSING) == null) {
            pair(in - out);
        }
    }

    private boolean isFree(Role role, long value, long reckoned) {
        return value == reckoned && of(role) == null;
    }

    // Two balances, of which the rows lead from the first to the second.
    private void pair(long moved) {
        for (Figure one : all) {
            for (Figure other : all) {
                if (one != other
                        && one.role == null
                        && other.role == null
                        && moved != 0
                        && !one.label.equals(other.label)
                        && one.value + moved == other.value
                        && one.value != 0) {
                    one.role = Role.OPENING;
                    other.role = Role.CLOSING;
                    return;
                }
            }
        }
    }

    /** Figures that nothing explains, each with its label. */
    List<String> unexplained() {
        return all.stream()
                .filter(f -> f.role == null && !f.whole)
                .map(f -> "'" + f.label + "' " + f.written)
                .distinct()
                .toList();
    }

    /** The labels, to be compared in each run. */
    FigureLabels stated(boolean owed) {
        return new FigureLabels(label(Role.OPENING), label(Role.CLOSING), owed)
                .turningOver(label(Role.IN), label(Role.OUT), label(Role.COUNT));
    }

    /** True for a row that begins with one of the labels. */
    boolean holds(Sample.Kept row) {
        for (Role role : Role.values()) {
            String label = label(role);
            if (label != null
                    && row.cells().stream()
                            .anyMatch(cell -> cell.startsWith(label) || role == Role.COUNT && cell.endsWith(label))) {
                return true;
            }
        }
        return false;
    }

    private @Nullable String label(Role role) {
        Figure figure = of(role);
        return figure == null ? null : figure.label;
    }
}
