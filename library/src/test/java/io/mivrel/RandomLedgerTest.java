package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Ledgers made at random, with known faults, are reckoned a second time here in plain {@link BigDecimal} arithmetic: what
 * is delivered, held and summed must be the same to the cent, in whatever order the lines stand.
 */
public class RandomLedgerTest {
    private static final List<String> ACCOUNTS = List.of("5010", "5020", "2100", "4000");

    /** One line as the file has it, and what it means. */
    private record Line(int voucher, String account, BigDecimal amount, String text, String cells) {}

    /** A ledger with what should come of it. */
    private static final class Ledger {
        final List<Line> lines = new ArrayList<>();
        final Set<Integer> faulty = new HashSet<>();
        final Random random;

        Ledger(long seed) {
            random = new Random(seed);
            int vouchers = 40 + random.nextInt(60);
            for (int v = 1; v <= vouchers; v++) {
                voucher(v);
            }
        }

        private void voucher(int voucher) {
            int size = 2 + random.nextInt(4);
            BigDecimal sum = BigDecimal.ZERO;
            int fault = random.nextInt(8);
            for (int i = 0; i < size; i++) {
                BigDecimal amount =
                        i < size - 1 ? BigDecimal.valueOf(random.nextInt(2_000_000) - 1_000_000, 2) : sum.negate();
                sum = sum.add(amount);
                String account = ACCOUNTS.get(random.nextInt(ACCOUNTS.size()));
                String date = "0" + (1 + voucher % 9) + "/03/2027";
                if (i == size - 1 && fault == 0) {
                    amount = amount.add(new BigDecimal("0.01"));
                    faulty.add(voucher);
                } else if (i == 0 && fault == 1) {
                    account = "50100";
                    faulty.add(voucher);
                } else if (fault == 2) {
                    date = "31/12/2026";
                    faulty.add(voucher);
                }
                line(voucher, date, account, amount);
            }
        }

        private void line(int voucher, String date, String account, BigDecimal amount) {
            String text =
                    List.of("tin", "tin, \"best\"", "Zinn für Glocken", "").get(random.nextInt(4));
            String cells = voucher + "," + date + "," + account + "," + quoted(text) + "," + sides(amount) + ",,";
            lines.add(new Line(voucher, account, amount, text, cells));
        }

        // On its own side, as a bracket on the other, or a nil beside it.
        private String sides(BigDecimal amount) {
            String shown = quoted(String.format(java.util.Locale.ROOT, "%,.2f", amount.abs()));
            boolean debit = amount.signum() >= 0;
            switch (random.nextInt(4)) {
                case 0:
                    String bracket = quoted("(" + shown.replace("\"", "") + ")");
                    return amount.signum() == 0 ? "0.00," : debit ? "," + bracket : bracket + ",";
                case 1:
                    return debit ? shown + ",0.00" : "0.00," + shown;
                default:
                    return debit ? shown + "," : "," + shown;
            }
        }

        private static String quoted(String text) {
            return text.matches(".*[,\"].*") ? '"' + text.replace("\"", "\"\"") + '"' : text;
        }

        String file() {
            return Workshop.JOURNAL_TITLES + lines.stream().map(Line::cells).collect(Collectors.joining("\n")) + "\n";
        }

        BigDecimal sum(boolean held, boolean debit) {
            return lines.stream()
                    .filter(l -> faulty.contains(l.voucher) == held)
                    .map(Line::amount)
                    .filter(a -> debit ? a.signum() > 0 : a.signum() < 0)
                    .map(BigDecimal::abs)
                    .reduce(BigDecimal.ZERO, BigDecimal::add);
        }

        Map<Integer, List<Line>> clear() {
            Map<Integer, List<Line>> clear = new LinkedHashMap<>();
            lines.stream()
                    .filter(l -> !faulty.contains(l.voucher))
                    .forEach(l -> clear.computeIfAbsent(l.voucher, v -> new ArrayList<>())
                            .add(l));
            return clear;
        }
    }

    @DataProvider
    public Object[][] seeds() {
        Object[][] seeds = new Object[24][];
        for (int i = 0; i < seeds.length; i++) {
            seeds[i] = new Object[] {(long) i, i % 3 == 0};
        }
        return seeds;
    }

    @Test(dataProvider = "seeds")
    public void comesOutAsReckonedByHand(long seed, boolean shuffled) throws Exception {
        Ledger ledger = new Ledger(seed);
        if (shuffled) {
            Collections.shuffle(ledger.lines, ledger.random);
        }
        Workshop workshop = new Workshop().put("journal.csv", ledger.file());
        RunReport report = workshop.run("journal").report();

        assertThat(report.held().documents()).isEqualTo(ledger.faulty.size());
        assertThat(BigDecimal.valueOf(report.clear().totals().debit(), 2))
                .isEqualByComparingTo(ledger.sum(false, true));
        assertThat(BigDecimal.valueOf(report.clear().totals().credit(), 2))
                .isEqualByComparingTo(ledger.sum(false, false));
        assertThat(BigDecimal.valueOf(report.held().totals().debit(), 2)).isEqualByComparingTo(ledger.sum(true, true));
        assertThat(report.rowsRead()).isEqualTo(ledger.lines.size() + 1);

        Map<Integer, List<String>> delivered = delivered(workshop);
        Map<Integer, List<Line>> expected = ledger.clear();
        assertThat(delivered.keySet()).containsExactlyInAnyOrderElementsOf(expected.keySet());
        expected.forEach((voucher, lines) -> assertThat(delivered.get(voucher))
                .containsExactlyElementsOf(lines.stream()
                        .map(l -> l.account + "|" + l.text + "|"
                                + l.amount.setScale(2).toPlainString())
                        .toList()));
    }

    // The delivered rows, cut by hand: text is the only cell that may be quoted.
    private static Map<Integer, List<String>> delivered(Workshop workshop) {
        Map<Integer, List<String>> delivered = new LinkedHashMap<>();
        if (workshop.names("out").isEmpty()) {
            return delivered;
        }
        byte[] bytes;
        try {
            bytes = java.nio.file.Files.readAllBytes(workshop.folder.resolve("out/journals-journal-2027-04-02-1.csv"));
        } catch (java.io.IOException e) {
            throw new AssertionError(e);
        }
        String[] rows = new String(bytes, java.nio.charset.Charset.forName("windows-1252")).split("\n");
        for (int i = 1; i < rows.length; i++) {
            String[] head = rows[i].split(",", 4);
            int last = head[3].lastIndexOf(',');
            String text = head[3].substring(0, last);
            if (text.startsWith("\"")) {
                text = text.substring(1, text.length() - 1).replace("\"\"", "\"");
            }
            delivered
                    .computeIfAbsent(Integer.valueOf(head[0]), v -> new ArrayList<>())
                    .add(head[2] + "|" + text + "|" + head[3].substring(last + 1));
        }
        return delivered;
    }

    @Test
    public void everyFaultIsNamed() throws Exception {
        Ledger ledger = new Ledger(5);
        RunReport report =
                new Workshop().put("journal.csv", ledger.file()).run("journal").report();
        assertThat(report.findings().counts())
                .containsKeys(Rule.JOURNAL_UNBALANCED, Rule.ACCOUNT_UNKNOWN, Rule.PERIOD_CLOSED);
        long blockers = report.findings().count(io.mivrel.model.Severity.BLOCKER);
        assertThat(blockers).isEqualTo(ledger.faulty.size());
    }
}
