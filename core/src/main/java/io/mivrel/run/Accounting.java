package io.mivrel.run;

import io.mivrel.intake.IntakeTally;
import io.mivrel.money.CurrencyTotals;

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
        long sorted = report.clear().rows() + report.held().rows() + report.rowsLeftOut();
        require(report.rowsRead() == sorted, "rows read and accounted for", report);
        CurrencyTotals documents = new CurrencyTotals(report.currency());
        documents.add(report.clear().recordTotals());
        documents.add(report.held().recordTotals());
        documents.add(report.before().recordTotals());
        documents.add(report.beyondPilot().recordTotals());
        documents.add(report.takenOnce().recordTotals());
        require(report.readTotals().agreesWith(documents), "amounts read and accounted for", report);
    }

    private static void require(boolean closes, String what, RunReport report) {
        if (!closes) {
            throw new IllegalStateException("the counts of the run '" + report.name() + "' do not close (" + what
                    + "); this is a fault of Mivrel, and nothing was delivered");
        }
    }
}
