package io.mivrel.drafting;

import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Level;
import io.mivrel.model.Line;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.time.LocalDate;
import java.util.function.Consumer;
import java.util.function.Predicate;

/**
 * Makes the tree of a document of its records: flat rows, each with the fields of all levels. Rows that follow one another
 * with the same key of a level share its node, and then must agree on the fields of that level; a blank means: as above.
 * Below the lines, a row without any value of a level has no node there.
 */
public final class DocumentTree {
    private final Kind kind;
    private final Consumer<Finding> findings;
    private final int depth;
    private final Line[] open;
    private final int[] counts;

    private DocumentTree(Kind kind, Consumer<Finding> findings) {
        this.kind = kind;
        this.findings = findings;
        this.depth = kind.table().levels().size();
        this.open = new Line[depth];
        this.counts = new int[depth];
    }

    /**
     * The heading of the tree.
     *
     * @param records at least one
     * @param lines which records become lines; all are compared with the heading
     * @param findings takes where records disagree
     */
    public static Line of(Kind kind, RecordRange records, Predicate<SourceRecord> lines, Consumer<Finding> findings) {
        DocumentTree tree = new DocumentTree(kind, findings);
        tree.open[0] = Line.heading(kind, records.get(0));
        for (int i = 0; i < records.size(); i++) {
            SourceRecord record = records.get(i);
            if (i > 0) {
                tree.compare(tree.open[0], record);
            }
            if (lines.test(record)) {
                tree.add(record);
            }
        }
        return tree.open[0];
    }

    /** The same of all records. */
    public static Line of(Kind kind, RecordRange records, Consumer<Finding> findings) {
        return of(kind, records, record -> true, findings);
    }

    private void add(SourceRecord record) {
        for (int d = 1; d < depth; d++) {
            if (goesOn(d, record)) {
                compare(open[d], record);
            } else if (d > kind.amount().level().depth() && lacks(kind.table().level(d), record)) {
                return;
            } else {
                open[d] = open[d - 1].add(record, counts[d]++);
                for (int below = d + 1; below < depth; below++) {
                    open[below] = null;
                }
            }
        }
    }

    private boolean goesOn(int d, SourceRecord record) {
        Field key = kind.key(d);
        return key != null && open[d] != null && record.has(key) && same(open[d].source(), record, key);
    }

    private static boolean lacks(Level level, SourceRecord record) {
        for (Field field : level.table().fields()) {
            if (field.level() == level && !field.derived() && record.has(field)) {
                return false;
            }
        }
        return true;
    }

    private void compare(Line node, SourceRecord record) {
        SourceRecord first = node.source();
        for (Field field : kind.table().fields()) {
            if (field.level() == node.level()
                    && !field.derived()
                    && first.has(field)
                    && record.has(field)
                    && !same(first, record, field)) {
                findings.accept(new Finding(
                        Rule.HEADING_DIFFERS,
                        record.origin(),
                        field.name(),
                        show(record, field),
                        "row " + first.row() + " of the same document says " + show(first, field),
                        "correct one of the two, or the reference of this line"));
            }
        }
    }

    private static boolean same(SourceRecord first, SourceRecord other, Field field) {
        return switch (field.type()) {
            case DATE, AMOUNT -> first.number(field) == other.number(field);
            case DECIMAL -> first.decimal(field).compareTo(other.decimal(field)) == 0;
            case TEXT, CODE -> first.block().sameText(field, first.index(), other.block(), other.index());
        };
    }

    private static String show(SourceRecord record, Field field) {
        return switch (field.type()) {
            case DATE -> LocalDate.ofEpochDay(record.number(field)).toString();
            case AMOUNT -> "another amount";
            case DECIMAL -> record.decimal(field).toPlainString();
            case TEXT, CODE -> String.valueOf(record.text(field));
        };
    }
}
