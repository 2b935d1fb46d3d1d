package io.mivrel.survey.settings;

import static io.mivrel.files.settings.Quoted.quoted;

import io.mivrel.files.settings.Quoted;
import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Signs;
import io.mivrel.intake.Stated;
import io.mivrel.intake.Terms;
import io.mivrel.intake.Whose;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowOrder;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.FillDown;
import io.mivrel.shape.Link;
import io.mivrel.shape.PageHeads;
import io.mivrel.shape.Shape;
import io.mivrel.shape.Wrapped;
import io.mivrel.shape.Years;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Facts;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** Writes the layout that a survey proposes, as a person would write it; what the file does not tell stays a question. */
public final class ProposalFile {
    private static final Map<Character, String> SEPARATORS =
            Map.of(',', "comma", ';', "semicolon", '\t', "tab", '|', "pipe");

    /** The answer that nothing is taken off. */
    private static final String NONE = Survey.NOT_POSTED;

    private ProposalFile() {}

    /** The YAML text. A value that begins with a question mark must be answered before a run takes the layout. */
    public static String text(Survey survey) {
        StringBuilder yaml = new StringBuilder();
        remarks(survey, yaml);
        yaml.append("layout: ").append(quoted(survey.file())).append('\n');
        Question gives = survey.question("gives");
        yaml.append("gives: ")
                .append(gives != null ? asked(gives) : survey.gives().name())
                .append('\n');
        if (survey.gives() != null && survey.gives().isOfAccount()) {
            Question account = survey.question("account");
            yaml.append("account: ")
                    .append(account != null ? asked(account) : Layout.BY_NUMBER + "     # each statement names its own")
                    .append('\n');
        }
        Question signs = survey.question("signs");
        if (signs != null || survey.refinement().signs() != Signs.AS_WRITTEN) {
            yaml.append("signs: ")
                    .append(
                            signs != null
                                    ? asked(signs)
                                    : survey.refinement().signs().word())
                    .append('\n');
        }
        Question credits = survey.question("credits");
        if (credits != null) {
            yaml.append("credits: ").append(asked(credits)).append('\n');
        }
        file(survey, yaml);
        boolean says = survey.facts().kind().isStatement();
        if (!says || survey.facts().kind() == FileKind.QIF) {
            numbers(survey, yaml);
        }
        stated(survey, Proposal.stated(survey.facts(), survey.refinement()), yaml);
        whose(survey.refinement().whose(), yaml);
        sections(survey, yaml);
        leftOut(survey, yaml);
        expected(survey, yaml);
        equations(survey, yaml);
        allow(survey, yaml);
        links(survey, yaml);
        fanOut(survey, yaml);
        if (!says) {
            fields(survey, yaml);
        } else if (survey.facts().kind() == FileKind.QIF) {
            yaml.append("fields:\n  date: {column: date")
                    .append(pattern(survey, BankLines.DATE))
                    .append("}\n");
        }
        if (survey.titlesRow() > 0) {
            yaml.append("columns in order: [")
                    .append(survey.columns().stream()
                            .map(c -> quoted(c.title()))
                            .collect(Collectors.joining(", ")))
                    .append("]     # for 'survey --like'\n");
        }
        return yaml.toString();
    }

    private static void file(Survey survey, StringBuilder yaml) {
        Facts facts = survey.facts();
        yaml.append("file:\n  kind: ").append(facts.kind().word()).append('\n');
        switch (facts.kind()) {
            case SEPARATED -> {
                yaml.append("  separator: ")
                        .append(SEPARATORS.get(facts.separator()))
                        .append('\n');
                encoding(survey, yaml);
                titles(survey, yaml);
            }
            case FIXED_WIDTH -> {
                encoding(survey, yaml);
                yaml.append("  columns: {")
                        .append(facts.print().slices().stream()
                                .map(s -> quoted(s.name()) + ": " + s.from() + "-" + s.to())
                                .collect(Collectors.joining(", ")))
                        .append("}\n");
            }
            case WORKBOOK -> {
                Question sheet = survey.question("sheet");
                yaml.append("  sheet: ")
                        .append(sheet != null ? asked(sheet) : quoted(facts.part()))
                        .append('\n');
                titles(survey, yaml);
            }
            default -> {
                // A statement says the rest itself, but some say nothing of their encoding.
                if (!survey.facts().encodingWhy().isEmpty()) {
                    encoding(survey, yaml);
                }
            }
        }
        if (survey.order() != RowOrder.OLDEST_FIRST) {
            yaml.append("  order: ").append(survey.order().word()).append('\n');
        }
        if (facts.print() != null) {
            print(facts.print(), yaml);
        }
    }

    private static void remarks(Survey survey, StringBuilder yaml) {
        yaml.append("# Proposed by a survey of ")
                .append(Finding.clip(survey.file()))
                .append(". Read it, then use it.\n");
        if (survey.questions().stream().anyMatch(q -> q.answer() == null)) {
            yaml.append("# A value that begins with a question mark is a question: put the answer in its place.\n");
        }
        for (Survey.Proof proof : survey.proofs()) {
            yaml.append(proof.holds() ? "# Proved: " : "# Not proved: ")
                    .append(proof.words())
                    .append('\n');
        }
    }

    private static void links(Survey survey, StringBuilder yaml) {
        if (!survey.links().isEmpty()) {
            yaml.append("link:                                # files that stand beside this one\n");
        }
        for (Link link : survey.links()) {
            yaml.append("  ")
                    .append(link.name())
                    .append(": {file: ")
                    .append(quoted(link.file()))
                    .append(", key: ")
                    .append(quoted(link.key()))
                    .append(link.key().equals(link.theirKey()) ? "" : ", their key: " + quoted(link.theirKey()));
            if (!link.format().encoding().equals(survey.facts().encoding())
                    && link.format().kind() == FileKind.SEPARATED) {
                yaml.append(", is: {kind: separated, separator: ")
                        .append(SEPARATORS.get(link.format().separator()))
                        .append(", encoding: ")
                        .append(link.format().encoding())
                        .append(", titles: row ")
                        .append(link.format().titlesRow())
                        .append("}");
            }
            yaml.append("}\n");
        }
    }

    // Each amount of a row is a line of a journal, and only a person knows its account.
    private static void fanOut(Survey survey, StringBuilder yaml) {
        if (survey.fanOut().isEmpty()) {
            return;
        }
        Set<String> debits = sides(survey, "debit");
        debits.retainAll(sides(survey, "credit"));
        yaml.append("fan out:                             # every row sums to nil, so each is balanced\n");
        for (FanOut.Amount line : survey.fanOut()) {
            String both = debits.contains(line.column()) ? "; take both lines out if it is not posted" : "";
            yaml.append("  - {column: ")
                    .append(named(line.column()))
                    .append(", account: ")
                    .append(quoted(
                            line.account().equals("?")
                                    ? "? the account that '" + line.column() + "' is a " + line.side() + " of" + both
                                    : line.account()))
                    .append(", side: ")
                    .append(line.side())
                    .append("}\n");
        }
    }

    private static Set<String> sides(Survey survey, String side) {
        return survey.fanOut().stream()
                .filter(line -> line.side().equals(side))
                .map(FanOut.Amount::column)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static void encoding(Survey survey, StringBuilder yaml) {
        Question encoding = survey.question("encoding");
        yaml.append("  encoding: ")
                .append(encoding != null ? asked(encoding) : survey.facts().encoding())
                .append("                # ")
                .append(survey.facts().encodingWhy())
                .append('\n');
    }

    private static void titles(Survey survey, StringBuilder yaml) {
        yaml.append("  titles: ")
                .append(
                        survey.titlesRow() == 0
                                ? "none"
                                : survey.titleRows() == 1
                                        ? "row " + survey.titlesRow()
                                        : "rows " + (survey.titlesRow() - survey.titleRows() + 1) + "-"
                                                + survey.titlesRow())
                .append('\n');
        if (survey.titlesRow() == 0 && survey.above() > 0) {
            yaml.append("  data from: row ").append(survey.above() + 1).append('\n');
        }
        if (!survey.until().isEmpty()) {
            yaml.append("  until: ").append(quoted(survey.until())).append('\n');
        }
    }

    private static void print(Facts.Print print, StringBuilder yaml) {
        List<Years> years = print.shapes().stream()
                .filter(Years.class::isInstance)
                .map(Years.class::cast)
                .toList();
        if (!years.isEmpty()) {
            yaml.append("years:                               # the dates have none; the file states its period\n");
            years.forEach(each -> years(each, yaml));
        }
        print.shapes().stream().filter(shape -> !(shape instanceof Years)).forEach(shape -> shape(shape, yaml));
        if (!print.filters().isEmpty()) {
            yaml.append("leave out:                           # rules, totals, balances carried over\n");
        }
        print.filters()
                .forEach(f -> yaml.append("  - {column: ")
                        .append(quoted(f.column()))
                        .append(", ")
                        .append(f.test().name().toLowerCase(Locale.ROOT))
                        .append(": ")
                        .append(list(f.texts()))
                        .append("}\n"));
    }

    private static void shape(Shape shape, StringBuilder yaml) {
        if (shape instanceof CarryDown carry) {
            carried(carry, yaml);
        } else if (shape instanceof PageHeads heads) {
            yaml.append("page heads: {begins: ").append(quoted(heads.begins()));
            yaml.append(", ends: ").append(quoted(heads.ends())).append("}\n");
        } else if (shape instanceof Wrapped wrapped) {
            yaml.append("wrapped: {begins: ").append(list(wrapped.begins()));
            yaml.append(", joins: ").append(list(wrapped.joins()));
            yaml.append(wrapped.filler().isEmpty() ? "" : ", filler: " + quoted(wrapped.filler()));
            yaml.append("}\n");
        } else if (shape instanceof FillDown down) {
            yaml.append("fill down: {columns: ").append(list(down.columns()));
            yaml.append(", where: ").append(list(down.where())).append("}\n");
        } else {
            throw new IllegalStateException("no shape of a print file: " + shape);
        }
    }

    private static void years(Years years, StringBuilder yaml) {
        yaml.append("  - {column: ").append(quoted(years.column()));
        yaml.append(", pattern: ").append(quoted(years.pattern().pattern()));
        yaml.append(", period: ").append(quoted(years.period()));
        yaml.append(", days: {pattern: ").append(quoted(years.days().pattern()));
        yaml.append(century(years.days()));
        yaml.append("}, title: ").append(quoted(years.title())).append("}\n");
    }

    private static void carried(CarryDown carry, StringBuilder yaml) {
        yaml.append("carry down:                          # lines that stand above their rows\n");
        carry.headings()
                .forEach(h -> yaml.append("  - {title: ")
                        .append(quoted(h.title()))
                        .append(", column: ")
                        .append(quoted(h.column()))
                        .append(", begins: ")
                        .append(quoted(h.begins()))
                        .append(", take: ")
                        .append(quoted(h.take().pattern()))
                        .append("}\n"));
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
                .append(form.plusMark().isEmpty() ? "" : ", plus mark: " + quoted(form.plusMark()))
                .append(form.minusMark().isEmpty() ? "" : ", minus mark: " + quoted(form.minusMark()))
                .append("}\n");
    }

    private static boolean isIso(Survey survey) {
        return survey.facts().kind() == FileKind.WORKBOOK
                && survey.pattern() != null
                && survey.pattern().pattern().equals("uuuu-MM-dd");
    }

    private static void fields(Survey survey, StringBuilder yaml) {
        yaml.append("fields:\n");
        survey.fields()
                .forEach((field, column) -> yaml.append("  ")
                        .append(field.name())
                        .append(": {")
                        .append(source(survey, field, column))
                        .append(pattern(survey, field))
                        .append(values(survey, field))
                        .append("}\n"));
        if (!survey.fanOut().isEmpty()) {
            yaml.append("  reference: {constant: ")
                    .append(asked(survey.question("reference")))
                    .append("}\n  account: {column: fan account}\n  narrative: {column: fan text}\n")
                    .append("  amount: {column: fan amount, side: {column: fan side, plus: debit, minus: credit}}\n");
        }
        Question amount = survey.question("amount");
        if (amount != null && amount.answer() == null) {
            yaml.append("  amount: {column: ").append(asked(amount)).append("}\n");
        }
        missing(survey, yaml);
        Set<String> taken = Proposal.taken(survey.refinement());
        List<String> unused = survey.columns().stream()
                .filter(c -> !survey.fields().containsValue(c)
                        && !c.title().isEmpty()
                        && !taken.contains(Proposal.column(c)))
                .map(c -> quoted(c.title()))
                .toList();
        if (!unused.isEmpty()) {
            yaml.append("unused: [").append(String.join(", ", unused)).append("]\n");
        }
    }

    // What every record needs and no column was found for: perhaps it is the same for all.
    private static void missing(Survey survey, StringBuilder yaml) {
        if (survey.gives() == null || !survey.fanOut().isEmpty()) {
            return;
        }
        for (Field field : survey.gives().table().fields()) {
            if (field.required()
                    && field.type() != FieldType.DATE
                    && !survey.fields().containsKey(field)) {
                yaml.append("  ")
                        .append(field.name())
                        .append(": {constant: ")
                        .append(asked(survey.question(field.name())))
                        .append("}\n");
            }
        }
    }

    private static String column(ColumnSurvey column) {
        return named(Proposal.column(column));
    }

    private static String source(Survey survey, Field field, ColumnSurvey column) {
        FieldSource source = survey.refinement().sources().get(field);
        Question charges = survey.question("charges");
        boolean apart = charges != null && !NONE.equals(charges.answer());
        String less = field == BankLines.AMOUNT && apart ? ", less: " + asked(charges) : "";
        if (source == null) {
            return "column: " + column(column) + less;
        }
        String columns = source.columns().size() == 1
                ? "column: " + named(source.columns().get(0))
                : "columns: "
                        + source.columns().stream()
                                .map(ProposalFile::named)
                                .collect(Collectors.joining(", ", "[", "]"));
        FieldSource.Side side = source.side();
        if (source.less() != null) {
            return columns + ", less: " + named(source.less());
        }
        return side == null
                ? columns
                : columns + ", side: {column: " + named(side.column()) + ", plus: " + list(side.plus()) + ", minus: "
                        + list(side.minus()) + "}";
    }

    private static String list(List<String> texts) {
        return texts.stream().map(Quoted::quoted).collect(Collectors.joining(", ", "[", "]"));
    }

    private static void stated(Survey survey, Stated stated, StringBuilder yaml) {
        List<String> parts = new ArrayList<>();
        for (String about : List.of("opening", "closing")) {
            Question open = survey.question(about);
            if (open != null && open.answer() == null) {
                parts.add(about + ": " + asked(open));
            }
        }
        if (stated.opening() != null) {
            parts.add("opening: " + quoted(stated.opening()));
        }
        if (stated.closing() != null) {
            parts.add("closing: " + quoted(stated.closing()));
        }
        if (stated.moneyIn() != null) {
            parts.add("in: " + quoted(stated.moneyIn()));
        }
        if (stated.moneyOut() != null) {
            parts.add("out: " + quoted(stated.moneyOut()));
        }
        if (stated.count() != null) {
            parts.add("count: " + quoted(stated.count()));
        }
        if (!stated.carried().isEmpty()) {
            parts.add("carried: " + list(stated.carried()));
        }
        if (!stated.totals().isEmpty()) {
            parts.add("totals: " + list(stated.totals()));
        }
        if (stated.owed()) {
            parts.add("owed: yes");
        }
        if (!parts.isEmpty()) {
            yaml.append("stated: {").append(String.join(", ", parts)).append("}\n");
        }
    }

    private static void whose(Whose whose, StringBuilder yaml) {
        if (whose.equals(Whose.ANYBODY)) {
            return;
        }
        yaml.append("whose:                               # a file of somebody else is held\n");
        whose.marks()
                .forEach((what, mark) -> yaml.append("  ")
                        .append(what)
                        .append(": {label: ")
                        .append(quoted(mark.label()))
                        .append(", is: ")
                        .append(list(mark.is()))
                        .append("}\n"));
        if (whose.numberColumn() != null) {
            yaml.append("  number: {column: ")
                    .append(named(whose.numberColumn()))
                    .append("}\n");
        }
    }

    private static void sections(Survey survey, StringBuilder yaml) {
        for (CarryDown.Heading section : survey.refinement().sections()) {
            yaml.append("carry down:                          # headings of sections\n  - {title: ")
                    .append(quoted(section.title()))
                    .append(", take: ")
                    .append(quoted(section.take().pattern()))
                    .append("}\n");
        }
    }

    private static void expected(Survey survey, StringBuilder yaml) {
        if (!survey.refinement().expectations().isEmpty()) {
            yaml.append("expect:                              # a row with anything else is held\n");
        }
        survey.refinement()
                .expectations()
                .forEach(cell -> yaml.append("  - {column: ")
                        .append(named(cell.column()))
                        .append(", is: ")
                        .append(list(cell.texts()))
                        .append("}\n"));
    }

    private static void equations(Survey survey, StringBuilder yaml) {
        if (!survey.refinement().equations().isEmpty()) {
            yaml.append("row sums:                            # a row in which they do not agree is held\n");
        }
        survey.refinement()
                .equations()
                .forEach(sum -> yaml.append("  - {plus: ")
                        .append(names(sum.plus()))
                        .append(", minus: ")
                        .append(names(sum.minus()))
                        .append("}\n"));
    }

    private static String names(List<String> columns) {
        return columns.stream().map(ProposalFile::named).collect(Collectors.joining(", ", "[", "]"));
    }

    // Rows that are no movements.
    private static void leftOut(Survey survey, StringBuilder yaml) {
        if (survey.refinement().filters().isEmpty() || survey.facts().print() != null) {
            return;
        }
        yaml.append("leave out:\n");
        Question open = survey.question("leave out");
        for (RowFilter filter : survey.refinement().filters()) {
            // What is asked about stands first.
            boolean asked =
                    open != null && filter == survey.refinement().filters().get(0);
            yaml.append("  - {column: ")
                    .append(named(filter.column()))
                    .append(", ")
                    .append(filter.test().name().toLowerCase(Locale.ROOT))
                    .append(": ")
                    .append(asked && open.answer() == null ? asked(open) : list(filter.texts()))
                    .append("}\n");
        }
    }

    private static String named(String name) {
        return name.startsWith("#") ? name.substring(1) : quoted(name);
    }

    private static String pattern(Survey survey, Field field) {
        if (field.type() != FieldType.DATE || isIso(survey) && survey.question("date") == null) {
            return "";
        }
        Question question = survey.question("date");
        String pattern = survey.pattern() == null ? "" : survey.pattern().pattern();
        return ", pattern: " + (question != null ? asked(question) : quoted(pattern))
                + (survey.pattern() == null ? "" : century(survey.pattern()) + language(survey));
    }

    private static String language(Survey survey) {
        Question question = survey.question("language");
        String language = survey.pattern().language();
        return question != null
                ? ", language: " + asked(question)
                : language.isEmpty() ? "" : ", language: " + language;
    }

    private static String century(DatePattern pattern) {
        return pattern.centuryFrom() == 0 ? "" : ", century from: " + pattern.centuryFrom();
    }

    private static String values(Survey survey, Field field) {
        Question question = survey.question("kind");
        if (field != InvoiceLines.DOCUMENT_KIND || question == null) {
            return "";
        }
        String answer = question.answer();
        return ", values: " + (answer == null ? asked(question) : words(answer));
    }

    // INV: invoice, CRN: credit note, with braces or without.
    private static String words(String answer) {
        return Arrays.stream(answer.replaceAll("^\\s*\\{|}\\s*$", "").split(","))
                .map(pair -> pair.split(":", 2))
                .map(pair -> quoted(pair[0].strip()) + ": " + quoted(pair.length < 2 ? "" : pair[1].strip()))
                .collect(Collectors.joining(", ", "{", "}"));
    }

    private static String asked(Question question) {
        String answer = question.answer();
        return quoted(answer == null ? "? " + question.words() : answer);
    }

    private static void allow(Survey survey, StringBuilder yaml) {
        Question charges = survey.question("charges");
        boolean nets = survey.refinement().nets() || charges != null && !NONE.equals(charges.answer());
        boolean nobody = Proposal.namesNobody(survey);
        if (nets || nobody) {
            yaml.append("allow: [")
                    .append(nets ? Terms.NET : "")
                    .append(nets && nobody ? ", " : "")
                    .append(nobody ? Terms.PARTIES : "")
                    .append("]          # ")
                    .append(nets ? "the charges are taken off the amounts" : "no column names customers or suppliers")
                    .append('\n');
        }
    }
}
