package io.mivrel.files.statements;

import io.mivrel.rows.LeftOut;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.Statement;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * One statement of a camt.053 message while it is read: takes the leaves by their paths and makes rows and the statement
 * of them. Paths are those of the message definition; where versions differ, both are taken.
 */
final class CamtStatement {
    /** Details of one entry beyond this number are not taken apart. */
    private static final int MOST_DETAILS = 100_000;
    /** Most characters of an entry with its details. */
    private static final int MOST_CHARACTERS = 16 << 20;

    private final CamtRows rows;
    private String id;
    private String account;
    private String currency;
    private final Balance opening = new Balance();
    private final Balance closing = new Balance();
    private Balance balance = new Balance();
    private long entries = -1;
    private long creditEntries = -1;
    private long debitEntries = -1;
    private String credits;
    private String debits;

    private Part entry;
    private Part detail;
    private final List<Part> details = new ArrayList<>();
    private String bookedOn = "";
    private String valueOn = "";
    private String status = "";
    private String entryReference = "";
    private String additional = "";
    private int characters;
    private long booked;
    private long pending;
    private long extra;
    private long extraCredits;
    private long extraDebits;
    private boolean mixedSides;

    private static final class Balance {
        private String code = "";
        private String amount;
        private String side = "";
        private LocalDate date;

        void becomes(Balance other) {
            code = other.code;
            amount = other.signed();
            date = other.date;
        }

        String signed() {
            return amount == null ? null : side.equals("DBIT") ? StatementRows.minus(amount) : amount;
        }
    }

    /** What an entry and each of its details may say. */
    private static final class Part {
        private String amount = "";
        private String currency;
        private String side = "";
        private String reference = "";
        private String cheque = "";
        private String bankReference = "";
        private String type = "";
        private String debtor = "";
        private String creditor = "";
        private String text = "";
        private String additional = "";
    }

    CamtStatement(CamtRows rows) {
        this.rows = rows;
        rows.begin(null);
    }

    void ofStatement(String path, String value, String ccy) {
        switch (path) {
            case "Id" -> id = value;
            case "Acct/Id/IBAN", "Acct/Id/Othr/Id" -> {
                account = value;
                rows.begin(account);
            }
            case "Acct/Ccy" -> currency = value;
            case "Bal/Tp/CdOrPrtry/Cd" -> balance.code = value;
            case "Bal/Amt" -> {
                balance.amount = value;
                currency = currency == null ? ccy : currency;
            }
            case "Bal/CdtDbtInd" -> balance.side = value;
            case "Bal/Dt/Dt", "Bal/Dt/DtTm" -> balance.date = day(value);
            case "Bal" -> endBalance();
            case "TxsSummry/TtlNtries/NbOfNtries" -> entries = count(value);
            case "TxsSummry/TtlCdtNtries/NbOfNtries" -> creditEntries = count(value);
            case "TxsSummry/TtlDbtNtries/NbOfNtries" -> debitEntries = count(value);
            case "TxsSummry/TtlCdtNtries/Sum" -> credits = value;
            case "TxsSummry/TtlDbtNtries/Sum" -> debits = value;
            default -> {
                // The rest of the heading is for machines.
            }
        }
    }

    // Opening booked before previously closed booked before the first interim one; the last interim one may close.
    private void endBalance() {
        switch (balance.code) {
            case "OPBD" -> opening.becomes(balance);
            case "PRCD" -> {
                if (!opening.code.equals("OPBD")) {
                    opening.becomes(balance);
                }
            }
            case "CLBD" -> closing.becomes(balance);
            case "ITBD" -> {
                if (opening.amount == null) {
                    opening.becomes(balance);
                } else if (!closing.code.equals("CLBD")) {
                    closing.becomes(balance);
                }
            }
            default -> {
                // Available balances say nothing about booked entries.
            }
        }
        balance = new Balance();
    }

    void beginEntry() {
        entry = new Part();
        detail = null;
        details.clear();
        characters = 0;
        bookedOn = "";
        valueOn = "";
        status = "";
        entryReference = "";
        additional = "";
    }

    void beginDetail() {
        detail = new Part();
        if (details.size() <= MOST_DETAILS) {
            details.add(detail);
        }
    }

    void ofEntry(String path, String value, String ccy) {
        // What goes beyond is passed over, and the entry held.
        if (value.length() > MOST_CHARACTERS - characters) {
            characters = MOST_CHARACTERS;
            return;
        }
        characters += value.length();
        switch (path) {
            case "Amt" -> {
                entry.amount = value;
                entry.currency = ccy;
            }
            case "CdtDbtInd" -> entry.side = value;
            case "Sts", "Sts/Cd" -> status = value.isEmpty() ? status : value;
            case "RvslInd" -> {
                if (value.equals("true") || value.equals("1")) {
                    entry.type = "reversal";
                }
            }
            case "NtryRef" -> entryReference = value;
            case "AcctSvcrRef" -> entry.bankReference = value;
            case "BookgDt/Dt", "BookgDt/DtTm" -> bookedOn = dayText(value);
            case "ValDt/Dt", "ValDt/DtTm" -> valueOn = dayText(value);
            case "AddtlNtryInf" -> additional = value;
            case "BkTxCd/Domn/Cd", "BkTxCd/Domn/Fmly/Cd", "BkTxCd/Domn/Fmly/SubFmlyCd", "BkTxCd/Prtry/Cd" ->
                entry.type = StatementRows.joined(entry.type, value);
            default -> {
                if (path.startsWith("NtryDtls/TxDtls/") && detail != null) {
                    ofDetail(path.substring("NtryDtls/TxDtls/".length()), value, ccy);
                }
            }
        }
    }

    private void ofDetail(String path, String value, String ccy) {
        switch (path) {
            case "Amt" -> {
                detail.amount = value;
                detail.currency = ccy;
            }
            case "AmtDtls/TxAmt/Amt" -> {
                if (detail.amount.isEmpty()) {
                    detail.amount = value;
                    detail.currency = ccy;
                }
            }
            case "CdtDbtInd" -> detail.side = value;
            case "Refs/EndToEndId" -> detail.reference = value.equals("NOTPROVIDED") ? "" : value;
            case "Refs/ChqNb" -> detail.cheque = value;
            case "Refs/AcctSvcrRef" -> detail.bankReference = value;
            case "Refs/TxId" -> {
                if (detail.bankReference.isEmpty()) {
                    detail.bankReference = value;
                }
            }
            case "RltdPties/Dbtr/Nm", "RltdPties/Dbtr/Pty/Nm" -> detail.debtor = value;
            case "RltdPties/Cdtr/Nm", "RltdPties/Cdtr/Pty/Nm" -> detail.creditor = value;
            case "RmtInf/Ustrd" -> detail.text = StatementRows.joined(detail.text, value);
            case "RmtInf/Strd/CdtrRefInf/Ref" -> detail.text = StatementRows.joined(detail.text, value);
            case "AddtlTxInf" -> detail.additional = value;
            default -> {
                // Agents, purposes and charges are not kept.
            }
        }
    }

    void endEntry() {
        if (!status.equals("BOOK") && !status.isEmpty()) {
            pending++;
            StatementEntry notYet = row(entry, null, 0);
            notYet.aside = LeftOut.NOT_BOOKED;
            rows.give(notYet);
            return;
        }
        booked++;
        if (characters == MOST_CHARACTERS) {
            rows.give(row(entry, null, 0).faulty(RowFault.TOO_LONG));
            return;
        }
        if (details.size() > 1 && details.stream().allMatch(this::hasOwnAmount)) {
            if (addUp()) {
                int place = 0;
                extra += details.size() - 1;
                extraCredits += entry.side.equals("CRDT") ? details.size() - 1 : 0;
                extraDebits += entry.side.equals("DBIT") ? details.size() - 1 : 0;
                for (Part one : details) {
                    mixedSides |= !one.side.isEmpty() && !one.side.equals(entry.side);
                    rows.give(row(entry, one, ++place));
                }
            } else {
                rows.give(row(entry, null, 0).faulty(RowFault.BATCH_DIFFERS));
            }
        } else {
            rows.give(row(entry, details.size() == 1 ? details.get(0) : null, 0));
        }
    }

    private boolean hasOwnAmount(Part one) {
        return !one.amount.isEmpty() && (one.currency == null || one.currency.equals(entry.currency));
    }

    private boolean addUp() {
        if (details.size() > MOST_DETAILS) {
            return false;
        }
        try {
            BigDecimal sum = BigDecimal.ZERO;
            for (Part one : details) {
                sum = sum.add(amount(one.amount, one.side.isEmpty() ? entry.side : one.side));
            }
            return sum.compareTo(amount(entry.amount, entry.side)) == 0;
        } catch (NumberFormatException e) {
            return false;
        }
    }

    private static BigDecimal amount(String text, String side) {
        if (text.length() > 40) {
            throw new NumberFormatException(text);
        }
        BigDecimal amount = new BigDecimal(text);
        return side.equals("DBIT") ? amount.negate() : amount;
    }

    // The entry as a row, or one of its details; place 0 when it is not divided.
    private StatementEntry row(Part whole, Part one, int place) {
        Part from = one == null ? whole : one;
        String side = place > 0 ? first(from.side, whole.side) : whole.side;
        String amount = place > 0 ? from.amount : whole.amount;
        boolean out = side.equals("DBIT");
        String bankReference = first(from.bankReference, whole.bankReference, entryReference);
        // Details may share the reference of their entry, which then is not one of a kind.
        boolean shared = place > 0 && one.bankReference.isEmpty() && !bankReference.isEmpty();
        StatementEntry row = new StatementEntry(++rows.rows)
                .date(first(bookedOn, valueOn))
                .valueDate(valueOn)
                .amount(out ? StatementRows.minus(amount) : amount)
                .payee(out ? from.creditor : from.debtor)
                .narrative(first(from.text, from.additional, additional))
                .reference(first(from.cheque, from.reference))
                .bankReference(shared ? bankReference + "/" + place : bankReference)
                .type(whole.type);
        if (!out && !side.equals("CRDT") || amount.isEmpty()) {
            row.faulty(RowFault.ENTRY_UNREADABLE);
        }
        if (currency != null && whole.currency != null && !whole.currency.equals(currency)) {
            row.faulty(RowFault.ENTRY_CURRENCY);
        }
        return row;
    }

    // The first that is filled; the last one where none is.
    private static String first(String... texts) {
        return Arrays.stream(texts).filter(text -> !text.isEmpty()).findFirst().orElse(texts[texts.length - 1]);
    }

    void end() {
        rows.end(new Statement(
                id, account, currency, opening.amount, closing.amount, opening.date, closing.date, stated(), 1));
    }

    // The message counts entries, and a row may be a detail of one; pending ones are counted by some banks.
    private Statement.Totals stated() {
        long total = entries < 0 ? -1 : entries - (entries == booked + pending ? pending : 0) + extra;
        return mixedSides
                ? new Statement.Totals(total, -1, -1, null, null)
                : new Statement.Totals(
                        total,
                        creditEntries < 0 || pending > 0 ? -1 : creditEntries + extraCredits,
                        debitEntries < 0 || pending > 0 ? -1 : debitEntries + extraDebits,
                        pending > 0 ? null : credits,
                        pending > 0 ? null : debits);
    }

    private static long count(String text) {
        return text.matches("[0-9]{1,15}") ? Long.parseLong(text) : -1;
    }

    private static String dayText(String text) {
        return text.length() > 10 ? text.substring(0, 10) : text;
    }

    private static LocalDate day(String text) {
        try {
            return LocalDate.parse(dayText(text));
        } catch (DateTimeParseException e) {
            return null;
        }
    }
}
