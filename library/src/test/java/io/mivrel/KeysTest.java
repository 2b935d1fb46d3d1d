package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.keys.Block;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.RunSheet;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** No key of layouts and deliveries is without effect: with it, something else is read than without it. */
public class KeysTest {
    private static final String JOURNAL =
            "layout: A\ngives: journal lines\nfile: {kind: separated}\nnumbers: {decimal: \".\"}\n"
                    + "fields:\n  reference: {column: ref}\n  date: {column: day, pattern: dd/MM/uuuu}\n  account: {column: account}\n"
                    + "  amount: {column: amount}\n";
    private static final String BANK = "layout: A\ngives: bank lines\naccount: 1200\nfile: {kind: separated}\n"
            + "fields:\n  date: {column: day, pattern: dd/MM/uuuu}\n  amount: {column: amount}\n";
    private static final String INVOICES =
            "layout: A\ngives: invoice lines\nfields:\n  number: {column: n}\n  kind: {column: k}\n"
                    + "  party: {column: p}\n  date: {column: d, pattern: dd/MM/uuuu}\n  account: {column: a}\n  net: {column: net}\n";

    /** What each key is tried with, by its way from the top: a layout, what is taken out of it, and what stands there then. */
    private static final Map<String, String[]> LAYOUT = Map.ofEntries(
            tried("layout", JOURNAL, "layout: A", "layout: B"),
            tried(
                    "gives",
                    BANK.replace("account: 1200\n", ""),
                    "gives: bank lines",
                    "gives: bank lines\naccount: 1200"),
            tried("account", BANK, "1200", "1210"),
            tried("signs", BANK, "file:", "signs: reversed\nfile:"),
            tried("credits", INVOICES, "fields:", "credits: negative\nfields:"),
            tried("documents", JOURNAL, "file:", "documents: across files\nfile:"),
            tried("file: kind", JOURNAL, "kind: separated", "kind: workbook"),
            tried("file: separator", JOURNAL, "{kind: separated}", "{separator: tab}"),
            tried("file: encoding", JOURNAL, "{kind: separated}", "{encoding: IBM850}"),
            tried("file: sheet", JOURNAL.replace("separated", "workbook"), "workbook", "workbook, sheet: B"),
            tried(
                    "file: statements of",
                    "layout: A\ngives: bank lines\naccount: 1200\nfile: {kind: mt940}\n",
                    "mt940",
                    "mt940, statements of: \"12\""),
            tried("file: columns", JOURNAL.replace("separated", "fixed width, columns: {ref: 1-2}"), "1-2", "1-3"),
            tried("file: titles", JOURNAL, "{kind: separated}", "{titles: row 3}"),
            tried(
                    "file: data from",
                    JOURNAL.replace("{kind: separated}", "{titles: none}"),
                    "none",
                    "none, data from: row 4"),
            tried("file: until", JOURNAL, "{kind: separated}", "{until: Total}"),
            tried("file: order", BANK, "{kind: separated}", "{order: newest first}"),
            tried("numbers: decimal", JOURNAL, "decimal: \".\"", "decimal: \",\""),
            tried("numbers: thousands", JOURNAL, "decimal: \".\"", "thousands: \" \""),
            tried("numbers: negative", JOURNAL, "decimal: \".\"", "negative: brackets"),
            tried("numbers: currency mark", JOURNAL, "decimal: \".\"", "currency mark: £"),
            tried("numbers: plus mark", JOURNAL, "decimal: \".\"", "plus mark: CR"),
            tried("numbers: minus mark", JOURNAL, "decimal: \".\"", "minus mark: DR"),
            tried("allow", JOURNAL, "file:", "allow: blank is nil\nfile:"),
            tried("for dates", JOURNAL, "file:", "for dates: 2027-01-01 to 2027-12-31\nfile:"),
            tried("unused", JOURNAL, "file:", "unused: Notes\nfile:"),
            tried("columns in order", JOURNAL, "file:", "columns in order: [ref, day]\nfile:"),
            tried("leave out: column", JOURNAL + "leave out: [{is: x}]\n", "{is", "{column: ref, is"),
            tried("leave out: is", JOURNAL, "file:", "leave out: [{is: x}]\nfile:"),
            tried("leave out: begins", JOURNAL, "file:", "leave out: [{begins: x}]\nfile:"),
            tried("leave out: contains", JOURNAL, "file:", "leave out: [{contains: x}]\nfile:"),
            tried("only: column", JOURNAL + "only: [{is: x}]\n", "{is", "{column: ref, is"),
            tried("only: is", JOURNAL, "file:", "only: [{is: x}]\nfile:"),
            tried("only: begins", JOURNAL, "file:", "only: [{begins: x}]\nfile:"),
            tried("only: contains", JOURNAL, "file:", "only: [{contains: x}]\nfile:"),
            tried("expect: column", JOURNAL + "expect: [{column: ref, is: x}]\n", "ref, is", "day, is"),
            tried("expect: is", JOURNAL + "expect: [{column: ref, is: x}]\n", "is: x", "is: y"),
            tried("row sums: plus", JOURNAL + "row sums: [{plus: a, minus: b}]\n", "plus: a", "plus: c"),
            tried("row sums: minus", JOURNAL + "row sums: [{plus: a, minus: b}]\n", "minus: b", "minus: c"),
            whose("number"),
            tried("whose: number: label", BANK + "whose: {number: {label: No, is: 1}}\n", "No", "Number"),
            tried("whose: number: is", BANK + "whose: {number: {label: No, is: 1}}\n", "is: 1", "is: 2"),
            tried(
                    "whose: number: column",
                    BANK.replace("1200", "by number") + "whose: {number: {column: x}}\n",
                    "column: x",
                    "column: y"),
            whose("bank"),
            whose("currency"),
            whose("holder"),
            tried("whose: bank: is", BANK + "whose: {bank: {label: a, is: b}}\n", "is: b", "is: c"),
            tried("whose: bank: label", BANK + "whose: {bank: {label: a, is: b}}\n", "label: a", "label: c"),
            tried("whose: currency: is", BANK + "whose: {currency: {label: a, is: b}}\n", "is: b", "is: c"),
            tried("whose: currency: label", BANK + "whose: {currency: {label: a, is: b}}\n", "label: a", "label: c"),
            tried("whose: holder: is", BANK + "whose: {holder: {label: a, is: b}}\n", "is: b", "is: c"),
            tried("whose: holder: label", BANK + "whose: {holder: {label: a, is: b}}\n", "label: a", "label: c"),
            stated("opening"),
            stated("closing"),
            stated("in"),
            stated("out"),
            stated("count"),
            stated("totals"),
            tried(
                    "stated: carried",
                    BANK + "  balance: {column: left}\nstated: {opening: a}\n",
                    "{opening: a}",
                    "{opening: a, carried: b}"),
            tried("stated: owed", BANK + "stated: {opening: a}\n", "{opening: a}", "{opening: a, owed: yes}"),
            years("column", "day", "ref"),
            years("pattern", "dd MMM", "d MMM"),
            years("period", "Period", "From"),
            years("title", "Day", "On"),
            years("days: pattern", "dd/MM/uu,", "d/M/uu,"),
            years("days: century from", "1970", "1960"),
            years("days: language", "language: en", "language: fr"),
            carry("title", "{", "{title: G, begins: A}, {"),
            carry("column", "begins: X", "begins: X, column: ref"),
            carry("begins", "begins: X", "begins: Y"),
            carry("take", "begins: X", "begins: X, take: a"),
            tried("page heads: begins", JOURNAL + "page heads: {begins: a, ends: b}\n", "begins: a", "begins: c"),
            tried("page heads: ends", JOURNAL + "page heads: {begins: a, ends: b}\n", "ends: b", "ends: c"),
            tried(
                    "wrapped: begins",
                    JOURNAL + "wrapped: {begins: day, joins: ref}\n",
                    "begins: day",
                    "begins: account"),
            tried("wrapped: joins", JOURNAL + "wrapped: {begins: day, joins: ref}\n", "joins: ref", "joins: account"),
            tried(
                    "wrapped: filler",
                    JOURNAL + "wrapped: {begins: day, joins: ref}\n",
                    "joins: ref",
                    "joins: ref, filler: ."),
            tried("fill down: columns", JOURNAL + "fill down: {columns: ref}\n", "columns: ref", "columns: day"),
            tried(
                    "fill down: where",
                    JOURNAL + "fill down: {columns: ref}\n",
                    "columns: ref",
                    "columns: ref, where: amount"),
            tried("link: file", JOURNAL + "link: {o: {file: a.csv, key: ref}}\n", "a.csv", "b.csv"),
            tried("link: key", JOURNAL + "link: {o: {file: a.csv, key: ref}}\n", "key: ref", "key: day"),
            tried(
                    "link: their key",
                    JOURNAL + "link: {o: {file: a.csv, key: ref}}\n",
                    "key: ref",
                    "key: ref, their key: id"),
            tried(
                    "link: keys",
                    JOURNAL + "link: {o: {file: a.csv, key: ref}}\n",
                    "key: ref",
                    "key: ref, keys: first counts"),
            tried(
                    "link: is",
                    JOURNAL + "link: {o: {file: a.csv, key: ref}}\n",
                    "key: ref",
                    "key: ref, is: {separator: tab}"),
            tried("link: sheet", JOURNAL + "link: {o: {file: a.xlsx, key: ref}}\n", "key: ref", "key: ref, sheet: B"),
            fan("column", "Gross", "Net"),
            fan("account", "6010", "6020"),
            fan("text", "Pay", "Paid"),
            fan("side", "debit", "credit"));

    private static Map.Entry<String, String[]> tried(String key, String layout, String what, String by) {
        return Map.entry(key, new String[] {layout, what, by});
    }

    private static Map.Entry<String, String[]> whose(String what) {
        return tried("whose: " + what, BANK, "file:", "whose: {" + what + ": {label: a, is: b}}\nfile:");
    }

    private static Map.Entry<String, String[]> stated(String what) {
        return tried("stated: " + what, BANK, "file:", "stated: {" + what + ": a}\nfile:");
    }

    private static Map.Entry<String, String[]> years(String key, String what, String by) {
        String years =
                "years: [{column: day, pattern: dd MMM, period: Period, days: {pattern: dd/MM/uu, century from: 1970, language: en},"
                        + " title: Day}]\n";
        return tried("years: " + key, years + JOURNAL, what, by);
    }

    private static Map.Entry<String, String[]> carry(String key, String what, String by) {
        return tried("carry down: " + key, "carry down: [{title: H, begins: X}]\n" + JOURNAL, what, by);
    }

    private static Map.Entry<String, String[]> fan(String key, String what, String by) {
        return tried(
                "fan out: " + key,
                "fan out: [{column: Gross, account: 6010, text: Pay, side: debit}]\n" + JOURNAL,
                what,
                by);
    }

    private static void leaves(String above, Block block, Set<String> found) {
        for (Key key : block.keys()) {
            boolean within = key.form() == Key.Form.BLOCK && !key.name().equals("is")
                    || key.form() == Key.Form.LIST
                    || key.name().equals("link");
            if (within) {
                leaves(above + key + ": ", key.block(), found);
            } else if (key.form() != Key.Form.NAMED) {
                found.add(above + key);
            }
        }
    }

    @DataProvider
    public Object[][] layoutKeys() {
        Set<String> keys = new LinkedHashSet<>();
        leaves("", LayoutKeys.ALL, keys);
        return keys.stream().map(key -> new Object[] {key}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "layoutKeys")
    public void everyKeyOfALayoutChangesWhatIsRead(String key) throws Exception {
        assertThat(LAYOUT).containsKey(key);
        String[] tried = LAYOUT.get(key);
        String with = tried[0].replaceFirst(
                java.util.regex.Pattern.quote(tried[1]), java.util.regex.Matcher.quoteReplacement(tried[2]));
        assertThat(with).isNotEqualTo(tried[0]);
        if (!key.equals("gives")) {
            assertThat(LayoutReader.read(file(with)))
                    .usingRecursiveComparison()
                    .isNotEqualTo(LayoutReader.read(file(tried[0])));
        }
    }

    private static Path file(String text) throws Exception {
        Path file = Files.createTempFile("mivrel", ".yaml");
        Files.writeString(file, text);
        return file;
    }

    @DataProvider
    public Object[][] deliveryKeys() {
        return new Object[][] {
            {"file: separator", "separator: tab"},
            {"file: encoding", "encoding: IBM850"},
            {"file: name", "name: a.txt"},
            {"file: line ends", "line ends: LF"},
            {"file: byte order mark", "byte order mark: yes"},
            {"file: titles", "titles: no"},
            {"file: quotes", "quotes: always"},
            {"file: rows at most", "rows at most: 5, name: \"{part}.csv\""}
        };
    }

    @Test(dataProvider = "deliveryKeys")
    public void everyKeyOfADeliveredFileChangesTheDelivery(String key, String text) throws Exception {
        Set<String> keys = new LinkedHashSet<>();
        leaves("", DeliveryKeys.ALL, keys);
        keys.remove("file: kind");
        assertThat(keys).contains(key);
        Workshop workshop = new Workshop();
        Path sheet = workshop.bank("").folder.resolve("bank.yaml");
        Path delivery = workshop.folder.resolve("journals.yaml");
        RunSheet before = RunSheet.read(sheet);
        Files.writeString(delivery, Files.readString(delivery).replaceFirst("(?m)^file:.*$", "file: {" + text + "}"));
        assertThat(RunSheet.read(sheet).targets()).usingRecursiveComparison().isNotEqualTo(before.targets());
    }
}
