package io.mivrel.run;

import io.mivrel.intake.IntakeTally;
import io.mivrel.model.Totals;

/**
 * Asserts that no row and no amount is unaccounted for. The counters compared here are kept by different stages; if
 * they disagree, Mivrel itself is wrong, and nothing may be delivered.
 */
final class Accounting {
    private Accounting() {}

    static void assertCloses(RunReport report) {
        for (IntakeTally file : report.files()) {
            long leftOut =
                    file.leftOut().values().stream().mapToLong(Long::longValue).sum();
            require(file.rows() == file.records() + leftOut + file.unreadable(), "rows of a file", report);
        }
        long fates = report.clear().rows() + report.held().rows() + report.rowsLeftOut();
        require(report.rowsRead() == fates, "rows read and accounted for", report);
        Totals documents = new Totals();
        documents.add(report.clear().totals());
        documents.add(report.held().totals());
        documents.add(report.before().totals());
        documents.add(report.beyondPilot().totals());
        documents.add(report.takenOnce().totals());
        require(report.readTotals().agreesWith(documents), "amounts read and accounted for", report);
    }

    private static void require(boolean closes, String what, RunReport report) {
        if (!closes) {
            throw new IllegalStateException("the counts of the run '" + report.name() + "' do not close (" + what
                    + "); this is a fault of Mivrel, and nothing was delivered");
        }
    }
}
