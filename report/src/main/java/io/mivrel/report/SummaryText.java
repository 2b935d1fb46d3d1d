package io.mivrel.report;

import io.mivrel.corrections.Correction;
import io.mivrel.delivery.DeliveredFile;
import io.mivrel.intake.BalanceProof;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.intake.Unproved;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.KindWords;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.money.Totals;
import io.mivrel.run.DocumentCount;
import io.mivrel.run.RunReport;
import io.mivrel.text.Printable;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** A run told to a bookkeeper: the figures first, then the problems worst first, then where the files are. */
public final class SummaryText {
    private static final int SHOWN_BLOCKERS = 12;
    private static final int SHOWN_OTHERS = 4;
    private static final int ROWS_NAMED = 5;
    private static final int VALUES_SHOWN = 12;

    private final RunReport report;
    private final KindWords words;
    private final Style style;
    private final StringBuilder out = new StringBuilder();
    /** True when what a ledger refused is told of too, which {@code report} does not count as held. */
    private boolean posting;

    /** How emphasis is shown; plain for files and pipes. */
    public enum Style {
        PLAIN,
        /** ANSI escape sequences, for a terminal. */
        COLOUR
    }

    private SummaryText(RunReport report, Style style) {
        this.report = report;
        this.words = report.kind().words();
        this.style = style;
    }

    /** The whole text, ending with a line end. {@code places} are lines that say where the evidence lies. */
    public static String of(RunReport report, List<String> places, Style style) {
        SummaryText text = new SummaryText(report, style);
        text.figures();
        text.problems(Severity.BLOCKER, SHOWN_BLOCKERS);
        text.problems(Severity.CAUTION, SHOWN_OTHERS);
        text.problems(Severity.NOTE, SHOWN_OTHERS);
        text.ending(places);
        return text.out.toString();
    }

    /** The figures, and how many blockers there are of each rule. */
    public static String brief(RunReport report, Style style) {
        SummaryText text = new SummaryText(report, style);
        text.figures();
        String rules = report.findings().counts().entrySet().stream()
                .filter(one -> one.getKey().severity() == Severity.BLOCKER)
                .map(one -> String.format(
                        Locale.ROOT, "%,d %s", one.getValue(), one.getKey().id()))
                .collect(Collectors.joining(", "));
        if (!rules.isEmpty()) {
            text.line("held for", rules);
        }
        return text.out.toString();
    }

    /** Only the problems, worst first, of a run whose documents go on to a ledger. */
    static String problems(RunReport report, Style style) {
        SummaryText text = new SummaryText(report, style);
        text.posting = true;
        text.problems(Severity.BLOCKER, SHOWN_BLOCKERS);
        text.problems(Severity.CAUTION, SHOWN_OTHERS);
        text.problems(Severity.NOTE, SHOWN_OTHERS);
        return text.out.toString();
    }

    private void figures() {
        out.append('\n').append(strong(report.company() + ", " + report.name()));
        out.append(report.checkedOnly() ? "   (checked only, nothing delivered)\n\n" : "\n\n");
        String dates = Words.dates(report.files());
        String files = Words.count(report.files().size(), "file");
        line("read", rowCount(report.rowsRead()) + " in " + files + (dates.isEmpty() ? "" : ", " + dates) + fanned());
        if (report.rowsLeftOut() > 0) {
            line("left out", rowCount(report.rowsLeftOut()) + "   " + Words.causes(report.leftOut()));
        }
        decided();
        count("clear", report.clear());
        count("held", report.held());
        line(
                "accounted",
                String.format(
                        Locale.ROOT,
                        "%s = %,d clear + %,d held + %,d left out",
                        rows(report.rowsRead()),
                        report.clear().rows(),
                        report.held().rows(),
                        report.rowsLeftOut()));
        values();
        for (IntakeTally file : report.files()) {
            notProved(file);
            file.proof().ifPresentOrElse(proof -> line("proof", proof(file, proof)), () -> closingOnly(file));
        }
        withoutTotal();
        for (DeliveredFile delivered : report.deliveries()) {
            delivered(delivered);
        }
    }

    // What people made of rows that were held before.
    private void decided() {
        if (report.corrections().isEmpty()) {
            return;
        }
        Map<String, Long> done = report.corrections().stream()
                .collect(Collectors.groupingBy(
                        c -> c.account() != null && c.cells() == null
                                ? "coded by hand"
                                : c.done().replaceFirst(",.*", ""),
                        TreeMap::new,
                        Collectors.counting()));
        line(
                "taken in",
                Words.count(report.corrections().size(), "correction") + "   "
                        + done.entrySet().stream()
                                .map(one -> one.getValue() + " " + one.getKey())
                                .collect(Collectors.joining(", ")));
        for (Correction one : report.corrections()) {
            if (one.decision() != null) {
                line("", one.file() + (one.row() == 0 ? "" : " row " + one.row()) + " " + one.words());
            }
        }
    }

    private String fanned() {
        long again = report.files().stream().mapToLong(IntakeTally::again).sum();
        return again == 0 ? "" : "; fanned out of " + rows(report.rowsRead() - again);
    }

    private void count(String name, DocumentCount count) {
        if (count.rows() == 0 && !name.equals("clear")) {
            return;
        }
        // Figures of clear and held stand under one another.
        Totals totals = count.totals();
        Totals clear = report.clear().totals();
        Totals held = report.held().totals();
        String amounts = words.plus() + " " + under(money(totals.debit()), money(clear.debit()), money(held.debit()))
                + "   " + words.minus() + " "
                + under(money(totals.credit()), money(clear.credit()), money(held.credit()));
        String documents = under(
                documents(count.documents()),
                documents(report.clear().documents()),
                documents(report.held().documents()));
        boolean several = report.readTotals().all().size() > 1;
        String main = several ? report.currency() + " " : "";
        line(name, rowCount(count.rows()) + "   " + documents + "   " + main + amounts);
        for (Totals other : count.allTotals().all()) {
            if (!other.currency().equals(report.currency())) {
                line(
                        "",
                        " ".repeat(rowCount(0).length() + documents.length() + 6) + other.currency() + " "
                                + words.plus() + " " + money(other.debit()) + "   " + words.minus() + " "
                                + money(other.credit()));
            }
        }
    }

    private String documents(long count) {
        return String.format(Locale.ROOT, "%,d %s", count, words.documents(count));
    }

    private String rowCount(long count) {
        return under(rows(count), rows(report.rowsRead()), "");
    }

    // A figure, moved to the right as far as the longer of two others goes.
    private static String under(String text, String one, String other) {
        return " ".repeat(Math.max(0, Math.max(one.length(), other.length()) - text.length())) + text;
    }

    // No list says which departments there are, so that people see for themselves what stands in the files.
    private void values() {
        Map<String, Map<String, Long>> all = new TreeMap<>();
        for (IntakeTally file : report.files()) {
            file.values()
                    .forEach((field, counts) -> counts.forEach((value, count) ->
                            all.computeIfAbsent(field, f -> new TreeMap<>()).merge(value, count, Long::sum)));
        }
        all.forEach((field, counts) -> {
            List<String> words = counts.entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .map(one -> String.format(Locale.ROOT, "%s %,d", Printable.of(one.getKey()), one.getValue()))
                    .toList();
            int more = Math.max(0, words.size() - VALUES_SHOWN);
            line(
                    field,
                    String.join(", ", words.subList(0, words.size() - more))
                            + (more == 0 ? "" : " and " + more + " more, each oftener"));
        });
    }

    // Where a whole file states none, its own line says so.
    private void withoutTotal() {
        long lacking = report.clear().withoutTotal();
        boolean stated = report.files().stream().noneMatch(IntakeTally::isWithoutTotals);
        if (lacking > 0 && stated) {
            line(
                    "no proof",
                    String.format(
                            Locale.ROOT,
                            "%,d of %,d clear %s state%s no total, so nothing proves %s figures; compare them with the papers",
                            lacking,
                            report.clear().documents(),
                            words.documents(report.clear().documents()),
                            lacking == 1 ? "s" : "",
                            lacking == 1 ? "its" : "their"));
        }
    }

    // Some formats state a closing balance and no opening one.
    private void closingOnly(IntakeTally file) {
        if (file.isWithoutTotals()) {
            line(
                    "no proof",
                    (report.files().size() > 1 ? file.file() + ": " : "")
                            + "nothing in the file proves these amounts; compare the sums with their source");
        }
        for (StatementSpan span : file.spans()) {
            if (span.closing() != SourceRecord.ABSENT && span.opening() == SourceRecord.ABSENT) {
                line(
                        "no proof",
                        (report.files().size() > 1 ? file.file() + ": " : "") + "it states closing "
                                + money(span.closing()) + " but no opening; compare "
                                + money(span.closing() - span.movement()) + " with the statement before");
            }
        }
    }

    private void notProved(IntakeTally file) {
        Unproved left = file.unproved();
        if (left.rows() > 0 && !file.failed()) {
            line(
                    "not proved",
                    (report.files().size() > 1 ? file.file() + ": " : "") + left.rows() + " of "
                            + rows(file.records()) + "   " + words.plus() + " " + money(left.in()) + "   "
                            + words.minus() + " " + money(left.out()));
        }
    }

    private String proof(IntakeTally file, BalanceProof proof) {
        String sum = "opening " + money(proof.opening()) + " + movement " + money(proof.movement()) + " = "
                + money(proof.opening() + proof.movement());
        String where = report.files().size() > 1 ? file.file() + ": " : "";
        String steps = Words.count(proof.steps(), "step");
        if (proof.holds()) {
            return where + sum + " = closing" + (proof.stated() ? ", as the statement says" : "")
                    + (proof.steps() == 0 ? "" : "; the balance proves all " + steps);
        }
        String broken = proof.broken() == 0
                ? "see the findings"
                : String.format(Locale.ROOT, "%,d of %s of the balance broken", proof.broken(), steps);
        return where + alarm("does not hold") + ": " + sum + ", but closing is " + money(proof.closing()) + "; "
                + broken;
    }

    private void delivered(DeliveredFile delivered) {
        if (delivered.files().isEmpty()) {
            line("delivered", delivered.delivery() + ": nothing, no document was clear");
            return;
        }
        String first = Words.shown(Path.of(delivered.files().get(0).name()));
        String more = delivered.files().size() == 1
                ? ""
                : " and " + (delivered.files().size() - 1) + " more";
        line("delivered", first + more);
        String amounts = delivered.totals().count() == 0 ? "" : ", " + amounts(delivered);
        line("", rows(delivered.rows()) + amounts + "; read back: matches");
    }

    private String amounts(DeliveredFile delivered) {
        String plus = money(delivered.totals().debit());
        String minus = money(delivered.totals().credit());
        KindWords taken = delivered.takes().words();
        boolean both = taken.minusIsUsual() || delivered.totals().credit() != 0;
        String currency = delivered.totals().currency().equals(report.currency())
                ? ""
                : delivered.totals().currency() + " ";
        return currency + taken.deliveredPlus() + " " + plus
                + (both ? ", " + taken.deliveredMinus() + " " + minus : "");
    }

    private void problems(Severity severity, int most) {
        long count = report.findings().count(severity);
        if (count == 0) {
            return;
        }
        String heading = Words.count(count, severity.word());
        if (severity == Severity.BLOCKER && !posting) {
            heading += count == 1 ? " holds " : " hold ";
            heading += report.held().documents() == 0
                    ? "what could not be read"
                    : String.format(
                            Locale.ROOT,
                            "%,d %s",
                            report.held().documents(),
                            words.documents(report.held().documents()));
        }
        out.append('\n')
                .append("  ")
                .append(severity == Severity.BLOCKER ? alarm(heading) : strong(heading))
                .append('\n');
        for (Map.Entry<FindingRule, List<Finding>> rule : byRule(severity).entrySet()) {
            ofRule(rule.getKey(), rule.getValue(), most);
        }
    }

    private Map<FindingRule, List<Finding>> byRule(Severity severity) {
        Map<FindingRule, List<Finding>> byRule = new LinkedHashMap<>();
        for (Finding finding : report.findings().worstFirst()) {
            if (finding.severity() == severity) {
                byRule.computeIfAbsent(finding.rule(), r -> new ArrayList<>()).add(finding);
            }
        }
        return byRule;
    }

    private void ofRule(FindingRule rule, List<Finding> found, int most) {
        long more = report.findings().counts().getOrDefault(rule, 0L);
        for (List<Finding> alike : patterns(found, most)) {
            more -= alike.size();
            Finding finding = alike.get(0);
            out.append("    ").append(finding.origin());
            if (!finding.field().isEmpty() && !finding.field().equals(finding.value())) {
                out.append(", ").append(finding.field());
            }
            out.append(": ");
            if (!finding.value().isEmpty()) {
                out.append('"').append(finding.value()).append("\": ");
            }
            out.append(finding.reason())
                    .append(alike.size() == 1 ? "" : alike(alike))
                    .append("  ")
                    .append(faint("[" + rule.id() + "]"))
                    .append('\n');
            if (!finding.suggestion().isEmpty()) {
                out.append("      -> ").append(finding.suggestion()).append('\n');
            }
        }
        if (more > 0) {
            out.append("    ")
                    .append(String.format(Locale.ROOT, "and %,d more like this", more))
                    .append("  ")
                    .append(faint("[" + rule.id() + "]"))
                    .append('\n');
        }
    }

    // What is wrong in the same way row after row is said once. Notes of lines brought together say nothing new at all.
    private static List<List<Finding>> patterns(List<Finding> found, int most) {
        Map<Object, List<Finding>> patterns = new LinkedHashMap<>();
        for (Finding finding : found) {
            Object pattern = switch (finding.rule() instanceof Rule rule ? rule : Rule.ROW_NOT_TEXT) {
                case REFERENCE_RETURNS -> Rule.REFERENCE_RETURNS;
                case TEXT_BETWEEN_COLUMNS -> List.of(finding.origin().file(), finding.reason());
                case LINK_MISSING -> List.of(finding.origin().file(), finding.value(), finding.reason());
                default -> finding;
            };
            patterns.computeIfAbsent(pattern, p -> new ArrayList<>()).add(finding);
        }
        return patterns.values().stream().limit(most).toList();
    }

    private static String alike(List<Finding> alike) {
        String rows = alike.stream()
                .skip(1)
                .limit(ROWS_NAMED)
                .map(f -> Long.toString(f.origin().row()))
                .collect(Collectors.joining(", "));
        int rest = alike.size() - 1 - ROWS_NAMED;
        String named = alike.size() == 2 ? "row " + rows : "rows " + rows;
        return "; the same in " + named + (rest > 0 ? String.format(Locale.ROOT, " and %,d more", rest) : "");
    }

    private void ending(List<String> places) {
        if (!places.isEmpty()) {
            out.append('\n');
            places.forEach(place -> out.append("  ").append(place).append('\n'));
        }
    }

    private void line(String name, String text) {
        out.append("  ")
                .append(faint(String.format(Locale.ROOT, "%-10s", name)))
                .append("  ")
                .append(text)
                .append('\n');
    }

    private static String rows(long count) {
        return Words.count(count, "row");
    }

    private String money(long minor) {
        return Money.show(minor, report.currency());
    }

    private String strong(String text) {
        return style == Style.COLOUR ? "\u001b[1m" + text + "\u001b[0m" : text;
    }

    private String alarm(String text) {
        return style == Style.COLOUR ? "\u001b[1;33m" + text + "\u001b[0m" : text;
    }

    private String faint(String text) {
        return style == Style.COLOUR ? "\u001b[36m" + text + "\u001b[0m" : text;
    }
}
