package io.mivrel.delivery;

import io.mivrel.model.Kind;
import io.mivrel.money.Totals;
import java.util.List;

/**
 * What was written of one sheet of a delivery.
 *
 * @param delivery the name of the delivery
 * @param sheet the name of the sheet; empty when it is the only one
 * @param takes the kind of documents
 * @param files its parts, in order; empty when no document was clear
 * @param documents documents written
 * @param rows rows without titles
 * @param totals control totals read back from the files; nil for a sheet that carries no amounts
 */
public record DeliveredFile(
        String delivery, String sheet, Kind takes, List<PreparedFile> files, long documents, long rows, Totals totals) {
    public DeliveredFile {
        files = List.copyOf(files);
    }
}
