package io.mivrel;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.intake.IntakeTally;
import io.mivrel.run.Progress;
import io.mivrel.run.Run;
import io.mivrel.run.RunPlan;
import java.io.IOException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.List;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Which month the files of a run are of. */
final class MonthOfFiles {
    private MonthOfFiles() {}

    /** The month of all rows that could be read; throws when they are of several, or of none. */
    static YearMonth of(Mivrel run, Path runSheet) throws SettingsException {
        String why = "no row of the files has a date that could be read";
        List<YearMonth> months = List.of();
        try {
            months = all(run);
        } catch (IOException unreadable) {
            why = String.valueOf(unreadable.getMessage());
        }
        if (months.size() == 1) {
            return months.get(0);
        }
        String message = "'dates: month' is the month of the files, but "
                + (months.isEmpty() ? why : "they have rows from " + months.get(0) + " to " + last(months));
        String example = months.isEmpty() ? "2027-03" : last(months).toString();
        throw new SettingsException(
                List.of(new SettingsProblem(runSheet.toString(), 0, 0, message, "say which month: --for " + example)));
    }

    private static YearMonth last(List<YearMonth> months) {
        return months.get(months.size() - 1);
    }

    /** The months from the first day of any row to the last; empty when no row has a date. */
    static List<YearMonth> all(Mivrel run) throws IOException {
        TreeSet<LocalDate> ends = new TreeSet<>();
        RunPlan plan = run.plan(run.inputs()).checkOnly().build();
        for (IntakeTally file : Run.execute(plan, Progress.NONE).files()) {
            file.firstDate().ifPresent(ends::add);
            file.lastDate().ifPresent(ends::add);
        }
        return ends.isEmpty()
                ? List.of()
                : Stream.iterate(
                                YearMonth.from(ends.first()),
                                month -> !month.isAfter(YearMonth.from(ends.last())),
                                month -> month.plusMonths(1))
                        .toList();
    }
}
