package io.mivrel.files.statements;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.model.Rule;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.Statement;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Reads bank and card statements of Open Financial Exchange (OFX 1.0 to 2.3, sections 11.4.2 and 11.4.3), SGML and XML.
 * A row's number is the place of its entry in the file, since many files are a single line. For one thread.
 */
public final class OfxRows extends StatementRows {
    private static final Pattern DATE = Pattern.compile("^[0-9]{8}([0-9]{2,6}(\\.[0-9]+)?)? *(\\[.*\\]?)?$");

    private final TextLines lines;
    private final TagReader tags;
    private final Map<String, Step> outside = outside();
    private final Map<String, Step> within = within();
    private long entries;
    private StatementEntry entry;
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

    /** What a tag does. */
    private interface Step {
        void take() throws IOException;
    }

    private Map<String, Step> outside() {
        Map<String, Step> steps = new HashMap<>();
        steps.put("OFX", () -> closed = false);
        steps.put("/OFX", () -> {
            finishStatement();
            closed = true;
        });
        for (String of : List.of("STMTRS", "CCSTMTRS")) {
            steps.put(of, () -> {
                finishStatement();
                inStatement = true;
            });
            steps.put("/" + of, this::finishStatement);
        }
        steps.put("CURDEF", () -> currency = tags.text());
        for (String of : List.of("BANKACCTFROM", "CCACCTFROM")) {
            steps.put(of, () -> inAccount = true);
            steps.put("/" + of, () -> inAccount = false);
        }
        steps.put("ACCTID", () -> {
            if (inAccount && inStatement) {
                account = tags.text();
                begin(account);
            }
        });
        steps.put("DTSTART", () -> from = day(tags.text()));
        steps.put("DTEND", () -> to = day(tags.text()));
        steps.put("LEDGERBAL", () -> inBalance = true);
        steps.put("/LEDGERBAL", () -> inBalance = false);
        steps.put("AVAILBAL", () -> inBalance = false);
        steps.put("BALAMT", () -> closing = inBalance ? point(tags.text()) : closing);
        steps.put("STMTTRN", this::startEntry);
        steps.put("BANKTRANLIST", () -> inList = true);
        steps.put("/BANKTRANLIST", () -> inList = false);
        return steps;
    }

    private Map<String, Step> within() {
        Map<String, Step> steps = new HashMap<>();
        steps.put("STMTTRN", () -> {
            // SGML lets the closing tag be left out.
            finishEntry();
            startEntry();
        });
        steps.put("/STMTTRN", this::finishEntry);
        for (String end : List.of("/BANKTRANLIST", "/STMTRS", "/CCSTMTRS", "LEDGERBAL", "/OFX")) {
            steps.put(end, () -> {
                finishEntry();
                outside(end);
            });
        }
        steps.put("TRNTYPE", () -> entry.type(tags.text()));
        steps.put("DTPOSTED", () -> entry.date(iso(tags.text())));
        steps.put("DTAVAIL", () -> entry.valueDate(iso(tags.text())));
        steps.put("TRNAMT", () -> entry.amount(point(tags.text())));
        steps.put("FITID", () -> entry.bankReference(tags.text()));
        steps.put("CHECKNUM", () -> checkNumber = tags.text());
        steps.put("REFNUM", () -> referenceNumber = tags.text());
        steps.put("PAYEE", () -> inPayee = true);
        steps.put("/PAYEE", () -> inPayee = false);
        steps.put("NAME", () -> name = tags.text());
        steps.put("EXTDNAME", () -> name = tags.text().isEmpty() ? name : tags.text());
        steps.put("MEMO", () -> memo = tags.text());
        steps.put("CORRECTFITID", () -> entry.faulty(RowFault.ENTRY_CORRECTS));
        steps.put("CORRECTACTION", () -> entry.faulty(RowFault.ENTRY_CORRECTS));
        steps.put("CURRENCY", () -> inCurrency = true);
        steps.put("/CURRENCY", () -> inCurrency = false);
        steps.put("CURSYM", () -> {
            // Within CURRENCY the amount itself is in it; within ORIGCURRENCY it is only told.
            if (inCurrency && !tags.text().equals(currency)) {
                entry.faulty(RowFault.ENTRY_CURRENCY);
            }
        });
        return steps;
    }

    private void outside(String tag) throws IOException {
        Step step = outside.get(tag);
        if (step != null) {
            step.take();
        } else if (inList && !tag.startsWith("/")) {
            // Sign-on, messages and the like say nothing about entries; what stands among these might be one.
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    entries + 1,
                    "among the entries stands <" + tag + ">, which OFX does not know there",
                    Rule.FILE_DAMAGED.remedy());
        }
    }

    private void startEntry() {
        entry = new StatementEntry(++entries);
        name = "";
        memo = "";
        checkNumber = "";
        referenceNumber = "";
        inCurrency = false;
        inPayee = false;
    }

    // Addresses, codes and the other side's account are not kept.
    private void inEntry(String tag) throws IOException {
        Step step = within.get(tag);
        if (step != null) {
            step.take();
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
