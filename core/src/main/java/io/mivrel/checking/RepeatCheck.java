package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Of a kind that is {@linkplain io.mivrel.model.Kind#enteredOnce entered once}, the same content twice is one document
 * entered twice, whatever its number. Other kinds are left alone: two equal payments of one day are ordinary.
 */
final class RepeatCheck implements Check {
    private record Seen(String number, Origin origin) {}

    private final Map<String, Seen> contents = new HashMap<>();

    @Override
    public Columns columns() {
        return (documents, marked) -> {
            if (!documents.kind().enteredOnce().isEmpty()) {
                Arrays.fill(marked, false);
            }
        };
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (document.kind().enteredOnce().isEmpty()) {
            return;
        }
        Seen before = contents.putIfAbsent(content(document), new Seen(document.reference(), document.origin()));
        if (before != null) {
            findings.accept(new Finding(
                    Rule.DOCUMENT_REPEATED,
                    document.origin(),
                    Objects.requireNonNull(document.kind().key()).name(),
                    document.reference(),
                    "same party, date and lines as " + before.number + " (" + before.origin + ")",
                    "take one of the two out, or make them differ if both are true"));
        }
    }

    private static String content(Document document) {
        StringBuilder content = new StringBuilder();
        for (Field field : document.kind().enteredOnce()) {
            for (Line line : document.lines(field.level())) {
                // No text of a file has such a mark.
                content.append('\0').append(value(line, field));
            }
        }
        return content.toString();
    }

    private static @Nullable Object value(Line line, Field field) {
        return switch (field.type()) {
            case DATE, AMOUNT -> line.number(field);
            case DECIMAL -> line.decimal(field);
            case TEXT, CODE -> line.text(field);
        };
    }
}
