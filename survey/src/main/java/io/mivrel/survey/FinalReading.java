package io.mivrel.survey;

import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.intake.Unproved;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.survey.Survey.Proof;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;

/** Reads a whole file with the layout that is proposed, as a run would, and tells what that reading proves. */
final class FinalReading {
    private static final int MOST_JOURNALS = 200_000;
    private static final int ROWS_NAMED = 3;

    private final Kind kind;
    private final Currency currency;
    private long records;
    private long oneSide;
    private final Map<Rule, List<Finding>> found = new LinkedHashMap<>();
    private final Map<Rule, Long> counts = new LinkedHashMap<>();
    /** What the lines of each journal come to, the first so many; absent where one could not be read. */
    private final Map<String, Long> journals = new HashMap<>();

    private final IntakeTally tally;

    private FinalReading(Kind kind, Currency currency, Intake intake, Progress progress) throws IOException {
        this.kind = kind;
        this.currency = currency;
        this.tally = intake.tally();
        boolean more = true;
        while (more) {
            IntakeBlock block = intake.newBlock();
            more = intake.fill(block);
            take(block.records());
            for (Finding finding : block.findings()) {
                if (finding.rule() instanceof Rule rule) {
                    counts.merge(rule, 1L, Long::sum);
                    List<Finding> kept = found.computeIfAbsent(rule, r -> new ArrayList<>());
                    if (kept.size() < ROWS_NAMED) {
                        kept.add(finding);
                    }
                }
            }
            progress.at("surveyed", tally.rows());
        }
    }

    /** {@code rows} are those that the layout makes of the file, its shapes laid over them. */
    static FinalReading of(Layout layout, SourceFile file, RowSource rows, Progress progress) throws IOException {
        return new FinalReading(layout.gives(), file.currency(), new Intake(layout, file, rows), progress);
    }

    private void take(RecordBlock block) {
        for (int i = 0; i < block.size(); i++) {
            records++;
            if (kind.plusSide() != null && kind.minusSide() != null) {
                oneSide += isFilled(block.number(kind.plusSide(), i)) || isFilled(block.number(kind.minusSide(), i))
                        ? 1
                        : 0;
            }
            if (kind.isJournal()) {
                line(block, i);
            }
        }
    }

    private static boolean isFilled(long amount) {
        return amount != SourceRecord.ABSENT && amount != 0;
    }

    // Lines of a journal may stand anywhere, as in a list by account.
    private void line(RecordBlock block, int i) {
        String reference = block.text(Objects.requireNonNull(kind.key()), i);
        if (reference != null && (journals.size() < MOST_JOURNALS || journals.containsKey(reference))) {
            long amount = block.number(kind.amount(), i);
            long counted = amount == SourceRecord.ABSENT ? 0 : amount;
            journals.merge(
                    reference,
                    block.isValid(i) ? counted : SourceRecord.ABSENT,
                    (a, c) -> a == SourceRecord.ABSENT || c == SourceRecord.ABSENT ? SourceRecord.ABSENT : a + c);
        }
    }

    /** The statements of the file, in words: account, days and closing balance of each. */
    List<StatementSpan> spans() {
        return tally.spans();
    }

    /** True when every row is read and lies under a proof. */
    boolean provesAll() {
        return blocked() == 0
                && !tally.failed()
                && tally.firstCulprit() == 0
                && tally.unproved().rows() == 0;
    }

    /** True when rows with dates were left out behind the data. */
    boolean cutsRowsOff() {
        return counts.containsKey(Rule.ROWS_BELOW_DATA);
    }

    /** What it proves, and what contradicts it. */
    List<Proof> proofs() {
        List<Proof> proofs = new ArrayList<>();
        long unread = blocked();
        proofs.add(new Proof(
                unread == 0,
                unread == 0
                        ? String.format(
                                Locale.ROOT,
                                "every %s of %,d rows can be read",
                                kind.amount().name(),
                                records)
                        : String.format(Locale.ROOT, "%,d of %,d rows would be held: %s", unread, records, reasons())));
        tally.proof()
                .ifPresent(proof -> proofs.add(new Proof(
                        proof.holds(),
                        (proof.steps() == 0
                                        ? ""
                                        : String.format(
                                                Locale.ROOT,
                                                "the balances prove %,d of %,d steps%s; ",
                                                proof.steps() - proof.broken(),
                                                proof.steps(),
                                                brokenRow()))
                                + "opening " + Money.show(proof.opening(), currency) + " + movement "
                                + Money.show(proof.movement(), currency)
                                + (proof.holds() ? " = closing " : " is not the closing ")
                                + Money.show(proof.closing(), currency)
                                + uncovered())));
        ofFile().forEach(proofs::add);
        if (!tally.agreed().isEmpty()) {
            String labels = "'" + String.join("', '", tally.agreed()) + "'";
            proofs.add(new Proof(true, "figures beside the rows that agree with them: " + labels));
        }
        if (kind.isOfAccount() && records > 0 && tally.unproved().rows() == records && !tally.failed()) {
            proofs.add(new Proof(false, "nothing in the file proves its amounts"));
        }
        long both = counts.getOrDefault(Rule.AMOUNT_ON_BOTH_SIDES, 0L);
        if (oneSide > 0 && both == 0) {
            proofs.add(new Proof(
                    true,
                    Objects.requireNonNull(kind.plusSide()).name() + " and "
                            + Objects.requireNonNull(kind.minusSide()).name() + " are never both filled"));
        }
        long sound =
                journals.values().stream().filter(s -> s != SourceRecord.ABSENT).count();
        if (sound > 0) {
            long nil = journals.values().stream().filter(s -> s == 0).count();
            proofs.add(new Proof(
                    nil * 20 >= sound * 19, String.format(Locale.ROOT, "%,d of %,d journals sum to nil", nil, sound)));
        }
        return proofs;
    }

    // Rows with a blocker of their own; a broken balance is told with the balances.
    private long blocked() {
        return found.entrySet().stream()
                .filter(e -> e.getValue().get(0).blocks())
                .filter(e -> e.getValue().get(0).origin().row() > 0 && !isOfFigures(e.getKey()))
                .mapToLong(e -> counts.getOrDefault(e.getKey(), 0L))
                .sum();
    }

    private static boolean isOfFigures(Rule rule) {
        return rule == Rule.BALANCE_CLOSING
                || rule == Rule.CONTROL_TOTAL_DIFFERS
                || rule == Rule.TOTAL_WITHIN_DIFFERS
                || rule == Rule.BALANCE_CARRIED
                || rule == Rule.STATED_MISSING;
    }

    private String reasons() {
        List<String> reasons = new ArrayList<>();
        found.forEach((rule, findings) -> {
            Finding first = findings.get(0);
            if (first.blocks() && first.origin().row() > 0 && !isOfFigures(rule) && reasons.size() < ROWS_NAMED) {
                reasons.add("row " + first.origin().row() + ", "
                        + (first.value().isEmpty() ? "" : "'" + Finding.clip(first.value()) + "' ") + first.reason());
            }
        });
        return String.join("; ", reasons);
    }

    private String uncovered() {
        Unproved left = tally.unproved();
        return left.rows() == 0
                ? ""
                : left.rows() == 1
                        ? "; nothing proves row " + left.firstRow()
                        : String.format(
                                Locale.ROOT, "; nothing proves %,d rows, row %d first", left.rows(), left.firstRow());
    }

    private String brokenRow() {
        return tally.firstCulprit() == 0 ? "" : "; they break at row " + tally.firstCulprit();
    }

    private List<Proof> ofFile() {
        List<Proof> proofs = new ArrayList<>();
        found.forEach((rule, findings) -> {
            Finding first = findings.get(0);
            if (first.blocks() && (first.origin().row() == 0 || isOfFigures(rule)) && rule != Rule.STATEMENT_CURRENCY) {
                String where =
                        first.origin().row() == 0 ? "" : "row " + first.origin().row() + " ";
                proofs.add(new Proof(
                        false, where + (first.value().isEmpty() ? "" : "'" + first.value() + "': ") + first.reason()));
            }
        });
        return proofs;
    }
}
