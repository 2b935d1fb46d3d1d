package io.mivrel.run;

import io.mivrel.corrections.Correction;
import io.mivrel.delivery.DeliveredFile;
import io.mivrel.intake.IntakeTally;
import io.mivrel.model.Kind;
import io.mivrel.model.Rule;
import io.mivrel.money.CurrencyTotals;
import io.mivrel.rows.LeftOut;
import java.util.Currency;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * What a run did. Its counts close: rows read = rows clear + held + left out, and the totals as read = clear + held +
 * delivered before + beyond the pilot + in another file too; a run whose counts did not close would have failed.
 *
 * @param name the run's name
 * @param company the company of the books
 * @param currency main currency of the amounts: that of the first file
 * @param kind the kind of documents
 * @param checkedOnly true when nothing was to be delivered
 * @param files the counts of each file, in order
 * @param clear documents without a blocker; delivered, unless only checked
 * @param held documents with a blocker
 * @param before documents that an earlier run delivered
 * @param beyondPilot clear documents that the pilot left for later
 * @param takenOnce bank lines that stand in an earlier file of the same account too
 * @param deliveries what was written
 * @param findings everything noticed
 * @param corrections what people made of held rows, as far as it was used
 * @param heldRows the held rows of each file that has any
 * @param documents what became of the first documents, as many as the plan wants
 */
public record RunReport(
        String name,
        String company,
        Currency currency,
        Kind kind,
        boolean checkedOnly,
        List<IntakeTally> files,
        DocumentCount clear,
        DocumentCount held,
        DocumentCount before,
        DocumentCount beyondPilot,
        DocumentCount takenOnce,
        List<DeliveredFile> deliveries,
        FindingLog findings,
        List<Correction> corrections,
        Map<String, HeldRows> heldRows,
        List<SortedDocument> documents) {

    /** All rows of all files. */
    public long rowsRead() {
        return files.stream().mapToLong(IntakeTally::rows).sum();
    }

    /** Rows left out, by cause, over all files. */
    public Map<LeftOut, Long> leftOut() {
        Map<LeftOut, Long> all = new EnumMap<>(LeftOut.class);
        for (IntakeTally file : files) {
            file.leftOut().forEach((cause, count) -> all.merge(cause, count, Long::sum));
        }
        if (before.rows() > 0) {
            all.put(LeftOut.DELIVERED_BEFORE, before.rows());
        }
        if (takenOnce.rows() > 0) {
            all.put(LeftOut.TAKEN_ONCE, takenOnce.rows());
        }
        if (beyondPilot.rows() > 0) {
            all.put(LeftOut.BEYOND_PILOT, beyondPilot.rows());
        }
        return all;
    }

    public long rowsLeftOut() {
        return leftOut().values().stream().mapToLong(Long::longValue).sum();
    }

    /** Sums as they were read, before any other stage; of each currency apart. */
    public CurrencyTotals readTotals() {
        CurrencyTotals all = new CurrencyTotals(currency);
        files.forEach(f -> all.add(f.totals()));
        return all;
    }

    /** True when a document or a file is held. */
    public boolean hasHeld() {
        return held.rows() > 0 || files.stream().anyMatch(IntakeTally::failed);
    }

    /** True when rows were read and nothing came of them, though none was delivered before. */
    public boolean isEmpty() {
        return findings.counts().containsKey(Rule.NOTHING_CLEAR);
    }
}
