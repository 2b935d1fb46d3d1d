package io.mivrel.examples;

import io.mivrel.books.Books;
import io.mivrel.checking.Check;
import io.mivrel.checking.StandardChecks;
import io.mivrel.drafting.Grouping;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Document;
import io.mivrel.model.Drafter;
import io.mivrel.model.DraftingContext;
import io.mivrel.model.Finding;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.RowSource;
import io.mivrel.text.AmountFormat;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** The stages one at a time, for a program that wants the documents rather than a delivered file. */
public final class StageByStageExample {
    private final Books books;
    private String file = "";
    private final Layout layout = Layout.named("Old ledger", JournalLines.KIND)
            .format(FileFormat.csv())
            .numbers(AmountFormat.marked(2, '.', ',').withBrackets())
            .field(JournalLines.REFERENCE, "voucher")
            .field(JournalLines.DATE, FieldSource.date("posted", "dd/MM/uuuu"))
            .field(JournalLines.ACCOUNT, "account")
            .field(JournalLines.NARRATIVE, "narrative")
            .field(JournalLines.DEBIT, "debit")
            .field(JournalLines.CREDIT, "credit")
            .build();
    private final Drafter drafter;
    private final List<Document> journals = new ArrayList<>();
    private final List<Finding> findings = new ArrayList<>();

    private StageByStageExample(Books books) {
        this.books = books;
        this.drafter = JournalLines.KIND.drafter(DraftingContext.of(books));
    }

    /** The folder to unpack the demo data into. */
    public static void main(String[] args) throws Exception {
        Path folder = DemoData.unpackFor(args, "stage-by-stage-example");
        Books books = RunSheet.read(folder.resolve("ledger.yaml")).books();
        StageByStageExample example = new StageByStageExample(books);
        example.read(folder.resolve("inbox/ledger-2027-q1.csv"));
        example.check();
    }

    // A voucher whose lines stand apart is known once its reference comes back: then the file is read once more, and
    // its
    // lines wait until the end.
    private void read(Path file) throws IOException {
        Grouping grouping = new Grouping(JournalLines.TABLE, JournalLines.REFERENCE, this::draft);
        readOnce(file, grouping);
        while (grouping.mustStartOver()) {
            journals.clear();
            findings.clear();
            grouping = grouping.nextPass(this::draft);
            readOnce(file, grouping);
        }
    }

    private void readOnce(Path file, Grouping grouping) throws IOException {
        String name = file.getFileName().toString();
        this.file = name;
        try (RowSource rows = SourceFiles.open(file, name, layout);
                grouping) {
            Intake intake = new Intake(layout, SourceFile.of(name, books.currency()), rows);
            boolean more = true;
            while (more) {
                IntakeBlock block = intake.newBlock();
                more = intake.fill(block);
                findings.addAll(block.findings());
                grouping.accept(block.records());
            }
            grouping.finish();
            System.out.println(
                    intake.tally().rows() + " rows read, " + intake.tally().records() + " records");
        }
    }

    private void draft(RecordRange records, Grouping.Stand stand) {
        journals.add(drafter.draft(records, null, findings::add));
    }

    private void check() {
        // This ledger does not say which customer or supplier a line is of.
        List<Check> checks = StandardChecks.of(books, Set.of(file));
        int clear = 0;
        for (Document journal : journals) {
            int before = findings.size();
            if (journal.isValid()) {
                checks.forEach(check -> check.check(journal, findings::add));
            }
            clear += findings.size() == before ? 1 : 0;
        }
        System.out.println(journals.size() + " journals, " + clear + " without a finding");
    }
}
