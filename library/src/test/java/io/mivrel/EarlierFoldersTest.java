package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.Proof;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Objects;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** A company folder that an earlier build wrote: layouts, register, evidence and a practice ledger stay valid. */
public class EarlierFoldersTest {
    private Path folder;

    @BeforeMethod
    public void unpack() throws IOException {
        folder = Workshop.newFolder();
        try (InputStream packed = Objects.requireNonNull(getClass().getResourceAsStream("folder-of-register-8.zip"));
                ZipInputStream zip = new ZipInputStream(packed)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                Path target = folder.resolve(entry.getName());
                if (entry.isDirectory()) {
                    Files.createDirectories(target);
                } else {
                    Files.createDirectories(target.getParent());
                    Files.copy(zip, target);
                }
            }
        }
    }

    @Test
    public void nothingGoesOutTwiceAndWhatIsNewDoes() throws Exception {
        for (String sheet : List.of("bank.yaml", "journal.yaml")) {
            Outcome again = Mivrel.open(folder.resolve(sheet)).run();
            assertThat(again.report().clear().documents()).isZero();
            assertThat(again.report().held().documents()).isZero();
            assertThat(again.report().before().documents()).isEqualTo(sheet.startsWith("bank") ? 3 : 2);
        }
        Files.writeString(
                folder.resolve("bank.csv"),
                Files.readString(folder.resolve("bank.csv")) + "04/03/2027,tin,,2.50,90.00\n");
        assertThat(Mivrel.open(folder.resolve("bank.yaml"))
                        .run()
                        .report()
                        .clear()
                        .totals()
                        .credit())
                .isEqualTo(250);
        // With other figures under a number that went out, it is held.
        Files.writeString(
                folder.resolve("journal.csv"),
                Files.readString(folder.resolve("journal.csv")).replace("4.30", "4.40"));
        assertThat(Mivrel.open(folder.resolve("journal.yaml")).run().findings().toString())
                .contains("changed-since-delivered");
    }

    @Test
    public void whatWasPostedIsProvedAndTakenBack() throws Exception {
        LedgerSettings settings = LedgerSettings.read("practice", folder);
        try (Ledger ledger = Ledgers.openOrCreate(settings, BooksFolder.read(folder.resolve("books")))) {
            LedgerPosting posting = Mivrel.open(folder.resolve("bank.yaml")).postTo(ledger);
            assertThat(posting.post().posting().postedBefore()).isEqualTo(3);
            assertThat(posting.prove(null)).allMatch(Proof::holds);
            assertThat(posting.withdraw(null, List.of()).withdrawal().takenBack())
                    .isEqualTo(3);
            assertThat(ledger.balances(LocalDate.MAX)).extracting(Balance::all).allMatch(all -> all.minor() == 0);
        }
    }
}
