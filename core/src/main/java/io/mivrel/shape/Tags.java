package io.mivrel.shape;

import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A column that says what each row is: a heading, a line of the headings above it, a row that names the columns of
 * another tag, or nothing that is wanted. Headings may have levels; one that comes later among the tags stands lower and
 * is forgotten when a higher one comes.
 *
 * @param column title or place of the column with the tags
 * @param tags each tag with what its rows are; the tags {@link #FILLED} and {@link #BLANK} stand for any text and for none
 */
public record Tags(String column, Map<String, Kind> tags) implements Shape {
    public static final String FILLED = "when filled";
    public static final String BLANK = "when blank";

    private static final int MOST_REMARKS = 50;

    /** What the rows of a tag are. */
    public enum Role {
        HEADING,
        LINE,
        /** Its cells name the columns of another tag, in one of the rows or for all. */
        COLUMNS,
        ASIDE
    }

    /**
     * One tag.
     *
     * @param role what its rows are
     * @param columns names of their cells in order; an empty name leaves the cell aside. Empty when rows of another tag
     *     name them. For {@link Role#COLUMNS}, names that come only behind the first line
     * @param of for {@link Role#COLUMNS}, the tag whose columns they name; {@code null} when a cell of the row says it
     * @param cell for {@link Role#COLUMNS}, the place from 1 of the cell that says it; 0 for none. Rows of the tag itself lack
     *     this cell
     */
    public record Kind(
            Role role, List<String> columns, @Nullable String of, int cell) {
        public Kind {
            columns = List.copyOf(columns);
        }
    }

    public Tags {
        tags = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(tags));
    }

    @Override
    public boolean adds(String title) {
        // The tags name all columns that a layout can use.
        return true;
    }

    @Override
    public List<String> needs() {
        return List.of();
    }

    @Override
    public RowSource over(RowSource rows, Siblings siblings) {
        return new Rows(rows, column, tags);
    }

    private static final class Rows extends ShapedRows {
        private final String column;
        private final Map<String, Kind> tags;
        private final Map<String, int[]> cellsOf = new LinkedHashMap<>();
        private final List<String> names;
        private final List<byte[]> heads = new ArrayList<>();
        private final Map<String, Integer> levels = new LinkedHashMap<>();
        private final List<Finding> remarks = new ArrayList<>();
        private int tagCell = -1;
        private long openHeading;

        Rows(RowSource inner, String column, Map<String, Kind> tags) {
            super(inner);
            this.column = column;
            this.tags = tags;
            Set<String> all = new LinkedHashSet<>();
            tags.forEach((tag, kind) -> {
                if (kind.role() == Role.HEADING) {
                    levels.put(tag, levels.size());
                }
                all.addAll(kind.columns());
            });
            all.remove("");
            this.names = new ArrayList<>(all);
        }

        @Override
        List<String> titlesOver(List<String> source) {
            // Columns that a row of the file names are known once it has come, which must be above the lines.
            return names;
        }

        // Rows of different tags have different widths, so a place is taken on trust.
        private void findTags() throws IOException {
            boolean byPlace = column.startsWith("#");
            List<String> source = inner.titles() == null ? List.of() : inner.titles();
            tagCell = byPlace ? Integer.parseInt(column.substring(1)) - 1 : place(column, source, "tags");
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            if (row == null || passes(row)) {
                return row;
            }
            if (tagCell < 0) {
                findTags();
            }
            if (row.isBlank()) {
                row.aside(LeftOut.BLANK);
                return row;
            }
            String tag = tagCell < row.size() ? row.trimmed(tagCell) : "";
            Kind kind = tags.get(tag);
            if (kind == null) {
                tag = tag.isEmpty() ? BLANK : FILLED;
                kind = tags.get(tag);
            }
            return shaped(row, tag, kind);
        }

        private Row shaped(Row row, String tag, @Nullable Kind kind) throws IOException {
            if (kind == null) {
                row.fault(RowFault.TAG_UNKNOWN, tagCell < row.size() ? row.trimmed(tagCell) : "");
                return row;
            }
            switch (kind.role()) {
                case ASIDE -> row.aside(LeftOut.BY_LAYOUT);
                case COLUMNS -> {
                    String late = define(row, kind);
                    if (late == null) {
                        row.aside(LeftOut.TITLES);
                    } else {
                        row.fault(RowFault.TAG_COLUMN, late);
                    }
                }
                case HEADING -> {
                    if (hasTooMany(row, tag, kind)) {
                        row.fault(RowFault.TAG_CELLS);
                        return row;
                    }
                    head(row, tag, kind);
                    row.aside(LeftOut.HEADING);
                }
                case LINE -> {
                    if (hasTooMany(row, tag, kind)) {
                        row.fault(RowFault.TAG_CELLS);
                        return row;
                    }
                    learnTitles(row);
                    openHeading = 0;
                    return line(row, tag, kind);
                }
            }
            return row;
        }

        // The name of a column that comes once lines have, and so would be lost; null when all are known.
        private @Nullable String define(Row row, Kind kind) {
            int saying = kind.cell() - 1;
            String of = kind.of() != null ? kind.of() : saying < row.size() ? row.trimmed(saying) : "";
            int[] cells = new int[row.size()];
            Arrays.fill(cells, -1);
            for (int i = 0; i < row.size(); i++) {
                String name = row.trimmed(i);
                if (i != tagCell && i != saying && !name.isEmpty()) {
                    int place = nameAt(name);
                    if (place < 0) {
                        return name;
                    }
                    cells[saying >= 0 && i > saying ? i - 1 : i] = place;
                }
            }
            cellsOf.put(of, cells);
            return null;
        }

        private int nameAt(String name) {
            int at = names.indexOf(name);
            if (at < 0 && titles() == null) {
                names.add(name);
                at = names.size() - 1;
            }
            return at;
        }

        // For each cell of a row of this tag, the place of its name; -1 for one that is left aside.
        private int[] cells(String tag, Kind kind) {
            return cellsOf.computeIfAbsent(tag, t -> {
                int[] cells = new int[kind.columns().size()];
                for (int i = 0; i < cells.length; i++) {
                    String name = kind.columns().get(i);
                    cells[i] = name.isEmpty() ? -1 : names.indexOf(name);
                }
                return cells;
            });
        }

        // What stands beyond the named columns would be lost.
        private boolean hasTooMany(Row row, String tag, Kind kind) {
            for (int i = cells(tag, kind).length; i < row.size(); i++) {
                if (trimmed(row, i).length > 0) {
                    return true;
                }
            }
            return false;
        }

        private void head(Row row, String tag, Kind kind) {
            childless();
            int level = Objects.requireNonNull(levels.get(tag));
            levels.forEach((other, otherLevel) -> {
                if (otherLevel >= level) {
                    for (int place : cells(other, Objects.requireNonNull(tags.get(other)))) {
                        put(place, new byte[0]);
                    }
                }
            });
            int[] cells = cells(tag, kind);
            for (int i = 0; i < Math.min(cells.length, row.size()); i++) {
                put(cells[i], trimmed(row, i));
            }
            openHeading = row.number();
        }

        private void put(int place, byte[] text) {
            if (place >= 0) {
                while (heads.size() <= place) {
                    heads.add(new byte[0]);
                }
                heads.set(place, text);
            }
        }

        private void childless() {
            if (openHeading > 0 && levels.size() == 1 && remarks.size() < MOST_REMARKS) {
                remarks.add(new Finding(
                        Rule.HEADING_WITHOUT_LINES,
                        Origin.of("", openHeading),
                        "",
                        "",
                        "the heading has no line below it",
                        ""));
            }
        }

        private Row line(Row row, String tag, Kind kind) {
            int[] cells = cells(tag, kind);
            beginRow(row);
            for (int place = 0; place < names.size(); place++) {
                int cell = cellFor(cells, place);
                if (cell >= 0) {
                    copy(row, cell);
                } else {
                    add(place < heads.size() ? heads.get(place) : new byte[0]);
                }
            }
            return finishRow();
        }

        private static int cellFor(int[] cells, int place) {
            for (int i = 0; i < cells.length; i++) {
                if (cells[i] == place) {
                    return i;
                }
            }
            return -1;
        }

        @Override
        public List<Finding> remarks() {
            childless();
            openHeading = 0;
            List<Finding> all = new ArrayList<>(super.remarks());
            all.addAll(remarks);
            return all;
        }
    }
}
