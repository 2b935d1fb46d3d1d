package io.mivrel.files;

import io.mivrel.files.ContentSniffer.Content;
import io.mivrel.files.bytes.LineIndex;
import io.mivrel.files.bytes.OptionalLibrary;
import io.mivrel.files.bytes.Readable;
import io.mivrel.files.bytes.TextLines;
import io.mivrel.files.lines.FixedRows;
import io.mivrel.files.lines.HandedBack;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.files.statements.CamtRows;
import io.mivrel.files.statements.Mt940Rows;
import io.mivrel.files.statements.OfxRows;
import io.mivrel.files.statements.QifRows;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.intake.Input;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.RowsOver;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.shape.Link;
import io.mivrel.shape.Shape;
import io.mivrel.shape.TitledRows;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Opens a source file as its layout says, once its content has been found to be of that kind. What the content
 * contradicts becomes a finding when the first row is asked for.
 */
public final class SourceFiles {
    /** Endings of file names that belong to one kind only. */
    private static final Map<String, FileKind> ENDINGS = Map.of(
            "xlsx", FileKind.WORKBOOK,
            "xls", FileKind.WORKBOOK,
            "ods", FileKind.WORKBOOK,
            "ofx", FileKind.OFX,
            "qif", FileKind.QIF,
            "csv", FileKind.SEPARATED,
            "tsv", FileKind.SEPARATED);

    private SourceFiles() {}

    /** Opens a file, as {@link #open} does, again and again; from the second time on it finds rows faster. */
    public static Opener opener(Path file, String shown, Layout layout) {
        return new Opener(file, shown, layout, new LineIndex());
    }

    /** Opens one file again and again, and knows what was read of it. */
    public static final class Opener implements Input.Opener {
        private final Path file;
        private final String shown;
        private final Layout layout;
        private final LineIndex index;

        private Opener(Path file, String shown, Layout layout, LineIndex index) {
            this.file = file;
            this.shown = shown;
            this.layout = layout;
            this.index = index;
        }

        @Override
        public RowSource open() throws IOException {
            return SourceFiles.open(file, shown, layout, index);
        }

        /** The same file under another layout and name; what is read of it counts for this one too. */
        public Opener of(Layout other, String name) {
            return new Opener(file, name, other, index);
        }

        /** False when a reading of the whole file gave other bytes than those with this CRC-32C checksum. */
        public boolean readBytesOf(long checksum) {
            return index.readings().agreeWith(checksum);
        }
    }

    /** Opens a file; {@code shown} names it in findings. Throws {@link IOException} when it is not there at all. */
    public static RowSource open(Path file, String shown, Layout layout) throws IOException {
        return open(file, shown, layout, new LineIndex());
    }

    private static RowSource open(Path file, String shown, Layout layout, LineIndex index) throws IOException {
        FileFormat form = layout.format();
        boolean flat = form.kind() == FileKind.SEPARATED && layout.shapes().isEmpty();
        String handedBack = ContentSniffer.look(file).handedBack();
        if (!flat && handedBack.lines().findFirst().orElse("").contains(HandedBack.MARK)) {
            return new HandedBack(file, handedBack);
        }
        RowSource rows = open(file, shown, flat ? HandedBack.asSaved(file, handedBack, form) : form, index);
        if (layout.shapes().isEmpty()) {
            return rows;
        }
        rows = new TitledRows(rows, form);
        try {
            for (Shape shape : layout.shapes()) {
                rows = shape.over(rows, (name, other) -> sibling(file, name, other));
            }
            return rows;
        } catch (IOException e) {
            rows.close();
            throw e;
        }
    }

    // A linked file stands beside its own; no path leads elsewhere.
    private static RowSource sibling(Path file, String name, FileFormat form) throws IOException {
        Path other = name.equals(Link.SAME) ? file : file.resolveSibling(name);
        if (other.getNameCount() == 0
                || !other.getFileName().toString().equals(name) && !name.equals(Link.SAME)
                || !Files.isRegularFile(other)) {
            throw new UnreadableFileException(
                    Rule.LINKED_FILE_MISSING, 0, "there is no file '" + name + "' beside it", "");
        }
        return open(other, name, form);
    }

    /** Opens a file whose rows are flat. */
    public static RowSource open(Path file, String shown, FileFormat form) throws IOException {
        return open(file, shown, form, new LineIndex());
    }

    private static RowSource open(Path file, String shown, FileFormat form, LineIndex index) throws IOException {
        Content content = ContentSniffer.look(file);
        FileKind wanted = form.kind();
        boolean isText = wanted == FileKind.SEPARATED || wanted == FileKind.FIXED_WIDTH;
        if (Files.size(file) == 0) {
            return new NoRows();
        }
        FileKind found = content.kind();
        if (found == null || !(isText ? found == FileKind.SEPARATED : wanted.takes(found))) {
            return new Refused(new UnreadableFileException(
                    Rule.FILE_KIND_DIFFERS,
                    0,
                    "the layout says 'kind: " + wanted.word() + "', but the file is " + content.words(),
                    found == null ? "" : "'kind: " + found.word() + "'?"));
        }
        try {
            RowSource rows = open(file, form, found, content, index);
            Finding remark = ending(file, shown, isText ? wanted : found, content);
            return remark == null ? rows : new RemarkedRows(rows, remark);
        } catch (UnreadableFileException e) {
            return new Refused(e);
        }
    }

    private static RowSource open(Path file, FileFormat form, FileKind found, Content content, LineIndex index)
            throws IOException {
        FileKind kind = form.kind() == FileKind.STATEMENT ? found : form.kind();
        String encoding = form.encoding().equals(FileFormat.AUTO) ? content.encoding() : form.encoding();
        try {
            return open(file, form, kind, encoding, index);
        } catch (NoClassDefFoundError absent) {
            throw OptionalLibrary.absent(kind);
        }
    }

    private static RowSource open(Path file, FileFormat form, FileKind kind, String encoding, LineIndex index)
            throws IOException {
        return switch (kind) {
            case SEPARATED -> SeparatedRows.open(file, form.separator(), form.encoding(), index);
            case FIXED_WIDTH -> new FixedRows(text(file, form.encoding(), index), form.slices());
            case WORKBOOK -> Workbooks.open(file, form.part());
            case OFX -> new OfxRows(text(file, encoding, index), form.part());
            case CAMT_053 ->
                new CamtRows(
                        new BufferedInputStream(index.readings().watch(Files.newInputStream(file)), 1 << 16),
                        form.part());
            case MT940 -> new Mt940Rows(text(file, encoding, index), form.part());
            case QIF -> new QifRows(text(file, encoding, index), form.part());
            case STATEMENT -> throw new IllegalStateException("decided by content before");
        };
    }

    private static TextLines text(Path file, String encoding, LineIndex index) throws IOException {
        return TextLines.of(index.readings().watch(Files.newInputStream(Readable.check(file))), encoding);
    }

    private static @Nullable Finding ending(Path file, String shown, FileKind kind, Content content) {
        String name = file.getFileName().toString();
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        FileKind usual = ENDINGS.get(ending);
        return usual == null || usual == kind || (usual == FileKind.SEPARATED && kind == FileKind.FIXED_WIDTH)
                ? null
                : new Finding(
                        Rule.FILE_ENDING_DIFFERS,
                        Origin.of(shown, 0),
                        "",
                        "." + ending,
                        "the file is named so, but it is " + content.words() + "; it was read as that",
                        "");
    }

    /** A file that cannot be read as its layout says. */
    private record Refused(UnreadableFileException why) implements RowSource {
        @Override
        public Row next() throws IOException {
            throw why;
        }

        @Override
        public void close() {
            // Nothing is open.
        }
    }

    private record NoRows() implements RowSource {
        @Override
        public @Nullable Row next() {
            return null;
        }

        @Override
        public void close() {
            // Nothing is open.
        }
    }

    /** Rows with what was noticed about the file. */
    private static final class RemarkedRows extends RowsOver {
        private final Finding remark;

        RemarkedRows(RowSource rows, Finding remark) {
            super(rows);
            this.remark = remark;
        }

        @Override
        public @Nullable Row next() throws IOException {
            return inner.next();
        }

        @Override
        public void skipTo(long physicalRow) throws IOException {
            inner.skipTo(physicalRow);
        }

        @Override
        public List<Finding> remarks() {
            List<Finding> all = new ArrayList<>(inner.remarks());
            all.add(remark);
            return all;
        }
    }
}
