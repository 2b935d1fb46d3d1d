package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Hash64;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Finds movements of one day that nothing in the file tells apart. For one thread. */
final class EqualLines {
    private static final int MOST = 1000;

    private final Field date;
    private final Field amount;
    private final List<Field> texts;
    private final Map<Long, Long> rowsOfDay = new HashMap<>();
    private final Map<Long, Long> again = new LinkedHashMap<>();
    private long day = SourceRecord.ABSENT;

    EqualLines(Field date, Field amount, List<Field> fields) {
        this.date = date;
        this.amount = amount;
        this.texts = fields.stream()
                .filter(f -> f.type() == FieldType.TEXT || f.type() == FieldType.CODE)
                .toList();
    }

    /** The one row, equal to another, that moves so much; 0 when there is none, or more than one. */
    long rowOf(long moved) {
        List<Long> rows = again.entrySet().stream()
                .filter(e -> e.getValue() == moved)
                .map(Map.Entry::getKey)
                .toList();
        return rows.size() == 1 ? rows.get(0) : 0;
    }

    /** Looks at the record that is being read. */
    void look(RecordBlock record, long row, RowProblems problems) {
        long on = record.number(date);
        if (on == SourceRecord.ABSENT || record.number(amount) == SourceRecord.ABSENT) {
            return;
        }
        if (on != day) {
            day = on;
            rowsOfDay.clear();
        }
        long hash = Hash64.add(1, record.number(amount));
        for (Field field : texts) {
            String text = record.text(field);
            hash = Hash64.add(hash, text == null ? "" : text);
        }
        Long before = rowsOfDay.putIfAbsent(hash, row);
        if (before != null) {
            if (again.size() < MOST) {
                again.put(row, record.number(amount));
            }
            problems.add(
                    Rule.LINE_ALIKE,
                    "",
                    "",
                    "equal to row " + before
                            + " in date, amount and every text, and no balance tells whether both are true",
                    "compare with the statement; if it is one movement, take one of the rows out");
        }
    }
}
