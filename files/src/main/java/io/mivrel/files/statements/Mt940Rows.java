package io.mivrel.files.statements;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.model.Rule;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.Statement;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads SWIFT customer statement messages MT940 (SWIFT User Handbook, Standards Category 9), bare or in their block
 * envelope, also several in a file and statements of several pages ({@code :60M:}, {@code :62M:}). A row's number is the
 * physical line of its {@code :61:}. For one thread.
 */
public final class Mt940Rows extends StatementRows {
    /** An entry without a day of booking is dated by its value, which may lie some days off. */
    private static final int LEEWAY = 10;
    /** What looks like a tag, and is none of the standard's. */
    private static final Pattern NO_TAG = Pattern.compile("^:[0-9A-Za-z]{1,4}:.*");

    private static final Set<String> SILENT =
            Set.of("12", "13", "13D", "21", "23", "34F", "64", "65", "90C", "90D", "NS");
    private static final Pattern TAG = Pattern.compile("^:([0-9]{2}[A-Z]?|[A-Z]{2}):(.*)$");
    // 6!n[4!n]2a[1!a]15d1!a3!c16x[//16x], the mark of the entry first being R for a reversal.
    private static final Pattern LINE =
            Pattern.compile("^([0-9]{6})([0-9]{4})?(R?[CD])([A-Z])?([0-9]{1,12},[0-9]{0,4})([NFS])([A-Z0-9]{3})(.*)$");
    private static final Pattern BALANCE = Pattern.compile("^([CD])([0-9]{6})([A-Z]{3})([0-9]{1,12},[0-9]{0,4})$");
    private final TextLines lines;
    private StatementEntry entry;
    private final Information information = new Information();
    private int informationSize;
    private boolean ofEntry;
    private String supplement = "";
    private String lastTag = "";

    private boolean open;
    private boolean paged;
    private String account;
    private String name;
    private String currency;
    private String opening;
    private LocalDate openingDate;
    private String closing;
    private LocalDate closingDate;

    public Mt940Rows(TextLines lines, String wantedAccount) {
        super(wantedAccount);
        this.lines = lines;
    }

    @Override
    boolean advance() throws IOException {
        if (!lines.next()) {
            finishEntry();
            if (open && (closing == null || paged)) {
                throw cutOff();
            }
            finishStatement();
            return false;
        }
        String line = lines.text();
        if (line.startsWith("{")) {
            // The envelope: {1:...}{2:...}{4: before the first field of a message.
            int text = line.lastIndexOf("{4:");
            line = text < 0 ? "" : line.substring(text + 3);
        }
        if (line.equals("-") || line.startsWith("-}") || line.isEmpty()) {
            return true;
        }
        Matcher tag = TAG.matcher(line);
        if (tag.matches()) {
            lastTag = tag.group(1);
            field(lastTag, tag.group(2));
        } else if (open && closing == null && NO_TAG.matcher(line).matches()) {
            throw unknown(line.substring(0, line.indexOf(':', 1) + 1));
        } else {
            continuation(line);
        }
        if (entry != null && (lines.isDamaged() || lines.isTooLong())) {
            entry.faulty(lines.isDamaged() ? RowFault.BYTES_UNREADABLE : RowFault.TOO_LONG);
        }
        return true;
    }

    private void field(String tag, String text) throws IOException {
        switch (tag) {
            case "20" -> {
                finishEntry();
                if (open && closing == null) {
                    throw cutOff();
                }
                if (!paged) {
                    finishStatement();
                }
            }
            case "25", "25P" -> {
                if (paged && !text.strip().equals(account)) {
                    throw cutOff();
                }
                account = text.strip();
                begin(account);
            }
            case "28", "28C" -> {
                if (!open) {
                    name = text.strip();
                }
            }
            case "60F", "60M" -> opening(tag, text);
            case "61" -> {
                finishEntry();
                entry = line(text);
            }
            case "86" -> {
                ofEntry = entry != null;
                information.clear();
                informationSize = 0;
                if (ofEntry) {
                    inform(text);
                }
            }
            case "62F", "62M" -> closing(tag, text);
            default -> {
                // Available balances and the like say nothing about booked entries; anything else may be one.
                if (open && closing == null && !SILENT.contains(tag)) {
                    throw unknown(":" + tag + ":");
                }
            }
        }
    }

    private UnreadableFileException unknown(String tag) {
        return new UnreadableFileException(
                Rule.FILE_DAMAGED,
                lines.number(),
                "'" + tag + "' among the entries is not a field of a statement",
                Rule.FILE_DAMAGED.remedy());
    }

    private void continuation(String line) {
        if (lastTag.equals("86") && ofEntry) {
            inform(line);
        } else if (lastTag.equals("61") && entry != null) {
            if (supplement.length() + line.length() > LONGEST) {
                entry.faulty(RowFault.TOO_LONG);
            } else {
                supplement = joined(supplement, line);
            }
        }
    }

    // What is longer than a text may be is held, never cut.
    private void inform(String line) {
        informationSize += Math.min(line.length(), LONGEST) + 1;
        if (informationSize > LONGEST) {
            entry.faulty(RowFault.TOO_LONG);
        } else {
            information.add(line);
        }
    }

    private void opening(String tag, String text) throws IOException {
        Matcher balance = balance(tag, text);
        String amount = amount(balance);
        if (tag.equals("60M") && paged) {
            if (!amount.equals(closing)) {
                throw new UnreadableFileException(
                        Rule.STATEMENT_GAP,
                        lines.number(),
                        "a page of statement " + name + " begins with " + amount
                                + ", but the page before it ended with " + closing,
                        "a page is missing: download the statement again");
            }
        } else {
            if (paged) {
                throw cutOff();
            }
            finishStatement();
            opening = amount;
            openingDate = date(balance.group(2));
            currency = balance.group(3);
        }
        open = true;
        paged = false;
        closing = null;
    }

    private void closing(String tag, String text) throws IOException {
        finishEntry();
        Matcher balance = balance(tag, text);
        if (!open || !balance.group(3).equals(currency)) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    lines.number(),
                    open
                            ? "the statement opens in " + currency + " and closes in " + balance.group(3)
                            : "a closing balance stands here without an opening one",
                    Rule.FILE_DAMAGED.remedy());
        }
        closing = amount(balance);
        closingDate = date(balance.group(2));
        paged = tag.equals("62M");
    }

    private Matcher balance(String tag, String text) throws IOException {
        Matcher balance = BALANCE.matcher(text.strip());
        if (!balance.matches() || date(balance.group(2)) == null) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    lines.number(),
                    ":" + tag + ": is not a balance: side, date, currency and amount are expected",
                    Rule.FILE_DAMAGED.remedy());
        }
        return balance;
    }

    private static String amount(Matcher balance) {
        String amount = point(balance.group(4));
        return balance.group(1).equals("D") ? minus(amount) : amount;
    }

    private StatementEntry line(String text) {
        if (!open) {
            return StatementEntry.unreadable(lines.number(), text);
        }
        Matcher line = LINE.matcher(text.strip());
        LocalDate value = line.matches() ? date(line.group(1)) : null;
        LocalDate booked = value == null || line.group(2) == null ? value : near(value, line.group(2));
        if (value == null || booked == null) {
            return StatementEntry.unreadable(lines.number(), text);
        }
        String mark = line.group(3);
        String amount = point(line.group(5));
        // A reversal of a credit takes money out, one of a debit brings it in.
        boolean out = mark.equals("D") || mark.equals("RC");
        String references = line.group(8);
        int own = references.indexOf("//");
        String reference = (own < 0 ? references : references.substring(0, own)).strip();
        return new StatementEntry(lines.number())
                .date(booked.toString())
                .valueDate(value.toString())
                .amount(out ? minus(amount) : amount)
                .reference(reference.equals("NONREF") ? "" : reference)
                .bankReference(own < 0 ? "" : references.substring(own + 2).strip())
                .type(line.group(6) + line.group(7) + (mark.length() == 2 ? " reversal" : ""));
    }

    private void finishEntry() {
        if (entry != null) {
            if (entry.fault != RowFault.ENTRY_UNREADABLE) {
                information.fill(entry, supplement);
            }
            give(entry);
        }
        entry = null;
        ofEntry = false;
        supplement = "";
        information.clear();
    }

    private void finishStatement() {
        if (open) {
            end(new Statement(
                    name,
                    account,
                    currency,
                    opening,
                    closing,
                    openingDate,
                    closingDate,
                    Statement.NOTHING_STATED,
                    LEEWAY));
        }
        open = false;
        paged = false;
        closing = null;
    }

    private UnreadableFileException cutOff() {
        return new UnreadableFileException(
                Rule.FILE_DAMAGED,
                lines.number(),
                "the statement " + (name == null ? "" : name + " ") + "ends without its closing balance :62F:"
                        + (paged ? "; its last page is missing" : ""),
                Rule.FILE_DAMAGED.remedy());
    }

    // 12, is 12 and 12,5 is 12.5.
    private static String point(String amount) {
        return amount.endsWith(",") ? amount.substring(0, amount.length() - 1) : amount.replace(',', '.');
    }

    /** YYMMDD, where years from 80 on are of the last century as SWIFT has it; {@code null} for no date. */
    static LocalDate date(String yymmdd) {
        int year = Integer.parseInt(yymmdd.substring(0, 2));
        return day(year + (year >= 80 ? 1900 : 2000), yymmdd.substring(2));
    }

    // The entry date has no year: it is the one that lies nearest to the value date.
    private static LocalDate near(LocalDate value, String mmdd) {
        LocalDate best = null;
        for (int year = value.getYear() - 1; year <= value.getYear() + 1; year++) {
            LocalDate day = day(year, mmdd);
            if (day != null
                    && (best == null
                            || Math.abs(day.toEpochDay() - value.toEpochDay())
                                    < Math.abs(best.toEpochDay() - value.toEpochDay()))) {
                best = day;
            }
        }
        return best;
    }

    private static LocalDate day(int year, String mmdd) {
        try {
            return LocalDate.of(year, Integer.parseInt(mmdd.substring(0, 2)), Integer.parseInt(mmdd.substring(2)));
        } catch (DateTimeException e) {
            return null;
        }
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
