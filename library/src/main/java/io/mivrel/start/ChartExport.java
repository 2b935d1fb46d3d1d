package io.mivrel.start;

import io.mivrel.FileSurvey;
import io.mivrel.text.TradeWords;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A chart of accounts that another program exported, in whatever columns: known by its titles. What a type is called there
 * is translated where it is a word of the trade, and asked for where it is not; never guessed from names of accounts.
 */
final class ChartExport {
    private static final int MOST = 100_000;
    private static final int MOST_ABOVE = 30;
    private static final Map<String, Set<String>> WORDS = words();
    private static final List<String> OWN =
            List.of("code", "name", "type", "use", "status", "tax code", "number", "currency");
    private static final List<String> TYPES = List.of("asset", "liability", "equity", "income", "expense");

    /** Accounts in the order of the file. */
    final List<Entry> entries = new ArrayList<>();
    /** Rows that are no accounts. */
    int leftOut;
    /** True when no column says what type an account is. */
    final boolean untyped;

    /** The lines of chart.csv where the file is one already; empty for any other. */
    private final List<String> own = new ArrayList<>();

    /** One account; {@code type} is what the file says, {@code status} a word of the chart. */
    record Entry(String code, String name, String type, String status) {}

    private ChartExport(boolean untyped) {
        this.untyped = untyped;
    }

    /** The chart in a file; {@code null} when it does not look like one. */
    static @Nullable ChartExport of(FileSurvey survey) throws IOException {
        List<List<String>> rows = survey.rows(MOST);
        for (int i = 0; i < Math.min(rows.size(), MOST_ABOVE); i++) {
            int code = column(rows.get(i), "title-code");
            int name = column(rows.get(i), "title-name");
            int type = column(rows.get(i), "title-type");
            if (code >= 0 && name >= 0 && (type >= 0 || rows.get(i).size() <= 4)) {
                ChartExport chart = new ChartExport(type < 0);
                int status = column(rows.get(i), "title-status");
                // A column may say that an account is open, or that it is closed.
                String closed = status >= 0 && is("closed", rows.get(i).get(status)) ? "open" : "closed";
                rows.subList(i + 1, rows.size()).forEach(row -> chart.take(row, code, name, type, status, closed));
                chart.keepOwn(rows.get(i), rows.subList(i + 1, rows.size()));
                return chart.entries.isEmpty() ? null : chart;
            }
        }
        return null;
    }

    private static int column(List<String> titles, String meaning) {
        for (int i = 0; i < titles.size(); i++) {
            if (is(meaning, titles.get(i))) {
                return i;
            }
        }
        return -1;
    }

    private static boolean is(String meaning, String text) {
        return WORDS.getOrDefault(meaning, Set.of()).contains(TradeWords.plain(text));
    }

    // What is in the form of the books says more than other charts, and keeps it; but tax codes that are not there.
    private void keepOwn(List<String> titles, List<List<String>> rows) {
        if (titles.size() < OWN.size() || !titles.subList(0, OWN.size()).equals(OWN)) {
            return;
        }
        for (List<String> row : rows) {
            List<String> cells = new ArrayList<>(row);
            while (cells.size() < OWN.size()) {
                cells.add("");
            }
            cells.set(OWN.indexOf("tax code"), "");
            own.add(CompanyFiles.csv(cells.subList(0, OWN.size()).toArray(String[]::new)));
        }
    }

    private void take(List<String> row, int code, int name, int type, int status, String closed) {
        String kind = cell(row, type);
        boolean account = !cell(row, code).isEmpty() && !cell(row, name).isEmpty() && !is("heading", kind);
        if (!account || type >= 0 && kind.isEmpty()) {
            leftOut += row.stream().allMatch(String::isEmpty) ? 0 : 1;
            return;
        }
        boolean isClosed = is(closed, cell(row, status));
        entries.add(new Entry(cell(row, code), cell(row, name), kind, isClosed ? "closed" : ""));
    }

    private static String cell(List<String> row, int at) {
        return at < 0 || at >= row.size() ? "" : row.get(at);
    }

    /** The words for types that are not known. */
    Set<String> unknownTypes() {
        Set<String> unknown = new LinkedHashSet<>();
        entries.stream()
                .map(Entry::type)
                .filter(t -> !untyped && meaning(t) == null)
                .forEach(unknown::add);
        return unknown;
    }

    /** Codes that stand twice; empty when the chart can be used. */
    Set<String> twice() {
        Set<String> seen = new HashSet<>();
        return entries.stream().map(Entry::code).filter(c -> !seen.add(c)).collect(Collectors.toSet());
    }

    // Such as "asset" or "asset-bank".
    private static @Nullable String meaning(String type) {
        for (String meaning : WORDS.keySet()) {
            if (TYPES.contains(meaning.replaceFirst("-.*", "")) && is(meaning, type)) {
                return meaning;
            }
        }
        return null;
    }

    /**
     * The chart as the books keep it.
     *
     * @param answers the type of each word or range of codes that the file's own words leave open, such as {@code Direkt:
     *     expense, 1000-1999: asset}
     */
    List<String> rows(String answers) throws WrongAnswerException {
        if (!own.isEmpty()) {
            return own;
        }
        Map<String, String> said = said(answers);
        Map<String, Integer> names = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        entries.forEach(e -> names.merge(e.name(), 1, Integer::sum));
        List<String> rows = new ArrayList<>();
        for (Entry entry : entries) {
            String meaning = untyped ? ofRange(entry.code(), said) : meaning(entry.type());
            if (meaning == null) {
                meaning = said.get(entry.type());
            }
            if (meaning == null) {
                throw new WrongAnswerException(
                        untyped
                                ? "no range has the code " + entry.code() + " (" + entry.name() + ")"
                                : "what is '" + entry.type() + "'? One of " + String.join(", ", TYPES));
            }
            int dash = meaning.indexOf('-');
            boolean twin = names.getOrDefault(entry.name(), 0) > 1;
            rows.add(CompanyFiles.csv(
                    entry.code(),
                    twin ? entry.name() + " (" + entry.code() + ")" : entry.name(),
                    dash < 0 ? meaning : meaning.substring(0, dash),
                    dash < 0 ? "" : meaning.substring(dash + 1),
                    entry.status(),
                    "",
                    "",
                    ""));
        }
        return rows;
    }

    private static Map<String, String> said(String answers) throws WrongAnswerException {
        Map<String, String> said = new LinkedHashMap<>();
        for (String pair : answers.isBlank() ? new String[0] : answers.split(",")) {
            int colon = pair.lastIndexOf(':');
            String type = colon < 0 ? "" : pair.substring(colon + 1).strip();
            if (!TYPES.contains(type)) {
                throw new WrongAnswerException(
                        "'" + pair.strip() + "' is not a word, a colon and one of " + String.join(", ", TYPES));
            }
            said.put(pair.substring(0, colon).strip(), type);
        }
        return said;
    }

    // Compared as numbers when all three are, else by the beginning of the code.
    private static @Nullable String ofRange(String code, Map<String, String> said) {
        for (Map.Entry<String, String> range : said.entrySet()) {
            String[] ends = range.getKey().split("-", 2);
            String from = ends[0].strip();
            String to = ends[ends.length - 1].strip();
            boolean numbers = (code + from + to).matches("[0-9]{1,45}") && code.length() == from.length();
            if (numbers ? code.compareTo(from) >= 0 && code.compareTo(to) <= 0 : code.startsWith(from)) {
                return range.getValue();
            }
        }
        return null;
    }

    private static Map<String, Set<String>> words() {
        Map<String, Set<String>> words = new LinkedHashMap<>();
        Shelf.resource("chart-words.txt")
                .lines()
                .filter(l -> !l.startsWith("#"))
                .forEach(line -> {
                    int colon = line.indexOf(':');
                    words.put(
                            line.substring(0, colon),
                            Arrays.stream(line.substring(colon + 1).split("\\|"))
                                    .map(TradeWords::plain)
                                    .collect(Collectors.toSet()));
                });
        return words;
    }
}
