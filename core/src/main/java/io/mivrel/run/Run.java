package io.mivrel.run;

import java.io.IOException;

/** Executes a plan: read, code, draft, check, deliver, prove. */
public final class Run {
    // Each pass that starts over knows more than the one before; both kinds of knowledge can come once each, and a
    // file that changes while it is read could bring more.
    private static final int MOST_PASSES = 5;

    private Run() {}

    /**
     * Executes a plan and answers its report; on a failure before all is prepared nothing is left behind. Throws {@link
     * IllegalArgumentException} when the plan has {@linkplain RunPlan#gaps gaps}, {@link IOException} when a file fails,
     * {@link io.mivrel.delivery.DeliveryMismatchException} when a written file does not read back, and {@link
     * ArithmeticException} when sums grow beyond what can be calculated exactly.
     */
    public static RunReport execute(RunPlan plan, Progress progress) throws IOException {
        if (!plan.gaps().isEmpty()) {
            throw new IllegalArgumentException(String.join("; ", plan.gaps()));
        }
        Pass pass = Pass.first(plan, progress);
        boolean prepared = false;
        try {
            pass.read();
            for (int passes = 1; pass.mustStartOver(); passes++) {
                if (passes == MOST_PASSES) {
                    throw new IOException("a file kept changing while it was read");
                }
                pass.discard();
                pass.startOver();
                pass = pass.next();
                pass.read();
            }
            RunReport report = pass.prepare();
            if (!report.checkedOnly()) {
                plan.publication().prepared(report);
                // From here on the next run finishes what this one may not.
                prepared = true;
                pass.publish();
                plan.publication().published(report);
                pass.release();
            }
            return report;
        } finally {
            if (prepared) {
                pass.end();
            } else {
                pass.discard();
            }
        }
    }
}
