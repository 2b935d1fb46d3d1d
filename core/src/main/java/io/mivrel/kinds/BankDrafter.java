package io.mivrel.kinds;

import io.mivrel.books.TaxCode;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Posting;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.model.Split;
import io.mivrel.money.Money;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Makes a coded bank line a transaction with its double entry: the bank account against the coded accounts, with the tax
 * taken out of the gross (rounded half up) where a posting names a tax code, so that the parts add up exactly.
 */
final class BankDrafter implements Drafter {
    private final DraftingContext context;

    BankDrafter(DraftingContext context) {
        this.context = context;
    }

    @Override
    public Document draft(RecordRange records, @Nullable Coding decided, Consumer<Finding> findings) {
        SourceRecord line = records.get(0);
        Coding coding = decided == null || !line.isValid() ? asRead(line, null) : decided;
        long amount = line.number(BankLines.AMOUNT);
        if (coding.posting().account() == null && context.coded() && line.isValid()) {
            findings.accept(uncoded(line, amount));
            coding = asRead(line, context.suspense());
        }
        Line heading = Line.heading(BankLines.KIND, line).put(BankLines.ENTRY, coding.entry());
        if (coding.narrative() != null) {
            heading.put(BankLines.NARRATIVE, coding.narrative());
        }
        List<Posting> postings = coding.postings();
        long[] parts = amount == SourceRecord.ABSENT || !coding.isSplit()
                ? new long[] {amount}
                : Split.amounts(amount, postings);
        for (int i = 0; i < parts.length; i++) {
            Line part = heading.add(line, i)
                    .put(BankLines.AMOUNT, parts[i])
                    .put(BankLines.ACCOUNT, postings.get(i).account())
                    .put(BankLines.TAX_CODE, postings.get(i).taxCode())
                    .put(BankLines.PARTY, postings.get(i).party());
            for (Field dimension : BankLines.KIND.dimensions()) {
                part.put(dimension, postings.get(i).dimensions().get(dimension.name()));
            }
        }
        return new Document(
                BankLines.KIND,
                records,
                heading,
                line.block().source().reference(line.number(BankLines.DATE), line.row()),
                this);
    }

    // What the file itself says, where it comes coded.
    private static Coding asRead(SourceRecord line, @Nullable String otherwise) {
        String account = line.text(BankLines.ACCOUNT);
        Posting posting = Posting.whole(
                account == null ? otherwise : account, line.text(BankLines.TAX_CODE), line.text(BankLines.PARTY));
        for (Field dimension : BankLines.KIND.dimensions()) {
            posting = posting.with(dimension.name(), line.text(dimension));
        }
        return new Coding(null, null, List.of(posting));
    }

    private Finding uncoded(SourceRecord line, long amount) {
        String text = line.text(BankLines.NARRATIVE);
        String direction = amount < 0 ? "out" : "in";
        String suspense = context.suspense();
        return new Finding(
                suspense == null ? Rule.UNCODED : Rule.UNCODED_TO_SUSPENSE,
                line.origin(),
                BankLines.NARRATIVE.name(),
                text == null ? "" : text,
                "no entry of the coding table fits "
                        + Money.show(Math.abs(amount), line.block().currency()) + " " + direction
                        + (suspense == null ? "" : "; it goes to " + suspense),
                "add an entry with a word of this text and the direction " + direction);
    }

    @Override
    public Document journal(Document document) {
        Line journal = JournalDrafter.heading(document);
        boolean coded = document.isValid() && document.lines().get(0).account() != null;
        if (coded) {
            SourceRecord source = document.records().get(0);
            String narrative = document.heading().text(BankLines.NARRATIVE);
            String bank = source.block().source().account();
            JournalDrafter.line(journal, source, bank, source.number(BankLines.AMOUNT), narrative);
            document.lines().forEach(posting -> post(journal, posting, narrative));
        }
        return JournalDrafter.journal(document, journal);
    }

    private void post(Line journal, Line posting, @Nullable String narrative) {
        TaxCode tax = posting.taxCode() == null ? null : context.books().taxCode(posting.taxCode());
        String taxAccount = tax == null ? null : tax.account();
        long part = tax == null || taxAccount == null ? 0 : Money.taxWithin(-posting.minor(), tax.rate());
        Line line = JournalDrafter.line(
                        journal, posting.source(), posting.account(), -posting.minor() - part, narrative)
                .put(JournalLines.TAX_CODE, posting.taxCode())
                .put(JournalLines.PARTY, posting.party());
        JournalDrafter.handOn(BankLines.KIND.dimensions(), posting, line);
        if (taxAccount != null) {
            JournalDrafter.line(journal, posting.source(), taxAccount, part, narrative)
                    .put(JournalLines.TAX_CODE, posting.taxCode());
        }
    }
}
