package io.mivrel.checking;

import io.mivrel.books.Books;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Nearest;
import io.mivrel.text.SpanMap;
import java.util.Collection;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Tax codes and parties must be in the books. */
final class CodeCheck implements Check {
    private final Books books;
    private final SpanMap<String> taxCodes;
    private final SpanMap<String> parties;

    CodeCheck(Books books) {
        this.books = books;
        this.taxCodes = SpanMap.ofKeys(books.taxCodeCodes());
        this.parties = SpanMap.ofKeys(books.partyCodes());
    }

    @Override
    public Columns columns() {
        return this::unmark;
    }

    private void unmark(DocumentBlock documents, boolean[] marked) {
        unmark(documents, documents.kind().taxCode(), taxCodes, books::taxCode, marked);
        unmark(documents, documents.kind().party(), parties, books::party, marked);
    }

    private static void unmark(
            DocumentBlock documents,
            @Nullable Field field,
            SpanMap<String> known,
            Function<String, @Nullable Object> named,
            boolean[] marked) {
        RecordBlock records = documents.records();
        boolean coded = documents.isCoded();
        if (field == null || !coded && records.lacks(field)) {
            return;
        }
        for (int i = 0; i < documents.size(); i++) {
            for (int at = documents.from(i); marked[i] && at < documents.to(i); at++) {
                marked[i] = coded ? isKnown(documents.made(field, i, at), named) : isKnown(records, field, at, known);
            }
        }
    }

    private static boolean isKnown(@Nullable String code, Function<String, @Nullable Object> named) {
        return code == null || named.apply(code) != null;
    }

    private static boolean isKnown(RecordBlock records, Field field, int at, SpanMap<String> known) {
        int start = records.textStart(field, at);
        int end = records.textEnd(field, at);
        return start == end || known.get(records.textBytes(), start, end) != null;
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Field party = document.kind().party();
        boolean onHeading = party != null
                && party.level().depth() < document.kind().amount().level().depth();
        for (Line line : document.lines()) {
            taxCode(line.source(), line.taxCode(), findings);
            if (!onHeading) {
                party(line.source(), line.party(), findings);
            }
        }
        if (onHeading) {
            party(document.heading().source(), document.heading().party(), findings);
        }
    }

    private void taxCode(SourceRecord line, @Nullable String code, Consumer<Finding> findings) {
        if (code != null && books.taxCode(code) == null) {
            findings.accept(new Finding(
                    Rule.TAX_CODE_UNKNOWN,
                    line.origin(),
                    "tax code",
                    code,
                    "the books have " + String.join(", ", books.taxCodeCodes()),
                    meant(code, books.taxCodeCodes())));
        }
    }

    private void party(SourceRecord line, @Nullable String code, Consumer<Finding> findings) {
        if (code != null && books.party(code) == null) {
            findings.accept(new Finding(
                    Rule.PARTY_UNKNOWN,
                    line.origin(),
                    "party",
                    code,
                    "is neither a customer nor a supplier of the books",
                    meant(code, books.partyCodes())));
        }
    }

    private static String meant(@Nullable String code, Collection<String> known) {
        String near = code == null ? null : Nearest.one(code, known);
        return near == null ? "" : "was " + near + " meant?";
    }
}
