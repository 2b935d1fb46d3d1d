package io.mivrel.drafting;

import io.mivrel.books.Books;
import io.mivrel.books.TaxCode;
import io.mivrel.coding.Coder;
import io.mivrel.coding.CodingEntry;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.Money;
import io.mivrel.model.Record;
import io.mivrel.model.Rule;
import java.time.LocalDate;
import java.util.List;
import java.util.function.Consumer;

/**
 * Codes a bank line and makes it a transaction with its double entry: the bank account against the coded one, with the
 * tax taken out of the gross (rounded half up) where the entry names a tax code, so that the parts add up exactly.
 */
public final class BankDrafter implements Drafter {
    private final Books books;
    private final String bankAccount;
    private final Coder coder;
    private final String suspense;
    private final String fileMark;

    /**
     * @param books for tax rates
     * @param bankAccount account code of the bank account
     * @param coder decides the other account; {@code null} when nothing is coded
     * @param suspense account for what nothing decides; {@code null} to hold it
     * @param fileOrdinal place of the file in the run from 1, to keep references of several files apart
     */
    public BankDrafter(Books books, String bankAccount, Coder coder, String suspense, int fileOrdinal) {
        this.books = books;
        this.bankAccount = bankAccount;
        this.coder = coder;
        this.suspense = suspense;
        this.fileMark = fileOrdinal == 1 ? "-" : "-" + fileOrdinal + ".";
    }

    @Override
    public Document draft(List<Record> records, Consumer<Finding> findings) {
        Record line = records.get(0);
        LocalDate date = line.date(BankLines.DATE);
        long amount = line.number(BankLines.AMOUNT);
        String reference = reference(date, line);
        if (!line.isSound()) {
            if (coder != null && amount != Record.ABSENT) {
                // Its entry has been met, though the line is held for another reason.
                coder.decide(line);
            }
            return new BankTransaction(
                    bankAccount, date, amount, line, null, new Journal(reference, date, List.of(), records));
        }
        CodingEntry entry = coder == null ? null : coder.decide(line);
        Record coded = line;
        if (entry != null) {
            coded = apply(entry, line);
        } else if (!line.has(BankLines.ACCOUNT) && coder != null) {
            findings.accept(uncoded(line, amount));
            if (suspense != null) {
                coded = line.toBuilder().put(BankLines.ACCOUNT, suspense).build(true);
            }
        }
        List<Record> source = List.of(coded);
        List<JournalLine> lines = coded.has(BankLines.ACCOUNT) ? lines(coded, amount) : List.of();
        Journal journal = new Journal(reference, date, lines, source);
        return new BankTransaction(bankAccount, date, amount, coded, entry == null ? null : entry.name(), journal);
    }

    private String reference(LocalDate date, Record line) {
        if (date == null) {
            return bankAccount + fileMark + line.row();
        }
        int yymmdd = date.getYear() % 100 * 10_000 + date.getMonthValue() * 100 + date.getDayOfMonth();
        String digits = Integer.toString(1_000_000 + yymmdd).substring(1);
        return bankAccount + "-" + digits + fileMark + line.row();
    }

    private static Record apply(CodingEntry entry, Record line) {
        Record.Builder coded = line.toBuilder().put(BankLines.ACCOUNT, entry.account());
        if (entry.taxCode() != null) {
            coded.put(BankLines.TAX_CODE, entry.taxCode());
        }
        if (entry.party() != null) {
            coded.put(BankLines.PARTY, entry.party());
        }
        if (entry.narrative() != null) {
            coded.put(BankLines.NARRATIVE, entry.narrative());
        }
        return coded.build(true);
    }

    private Finding uncoded(Record line, long amount) {
        String text = line.text(BankLines.NARRATIVE);
        String direction = amount < 0 ? "out" : "in";
        return new Finding(
                suspense == null ? Rule.UNCODED : Rule.UNCODED_TO_SUSPENSE,
                line.origin(),
                BankLines.NARRATIVE.name(),
                text == null ? "" : text,
                "no entry of the coding table fits " + Money.show(Math.abs(amount), books.decimals()) + " " + direction
                        + (suspense == null ? "" : "; it goes to " + suspense),
                "add an entry with a word of this text and the direction " + direction);
    }

    private List<JournalLine> lines(Record coded, long amount) {
        String narrative = coded.text(BankLines.NARRATIVE);
        String account = coded.text(BankLines.ACCOUNT);
        String party = coded.text(BankLines.PARTY);
        String taxCode = coded.text(BankLines.TAX_CODE);
        TaxCode tax = taxCode == null ? null : books.taxCode(taxCode);
        JournalLine bank = JournalLine.of(bankAccount, amount, narrative, coded);
        if (tax == null || tax.account() == null) {
            return List.of(bank, new JournalLine(account, -amount, narrative, taxCode, party, null, coded));
        }
        long part = Money.taxWithin(-amount, tax.rate());
        return List.of(
                bank,
                new JournalLine(account, -amount - part, narrative, taxCode, party, null, coded),
                new JournalLine(tax.account(), part, narrative, taxCode, null, null, coded));
    }
}
