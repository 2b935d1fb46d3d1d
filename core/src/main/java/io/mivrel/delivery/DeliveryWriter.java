package io.mivrel.delivery;

import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;

/**
 * Writes the clear documents of one delivery into its sheets and proves what was written. Documents are written on one
 * thread; {@link #proofs} run beside it on others.
 */
public final class DeliveryWriter {
    private final Delivery delivery;
    private final List<SheetWriter> sheets = new ArrayList<>();
    private long documents;

    /**
     * Nothing is opened before the first document.
     *
     * @param currency the currency of all amounts that name none of their own
     * @param outlets where each sheet goes
     */
    public DeliveryWriter(Delivery delivery, Currency currency, Function<Sheet, Outlet> outlets) {
        this.delivery = delivery;
        for (Sheet sheet : delivery.sheets()) {
            sheets.add(new SheetWriter(delivery, sheet, currency, outlets.apply(sheet)));
        }
    }

    /** The document in the form that a delivery takes: itself, or the journal that it amounts to. */
    static Document delivered(Delivery delivery, Document document) {
        return delivery.takes() == document.kind() ? document : Objects.requireNonNull(document.journal());
    }

    /** Writes one clear document. */
    public void write(Document document) throws IOException {
        Document delivered = delivered(delivery, document);
        for (SheetWriter sheet : sheets) {
            sheet.write(delivered);
        }
        documents++;
    }

    /** Writes clear documents of a block, from one up to another. */
    public void write(DocumentBlock block, int from, int to) throws IOException {
        boolean inColumns =
                sheets.size() == 1 && SheetWriter.takesRecords(delivery.sheets().get(0), delivery.takes(), block);
        for (int i = from; i < to; i++) {
            if (inColumns) {
                sheets.get(0).write(block, i);
                documents++;
            } else {
                write(block.get(i));
            }
        }
    }

    /** Ends writing. With no clear document no file comes to be. */
    public void finish() throws IOException {
        for (SheetWriter sheet : sheets) {
            sheet.finish();
        }
    }

    /** What reads back one sheet each and compares it with what was meant; each is to run beside the writing. */
    public List<Proof> proofs() {
        return sheets.stream().<Proof>map(sheet -> sheet::prove).toList();
    }

    /** Throws {@link DeliveryMismatchException} when what was read back is not what was meant. */
    @FunctionalInterface
    public interface Proof {
        void prove() throws IOException;
    }

    /** Makes all parts of all sheets safe on disk and chooses their names; only when they are proved. */
    public void prepare() throws IOException {
        for (SheetWriter sheet : sheets) {
            sheet.prepare();
        }
    }

    /** Gives all parts their names; only after {@link #prepare}. */
    public void publish() throws IOException {
        for (SheetWriter sheet : sheets) {
            sheet.publish();
        }
    }

    /** What is delivered, sheet by sheet; after {@link #prepare}. */
    public List<DeliveredFile> delivered() {
        return sheets.stream().map(sheet -> sheet.delivered(documents)).toList();
    }

    /** Removes the hidden names of what is published. */
    public void release() {
        sheets.forEach(SheetWriter::release);
    }

    /** Removes what was not published. */
    public void discard() {
        sheets.forEach(SheetWriter::discard);
    }
}
