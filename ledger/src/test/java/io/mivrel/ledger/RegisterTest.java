package io.mivrel.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.run.DocumentHistory.Verdict;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import org.testng.annotations.Test;

/** The register remembers what was delivered, once it is told to for good. On a real database. */
public class RegisterTest {
    private static Path file() throws IOException {
        return Files.createTempDirectory("mivrel register")
                .resolve("new folder")
                .resolve("register.db");
    }

    @Test
    public void remembersAfterCommitOnly() throws IOException {
        Path file = file();
        try (Register register = Register.open(file, "bank")) {
            register.remember(1, 10);
            assertThat(register.judge(1, 10)).isEqualTo(Verdict.NEW);
        }
        try (Register register = Register.open(file, "bank")) {
            assertThat(register.judge(1, 10)).isEqualTo(Verdict.NEW);
            register.remember(1, 10);
            register.commit();
        }
        try (Register register = Register.open(file, "bank")) {
            assertThat(register.judge(1, 10)).isEqualTo(Verdict.DELIVERED);
            assertThat(register.judge(1, 11)).isEqualTo(Verdict.CHANGED);
            assertThat(register.judge(2, 10)).isEqualTo(Verdict.NEW);
        }
        try (Register register = Register.open(file, "another run")) {
            assertThat(register.judge(1, 10)).isEqualTo(Verdict.NEW);
        }
    }

    @Test
    public void twoEqualLinesWithoutNameAreTwo() throws IOException {
        Path file = file();
        try (Register register = Register.open(file, "bank")) {
            register.remember(7, 7);
            register.remember(7, 7);
            register.commit();
        }
        try (Register register = Register.open(file, "bank")) {
            assertThat(register.judge(7, 7)).isEqualTo(Verdict.DELIVERED);
            assertThat(register.judge(7, 7)).isEqualTo(Verdict.DELIVERED);
            assertThat(register.judge(7, 7)).isEqualTo(Verdict.NEW);
            register.startOver();
            assertThat(register.judge(7, 7)).isEqualTo(Verdict.DELIVERED);
        }
    }

    @Test
    public void startingOverForgetsWhatThisRunNoted() throws IOException {
        Path file = file();
        try (Register register = Register.open(file, "bank")) {
            for (long i = 0; i < 20_000; i++) {
                register.remember(i, i + 1);
            }
            register.startOver();
            register.remember(3, 4);
            register.commit();
        }
        try (Register register = Register.open(file, "bank")) {
            assertThat(register.judge(3, 4)).isEqualTo(Verdict.DELIVERED);
            assertThat(register.judge(5, 6)).isEqualTo(Verdict.NEW);
        }
    }

    @Test
    public void manyAreKept() throws IOException {
        Path file = file();
        try (Register register = Register.open(file, "bank")) {
            for (long i = 1; i <= 50_000; i++) {
                register.remember(i * 31, -i);
            }
            register.commit();
        }
        try (Register register = Register.open(file, "bank")) {
            for (long i = 1; i <= 50_000; i++) {
                assertThat(register.judge(i * 31, -i)).isEqualTo(Verdict.DELIVERED);
            }
            assertThat(register.judge(50_001 * 31, 1)).isEqualTo(Verdict.NEW);
        }
    }

    @Test
    public void aNewerFormatIsRefusedByName() throws Exception {
        Path file = file();
        Register.open(file, "bank").close();
        for (int format : new int[] {99, 1}) {
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
                connection.createStatement().executeUpdate("PRAGMA user_version = " + format);
            }
            assertThatThrownBy(() -> Register.open(file, "bank"))
                    .isInstanceOf(RegisterException.class)
                    .hasMessageContaining("format " + format);
        }
    }

    @Test
    public void aDamagedFileIsSaidToBeOne() throws IOException {
        Path file = file();
        Files.createDirectories(file.getParent());
        Files.writeString(file, "this is no database, but it is long enough to look like a file of one".repeat(40));
        assertThatThrownBy(() -> Register.open(file, "bank"))
                .isInstanceOf(RegisterException.class)
                .hasMessageContaining("register.db");
    }
}
