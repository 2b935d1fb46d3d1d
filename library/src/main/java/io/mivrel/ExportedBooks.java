package io.mivrel;

import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.ExportProof.Listed;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;

/**
 * What a ledger exported: a trial balance or a list of entries, in any layout that gives journal lines. A trial balance has a
 * constant for reference and date.
 */
final class ExportedBooks {
    private final Layout layout;
    private final Currency currency;

    ExportedBooks(Path layout, Currency currency) throws SettingsException, IOException {
        this.layout = LayoutReader.read(layout);
        this.currency = currency;
        if (this.layout.gives() != JournalLines.KIND) {
            throw new IOException(layout + ": a layout of exported books gives journal lines");
        }
    }

    /** Every line; throws when a row cannot be read, as a sum without it would be wrong. */
    List<Listed> lines(Path file) throws IOException {
        String name = file.getFileName().toString();
        List<Listed> lines = new ArrayList<>();
        try (RowSource rows = SourceFiles.open(file, name, layout)) {
            Intake intake = new Intake(layout, SourceFile.of(name, currency), rows);
            boolean more = true;
            while (more) {
                IntakeBlock block = intake.newBlock();
                more = intake.fill(block);
                for (Finding finding : block.findings()) {
                    if (finding.blocks()) {
                        throw new IOException(finding.origin() + ": " + finding.value() + " " + finding.reason());
                    }
                }
                for (int i = 0; i < block.records().size(); i++) {
                    lines.add(listed(block.records().get(i)));
                }
            }
        }
        return lines;
    }

    private static Listed listed(SourceRecord line) {
        String reference = line.text(JournalLines.REFERENCE);
        String account = line.text(JournalLines.ACCOUNT);
        return new Listed(
                reference == null ? "" : reference,
                account == null ? "" : account,
                line.number(JournalLines.AMOUNT),
                line.row());
    }

    /** The balances of a trial balance. */
    BalanceChanges balances(Path file) throws IOException {
        BalanceChanges effect = new BalanceChanges();
        for (Listed line : lines(file)) {
            long debit = Math.max(0, line.minor());
            long credit = Math.max(0, -line.minor());
            effect.add(
                    new BalanceChanges.Place(line.account(), currency.getCurrencyCode()),
                    new BalanceChanges.Sides(debit, credit, 1));
        }
        return effect;
    }
}
