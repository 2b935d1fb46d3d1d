package io.mivrel;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.FormCheck;
import io.mivrel.delivery.FormCheck.Difference;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.bytes.Readable;
import io.mivrel.files.forms.RowForms;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsFiles;
import io.mivrel.files.workbooks.Workbooks;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;

/**
 * A file, whoever wrote it, held against a delivery: every difference from the files that the delivery makes.
 *
 * @param delivery the name of the delivery
 * @param sheet its sheet that the file is held against; empty when it is the only one
 * @param currency the currency of amounts, which decides their decimals
 * @param rows rows of data
 * @param documents documents that they make; 0 where no column tells
 * @param differences the first of them, those of the file as a whole before those of its rows
 * @param all how many there are
 */
public record FileAgainstDelivery(
        String delivery,
        String sheet,
        Currency currency,
        long rows,
        long documents,
        List<Difference> differences,
        long all) {
    private static final int MOST = 200;
    private static final int HEAD = 1 << 16;

    public FileAgainstDelivery {
        differences = List.copyOf(differences);
    }

    /**
     * Holds a file against a delivery's settings. The decimals are those of the currency of the books that lie in the folder above
     * the delivery's, else two. A delivery of several sheets is tried sheet by sheet, and the likest one counts.
     */
    public static FileAgainstDelivery of(Path file, Path delivery) throws IOException, SettingsException {
        Readable.check(file);
        Delivery form = SettingsFiles.delivery(delivery);
        Currency currency = currency(delivery);
        FileAgainstDelivery best = null;
        for (Sheet sheet : form.sheets()) {
            FileAgainstDelivery one = of(file, form, sheet, currency);
            if (best == null || one.all() < best.all()) {
                best = one;
            }
        }
        if (best == null) {
            throw new IOException("the delivery has no sheet");
        }
        return best;
    }

    private static Currency currency(Path delivery) throws SettingsException {
        Path above = delivery.toAbsolutePath().getParent();
        Path books = above == null || above.getParent() == null
                ? Path.of("books")
                : above.getParent().resolve("books");
        return Files.exists(books.resolve("books.yaml"))
                ? BooksFolder.read(books).currency()
                : Currency.getInstance("GBP");
    }

    private static FileAgainstDelivery of(Path file, Delivery delivery, Sheet sheet, Currency currency)
            throws IOException {
        List<Difference> ofFile = new ArrayList<>();
        boolean workbook = sheet.format().kind().equals(RowForms.WORKBOOK);
        if (!workbook) {
            bytes(file, sheet.format(), ofFile);
        }
        FormCheck.Result found;
        try (RowSource rows = workbook
                ? Workbooks.open(file, sheet.format().tab())
                : RowForms.of(sheet.format().kind()).reader(Files.newInputStream(file), sheet)) {
            found = FormCheck.of(sheet, delivery.takes(), currency, rows, MOST);
        }
        ofFile.addAll(found.differences());
        return new FileAgainstDelivery(
                delivery.name(),
                sheet.name(),
                currency,
                found.rows(),
                found.documents(),
                ofFile,
                found.all() + ofFile.size() - found.differences().size());
    }

    // What cells do not show: the mark at the beginning, and the ends of lines.
    private static void bytes(Path file, DeliveryFormat form, List<Difference> found) throws IOException {
        String head;
        try (InputStream in = Files.newInputStream(file)) {
            head = new String(in.readNBytes(HEAD), Charset.forName(form.encoding()));
        }
        boolean mark = head.startsWith("\uFEFF");
        if (mark != form.byteOrderMark()) {
            found.add(new Difference(
                    0,
                    "byte-order mark",
                    "",
                    mark ? "there is one, and there is to be none" : "there is none at the beginning"));
        }
        boolean crlf = head.contains("\r\n");
        if (head.contains("\n") && crlf != form.lineEnd().equals("\r\n")) {
            found.add(new Difference(0, "line ends", crlf ? "CRLF" : "LF", "are to be " + (crlf ? "LF" : "CRLF")));
        }
    }
}
