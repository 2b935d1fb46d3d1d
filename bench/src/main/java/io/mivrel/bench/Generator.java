package io.mivrel.bench;

import io.mivrel.money.Money;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Currency;
import java.util.SplittableRandom;

/**
 * Makes a folder with a ledger export (J) and a bank export (B) of a given number of lines, with books, layouts, coding
 * and run sheets to go with them. The same number gives the same bytes on every machine.
 */
public final class Generator {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("dd/MM/uuuu");
    private static final int ACCOUNTS = 400;
    private static final String[] WORDS = {
        "tin", "copper", "bell", "clapper", "headstock", "rope", "timber", "oak", "haulage", "tuning", "casting",
                "loam",
        "furnace", "gas", "bearing", "frame", "tower", "quarter", "hour", "strike", "repair", "visit", "carriage",
                "deposit"
    };

    private final Path folder;
    private final long lines;

    private Generator(Path folder, long lines) {
        this.folder = folder;
        this.lines = lines;
    }

    /** Fills the folder unless it was filled before. */
    static void fill(Path folder, long lines) throws IOException {
        if (Files.exists(folder.resolve("complete"))) {
            return;
        }
        Files.createDirectories(folder.resolve("books"));
        Generator generator = new Generator(folder, lines);
        generator.books();
        generator.ledgerSettings();
        generator.bankSettings();
        generator.coding();
        generator.ledger();
        generator.bank();
        Files.writeString(folder.resolve("complete"), "");
    }

    private void books() throws IOException {
        StringBuilder chart = new StringBuilder("code,name,type,use\n");
        for (int i = 0; i < ACCOUNTS; i++) {
            chart.append(4000 + i).append(",Account ").append(i).append(",expense,general\n");
        }
        chart.append("1200,Bank,asset,bank\n2900,Suspense,liability,suspense\n");
        write("books/chart.csv", chart.toString());
        write("books/books.yaml", "books: Bench\ncurrency: GBP\n");
        write("books/periods.csv", "from,to,status\n2027-01-01,2027-12-31,open\n");
    }

    private void ledgerSettings() throws IOException {
        write("j-layout.yaml", """
                layout: Ledger
                gives: journal lines
                file: {encoding: UTF-8}
                fields:
                  reference:  {column: voucher}
                  date:       {column: posted, pattern: dd/MM/uuuu}
                  account:    {column: account}
                  narrative:  {column: narrative}
                  debit:      {column: debit}
                  credit:     {column: credit}
                  department: {column: dept}
                """);
        write("j-delivery.yaml", """
                delivery: Journals, one signed amount
                takes: journals
                file: {name: "j-{date}.csv"}
                columns:
                  Reference:  {field: reference, at most: 20}
                  Date:       {field: date, pattern: uuuu-MM-dd}
                  Account:    {field: account}
                  Text:       {field: narrative, at most: 60}
                  Amount:     {field: amount}
                  Department: {field: department}
                """);
        write("j.yaml", """
                run: J
                books: books
                intake: [{files: j.csv, layout: j-layout.yaml}]
                deliver: [{as: j-delivery.yaml, to: out}]
                """);
    }

    private void bankSettings() throws IOException {
        write("b-layout.yaml", """
                layout: Bank
                gives: bank lines
                account: 1200
                file: {encoding: UTF-8}
                fields:
                  date:      {column: Date, pattern: dd/MM/uuuu}
                  narrative: {column: Details}
                  money in:  {column: Money in}
                  money out: {column: Money out}
                  balance:   {column: Balance}
                """);
        write("b-delivery.yaml", """
                delivery: Bank lines, one signed amount
                takes: bank transactions
                file: {name: "b-{date}.csv"}
                columns:
                  date:        {field: date, pattern: uuuu-MM-dd}
                  description: {field: narrative, at most: 60}
                  amount:      {field: amount}
                  account:     {field: account}
                """);
        write("b.yaml", """
                run: B
                books: books
                intake: [{files: b.csv, layout: b-layout.yaml}]
                coding: {table: b-coding.csv, uncoded: 2900}
                deliver: [{as: b-delivery.yaml, to: out}]
                """);
    }

    private void coding() throws IOException {
        StringBuilder coding = new StringBuilder("entry,direction,words,account\n");
        for (int i = 0; i + 1 < WORDS.length; i++) {
            coding.append("pair ")
                    .append(i)
                    .append(",either,")
                    .append(WORDS[i])
                    .append(' ')
                    .append(WORDS[i + 1]);
            coding.append(",").append(4000 + i).append('\n');
            coding.append("one ")
                    .append(i)
                    .append(",")
                    .append(i % 2 == 0 ? "in" : "out")
                    .append(",");
            coding.append(WORDS[i]).append(",").append(4100 + i).append('\n');
        }
        coding.append("other in,in,,4390\nother out,out,,4391\n");
        write("b-coding.csv", coding.toString());
    }

    private void write(String name, String text) throws IOException {
        Files.writeString(folder.resolve(name), text);
    }

    private void ledger() throws IOException {
        SplittableRandom random = new SplittableRandom(5_000_001);
        StringBuilder row = new StringBuilder();
        LocalDate first = LocalDate.of(2027, 1, 1);
        try (Writer out = writer("j.csv")) {
            out.write("voucher,posted,account,narrative,debit,credit,dept\n");
            long voucher = 1_000_000;
            for (long line = 0; line < lines; voucher++) {
                int size = (int) Math.min(2 + random.nextInt(5), lines - line);
                if (lines - line - size == 1) {
                    size++;
                }
                String day = first.plusDays((line * 360) / lines).format(DAY);
                boolean unbalanced = random.nextInt(2000) == 0;
                long sum = 0;
                for (int i = 0; i < size; i++) {
                    long amount = i < size - 1 ? random.nextLong(-9_999_99, 99_999_99) : -sum;
                    amount = amount == 0 ? 100 : amount;
                    sum += amount;
                    if (unbalanced && i == size - 1) {
                        amount += 2700;
                    }
                    int account = random.nextInt(5000) == 0 ? 9000 : 4000 + random.nextInt(ACCOUNTS);
                    row.setLength(0);
                    row.append(voucher)
                            .append(',')
                            .append(day)
                            .append(',')
                            .append(account)
                            .append(',');
                    narrative(row, random);
                    row.append(',');
                    amount(row, Math.max(amount, 0));
                    row.append(',');
                    amount(row, Math.max(-amount, 0));
                    row.append(",D").append(random.nextInt(20)).append('\n');
                    out.append(row);
                }
                line += size;
            }
        }
    }

    private void bank() throws IOException {
        SplittableRandom random = new SplittableRandom(5_000_002);
        StringBuilder row = new StringBuilder();
        LocalDate first = LocalDate.of(2027, 1, 1);
        long balance = 1_000_000_00;
        try (Writer out = writer("b.csv")) {
            out.write("Date,Details,Money in,Money out,Balance\n");
            for (long line = 0; line < lines; line++) {
                long amount = random.nextLong(-99_999_99, 99_999_99);
                amount = amount == 0 ? 100 : amount;
                balance += amount;
                row.setLength(0);
                row.append(first.plusDays((line * 360) / lines).format(DAY)).append(',');
                narrative(row, random);
                row.append(',');
                amount(row, Math.max(amount, 0));
                row.append(',');
                amount(row, Math.max(-amount, 0));
                row.append(',');
                amount(row, balance);
                row.append('\n');
                out.append(row);
            }
        }
    }

    private Writer writer(String name) throws IOException {
        return new BufferedWriter(Files.newBufferedWriter(folder.resolve(name), StandardCharsets.UTF_8), 1 << 20);
    }

    // 10 to 60 characters; one in ten quoted, with a comma and doubled quotes.
    private static void narrative(StringBuilder row, SplittableRandom random) {
        boolean quoted = random.nextInt(10) == 0;
        int length = 10 + random.nextInt(quoted ? 40 : 51);
        int begin = row.length();
        if (quoted) {
            row.append('"');
        }
        while (row.length() - begin < length) {
            row.append(WORDS[random.nextInt(WORDS.length)]).append(' ');
        }
        row.setLength(begin + length);
        if (row.charAt(row.length() - 1) == ' ') {
            row.setCharAt(row.length() - 1, 's');
        }
        if (quoted) {
            row.append(", \"\"plain\"\"\"");
        }
    }

    private static void amount(StringBuilder row, long minor) {
        if (minor == 0) {
            return;
        }
        String text = Money.show(minor, Currency.getInstance("GBP"));
        boolean quoted = text.indexOf(',') >= 0;
        row.append(quoted ? "\"" : "").append(text).append(quoted ? "\"" : "");
    }
}
