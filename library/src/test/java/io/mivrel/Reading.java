package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.layout.DateWindow;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.RowSource;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.function.UnaryOperator;

/** The records that a file gives under the layout of a run sheet, with the findings and counts of reading it. */
record Reading(List<String> records, List<Finding> findings, IntakeTally tally) {

    /** Reads the first source of a run sheet; each record as the values of the wanted fields. */
    static Reading of(Workshop workshop, String kind, Field... wanted) throws Exception {
        return of(workshop, kind, DateWindow.ALL, rows -> rows, wanted);
    }

    /** The same of some dates, with what {@code as} makes of the file's rows. */
    static Reading of(Workshop workshop, String kind, DateWindow dates, UnaryOperator<RowSource> as, Field... wanted)
            throws Exception {
        RunSheet sheet = RunSheet.read(workshop.folder.resolve(kind + ".yaml"));
        RunSheet.Source source = sheet.sources().get(0);
        List<String> records = new ArrayList<>();
        List<Finding> findings = new ArrayList<>();
        try (RowSource rows = as.apply(
                SourceFiles.open(source.path(), source.shown(), source.layouts().get(0)))) {
            Account account = sheet.books().account(source.layouts().get(0).account());
            String foreign = account == null ? null : account.currency();
            Currency currency = foreign == null ? sheet.books().currency() : Currency.getInstance(foreign);
            SourceFile file = new SourceFile(
                    source.shown(), "", 1, source.layouts().get(0).account(), currency);
            Intake intake = new Intake(source.layouts().get(0), file, rows)
                    .against(account)
                    .dates(dates);
            boolean more = true;
            while (more) {
                IntakeBlock batch = intake.newBlock();
                more = intake.fill(batch);
                batch.findings().stream()
                        .filter(finding -> finding.rule() != Rule.ROWS_NOT_PROVED)
                        .forEach(findings::add);
                for (int i = 0; i < batch.records().size(); i++) {
                    records.add(text(batch.records().get(i), wanted));
                }
            }
            return new Reading(records, findings, intake.tally());
        }
    }

    private static String text(SourceRecord record, Field... wanted) {
        StringBuilder text = new StringBuilder();
        for (Field field : wanted) {
            String value = !record.has(field)
                    ? ""
                    : field.type() == FieldType.AMOUNT
                            ? Long.toString(record.number(field))
                            : field.type() == FieldType.DATE
                                    ? record.date(field).toString()
                                    : field.type() == FieldType.DECIMAL
                                            ? record.decimal(field).toPlainString()
                                            : record.text(field);
            text.append(text.isEmpty() ? "" : " | ").append(value);
        }
        return text.toString();
    }

    List<String> rules() {
        return findings.stream().map(f -> f.rule().id()).toList();
    }
}
