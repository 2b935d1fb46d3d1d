package io.mivrel.survey.files;

import io.mivrel.files.ContentSniffer;
import io.mivrel.files.ContentSniffer.Content;
import io.mivrel.files.SourceFiles;
import io.mivrel.files.bytes.Readable;
import io.mivrel.files.bytes.TextLines;
import io.mivrel.files.lines.FixedRows;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.layout.Layout;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.shape.Shape;
import io.mivrel.survey.Answers;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.SurveySource;
import io.mivrel.survey.prints.PrintSniffer;
import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A file on disk, of any kind, as a survey sees it. For one thread. */
public final class SurveyFile implements SurveySource {
    private static final int HEAD = 1 << 18;
    private static final int FEW_ROWS = 400;
    /** A sheet with no more rows of three cells than this holds no data. */
    private static final int FEW_OF_DATA = 2;

    private static final String SEPARATORS = ",;\t|";

    private final Path file;
    private final String sheet;
    private final @Nullable String encoding;
    private ByteCensus census = new ByteCensus();

    /** {@code answers} may say the sheet of a workbook, by name or place, and the encoding of a text. */
    public SurveyFile(Path file, Answers answers) {
        String said = answers.of("sheet");
        this.file = file;
        this.sheet = said == null ? "" : said;
        this.encoding = answers.of("encoding");
    }

    public Path file() {
        return file;
    }

    @Override
    public FileProfile facts() throws IOException {
        Content content = ContentSniffer.look(file);
        if (content.kind() == null) {
            throw new IOException(file + ": is " + content.words());
        }
        if (content.kind() == FileKind.WORKBOOK) {
            return workbook();
        }
        byte[] head;
        try (InputStream in = Files.newInputStream(file)) {
            head = in.readNBytes(HEAD);
        }
        ByteCensus beginning = new ByteCensus();
        beginning.add(head, 0, head.length);
        FileProfile text = said(beginning.facts(head.length < HEAD));
        if (content.kind().isStatement()) {
            // These say nothing of their encoding themselves.
            boolean silent = content.kind() == FileKind.QIF || content.kind() == FileKind.MT940;
            boolean other = silent && !text.encoding().startsWith("UTF-");
            FileProfile statement = other
                    ? FileProfile.text(
                            content.kind(), content.words(), text.encoding(), text.encodingWhy(), text.encodingSure())
                    : FileProfile.text(content.kind(), content.words(), "auto", "", true);
            Currency stated = statedCurrency(statement);
            return stated == null ? statement : statement.in(stated);
        }
        return divided(head, text);
    }

    // Where a person has said the encoding, nothing else is weighed.
    private FileProfile said(FileProfile text) {
        return encoding == null || !Charset.isSupported(encoding)
                ? text
                : FileProfile.text(
                                text.kind(),
                                text.words(),
                                Charset.forName(encoding).name(),
                                "as was answered",
                                true)
                        .divided(text.separator(), text.lineEnds());
    }

    // What the first statement of a file says of its currency; its amounts have the decimals of that.
    private @Nullable Currency statedCurrency(FileProfile statement) throws IOException {
        try (RowSource rows = open(statement)) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                if (row.ended() != null && row.ended().currency() != null) {
                    return Currency.getInstance(row.ended().currency());
                }
            }
        } catch (UnreadableFileException | IllegalArgumentException saidByTheSurvey) {
            // A damaged file or an unknown currency is told when the file is read.
        }
        return null;
    }

    private static FileProfile divided(byte[] head, FileProfile text) throws IOException {
        Separation separation = separation(head, text.encoding());
        FileProfile.Print print =
                PrintSniffer.look(head, text.encoding(), separation.separator, separation.percent, head.length == HEAD);
        if (print != null) {
            return text.printed(print);
        }
        return separation.separator == 0 ? text : text.divided(separation.separator, text.lineEnds());
    }

    /** A separator, and of how many rows in a hundred it makes the same number of cells. */
    private record Separation(char separator, long percent) {}

    private FileProfile workbook() throws IOException {
        Map<String, Integer> sizes = new HashMap<>();
        List<String> filled = new ArrayList<>();
        for (String name : Workbooks.shown(file)) {
            int rows = 0;
            try (RowSource source = Workbooks.open(file, name)) {
                for (Row row = source.next(); row != null && rows < FEW_ROWS; row = source.next()) {
                    rows += filled(row) > 2 ? 1 : 0;
                }
            }
            sizes.put(name, rows);
            if (rows > FEW_OF_DATA) {
                filled.add(name);
            }
        }
        String longest = sizes.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("");
        String chosen = sheet.isEmpty() ? filled.contains(longest) ? longest : "" : sheet;
        return new FileProfile(
                FileKind.WORKBOOK,
                "a workbook",
                "",
                "",
                true,
                ',',
                "",
                chosen,
                sheet.isEmpty() ? filled : List.of(chosen),
                FileProfile.ASSUMED,
                false,
                null);
    }

    // Labels and sums of a summary take two cells; movements take more.
    private static int filled(Row row) {
        int filled = 0;
        for (int i = 0; i < row.size(); i++) {
            filled += row.trimmed(i).isEmpty() ? 0 : 1;
        }
        return filled;
    }

    // The separator that gives the most rows the same number of cells, at least two; 0 when hardly any row is divided.
    private static Separation separation(byte[] head, String encoding) throws IOException {
        Separation best = new Separation((char) 0, 0);
        long bestScore = 0;
        for (char separator : SEPARATORS.toCharArray()) {
            Map<Integer, Integer> sizes = new HashMap<>();
            int rows = 0;
            try (SeparatedRows source = new SeparatedRows(new ByteArrayInputStream(head), separator, encoding)) {
                for (Row row = source.next(); row != null; row = source.next()) {
                    if (!row.isBlank() && row.fault() == null) {
                        rows++;
                        sizes.merge(row.size(), 1, Integer::sum);
                    }
                }
            }
            for (Map.Entry<Integer, Integer> size : sizes.entrySet()) {
                // What divides further is likelier to be meant, up to some cells: a comma may be in every amount.
                long score = size.getValue() * 1000L / rows * Math.min(size.getKey() - 1, 4) + size.getKey();
                if (size.getKey() >= 2 && score > bestScore && size.getValue() * 5L >= rows) {
                    bestScore = score;
                    best = new Separation(separator, size.getValue() * 100L / rows);
                }
            }
        }
        return best;
    }

    @Override
    public RowSource open(FileProfile facts) throws IOException {
        census = new ByteCensus();
        if (facts.kind() == FileKind.SEPARATED) {
            return new SeparatedRows(
                    counted(),
                    facts.separator(),
                    Charset.forName(facts.encoding()).name());
        }
        FileProfile.Print print = facts.print();
        if (print != null) {
            RowSource rows = new FixedRows(TextLines.of(counted(), facts.encoding()), print.slices());
            for (Shape shape : print.shapes()) {
                rows = shape.over(rows, (name, form) -> {
                    throw new IllegalStateException("print files have no others beside them");
                });
            }
            return rows;
        }
        FileFormat form = facts.kind() == FileKind.WORKBOOK
                ? FileFormat.workbook(facts.part(), 1)
                : FileFormat.statement(facts.kind()).encodedIn(facts.encoding());
        return SourceFiles.open(file, file.toString(), form);
    }

    @Override
    public RowSource open(Layout layout) throws IOException {
        return SourceFiles.open(file, file.toString(), layout);
    }

    private InputStream counted() throws IOException {
        ByteCensus counting = census;
        return new FilterInputStream(Files.newInputStream(Readable.check(file))) {
            @Override
            public int read(byte[] block, int from, int length) throws IOException {
                int read = super.read(block, from, length);
                if (read > 0) {
                    counting.add(block, from, read);
                }
                return read;
            }
        };
    }

    @Override
    public FileProfile confirmed(FileProfile assumed) {
        if (assumed.lineEnds().isEmpty()) {
            return assumed;
        }
        FileProfile counted = said(census.facts(true));
        FileProfile whole = counted.divided(assumed.separator(), counted.lineEnds());
        whole = assumed.currencyStated() ? whole.in(assumed.currency()) : whole;
        return assumed.print() == null ? whole : whole.printed(assumed.print());
    }
}
