package io.mivrel.files;

import io.mivrel.delivery.Outlet;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.bytes.Digests;
import io.mivrel.files.forms.RowForms;
import io.mivrel.rows.RowSource;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.zip.CRC32C;

/** Files in memory, for programs that take what is delivered themselves, and for samples. */
public final class MemoryOutlet implements Outlet {
    private final Sheet sheet;
    private final RowForm form;
    private final FolderOutlet.Filler filler;
    private final List<Part> parts = new ArrayList<>();

    /** A part, whose bytes are whole when it is closed. */
    private static final class Part extends ByteArrayOutputStream {
        private final CountDownLatch closed = new CountDownLatch(1);

        @Override
        public void close() {
            closed.countDown();
        }
    }

    /** With what the files hold, and what fills in names. */
    public MemoryOutlet(Sheet sheet, FolderOutlet.Filler filler) {
        this.sheet = sheet;
        this.form = RowForms.of(sheet.format().kind());
        this.filler = filler;
    }

    /** The bytes of each part; only when they are published. */
    public List<byte[]> parts() {
        synchronized (parts) {
            return parts.stream().map(ByteArrayOutputStream::toByteArray).toList();
        }
    }

    @Override
    public RowWriter open(int number) throws IOException {
        Part part = new Part();
        synchronized (parts) {
            parts.add(part);
        }
        return form.writer(part, sheet);
    }

    @Override
    public String named(String text, int number) {
        return filler.fill(text, number);
    }

    @Override
    public RowSource readBack(int number) throws IOException {
        Part part = part(number);
        try {
            part.closed.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("the proof was given up");
        }
        return form.reader(new ByteArrayInputStream(part.toByteArray()), sheet);
    }

    private Part part(int number) {
        synchronized (parts) {
            return parts.get(number - 1);
        }
    }

    @Override
    public List<PreparedFile> prepare() throws IOException {
        List<PreparedFile> prepared = new ArrayList<>();
        for (int number = 1; number <= parts().size(); number++) {
            byte[] bytes = part(number).toByteArray();
            CRC32C checksum = new CRC32C();
            checksum.update(bytes);
            prepared.add(new PreparedFile(
                    "", filler.fill(sheet.format().name(), number), bytes.length, Digests.crc32c(checksum.getValue())));
        }
        return prepared;
    }

    @Override
    public List<PreparedFile> publish() throws IOException {
        return prepare();
    }

    @Override
    public void release() {
        // There is nothing else.
    }

    @Override
    public void discard() {
        synchronized (parts) {
            parts.forEach(Part::close);
            parts.clear();
        }
    }

    /** The rows of a part as cells, those that are no data among them. */
    public List<List<String>> rows(int number) throws IOException {
        List<List<String>> all = new ArrayList<>();
        try (RowSource rows = readBack(number)) {
            for (var row = rows.next(); row != null; row = rows.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < row.size(); i++) {
                    cells.add(row.text(i));
                }
                all.add(cells);
            }
        }
        return all;
    }

    /** The first lines of a part as they stand in the file; of a workbook its rows, with bars between the cells. */
    public List<String> lines(int number, int most) throws IOException {
        if (sheet.format().kind().equals(RowForms.WORKBOOK)) {
            return rows(number).stream()
                    .limit(most)
                    .map(row -> String.join(" | ", row))
                    .toList();
        }
        String text = new String(
                part(number).toByteArray(), Charset.forName(sheet.format().encoding()));
        return text.replace("\uFEFF", "").lines().limit(most).toList();
    }
}
