package io.mivrel.report;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.corrections.Corrections;
import io.mivrel.corrections.Decision;
import io.mivrel.corrections.RowKey;
import io.mivrel.intake.Input;
import io.mivrel.layout.FieldSource;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.money.Money;
import io.mivrel.run.HeldRows;
import io.mivrel.run.RunReport;
import io.mivrel.run.UncodedGroups;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.jspecify.annotations.Nullable;

/**
 * The held rows of a run as a workbook for people: a sheet for each file with its own columns, the cells that are wrong in
 * colour and with a note, and columns for what a person decides; what is wrong with files as a whole; the totals; the lines
 * that nothing codes, in groups; and the accounts to choose from. Every cell is text, so that no program reads a date or an
 * amount into it.
 */
final class HeldWorkbook implements Closeable {
    private static final String WRONG = "FFD9B3";
    private static final String DECIDE = "E6F0E6";
    private static final String HEAD = "D9E1EA";
    private static final int MOST_WIDTH = 46;
    private static final int MOST_COMMENT = 400;
    private static final int LONGEST_NAME = 28;
    private static final String ACCOUNTS = "Accounts";

    private final OutputStream out;
    private final Workbook book;
    private final Books books;
    /** True when a person may choose an account for a row. */
    private final boolean chooses;

    private final Set<String> names = new HashSet<>();

    private HeldWorkbook(OutputStream out, Books books, boolean chooses) {
        this.out = out;
        this.book = new Workbook(out, "Mivrel", "1.0");
        this.books = books;
        this.chooses = chooses;
    }

    /** Begins the workbook, whose target must not exist; {@code null} when the library for workbooks is not there. */
    static @Nullable HeldWorkbook open(Path target, Books books, boolean chooses) throws IOException {
        OutputStream out = Files.newOutputStream(target, StandardOpenOption.CREATE_NEW);
        try {
            return new HeldWorkbook(out, books, chooses);
        } catch (NoClassDefFoundError absent) {
            out.close();
            Files.delete(target);
            return null;
        }
    }

    /** Begins the sheet of a file. */
    Rows file(Input input) {
        return new Rows(sheet(Path.of(input.name()).getFileName().toString()), input);
    }

    /** Writes the sheets behind those of the files. */
    void finish(RunReport report, List<UncodedGroups.Group> uncoded, String summary) {
        wholeFiles(report);
        totals(summary);
        if (!uncoded.isEmpty()) {
            uncoded(uncoded, report);
        }
        accounts();
    }

    @Override
    public void close() throws IOException {
        try (out) {
            book.close();
        }
    }

    private Worksheet sheet(String wanted) {
        String plain = wanted.replaceAll("[\\[\\]*?:/\\\\']", " ").strip();
        String name = plain.length() > LONGEST_NAME ? plain.substring(0, LONGEST_NAME) : plain;
        for (int n = 2; !names.add(name.toLowerCase(Locale.ROOT)); n++) {
            name = plain.substring(0, Math.min(plain.length(), LONGEST_NAME - 3)) + " " + n;
        }
        Worksheet sheet = book.newWorksheet(name);
        sheet.pageOrientation("landscape");
        sheet.fitToWidth((short) 1);
        sheet.fitToHeight((short) 0);
        return sheet;
    }

    // What holds a file as a whole has no row to stand beside.
    private void wholeFiles(RunReport report) {
        List<Finding> ofFiles = report.findings().worstFirst().stream()
                .filter(f -> f.blocks() && Corrections.mayOverride(f))
                .filter(f -> !isHeldRow(report, f))
                .toList();
        if (ofFiles.isEmpty()) {
            return;
        }
        Worksheet sheet = sheet("Whole files");
        List<String> titles = new ArrayList<>(List.of("Value"));
        titles.addAll(HeldFile.ADDED);
        titles(sheet, titles, 1);
        RowKey keys = new RowKey();
        int at = 1;
        for (Finding finding : ofFiles) {
            List<String> cells = List.of(
                    finding.value(),
                    "0",
                    HeldFile.problem(finding),
                    finding.suggestion(),
                    "",
                    "",
                    "",
                    keys.of(finding) + "/" + keys.of(List.of(finding.value())),
                    finding.origin().file());
            for (int c = 0; c < cells.size(); c++) {
                text(sheet, at, c, cells.get(c));
            }
            sheet.style(at, 0).fillColor(WRONG).set();
            at++;
        }
        decide(sheet, at, 1, titles.size());
        widths(sheet, new int[] {20, 6, MOST_WIDTH, MOST_WIDTH, 14, 12, 24, 12, 24});
        hideKeys(sheet, 1);
        choices(sheet, 4, at, false);
    }

    private static boolean isHeldRow(RunReport report, Finding finding) {
        HeldRows held = report.heldRows().get(finding.origin().file());
        long row = finding.origin().row();
        return held != null && row > 0 && held.rows().get((int) Math.min(row, Integer.MAX_VALUE));
    }

    private void totals(String summary) {
        Worksheet sheet = sheet("Totals");
        sheet.width(0, 140);
        int at = 0;
        for (String line : summary.lines().toList()) {
            text(sheet, at, 0, line);
            at++;
        }
        asText(sheet, at, 1);
        sheet.range(0, 0, Math.max(0, at - 1), 0)
                .style()
                .fontName("Courier New")
                .set();
    }

    private void uncoded(List<UncodedGroups.Group> groups, RunReport report) {
        Worksheet sheet = sheet(UncodedGroups.SHEET);
        List<String> titles =
                List.of("entry", "direction", "words", "from", "to", "account", "lines", "amount", "example");
        titles(sheet, titles, titles.size());
        int at = 1;
        for (UncodedGroups.Group group : groups) {
            List<String> cells = List.of(
                    "g" + at,
                    group.direction(),
                    group.words(),
                    "",
                    "",
                    "",
                    Long.toString(group.lines()),
                    Money.show(group.sum(), report.currency()),
                    group.example());
            for (int c = 0; c < cells.size(); c++) {
                text(sheet, at, c, cells.get(c));
            }
            at++;
        }
        asText(sheet, at, titles.size());
        sheet.range(1, 5, at - 1, 5).style().fillColor(DECIDE).set();
        text(
                sheet,
                at + 1,
                0,
                "Put the account into its column and save; then: mivrel coding, and the name of the run sheet.");
        widths(sheet, new int[] {8, 10, 34, 8, 8, 12, 8, 14, MOST_WIDTH});
    }

    private void accounts() {
        Worksheet sheet = sheet(ACCOUNTS);
        titles(sheet, List.of("decision", "meaning"), 2);
        int at = 1;
        for (Decision decision : Decision.values()) {
            text(sheet, at, 0, decision.word());
            text(
                    sheet,
                    at,
                    1,
                    decision == Decision.KEEP
                            ? "it is right as it stands; say who and why"
                            : "it is not a document; say who and why");
            at++;
        }
        for (Account account : chooses ? books.accounts() : List.<Account>of()) {
            if (account.status() == AccountStatus.OPEN) {
                text(sheet, at, 0, account.code());
                text(sheet, at, 1, account.name());
                at++;
            }
        }
        asText(sheet, at, 2);
        widths(sheet, new int[] {14, MOST_WIDTH});
    }

    private static void titles(Worksheet sheet, List<String> titles, int own) {
        for (int c = 0; c < titles.size(); c++) {
            text(sheet, 0, c, titles.get(c));
            sheet.style(0, c)
                    .bold()
                    .fillColor(c < own ? HEAD : "C9D9C9")
                    .format("@")
                    .set();
        }
        sheet.freezePane(0, 1);
    }

    private static void text(Worksheet sheet, int row, int column, String text) {
        if (!text.isEmpty()) {
            sheet.inlineString(row, column, text);
        }
    }

    // Ranges take one style each; cell by cell it takes longer than all the rest.
    private static void asText(Worksheet sheet, int rows, int columns) {
        if (rows > 0) {
            sheet.range(0, 0, rows - 1, columns - 1).style().format("@").set();
        }
    }

    // What is wrong is wrapped, and where something is to be decided is in colour.
    private static void decide(Worksheet sheet, int rows, int own, int columns) {
        asText(sheet, rows, columns);
        if (rows > 1) {
            sheet.range(1, own + 1, rows - 1, own + 2).style().wrapText(true).set();
            sheet.range(1, own + 3, rows - 1, own + 5).style().fillColor(DECIDE).set();
        }
    }

    private static void widths(Worksheet sheet, int[] widths) {
        for (int c = 0; c < widths.length; c++) {
            sheet.width(c, Math.max(4, Math.min(MOST_WIDTH, widths[c])));
        }
    }

    // What a row is known by moves with it, and is of no use to read.
    private static void hideKeys(Worksheet sheet, int own) {
        sheet.hideColumn(own + HeldFile.ADDED.size() - 2);
        sheet.hideColumn(own + HeldFile.ADDED.size() - 1);
        sheet.hideColumn(own + HeldFile.ADDED.size());
    }

    // The words and the accounts of the last sheet, offered in the column; others are told when they are taken in.
    private void choices(Worksheet sheet, int column, int rows, boolean accounts) {
        int last = 1
                + Decision.values().length
                + (accounts
                        ? (int) books.accounts().stream()
                                .filter(a -> a.status() == AccountStatus.OPEN)
                                .count()
                        : 0);
        sheet.range(1, column, Math.max(1, rows - 1), column)
                .validateWithListByFormula("'" + ACCOUNTS + "'!$A$2:$A$" + last)
                .allowBlank(true)
                .showErrorMessage(false);
    }

    /** The rows of one file. */
    final class Rows implements HeldFile.Sink {
        private final Worksheet sheet;
        private final Input input;
        private List<String> titles = List.of();
        private int[] widths = new int[0];
        private int columns;
        private int at = 1;
        private boolean more;

        Rows(Worksheet sheet, Input input) {
            this.sheet = sheet;
            this.input = input;
        }

        @Override
        public void above(List<String> cells) {
            // A sheet begins with its titles.
        }

        @Override
        public void titles(List<String> own) {
            titles = own;
            List<String> all = new ArrayList<>(own);
            all.addAll(HeldFile.added(own));
            widths = new int[all.size()];
            for (int c = 0; c < widths.length; c++) {
                widths[c] = all.get(c).length() + 2;
            }
            columns = Math.max(columns, all.size());
            HeldWorkbook.titles(sheet, all, own.size());
        }

        @Override
        public void row(HeldFile.HeldRow row) {
            if (titles.isEmpty()) {
                titles(numbers(row.own().size()));
            }
            if (at > HeldCopies.MOST_IN_WORKBOOK) {
                more = true;
                return;
            }
            List<String> cells = row.all();
            columns = Math.max(columns, cells.size());
            for (int c = 0; c < cells.size(); c++) {
                text(sheet, at, c, cells.get(c));
                if (c < widths.length) {
                    widths[c] = Math.max(widths[c], cells.get(c).length() + 2);
                }
            }
            row.reasons().forEach(finding -> colour(finding, row.own()));
            at++;
        }

        private static List<String> numbers(int count) {
            List<String> numbers = new ArrayList<>();
            for (int c = 1; c <= count; c++) {
                numbers.add(Integer.toString(c));
            }
            return numbers;
        }

        private void colour(Finding finding, List<String> cells) {
            for (Map.Entry<Field, FieldSource> field : input.layout().fields().entrySet()) {
                boolean named = field.getKey().name().equals(finding.field());
                List<Integer> places = new ArrayList<>();
                for (String column : field.getValue().columns()) {
                    int place =
                            column.startsWith("#") ? Integer.parseInt(column.substring(1)) - 1 : titles.indexOf(column);
                    if (place >= 0 && place < titles.size() && (named || column.equals(finding.field()))) {
                        places.add(place);
                    }
                }
                // Of several columns, those with something in them.
                boolean blank =
                        places.stream().allMatch(place -> cells.get(place).isBlank());
                places.stream()
                        .filter(place -> blank || !cells.get(place).isBlank())
                        .forEach(place -> mark(place, finding));
            }
        }

        private void mark(int place, Finding finding) {
            sheet.style(at, place).fillColor(WRONG).set();
            String note = finding.reason() + (finding.suggestion().isEmpty() ? "" : "\n-> " + finding.suggestion());
            sheet.comment(at, place, note.length() > MOST_COMMENT ? note.substring(0, MOST_COMMENT) + " ..." : note);
        }

        void end() {
            if (more) {
                text(sheet, at, 0, "and more rows: see the text copy in the evidence");
            }
            HeldWorkbook.widths(sheet, widths);
            if (titles.size() > 0) {
                decide(sheet, at, titles.size(), columns);
                hideKeys(sheet, titles.size());
                choices(sheet, titles.size() + 3, at, chooses);
            }
        }
    }
}
