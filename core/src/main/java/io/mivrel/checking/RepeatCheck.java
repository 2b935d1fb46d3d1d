package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;

/**
 * The same party, date and lines twice are one document entered twice, whatever its number. Invoices only: two equal
 * payments of one day are ordinary.
 */
final class RepeatCheck implements Check {
    private record Seen(String number, Origin origin) {}

    private final Map<String, Seen> contents = new HashMap<>();

    @Override
    public boolean passes(Document document) {
        return !(document instanceof Invoice);
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        // Only invoices are looked at.
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (!(document instanceof Invoice invoice)) {
            return;
        }
        Seen before = contents.putIfAbsent(content(invoice), new Seen(invoice.reference(), invoice.origin()));
        if (before != null) {
            findings.accept(new Finding(
                    Rule.DOCUMENT_REPEATED,
                    invoice.origin(),
                    "number",
                    invoice.reference(),
                    "same party, date and lines as " + before.number + " (" + before.origin + ")",
                    "take one of the two out, or make them differ if both are true"));
        }
    }

    private static String content(Invoice invoice) {
        StringBuilder content = new StringBuilder();
        SourceRecord first = invoice.records().get(0);
        content.append(invoice.kind()).append('|').append(first.text(InvoiceLines.PARTY));
        content.append('|').append(invoice.date());
        for (InvoiceLine line : invoice.lines()) {
            content.append('|').append(line.source().text(InvoiceLines.ACCOUNT));
            content.append('|').append(line.net()).append('|').append(line.tax());
            content.append('|').append(Objects.toString(line.source().text(InvoiceLines.NARRATIVE), ""));
        }
        return content.toString();
    }
}
