package io.mivrel.delivery;

import io.mivrel.model.Totals;
import java.util.List;

/**
 * What one delivery wrote.
 *
 * @param delivery its name
 * @param takes the kind of documents
 * @param files the files' names, in the order of their parts
 * @param digests the files' digests, each with the name of its kind, in the same order
 * @param documents documents written
 * @param rows rows without titles
 * @param totals control totals read back from the files
 */
public record DeliveredFile(
        String delivery,
        Takes takes,
        List<String> files,
        List<String> digests,
        long documents,
        long rows,
        Totals totals) {}
