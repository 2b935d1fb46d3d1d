package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.intake.DateWindow;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.Row;
import io.mivrel.intake.RowBlock;
import io.mivrel.intake.RowSource;
import io.mivrel.model.BankLines;
import io.mivrel.model.Field;
import io.mivrel.model.JournalLines;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Rows of which there is nothing to tell are read by column, many at a time, and the others one by one. Whatever the rows,
 * records, findings and counts are those of reading each row by itself.
 */
public class ReadByColumnTest {
    private static final Field[] BANK = {
        BankLines.DATE,
        BankLines.NARRATIVE,
        BankLines.MONEY_IN,
        BankLines.MONEY_OUT,
        BankLines.AMOUNT,
        BankLines.BALANCE
    };
    private static final Field[] JOURNAL = {
        JournalLines.REFERENCE,
        JournalLines.DATE,
        JournalLines.ACCOUNT,
        JournalLines.NARRATIVE,
        JournalLines.DEBIT,
        JournalLines.CREDIT,
        JournalLines.AMOUNT,
        JournalLines.TAX_CODE,
        JournalLines.PARTY
    };
    private static final DateWindow MARCH = new DateWindow(LocalDate.of(2027, 3, 1), LocalDate.of(2027, 3, 31));

    /** A source that hands out its rows one by one only. */
    private record OneByOne(RowSource rows) implements RowSource {
        @Override
        public Row next() throws IOException {
            return rows.next();
        }

        @Override
        public List<String> titles() {
            return rows.titles();
        }

        @Override
        public void close() throws IOException {
            rows.close();
        }
    }

    /** A source that counts the rows that went out in blocks. */
    private static final class Counted implements RowSource {
        private final RowSource rows;
        private long inBlocks;

        Counted(RowSource rows) {
            this.rows = rows;
        }

        @Override
        public Row next() throws IOException {
            return rows.next();
        }

        @Override
        public int next(RowBlock block, int most) throws IOException {
            int size = rows.next(block, most);
            inBlocks += size;
            return size;
        }

        @Override
        public void close() throws IOException {
            rows.close();
        }
    }

    private static final String[] BANK_AMOUNTS = {
        ",%s", "%s,", "%s,%s", ",", "-%s,", ",0.00", "0.00,%s", "%s,0.00", "x,", "(%s),", "1.234,", "\"1,5\",", " ,%s "
    };
    private static final String[] BANK_ROWS = {
        "Date,Text,In,Out,Balance",
        "",
        ",,,,",
        "Mon 01/03/2027,short",
        "Mon 01/03/2027,long,1.00,,,,x",
        "Mon 01/03/2027,open \"quote,1.00,,",
        "Mon 01/03/2027,\"never closed,1.00,,",
        "30/02/2027,no such day,1.00,,",
        "Tue 01/03/2027,wrong day name,1.00,,",
        ",no date,1.00,,",
        "Sun 28/02/2027,before,1.00,,",
        "Thu 01/04/2027,after,,1.00,",
        "Mon 01/03/2027,Total of the day,1.00,,"
    };

    @DataProvider
    public Object[][] bankLayouts() {
        return new Object[][] {
            {"", ""},
            {"order: oldest first, ", ""},
            {"", "numbers: {negative: brackets, thousands: \",\"}\n"},
            {"", "signs: reversed\n"},
            {"", "signs: all reversed\n"},
        };
    }

    @Test(dataProvider = "bankLayouts")
    public void bankLines(String form, String more) throws Exception {
        Random random = new Random(form.length() + more.length());
        long inBlocks = 0;
        for (int round = 0; round < 40; round++) {
            int odd = 2 << random.nextInt(9);
            StringBuilder rows = new StringBuilder();
            long balance = 100_000;
            for (int i = 0; i < 1500; i++) {
                if (random.nextInt(odd) == 0) {
                    rows.append(BANK_ROWS[random.nextInt(BANK_ROWS.length)]).append('\n');
                    continue;
                }
                int kind = random.nextInt(odd) == 0 ? random.nextInt(BANK_AMOUNTS.length) : i % 2;
                long amount = 1 + random.nextInt(500_000);
                balance += kind == 0 ? -amount : amount;
                String sum = amount / 100 + (amount % 100 < 10 ? ".0" : ".") + amount % 100;
                rows.append(i < 700 ? "Mon 01/03/2027," : "Tue 02/03/2027,")
                        .append(random.nextInt(30) == 0 ? "" : "\"tin, of the \"\"old\"\" works\"")
                        .append(',')
                        .append(BANK_AMOUNTS[kind].replace("%s", sum))
                        .append(
                                random.nextInt(odd) == 0
                                        ? ","
                                        : ","
                                                + io.mivrel.model.Money.show(balance, 2)
                                                        .replace(",", ""))
                        .append('\n');
            }
            rows.append(round % 2 == 0 ? "Total,,,,12.00\nMon 01/03/2027,below,1.00,,\n" : "");
            Workshop workshop = new Workshop()
                    .bank(rows.toString())
                    .replace("bank-layout.yaml", "file: {", more + "file: {" + form);
            inBlocks += assertSame(workshop, "bank", round % 3 == 0 ? DateWindow.ALL : MARCH, BANK);
        }
        assertThat(inBlocks).isGreaterThan(20_000);
    }

    @Test
    public void journalLines() throws Exception {
        String[] texts = {
            "", "tin", "\"a \"\"b\"\", c\"", "  blanks around  ", "a text of more than thirty-two bytes or so, \u00e4"
        };
        String[] sides = {
            "1.00,", ",2.50", "(3.00),", "1.00,1.00", ",", "0.00,", "1.005,", ",\"1,000.00\"", "\"12,00\","
        };
        Random random = new Random(3);
        long inBlocks = 0;
        for (int round = 0; round < 60; round++) {
            int odd = 2 << random.nextInt(9);
            StringBuilder rows = new StringBuilder();
            for (int i = 0; i < 1200; i++) {
                rows.append(random.nextInt(odd) == 0 ? "" : "V" + i / 3)
                        .append(random.nextInt(odd) == 0 ? ",,5010," : ",01/03/2027,5010,")
                        .append(texts[random.nextInt(random.nextInt(odd) == 0 ? 5 : 2)].replace(", \u00e4", ""))
                        .append(',')
                        .append(sides[random.nextInt(random.nextInt(odd) == 0 ? sides.length : 2)])
                        .append(random.nextInt(odd) == 0 ? ",STD,CUS-001\n" : ",,\n");
            }
            inBlocks += assertSame(new Workshop().journal(rows.toString()), "journal", DateWindow.ALL, JOURNAL);
        }
        assertThat(inBlocks).isGreaterThan(20_000);
    }

    private static long assertSame(Workshop workshop, String kind, DateWindow dates, Field[] fields) throws Exception {
        Counted[] counted = new Counted[1];
        Reading byColumn = Reading.of(workshop, kind, dates, rows -> counted[0] = new Counted(rows), fields);
        Reading byRow = Reading.of(workshop, kind, dates, OneByOne::new, fields);
        for (int i = 0; i < Math.min(byColumn.records().size(), byRow.records().size()); i++) {
            assertThat(byColumn.records().get(i))
                    .as("record %s", i)
                    .isEqualTo(byRow.records().get(i));
        }
        assertThat(byColumn.records().size()).isEqualTo(byRow.records().size());
        assertThat(byColumn.findings()).isEqualTo(byRow.findings());
        assertThat(counts(byColumn.tally())).isEqualTo(counts(byRow.tally()));
        return counted[0].inBlocks;
    }

    private static String counts(IntakeTally tally) {
        return tally.rows() + " " + tally.records() + " " + tally.unreadable() + " " + tally.leftOut() + " "
                + tally.totals() + " " + tally.firstDate() + " " + tally.lastDate() + " " + tally.proof() + " "
                + tally.spans() + " " + tally.failed();
    }
}
