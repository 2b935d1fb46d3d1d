package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.delivery.Delivery;
import io.mivrel.files.keys.Block;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.settings.AnswersFile;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.files.settings.Quoted;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.Layout;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
        String with = tried[0].replaceFirst(Pattern.quote(tried[1]), Matcher.quoteReplacement(tried[2]));
        assertThat(with).isNotEqualTo(tried[0]);
        if (!key.equals("gives")) {
            Layout before = LayoutReader.read(file(tried[0]));
            // Without this, any two layouts might differ.
            assertThat(LayoutReader.read(file(tried[0])))
                    .usingRecursiveComparison()
                    .isEqualTo(before);
            assertThat(LayoutReader.read(file(with))).usingRecursiveComparison().isNotEqualTo(before);
        }
    }

    private static Path file(String text) throws Exception {
        Path file = Files.createTempFile("mivrel", ".yaml");
        Files.writeString(file, text);
        return file;
    }

    /** What each key of a delivery is tried with: the form, and what stands in the file, the numbers or a column then. */
    private static final Map<String, String[]> DELIVERY = Map.ofEntries(
            delivery("file: kind", "kind: separated", "kind: fixed width"),
            delivery("file: separator", "kind: separated", "kind: separated, separator: tab"),
            delivery("file: encoding", "kind: separated", "kind: separated, encoding: IBM850"),
            delivery("file: name", "kind: separated", "kind: separated, name: a.txt"),
            delivery("file: line ends", "kind: separated", "kind: separated, line ends: LF"),
            delivery("file: byte order mark", "kind: separated", "kind: separated, byte order mark: yes"),
            delivery("file: titles", "kind: separated", "kind: separated, titles: no"),
            delivery("file: quotes", "kind: separated", "kind: separated, quotes: always"),
            delivery(
                    "file: rows at most",
                    "kind: separated, name: \"{part}.csv\"",
                    "kind: separated, name: \"{part}.csv\", rows at most: 5"),
            delivery("numbers: decimal", "decimal: \".\"", "decimal: \",\""),
            delivery("numbers: thousands", "decimal: \".\"", "decimal: \".\", thousands: \",\""),
            delivery("file: rows above", "kind: separated", "kind: separated, rows above: [[H, \"{run}\"]]"),
            delivery("file: rows under titles", "kind: separated", "kind: separated, rows under titles: [[what]]"),
            delivery("file: last rows", "kind: separated", "kind: separated, last rows: [[T, \"{sum of Amount}\"]]"),
            delivery("file: sheet", "kind: workbook, name: a.xlsx", "kind: workbook, name: a.xlsx, sheet: J"),
            delivery("numbers: negative", "decimal: \".\"", "decimal: \".\", negative: brackets"),
            delivery("title", "{field: narrative}", "{field: narrative, title: Words}"),
            delivery("counts", "{constant: M}", "{counts: rows}"),
            delivery("between", "{field: [narrative, reference]}", "{field: [narrative, reference], between: /}"),
            delivery("squeeze blanks", "{field: narrative}", "{field: narrative, squeeze blanks: yes}"),
            delivery("take", "{field: narrative}", "{field: narrative, take: \"[A-Z]+\"}"),
            delivery(
                    "part",
                    "{field: reference, part: 1, divided by: \"-\"}",
                    "{field: reference, part: 2, divided by: \"-\"}"),
            delivery(
                    "divided by",
                    "{field: reference, part: 1, divided by: \"-\"}",
                    "{field: reference, part: 1, divided by: \"/\"}"),
            delivery("values", "{field: narrative}", "{field: narrative, values: {A: B}}"),
            delivery("required", "{field: narrative}", "{field: narrative, required: yes}"),
            delivery("cell", "century from: 1970}", "century from: 1970, cell: date}"),
            delivery("field", "{field: narrative}", "{field: tax code}"),
            delivery("constant", "{constant: M}", "{constant: N}"),
            delivery("pattern", "pattern: dd/MM/uu, century from: 1970", "pattern: d/M/uu, century from: 1970"),
            delivery("century from", "century from: 1970", "century from: 1960"),
            delivery("language", "century from: 1970", "century from: 1970, language: fr"),
            delivery("at most", "{field: narrative}", "{field: narrative, at most: 9}"),
            delivery("refuse", "{field: narrative}", "{field: narrative, refuse: \"<\"}"),
            delivery("blank zero", "{field: amount}", "{field: amount, blank zero: yes}"),
            delivery("sign", "{field: amount}", "{field: amount, sign: turned}"),
            delivery(
                    "side",
                    "Amount: {field: amount}",
                    "Amount: {field: amount}\n  Side: {field: amount, side: [D, C]}"),
            delivery("leading zeros", "{field: amount}", "{field: amount, leading zeros: 9}"),
            delivery("width", "{field: amount}", "{field: amount, width: 9}"),
            delivery("align", "{field: amount}", "{field: amount, align: right}"));

    private static Map.Entry<String, String[]> delivery(String key, String what, String by) {
        return Map.entry(key, new String[] {what, by});
    }

    @DataProvider
    public Object[][] deliveryKeys() {
        Set<String> keys = new LinkedHashSet<>();
        leaves("", DeliveryKeys.ALL, keys);
        // What it is called and takes, and the level of rows, are asked by other tests.
        keys.removeAll(Set.of("delivery", "takes", "like"));
        leaves("", DeliveryKeys.column(JournalLines.KIND), keys);
        // What a delivery takes from another one is asked by itself.
        keys.remove("drop");
        return keys.stream().map(key -> new Object[] {key}).toArray(Object[][]::new);
    }

    @Test(dataProvider = "deliveryKeys")
    public void everyKeyOfADeliveryChangesWhatIsDelivered(String key) throws Exception {
        assertThat(DELIVERY).containsKey(key);
        String[] tried = DELIVERY.get(key);
        // Places belong to a form that has some, and then every column needs its own.
        boolean wide = Set.of("width", "align", "file: kind").contains(key);
        String places = wide ? ", width: 20" : "";
        String kind = key.equals("width") || key.equals("align") ? "kind: fixed width" : "kind: separated";
        String delivery = "delivery: D\ntakes: journals\nfile: {" + kind + "}\nnumbers: {decimal: \".\"}\ncolumns:\n"
                + "  Day: {field: date, pattern: dd/MM/uu, century from: 1970}\n  Text: {field: narrative}\n"
                + "  Source: {constant: M}\n  Amount: {field: amount}\n";
        if (tried[0].startsWith("kind: ")) {
            delivery = delivery.replace("kind: separated", tried[0]);
        }
        if (key.equals("cell")) {
            delivery = delivery.replace("kind: separated", "kind: workbook, name: a.xlsx");
        }
        for (String column : List.of("{field: reference, part", "{field: [narrative")) {
            if (tried[0].startsWith(column)) {
                delivery = delivery.replace("{field: narrative}", tried[0]);
            }
        }
        String with = delivery.replaceFirst(Pattern.quote(tried[0]), Matcher.quoteReplacement(tried[1]));
        assertThat(with).isNotEqualTo(delivery);
        if (key.equals("file: kind")) {
            // The one form needs what the other refuses.
            assertThatThrownBy(() -> read(with)).hasMessageContaining("needs 'width'");
            return;
        }
        Delivery before = read(wide ? places(delivery, places) : delivery);
        assertThat(read(wide ? places(delivery, places) : delivery))
                .usingRecursiveComparison()
                .isEqualTo(before);
        assertThat(read(wide ? places(with, places) : with))
                .usingRecursiveComparison()
                .isNotEqualTo(before);
    }

    // Every column that has no width of its own gets one.
    private static String places(String delivery, String places) {
        return delivery.replaceAll("(?m)^(  \\w+: \\{(?!.*width).*)}$", "$1" + places + "}");
    }

    private static Delivery read(String delivery) throws Exception {
        Workshop workshop = new Workshop().bank("").put("journals.yaml", delivery);
        return RunSheet.read(workshop.folder.resolve("bank.yaml"))
                .targets()
                .get(0)
                .delivery();
    }

    @DataProvider
    public Object[][] withoutEffect() {
        return new Object[][] {
            {"kind: workbook, name: a.xlsx, separator: tab", "", "separator"},
            {"kind: workbook, name: a.xlsx, encoding: IBM850", "", "encoding"},
            {"kind: workbook, name: a.xlsx, line ends: LF", "", "line ends"},
            {"kind: workbook, name: a.xlsx, quotes: always", "", "quotes"},
            {"kind: workbook, name: a.csv", "", "ends in .xlsx"},
            {"kind: fixed width, separator: tab", ", width: 20", "separator"},
            {"kind: fixed width, quotes: always", ", width: 20", "quotes"},
            {"kind: separated", ", width: 20", "width"},
            {"kind: separated", ", align: right", "align"},
            {"kind: separated", ", leading zeros: 9, at most: 8", "more than the 8 characters"}
        };
    }

    @Test(dataProvider = "withoutEffect")
    public void whatHasNoEffectInAFormIsRefused(String file, String column, String says) {
        assertThatThrownBy(() -> read("delivery: D\ntakes: journals\nfile: {" + file + "}\ncolumns:\n"
                        + "  Ref: {field: reference" + column + "}\n"
                        + "  Amount: {field: amount" + column.replaceAll(", (leading|at most).*", "") + "}\n"))
                .isInstanceOf(SettingsException.class)
                .hasMessageContaining(says);
    }

    @Test
    public void leadingZerosOfAmountsDoNotGoWithThousands() {
        assertThatThrownBy(() -> read("delivery: D\ntakes: journals\nnumbers: {thousands: \",\"}\ncolumns:\n"
                        + "  Amount: {field: amount, leading zeros: 9}\n"))
                .hasMessageContaining("need 'thousands: none'");
    }

    @Test
    public void aLedgerThatIsNotOnesOwnTakesNothingUnderWith() {
        Workshop workshop =
                new Workshop().put("ledgers/p.yaml", "ledger: P\nkind: practice\nfile: p.db\nwith: {colour: red}\n");
        assertThatThrownBy(() -> LedgerSettings.read("p", workshop.folder)).hasMessageContaining("with");
    }

    @Test
    public void whatIsQuotedIsReadAsItWas() throws Exception {
        String odd = "a \"b\" \\ c\td\u0007 \u2028 \u0085 é ? : {x} #\uFEFF";
        Path answers = file("about: " + Quoted.quoted(odd) + "\n");
        assertThat(AnswersFile.read(answers)).containsExactly(Map.entry("about", odd));
    }
}
