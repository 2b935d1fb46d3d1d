package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Origin;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/**
 * A document each of whose lines is there twice, or as many times as any other, is one document that was taken in twice
 * under one number: it balances, so nothing else would notice.
 */
final class RepeatedLinesCheck implements Check {
    /** A document of one kind of line, such as two equal items, says nothing. */
    private static final int LEAST_DISTINCT = 2;

    @Override
    public Columns columns() {
        return RepeatedLinesCheck::unmark;
    }

    // The quick look: the amount of the first line comes again.
    private static void unmark(DocumentBlock documents, boolean[] marked) {
        if (documents.kind().key() == null) {
            return;
        }
        RecordBlock records = documents.records();
        Field amount = documents.kind().amount();
        for (int i = 0; i < documents.size(); i++) {
            int from = documents.from(i);
            int to = documents.to(i);
            if (to - from >= 2 * LEAST_DISTINCT) {
                long first = records.number(amount, from);
                for (int at = from + 1; marked[i] && at < to; at++) {
                    marked[i] = records.number(amount, at) != first;
                }
            }
        }
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (document.kind().key() == null || document.lines().size() < 2 * LEAST_DISTINCT) {
            return;
        }
        Map<List<Object>, List<Line>> equal = new LinkedHashMap<>();
        for (Line line : document.lines()) {
            equal.computeIfAbsent(content(line), c -> new ArrayList<>(2)).add(line);
        }
        int times = equal.values().stream()
                .map(lines -> BigInteger.valueOf(lines.size()))
                .reduce(BigInteger.ZERO, BigInteger::gcd)
                .intValue();
        if (times < 2 || equal.size() < LEAST_DISTINCT) {
            return;
        }
        List<Line> first = new ArrayList<>();
        List<Line> again = new ArrayList<>();
        for (List<Line> lines : equal.values()) {
            int once = lines.size() / times;
            first.addAll(lines.subList(0, once));
            again.addAll(lines.subList(once, lines.size()));
        }
        Origin place = again.get(0).source().origin();
        findings.accept(new Finding(
                Rule.LINES_REPEATED,
                place,
                Objects.requireNonNull(document.kind().key()).name(),
                document.reference(),
                "every line is there " + (times == 2 ? "twice" : times + " times") + ": rows " + rows(first)
                        + " and again rows " + rows(again),
                "take out the rows that came a second time; if both are true, give one a number of its own"));
    }

    private static List<Object> content(Line line) {
        List<Object> content = new ArrayList<>();
        for (Field field : line.kind().table().fields()) {
            if (field.level() == line.level() && !field.derived()) {
                content.add(
                        field.type() == FieldType.TEXT || field.type() == FieldType.CODE
                                ? String.valueOf(line.text(field))
                                : field.type() == FieldType.DECIMAL
                                        ? String.valueOf(line.decimal(field))
                                        : (Object) line.number(field));
            }
        }
        return content;
    }

    private static String rows(List<Line> lines) {
        return lines.stream()
                .limit(4)
                .map(line -> Long.toString(line.source().row()))
                .collect(Collectors.joining(", ", "", lines.size() > 4 ? " …" : ""));
    }
}
