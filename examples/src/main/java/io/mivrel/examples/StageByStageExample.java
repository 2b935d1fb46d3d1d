package io.mivrel.examples;

import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.checking.StandardChecks;
import io.mivrel.drafting.Drafter;
import io.mivrel.drafting.Grouping;
import io.mivrel.drafting.JournalDrafter;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.intake.DateWindow;
import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.Layout;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.JournalLines;
import io.mivrel.rows.FileFormat;
import io.mivrel.text.AmountFormat;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;

/** One stage at a time, without YAML: bytes to rows, rows to records, records to journals, journals to findings. */
public final class StageByStageExample {
    private StageByStageExample() {}

    /** The folder to unpack the demo data into. */
    public static void main(String[] args) throws Exception {
        Path folder = Path.of(args[0]);
        DemoData.unpack(folder);
        String file = "inbox/ledger-2027-q1.csv";
        Books books = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
                .build();

        Layout layout = Layout.named("Old ledger", JournalLines.TABLE)
                .format(FileFormat.csv())
                .numbers(new AmountFormat(2, '.', ',', true, false, ""))
                .field(JournalLines.REFERENCE, "voucher")
                .field(JournalLines.DATE, FieldSource.date("posted", "dd/MM/uuuu"))
                .field(JournalLines.ACCOUNT, "account")
                .field(JournalLines.NARRATIVE, "narrative")
                .field(JournalLines.DEBIT, "debit")
                .field(JournalLines.CREDIT, "credit")
                .build();

        List<Document> journals = new ArrayList<>();
        List<Finding> findings = new ArrayList<>();
        Drafter drafter = new JournalDrafter();
        try (SeparatedRows rows = SeparatedRows.open(folder.resolve(file), ',', "UTF-8");
                Grouping grouping = new Grouping(
                        JournalLines.TABLE,
                        JournalLines.REFERENCE,
                        (records, stand) -> journals.add(drafter.draft(records, findings::add)))) {
            Intake intake = new Intake(layout, file, rows, books.decimals(), DateWindow.ALL, false);
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBatch();
                more = intake.fill(batch);
                findings.addAll(batch.findings());
                grouping.accept(batch.records());
            }
            grouping.finish();
            System.out.println(
                    intake.tally().rows() + " rows read, " + intake.tally().records() + " records");
            System.out.println("a voucher comes back later in the file: " + grouping.mustStartOver());
        }

        List<Check> checks = StandardChecks.of(books);
        for (Document journal : journals) {
            if (journal.isValid()) {
                checks.forEach(check -> check.check(journal, findings::add));
            }
        }
        System.out.println(
                journals.size() + " journals before the first that came back, " + findings.size() + " findings");
    }
}
