package io.mivrel.report;

import io.mivrel.cells.DatePattern;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.survey.Survey.Question;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** A survey on one screen: what the file is, its columns, what arithmetic says, and what only a person can say. */
public final class SurveyText {
    private static final int TITLE = 14;
    private static final int SAMPLES = 42;

    private final StringBuilder out = new StringBuilder();

    private SurveyText() {}

    /** The whole text, ending with a line end. */
    public static String of(Survey survey) {
        SurveyText text = new SurveyText();
        text.form(survey);
        text.columns(survey);
        text.proofs(survey);
        text.questions(survey);
        return text.out.toString();
    }

    private void line(String label, String words) {
        out.append(String.format(Locale.ROOT, "  %-11s %s%n", label, words));
    }

    private void form(Survey survey) {
        out.append('\n').append(Finding.clip(survey.file())).append("\n\n");
        line(
                "kind",
                "separated text, " + separator(survey.text().separator()) + ", line ends "
                        + survey.text().lineEnds());
        line("encoding", survey.text().encoding() + ": " + survey.text().encodingWhy());
        String titles = survey.titlesRow() == 0 ? "no titles" : "titles in row " + survey.titlesRow();
        String above = survey.above() == 0 ? "" : ", " + count(survey.above(), "row") + " above";
        String blank = survey.blankRows() == 0 ? "" : ", " + count(survey.blankRows(), "blank row");
        String below = survey.below() == 0
                ? ""
                : ", " + count(survey.below(), "row") + " below"
                        + (survey.until().isEmpty() ? "" : " from '" + Finding.clip(survey.until()) + "' on");
        line(
                "rows",
                String.format(Locale.ROOT, "%,d: %s%s, %,d of data", survey.rows(), titles, above, survey.dataRows())
                        + blank
                        + below);
        line(
                "gives",
                survey.gives() == null
                        ? "not told by the titles"
                        : survey.gives().name());
        if (survey.pattern() != null) {
            line("dates", dates(survey));
        }
        line(
                "amounts",
                "decimal '" + survey.numbers().decimalMark() + "', thousands '"
                        + survey.numbers().thousandsMark() + "'"
                        + (survey.numbers().brackets() ? ", minus in brackets" : "")
                        + (survey.numbers().trailingMinus() ? ", minus behind" : ""));
        out.append('\n');
    }

    // The row that decides the order is the first that the other order does not fit.
    private static String dates(Survey survey) {
        String pattern = survey.pattern().pattern();
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
                "  %2s  %-14s %-10s %-6s %8s %7s  %s%n",
                "",
                "title",
                "field",
                "holds",
                "filled",
                "blank",
                "such as"));
        for (ColumnSurvey column : survey.columns()) {
            String field = survey.fields().entrySet().stream()
                    .filter(e -> e.getValue() == column)
                    .map(Map.Entry::getKey)
                    .map(Field::name)
                    .findFirst()
                    .orElse("-");
            out.append(String.format(
                    Locale.ROOT,
                    "  %2d  %-14s %-10s %-6s %,8d %,7d  %s%n",
                    column.place(),
                    cut(Finding.clip(column.title()), TITLE),
                    field,
                    column.filled() == 0 ? "" : column.type().word(),
                    column.filled(),
                    column.blank(),
                    cut(Finding.clip(String.join(" | ", column.samples())), SAMPLES)));
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

    private void questions(Survey survey) {
        for (Question question : survey.questions()) {
            line("question", question.about() + ": " + Finding.clean(question.words()));
        }
        if (survey.questions().isEmpty()) {
            line("questions", "none");
        }
    }
}
