package io.mivrel.drafting;

import io.mivrel.books.Books;
import io.mivrel.books.TaxCode;
import io.mivrel.coding.Coder;
import io.mivrel.model.BankBatch;
import io.mivrel.model.BankLines;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.BankTransaction.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.Money;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.time.LocalDate;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;

/**
 * Codes a bank line and makes it a transaction with its double entry: the bank account against the coded one, with the
 * tax taken out of the gross (rounded half up) where the entry names a tax code, so that the parts add up exactly.
 */
public final class BankDrafter implements Drafter {
    private static final Coding UNCODED = new Coding(null, null, null, null, null);

    private final Books books;
    private final String bankAccount;
    private final Coder coder;
    private final String suspense;
    private final String fileMark;
    private final Function<BankTransaction, Journal> entryOf = this::entry;

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

    /** Codes the lines of a batch; those that are left undecided need {@link #draft}. */
    public BankBatch code(RecordBlock records) {
        Coding[] codings = new Coding[records.size()];
        boolean bare =
                records.lacks(BankLines.ACCOUNT) && records.lacks(BankLines.TAX_CODE) && records.lacks(BankLines.PARTY);
        for (int i = 0; i < codings.length; i++) {
            if (records.isValid(i) && records.number(BankLines.AMOUNT, i) != SourceRecord.ABSENT) {
                codings[i] = coder != null ? coder.decide(records, i) : bare ? UNCODED : null;
            }
        }
        return new BankBatch(bankAccount, records, codings, entryOf);
    }

    @Override
    public Document draft(RecordRange records, Consumer<Finding> findings) {
        SourceRecord line = records.get(0);
        long amount = line.number(BankLines.AMOUNT);
        // A line that is held for another reason has met its entry all the same.
        Coding decided =
                coder == null || amount == SourceRecord.ABSENT ? null : coder.decide(line.batch(), line.index());
        Coding coding = decided == null || !line.isValid() ? asRead(line, null) : decided;
        if (coding.account() == null && coder != null && line.isValid()) {
            findings.accept(uncoded(line, amount));
            coding = asRead(line, suspense);
        }
        return new BankTransaction(bankAccount, records, coding, entryOf);
    }

    private Journal entry(BankTransaction line) {
        boolean coded = line.isValid() && line.coding().account() != null;
        List<JournalLine> lines = coded ? lines(line.record(), line.coding(), line.amount()) : List.of();
        return new Journal(reference(line.date(), line.record()), line.date(), lines, line.records());
    }

    // What the file itself says, where it comes coded.
    private static Coding asRead(SourceRecord line, String otherwise) {
        String account = line.text(BankLines.ACCOUNT);
        return new Coding(
                null,
                account == null ? otherwise : account,
                line.text(BankLines.TAX_CODE),
                line.text(BankLines.PARTY),
                null);
    }

    private String reference(LocalDate date, SourceRecord line) {
        if (date == null) {
            return bankAccount + fileMark + line.row();
        }
        int yymmdd = date.getYear() % 100 * 10_000 + date.getMonthValue() * 100 + date.getDayOfMonth();
        String digits = Integer.toString(1_000_000 + yymmdd).substring(1);
        return bankAccount + "-" + digits + fileMark + line.row();
    }

    private Finding uncoded(SourceRecord line, long amount) {
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

    private List<JournalLine> lines(SourceRecord line, Coding coding, long amount) {
        String narrative = coding.narrative();
        String taxCode = coding.taxCode();
        TaxCode tax = taxCode == null ? null : books.taxCode(taxCode);
        JournalLine bank = JournalLine.of(bankAccount, amount, narrative, line);
        if (tax == null || tax.account() == null) {
            return List.of(
                    bank, new JournalLine(coding.account(), -amount, narrative, taxCode, coding.party(), null, line));
        }
        long part = Money.taxWithin(-amount, tax.rate());
        return List.of(
                bank,
                new JournalLine(coding.account(), -amount - part, narrative, taxCode, coding.party(), null, line),
                new JournalLine(tax.account(), part, narrative, taxCode, null, null, line));
    }
}
