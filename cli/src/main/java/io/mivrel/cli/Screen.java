package io.mivrel.cli;

import io.mivrel.posting.LedgerException;
import io.mivrel.report.SummaryText;
import io.mivrel.run.Progress;
import java.io.Console;
import java.io.PrintWriter;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What the terminal can take: colour and progress only where a person looks on. */
final class Screen {
    private static final long PAUSE_NANOS = 200_000_000L;
    private static final Duration TOLD_PAUSE = Duration.ofSeconds(1);

    private static final int USUAL_WIDTH = 100;

    private Screen() {}

    static boolean isTerminal() {
        Console console = System.console();
        if (console == null) {
            return false;
        }
        try {
            // From JDK 22 on there is a console without a terminal too, and this tells them apart.
            return (boolean) Console.class.getMethod("isTerminal").invoke(console);
        } catch (ReflectiveOperationException before22) {
            return true;
        }
    }

    static SummaryText.Style style() {
        String noColour = System.getenv("NO_COLOR");
        boolean wanted = noColour == null || noColour.isEmpty();
        return wanted && isTerminal() ? SummaryText.Style.COLOUR : SummaryText.Style.PLAIN;
    }

    /** A line divided between words at the width of the terminal, what follows indented; one line where nobody looks on. */
    static List<String> wrapped(String line, String indent) {
        return isTerminal() ? wrapped(line, indent, width()) : List.of(line);
    }

    static List<String> wrapped(String line, String indent, int width) {
        List<String> lines = new ArrayList<>();
        String rest = line;
        while (rest.length() > width) {
            int cut = rest.lastIndexOf(' ', width);
            if (cut <= rest.length() - rest.stripLeading().length()) {
                break;
            }
            lines.add(rest.substring(0, cut));
            rest = indent + rest.substring(cut + 1);
        }
        lines.add(rest);
        return lines;
    }

    private static int width() {
        String columns = System.getenv("COLUMNS");
        return columns != null && columns.matches("[1-9][0-9]{1,3}")
                ? Math.max(40, Integer.parseInt(columns))
                : USUAL_WIDTH;
    }

    /** A line on standard error that counts rows on long work, and vanishes when it ends. */
    static final class Counter implements Progress, AutoCloseable {
        private final PrintWriter err;
        private final boolean shown = isTerminal();
        private long next = System.nanoTime() + 2 * PAUSE_NANOS;
        private int width;
        private long posting;

        Counter(PrintWriter err) {
            this.err = err;
        }

        @Override
        public void at(String stage, long rows) {
            long now = System.nanoTime();
            if (shown && now > next) {
                next = now + PAUSE_NANOS;
                show(String.format(Locale.ROOT, "  %,d rows %s", rows, stage));
            }
        }

        /** Counts documents that were posted, with the rate and what is left of the time. */
        void posted(long sent, long all) {
            long now = System.nanoTime();
            if (posting == 0) {
                posting = now;
            }
            if (shown && now > next) {
                next = now + PAUSE_NANOS;
                long seconds = Math.max(1, (now - posting) / 1_000_000_000L);
                long rate = Math.max(1, sent / seconds);
                show(String.format(
                        Locale.ROOT,
                        "  %,d of %,d documents posted, %,d a second, %,d s left",
                        sent,
                        all,
                        rate,
                        (all - sent) / rate));
            }
        }

        /** Says that the ledger keeps one waiting. */
        void waits(LedgerException failed, Duration pause) {
            if (shown && pause.compareTo(TOLD_PAUSE) >= 0) {
                show(String.format(
                        Locale.ROOT,
                        "  %s; asked again in %,d s",
                        failed.getMessage(),
                        Math.max(1, pause.toSeconds())));
            }
        }

        private void show(String text) {
            err.print("\r" + text + " ".repeat(Math.max(0, width - text.length())));
            err.flush();
            width = text.length();
        }

        @Override
        public void close() {
            if (width > 0) {
                err.print("\r" + " ".repeat(width) + "\r");
                err.flush();
                width = 0;
            }
        }
    }
}
