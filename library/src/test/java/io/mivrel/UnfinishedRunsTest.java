package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.text.TemporaryName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/**
 * What the next run makes of one that died between choosing the names of its files and noting that all have them. Each test
 * puts files and register back as they stood at that moment.
 */
public class UnfinishedRunsTest {
    private Workshop workshop;

    @BeforeMethod
    public void oneRun() throws Exception {
        workshop = new Workshop();
        // A file for each journal, so that a run publishes a set.
        workshop.replace("journals.yaml", "line ends: LF", "line ends: LF, rows at most: 2");
        workshop.journal("A,01/03/2027,1200,,5.00,,,\nA,01/03/2027,4000,,,5.00,,\n"
                + "B,01/03/2027,1200,,6.00,,,\nB,01/03/2027,4000,,,6.00,,\n");
        workshop.run("journal");
        assertThat(out()).hasSize(2);
    }

    private List<Path> out() throws IOException {
        try (Stream<Path> files = Files.list(workshop.folder.resolve("out"))) {
            return files.sorted().toList();
        }
    }

    // As it was before the register noted the files as published: each has its hidden name too.
    private List<Path> backToPrepared() throws Exception {
        List<Path> hidden = new ArrayList<>();
        String url = "jdbc:sqlite:" + workshop.folder.resolve(".mivrel/register.db");
        try (Connection connection = DriverManager.getConnection(url);
                var statement = connection.createStatement()) {
            statement.executeUpdate("UPDATE run SET state = 'prepared'");
            try (ResultSet files = statement.executeQuery("SELECT hidden, name FROM delivered_file ORDER BY name")) {
                while (files.next()) {
                    hidden.add(Path.of(files.getString(1)));
                    Files.copy(Path.of(files.getString(2)), hidden.get(hidden.size() - 1));
                }
            }
        }
        return hidden;
    }

    private void deliversNothingMore(List<Path> names) throws Exception {
        assertThat(workshop.run("journal").report().clear().documents()).isZero();
        assertThat(out()).isEqualTo(names);
    }

    @Test
    public void filesThatHaveTheirNamesAreDone() throws Exception {
        List<Path> names = out();
        backToPrepared();
        deliversNothingMore(names);
        deliversNothingMore(names);
    }

    @Test
    public void filesWithoutTheirNamesGetThem() throws Exception {
        List<Path> names = out();
        List<String> content = List.of(Files.readString(names.get(0)), Files.readString(names.get(1)));
        backToPrepared();
        Files.delete(names.get(0));
        Files.delete(names.get(1));
        deliversNothingMore(names);
        assertThat(names.get(0)).hasContent(content.get(0));
        assertThat(names.get(1)).hasContent(content.get(1));
    }

    @Test
    public void untilThenDocumentsAreOnlyIntended() throws Exception {
        List<Path> names = out();
        backToPrepared();
        assertThat(states()).containsExactly("intended", "intended");
        deliversNothingMore(names);
        assertThat(states()).containsExactly("delivered", "delivered");
    }

    @Test
    public void aRunThatWasLeftSoByTheFormatBeforeIsSettled() throws Exception {
        List<Path> names = out();
        backToPrepared();
        String url = "jdbc:sqlite:" + workshop.folder.resolve(".mivrel/register.db");
        try (Connection connection = DriverManager.getConnection(url);
                var statement = connection.createStatement()) {
            statement.executeUpdate("UPDATE document SET state = 'intended'");
            statement.executeUpdate("DROP TABLE document_pack_keys");
            statement.executeUpdate("UPDATE register_format SET format = 7");
        }
        assertThat(states()).containsExactly("intended", "intended");
        deliversNothingMore(names);
        assertThat(states()).containsExactly("delivered", "delivered");
    }

    private List<String> states() throws IOException {
        List<String> states = new ArrayList<>();
        RegisterPlace place = RegisterPlace.file(workshop.folder.resolve(".mivrel/register.db"));
        try (Register register = Register.openToRead(place)) {
            register.documents("Larkmoor Bell Foundry", document -> states.add(document.state()));
        }
        return states;
    }

    @Test
    public void theSecondOfTwoGetsItsName() throws Exception {
        List<Path> names = out();
        backToPrepared();
        Files.delete(names.get(1));
        deliversNothingMore(names);
    }

    @Test
    public void aSetThatTheReceiverMayHaveTakenInPartStopsAndIsNamed() throws Exception {
        List<Path> names = out();
        Path hidden = backToPrepared().get(0);
        Files.delete(names.get(0));
        stopsAtTheFirst(names.get(0), hidden);
        Files.delete(hidden);
        deliversNothingMore(names.subList(1, 2));
    }

    @Test
    public void aFileThatHadItsNameAndLostItStopsAndIsNamed() throws Exception {
        List<Path> names = out();
        List<Path> hidden = backToPrepared();
        Files.delete(names.get(0));
        Files.delete(names.get(1));
        // The receiver copies a file and deletes it; the tick of the file system's clock is waited for.
        Thread.sleep(20);
        Files.createLink(names.get(0), hidden.get(0));
        Files.delete(names.get(0));
        stopsAtTheFirst(names.get(0), hidden.get(0));
        Files.move(hidden.get(0), names.get(0));
        deliversNothingMore(names);
    }

    private void stopsAtTheFirst(Path name, Path hidden) throws IOException {
        List<Path> before = out();
        assertThatThrownBy(() -> workshop.run("journal"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("the run 'journal' of ")
                .hasMessageContaining(name.toString())
                .hasMessageContaining("delete " + hidden);
        assertThat(out()).isEqualTo(before);
    }

    @Test
    public void aLostRegisterIsRefusedBesideEvidence() throws Exception {
        List<Path> names = out();
        Files.delete(workshop.folder.resolve(".mivrel/register.db"));
        assertThatThrownBy(() -> workshop.run("journal"))
                .hasMessageContaining("the register is missing")
                .hasMessageContaining("to start again on purpose");
        assertThat(out()).isEqualTo(names);
    }

    @Test
    public void aRegisterThatCannotNoteTheDeliveryKeepsItFromGoingOut() throws Exception {
        List<Path> names = out();
        workshop.journal("C,01/03/2027,1200,,5.00,,,\nC,01/03/2027,4000,,,5.00,,\n");
        String url = "jdbc:sqlite:" + workshop.folder.resolve(".mivrel/register.db");
        try (Connection connection = DriverManager.getConnection(url);
                var statement = connection.createStatement()) {
            // What a full disk does: no document can be added.
            statement.executeUpdate(
                    "CREATE TRIGGER full BEFORE INSERT ON document BEGIN SELECT RAISE(ABORT, 'no room'); END");
            assertThatThrownBy(() -> workshop.run("journal")).hasMessageContaining("no room");
            assertThat(out()).isEqualTo(names);
            statement.executeUpdate("DROP TRIGGER full");
            statement.executeUpdate("CREATE TRIGGER full BEFORE UPDATE ON run WHEN NEW.state = 'published'"
                    + " BEGIN SELECT RAISE(ABORT, 'no room'); END");
            assertThatThrownBy(() -> workshop.run("journal"))
                    .hasMessageContaining("the files were delivered")
                    .hasMessageContaining("the next run will");
            statement.executeUpdate("DROP TRIGGER full");
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
        List<Path> once = out().stream()
                .filter(f -> !f.getFileName().toString().startsWith("."))
                .toList();
        assertThat(once).hasSize(3);
        deliversNothingMore(once);
    }

    // As a run names it that was killed before it had noted anything.
    private static Path leftBy(long process, Path folder, String ending) {
        String name = TemporaryName.of("left", ending)
                .replace("-" + ProcessHandle.current().pid() + "-", "-" + process + "-");
        return folder.resolve(name);
    }

    @Test
    public void whatKilledRunsLeftGoesAtTheNextStart() throws Exception {
        Process gone = new ProcessBuilder("true").start();
        gone.waitFor();
        Workshop workshop = new Workshop().journal("1,01/03/2027,5010,tin,1.00,,,\n1,01/03/2027,2900,tin,,1.00,,\n");
        Path out = Files.createDirectories(workshop.folder.resolve("out"));
        Path evidence = workshop.folder.resolve("evidence");
        workshop.run("journal");
        Path dead = Files.writeString(leftBy(gone.pid(), out, "part"), "half");
        Path alive = Files.writeString(leftBy(ProcessHandle.current().pid(), out, "part"), "at work");
        Path staged = Files.createDirectories(leftBy(gone.pid(), evidence, "staged"));
        Files.writeString(staged.resolve("summary.txt"), "half");
        workshop.put("journal.csv", workshop.read("journal.csv").replace("\n1,", "\n2,"));
        workshop.run("journal");
        assertThat(dead).doesNotExist();
        assertThat(staged).doesNotExist();
        assertThat(alive).exists();
    }
}
