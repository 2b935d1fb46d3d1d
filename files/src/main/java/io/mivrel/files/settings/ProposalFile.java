package io.mivrel.files.settings;

import io.mivrel.cells.AmountFormat;
import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.InvoiceLines;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Question;
import java.util.List;
import java.util.Map;

/** Writes the layout that a survey proposes, as a person would write it; what the file does not tell stays a question. */
public final class ProposalFile {
    private static final Map<Character, String> SEPARATORS =
            Map.of(',', "comma", ';', "semicolon", '\t', "tab", '|', "pipe");

    private ProposalFile() {}

    /** The YAML text. A value that begins with a question mark must be answered before a run takes the layout. */
    public static String text(Survey survey) {
        StringBuilder yaml = new StringBuilder();
        yaml.append("# Proposed by a survey of ")
                .append(Finding.clip(survey.file()))
                .append(". Read it, then use it.\n");
        if (!survey.questions().isEmpty()) {
            yaml.append("# A value that begins with a question mark is a question: put the answer in its place.\n");
        }
        for (Survey.Proof proof : survey.proofs()) {
            yaml.append(proof.holds() ? "# Proved: " : "# Not proved: ")
                    .append(proof.words())
                    .append('\n');
        }
        yaml.append("layout: ").append(quoted(survey.file())).append('\n');
        Question gives = survey.question("gives");
        yaml.append("gives: ")
                .append(gives != null ? asked(gives) : survey.gives().name())
                .append('\n');
        if (survey.gives() == BankLines.TABLE) {
            yaml.append("account: ").append(asked(survey.question("account"))).append('\n');
        }
        Question signs = survey.question("signs");
        if (signs != null || survey.signsReversed()) {
            yaml.append("signs: ")
                    .append(signs != null ? asked(signs) : "reversed")
                    .append('\n');
        }
        file(survey, yaml);
        numbers(survey, yaml);
        fields(survey, yaml);
        return yaml.toString();
    }

    private static void file(Survey survey, StringBuilder yaml) {
        Question encoding = survey.question("encoding");
        yaml.append("file:\n  kind: separated\n  separator: ")
                .append(SEPARATORS.get(survey.text().separator()))
                .append("\n  encoding: ")
                .append(encoding != null ? asked(encoding) : survey.text().encoding())
                .append("                # ")
                .append(survey.text().encodingWhy())
                .append("\n  titles: ")
                .append(survey.titlesRow() == 0 ? "none" : "row " + survey.titlesRow())
                .append('\n');
        if (survey.titlesRow() == 0 && survey.above() > 0) {
            yaml.append("  data from: row ").append(survey.above() + 1).append('\n');
        }
        if (!survey.until().isEmpty()) {
            yaml.append("  until: ").append(quoted(survey.until())).append('\n');
        }
        if (survey.newestFirst()) {
            yaml.append("  order: newest first\n");
        }
    }

    private static void numbers(Survey survey, StringBuilder yaml) {
        AmountFormat form = survey.numbers();
        Question question = survey.question("numbers");
        String negative = form.brackets() && form.trailingMinus()
                ? "any"
                : form.brackets() ? "brackets" : form.trailingMinus() ? "trailing minus" : "minus";
        yaml.append("numbers: {decimal: ")
                .append(question != null ? asked(question) : quoted(String.valueOf(form.decimalMark())))
                .append(", thousands: ")
                .append(quoted(String.valueOf(form.thousandsMark())))
                .append(", negative: ")
                .append(negative)
                .append(form.currencyMark().isEmpty() ? "" : ", currency mark: " + quoted(form.currencyMark()))
                .append("}\n");
    }

    private static void fields(Survey survey, StringBuilder yaml) {
        yaml.append("fields:\n");
        survey.fields()
                .forEach((field, column) -> yaml.append("  ")
                        .append(field.name())
                        .append(": {column: ")
                        .append(column(column))
                        .append(pattern(survey, field))
                        .append(values(survey, field))
                        .append("}\n"));
        List<String> unused = survey.columns().stream()
                .filter(c -> !survey.fields().containsValue(c) && !c.title().isEmpty())
                .map(c -> quoted(c.title()))
                .toList();
        if (!unused.isEmpty()) {
            yaml.append("unused: [").append(String.join(", ", unused)).append("]\n");
        }
    }

    private static String column(ColumnSurvey column) {
        String name = Proposal.column(column);
        return name.startsWith("#") ? name.substring(1) : quoted(name);
    }

    private static String pattern(Survey survey, Field field) {
        if (field.type() != FieldType.DATE) {
            return "";
        }
        Question question = survey.question("date");
        String pattern = survey.pattern() == null ? "" : survey.pattern().pattern();
        boolean shortYear = pattern.replace("uuuu", "").contains("uu");
        return ", pattern: " + (question != null ? asked(question) : quoted(pattern))
                + (shortYear ? ", century from: 1970" : "");
    }

    private static String values(Survey survey, Field field) {
        Question question = survey.question("kind");
        return field == InvoiceLines.KIND && question != null ? ", values: " + asked(question) : "";
    }

    private static String asked(Question question) {
        return quoted("? " + question.words());
    }

    private static String quoted(String text) {
        StringBuilder quoted = new StringBuilder("\"");
        text.chars().forEach(c -> {
            if (c == '"' || c == '\\') {
                quoted.append('\\').append((char) c);
            } else if (c < ' ' || c >= 0x7F && c < 0xA0 || c == 0x2028 || c == 0x2029 || c == 0xFEFF) {
                quoted.append(String.format("\\u%04x", c));
            } else {
                quoted.append((char) c);
            }
        });
        return quoted.append('"').toString();
    }
}
