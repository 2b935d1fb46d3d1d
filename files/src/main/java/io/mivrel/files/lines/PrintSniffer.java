package io.mivrel.files.lines;

import com.google.re2j.Pattern;
import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import io.mivrel.survey.Facts;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Divides a print file: lines with a date and an amount are data, the places where none of them has anything stand
 * between the columns, a line of words above them names these, and the other lines are page headings, totals, or headings
 * that are carried down.
 */
public final class PrintSniffer {
    private static final java.util.regex.Pattern DATE =
            java.util.regex.Pattern.compile("(?<![0-9])[0-9]{1,4}[-/.][0-9A-Za-z]{1,3}[-/.][0-9]{2,4}(?![0-9])");
    private static final java.util.regex.Pattern AMOUNT =
            java.util.regex.Pattern.compile("[0-9][.,][0-9]{2}( ?(-|CR|DR))?\\)? *$");
    private static final int LEAST_LINES = 3;
    private static final int WIDEST = 500;

    private final List<String> lines;
    private final List<String> data = new ArrayList<>();
    private final List<String> others = new ArrayList<>();

    private PrintSniffer(List<String> lines) {
        this.lines = lines;
    }

    /**
     * How the lines are divided; {@code null} when they are no print file. {@code separator} is the one that
     * divides it best, 0 for none; {@code cut} when the last line is not whole.
     */
    public static Facts.@Nullable Print look(byte[] head, String encoding, char separator, boolean cut) {
        List<String> lines = new String(head, Charset.forName(encoding))
                .lines()
                .map(l -> l.replace("\f", ""))
                .toList();
        return new PrintSniffer(lines.subList(0, Math.max(0, lines.size() - (cut ? 1 : 0)))).look(separator);
    }

    private Facts.@Nullable Print look(char separator) {
        for (String line : lines) {
            boolean isData = line.length() <= WIDEST
                    && DATE.matcher(line).find()
                    && AMOUNT.matcher(line).find();
            (isData ? data : others).add(line);
        }
        if (separator != 0 && isSeparated(separator)) {
            return null;
        }
        List<int[]> places = columns();
        if (data.size() < LEAST_LINES || places.size() < 3) {
            return null;
        }
        List<Slice> slices = named(places);
        List<CarryDown.Heading> headings = new ArrayList<>();
        List<RowFilter> filters = new ArrayList<>();
        sort(slices, headings, filters);
        return new Facts.Print(slices, headings, filters);
    }

    // Of separated text, a cell of nearly every line is a date and nothing else.
    private boolean isSeparated(char separator) {
        String by = java.util.regex.Pattern.quote(String.valueOf(separator));
        long divided = data.stream()
                .filter(line -> Arrays.stream(line.split(by))
                        .map(cell -> cell.strip().replaceAll("^\"|\"$|^\\p{L}+ ", ""))
                        .anyMatch(cell -> DATE.matcher(cell).matches()))
                .count();
        return divided * 10 >= data.size() * 8L;
    }

    // Runs of places where some data line has something.
    private List<int[]> columns() {
        int width = data.stream().mapToInt(String::length).max().orElse(0);
        boolean[] used = new boolean[width];
        for (String line : data) {
            for (int i = 0; i < line.length(); i++) {
                used[i] |= line.charAt(i) != ' ';
            }
        }
        List<int[]> runs = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            if (used[i] && (i == 0 || !used[i - 1])) {
                runs.add(new int[] {i, i});
            }
            if (used[i]) {
                runs.get(runs.size() - 1)[1] = i;
            }
        }
        return withRoom(runs);
    }

    // Later pages may fill a column further: amounts grow to the left, texts to the right. What grows beyond is noticed
    // when
    // it is read, because one place between the columns stays empty.
    private List<int[]> withRoom(List<int[]> runs) {
        for (int i = 0; i + 1 < runs.size(); i++) {
            int[] run = runs.get(i);
            int[] next = runs.get(i + 1);
            if (endsAlike(next)) {
                next[0] = Math.min(next[0], run[1] + 2);
            } else {
                run[1] = Math.max(run[1], next[0] - 2);
            }
        }
        return runs;
    }

    // True for a column of amounts, which stand at its right side.
    private boolean endsAlike(int[] run) {
        return data.stream().filter(l -> !cut(l, run).isBlank()).allMatch(l -> {
            String cell = cut(l, run).strip();
            return cell.matches("[(-]?[0-9][0-9.,' ]*[0-9]\\)?( ?(-|CR|DR))?");
        });
    }

    private List<Slice> named(List<int[]> places) {
        String titles = others.stream()
                .filter(line -> words(line, places) * 2 > places.size())
                .findFirst()
                .orElse("");
        Map<String, Integer> seen = new HashMap<>();
        List<Slice> slices = new ArrayList<>();
        for (int i = 0; i < places.size(); i++) {
            String name = cut(titles, places.get(i)).strip();
            if (name.isEmpty() || seen.merge(name, 1, Integer::sum) > 1 || name.equals(FixedRows.LINE)) {
                name = "Column " + (i + 1);
            }
            slices.add(new Slice(name, places.get(i)[0] + 1, places.get(i)[1] + 1));
        }
        return slices;
    }

    // In how many columns a line has a word, and nothing but words.
    private static int words(String line, List<int[]> places) {
        int words = 0;
        for (int[] place : places) {
            String cell = cut(line, place).strip();
            if (cell.chars().anyMatch(Character::isDigit)) {
                return 0;
            }
            words += cell.chars().anyMatch(Character::isLetter) ? 1 : 0;
        }
        return words;
    }

    private static String cut(String line, int[] place) {
        return place[0] >= line.length() ? "" : line.substring(place[0], Math.min(line.length(), place[1] + 1));
    }

    // Headings differ behind their first word and have data below them; what repeats or ends in a sum is no data.
    private void sort(List<Slice> slices, List<CarryDown.Heading> headings, List<RowFilter> filters) {
        Map<String, List<String>> byWord = new LinkedHashMap<>();
        for (String line : others) {
            if (!line.isBlank()) {
                byWord.computeIfAbsent(beginning(line), w -> new ArrayList<>()).add(line.strip());
            }
        }
        byWord.forEach((begins, found) -> {
            boolean word = begins.matches("\\p{L}+");
            Pattern code = Pattern.compile((word ? begins : "") + " +([0-9A-Za-z.-]*[0-9][0-9A-Za-z.-]*)");
            boolean coded = word && found.stream().allMatch(l -> code.matcher(l).lookingAt());
            long different = found.stream().map(l -> taken(code, l)).distinct().count();
            boolean sums = found.stream().anyMatch(l -> AMOUNT.matcher(l).find());
            if (coded && !sums && different > 1) {
                headings.add(new CarryDown.Heading(begins, FixedRows.LINE, begins, code));
            } else {
                filters.add(new RowFilter(FixedRows.LINE, RowFilter.Test.BEGINS, List.of(begins), false));
            }
        });
    }

    private static String taken(Pattern code, String line) {
        var matcher = code.matcher(line);
        return matcher.find() ? matcher.group(1) : "";
    }

    // The first word, or a few signs of a rule.
    private static String beginning(String line) {
        String text = line.strip();
        int end = 0;
        boolean letters = Character.isLetter(text.charAt(0));
        while (end < text.length() && end < 20 && text.charAt(end) != ' ' && (letters || end < 5)) {
            end++;
        }
        return text.substring(0, end);
    }
}
