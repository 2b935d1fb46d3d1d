package io.mivrel.files.statements;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.model.Rule;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.Statement;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.regex.Pattern;

/**
 * Reads bank and card statements of Open Financial Exchange (OFX 1.0 to 2.3, sections 11.4.2 and 11.4.3), SGML and XML.
 * A row's number is the place of its entry in the file, since many files are a single line. For one thread.
 */
public final class OfxRows extends StatementRows {
    private static final Pattern DATE = Pattern.compile("^[0-9]{8}([0-9]{2,6}(\\.[0-9]+)?)? *(\\[.*\\]?)?$");

    private final TextLines lines;
    private final TagReader tags;
    private long entries;
    private Entry entry;
    private String name = "";
    private String memo = "";
    private String checkNumber = "";
    private String referenceNumber = "";
    private boolean inList;
    private boolean inStatement;
    private boolean inBalance;
    private boolean inAccount;
    private boolean inCurrency;
    private boolean inPayee;
    private boolean closed;
    private String account;
    private String currency;
    private String closing;
    private LocalDate from;
    private LocalDate to;

    public OfxRows(TextLines lines, String wantedAccount) {
        super(wantedAccount);
        this.lines = lines;
        this.tags = new TagReader(lines);
    }

    @Override
    boolean advance() throws IOException {
        if (!tags.next()) {
            if (!closed) {
                throw new UnreadableFileException(
                        Rule.FILE_DAMAGED, entries, "the file ends before </OFX>", Rule.FILE_DAMAGED.remedy());
            }
            return false;
        }
        String tag = tags.tag();
        if (entry != null) {
            if (tags.isTooLong()) {
                entry.faulty(RowFault.TOO_LONG);
            }
            if (tags.wasDamaged()) {
                entry.faulty(RowFault.BYTES_UNREADABLE);
            }
            inEntry(tag);
        } else {
            outside(tag);
        }
        return true;
    }

    private void outside(String tag) throws IOException {
        switch (tag) {
            case "OFX" -> closed = false;
            case "/OFX" -> {
                finishStatement();
                closed = true;
            }
            case "STMTRS", "CCSTMTRS" -> {
                finishStatement();
                inStatement = true;
            }
            case "/STMTRS", "/CCSTMTRS" -> finishStatement();
            case "CURDEF" -> currency = tags.text();
            case "BANKACCTFROM", "CCACCTFROM" -> inAccount = true;
            case "/BANKACCTFROM", "/CCACCTFROM" -> inAccount = false;
            case "ACCTID" -> {
                if (inAccount && inStatement) {
                    account = tags.text();
                    begin(account);
                }
            }
            case "DTSTART" -> from = day(tags.text());
            case "DTEND" -> to = day(tags.text());
            case "LEDGERBAL" -> inBalance = true;
            case "/LEDGERBAL", "AVAILBAL" -> inBalance = false;
            case "BALAMT" -> {
                if (inBalance) {
                    closing = point(tags.text());
                }
            }
            case "STMTTRN" -> startEntry();
            case "BANKTRANLIST" -> inList = true;
            case "/BANKTRANLIST" -> inList = false;
            default -> {
                // Sign-on, messages and the like say nothing about entries; what stands among these might be one.
                if (inList && !tag.startsWith("/")) {
                    throw new UnreadableFileException(
                            Rule.FILE_DAMAGED,
                            entries + 1,
                            "among the entries stands <" + tag + ">, which OFX does not know there",
                            Rule.FILE_DAMAGED.remedy());
                }
            }
        }
    }

    private void startEntry() {
        entry = new Entry(++entries);
        name = "";
        memo = "";
        checkNumber = "";
        referenceNumber = "";
        inCurrency = false;
        inPayee = false;
    }

    private void inEntry(String tag) throws IOException {
        switch (tag) {
            case "STMTTRN" -> {
                // SGML lets the closing tag be left out.
                finishEntry();
                startEntry();
            }
            case "/STMTTRN" -> finishEntry();
            case "/BANKTRANLIST", "/STMTRS", "/CCSTMTRS", "LEDGERBAL", "/OFX" -> {
                finishEntry();
                outside(tag);
            }
            case "TRNTYPE" -> entry.type(tags.text());
            case "DTPOSTED" -> entry.date(iso(tags.text()));
            case "DTAVAIL" -> entry.valueDate(iso(tags.text()));
            case "TRNAMT" -> entry.amount(point(tags.text()));
            case "FITID" -> entry.bankReference(tags.text());
            case "CHECKNUM" -> checkNumber = tags.text();
            case "REFNUM" -> referenceNumber = tags.text();
            case "PAYEE" -> inPayee = true;
            case "/PAYEE" -> inPayee = false;
            case "NAME" -> name = tags.text();
            case "EXTDNAME" -> name = tags.text().isEmpty() ? name : tags.text();
            case "MEMO" -> memo = tags.text();
            case "CORRECTFITID", "CORRECTACTION" -> entry.faulty(RowFault.ENTRY_CORRECTS);
            case "CURRENCY" -> inCurrency = true;
            case "/CURRENCY" -> inCurrency = false;
            case "CURSYM" -> {
                // Within CURRENCY the amount itself is in it; within ORIGCURRENCY it is only told.
                if (inCurrency && !tags.text().equals(currency)) {
                    entry.faulty(RowFault.ENTRY_CURRENCY);
                }
            }
            default -> {
                // Addresses, codes and the other side's account are not kept.
            }
        }
    }

    private void finishEntry() {
        if (entry.date().isEmpty() || entry.amount().isEmpty()) {
            entry.faulty(RowFault.ENTRY_UNREADABLE);
        }
        entry.payee(name)
                .narrative(joined(name, memo))
                .reference(checkNumber.isEmpty() ? referenceNumber : checkNumber);
        give(entry);
        entry = null;
    }

    private void finishStatement() {
        if (inStatement) {
            end(new Statement(account, account, currency, null, closing, from, to, Statement.NOTHING_STATED, 1));
        }
        inStatement = false;
        inList = false;
        inBalance = false;
        account = null;
        closing = null;
        from = null;
        to = null;
    }

    // A comma or a point is the decimal mark, and there is no other (OFX 1.6 and 2.3, section 3.2.9.1).
    private static String point(String amount) {
        String plain = amount.startsWith("+") ? amount.substring(1) : amount;
        return plain.indexOf('.') < 0 ? plain.replace(',', '.') : plain;
    }

    // The day at the bank, as it stands; hours and their zone do not move it.
    private static String iso(String date) {
        LocalDate day = day(date);
        return day == null ? date : day.toString();
    }

    private static LocalDate day(String date) {
        if (date.length() > 60 || !DATE.matcher(date).matches()) {
            return null;
        }
        try {
            return LocalDate.of(
                    Integer.parseInt(date.substring(0, 4)),
                    Integer.parseInt(date.substring(4, 6)),
                    Integer.parseInt(date.substring(6, 8)));
        } catch (DateTimeException e) {
            return null;
        }
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
