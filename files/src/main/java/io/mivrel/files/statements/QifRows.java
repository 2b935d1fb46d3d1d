package io.mivrel.files.statements;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.Statement;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.util.Locale;
import java.util.Set;

/**
 * Reads the bank, cash and card lists of QIF, the plain text that banks offer: a letter at the beginning of each line
 * says what it is, {@code ^} ends an entry. The order of day and month is not said in the file; an apostrophe before the
 * year and blanks in a date are made a stroke and nothing. A row's number is the first physical line of its entry. For
 * one thread.
 */
public final class QifRows extends StatementRows {
    private static final Set<String> MONEY = Set.of("BANK", "CASH", "CCARD", "OTH A", "OTH L");

    private final TextLines lines;
    private StatementEntry entry;
    private boolean inMoney;
    private boolean inAccount;
    private boolean any;
    private boolean first = true;
    private String account;
    private String opening;

    public QifRows(TextLines lines, String wantedAccount) {
        super(wantedAccount);
        this.lines = lines;
    }

    @Override
    boolean advance() throws IOException {
        if (!lines.next()) {
            endList();
            return false;
        }
        String line = lines.text();
        if (line.isBlank()) {
            return true;
        }
        if (line.startsWith("!")) {
            heading(line.substring(1).strip());
        } else if (inAccount) {
            accountLine(line);
        } else if (inMoney) {
            money(line);
        }
        return true;
    }

    private void heading(String heading) throws IOException {
        String upper = heading.toUpperCase(Locale.ROOT);
        if (upper.startsWith("TYPE:")) {
            endList();
            inAccount = false;
            inMoney = MONEY.contains(upper.substring(5).strip());
            if (!inMoney
                    && Set.of("INVST", "MEMORIZED", "PRICES")
                            .contains(upper.substring(5).strip())) {
                throw new UnreadableFileException(
                        Rule.FILE_KIND_DIFFERS,
                        lines.number(),
                        "'!" + heading + "' begins a list that is not a bank, cash or card account",
                        "export the account alone");
            }
            any = inMoney;
            begin(account);
        } else if (upper.equals("ACCOUNT")) {
            endList();
            inAccount = true;
            inMoney = false;
        }
        // Options and other headings say nothing about entries.
    }

    private void accountLine(String line) {
        if (line.startsWith("N")) {
            account = line.substring(1).strip();
        }
    }

    private void money(String line) {
        if (line.startsWith("^")) {
            finishEntry();
            return;
        }
        if (entry == null) {
            entry = new StatementEntry(lines.number());
        }
        if (lines.isDamaged() || lines.isTooLong()) {
            entry.faulty(lines.isDamaged() ? RowFault.BYTES_UNREADABLE : RowFault.TOO_LONG);
        }
        String text = line.substring(1).strip();
        if (text.length() > LONGEST) {
            entry.faulty(RowFault.TOO_LONG);
            return;
        }
        switch (line.charAt(0)) {
            case 'D' -> entry.date(text.replace(" ", "").replace('\'', '/'));
            case 'T' -> entry.amount(text);
            case 'P' -> entry.payee(text);
            case 'M' -> entry.narrative(text);
            case 'N' -> entry.reference(text);
            case 'L' -> entry.type(text);
            case 'U', 'C', 'A', 'S', 'E', '$', '%', 'F', 'X' -> {
                // U repeats the amount; addresses, splits and cleared marks say nothing about the line itself.
            }
            default -> entry.faulty(RowFault.ENTRY_UNREADABLE);
        }
    }

    private void finishEntry() {
        if (entry == null) {
            return;
        }
        boolean opens = first && entry.payee().equalsIgnoreCase("Opening Balance");
        first = false;
        if (opens) {
            // By custom the first entry of an account that is so called is its opening balance and no movement.
            entry.aside = LeftOut.OPENING;
            opening = plain(entry.amount());
        } else if (entry.date().isEmpty() || entry.amount().isEmpty()) {
            entry.faulty(RowFault.ENTRY_UNREADABLE);
        }
        if (entry.narrative().isEmpty()) {
            entry.narrative(entry.payee());
        }
        give(entry);
        entry = null;
    }

    // The format does not say which mark divides the decimals: it is the last one, unless three digits stand behind a
    // comma.
    private static String plain(String amount) {
        int comma = amount.lastIndexOf(',');
        boolean decimal = comma > amount.lastIndexOf('.') && amount.length() - comma != 4;
        return decimal ? amount.replace(".", "").replace(',', '.') : amount.replace(",", "");
    }

    private void endList() throws IOException {
        if (entry != null) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    entry.row,
                    "the entry that begins here is not ended by '^'",
                    Rule.FILE_DAMAGED.remedy());
        }
        if (any) {
            end(new Statement(null, account, null, opening, null, null, null, Statement.NOTHING_STATED, 0));
        }
        any = false;
        first = true;
        opening = null;
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
