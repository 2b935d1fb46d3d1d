package io.mivrel.cli;

import static io.mivrel.cli.CommandOutput.mivrel;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.DropFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.Test;

/** Month after month: run sheets that name none, the drop folder, where accounts stand, and what is taken back. */
public class MonthByMonthTest {
    private static final String TITLES = "Day,Details,Amount,Balance\n";
    private static final String JANUARY = TITLES + """
            2027-01-04,FOUNDRY SHOP,120.00,620.00
            2027-01-20,TIN INGOT,-70.00,550.00
            """;
    private static final String MARCH = TITLES + """
            2027-03-02,FOUNDRY SHOP,80.00,730.00
            2027-03-30,TIN INGOT,-30.00,700.00
            """;

    private static Path company() throws IOException {
        Path folder = Files.createTempDirectory("mivrel month").resolve("foundry");
        Path january = folder.resolveSibling("current-2027-01.csv");
        Files.writeString(january, JANUARY);
        CommandOutput made = mivrel(
                "start",
                january,
                "--in",
                folder,
                "--answer",
                "company=Larkmoor Bell Foundry",
                "--answer",
                "currency=GBP",
                "--answer",
                "account=1800",
                "--answer",
                "signs=as written",
                "--answer",
                "deliver=bank-one-amount");
        assertThat(made.status()).isZero();
        return folder;
    }

    private static Path drop(Path folder, String name, String text) throws IOException {
        Path drop = Files.createDirectories(folder.resolve("drop"));
        return Files.writeString(drop.resolve(name), text);
    }

    private static CommandOutput watch(Path folder) {
        return mivrel("watch", folder.resolve("drop"), "--once", "--settle", "0");
    }

    private static List<String> files(Path folder, String inside) throws IOException {
        if (!Files.isDirectory(folder.resolve(inside))) {
            return List.of();
        }
        try (Stream<Path> all = Files.walk(folder.resolve(inside))) {
            return all.filter(Files::isRegularFile)
                    .map(f -> f.getFileName().toString())
                    .sorted()
                    .collect(Collectors.toList());
        }
    }

    @Test
    public void aRunIsOfTheMonthThatIsSaidOrThatItsFilesAreOf() throws IOException {
        Path folder = company();
        Path sheet = folder.resolve("current.yaml");
        assertThat(mivrel("run", sheet).out()).contains("Current 2027-01");
        Files.writeString(folder.resolve("inbox/current-2027-03.csv"), MARCH);
        assertThat(mivrel("check", sheet).err()).contains("they have rows from 2027-01 to 2027-03", "--for 2027-03");
        CommandOutput march = mivrel("run", sheet, "--for", "2027-03");
        assertThat(march.out()).contains("Current 2027-03", "2 outside the wanted dates", "statement-gap");
        assertThat(files(folder, "out")).hasSize(1).allMatch(f -> f.contains("current-2027-01"));
    }

    private static final String CHANGED =
            "Booked on;Narration;Movement;Running\n13.02.2027;Foundry shop;100,00;650,00\n25.02.2027;Telephone;-45,10;604,90\n";

    @Test
    public void aChangedFormCostsOneQuestionAndNoWrongTurn() throws IOException {
        Path folder = company();
        Path sheet = folder.resolve("current.yaml");
        mivrel("run", sheet);
        Path february = Files.writeString(folder.resolve("inbox/current-2027-02.csv"), CHANGED);
        CommandOutput run = mivrel("run", sheet, "--for", "2027-02");
        assertThat(run.out())
                .contains(
                        "next: mivrel start " + Shell.quoted(february.toString()), "the form of this file has changed")
                .doesNotContain("to 'unused'");
        assertThat(mivrel("status", folder).out())
                .contains(
                        "the form of current-2027-02.csv has changed, so no run has read it", " --in '" + folder + "'");
        Path outside = Files.writeString(folder.resolveSibling("current-2027-02.csv"), CHANGED);
        CommandOutput asked = mivrel("start", outside, "--in", folder);
        assertThat(asked.status()).isEqualTo(2);
        assertThat(asked.err()).contains("in a form that has changed?");
        CommandOutput made = mivrel("start", outside, "--in", folder, "--answer", "same=yes");
        assertThat(made.err()).isEmpty();
        assertThat(made.out()).contains("reads both forms now");
        assertThat(Files.readAllLines(sheet))
                .contains(
                        "  - {files: \"inbox/current-*.csv\", layout: [layouts/current.yaml, layouts/current-2.yaml]}");
        assertThat(files(folder, "inbox")).containsExactly("current-2027-01.csv", "current-2027-02.csv");
        assertThat(mivrel("run", sheet, "--for", "2027-02").out()).contains("clear       2 rows");
        assertThat(mivrel("run", sheet, "--for", "2027-01").out()).contains("delivered before");
    }

    @Test
    public void aFileThatTwoLayoutsReadAlikeIsAskedAbout() throws IOException {
        Path folder = company();
        Path sheet = folder.resolve("current.yaml");
        Path layout = folder.resolve("layouts/current.yaml");
        Files.writeString(
                folder.resolve("layouts/other.yaml"), Files.readString(layout).replace("layout: ", "layout: Other "));
        Files.writeString(
                sheet,
                Files.readString(sheet)
                        .replace("layout: layouts/current.yaml", "layout: [layouts/current.yaml, layouts/other.yaml]"));
        CommandOutput run = mivrel("run", sheet);
        assertThat(run.status()).isEqualTo(2);
        assertThat(run.err()).contains("both read inbox/current-2027-01.csv", "an entry of their own");
    }

    @Test
    public void aFileThatTwoEntriesNameIsRefused() throws IOException {
        Path folder = company();
        Path sheet = folder.resolve("current.yaml");
        Files.writeString(
                sheet,
                Files.readString(sheet)
                        .replace(
                                "layout: layouts/current.yaml}",
                                "layout: layouts/current.yaml}\n  - {files: \"inbox/*.csv\", layout: layouts/current.yaml}"));
        CommandOutput run = mivrel("run", sheet);
        assertThat(run.status()).isEqualTo(3);
        assertThat(run.err()).contains("is taken in twice; nothing was read");
    }

    @Test
    public void longLinesEndBetweenWords() {
        assertThat(Screen.wrapped("  allowed: hold, 1010, 1020 and 80 more", "    ", 20))
                .containsExactly("  allowed: hold,", "    1010, 1020 and", "    80 more");
        assertThat(Screen.wrapped("  " + "x".repeat(30), "    ", 20)).hasSize(1);
    }

    @Test
    public void wrongUseIsAnsweredWithLinesToPaste() throws IOException {
        Path folder = company();
        String paste =
                "mivrel run " + Shell.quoted(folder.resolve("current.yaml").toString());
        assertThat(mivrel("run", folder).err()).contains("is a folder; its run sheets:", paste);
        assertThat(mivrel("run", folder.resolve("nosuch.yaml")).err()).contains("there is no such file", paste);
        assertThat(mivrel("run", folder.getParent()).err()).contains(paste);
        assertThat(mivrel("rnu", "a.yaml").err()).contains("'rnu' is not a command", "did you mean: mivrel run a.yaml");
        assertThat(mivrel("status", folder.getParent()).err())
                .contains("mivrel status " + Shell.quoted(folder.toString()));
        assertThat(mivrel("check", folder.resolve("deliveries/bank-one-amount.yaml"))
                        .err())
                .contains("check FILE --as");
        assertThat(mivrel("run", Files.createTempDirectory("mivrel none")).err())
                .contains("is a folder without a run sheet");
    }

    @Test
    public void aDroppedFileIsRunAndFiledAway() throws IOException {
        Path folder = company();
        drop(folder, "current-2027-01.csv", JANUARY);
        drop(folder, "download.part", "half");
        CommandOutput watched = watch(folder);
        assertThat(watched.status()).isZero();
        assertThat(watched.out()).contains("current-2027-01.csv by current.yaml: 2 delivered, 0 held -> done/");
        assertThat(files(folder, "done")).containsExactly("current-2027-01.csv");
        assertThat(files(folder, "drop")).containsExactly("download.part");
        // As if the process had died between the run and the moving.
        drop(folder, "current-2027-01.csv", JANUARY);
        assertThat(watch(folder).out()).contains("0 delivered, 0 held -> done/");
        assertThat(files(folder, "out")).hasSize(1);
        assertThat(files(folder, "done")).containsExactly("2-current-2027-01.csv", "current-2027-01.csv");
    }

    @Test
    public void whatNoLayoutOrMoreThanOneFitsWaitsAndIsToldOnce() throws IOException {
        Path folder = company();
        drop(folder, "people.csv", "Name,Town\nA,Torrow\nB,Wexcombe\n");
        CommandOutput none = watch(folder);
        assertThat(none.out()).contains("people.csv waits: no layout fits it");
        Files.delete(folder.resolve("drop/people.csv"));
        Files.copy(folder.resolve("layouts/current.yaml"), folder.resolve("layouts/other.yaml"));
        String other = Files.readString(folder.resolve("current.yaml"))
                .replace("layouts/current.yaml", "layouts/other.yaml")
                .replace("Current", "Other");
        Files.writeString(folder.resolve("other.yaml"), other);
        drop(folder, "current-2027-01.csv", JANUARY);
        assertThat(watch(folder).out()).contains("waits: more than one layout fits it");
        assertThat(files(folder, "drop")).containsExactly("current-2027-01.csv");
        Files.writeString(folder.resolve("other.yaml"), other.replace("current-*.csv", "other-*.csv"));
        assertThat(watch(folder).out()).contains("by current.yaml: 2 delivered");
    }

    @Test
    public void whatIsHeldIsRunAgainWhenItComesHome() throws IOException {
        Path folder = company();
        drop(folder, "current-2027-01.csv", JANUARY + "2027-01-32,FOUNDRY SHOP,5.00,555.00\n");
        assertThat(watch(folder).out()).contains("2 delivered, 1 held -> held/");
        assertThat(watch(folder).out()).contains("once more, by current.yaml: 0 delivered, 1 held");
        Path copy;
        try (Stream<Path> all = Files.walk(folder.resolve("evidence"))) {
            copy = all.filter(f -> f.endsWith("held/current-2027-01.csv"))
                    .findFirst()
                    .orElseThrow();
        }
        Files.writeString(
                folder.resolve("corrections/current.csv"),
                Files.readString(copy).replace("2027-01-32", "2027-01-22"));
        assertThat(watch(folder).out()).contains("once more, by current.yaml: 1 delivered, 0 held -> done/");
        assertThat(files(folder, "held")).isEmpty();
        assertThat(files(folder, "out")).hasSize(2);
    }

    @Test
    public void onlyOneProcessWatches() throws IOException {
        Path folder = company();
        try (DropFolder first = DropFolder.open(folder.resolve("drop"), folder, Duration.ZERO, line -> {})) {
            assertThatThrownBy(() -> DropFolder.open(folder.resolve("drop"), folder, Duration.ZERO, line -> {}))
                    .hasMessageContaining("another process watches");
            assertThat(first.look()).isZero();
        }
        drop(folder, "current-2027-01.csv", JANUARY);
        try (DropFolder patient = DropFolder.open(folder.resolve("drop"), folder, Duration.ofMinutes(1), line -> {})) {
            assertThat(patient.look()).isZero();
            assertThat(patient.isArriving()).isTrue();
        }
    }

    @Test
    public void whereAccountsStandAndWhatIsMissing() throws IOException {
        Path folder = company();
        CommandOutput before = mivrel("status", folder);
        assertThat(before.status()).isEqualTo(1);
        assertThat(before.out())
                .contains("no bank account was delivered yet", "January 2027: 0 held, 2 not delivered yet");
        mivrel("run", folder.resolve("current.yaml"));
        CommandOutput after = mivrel("status", folder);
        assertThat(after.status()).isZero();
        assertThat(after.out())
                .contains("1800 Bank account", "4 January 2027 to 20 January 2027   closing 550.00 GBP")
                .contains("current.yaml   January 2027: all delivered");
        Files.delete(folder.resolve("inbox/current-2027-01.csv"));
        Files.writeString(
                folder.resolve("inbox/current-2027-03.csv"),
                MARCH.replace("730.00", "630.00").replace("700.00", "600.00"));
        assertThat(mivrel("run", folder.resolve("current.yaml")).status()).isZero();
        CommandOutput march = mivrel("status", folder);
        assertThat(march.status()).isEqualTo(1);
        assertThat(march.out()).contains("missing    February 2027", "closing 600.00 GBP");
        CommandOutput json = mivrel("status", folder, "--json");
        assertThat(json.status()).isEqualTo(1);
        assertThat(json.out())
                .startsWith("{")
                .contains("\"format\" : \"mivrel-status\"", "\"status\" : 1", "\"account\" : \"1800\"")
                .contains("\"from\" : \"2027-01-04\"", "\"closing\" : \"600.00\"")
                .contains("\"missing\" : [ \"2027-02\" ]", "\"runSheet\" : \"current.yaml\"", "\"held\" : 0");
        assertThat(mivrel("status", folder.resolve("inbox")).err()).contains("mivrel start FILE");
    }

    @Test
    public void whatIsTakenBackGoesOutAgain() throws IOException {
        Path folder = company();
        Path sheet = folder.resolve("current.yaml");
        assertThat(mivrel("undo", sheet).out()).contains("nothing was delivered yet");
        mivrel("run", sheet);
        assertThat(mivrel("undo", sheet).out()).contains("run 1 ", "Current 2027-01", "+120.00   -70.00 GBP");
        assertThat(mivrel("undo", sheet, "--run", "1").err()).contains("needs --why");
        assertThat(mivrel("undo", sheet, "--run", "7", "--why", "x").status()).isEqualTo(3);
        CommandOutput undone = mivrel("undo", sheet, "--run", "1", "--why", "wrong file", "--who", "A. Reed");
        assertThat(undone.out()).contains("its 2 documents go out again", "do not import: ");
        assertThat(mivrel("undo", sheet).out()).contains("by A. Reed: wrong file");
        assertThat(mivrel("undo", sheet, "--run", "1", "--why", "x").err()).contains("was taken back on");
        assertThat(mivrel("status", folder).out()).contains("no bank account was delivered yet");
        assertThat(mivrel("run", sheet).out()).contains("2 rows, in 120.00, out 70.00; read back");
        assertThat(files(folder, "out")).hasSize(2);
        assertThat(mivrel("run", sheet).out()).contains("2 delivered before");
    }

    @Test
    public void aStatementIsRunByTheAccountThatItNames() throws IOException {
        Path folder = Files.createTempDirectory("mivrel two accounts").resolve("foundry");
        Path first = statement(folder.resolveSibling("one-2027-01.sta"), "39990000/0012345678", "100,00");
        Path second = statement(folder.resolveSibling("two-2027-01.sta"), "39990000/0099887766", "200,00");
        Object[] one = {
            "start",
            first,
            "--in",
            folder,
            "--answer",
            "company=Larkmoor",
            "--answer",
            "account=1800",
            "--answer",
            "deliver=bank-one-amount"
        };
        assertThat(mivrel(one).status()).isZero();
        // A second account in the same folder: the form is known, and it is not a later file of the first.
        CommandOutput two = mivrel(
                "start",
                second,
                "--in",
                folder,
                "--answer",
                "same=no",
                "--answer",
                "account=2200",
                "--answer",
                "deliver=bank-one-amount");
        assertThat(two.status()).isZero();
        assertThat(two.out()).contains("two.yaml").doesNotContain("books/chart.csv");
        Path chart = folder.resolve("books/chart.csv");
        Files.writeString(
                chart,
                Files.readString(chart)
                        .replace(
                                "2200,Credit card,liability,card,,,,",
                                "2200,Credit card,liability,card,,,0099887766,"));
        statement(
                Files.createDirectories(folder.resolve("drop")).resolve("march.sta"), "39990000/0099887766", "250,00");
        assertThat(watch(folder).out()).contains("march.sta by two.yaml: 1 delivered, 0 held -> done/");
    }

    private static Path statement(Path file, String account, String opening) throws IOException {
        String closing = opening.replace(",00", ",50");
        return Files.writeString(
                file,
                ":20:X\n:25:" + account + "\n:28C:1/1\n:60F:C270103EUR" + opening
                        + "\n:61:2701040104C0,50NTRFNONREF\n:86:166?00GUTSCHRIFT?20FOUNDRY SHOP\n:62F:C270105EUR"
                        + closing
                        + "\n-\n");
    }
}
