package io.mivrel.cli;

import static io.mivrel.cli.CommandOutput.mivrel;
import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Mivrel;
import io.mivrel.examples.DemoData;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.TimeZone;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;

/** The command as a person meets it: what it prints, where, and with which exit status. */
public class CommandTest {
    private static Path demo() throws IOException {
        Path folder = Files.createTempDirectory("mivrel with spaces").resolve("larkmoor");
        DemoData.unpack(folder);
        return folder;
    }

    private static void replace(Path file, String what, String by) throws IOException {
        String text = Files.readString(file);
        assertThat(text).contains(what);
        Files.writeString(file, text.replace(what, by));
    }

    @Test
    public void aSurveyTellsAsksAndWritesOnce() throws IOException {
        Path folder = demo();
        Path bank = folder.resolve("inbox/current-2027-03.csv");
        Path layout = folder.resolve("proposed.yaml");
        CommandOutput printed = mivrel("survey", bank, "--preview", "2", "--write", layout);
        assertThat(printed.status()).isEqualTo(1);
        assertThat(printed.err()).isEmpty();
        assertThat(printed.out())
                .contains("titles in row 4, 3 rows above, 151 of data, 2 blank rows, 1 row below")
                .contains("odd: Tue 15/03/2027 in row 79")
                .contains("the balances prove 150 of 150 steps", "row 112, 'Mon 32/03/2027' March has 31 days")
                .containsPattern("row 5 +as it stands in the file +as it is read")
                .containsPattern("Booked +Mon 01/03/2027 +date +2027-03-01")
                .containsPattern("Paid in +72.50 +money in +72.50");
        assertThat(layout)
                .content()
                .contains("account: \"? which account")
                .contains("stated: {closing: \"Closing balance\"}");
        assertThat(mivrel("survey", bank, "--write", layout).err()).contains("exists and is not overwritten");
        assertThat(mivrel("survey", bank, bank, "--write", layout).status()).isEqualTo(2);
        Path heads = folder.resolve("inbox/orders-heads.csv");
        Path lines = folder.resolve("inbox/orders-lines.csv");
        Path linked = folder.resolve("linked.yaml");
        assertThat(mivrel("survey", heads, lines, "--preview", "1", "--write", linked)
                        .out())
                .contains("linked      orders-heads.csv", "4 of 4 are named")
                .containsPattern("head.day +02.03.2027 +date +2027-03-02");
        assertThat(linked).content().contains("head: {file: \"orders-heads.csv\", key: \"order\"}");
        assertThat(mivrel("survey", folder.resolve("inbox/ledger-2027-q1.csv")).status())
                .isZero();
        assertThat(mivrel("survey", folder.resolve("none.csv")).status()).isEqualTo(3);
        CommandOutput all = mivrel("survey", folder.resolve("inbox"));
        assertThat(all.out()).contains(" files, ", "current-2027-03.csv", "next: mivrel survey ");
        assertThat(mivrel("survey", bank, "--json").out())
                .startsWith("{")
                .contains("\"gives\" : \"bank lines\"", "\"layout\" : ");
        assertThat(mivrel("survey", bank, "--gives", "stamps").err()).contains("bank lines, journal lines");
        Path spaced = Files.copy(bank, folder.resolve("it's mine.csv"));
        assertThat(mivrel("survey", spaced).out()).contains("it'\\''s mine.csv' --write");
        replace(folder.resolve("bank.yaml"), "layouts/wexcombe-current.yaml", "proposed.yaml");
        CommandOutput refused = mivrel("check", folder.resolve("bank.yaml"));
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("'account' is a question that is not answered");
    }

    @Test
    public void theDemoTellsTheWholeStory() throws IOException {
        Path folder = Files.createTempDirectory("mivrel with spaces").resolve("try");
        CommandOutput printed = mivrel("demo", folder);
        assertThat(printed.status()).isZero();
        assertThat(printed.err()).isEmpty();
        assertThat(printed.out())
                .contains("read        158 rows in 1 file, 1 to 31 March 2027")
                .contains("left out      7 rows   3 above the titles, 1 title row, 2 blank, 1 below the data")
                .contains("accounted   158 rows = 144 clear + 7 held + 7 left out")
                .contains("opening 18,425.10 + movement -10,457.17 = 7,967.93 = closing, as the statement says")
                .contains("accounted   504 rows = 490 clear + 13 held + 1 left out")
                .contains("row 212, 736.40, is probably 763.40")
                .contains("accounted   59 rows = 52 clear + 6 held + 1 left out")
                .contains("same party, date and lines as TR-66")
                .doesNotContain("\u001b");
        try (Stream<Path> out = Files.list(folder.resolve("out"))) {
            assertThat(out).hasSize(6);
        }
        assertThat(mivrel("demo", folder).status()).isEqualTo(3);
    }

    @Test
    public void aFormOfOnesOwnIsNamedInSettings() throws IOException {
        Path folder = demo();
        Path delivery = folder.resolve("deliveries/bank-signed.yaml");
        Files.writeString(
                delivery,
                Files.readString(delivery)
                        .replaceFirst("(?s)file:.*?(?=\\n[a-z])", "file: {kind: xml of our own, name: bank.xml}"));
        CommandOutput run = mivrel("run", folder.resolve("bank.yaml"));
        assertThat(run.out()).contains("bank.xml").contains("read back: matches");
        assertThat(folder.resolve("out/bank.xml"))
                .content()
                .contains("<rows>\n<r><c>")
                .endsWith("</c></r>\n</rows>\n");
    }

    @Test
    public void heldDocumentsAreStatusOneAndAllClearIsStatusZero() throws IOException {
        Path folder = demo();
        assertThat(mivrel("check", folder.resolve("ledger.yaml")).status()).isEqualTo(1);
        assertThat(mivrel("run", folder.resolve("ledger.yaml")).status()).isEqualTo(1);
        replace(folder.resolve("inbox/ledger-2027-q1.csv"), "31/12/2026", "02/01/2027");
        replace(folder.resolve("inbox/ledger-2027-q1.csv"), ",6215,", ",6200,");
        replace(folder.resolve("inbox/ledger-2027-q1.csv"), ",736.40,", ",763.40,");
        replace(folder.resolve("inbox/ledger-2027-q1.csv"), ",5200,", ",5020,");
        CommandOutput corrected = mivrel("run", folder.resolve("ledger.yaml"));
        assertThat(corrected.out()).contains("accounted   504 rows = 13 clear + 0 held + 491 left out");
        assertThat(corrected.status()).isZero();
    }

    @Test
    public void wrongSettingsAreStatusTwoWithTheirPlaces() throws IOException {
        Path folder = demo();
        replace(folder.resolve("bank.yaml"), "run: March", "rnu: March");
        replace(folder.resolve("layouts/wexcombe-current.yaml"), "column: Booked", "colum: Booked");
        CommandOutput printed = mivrel("run", folder.resolve("bank.yaml"));
        assertThat(printed.status()).isEqualTo(2);
        assertThat(printed.out()).isEmpty();
        assertThat(printed.err())
                .contains("bank.yaml:2:1: key 'rnu' is not known")
                .contains("-> was 'run' meant?")
                .contains("layouts/wexcombe-current.yaml:8:15: key 'colum' is not known");
        assertThat(folder.resolve("out")).doesNotExist();
        assertThat(mivrel("run", folder.resolve("no-such.yaml")).status()).isEqualTo(2);
    }

    @DataProvider
    public Object[][] misuses() {
        return new Object[][] {
            {new Object[] {}},
            {new Object[] {"runn"}},
            {new Object[] {"run"}},
            {new Object[] {"run", "x", "--first", "0"}},
            {new Object[] {"run", "x", "--first", "many"}},
            {new Object[] {"check", "x", "--unheard"}}
        };
    }

    @Test(dataProvider = "misuses")
    public void wrongUseIsStatusTwoAndSaysHow(Object[] args) {
        CommandOutput printed = mivrel(args);
        assertThat(printed.status()).isEqualTo(2);
        assertThat(printed.out()).isEmpty();
        assertThat(printed.err()).contains("mivrel");
    }

    @Test
    public void aFailingFileIsStatusThreeInOneLine() throws IOException {
        Path folder = demo();
        Files.delete(folder.resolve("inbox/ledger-2027-q1.csv"));
        CommandOutput gone = mivrel("run", folder.resolve("ledger.yaml"));
        assertThat(gone.status()).isEqualTo(3);
        assertThat(gone.err().lines()).hasSize(1);
        assertThat(gone.err()).contains("ledger-2027-q1.csv: there is no such file");
        Files.createDirectory(folder.resolve("inbox/ledger-2027-q1.csv"));
        assertThat(mivrel("run", folder.resolve("ledger.yaml")).err()).contains("is a folder");
        Files.writeString(folder.resolve("out"), "in the way");
        assertThat(mivrel("run", folder.resolve("invoices.yaml")).status()).isEqualTo(3);
    }

    @DataProvider
    public Object[][] badInputs() {
        return new Object[][] {
            {"", "[file-empty]"},
            {"voucher,posted,account\n", "[column-missing]"},
            {"\0\0\0\1\2\3\0\0PK\0\0\0", "[file-not-text]"},
            {"voucher,posted,account,narrative,debit,credit,dept\n1,01/01/2027,\"5010,tin,1.00,,\n", "[quote-unclosed]"
            },
            {"voucher,posted,account,narrative,debit,credit,dept\n1,01/01/2027\n", "[cells-missing]"},
            {"voucher,posted,account,narrative,debit,credit,dept\n1,01/13/2027,5010,tin,1.00,,\n", "[date-unreadable]"},
            {
                "voucher,posted,account,narrative,debit,credit,dept\n1,01/01/2027,5010,tin,1.0.0,,\n",
                "[amount-unreadable]"
            },
        };
    }

    @Test(dataProvider = "badInputs")
    public void badInputIsAFindingAndDeliversNothing(String content, String rule) throws IOException {
        Path folder = demo();
        Files.writeString(folder.resolve("inbox/ledger-2027-q1.csv"), content);
        CommandOutput printed = mivrel("run", folder.resolve("ledger.yaml"));
        assertThat(printed.status()).isEqualTo(1);
        assertThat(printed.out()).contains(rule).contains("inbox/ledger-2027-q1.csv");
        assertThat(printed.err()).isEmpty();
        assertThat(folder.resolve("out"))
                .satisfiesAnyOf(
                        f -> assertThat(f).doesNotExist(), f -> assertThat(f).isEmptyDirectory());
    }

    @Test
    public void jsonSaysTheSame() throws IOException {
        Path folder = demo();
        CommandOutput printed = mivrel("check", folder.resolve("bank.yaml"), "--json");
        JsonNode json = new ObjectMapper().readTree(printed.out());
        assertThat(json.get("format").asString()).isEqualTo("mivrel-outcome");
        assertThat(json.get("status").asInt()).isEqualTo(printed.status()).isEqualTo(1);
        assertThat(json.get("rowsRead").asLong()).isEqualTo(158);
        assertThat(json.get("clear").get("plus").asString()).isEqualTo("42146.01");
        JsonNode proof = json.get("files").get(0).get("balanceProof");
        assertThat(proof.get("closing").asString()).isEqualTo("7967.93");
        assertThat(proof.get("holds").asBoolean()).isTrue();
        assertThat(json.get("findings").get(0).get("severity").asString()).isEqualTo("blocker");
    }

    @Test
    public void allCommandsAreListedAndAWrongOneIsAnsweredWithThem() {
        for (CommandOutput printed : List.of(mivrel("--help"), mivrel("help"))) {
            assertThat(printed.status()).isZero();
            assertThat(printed.out()).contains("  demo ", "  survey ", "  check ", "  run ", "  help ");
        }
        CommandOutput wrong = mivrel("chekc", "bank.yaml");
        assertThat(wrong.status()).isEqualTo(2);
        assertThat(wrong.err()).contains("chekc", "mivrel check");
        CommandOutput bare = mivrel();
        assertThat(bare.status()).isEqualTo(2);
        assertThat(bare.err()).contains("  survey ");
    }

    @Test
    public void helpTeachesByExample() {
        assertThat(mivrel("--help").out()).contains("mivrel demo", "mivrel check bank.yaml", "Exit status");
        for (String command : List.of("demo", "survey", "check", "run")) {
            CommandOutput printed = mivrel(command, "--help");
            assertThat(printed.status()).isZero();
            assertThat(printed.out()).contains("Examples:", "  mivrel " + command);
            assertThat(mivrel("help", command).out()).isEqualTo(printed.out());
        }
        assertThat(mivrel("--version").out()).startsWith("mivrel " + Mivrel.VERSION);
    }

    @Test
    public void aPilotDeliversTheFirstFew() throws IOException {
        Path folder = demo();
        assertThat(mivrel("run", folder.resolve("invoices.yaml"), "--first", 2).out())
                .contains("2 documents")
                .contains("beyond the pilot");
    }

    @Test
    public void placeAndTimeOfTheMachineDoNotMatter() throws IOException {
        Locale locale = Locale.getDefault();
        TimeZone zone = TimeZone.getDefault();
        Path folder = demo();
        String here = mivrel("check", folder.resolve("bank.yaml")).out();
        try {
            for (String tag : List.of("de-DE", "tr-TR", "ar-EG", "hi-IN")) {
                Locale.setDefault(Locale.forLanguageTag(tag));
                TimeZone.setDefault(TimeZone.getTimeZone("Pacific/Auckland"));
                assertThat(mivrel("check", folder.resolve("bank.yaml")).out()).isEqualTo(here);
            }
        } finally {
            Locale.setDefault(locale);
            TimeZone.setDefault(zone);
        }
    }

    @Test
    public void everyFileOfTheDemoIsSurveyed() throws IOException {
        Path folder = demo();
        for (String file : List.of(
                "current-2027-03.ofx",
                "euro-2027-03.xml",
                "euro-2027-03.sta",
                "card-2027-03.csv",
                "ledger-2027-q1.prn",
                "payroll-2027-03.xlsx",
                "orders-heads.csv")) {
            CommandOutput printed = mivrel("survey", folder.resolve("inbox").resolve(file), "--preview", "2");
            assertThat(printed.status()).as(printed.out() + printed.err()).isEqualTo(1);
            assertThat(printed.out()).contains("kind ", "question", "next: mivrel survey");
            assertThat(printed.out().lines()).allMatch(line -> line.length() < 200);
        }
        assertThat(mivrel("survey", folder.resolve("inbox/euro-2027-03.sta")).out())
                .contains("-12,480.00 to 6,500.00: ", "2027-03-02 to 2027-03-29: ");
        assertThat(mivrel("survey", folder.resolve("inbox/payroll-2027-03.xlsx"), "--sheet", "Notes")
                        .out())
                .contains("sheet 'Notes'");
    }

    @Test
    public void aNewFileIsComparedWithALayout() throws IOException {
        Path folder = demo();
        Path bank = folder.resolve("inbox/current-2027-03.csv");
        Path layout = folder.resolve("layouts/wexcombe-current.yaml");
        CommandOutput same = mivrel("survey", bank, "--like", layout);
        assertThat(same.status()).as(same.out() + same.err()).isZero();
        assertThat(same.out()).contains("the layout reads this file");
        replace(layout, "[Details, Cheque]", "[Detail, Cheque]");
        CommandOutput renamed = mivrel("survey", bank, "--like", layout);
        assertThat(renamed.status()).isEqualTo(1);
        assertThat(renamed.out()).contains("renamed: 'Detail' is probably 'Details' now");
        CommandOutput none = mivrel("survey", bank, "--like", folder.resolve("none.yaml"));
        assertThat(none.status()).isEqualTo(2);
        assertThat(none.err()).contains("there is no such file");
    }
}
