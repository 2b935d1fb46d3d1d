package io.mivrel.report;

import io.mivrel.intake.StatementSpan;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.likeness.Comparison;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FillDown;
import io.mivrel.shape.PageHeads;
import io.mivrel.shape.Shape;
import io.mivrel.shape.Wrapped;
import io.mivrel.shape.Years;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Printable;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;

/** A survey on one screen: what the file is, its columns, what arithmetic says, and what only a person can say. */
public final class SurveyText {
    private static final int TITLE = 14;
    /** Different values of a column that are named. */
    private static final int FEW = 4;

    private static final int SAMPLES = 72;

    private final StringBuilder out = new StringBuilder();

    private SurveyText() {}

    /** The whole text, ending with a line end. */
    public static String of(Survey survey) {
        SurveyText text = new SurveyText();
        text.form(survey);
        text.columns(survey);
        text.proofs(survey);
        text.unused(survey);
        text.questions(survey);
        return text.out.toString();
    }

    /** What is different from the file that a layout was made for. */
    public static String likeness(Survey survey, Layout layout, Comparison comparison) {
        SurveyText text = new SurveyText();
        text.out
                .append('\n')
                .append(Finding.clip(survey.file()))
                .append(", compared with the layout '")
                .append(Finding.clip(layout.name()))
                .append("'\n\n");
        comparison.breaking().forEach(words -> text.line("breaks", Printable.of(words)));
        comparison.harmless().forEach(words -> text.line("harmless", Printable.of(words)));
        if (comparison.isLike()) {
            text.line("reads", "the layout reads this file: every column it uses is there and written as before");
        } else if (comparison.renamed().isEmpty()) {
            text.line("next", "correct the layout, or survey the file again with --write");
        }
        return text.out.toString();
    }

    private void line(String label, String words) {
        out.append(String.format(Locale.ROOT, "  %-11s %s%n", label, words));
    }

    private void form(Survey survey) {
        out.append('\n').append(Finding.clip(survey.file())).append("\n\n");
        FileProfile facts = survey.facts();
        line("kind", kind(facts));
        if (!facts.encodingWhy().isEmpty()) {
            line(
                    "encoding",
                    facts.encodingSure()
                            ? facts.encoding() + ": " + facts.encodingWhy()
                            : "undecided, read as " + facts.encoding() + " so far; see the question");
        }
        if (facts.print() != null) {
            print(facts.print());
        }
        survey.links().forEach(l -> line("linked", l.file() + ", whose columns are '" + l.name() + ".…' here"));
        // Of other files the proof says the same.
        for (StatementSpan span : facts.kind().isStatement() ? survey.statements() : List.<StatementSpan>of()) {
            statement(span, facts.currency());
        }
        rows(survey);
        gives(survey);
        if (survey.pattern() != null && (!facts.kind().isStatement() || facts.kind() == FileKind.QIF)) {
            line("dates", dates(survey));
        }
        if (!facts.kind().isStatement()) {
            amounts(survey.numbers());
        }
        out.append('\n');
    }

    private void rows(Survey survey) {
        boolean fixed = survey.facts().print() != null || survey.facts().kind().isStatement();
        String titles = fixed ? "" : survey.titlesRow() == 0 ? "no titles, " : "titles in " + titles(survey) + ", ";
        String above =
                survey.above() == 0 ? "" : count(survey.above(), "row") + (fixed ? " that are not data, " : " above, ");
        String blank = survey.blankRows() == 0 ? "" : ", " + count(survey.blankRows(), "blank row");
        String below = survey.below() == 0
                ? ""
                : ", " + count(survey.below(), "row") + " below"
                        + (survey.until().isEmpty() ? "" : " from '" + Finding.clip(survey.until()) + "' on");
        line(
                "rows",
                String.format(Locale.ROOT, "%,d: %s%s%,d of data", survey.rows(), titles, above, survey.dataRows())
                        + blank
                        + below);
    }

    private void gives(Survey survey) {
        line(
                "gives",
                survey.gives() == null
                        ? survey.why().isEmpty() ? "not told by the titles" : "not told: " + Printable.of(survey.why())
                        : survey.gives().name()
                                + (survey.why().isEmpty() ? "" : ": " + Printable.of(survey.why()))
                                + (survey.fanOut().isEmpty() ? "" : ", several from each row, as it sums to nil"));
    }

    private void amounts(AmountFormat numbers) {
        line(
                "amounts",
                "decimal '" + numbers.decimalMark() + "', thousands '" + numbers.thousandsMark() + "'"
                        + (numbers.brackets() ? ", minus in brackets" : "")
                        + (numbers.trailingMinus() ? ", minus behind" : "")
                        + (numbers.minusMark().isEmpty() ? "" : ", " + numbers.minusMark() + " behind for minus"));
    }

    private static String titles(Survey survey) {
        return survey.titleRows() == 1
                ? "row " + survey.titlesRow()
                : "rows " + (survey.titlesRow() - survey.titleRows() + 1) + "-" + survey.titlesRow();
    }

    private static String kind(FileProfile facts) {
        return switch (facts.kind()) {
            case SEPARATED -> "separated text, " + separator(facts.separator()) + ", line ends " + facts.lineEnds();
            case FIXED_WIDTH -> facts.words() + ", line ends " + facts.lineEnds();
            case WORKBOOK ->
                facts.words() + ", sheet '" + Finding.clip(facts.part()) + "'"
                        + (facts.parts().size() > 1 ? " of " + facts.parts().size() + " that hold rows" : "");
            default -> facts.words();
        };
    }

    private void print(FileProfile.Print print) {
        line(
                "columns",
                print.slices().stream()
                        .map(s -> s.name() + " " + s.from() + "-" + s.to())
                        .collect(Collectors.joining(", ")));
        print.shapes().forEach(this::shape);
        if (!print.filters().isEmpty()) {
            line(
                    "left out",
                    "lines with "
                            + print.filters().stream()
                                    .flatMap(f -> f.texts().stream())
                                    .map(text -> "'" + Finding.clip(text) + "'")
                                    .collect(Collectors.joining(", ")));
        }
    }

    private void shape(Shape shape) {
        if (shape instanceof CarryDown carry) {
            carry.headings()
                    .forEach(h -> line("carried", "lines that begin with '" + h.begins() + "' stand above their rows"));
        } else if (shape instanceof Years years) {
            line("years", "from the period behind '" + Finding.clip(years.period()) + "'; the dates have none");
        } else if (shape instanceof PageHeads heads) {
            line(
                    "pages",
                    "headings that begin with '" + Finding.clip(heads.begins().strip()) + "'");
        } else if (shape instanceof Wrapped wrapped) {
            line(
                    "wrapped",
                    "a row begins where " + String.join(" or ", wrapped.begins())
                            + " is filled, and goes on in the lines below");
        } else if (shape instanceof FillDown down) {
            line("filled down", String.join(", ", down.columns()) + " stands once for several rows");
        }
    }

    private void statement(StatementSpan span, Currency currency) {
        StringBuilder words = new StringBuilder(Finding.clip(span.name()));
        if (span.from() != null && span.to() != null) {
            words.append(", ").append(span.from()).append(" to ").append(span.to());
        }
        if (span.opening() != SourceRecord.ABSENT) {
            words.append(", opening ").append(Money.show(span.opening(), currency));
        }
        words.append(", movement ").append(Money.show(span.movement(), currency));
        if (span.closing() != SourceRecord.ABSENT) {
            words.append(", closing ").append(Money.show(span.closing(), currency));
        }
        line("statement", words.toString());
    }

    // The row that decides the order is the first that the other order does not fit.
    private static String dates(Survey survey) {
        String pattern = Objects.requireNonNull(survey.pattern()).pattern();
        if (survey.question("date") != null) {
            return "undecided: every date fits more than one order";
        }
        ColumnSurvey dates = survey.fields().entrySet().stream()
                .filter(e -> e.getKey().type() == FieldType.DATE)
                .map(Map.Entry::getValue)
                .findFirst()
                .orElseThrow();
        String other = pattern.replace("dd", "##").replace("MM", "dd").replace("##", "MM");
        if (other.equals(pattern) || pattern.contains("MMM") || pattern.startsWith("uu")) {
            return pattern;
        }
        ColumnSurvey.Oddity decides = dates.misfit(DatePattern.of(other, 1970));
        return pattern
                + (decides == null ? "" : ", decided by row " + decides.row() + ": " + Finding.clip(decides.value()));
    }

    private static String separator(char separator) {
        return switch (separator) {
            case ',' -> "commas";
            case ';' -> "semicolons";
            case '\t' -> "tabs";
            default -> "pipes";
        };
    }

    private static String count(long number, String what) {
        return String.format(Locale.ROOT, "%,d %s%s", number, what, number == 1 ? "" : "s");
    }

    private void columns(Survey survey) {
        out.append(String.format(
                Locale.ROOT,
                "  %2s  %-14s %-14s %-6s %9s %9s  %s%n",
                "",
                "title",
                "field",
                "holds",
                "filled",
                "blank",
                "smallest to largest: such as"));
        for (ColumnSurvey column : survey.columns()) {
            String field = survey.fields().entrySet().stream()
                    .filter(e -> e.getValue() == column)
                    .map(Map.Entry::getKey)
                    .map(Field::name)
                    .findFirst()
                    .orElseGet(() -> use(survey, Proposal.column(column)));
            out.append(String.format(
                    Locale.ROOT,
                    "  %2d  %-14s %-14s %-6s %,9d %,9d  %s%n",
                    column.place(),
                    cut(Finding.clip(column.title()), TITLE),
                    field,
                    column.filled() == 0 ? "" : column.type().word(),
                    column.filled(),
                    column.blank(),
                    cut(span(survey, column) + Finding.clip(String.join(" | ", column.samples())), SAMPLES)));
            List<ColumnSurvey.Oddity> odd = column.oddities();
            if (!odd.isEmpty()) {
                out.append(String.format(
                        Locale.ROOT,
                        "      odd: %s in row %d%s%n",
                        Finding.clip(odd.get(0).value()),
                        odd.get(0).row(),
                        odd.size() == 1 ? "" : ", and " + (odd.size() - 1) + " more"));
            }
        }
        out.append('\n');
    }

    // What a column is for that no field has as its first.
    private static String use(Survey survey, String column) {
        for (Map.Entry<Field, FieldSource> field : survey.refinement().sources().entrySet()) {
            FieldSource.Side side = field.getValue().side();
            if (side != null && side.column().equals(column)) {
                return "side";
            }
            if (field.getValue().columns().contains(column)) {
                return field.getKey().name();
            }
        }
        if (survey.refinement().filters().stream().anyMatch(f -> f.column().equals(column))) {
            return "leaves out";
        }
        if (survey.refinement().equations().stream()
                .anyMatch(sum -> sum.columns().contains(column))) {
            return "adds up";
        }
        if (column.equals(survey.refinement().whose().numberColumn())) {
            return "whose";
        }
        return survey.refinement().expectations().stream()
                        .anyMatch(f -> f.column().equals(column))
                ? "expected"
                : "-";
    }

    // Smallest and largest of dates and amounts.
    private static String span(Survey survey, ColumnSurvey column) {
        if (column.type() == FieldType.DATE && survey.pattern() != null && survey.question("date") == null) {
            long[] days = column.days(survey.pattern());
            return days == null ? "" : LocalDate.ofEpochDay(days[0]) + " to " + LocalDate.ofEpochDay(days[1]) + ": ";
        }
        long[] amounts =
                column.type() == FieldType.AMOUNT && survey.question("numbers") == null ? column.amounts() : null;
        return amounts == null
                ? ""
                : Money.show(amounts[0], survey.facts().currency()) + " to "
                        + Money.show(amounts[1], survey.facts().currency()) + ": ";
    }

    private static String cut(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "~";
    }

    private void proofs(Survey survey) {
        for (Proof proof : survey.proofs()) {
            line(proof.holds() ? "proved" : "not proved", proof.words());
        }
        if (survey.proofs().isEmpty()) {
            line("not proved", "nothing in the file proves this reading");
        }
    }

    // Each filled column that nothing takes, with what it seems to be: none is passed over without a word.
    private void unused(Survey survey) {
        List<String> named = new ArrayList<>();
        for (ColumnSurvey column : survey.columns()) {
            boolean taken = survey.fields().containsValue(column)
                    || !use(survey, Proposal.column(column)).equals("-");
            if (column.filled() > 0
                    && !taken
                    && survey.gives() != null
                    && !column.title().equals("line")) {
                List<String> few = column.fewValues();
                String seems = few.isEmpty() || few.size() > FEW
                        ? column.type().word()
                        : (few.size() == 1 ? "always " : "one of ") + "'" + String.join("', '", few) + "'";
                named.add("'" + Proposal.column(column) + "' (" + seems + ")");
            }
        }
        if (!named.isEmpty() && survey.fanOut().isEmpty()) {
            line("not used", Printable.of(String.join(", ", named)));
        }
    }

    private void questions(Survey survey) {
        for (Question question : survey.open()) {
            line("question", question.about() + ": " + Printable.of(question.words()));
        }
        if (survey.open().isEmpty()) {
            line("questions", "none");
        }
    }
}
