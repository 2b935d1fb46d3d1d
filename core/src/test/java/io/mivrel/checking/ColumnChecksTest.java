package io.mivrel.checking;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Sources;
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
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Coding;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Posting;
import io.mivrel.model.RecordBlock;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** The columnar form of a check lets nothing pass of which the check would report anything. */
public class ColumnChecksTest {
    private static final long DAY = LocalDate.of(2027, 3, 1).toEpochDay();
    private static final Books BOOKS = Books.named("Larkmoor", Sources.GBP)
            .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
            .account("2200", "Tax", AccountType.LIABILITY, AccountUse.TAX, AccountStatus.OPEN)
            .account("3100", "Retained earnings", AccountType.EQUITY, AccountUse.GENERAL, AccountStatus.RESERVED)
            .account("4000", "Tower bells", AccountType.INCOME)
            .account("5010", "Tin", AccountType.EXPENSE)
            .account("6215", "Old exchange", AccountType.EXPENSE, AccountUse.GENERAL, AccountStatus.CLOSED)
            .taxCode(new TaxCode("STD", "Standard", BigDecimal.valueOf(20), "2200"))
            .party(Party.supplier("SUP-001", "Calder Vale"))
            .period(Period.open(LocalDate.of(2027, 1, 1), LocalDate.of(2027, 3, 31)))
            .period(Period.closed(LocalDate.of(2027, 4, 1), LocalDate.of(2027, 4, 30)))
            .build();

    private static final String[] ACCOUNTS = {"4000", "5010", "5010", "5010", "5010", "6215", "3100", "501", "50100"};
    private static final String[] TEXTS = {"tin", "tin", "été", "=1+1", "a longer narrative", null};

    private static List<Check> checks(Kind takes, Field text) {
        List<Check> checks = new ArrayList<>(StandardChecks.of(BOOKS));
        Delivery delivery = Delivery.named("short", takes)
                .column(DeliveryColumn.of("text", text).atMost(10))
                .column("amount", takes.amount())
                .build();
        checks.add(new DeliveryCheck(delivery, Sources.GBP));
        return checks;
    }

    private static String one(Random random, String... of) {
        return of[random.nextInt(of.length)];
    }

    private static String rarely(Random random, String known, String unknown) {
        int one = random.nextInt(12);
        return one == 0 ? unknown : one < 4 ? known : null;
    }

    // How many documents all columnar forms let pass.
    private static int assertNothingPasses(List<Check> checks, DocumentBlock documents) {
        boolean[] all = new boolean[documents.size()];
        Arrays.fill(all, true);
        for (Check check : checks) {
            boolean[] marked = new boolean[documents.size()];
            Arrays.fill(marked, true);
            check.columns().unmark(documents, marked);
            for (int i = 0; i < documents.size(); i++) {
                List<Finding> findings = new ArrayList<>();
                check.check(documents.get(i), findings::add);
                assertThat(marked[i] && !findings.isEmpty())
                        .as("%s %s", check, findings)
                        .isFalse();
                all[i] &= marked[i];
            }
        }
        int count = 0;
        for (boolean passes : all) {
            count += passes ? 1 : 0;
        }
        return count;
    }

    private static DocumentBlock journals(Random random) {
        RecordBlock lines = new RecordBlock(JournalLines.TABLE, Sources.file("f"), 200);
        int[] bounds = new int[51];
        int count = 0;
        while (count < 50 && lines.size() <= 194) {
            int size = 1 + random.nextInt(5);
            long sum = 0;
            long day = DAY + (random.nextInt(12) == 0 ? 40 : random.nextInt(20));
            for (int i = 0; i < size; i++) {
                lines.begin(1L + lines.size());
                lines.put(JournalLines.REFERENCE, "R" + count);
                lines.put(JournalLines.DATE, day);
                lines.put(JournalLines.ACCOUNT, random.nextInt(4) > 0 ? "5010" : one(random, ACCOUNTS));
                lines.put(JournalLines.NARRATIVE, one(random, TEXTS));
                lines.put(JournalLines.TAX_CODE, rarely(random, "STD", "STDD"));
                lines.put(JournalLines.PARTY, rarely(random, "SUP-001", "SUP"));
                long amount = i == size - 1 && random.nextInt(6) > 0 ? -sum : random.nextInt(5000) - 2500;
                sum += amount;
                lines.put(JournalLines.AMOUNT, amount);
                if (random.nextInt(40) == 0) {
                    lines.put(JournalLines.CURRENCY, "EUR");
                    lines.put(JournalLines.FOREIGN_AMOUNT, random.nextBoolean() ? amount * 2 : -amount);
                }
                lines.end(true);
            }
            bounds[++count] = lines.size();
        }
        return new DocumentBlock(
                JournalLines.KIND, lines, bounds, count, null, JournalLines.KIND.drafter(DraftingContext.of(BOOKS)));
    }

    @Test
    public void journalsThatPassHaveNoFinding() {
        Random random = new Random(8);
        List<Check> checks = checks(JournalLines.KIND, JournalLines.NARRATIVE);
        int clear = 0;
        for (int round = 0; round < 300; round++) {
            clear += assertNothingPasses(checks, journals(random));
        }
        assertThat(clear).isGreaterThan(500);
    }

    private static DocumentBlock bankLines(Random random) {
        RecordBlock lines = new RecordBlock(BankLines.TABLE, Sources.file("f").ofAccount("1200"), 50);
        Coding[] codings = new Coding[50];
        for (int i = 0; i < codings.length; i++) {
            lines.begin(1 + i);
            lines.put(BankLines.DATE, DAY + (random.nextInt(12) == 0 ? 40 : random.nextInt(20)));
            lines.put(BankLines.NARRATIVE, one(random, TEXTS));
            lines.put(BankLines.AMOUNT, random.nextInt(5000) - 2500);
            lines.end(true);
            Posting posting = Posting.whole(
                    random.nextInt(4) > 0 ? "5010" : one(random, ACCOUNTS),
                    rarely(random, "STD", "STDD"),
                    rarely(random, "SUP-001", "SUP"));
            codings[i] = new Coding("entry", random.nextInt(9) == 0 ? "own text" : null, List.of(posting));
        }
        return new DocumentBlock(
                BankLines.KIND, lines, null, 50, codings, BankLines.KIND.drafter(DraftingContext.of(BOOKS)));
    }

    @Test
    public void bankLinesThatPassHaveNoFinding() {
        Random random = new Random(9);
        List<Check> checks = checks(BankLines.KIND, BankLines.NARRATIVE);
        int clear = 0;
        for (int round = 0; round < 300; round++) {
            clear += assertNothingPasses(checks, bankLines(random));
        }
        assertThat(clear).isGreaterThan(2_000);
    }
}
