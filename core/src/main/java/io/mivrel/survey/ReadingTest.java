package io.mivrel.survey;

import io.mivrel.intake.Intake;
import io.mivrel.intake.IntakeBlock;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.Layout;
import io.mivrel.intake.StatementSpan;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.Shape;
import io.mivrel.shape.TitledRows;
import io.mivrel.survey.Survey.Proof;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Reads a file with a proposed layout and tries what arithmetic says of it: whether the running balance explains every
 * step, in either order and with either sign, and whether the groups of a ledger sum to nil.
 */
final class ReadingTest {
    /** So many steps at least must hold, and so many in twenty, before a balance proves anything. */
    private static final int LEAST_STEPS = 3;

    private static final int MOST_SCATTERED = 100_000;

    private final Kind kind;
    private final Currency currency;
    private long unsound;
    private long records;
    private long oneSide;
    private long bothSides;
    /** Steps that hold: oldest first as written and reversed, newest first as written and reversed. */
    private final long[] holds = new long[4];

    private long steps;
    /** What moved since the last balance, without and with its own row; and whether all of it is known. */
    private long after;

    private long from;
    private boolean afterKnown = true;
    private boolean fromKnown = true;
    private long previousBalance = SourceRecord.ABSENT;
    private final List<Long> brokenRows = new ArrayList<>();
    private long groups;
    private long groupsNil;
    private long groupSum;
    private boolean groupSound;
    private @Nullable String group;
    private @Nullable Map<String, Long> scattered = new HashMap<>();
    private final List<Finding> ofFile = new ArrayList<>();
    private @Nullable IntakeTally tally;

    private ReadingTest(Kind kind, Currency currency) {
        this.kind = kind;
        this.currency = currency;
    }

    static ReadingTest of(Layout layout, SourceFile file, RowSource rows, Progress progress) throws IOException {
        ReadingTest test = new ReadingTest(layout.gives(), file.currency());
        RowSource shaped = rows;
        for (Shape shape : layout.shapes()) {
            // The file's own columns and, of sections, those that their headings add; print files are shaped as they
            // are opened.
            shaped = shape instanceof CarryDown && layout.format().kind() != FileKind.FIXED_WIDTH
                    ? ((CarryDown) shape).over(new TitledRows(shaped, layout.format()))
                    : shaped;
        }
        Intake intake = new Intake(layout, file, shaped);
        boolean more = true;
        while (more) {
            IntakeBlock block = intake.newBlock();
            more = intake.fill(block);
            test.take(block.records());
            block.findings().stream().filter(f -> f.origin().row() == 0).forEach(test.ofFile::add);
            progress.at("surveyed", intake.tally().rows());
        }
        test.endGroup();
        test.gather();
        test.tally = intake.tally();
        return test;
    }

    private void take(RecordBlock block) {
        for (int i = 0; i < block.size(); i++) {
            records++;
            bothSides(block, i);
            // A balance that does not follow makes a record unsound too, and is judged here.
            if (kind.balance() != null) {
                step(block.row(i), block.number(kind.amount(), i), block.number(kind.balance(), i));
            } else {
                unsound += block.isValid(i) ? 0 : 1;
                if (kind.isJournal()) {
                    line(block, i);
                }
            }
        }
    }

    // A row with an amount on both of two sides that exclude each other says that they do not.
    private void bothSides(RecordBlock block, int i) {
        Field plus = kind.plusSide();
        Field minus = kind.minusSide();
        if (plus == null || minus == null) {
            return;
        }
        boolean hasPlus = block.number(plus, i) != SourceRecord.ABSENT && block.number(plus, i) != 0;
        boolean hasMinus = block.number(minus, i) != SourceRecord.ABSENT && block.number(minus, i) != 0;
        oneSide += hasPlus != hasMinus ? 1 : 0;
        bothSides += hasPlus && hasMinus ? 1 : 0;
    }

    private void step(long row, long amount, long balance) {
        unsound += amount == SourceRecord.ABSENT ? 1 : 0;
        boolean known = amount != SourceRecord.ABSENT;
        after += known ? amount : 0;
        afterKnown &= known;
        if (balance != SourceRecord.ABSENT) {
            if (previousBalance != SourceRecord.ABSENT && afterKnown && fromKnown) {
                judge(row, balance - previousBalance);
            }
            previousBalance = balance;
            after = 0;
            from = 0;
            afterKnown = true;
            fromKnown = true;
        }
        from += known ? amount : 0;
        fromKnown &= known;
    }

    // Rows between two balances move the second, or the first when the latest row comes first.
    private void judge(long row, long moved) {
        steps++;
        boolean[] held = {moved == after, moved == -after, moved == -from, moved == from};
        for (int way = 0; way < held.length; way++) {
            holds[way] += held[way] ? 1 : 0;
        }
        if (!held[best()] && brokenRows.size() < 5) {
            brokenRows.add(row);
        }
    }

    private void line(RecordBlock block, int i) {
        String reference = block.text(Objects.requireNonNull(kind.key()), i);
        if (reference == null || !reference.equals(group)) {
            endGroup();
            group = reference;
            groupSum = 0;
            groupSound = true;
        }
        groupSound &= block.isValid(i);
        long amount = block.number(kind.amount(), i);
        groupSum += amount == SourceRecord.ABSENT ? 0 : amount;
        if (scattered != null && reference != null) {
            scatter(scattered, reference, amount, block.isValid(i));
        }
    }

    // Lines of a journal may stand anywhere, as in a list by account.
    private void scatter(Map<String, Long> sums, String reference, long amount, boolean sound) {
        if (sound) {
            sums.merge(reference, amount, (a, b) -> a == SourceRecord.ABSENT ? a : a + b);
        } else {
            sums.put(reference, SourceRecord.ABSENT);
        }
        if (sums.size() > MOST_SCATTERED) {
            scattered = null;
        }
    }

    private void gather() {
        long sound = scattered == null
                ? 0
                : scattered.values().stream()
                        .filter(s -> s != SourceRecord.ABSENT)
                        .count();
        long nil = scattered == null
                ? 0
                : scattered.values().stream().filter(s -> s == 0).count();
        if (nil * Math.max(1, groups) > groupsNil * Math.max(1, sound)) {
            groups = sound;
            groupsNil = nil;
        }
    }

    private void endGroup() {
        if (group != null && groupSound) {
            groups++;
            groupsNil += groupSum == 0 ? 1 : 0;
        }
        group = null;
    }

    // What the statements of a file state, and what contradicts them.
    private void statements(List<Proof> proofs) {
        if (steps == 0) {
            Objects.requireNonNull(tally)
                    .proof()
                    .ifPresent(proof -> proofs.add(new Proof(
                            proof.holds(),
                            "opening " + Money.show(proof.opening(), currency) + " + movement "
                                    + Money.show(proof.movement(), currency)
                                    + (proof.holds() ? " = closing " : " is not the closing ")
                                    + Money.show(proof.closing(), currency))));
        }
        for (Finding finding : ofFile) {
            if (finding.blocks() && finding.rule() != Rule.STATEMENT_CURRENCY && steps == 0) {
                proofs.add(new Proof(false, finding.reason()));
            }
        }
    }

    /** The statements of the file, in words: account, days and closing balance of each. */
    List<StatementSpan> spans() {
        return steps > 0 ? List.of() : Objects.requireNonNull(tally).spans();
    }

    private int best() {
        int best = 0;
        for (int way = 1; way < holds.length; way++) {
            best = holds[way] > holds[best] ? way : best;
        }
        return best;
    }

    /** True when one way explains nearly all steps of the balance and no other way does. */
    boolean provesSigns() {
        int best = best();
        if (steps < LEAST_STEPS || holds[best] * 20 < steps * 19) {
            return false;
        }
        for (int way = 0; way < holds.length; way++) {
            if (way != best && holds[way] * 20 >= steps * 19) {
                return false;
            }
        }
        return true;
    }

    boolean newestFirst() {
        return provesSigns() && best() >= 2;
    }

    boolean reversed() {
        return provesSigns() && best() % 2 == 1;
    }

    List<Proof> proofs() {
        List<Proof> proofs = new ArrayList<>();
        Field what = kind.amount();
        proofs.add(new Proof(
                unsound == 0,
                unsound == 0
                        ? String.format(Locale.ROOT, "every %s of %,d rows can be read", what.name(), records)
                        : String.format(Locale.ROOT, "%,d of %,d rows cannot be read whole", unsound, records)));
        if (steps > 0) {
            int best = best();
            String order = best >= 2 ? "newest first" : "oldest first";
            String signs = best % 2 == 1 ? ", signs reversed" : "";
            proofs.add(new Proof(
                    provesSigns(),
                    String.format(
                            Locale.ROOT,
                            "the running balance explains %,d of %,d steps, read %s%s%s",
                            holds[best],
                            steps,
                            order,
                            signs,
                            brokenRows.isEmpty() ? "" : "; it breaks at row " + brokenRows.get(0))));
        }
        if (oneSide + bothSides > 0) {
            String sides = Objects.requireNonNull(kind.plusSide()).name() + " and "
                    + Objects.requireNonNull(kind.minusSide()).name();
            proofs.add(new Proof(
                    bothSides == 0,
                    bothSides == 0
                            ? sides + " are never both filled"
                            : String.format(Locale.ROOT, "%s are both filled in %,d rows", sides, bothSides)));
        }
        statements(proofs);
        if (groups > 0) {
            proofs.add(new Proof(
                    groupsNil * 20 >= groups * 19,
                    String.format(Locale.ROOT, "%,d of %,d journals sum to nil", groupsNil, groups)));
        }
        return proofs;
    }
}
