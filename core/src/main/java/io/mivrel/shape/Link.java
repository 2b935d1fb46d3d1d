package io.mivrel.shape;

import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Another file or sheet whose rows belong to these by a key, such as the headings of documents: its columns are added to
 * each row under {@code name.title}. Its rows are kept in memory, at most {@value #MOST_ROWS}.
 *
 * @param name the name of the link, before its titles
 * @param file plain name of the file beside the one being read; {@code same} for that file itself
 * @param format how it is laid out; with titles
 * @param key the column of these rows that holds the key; may be one that an earlier link added
 * @param theirKey the column of the other file that holds it
 * @param firstOnly true when a key may stand there several times and the first counts, as when a file is read twice
 */
public record Link(String name, String file, FileFormat format, String key, String theirKey, boolean firstOnly)
        implements Shape {
    public static final String SAME = "same";

    static final int MOST_ROWS = 1_000_000;
    private static final int MOST_REMARKS = 50;

    @Override
    public RowSource over(RowSource rows, Siblings siblings) throws IOException {
        return new Rows(rows, this, siblings);
    }

    @Override
    public boolean adds(String column) {
        return column.startsWith(name + ".");
    }

    @Override
    public List<String> needs() {
        return List.of(key);
    }

    private static final class Other {
        private final long row;
        private final byte[][] cells;
        private boolean used;

        Other(long row, byte[][] cells) {
            this.row = row;
            this.cells = cells;
        }
    }

    private static final class Rows extends ShapedRows {
        private final Link link;
        private final Siblings siblings;
        private final Map<String, Other> others = new HashMap<>();
        private List<String> theirTitles = List.of();
        private final List<Finding> blank = new ArrayList<>();
        private int width;
        private int key;

        Rows(RowSource inner, Link link, Siblings siblings) {
            super(inner);
            this.link = link;
            this.siblings = siblings;
        }

        @Override
        List<String> titlesOver(List<String> source) throws IOException {
            load();
            width = source.size();
            key = place(link.key, source, "the key of the link " + link.name);
            List<String> titles = new ArrayList<>(source);
            theirTitles.forEach(title -> titles.add(link.name + "." + title));
            return titles;
        }

        private void load() throws IOException {
            try (RowSource rows = new TitledRows(siblings.open(link.file, link.format), link.format)) {
                int theirKey = -1;
                for (Row row = rows.next(); row != null; row = rows.next()) {
                    if (row.ended() != null || row.aside() != null || row.isBlank()) {
                        continue;
                    }
                    if (theirKey < 0) {
                        theirTitles = rows.titles() == null ? List.of() : rows.titles();
                        theirKey = place(link.theirKey, theirTitles, "their key of the link " + link.name);
                    }
                    keep(row, theirKey);
                }
            } catch (UnreadableFileException e) {
                throw new UnreadableFileException(
                        e.rule(), 0, "the linked file " + link.file + ": " + e.getMessage(), e.suggestion());
            }
        }

        private void keep(Row row, int theirKey) throws UnreadableFileException {
            if (row.fault() != null) {
                throw new UnreadableFileException(
                        row.fault().rule(),
                        0,
                        "row " + row.number() + " " + row.fault().reason(),
                        "");
            }
            if (others.size() == MOST_ROWS) {
                throw new UnreadableFileException(
                        Rule.FILE_BEYOND_CAP, 0, "has more than " + MOST_ROWS + " rows", "divide it");
            }
            byte[][] cells = new byte[theirTitles.size()][];
            for (int i = 0; i < cells.length; i++) {
                cells[i] = trimmed(row, i);
            }
            String value = theirKey < row.size() ? row.trimmed(theirKey) : "";
            if (value.isEmpty()) {
                Origin place = Origin.of(link.file, row.number());
                if (blank.size() < MOST_REMARKS) {
                    blank.add(
                            new Finding(Rule.LINK_UNUSED, place, link.theirKey, "", "its key is blank", "fill it in"));
                }
                return;
            }
            Other before = others.putIfAbsent(value, new Other(row.number(), cells));
            if (before != null && !link.firstOnly) {
                throw new UnreadableFileException(
                        Rule.LINK_TWICE,
                        0,
                        "the key '" + value + "' stands in row " + before.row + " and in row " + row.number() + "; "
                                + difference(before.cells, cells),
                        "is '" + link.theirKey + "' the right key?");
            }
        }

        private String difference(byte[][] one, byte[][] other) {
            for (int i = 0; i < one.length; i++) {
                if (!Arrays.equals(one[i], other[i])) {
                    return "'" + theirTitles.get(i) + "' is '" + shown(one[i]) + "' in the first and '"
                            + shown(other[i]) + "' in the second";
                }
            }
            return "the two rows are equal, and 'keys: first counts' in the layout takes the first";
        }

        private static String shown(byte[] cell) {
            return Finding.clip(new String(cell, StandardCharsets.UTF_8));
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = inner.next();
            if (row == null || passes(row)) {
                return row;
            }
            learnTitles(row);
            if (row.isBlank() || !fits(row, width)) {
                return row;
            }
            Other other = key < row.size() ? others.get(row.trimmed(key)) : null;
            if (other == null) {
                String value = key < row.size() ? row.trimmed(key) : "";
                Row lost = joined(row, new byte[theirTitles.size()][0]);
                lost.fault(value.isEmpty() ? RowFault.LINK_BLANK : RowFault.LINK_MISSING, value);
                return lost;
            }
            other.used = true;
            return joined(row, other.cells);
        }

        private Row joined(Row row, byte[][] cells) {
            beginRow(row);
            copyAll(row, width);
            for (byte[] cell : cells) {
                add(cell);
            }
            return finishRow();
        }

        @Override
        public List<Finding> remarks() {
            List<Finding> all = new ArrayList<>(super.remarks());
            all.addAll(blank);
            others.entrySet().stream()
                    .filter(e -> !e.getValue().used)
                    .sorted((a, b) -> Long.compare(a.getValue().row, b.getValue().row))
                    .limit(MOST_REMARKS)
                    .forEach(e -> all.add(new Finding(
                            Rule.LINK_UNUSED,
                            Origin.of(link.file, e.getValue().row),
                            link.theirKey,
                            e.getKey(),
                            "no row names it",
                            "")));
            return all;
        }
    }
}
