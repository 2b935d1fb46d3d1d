package io.mivrel.delivery;

import io.mivrel.checking.Check;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Tells what a receiver would refuse or cut, before anything is written. For one thread. */
public final class DeliveryCheck implements Check {
    private final Delivery delivery;
    private final List<SheetCheck> sheets;
    /** Rules and fields of which composed words were told. */
    private final Set<String> told = new HashSet<>();

    public DeliveryCheck(Delivery delivery, Currency currency) {
        this.delivery = delivery;
        this.sheets = delivery.sheets().stream()
                .map(sheet -> new SheetCheck(sheet, currency))
                .toList();
    }

    @Override
    public Columns columns() {
        return this::unmark;
    }

    private void unmark(DocumentBlock documents, boolean[] marked) {
        for (SheetCheck sheet : sheets) {
            if (sheet.encoder != null
                    || !sheet.must.isEmpty()
                    || !SheetWriter.takesRecords(sheet.sheet, delivery.takes(), documents)) {
                Arrays.fill(marked, false);
                return;
            }
            for (WordRenderer column : sheet.words) {
                for (int i = 0; i < documents.size(); i++) {
                    for (int at = documents.from(i); marked[i] && at < documents.to(i); at++) {
                        marked[i] = column.isHarmless(documents, i, at);
                    }
                }
            }
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Document delivered = DeliveryWriter.delivered(delivery, document);
        for (SheetCheck sheet : sheets) {
            for (Line line : delivered.lines(sheet.sheet.level())) {
                sheet.check(line, findings);
                for (WordRenderer column : sheet.words) {
                    String whole = column.whole(line);
                    if (!whole.isEmpty()) {
                        sheet.check(column.column, whole, line, findings);
                    }
                    if (column.column.text().isWordless(column.raw(line))) {
                        add(
                                Rule.WORD_UNKNOWN,
                                column.column,
                                column.raw(line),
                                line,
                                "'" + delivery.name() + "' has no word for it in the column '" + column.column.title()
                                        + "'",
                                "give it one under 'values' of the column",
                                findings);
                    }
                }
            }
        }
    }

    /** What one sheet refuses. */
    private final class SheetCheck {
        private final Sheet sheet;
        private final List<WordRenderer> words = new ArrayList<>();
        /** Columns that may not be blank. */
        private final List<DeliveryColumn> must;

        /** {@code null} when the encoding can write every character. */
        private final @Nullable CharsetEncoder encoder;

        SheetCheck(Sheet sheet, Currency currency) {
            this.sheet = sheet;
            Charset charset = Charset.forName(sheet.format().encoding());
            this.encoder = charset.name().startsWith("UTF-") ? null : charset.newEncoder();
            this.must = sheet.columns().stream()
                    .filter(column -> column.must() && column.field() != null)
                    .toList();
            for (ColumnRenderer column :
                    SheetWriter.renderers(sheet, delivery.takes(), currency, new ColumnRenderer.Counter())) {
                if (column instanceof WordRenderer renderer && (encoder != null || canOffend(column.column))) {
                    words.add(renderer);
                }
            }
        }

        // A code without limits can be written as it is.
        private boolean canOffend(DeliveryColumn column) {
            return field(column).type() == FieldType.TEXT
                    || column.most() > 0
                    || column.must()
                    || !column.text().words().isEmpty()
                    || !column.text().refuse().isEmpty();
        }

        // Of a text, what is left of it counts.
        void check(Line line, Consumer<Finding> findings) {
            for (DeliveryColumn column : must) {
                boolean blank = words.stream()
                        .filter(renderer -> renderer.column == column)
                        .map(renderer -> renderer.whole(line).isBlank())
                        .findFirst()
                        .orElseGet(() -> line.number(field(column)) == SourceRecord.ABSENT);
                if (blank) {
                    add(
                            Rule.CELL_MISSING,
                            column,
                            "",
                            line,
                            "'" + delivery.name() + "' requires the column '" + column.title() + "', and it is blank",
                            "fill in " + field(column).meaning() + ", or leave 'required' out",
                            findings);
                }
            }
        }

        void check(DeliveryColumn column, String whole, Line line, Consumer<Finding> findings) {
            boolean code = field(column).type() != FieldType.TEXT;
            int most = column.most();
            if (most > 0 && whole.length() > most) {
                add(
                        code ? Rule.CODE_TOO_LONG : Rule.TEXT_CUT,
                        column,
                        whole,
                        line,
                        "has " + whole.length() + " characters, '" + delivery.name() + "' takes " + most,
                        code
                                ? "shorten it in the source"
                                : "what is left: " + whole.substring(0, most).stripTrailing(),
                        findings);
            }
            String refused = refused(whole, column.text().refuse());
            if (!refused.isEmpty()) {
                add(
                        code ? Rule.CODE_REFUSED : Rule.TEXT_REFUSED_CHARACTERS,
                        column,
                        whole,
                        line,
                        "'" + delivery.name() + "' refuses " + refused,
                        code ? "correct it in the source" : "they are left out",
                        findings);
            }
            // Only of separated text a spreadsheet has to guess what is a formula.
            boolean guessed = sheet.format().kind().equals(DeliveryFormat.SEPARATED);
            if (!code && guessed && WordRenderer.isFormula(whole.charAt(0))) {
                add(
                        Rule.TEXT_FORMULA,
                        column,
                        whole,
                        line,
                        "begins with '" + whole.charAt(0) + "', which a spreadsheet may run",
                        "do not open the delivered file in a spreadsheet, or change the text",
                        findings);
            }
            if (encoder != null && !encoder.canEncode(whole)) {
                add(
                        Rule.TEXT_NOT_ENCODABLE,
                        column,
                        whole,
                        line,
                        sheet.format().encoding() + " cannot write it",
                        "deliver as UTF-8, or change the text",
                        findings);
            }
        }
    }

    private static String refused(String text, String refuse) {
        StringBuilder found = new StringBuilder();
        for (int i = 0; i < refuse.length(); i++) {
            if (text.indexOf(refuse.charAt(i)) >= 0) {
                found.append(found.isEmpty() ? "" : " ").append(refuse.charAt(i));
            }
        }
        return found.toString();
    }

    // A row of the source is not to blame for words that it does not hold. They are told once, unless they hold
    // documents.
    private void add(
            Rule rule,
            DeliveryColumn column,
            String text,
            Line line,
            String reason,
            String suggestion,
            Consumer<Finding> findings) {
        Field field = field(column);
        if (field.type() != FieldType.TEXT || !line.isComposed(field)) {
            findings.accept(new Finding(rule, line.source().origin(), field.name(), text, reason, suggestion));
        } else if (told.add(rule.id() + " " + field.name())) {
            findings.accept(new Finding(
                    rule,
                    Origin.of("delivery '" + delivery.name() + "'", 0),
                    field.name(),
                    text,
                    reason + "; these words are composed, no row of the source holds them",
                    suggestion));
        }
    }

    // A column with a text of its own is never looked at.
    private static Field field(DeliveryColumn column) {
        return Objects.requireNonNull(column.field());
    }
}
