package io.mivrel.survey.settings;

import static io.mivrel.files.settings.Quoted.quoted;

import io.mivrel.files.keys.FormatKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.keys.ShapeKeys;
import io.mivrel.files.settings.Quoted;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Permissions;
import io.mivrel.layout.Signs;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.rows.FileFormat;
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
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Question;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

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
        line(yaml, LayoutKeys.LAYOUT, quoted(survey.file()));
        Question gives = survey.question("gives");
        line(
                yaml,
                LayoutKeys.GIVES,
                gives != null ? asked(gives) : survey.gives().name());
        if (survey.gives() != null && survey.gives().isOfAccount()) {
            Question account = survey.question("account");
            line(
                    yaml,
                    LayoutKeys.ACCOUNT,
                    account != null ? asked(account) : Layout.BY_NUMBER + "     # each statement names its own");
        }
        Question signs = survey.question("signs");
        if (signs != null || survey.refinement().signs() != Signs.AS_WRITTEN) {
            line(
                    yaml,
                    LayoutKeys.SIGNS,
                    signs != null ? asked(signs) : survey.refinement().signs().word());
        }
        Question credits = survey.question("credits");
        if (credits != null) {
            line(yaml, LayoutKeys.CREDITS, asked(credits));
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
            yaml.append(LayoutKeys.FIELDS + ":\n");
            field(yaml, BankLines.DATE, LayoutKeys.ONE_COLUMN + ": date" + pattern(survey, BankLines.DATE));
        }
        if (survey.titlesRow() > 0) {
            line(
                    yaml,
                    LayoutKeys.IN_ORDER,
                    list(survey.columns().stream().map(ColumnSurvey::title).toList()) + "     # for 'survey --like'");
        }
        return yaml.toString();
    }

    private static void file(Survey survey, StringBuilder yaml) {
        FileProfile facts = survey.facts();
        yaml.append(LayoutKeys.FILE + ":\n");
        within(yaml, FormatKeys.KIND, facts.kind().word());
        switch (facts.kind()) {
            case SEPARATED -> {
                within(yaml, FormatKeys.SEPARATOR, SEPARATORS.get(facts.separator()));
                encoding(survey, yaml);
                titles(survey, yaml);
            }
            case FIXED_WIDTH -> {
                encoding(survey, yaml);
                within(
                        yaml,
                        FormatKeys.SLICES,
                        facts.print().slices().stream()
                                .map(s -> quoted(s.name()) + ": " + s.from() + "-" + s.to())
                                .collect(Collectors.joining(", ", "{", "}")));
            }
            case WORKBOOK -> {
                Question sheet = survey.question("sheet");
                within(yaml, FormatKeys.SHEET, sheet != null ? asked(sheet) : quoted(facts.part()));
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
            within(yaml, FormatKeys.ORDER, survey.order().word());
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
            yaml.append(remarked(ShapeKeys.LINK, "files that stand beside this one"))
                    .append('\n');
        }
        for (Link link : survey.links()) {
            FileFormat form = link.format();
            boolean other = form.kind() == FileKind.SEPARATED
                    && !form.encoding().equals(survey.facts().encoding());
            String is = flow(
                    FormatKeys.KIND, form.kind().word(),
                    FormatKeys.SEPARATOR, SEPARATORS.get(form.separator()),
                    FormatKeys.ENCODING, form.encoding(),
                    FormatKeys.TITLES, "row " + form.titlesRow());
            yaml.append("  " + link.name() + ": ")
                    .append(flow(
                            ShapeKeys.FILE,
                            quoted(link.file()),
                            ShapeKeys.KEY,
                            quoted(link.key()),
                            ShapeKeys.THEIR_KEY,
                            link.key().equals(link.theirKey()) ? null : quoted(link.theirKey()),
                            ShapeKeys.FORM,
                            other ? is : null))
                    .append('\n');
        }
    }

    // Each amount of a row is a line of a journal, and only a person knows its account.
    private static void fanOut(Survey survey, StringBuilder yaml) {
        Set<String> debits = sides(survey, "debit");
        debits.retainAll(sides(survey, "credit"));
        List<String> lines = new ArrayList<>();
        for (FanOut.Amount line : survey.fanOut()) {
            String both = debits.contains(line.column()) ? "; take both lines out if it is not posted" : "";
            String account = line.account().equals("?")
                    ? "? the account that '" + line.column() + "' is a " + line.side() + " of" + both
                    : line.account();
            lines.add(flow(
                    FormatKeys.COLUMN, named(line.column()),
                    ShapeKeys.FAN_ACCOUNT, quoted(account),
                    ShapeKeys.FAN_SIDE, line.side()));
        }
        list(yaml, ShapeKeys.FAN_OUT, "every row sums to nil, so each is balanced", lines);
    }

    private static Set<String> sides(Survey survey, String side) {
        return survey.fanOut().stream()
                .filter(line -> line.side().equals(side))
                .map(FanOut.Amount::column)
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private static void encoding(Survey survey, StringBuilder yaml) {
        Question encoding = survey.question("encoding");
        within(
                yaml,
                FormatKeys.ENCODING,
                (encoding != null ? asked(encoding) : survey.facts().encoding()) + "                # "
                        + survey.facts().encodingWhy());
    }

    private static void titles(Survey survey, StringBuilder yaml) {
        int last = survey.titlesRow();
        String several = "rows " + (last - survey.titleRows() + 1) + "-" + last;
        within(yaml, FormatKeys.TITLES, last == 0 ? "none" : survey.titleRows() == 1 ? "row " + last : several);
        if (last == 0 && survey.above() > 0) {
            within(yaml, FormatKeys.DATA_FROM, "row " + (survey.above() + 1));
        }
        if (!survey.until().isEmpty()) {
            within(yaml, FormatKeys.UNTIL, quoted(survey.until()));
        }
    }

    // A line of the block that stands above.
    private static void within(StringBuilder yaml, Key key, String value) {
        yaml.append("  ");
        line(yaml, key, value);
    }

    private static void field(StringBuilder yaml, Field field, String source) {
        yaml.append("  " + field.name() + ": {" + source + "}\n");
    }

    private static void print(FileProfile.Print print, StringBuilder yaml) {
        list(
                yaml,
                ShapeKeys.YEARS,
                "the dates have none; the file states its period",
                print.shapes().stream()
                        .filter(Years.class::isInstance)
                        .map(years -> years((Years) years))
                        .toList());
        print.shapes().stream().filter(shape -> !(shape instanceof Years)).forEach(shape -> shape(shape, yaml));
        list(
                yaml,
                LayoutKeys.LEAVE_OUT,
                "rules, totals, balances carried over",
                print.filters().stream()
                        .map(f -> filter(f, quoted(f.column()), list(f.texts())))
                        .toList());
    }

    private static String filter(RowFilter filter, String column, String texts) {
        Key test = switch (filter.test()) {
            case IS -> LayoutKeys.IS;
            case BEGINS -> LayoutKeys.BEGINS;
            case CONTAINS -> LayoutKeys.CONTAINS;
        };
        return flow(LayoutKeys.ANY_COLUMN, column, test, texts);
    }

    private static void shape(Shape shape, StringBuilder yaml) {
        if (shape instanceof CarryDown carry) {
            carried(yaml, "lines that stand above their rows", carry.headings());
        } else if (shape instanceof PageHeads heads) {
            line(
                    yaml,
                    ShapeKeys.PAGE_HEADS,
                    flow(ShapeKeys.BEGINS, quoted(heads.begins()), ShapeKeys.ENDS, quoted(heads.ends())));
        } else if (shape instanceof Wrapped wrapped) {
            line(
                    yaml,
                    ShapeKeys.WRAPPED,
                    flow(
                            ShapeKeys.BEGINNERS, list(wrapped.begins()),
                            ShapeKeys.JOINS, list(wrapped.joins()),
                            ShapeKeys.FILLER, unlessEmpty(wrapped.filler())));
        } else if (shape instanceof FillDown down) {
            line(
                    yaml,
                    ShapeKeys.FILL_DOWN,
                    flow(ShapeKeys.FILLED, list(down.columns()), ShapeKeys.WHERE, list(down.where())));
        } else {
            throw new IllegalStateException("no shape of a print file: " + shape);
        }
    }

    private static String years(Years years) {
        return flow(
                FormatKeys.COLUMN, quoted(years.column()),
                ShapeKeys.YEARLESS, quoted(years.pattern().pattern()),
                ShapeKeys.PERIOD, quoted(years.period()),
                ShapeKeys.DAYS,
                        flow(
                                FormatKeys.PATTERN, quoted(years.days().pattern()),
                                FormatKeys.CENTURY, century(years.days())),
                ShapeKeys.TITLE, quoted(years.title()));
    }

    private static void carried(StringBuilder yaml, String remark, List<CarryDown.Heading> headings) {
        list(
                yaml,
                ShapeKeys.CARRY_DOWN,
                remark,
                headings.stream()
                        .map(h -> flow(
                                ShapeKeys.TITLE, quoted(h.title()),
                                ShapeKeys.IN_COLUMN, unlessEmpty(h.column()),
                                ShapeKeys.HEADING_BEGINS, unlessEmpty(h.begins()),
                                FormatKeys.TAKE, quoted(h.take().pattern())))
                        .toList());
    }

    private static void numbers(Survey survey, StringBuilder yaml) {
        AmountFormat form = survey.numbers();
        Question question = survey.question("numbers");
        String negative = form.brackets() && form.trailingMinus()
                ? "any"
                : form.brackets() ? "brackets" : form.trailingMinus() ? "trailing minus" : "minus";
        line(
                yaml,
                LayoutKeys.NUMBERS,
                flow(
                        FormatKeys.DECIMAL,
                                question != null ? asked(question) : quoted(String.valueOf(form.decimalMark())),
                        FormatKeys.THOUSANDS, quoted(String.valueOf(form.thousandsMark())),
                        FormatKeys.NEGATIVE, negative,
                        FormatKeys.CURRENCY_MARK, unlessEmpty(form.currencyMark()),
                        FormatKeys.PLUS_MARK, unlessEmpty(form.plusMark()),
                        FormatKeys.MINUS_MARK, unlessEmpty(form.minusMark())));
    }

    private static boolean isIso(Survey survey) {
        return survey.facts().kind() == FileKind.WORKBOOK
                && survey.pattern() != null
                && survey.pattern().pattern().equals("uuuu-MM-dd");
    }

    private static void fields(Survey survey, StringBuilder yaml) {
        yaml.append(LayoutKeys.FIELDS + ":\n");
        survey.fields()
                .forEach((field, column) -> field(
                        yaml, field, source(survey, field, column) + pattern(survey, field) + values(survey, field)));
        if (!survey.fanOut().isEmpty()) {
            field(yaml, JournalLines.REFERENCE, LayoutKeys.CONSTANT + ": " + asked(survey.question("reference")));
            field(yaml, JournalLines.ACCOUNT, LayoutKeys.ONE_COLUMN + ": " + FanOut.ACCOUNT);
            field(yaml, JournalLines.NARRATIVE, LayoutKeys.ONE_COLUMN + ": " + FanOut.TEXT);
            field(
                    yaml,
                    JournalLines.AMOUNT,
                    LayoutKeys.ONE_COLUMN + ": " + FanOut.AMOUNT + ", " + LayoutKeys.SIDE + ": "
                            + side(FanOut.SIDE, "debit", "credit"));
        }
        Question amount = survey.question("amount");
        if (amount != null && amount.answer() == null) {
            yaml.append("  amount: {" + LayoutKeys.ONE_COLUMN + ": " + asked(amount) + "}\n");
        }
        missing(survey, yaml);
        Set<String> taken = Proposal.taken(survey.refinement());
        List<String> unused = survey.columns().stream()
                .filter(c -> !survey.fields().containsValue(c)
                        && !c.title().isEmpty()
                        && !taken.contains(Proposal.column(c)))
                .map(ColumnSurvey::title)
                .toList();
        if (!unused.isEmpty()) {
            line(yaml, LayoutKeys.UNUSED, list(unused));
        }
    }

    private static String side(String column, String plus, String minus) {
        return flow(FormatKeys.COLUMN, column, LayoutKeys.PLUS, plus, LayoutKeys.MINUS, minus);
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
                field(yaml, field, LayoutKeys.CONSTANT + ": " + asked(survey.question(field.name())));
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
        if (source == null) {
            return LayoutKeys.ONE_COLUMN + ": " + column(column)
                    + (field == BankLines.AMOUNT && apart ? ", " + LayoutKeys.LESS + ": " + asked(charges) : "");
        }
        String columns = source.columns().size() == 1
                ? LayoutKeys.ONE_COLUMN + ": " + named(source.columns().get(0))
                : LayoutKeys.COLUMNS + ": " + names(source.columns());
        FieldSource.Side side = source.side();
        if (source.less() != null) {
            return columns + ", " + LayoutKeys.LESS + ": " + named(source.less());
        }
        return side == null
                ? columns
                : columns + ", " + LayoutKeys.SIDE + ": "
                        + side(named(side.column()), list(side.plus()), list(side.minus()));
    }

    private static String list(List<String> texts) {
        return texts.stream().map(Quoted::quoted).collect(Collectors.joining(", ", "[", "]"));
    }

    private static void stated(Survey survey, FigureLabels stated, StringBuilder yaml) {
        String parts = flow(
                LayoutKeys.OPENING, figure(survey, "opening", stated.opening()),
                LayoutKeys.CLOSING, figure(survey, "closing", stated.closing()),
                LayoutKeys.IN, quotedOrNone(stated.moneyIn()),
                LayoutKeys.OUT, quotedOrNone(stated.moneyOut()),
                LayoutKeys.COUNT, quotedOrNone(stated.count()),
                LayoutKeys.CARRIED, listOrNone(stated.carried()),
                LayoutKeys.TOTALS, listOrNone(stated.totals()),
                LayoutKeys.OWED, stated.owed() ? "yes" : null);
        if (!parts.equals("{}")) {
            line(yaml, LayoutKeys.STATED, parts);
        }
    }

    private static @Nullable String figure(Survey survey, String about, @Nullable String label) {
        Question open = survey.question(about);
        return open != null && open.answer() == null ? asked(open) : quotedOrNone(label);
    }

    private static void whose(Whose whose, StringBuilder yaml) {
        if (whose.equals(Whose.ANYBODY)) {
            return;
        }
        yaml.append(remarked(LayoutKeys.WHOSE, "a file of somebody else is held"))
                .append('\n');
        whose.marks()
                .forEach((what, mark) -> yaml.append("  " + what + ": ")
                        .append(flow(LayoutKeys.LABEL, quoted(mark.label()), LayoutKeys.IS, list(mark.is())))
                        .append('\n'));
        if (whose.numberColumn() != null) {
            yaml.append("  " + Whose.NUMBER + ": ")
                    .append(flow(LayoutKeys.ANY_COLUMN, named(whose.numberColumn())))
                    .append('\n');
        }
    }

    private static void sections(Survey survey, StringBuilder yaml) {
        carried(yaml, "headings of sections", survey.refinement().sections());
    }

    private static void expected(Survey survey, StringBuilder yaml) {
        list(
                yaml,
                LayoutKeys.EXPECT,
                "a row with anything else is held",
                survey.refinement().expectations().stream()
                        .map(cell ->
                                flow(FormatKeys.COLUMN, named(cell.column()), LayoutKeys.MUST_BE, list(cell.texts())))
                        .toList());
    }

    private static void equations(Survey survey, StringBuilder yaml) {
        list(
                yaml,
                LayoutKeys.ROW_SUMS,
                "a row in which they do not agree is held",
                survey.refinement().equations().stream()
                        .map(sum -> flow(LayoutKeys.PLUS, names(sum.plus()), LayoutKeys.MINUS, names(sum.minus())))
                        .toList());
    }

    private static String names(List<String> columns) {
        return columns.stream().map(ProposalFile::named).collect(Collectors.joining(", ", "[", "]"));
    }

    // Rows that are no movements.
    private static void leftOut(Survey survey, StringBuilder yaml) {
        if (survey.facts().print() != null) {
            return;
        }
        Question open = survey.question("leave out");
        List<RowFilter> filters = survey.refinement().filters();
        List<String> lines = new ArrayList<>();
        for (RowFilter filter : filters) {
            // What is asked about stands first.
            boolean asked = open != null && open.answer() == null && lines.isEmpty();
            lines.add(filter(filter, named(filter.column()), asked ? asked(open) : list(filter.texts())));
        }
        list(yaml, LayoutKeys.LEAVE_OUT, "", lines);
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
        String century = survey.pattern() == null ? null : century(survey.pattern());
        return ", " + FormatKeys.PATTERN + ": " + (question != null ? asked(question) : quoted(pattern))
                + (century == null ? "" : ", " + FormatKeys.CENTURY + ": " + century)
                + (survey.pattern() == null ? "" : language(survey));
    }

    private static String language(Survey survey) {
        Question question = survey.question("language");
        String language = survey.pattern().language();
        return question != null
                ? ", " + FormatKeys.LANGUAGE + ": " + asked(question)
                : language.isEmpty() ? "" : ", " + FormatKeys.LANGUAGE + ": " + language;
    }

    private static @Nullable String century(DatePattern pattern) {
        return pattern.centuryFrom() == 0 ? null : String.valueOf(pattern.centuryFrom());
    }

    private static String values(Survey survey, Field field) {
        Question question = survey.question("kind");
        if (field != InvoiceLines.DOCUMENT_KIND || question == null) {
            return "";
        }
        String answer = question.answer();
        return ", " + LayoutKeys.VALUES + ": " + (answer == null ? asked(question) : words(answer));
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
            String why = nets ? "the charges are taken off the amounts" : "no column names customers or suppliers";
            line(
                    yaml,
                    LayoutKeys.ALLOW,
                    (nets ? "[" + Permissions.NET : "[") + (nets && nobody ? ", " : "")
                            + (nobody ? Permissions.PARTIES : "") + "]          # " + why);
        }
    }

    // key: value
    private static void line(StringBuilder yaml, Key key, String value) {
        yaml.append(key).append(": ").append(value).append('\n');
    }

    // Keys and their values by turns, in braces; what has no value is left out.
    private static String flow(@Nullable Object... keysAndValues) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < keysAndValues.length; i += 2) {
            if (keysAndValues[i + 1] != null) {
                parts.add(keysAndValues[i] + ": " + keysAndValues[i + 1]);
            }
        }
        return "{" + String.join(", ", parts) + "}";
    }

    // A list of blocks under a key, with a remark behind it.
    private static void list(StringBuilder yaml, Key key, String remark, List<String> blocks) {
        if (!blocks.isEmpty()) {
            yaml.append(remarked(key, remark)).append('\n');
            blocks.forEach(block -> yaml.append("  - ").append(block).append('\n'));
        }
    }

    // Remarks stand below one another.
    private static String remarked(Key key, String remark) {
        String line = key + ":";
        return remark.isEmpty() ? line : line + " ".repeat(37 - line.length()) + "# " + remark;
    }

    private static @Nullable String unlessEmpty(String text) {
        return text.isEmpty() ? null : quoted(text);
    }

    private static @Nullable String quotedOrNone(@Nullable String text) {
        return text == null ? null : quoted(text);
    }

    private static @Nullable String listOrNone(List<String> texts) {
        return texts.isEmpty() ? null : list(texts);
    }
}
