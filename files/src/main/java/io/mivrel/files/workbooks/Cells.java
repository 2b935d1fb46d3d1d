package io.mivrel.files.workbooks;

import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The cells of one row while they are gathered, within the bounds of a row. For one thread. */
final class Cells {
    /** Most characters of a row, as of a row of text. */
    private static final int MOST_CHARACTERS = 1 << 20;

    private final List<String> texts = new ArrayList<>();
    private final BitSet plain = new BitSet();
    private long characters;
    private @Nullable RowFault fault;

    void clear() {
        texts.clear();
        plain.clear();
        characters = 0;
        fault = null;
    }

    void faulty(RowFault found) {
        fault = fault == null ? found : fault;
    }

    /** Puts a text at a place from 0; a blank one is left out at the end of a row. */
    void put(int place, String text) {
        if (text.isEmpty()) {
            return;
        }
        characters += text.length();
        if (place >= Workbooks.MOST_CELLS || characters > MOST_CHARACTERS) {
            faulty(RowFault.TOO_LONG);
            return;
        }
        while (texts.size() <= place) {
            texts.add("");
        }
        texts.set(place, text);
    }

    /** The same of a number or a day. */
    void putPlain(int place, String text) {
        put(place, text);
        if (place < texts.size()) {
            plain.set(place);
        }
    }

    boolean isEmpty() {
        return texts.isEmpty() && fault == null;
    }

    void fill(Row row, long number) {
        row.fill(number, texts);
        plain.stream().forEach(row::plain);
        row.fault(fault);
    }
}
