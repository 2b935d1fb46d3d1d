package io.mivrel.start;

import static io.mivrel.files.settings.Quoted.quoted;

import io.mivrel.DeliverySample;
import io.mivrel.Mivrel;
import io.mivrel.delivery.Counting;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Sides;
import io.mivrel.files.forms.RowForms;
import io.mivrel.kinds.InvoiceKind;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.survey.ColumnTitles;
import io.mivrel.survey.templates.Template;
import io.mivrel.survey.templates.TemplateReader;
import io.mivrel.text.DatePattern;
import io.mivrel.text.Nearest;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A delivery made from a receiver's template: what its samples tell is taken from them, and each column that they leave open is
 * asked for. For one thread.
 */
public final class DeliveryFromTemplate {
    private static final String COLUMN = "column ";
    private static final String TAKES = "documents";
    private static final String NUMBERS = "amounts";
    private static final String SIGNS = "sign of amounts";
    private static final String UNDER = "rows under titles";
    private static final String BLANK = "blank";
    private static final String ROWS = "row number";
    private static final String DOCUMENTS = "document number";
    private static final String SIDE = "side";
    private static final String AS_THEY_ARE = "as they are";
    private static final String POINT = "1234.50";
    private static final String COMMA = "1234,50";
    private static final String MINOR = "123450";

    private static final int DOCUMENTS_SHOWN = 8;
    private static final int ROWS_SHOWN = 40;

    private final Template template;
    private final String name;
    private final Map<String, String> answers = new LinkedHashMap<>();
    /** The user's own values by fields, some of the first rows. */
    private Map<String, List<String>> own = Map.of();

    private boolean shown;

    private @Nullable Kind takes;
    private List<Kind> possible = Kinds.ALL;
    /** What stands in each column, where it is known. */
    private final Map<Template.Column, Content> contents = new LinkedHashMap<>();

    /**
     * What stands in a column.
     *
     * @param field its field; {@code null} for a constant or a count
     * @param constant the same text in every row
     * @param counts what it counts
     * @param date how days are written
     * @param words the receiver's words by ours
     * @param sides the words for the side of an amount, in place of it
     */
    private record Content(
            @Nullable Field field,
            @Nullable String constant,
            @Nullable Counting counts,
            @Nullable DatePattern date,
            Map<String, String> words,
            @Nullable Sides sides) {
        static Content of(Field field) {
            return new Content(field, null, null, null, Map.of(), null);
        }

        static Content constant(String text) {
            return new Content(null, text, null, null, Map.of(), null);
        }

        Content with(DatePattern pattern) {
            return new Content(field, constant, counts, pattern, words, sides);
        }

        Content with(Map<String, String> receivers) {
            return new Content(field, constant, counts, date, receivers, sides);
        }

        boolean lacksPattern() {
            return field != null && field.type() == FieldType.DATE && date == null;
        }
    }

    private DeliveryFromTemplate(Template template) {
        this.template = template;
        String plain = String.valueOf(template.file().getFileName()).replaceFirst("\\.[^.]*$", "");
        this.name = Arrays.stream(plain.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+"))
                .filter(word -> !word.isEmpty())
                .collect(Collectors.joining("-"));
        decideKind();
    }

    /** Reads a template; throws {@link IOException} that says why it is none. */
    public static DeliveryFromTemplate of(Path template) throws IOException {
        return new DeliveryFromTemplate(TemplateReader.read(template));
    }

    /** The name of the delivery's file, without its ending. */
    public String name() {
        return name;
    }

    /** The documents that it delivers; {@code null} while that is open. */
    public @Nullable Kind takes() {
        return takes;
    }

    /** What the data can be delivered as. */
    public DeliveryFromTemplate among(List<Kind> kinds) {
        possible = List.copyOf(kinds);
        decideKind();
        return this;
    }

    /** The user's own values by the names of fields, to show with questions. */
    public DeliveryFromTemplate showing(Map<String, List<String>> values) {
        own = values;
        shown = true;
        contents.clear();
        decideColumns();
        return this;
    }

    /** The first values of each field of documents that a run clears, by the names of the fields. */
    static Map<String, List<String>> ownValues(Mivrel run, Kind takes) throws IOException {
        Delivery.Builder all = Delivery.named("Own values", takes);
        List<Field> fields = takes.table().fields().stream()
                .filter(f -> f.level().depth() <= takes.amount().level().depth())
                .toList();
        fields.forEach(field -> all.column(field.name(), field));
        Map<String, List<String>> values = new LinkedHashMap<>();
        for (DeliverySample sample : run.samples(List.of(all.build()), DOCUMENTS_SHOWN, ROWS_SHOWN)) {
            for (List<String> row : sample.rows().subList(1, sample.rows().size())) {
                for (int i = 0; i < fields.size(); i++) {
                    values.computeIfAbsent(fields.get(i).name(), f -> new ArrayList<>())
                            .add(row.get(i));
                }
            }
        }
        return values;
    }

    /** True once it knows the user's own values. */
    boolean isShown() {
        return shown;
    }

    /** What was found in the template, in lines for people. */
    public List<String> reading() {
        List<String> lines = new ArrayList<>();
        lines.add(template.file().getFileName() + ": " + template.columns().size() + " columns"
                + (template.titles() ? "" : " without titles") + ", "
                + (template.rows() == 0
                        ? "no sample rows"
                        : template.rows()
                                + (template.rows() == 1
                                        ? " sample row, which is not delivered"
                                        : " sample rows, which are not delivered"))
                + (template.form().isWorkbook() ? ", sheet '" + template.form().sheet() + "'" : ""));
        template.notes().forEach(note -> lines.add("  note: " + note));
        return lines;
    }

    private void decideKind() {
        List<String> titles = titles();
        ToIntFunction<Kind> known = kind -> ColumnTitles.fields(kind, titles).size();
        int most = possible.stream().mapToInt(known).max().orElse(0);
        List<Kind> best =
                possible.stream().filter(kind -> known.applyAsInt(kind) == most).toList();
        takes = best.size() == 1 && most > 1 || possible.size() == 1 ? best.get(0) : null;
        if (takes != null) {
            decideColumns();
        }
    }

    // What stands in brackets, and a star, is no part of a title.
    private List<String> titles() {
        return template.columns().stream().map(DeliveryFromTemplate::plain).toList();
    }

    private static String plain(Template.Column column) {
        return column.name().replaceAll("\\([^)]*\\)|\\[[^]]*]|\\*", " ").strip();
    }

    private void decideColumns() {
        Map<Field, Integer> titled = ColumnTitles.fields(Objects.requireNonNull(takes), titles());
        for (int i = 0; i < template.columns().size(); i++) {
            Template.Column column = template.columns().get(i);
            int place = i;
            Field field = titled.entrySet().stream()
                    .filter(entry -> entry.getValue() == place)
                    .map(Map.Entry::getKey)
                    .findFirst()
                    .orElse(null);
            Content content = decide(column, field);
            if (content != null) {
                contents.putIfAbsent(column, content);
            }
        }
    }

    private @Nullable Content decide(Template.Column column, @Nullable Field field) {
        boolean lacks = field != null && !own.isEmpty() && values(field).isEmpty();
        String same = column.same();
        if (field != null
                && suits(field, column)
                && !(lacks && (same != null || column.must() || !column.words().isEmpty()))) {
            return ofField(column, field);
        }
        return isCounting(column) ? new Content(null, null, Counting.ROWS, null, Map.of(), null) : null;
    }

    private static boolean isCounting(Template.Column column) {
        return column.samples().size() > 1
                && IntStream.range(0, column.samples().size())
                        .allMatch(i -> column.samples().get(i).equals(Integer.toString(i + 1)));
    }

    // The samples are what the field is.
    private static boolean suits(Field field, Template.Column column) {
        boolean none = column.samples().stream().allMatch(String::isEmpty);
        return none
                || switch (field.type()) {
                    case DATE -> !column.dates().isEmpty();
                    case AMOUNT, DECIMAL -> column.amounts();
                    case TEXT, CODE -> column.dates().isEmpty() || column.amounts();
                };
    }

    private Content ofField(Template.Column column, Field field) {
        Content content = Content.of(field);
        if (field.type() == FieldType.DATE && column.date() != null) {
            return content.with(column.date());
        }
        List<String> words = column.words();
        boolean ours = !values(field).isEmpty() && words.containsAll(values(field));
        if (field.type() == FieldType.CODE && !column.words().isEmpty() && ours) {
            return content.with(same(words));
        }
        return content;
    }

    private static Map<String, String> same(List<String> words) {
        Map<String, String> same = new LinkedHashMap<>();
        words.forEach(word -> same.put(word, word));
        return same;
    }

    private List<String> values(Field field) {
        return own.getOrDefault(field.name(), List.of()).stream()
                .filter(value -> !value.isEmpty())
                .distinct()
                .toList();
    }

    /** The next question that has no answer; {@code null} when all have. */
    public @Nullable StartQuestion next() {
        if (takes == null) {
            return StartQuestion.of(
                            TAKES,
                            "Which documents does the template "
                                    + template.file().getFileName() + " take?")
                    .choosing(possible.stream().map(Kind::documents).toList());
        }
        for (Template.Column column : template.columns()) {
            Content content = contents.get(column);
            if (content == null) {
                return aboutColumn(column);
            }
            if (content.lacksPattern()) {
                return aboutDate(column);
            }
            if (needsWords(column, content)) {
                return aboutWords(column, content);
            }
        }
        if (!template.frame().under().isEmpty() && template.rows() < 2 && !answers.containsKey(UNDER)) {
            return StartQuestion.of(UNDER, "Does the row under the titles stay in the files that are delivered?")
                    .choosing(List.of("yes", "no"))
                    .showing(template.frame().under().stream()
                            .map(row -> String.join(" | ", row))
                            .toList())
                    .usually("yes");
        }
        if (template.numbers() == null && !template.form().isWorkbook() && !answers.containsKey(NUMBERS)) {
            return StartQuestion.of(NUMBERS, "How does the receiver write amounts?")
                    .choosing(List.of(POINT, COMMA, MINOR + "\tminor units, without a mark"))
                    .usually(POINT);
        }
        boolean told = contents.values().stream().anyMatch(content -> content.sides() != null);
        boolean one = !told && has(Objects.requireNonNull(takes).amount()) && takes.plusSide() != null;
        if (one && !answers.containsKey(SIGNS)) {
            return StartQuestion.of(
                            SIGNS,
                            "In its one column of amounts, is " + takes.words().plus() + " positive or negative?")
                    .choosing(List.of("positive", "negative"))
                    .usually("positive");
        }
        return null;
    }

    private boolean has(Field field) {
        return contents.values().stream().anyMatch(content -> content.field() == field);
    }

    // The receiver's words for a kind of document, or for codes of which it takes some only.
    private boolean needsWords(Template.Column column, Content content) {
        Field field = content.field();
        return field != null
                && field.type() == FieldType.CODE
                && content.words().isEmpty()
                && !column.words().isEmpty()
                && !answers.containsKey(about(column));
    }

    private static String about(Template.Column column) {
        return column.name().startsWith(COLUMN) ? column.name() : COLUMN + column.name();
    }

    private StartQuestion aboutColumn(Template.Column column) {
        List<String> choices = fields().map(this::choice).collect(Collectors.toCollection(ArrayList::new));
        List<String> help = new ArrayList<>();
        if (!sample(column).isEmpty()) {
            help.add("in the template: " + sample(column));
        }
        List<Field> filled = fields().filter(field -> !values(field).isEmpty()).toList();
        int wide =
                filled.stream().mapToInt(field -> field.name().length()).max().orElse(0);
        filled.forEach(field -> help.add(
                choice(field).replace("\t", " ".repeat(wide - field.name().length() + 3))));
        String others = fields().filter(field -> values(field).isEmpty())
                .map(Field::name)
                .collect(Collectors.joining(", "));
        if (!others.isEmpty()) {
            help.add("none of your documents has a value for: " + others);
        }
        choices.addAll(List.of(BLANK, ROWS, DOCUMENTS));
        help.add(BLANK + ", = and a text for the same in every row, '" + ROWS + "', '" + DOCUMENTS
                + "', or 'side D C': the words for "
                + Objects.requireNonNull(takes).words().plus() + " and "
                + takes.words().minus());
        StartQuestion asked = StartQuestion.of(about(column), "Which of your columns is '" + column.name() + "'?")
                .showing(help);
        // That all samples are alike is no proof that all rows are to be.
        String same = column.same();
        return column.isBlank() || column.optional() && !column.must()
                ? asked.usually(BLANK)
                : same != null ? asked.usually("= " + same) : asked;
    }

    private Stream<Field> fields() {
        return Objects.requireNonNull(takes).table().fields().stream();
    }

    private String choice(Field field) {
        List<String> some = values(field).stream().limit(3).toList();
        return field.name() + "\t" + (some.isEmpty() ? "(" + field.meaning() + ")" : String.join(" | ", some));
    }

    private static String sample(Template.Column column) {
        return Stream.concat(column.samples().stream(), column.words().stream())
                .filter(text -> !text.isEmpty())
                .distinct()
                .limit(3)
                .collect(Collectors.joining(" | "));
    }

    private static StartQuestion aboutDate(Template.Column column) {
        List<String> patterns = column.dates().isEmpty()
                ? List.of("dd/MM/uuuu", "MM/dd/uuuu", "uuuu-MM-dd", "dd.MM.uuuu", "uuuuMMdd")
                : column.dates().stream().map(DatePattern::pattern).toList();
        return StartQuestion.of(
                        about(column),
                        "How is a day written in '" + column.name() + "'? Such as " + String.join(", ", patterns))
                .showing(sample(column).isEmpty() ? List.of() : List.of("in the template: " + sample(column)));
    }

    private StartQuestion aboutWords(Template.Column column, Content content) {
        Field field = Objects.requireNonNull(content.field());
        List<String> own = values(field);
        boolean isKind = field == InvoiceLines.DOCUMENT_KIND;
        List<String> ours = own.isEmpty() && isKind
                ? Stream.of(InvoiceKind.values()).map(InvoiceKind::word).toList()
                : own;
        if (ours.isEmpty()) {
            return StartQuestion.of(
                            about(column),
                            "'" + column.name() + "' takes " + String.join(", ", column.words())
                                    + ". Which is each of yours? None of your documents has one yet; '" + AS_THEY_ARE
                                    + "', or ours: theirs, ...")
                    .usually(AS_THEY_ARE);
        }
        return StartQuestion.of(
                        about(column),
                        "'" + column.name() + "' takes " + String.join(", ", column.words())
                                + ". Which is each of yours: "
                                + String.join(", ", ours) + "? Write " + ours.get(0) + ": "
                                + column.words().get(0) + ", ...")
                .showing(List.of());
    }

    /** Takes an answer; throws when it cannot be one. */
    public void answer(StartQuestion asked, String text) throws WrongAnswerException {
        String about = asked.about();
        if (about.equals(TAKES)) {
            takes = possible.stream()
                    .filter(kind -> kind.documents().equals(text))
                    .findFirst()
                    .orElseThrow(() -> new WrongAnswerException("'" + text + "' is not among "
                            + possible.stream().map(Kind::documents).collect(Collectors.joining(", "))));
            decideColumns();
        } else if (about.startsWith(COLUMN)) {
            Template.Column column = template.columns().stream()
                    .filter(c -> about.equals(about(c)))
                    .findFirst()
                    .orElseThrow();
            contents.put(column, content(column, text));
        } else if (!asked.choices().isEmpty()
                && asked.choices().stream()
                        .noneMatch(c -> c.replaceFirst("\t.*", "").equals(text))) {
            throw new WrongAnswerException("'" + text + "' is not among "
                    + asked.choices().stream()
                            .map(c -> c.replaceFirst("\t.*", ""))
                            .collect(Collectors.joining(", ")));
        }
        answers.put(about, text);
    }

    private Content content(Template.Column column, String text) throws WrongAnswerException {
        Content known = contents.get(column);
        if (known != null && known.lacksPattern()) {
            return known.with(pattern(text));
        }
        if (known != null && text.equals(AS_THEY_ARE)) {
            return known.with(same(column.words()));
        }
        if (known != null && known.field() != null && text.contains(":")) {
            return known.with(words(text));
        }
        if (text.startsWith(SIDE + " ")) {
            return sides(text.substring(SIDE.length()).strip());
        }
        if (text.startsWith("=")) {
            return Content.constant(text.substring(1).strip());
        }
        switch (text) {
            case BLANK -> {
                return Content.constant("");
            }
            case ROWS -> {
                return new Content(null, null, Counting.ROWS, null, Map.of(), null);
            }
            case DOCUMENTS -> {
                return new Content(null, null, Counting.DOCUMENTS, null, Map.of(), null);
            }
            default -> {
                return ofField(column, text);
            }
        }
    }

    // The amount goes without its sign then.
    private Content sides(String text) throws WrongAnswerException {
        String[] words = text.split("[ ,]+");
        if (words.length != 2 || words[0].equals(words[1])) {
            throw new WrongAnswerException(
                    "'" + SIDE + " " + text + "' does not name two words that differ, such as side D C");
        }
        Field amount = Objects.requireNonNull(takes).amount();
        return new Content(amount, null, null, null, Map.of(), new Sides(words[0], words[1]));
    }

    // A field, and for days how they are written where the samples do not tell.
    private Content ofField(Template.Column column, String text) throws WrongAnswerException {
        Optional<Field> field = fields().filter(f -> text.equals(f.name()) || text.startsWith(f.name() + " "))
                .max((a, b) -> Integer.compare(a.name().length(), b.name().length()));
        if (field.isEmpty()) {
            List<String> names = fields().map(Field::name).toList();
            String near = Nearest.one(text, names);
            throw new WrongAnswerException("'" + text + "' is not a field of "
                    + Objects.requireNonNull(takes).documents() + ", nor '" + BLANK + "', '= a text', '" + ROWS
                    + "' or '"
                    + DOCUMENTS + "'" + (near == null ? "; fields: " + String.join(", ", names) : "; '" + near + "'?"));
        }
        Content content = ofField(column, field.get());
        String rest = text.substring(field.get().name().length()).strip();
        if (rest.isEmpty()) {
            return content;
        }
        if (field.get().type() == FieldType.DATE) {
            return content.with(pattern(rest));
        }
        return content.with(words(rest.replaceFirst("^(with|:)", "")));
    }

    private static DatePattern pattern(String text) throws WrongAnswerException {
        try {
            return DatePattern.of(text, text.matches(".*(?<!u)uu(?!u).*") ? 1970 : 0);
        } catch (IllegalArgumentException wrong) {
            throw new WrongAnswerException("'" + text + "' is not a pattern of days: " + wrong.getMessage());
        }
    }

    private static Map<String, String> words(String text) throws WrongAnswerException {
        Map<String, String> words = new LinkedHashMap<>();
        for (String pair : text.split(",")) {
            String[] parts = pair.split(":", 2);
            if (parts.length < 2 || parts[0].isBlank()) {
                throw new WrongAnswerException(
                        "'" + text + "' does not say the receiver's word for each: invoice: INV, ...");
            }
            words.put(parts[0].strip(), parts[1].strip());
        }
        return words;
    }

    /** The delivery, as it is chosen from the shelf; only when no question is open. */
    Shelf.Shape shape() {
        return new Shelf.Shape(
                name,
                Objects.requireNonNull(takes).documents(),
                "Like the receiver's template " + template.file().getFileName() + ".",
                text());
    }

    /** The delivery's settings; only when no question is open. */
    public String text() {
        StringBuilder text = new StringBuilder(
                "# As the receiver's template " + template.file().getFileName()
                        + " has it. Three rows of your own data in this form: mivrel check RUNSHEET\n");
        text.append("delivery: ").append(quoted(name.replace('-', ' '))).append('\n');
        text.append("takes: ").append(Objects.requireNonNull(takes).documents()).append('\n');
        text.append("file:\n");
        file(text);
        numbers(text);
        text.append("columns:\n");
        template.columns().forEach(column -> column(column, text));
        return text.toString();
    }

    private void file(StringBuilder text) {
        Template.Form form = template.form();
        line(text, "kind", form.kind());
        if (form.kind().equals(DeliveryFormat.SEPARATED)) {
            line(
                    text,
                    "separator",
                    switch (form.separator()) {
                        case ';' -> "semicolon";
                        case '\t' -> "tab";
                        case '|' -> "pipe";
                        default -> "comma";
                    });
            line(text, "quotes", form.quoteAll() ? "always" : "where needed");
        }
        if (form.isWorkbook()) {
            line(text, "sheet", quoted(form.sheet()));
        } else {
            line(text, "encoding", form.encoding());
            line(text, "line ends", form.lineEnds());
            line(text, "byte order mark", form.mark() ? "yes" : "no");
        }
        String ending = form.isWorkbook() ? ".xlsx" : form.kind().equals(RowForms.FIXED) ? ".txt" : ".csv";
        line(text, "name", quoted(name + "-{run}-{date}" + ending));
        rows(text, "rows above", template.frame().above());
        line(text, "titles", template.titles() ? "yes" : "no");
        if (!"no".equals(answers.get(UNDER))) {
            rows(text, "rows under titles", template.frame().under());
        }
        rows(text, "last rows", template.frame().last());
    }

    private static void line(StringBuilder text, String key, String value) {
        text.append("  ").append(key).append(": ").append(value).append('\n');
    }

    private static void rows(StringBuilder text, String key, List<List<String>> rows) {
        if (!rows.isEmpty()) {
            text.append("  ").append(key).append(":\n");
            rows.forEach(row -> text.append("    - [")
                    .append(row.stream().map(cell -> quoted(cell)).collect(Collectors.joining(", ")))
                    .append("]\n"));
        }
    }

    private void numbers(StringBuilder text) {
        var told = template.numbers();
        String said = answers.getOrDefault(NUMBERS, POINT);
        char mark = told == null || template.form().isWorkbook() ? '.' : told.decimalMark();
        String decimal =
                told != null ? String.valueOf(mark) : said.equals(COMMA) ? "," : said.equals(MINOR) ? "implied" : ".";
        String thousands =
                told == null || told.thousandsMark() == 0 || template.form().isWorkbook()
                        ? "none"
                        : String.valueOf(told.thousandsMark());
        String negative = told == null
                ? "minus"
                : told.brackets() ? "brackets" : told.trailingMinus() ? "trailing minus" : "minus";
        text.append("numbers: {decimal: ")
                .append(quoted(decimal))
                .append(", thousands: ")
                .append(quoted(thousands))
                .append(", negative: ")
                .append(negative)
                .append("}\n");
    }

    private void column(Template.Column column, StringBuilder text) {
        Content content = Objects.requireNonNull(contents.get(column));
        List<String> keys = new ArrayList<>();
        if (!column.title().equals(column.name())) {
            keys.add("title: " + quoted(column.title()));
        }
        Field field = content.field();
        if (content.counts() != null) {
            keys.add("counts: " + content.counts().word());
        } else if (field == null) {
            keys.add("constant: " + quoted(Objects.requireNonNull(content.constant())));
        } else {
            ofField(column, content, field, keys);
        }
        if (column.width() > 0) {
            keys.add("width: " + column.width());
        }
        text.append("  ")
                .append(quoted(column.name()))
                .append(": {")
                .append(String.join(", ", keys))
                .append("}\n");
    }

    // Of two sides one is blank in each sample; without samples too.
    private boolean leavesNilBlank(Kind kind) {
        List<String> samples = contents.entrySet().stream()
                .filter(one -> one.getValue().field() != null
                        && (one.getValue().field() == kind.plusSide()
                                || one.getValue().field() == kind.minusSide()))
                .flatMap(one -> one.getKey().samples().stream())
                .toList();
        return samples.isEmpty() || samples.stream().anyMatch(String::isEmpty);
    }

    private void ofField(Template.Column column, Content content, Field field, List<String> keys) {
        Kind kind = Objects.requireNonNull(takes);
        keys.add("field: " + field.name());
        if (content.sides() != null) {
            keys.add("side: [" + quoted(content.sides().plus()) + ", "
                    + quoted(content.sides().minus()) + "]");
            return;
        }
        if (content.date() != null) {
            day(content.date(), keys);
        }
        boolean text = field.type() == FieldType.TEXT || field.type() == FieldType.CODE;
        if (text && column.atMost() > 0) {
            keys.add("at most: " + column.atMost());
        }
        if (!content.words().isEmpty()) {
            keys.add("values: {"
                    + content.words().entrySet().stream()
                            .map(word -> quoted(word.getKey()) + ": " + quoted(word.getValue()))
                            .collect(Collectors.joining(", "))
                    + "}");
        }
        if (column.must()) {
            keys.add("required: yes");
        }
        if (field.type() == FieldType.AMOUNT) {
            amount(column, field, kind, keys);
        }
    }

    private void day(DatePattern date, List<String> keys) {
        keys.add("pattern: " + quoted(date.pattern()));
        if (date.centuryFrom() > 0) {
            keys.add("century from: " + date.centuryFrom());
        }
        if (!date.language().isEmpty()) {
            keys.add("language: " + date.language());
        }
        if (template.form().isWorkbook() && date.pattern().equals("uuuu-MM-dd")) {
            keys.add("cell: date");
        }
    }

    private void amount(Template.Column column, Field field, Kind kind, List<String> keys) {
        boolean side = field == kind.plusSide() || field == kind.minusSide();
        if (side && leavesNilBlank(kind)) {
            keys.add("blank zero: yes");
        }
        if (field == kind.amount() && contents.values().stream().anyMatch(other -> other.sides() != null)) {
            keys.add("sign: none");
        } else if (field == kind.amount() && "negative".equals(answers.get(SIGNS))) {
            keys.add("sign: turned");
        }
        if (column.width() > 0) {
            keys.add("align: right");
        }
    }
}
