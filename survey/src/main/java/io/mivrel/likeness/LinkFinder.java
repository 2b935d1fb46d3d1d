package io.mivrel.likeness;

import io.mivrel.model.FieldType;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowOrder;
import io.mivrel.rows.RowSource;
import io.mivrel.shape.Link;
import io.mivrel.shape.TitledRows;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Finds out how two to four files belong together: a column of one whose every value is a key of another. Only files with
 * titles in one row and nothing below their data; of large ones nothing is proposed.
 */
public final class LinkFinder {
    private static final int MOST_FILES = 4;
    private static final int MOST_ROWS = 100_000;
    /** Cells of one file that are kept, as hashes. */
    private static final int MOST_CELLS = 2_000_000;

    private static final int LONGEST_KEY = 40;
    /** Keys of fewer characters and without a letter may be found in another file by chance. */
    private static final int TELLING = 4;

    /** A file with its survey. */
    public record Member(Survey survey, Opener opener) {
        /** Opens the rows as they stand. */
        public interface Opener {
            RowSource open() throws IOException;
        }

        /** How the file is laid out. */
        public FileFormat format() {
            FileProfile facts = survey.facts();
            return new FileFormat(
                    facts.kind(),
                    facts.separator(),
                    facts.encoding().isEmpty() ? FileFormat.AUTO : facts.encoding(),
                    facts.part(),
                    List.of(),
                    survey.titlesRow(),
                    1,
                    survey.titlesRow() + 1,
                    "",
                    RowOrder.OLDEST_FIRST);
        }
    }

    /**
     * How files belong together.
     *
     * @param main place of the file whose rows are the lines
     * @param links the others, each behind the one that names it
     * @param proofs what was found out, in words
     */
    public record Links(int main, List<Link> links, List<Proof> proofs) {}

    private record Edge(int from, String key, int to, String theirKey, int score, Proof proof) {}

    private final List<Member> members;
    private final List<Map<String, Keys>> columns = new ArrayList<>();

    /** The cells of a column, as hashes. */
    private static final class Keys {
        private final int place;
        private final long[] hashes;
        private int size;
        private boolean telling = true;

        Keys(int place, int rows) {
            this.place = place;
            this.hashes = new long[rows];
        }

        void add(Row row) {
            if (size == hashes.length) {
                return;
            }
            String cell = place < row.size() ? row.trimmed(place) : "";
            telling &= cell.length() >= TELLING || cell.chars().anyMatch(Character::isLetter);
            hashes[size++] = Hash64.add(0, cell);
        }

        Set<Long> distinct() {
            Set<Long> distinct = new HashSet<>();
            for (int i = 0; i < size; i++) {
                distinct.add(hashes[i]);
            }
            return distinct;
        }
    }

    private LinkFinder(List<Member> members) {
        this.members = members;
    }

    /** The links among the files; {@code null} when not all of them belong together in one way. */
    public static @Nullable Links find(List<Member> members) throws IOException {
        boolean fit = members.size() > 1
                && members.size() <= MOST_FILES
                && members.stream().allMatch(m -> fits(m.survey, members.get(0).survey));
        return fit ? new LinkFinder(members).find() : null;
    }

    private static boolean fits(Survey survey, Survey first) {
        return survey.titlesRow() > 0
                && survey.titlesRow() == first.titlesRow()
                && survey.titleRows() == 1
                && survey.below() == 0
                && survey.dataRows() <= MOST_ROWS
                && survey.facts().kind() == first.facts().kind()
                && survey.facts().separator() == first.facts().separator();
    }

    private @Nullable Links find() throws IOException {
        for (Member member : members) {
            columns.add(read(member));
        }
        // The best way to each file; two ways that are as good are no answer.
        Map<Integer, Edge> best = new HashMap<>();
        for (int to = 0; to < members.size(); to++) {
            Edge edge = bestTo(to);
            if (edge != null) {
                best.put(to, edge);
            }
        }
        if (best.size() != members.size() - 1) {
            return null;
        }
        int main = 0;
        while (best.containsKey(main)) {
            main++;
        }
        return inOrder(main, best);
    }

    private @Nullable Links inOrder(int main, Map<Integer, Edge> best) {
        List<Link> links = new ArrayList<>();
        List<Proof> proofs = new ArrayList<>();
        Map<Integer, String> prefix = new HashMap<>(Map.of(main, ""));
        while (links.size() < best.size()) {
            int before = links.size();
            for (Edge edge : best.values()) {
                if (prefix.containsKey(edge.from) && !prefix.containsKey(edge.to)) {
                    Survey theirs = members.get(edge.to).survey;
                    String name = name(theirs.file(), prefix.values());
                    String key = prefix.get(edge.from) + edge.key;
                    links.add(new Link(name, theirs.file(), members.get(edge.to).format(), key, edge.theirKey, false));
                    proofs.add(edge.proof);
                    prefix.put(edge.to, name + ".");
                }
            }
            if (links.size() == before) {
                return null;
            }
        }
        return new Links(main, links, proofs);
    }

    // The last word of the file's name, one of what it lists.
    private static String name(String file, Iterable<String> taken) {
        String[] words =
                file.replaceAll("\\.[^.]*$", "").toLowerCase(Locale.ROOT).split("[^\\p{L}]+");
        String word = words.length == 0 ? "" : words[words.length - 1];
        String name = word.length() > 3 && word.endsWith("s") ? word.substring(0, word.length() - 1) : word;
        name = name.isEmpty() ? "other" : name;
        String free = name;
        for (int i = 2; contains(taken, free + "."); i++) {
            free = name + i;
        }
        return free;
    }

    private static boolean contains(Iterable<String> all, String one) {
        for (String each : all) {
            if (each.equals(one)) {
                return true;
            }
        }
        return false;
    }

    // The cells of those columns that may hold keys.
    private static @Nullable Map<String, Keys> read(Member member) throws IOException {
        Map<String, Keys> read = new LinkedHashMap<>();
        int count = (int) member.survey.dataRows();
        for (ColumnSurvey column : member.survey.columns()) {
            boolean key = (column.type() == FieldType.CODE || column.type() == FieldType.TEXT)
                    && column.longest() <= LONGEST_KEY
                    && column.blank() == 0
                    && !column.title().isEmpty();
            if (key && (read.size() + 1L) * count <= MOST_CELLS) {
                read.put(column.title(), new Keys(column.place() - 1, count));
            }
        }
        try (RowSource rows = new TitledRows(member.opener.open(), member.format())) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                if (row.aside() == null && row.ended() == null && row.fault() == null && !row.isBlank()) {
                    for (Keys keys : read.values()) {
                        keys.add(row);
                    }
                }
            }
        }
        return read;
    }

    private @Nullable Edge bestTo(int to) {
        Edge best = null;
        boolean tie = false;
        for (int from = 0; from < members.size(); from++) {
            for (String key : from == to ? Set.<String>of() : columns.get(from).keySet()) {
                for (String theirKey : columns.get(to).keySet()) {
                    Edge edge = edge(from, key, to, theirKey);
                    if (edge != null && (best == null || edge.score >= best.score)) {
                        tie = best != null && edge.score == best.score;
                        best = edge;
                    }
                }
            }
        }
        return tie ? null : best;
    }

    private @Nullable Edge edge(int from, String key, int to, String theirKey) {
        boolean sameTitle = key.equalsIgnoreCase(theirKey);
        boolean told = members.get(to).survey.file().toLowerCase(Locale.ROOT).contains(key.toLowerCase(Locale.ROOT));
        if (!sameTitle && !told) {
            return null;
        }
        Keys ours = columns.get(from).get(key);
        Keys theirs = columns.get(to).get(theirKey);
        if (ours == null || theirs == null) {
            return null;
        }
        Set<Long> keys = theirs.distinct();
        Set<Long> named = ours.distinct();
        // A list of what others name has each once, and is not longer than they are.
        if (keys.size() != theirs.size || named.size() < 2 || !keys.containsAll(named)) {
            return null;
        }
        // Numbers alone may fit by chance; a title has to say so too, and of few numbers there must be three.
        boolean both = named.size() == ours.size && named.size() == keys.size();
        if (!ours.telling && named.size() < 3) {
            return null;
        }
        int score = (sameTitle ? 4 : 0) + (told ? 2 : 0) + (ours.telling ? 1 : 0) + (both ? 0 : 8);
        long used = keys.stream().filter(named::contains).count();
        String words = String.format(
                Locale.ROOT,
                "'%s' of %s is found in each of %,d rows as '%s' of %s, which has each once and of which %,d of %,d are named",
                key,
                members.get(from).survey.file(),
                ours.size,
                theirKey,
                members.get(to).survey.file(),
                used,
                keys.size());
        return new Edge(from, key, to, theirKey, score, new Proof(true, words));
    }
}
