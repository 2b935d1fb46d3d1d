package io.mivrel.checking;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.Sources;
import io.mivrel.checking.Imbalance.Cause;
import io.mivrel.checking.Imbalance.Kind;
import io.mivrel.drafting.DocumentTree;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Line;
import io.mivrel.model.RecordBlock;
import java.util.List;
import org.testng.annotations.Test;

/** An unbalanced journal is diagnosed the way bookkeepers do it. */
public class ImbalanceTest {
    private static List<Line> lines(long... amounts) {
        RecordBlock lines = new RecordBlock(JournalLines.TABLE, Sources.file("ledger.csv"), amounts.length);
        for (int i = 0; i < amounts.length; i++) {
            lines.begin(i + 2);
            lines.put(JournalLines.ACCOUNT, "5010");
            lines.put(JournalLines.AMOUNT, amounts[i]);
            lines.end(true);
        }
        return DocumentTree.of(JournalLines.KIND, lines.range(0, amounts.length), finding -> {})
                .children();
    }

    private static List<Cause> explain(long... amounts) {
        long difference = 0;
        for (long amount : amounts) {
            difference += amount;
        }
        return Imbalance.explain(lines(amounts), difference);
    }

    @Test
    public void aDifferenceThatNineDividesIsSwappedDigits() {
        // 763.40 was written as 736.40.
        assertThat(explain(736_40, 15_268, -91_608)).first().isEqualTo(new Cause(Kind.SWAPPED_DIGITS, 0, 763_40));
        assertThat(explain(10_05, -50_01)).contains(new Cause(Kind.SWAPPED_DIGITS, 0, 50_01));
    }

    @Test
    public void twiceALineIsTheWrongSide() {
        assertThat(explain(500_00, 100_00, -400_00)).first().isEqualTo(new Cause(Kind.WRONG_SIDE, 1, -100_00));
    }

    @Test
    public void onceALineIsALineTooMany() {
        assertThat(explain(300_00, 120_00, 120_00, -420_00)).first().isEqualTo(new Cause(Kind.DOUBLED, 1, 0));
    }

    @Test
    public void theSameOnTheOtherSideIsALineLeftOut() {
        assertThat(explain(300_00, -120_00)).extracting(Cause::kind).doesNotContain(Kind.DOUBLED);
        assertThat(explain(300_00, 50_00, -400_00, 50_00, 50_00, -100_00))
                .extracting(Cause::kind)
                .contains(Kind.OMITTED);
    }

    @Test
    public void oneMinorUnitIsARounding() {
        assertThat(explain(33_33, 33_33, 33_33, -100_00)).first().isEqualTo(new Cause(Kind.ROUNDING, -1, 0));
    }

    @Test
    public void tenTimesIsASlippedPoint() {
        assertThat(explain(1_250_00, -125_00)).first().isEqualTo(new Cause(Kind.SLIPPED_POINT, 0, 125_00));
    }

    @Test
    public void whatNothingExplainsIsSaidPlainly() {
        List<Line> lines = lines(100_00, -41_37);
        assertThat(Imbalance.explain(lines, 58_63)).isEmpty();
        assertThat(Imbalance.words(List.of(), lines, 58_63, Sources.GBP))
                .contains("58.63 is missing on the credit side");
    }
}
