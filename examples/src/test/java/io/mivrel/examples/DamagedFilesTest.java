package io.mivrel.examples;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
import io.mivrel.model.Finding;
import io.mivrel.model.Severity;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Every input of the demo cut at random places and with random bytes changed: nothing but findings and plain messages, and
 * where balances or totals prove the figures, never other figures without a word. More of them with
 * {@code -Dmivrel.damages=N}.
 */
public class DamagedFilesTest {
    private static final int DAMAGES = Integer.getInteger("mivrel.damages", 12);
    private static final long SEED = Long.getLong("mivrel.seed", 20270331L);
    /** Sheets whose figures are proved, by balances or by double entry and stated totals. */
    private static final Map<String, Boolean> PROVED = Map.of(
            "bank.yaml", true,
            "euro.yaml", true,
            "sta.yaml", true,
            "card.yaml", false,
            "bank-ofx.yaml", false,
            "ledger.yaml", false,
            "ledger-print.yaml", false,
            "invoices.yaml", false,
            "payroll.yaml", false,
            "orders.yaml", false);

    private Path demo;

    @BeforeMethod
    public void unpack() throws Exception {
        demo = DemoFormatsTest.newFolder();
        DemoData.unpack(demo);
        Files.writeString(
                demo.resolve("sta.yaml"),
                Files.readString(demo.resolve("euro.yaml")).replace("2027-03.xml", "2027-03.sta"));
    }

    @AfterMethod(alwaysRun = true)
    public void remove() throws Exception {
        try (Stream<Path> files = Files.walk(demo)) {
            files.sorted(Comparator.reverseOrder()).map(Path::toFile).forEach(File::delete);
        }
    }

    @DataProvider
    public Object[][] files() {
        return new Object[][] {
            {"bank.yaml", "current-2027-03.csv"},
            {"bank-ofx.yaml", "current-2027-03.ofx"},
            {"euro.yaml", "euro-2027-03.xml"},
            {"sta.yaml", "euro-2027-03.sta"},
            {"card.yaml", "card-2027-03.csv"},
            {"ledger.yaml", "ledger-2027-q1.csv"},
            {"ledger-print.yaml", "ledger-2027-q1.prn"},
            {"invoices.yaml", "invoices-2027-03.csv"},
            {"orders.yaml", "orders-heads.csv"},
            {"orders.yaml", "orders-lines.csv"},
            {"orders.yaml", "orders-customers.csv"},
            {"payroll.yaml", "payroll-2027-03.xlsx"},
        };
    }

    @Test(dataProvider = "files")
    public void cutsAndFlipsAreNeverSilentWhereAProofExists(String sheet, String name) throws Exception {
        Path file = demo.resolve("inbox").resolve(name);
        byte[] whole = Files.readAllBytes(file);
        Outcome sound = Mivrel.open(demo.resolve(sheet)).check();
        Set<String> known = words(sound);
        Random random = new Random(SEED + name.hashCode());
        for (int i = 0; i < DAMAGES; i++) {
            byte[] damaged;
            String what;
            if (i % 2 == 0) {
                int at = random.nextInt(whole.length);
                damaged = Arrays.copyOf(whole, at);
                what = name + " cut at " + at;
            } else {
                damaged = whole.clone();
                int at = random.nextInt(whole.length);
                damaged[at] = (byte) (damaged[at] ^ 1 << random.nextInt(8));
                what = name + " with byte " + at + " flipped to " + damaged[at];
            }
            Files.write(file, damaged);
            try {
                Outcome outcome = Mivrel.open(demo.resolve(sheet)).check();
                boolean same = outcome.report().clear().totals().debit()
                                == sound.report().clear().totals().debit()
                        && outcome.report().clear().totals().credit()
                                == sound.report().clear().totals().credit();
                if (PROVED.get(sheet)) {
                    assertThat(same || saysMore(outcome, known))
                            .as("%s: other totals, and nothing said: %s", what, outcome.findings())
                            .isTrue();
                }
            } catch (IOException plain) {
                assertThat(plain.getMessage()).as(what).isNotBlank();
            }
        }
    }

    private static boolean saysMore(Outcome outcome, Set<String> known) {
        return !known.containsAll(words(outcome));
    }

    // What is said louder than a note.
    private static Set<String> words(Outcome outcome) {
        return outcome.findings().stream()
                .filter(f -> f.severity() != Severity.NOTE)
                .map(Finding::toString)
                .collect(Collectors.toSet());
    }
}
