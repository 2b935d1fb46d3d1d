package io.mivrel.checking;

import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * Parts of a journal that stand far apart in the file and balance each by itself are probably two entries under one number.
 * Lines of one entry may stand anywhere, as in a list by account, but then no part of them balances.
 */
final class TwoEntriesCheck implements Check {
    /** With so many rows between them, lines stand apart. */
    private static final long FAR = 20;

    /** Lines that stand together. */
    private static final class Part {
        private final long first;
        private long last;
        private long sum;
        private int lines;

        Part(long first) {
            this.first = first;
            this.last = first;
        }

        void add(Line line) {
            last = Math.max(last, line.source().row());
            sum = Math.addExact(sum, line.minor());
            lines++;
        }

        @Override
        public String toString() {
            return "rows " + first + " to " + last;
        }
    }

    @Override
    public Columns columns() {
        // What stands together has one part.
        return (documents, marked) -> {};
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (!document.kind().isJournal()) {
            return;
        }
        List<Part> parts = new ArrayList<>();
        String file = null;
        for (Line line : document.lines()) {
            long row = line.source().row();
            Part open = parts.isEmpty() ? null : parts.get(parts.size() - 1);
            if (open == null || !line.source().file().equals(file) || row - open.last > FAR || row < open.last) {
                open = new Part(row);
                parts.add(open);
            }
            file = line.source().file();
            open.add(line);
        }
        if (parts.size() > 1 && parts.stream().allMatch(part -> part.sum == 0 && part.lines > 1)) {
            findings.accept(new Finding(
                    Rule.TWO_ENTRIES,
                    document.origin(),
                    "reference",
                    document.reference(),
                    "balances in " + parts.size() + " parts that stand apart, "
                            + String.join(
                                    " and ", parts.stream().map(Part::toString).toList()),
                    Rule.TWO_ENTRIES.remedy()));
        }
    }
}
