package io.mivrel.shape;

import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One wide row becomes several lines, one for each amount column that is filled and not nil, such as the pay of one
 * person. The line has the cells of the row and four more: {@value #ACCOUNT}, {@value #TEXT}, {@value #SIDE} and
 * {@value #AMOUNT}, which is the cell as it stands.
 */
public record FanOut(List<Amount> amounts) implements Shape {
    public static final String ACCOUNT = "fan account";
    public static final String TEXT = "fan text";
    public static final String SIDE = "fan side";
    public static final String AMOUNT = "fan amount";

    /**
     * One amount column.
     *
     * @param column its title or place
     * @param account the account of the line
     * @param text the text of the line
     * @param side {@code debit} or {@code credit}
     */
    public record Amount(String column, String account, String text, String side) {}

    public FanOut {
        amounts = List.copyOf(amounts);
    }

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, amounts);
    }

    @Override
    public boolean adds(String column) {
        return List.of(ACCOUNT, TEXT, SIDE, AMOUNT).contains(column);
    }

    @Override
    public List<String> needs() {
        return amounts.stream().map(Amount::column).toList();
    }

    private static final class Rows extends ShapedRows {
        private final List<Amount> amounts;
        private final int[] places;
        private int width;
        private @Nullable Row wide;
        private int at;
        private boolean any;

        Rows(RowSource inner, List<Amount> amounts) {
            super(inner);
            this.amounts = amounts;
            this.places = new int[amounts.size()];
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            width = source.size();
            for (int i = 0; i < places.length; i++) {
                places[i] = place(amounts.get(i).column(), source, "fan out");
            }
            List<String> titles = new ArrayList<>(source);
            titles.addAll(List.of(ACCOUNT, TEXT, SIDE, AMOUNT));
            return titles;
        }

        @Override
        public @Nullable Row next() throws IOException {
            while (true) {
                if (wide == null) {
                    Row row = inner.next();
                    if (row == null || passes(row)) {
                        return row;
                    }
                    learnTitles(row);
                    if (row.isBlank() || !fits(row, width)) {
                        return row;
                    }
                    wide = row;
                    at = 0;
                    any = false;
                }
                while (at < places.length) {
                    int place = at++;
                    if (isMoved(wide, places[place])) {
                        return line(wide, amounts.get(place), places[place]);
                    }
                }
                Row done = wide;
                wide = null;
                if (!any) {
                    done.aside(LeftOut.WITHOUT_AMOUNTS);
                    return done;
                }
            }
        }

        private Row line(Row wide, Amount amount, int cell) {
            beginRow(wide);
            copyAll(wide, width);
            add(bytes(amount.account()));
            add(bytes(amount.text()));
            add(bytes(amount.side()));
            copy(wide, cell);
            Row line = finishRow();
            if (any) {
                line.again();
            }
            any = true;
            return line;
        }

        // Nil is 0, 0.00, -, and the like: no digit but nought.
        private static boolean isMoved(Row row, int cell) {
            for (byte b : trimmed(row, cell)) {
                if (b != '0' && b != '.' && b != ',' && b != '-' && b != ' ') {
                    return true;
                }
            }
            return false;
        }
    }
}
