package io.mivrel.ledger;

import io.mivrel.delivery.PreparedFile;
import java.util.List;

/**
 * A run that ended between choosing the names of its files and noting that all of them have their names.
 *
 * @param id its number in the register
 * @param run its name
 * @param began when it began
 * @param files its files in the order in which they get their names
 * @param stagedEvidence the hidden evidence folder; {@code null} for none
 * @param evidence the name that the folder is to get; {@code null} for none
 */
public record UnfinishedRun(
        long id, String run, String began, List<PreparedFile> files, String stagedEvidence, String evidence) {
    public UnfinishedRun {
        files = List.copyOf(files);
    }
}
