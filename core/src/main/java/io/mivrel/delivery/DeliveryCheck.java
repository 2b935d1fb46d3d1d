package io.mivrel.delivery;

import io.mivrel.checking.Check;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.text.CellBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;

/** Tells what a receiver would refuse or cut, before anything is written. For one thread. */
public final class DeliveryCheck implements Check {
    private final Delivery delivery;
    private final WordRenderer[] limited;
    private final CharsetEncoder encoder;
    private final CellBuffer text = new CellBuffer();

    public DeliveryCheck(Delivery delivery, int decimals) {
        this.delivery = delivery;
        Charset charset = Charset.forName(delivery.format().encoding());
        // Every encoding of Unicode can write every character.
        this.encoder = charset.name().startsWith("UTF-") ? null : charset.newEncoder();
        List<WordRenderer> texts = new ArrayList<>();
        for (ColumnRenderer column :
                DeliveryWriter.renderers(delivery, delivery.numbers().withDecimals(decimals))) {
            if (column instanceof WordRenderer words && (encoder != null || canOffend(column.column))) {
                texts.add(words);
            }
        }
        this.limited = texts.toArray(WordRenderer[]::new);
    }

    // A code without limits can be written as it is.
    private static boolean canOffend(DeliveryColumn column) {
        return column.field().type() == FieldType.TEXT
                || column.atMost() > 0
                || !column.refuse().isEmpty();
    }

    @Override
    public boolean passes(Document document) {
        if (encoder != null) {
            return false;
        }
        Document delivered = delivery.takes().of(document);
        RecordRange asRead = delivery.takes().asRead(delivered);
        return asRead != null && isHarmless(delivered, asRead);
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        if (encoder != null || !delivery.takes().takesAsRead(batch)) {
            Arrays.fill(marked, false);
            return;
        }
        AsRead lines = AsRead.of(batch);
        for (WordRenderer column : limited) {
            for (int i = 0; i < batch.size(); i++) {
                for (int at = batch.from(i); marked[i] && at < batch.to(i); at++) {
                    marked[i] = column.isHarmless(lines.coding(at), lines.records(), at);
                }
            }
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Document delivered = delivery.takes().of(document);
        int lines = delivery.takes().lines(delivered);
        for (int index = 0; index < lines; index++) {
            Object line = LineValues.line(delivered, index);
            for (WordRenderer column : limited) {
                column.appendWhole(delivered, line, index, text.clear());
                if (text.length() > 0 && isSuspect(column.column)) {
                    check(column.column, text.toString(), line, findings);
                }
            }
        }
    }

    private boolean isHarmless(Document delivered, RecordRange asRead) {
        for (WordRenderer column : limited) {
            for (int at = asRead.from(); at < asRead.to(); at++) {
                if (!column.isHarmless(delivered, asRead.batch(), at)) {
                    return false;
                }
            }
        }
        return true;
    }

    // Most texts are harmless, and no string is made of them.
    private boolean isSuspect(DeliveryColumn column) {
        return encoder != null
                || !column.refuse().isEmpty()
                || (column.atMost() > 0 && text.length() > column.atMost())
                || WordRenderer.isFormula((char) text.bytes()[0]);
    }

    private void check(DeliveryColumn column, String whole, Object line, Consumer<Finding> findings) {
        boolean code = column.field().type() != FieldType.TEXT;
        if (column.atMost() > 0 && whole.length() > column.atMost()) {
            add(
                    code ? Rule.CODE_TOO_LONG : Rule.TEXT_CUT,
                    column,
                    whole,
                    line,
                    "has " + whole.length() + " characters, '" + delivery.name() + "' takes " + column.atMost(),
                    code ? "shorten it in the source" : "what is left: " + whole.substring(0, column.atMost()),
                    findings);
        }
        String refused = refused(whole, column.refuse());
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
        if (!code && WordRenderer.isFormula(whole.charAt(0))) {
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
                    delivery.format().encoding() + " cannot write it",
                    "deliver as UTF-8, or change the text",
                    findings);
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

    private static void add(
            Rule rule,
            DeliveryColumn column,
            String text,
            Object line,
            String reason,
            String suggestion,
            Consumer<Finding> findings) {
        findings.accept(new Finding(
                rule, LineValues.source(line).origin(), column.field().name(), text, reason, suggestion));
    }
}
