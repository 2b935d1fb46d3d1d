package io.mivrel.checking;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.books.TaxCode;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryCheck;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.Takes;
import io.mivrel.drafting.BankDrafter;
import io.mivrel.drafting.JournalDrafter;
import io.mivrel.model.BankBatch;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.JournalBatch;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/**
 * A check asked by the batch says of each document what it says when it is asked of that document alone, and lets nothing
 * pass of which it would report anything.
 */
public class BatchChecksTest {
    private static final long DAY = LocalDate.of(2027, 3, 1).toEpochDay();
    private static final Books BOOKS = Books.named("Larkmoor", Currency.getInstance("GBP"))
            .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
            .account("2200", "Tax", AccountType.LIABILITY, AccountUse.TAX, AccountStatus.OPEN)
            .account("3100", "Retained earnings", AccountType.EQUITY, AccountUse.GENERAL, AccountStatus.RESERVED)
            .account("4000", "Tower bells", AccountType.INCOME)
            .account("5010", "Tin", AccountType.EXPENSE)
            .account("6215", "Old exchange", AccountType.EXPENSE, AccountUse.GENERAL, AccountStatus.CLOSED)
            .taxCode(new TaxCode("STD", "Standard", BigDecimal.valueOf(20), "2200"))
            .party(new Party("SUP-001", "Calder Vale", false))
            .period(new Period(LocalDate.of(2027, 1, 1), LocalDate.of(2027, 3, 31), true))
            .period(new Period(LocalDate.of(2027, 4, 1), LocalDate.of(2027, 4, 30), false))
            .build();

    private static final String[] ACCOUNTS = {"4000", "5010", "5010", "5010", "5010", "6215", "3100", "501", "50100"};
    private static final String[] TEXTS = {"tin", "tin", "été", "=1+1", "a longer narrative", null};

    private static List<Check> checks(Takes takes, Field text) {
        List<Check> checks = new ArrayList<>(StandardChecks.of(BOOKS));
        checks.add(new DeliveryCheck(
                Delivery.named("short", takes)
                        .column(DeliveryColumn.of("text", text).atMost(10))
                        .column("amount", takes == Takes.JOURNALS ? JournalLines.AMOUNT : BankLines.AMOUNT)
                        .build(),
                2));
        return checks;
    }

    private static String one(Random random, String... of) {
        return of[random.nextInt(of.length)];
    }

    private static String rarely(Random random, String known, String unknown) {
        int one = random.nextInt(12);
        return one == 0 ? unknown : one < 4 ? known : null;
    }

    // Of each document what the batch says, and what follows from it.
    private static int assertAgree(List<Check> checks, DocumentBlock batch, boolean[] decided) {
        boolean[] clear = decided.clone();
        for (Check check : checks) {
            boolean[] marked = decided.clone();
            check.passes(batch, marked);
            for (int i = 0; i < batch.size(); i++) {
                if (!decided[i]) {
                    assertThat(marked[i]).isFalse();
                    continue;
                }
                Document document = batch.get(i);
                assertThat(marked[i]).as("%s, document %d", check, i).isEqualTo(check.passes(document));
                clear[i] &= marked[i];
            }
            for (int i = 0; i < batch.size(); i++) {
                List<Finding> findings = new ArrayList<>();
                if (decided[i]) {
                    check.check(batch.get(i), findings::add);
                    assertThat(marked[i] && !findings.isEmpty())
                            .as("%s %s", check, findings)
                            .isFalse();
                }
            }
        }
        int count = 0;
        for (boolean passes : clear) {
            count += passes ? 1 : 0;
        }
        return count;
    }

    private static JournalBatch journals(Random random) {
        RecordBlock lines = new RecordBlock(JournalLines.TABLE, "f", "", 200);
        int[] bounds = new int[51];
        int count = 0;
        while (count < 50 && lines.size() <= 194) {
            int size = 1 + random.nextInt(5);
            long sum = 0;
            long day = DAY + (random.nextInt(12) == 0 ? 40 : random.nextInt(20));
            for (int i = 0; i < size; i++) {
                lines.begin(1L + lines.size());
                lines.put(JournalLines.REFERENCE, "R" + count);
                lines.put(JournalLines.DATE, day + (random.nextInt(30) == 0 ? 1 : 0));
                lines.put(JournalLines.ACCOUNT, random.nextInt(4) > 0 ? "5010" : one(random, ACCOUNTS));
                lines.put(JournalLines.NARRATIVE, one(random, TEXTS));
                lines.put(JournalLines.TAX_CODE, rarely(random, "STD", "STDD"));
                lines.put(JournalLines.PARTY, rarely(random, "SUP-001", "SUP"));
                long amount = i == size - 1 && random.nextInt(6) > 0 ? -sum : random.nextInt(5000) - 2500;
                sum += amount;
                lines.put(JournalLines.AMOUNT, amount);
                lines.end(random.nextInt(40) > 0);
            }
            bounds[++count] = lines.size();
        }
        return new JournalBatch(lines, bounds, count);
    }

    @Test
    public void journalsFareByTheBatchAsAlone() {
        Random random = new Random(8);
        JournalDrafter drafter = new JournalDrafter();
        List<Check> checks = checks(Takes.JOURNALS, JournalLines.NARRATIVE);
        int journals = 0;
        int clear = 0;
        for (int round = 0; round < 300; round++) {
            JournalBatch batch = journals(random);
            boolean[] decided = drafter.decided(batch);
            for (int i = 0; i < batch.size(); i++) {
                List<Finding> findings = new ArrayList<>();
                Document journal = drafter.draft(batch.lines(i), findings::add);
                assertThat(decided[i]).isEqualTo(journal.isValid() && findings.isEmpty());
                if (decided[i]) {
                    assertThat(batch.day(i)).isEqualTo(journal.day());
                    assertThat(batch.to(i) - batch.from(i))
                            .isEqualTo(journal.records().size());
                    assertThat(batch.get(i).difference())
                            .isEqualTo(journal.journal().difference());
                }
            }
            journals += batch.size();
            clear += assertAgree(checks, batch, decided);
        }
        // Enough of both kinds for the test to mean anything.
        assertThat(clear).isBetween(journals / 20, journals / 2);
    }

    @Test
    public void bankLinesFareByTheBatchAsAlone() {
        Random random = new Random(9);
        List<Check> checks = checks(Takes.BANK_TRANSACTIONS, BankLines.NARRATIVE);
        int clear = 0;
        for (int round = 0; round < 300; round++) {
            RecordBlock lines = new RecordBlock(BankLines.TABLE, "f", "", 50);
            Coding[] codings = new Coding[50];
            for (int i = 0; i < codings.length; i++) {
                lines.begin(1 + i);
                lines.put(BankLines.DATE, DAY + (random.nextInt(12) == 0 ? 40 : i % 20));
                lines.put(BankLines.NARRATIVE, one(random, TEXTS));
                lines.put(BankLines.AMOUNT, random.nextInt(5000) - 2500);
                lines.end(true);
                String account = random.nextInt(3) == 0 ? one(random, ACCOUNTS) : "5010";
                codings[i] = random.nextInt(10) == 0
                        ? null
                        : new Coding(
                                "e",
                                account,
                                rarely(random, "STD", "STDD"),
                                rarely(random, "SUP-001", "SUP"),
                                random.nextInt(9) == 0 ? "-other" : null);
            }
            BankBatch drafted = new BankDrafter(BOOKS, "1200", null, null, 1).code(lines);
            BankBatch batch =
                    new BankBatch("1200", lines, codings, line -> drafted.get(0).journal());
            boolean[] decided = new boolean[batch.size()];
            for (int i = 0; i < decided.length; i++) {
                decided[i] = codings[i] != null;
                assertThat(batch.from(i)).isEqualTo(i);
                assertThat(batch.to(i)).isEqualTo(i + 1);
                assertThat(batch.day(i)).isEqualTo(lines.number(BankLines.DATE, i));
            }
            clear += assertAgree(checks, batch, decided);
        }
        assertThat(clear).isBetween(1000, 12_000);
    }

    @Test
    public void whatIsNotMarkedStaysSo() {
        JournalBatch batch = journals(new Random(10));
        for (Check check : checks(Takes.JOURNALS, JournalLines.NARRATIVE)) {
            boolean[] none = new boolean[batch.size()];
            check.passes(batch, none);
            assertThat(Arrays.equals(none, new boolean[batch.size()])).isTrue();
        }
    }
}
