package io.mivrel.drafting;

import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.JournalBatch;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.time.LocalDate;
import java.util.List;
import java.util.function.Consumer;

/** Compares the fields that belong to a whole document between its lines. A blank means: as above. */
final class Headings {
    private final Field[] fields;

    Headings(FieldTable table) {
        fields = table.fields().stream().filter(Field::heading).toArray(Field[]::new);
    }

    /** True when every line gives every heading, and all lines give the same. */
    boolean allAgree(RecordRange records) {
        for (Field field : fields) {
            if (!records.agreesOn(field)) {
                return false;
            }
        }
        return true;
    }

    /** Takes the mark from those journals of which that is not so; lines of one journal have the same reference. */
    void allAgree(JournalBatch journals, boolean[] marked) {
        for (Field field : fields) {
            if (field != JournalLines.REFERENCE) {
                for (int i = 0; i < journals.size(); i++) {
                    marked[i] = marked[i] && journals.lines(i).agreesOn(field);
                }
            }
        }
    }

    void compare(List<SourceRecord> records, Consumer<Finding> findings) {
        SourceRecord first = records.get(0);
        for (int i = 1; i < records.size(); i++) {
            SourceRecord line = records.get(i);
            for (Field field : fields) {
                if (differs(first, line, field)) {
                    findings.accept(new Finding(
                            Rule.HEADING_DIFFERS,
                            line.origin(),
                            field.name(),
                            show(line, field),
                            "row " + first.row() + " of the same document says " + show(first, field),
                            "correct one of the two, or the reference of this line"));
                }
            }
        }
    }

    private static boolean differs(SourceRecord first, SourceRecord line, Field field) {
        if (!line.has(field) || !first.has(field)) {
            return false;
        }
        return field.type() == FieldType.DATE || field.type() == FieldType.AMOUNT
                ? first.number(field) != line.number(field)
                : !first.batch().sameText(field, first.index(), line.batch(), line.index());
    }

    private static String show(SourceRecord record, Field field) {
        return switch (field.type()) {
            case DATE -> LocalDate.ofEpochDay(record.number(field)).toString();
            case AMOUNT -> "another amount";
            default -> record.text(field);
        };
    }
}
