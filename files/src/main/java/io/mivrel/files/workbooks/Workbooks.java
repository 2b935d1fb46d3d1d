package io.mivrel.files.workbooks;

import io.mivrel.files.bytes.OptionalLibrary;
import io.mivrel.model.Rule;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;

/** Opens one sheet of a workbook; which kind of workbook it is, its content says. */
public final class Workbooks {
    /** Most cells in a row, as the formats have it. */
    static final int MOST_CELLS = 16_384;

    private Workbooks() {}

    /**
     * The rows of one sheet.
     *
     * @param sheet its name, or its place as {@code #2}; empty for the first one
     */
    public static RowSource open(Path file, String sheet) throws IOException {
        return with(file, workbook -> workbook.rows(sheet));
    }

    /** The names of the sheets in their order. */
    public static List<String> sheets(Path file) throws IOException {
        return with(file, Workbook::sheets);
    }

    /** The sheets that a person sees, in their order. */
    public static List<String> shown(Path file) throws IOException {
        return with(file, workbook -> {
            Set<String> hidden = workbook.hidden();
            return workbook.sheets().stream()
                    .filter(name -> !hidden.contains(name))
                    .toList();
        });
    }

    private interface Use<T> {
        T of(Workbook workbook) throws IOException;
    }

    private static <T> T with(Path file, Use<T> use) throws IOException {
        try {
            return use.of(open(file));
        } catch (NoClassDefFoundError absent) {
            throw OptionalLibrary.absent(FileKind.WORKBOOK);
        }
    }

    private static Workbook open(Path file) throws IOException {
        byte[] head;
        try (InputStream in = Files.newInputStream(file)) {
            head = in.readNBytes(4);
        }
        if (head.length > 0 && head[0] != 'P') {
            return new XlsWorkbook(file);
        }
        Archive archive = Archive.check(file);
        if (archive.has("xl/workbook.xml")) {
            return new XlsxWorkbook(file);
        }
        if (archive.has("content.xml")) {
            return new OdsWorkbook(file);
        }
        throw new UnreadableFileException(
                Rule.FILE_KIND_DIFFERS, 0, "the file is an archive, but no workbook", "unpack it first");
    }

    /** The place of the wanted sheet among those that are there, from 0. */
    static int place(List<String> sheets, String wanted) throws UnreadableFileException {
        if (sheets.isEmpty()) {
            throw new UnreadableFileException(Rule.FILE_DAMAGED, 0, "the workbook has no sheet", "save it again");
        }
        if (wanted.isEmpty()) {
            return 0;
        }
        int place =
                wanted.matches("#[1-9][0-9]{0,4}") ? Integer.parseInt(wanted.substring(1)) - 1 : sheets.indexOf(wanted);
        if (place < 0 || place >= sheets.size()) {
            throw new UnreadableFileException(
                    Rule.SHEET_MISSING,
                    0,
                    "the workbook has no sheet '" + wanted + "'; it has " + String.join(", ", sheets),
                    "");
        }
        return place;
    }

    /** One kind of workbook. */
    interface Workbook {
        List<String> sheets() throws IOException;

        /** The sheets that a person does not see; none where the format is not asked. */
        default Set<String> hidden() throws IOException {
            return Set.of();
        }

        RowSource rows(String sheet) throws IOException;
    }
}
