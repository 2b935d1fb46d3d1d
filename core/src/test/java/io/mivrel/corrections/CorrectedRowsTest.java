package io.mivrel.corrections;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

/** Corrections are bound to the content of their rows, wherever these stand. */
public class CorrectedRowsTest {
    private static final List<String> ONE = List.of("1", "tin", "5.00");
    private static final List<String> TWO = List.of("2", "gas", "7.00");
    private static final RowKey KEYS = new RowKey();

    private static Correction correction(long row, List<String> original, List<String> cells) {
        return new Correction(
                "copy row " + row,
                "a.csv",
                row,
                KEYS.of(original),
                cells,
                Set.of(),
                null,
                null,
                "",
                "",
                "",
                List.of(),
                null);
    }

    private static Correction decision(long row, List<String> original, Decision decision) {
        return new Correction(
                "copy row " + row,
                "a.csv",
                row,
                KEYS.of(original),
                null,
                Set.of(),
                null,
                decision,
                "A. Reed",
                "2027-04-02",
                "seen",
                List.of(),
                null);
    }

    // The rows of the file begin at physical row 2.
    private static RowSource rows(List<List<String>> cells) {
        Iterator<List<String>> all = cells.iterator();
        return new RowSource() {
            private final Row row = new Row();
            private long number = 1;

            @Override
            public Row next() {
                if (!all.hasNext()) {
                    return null;
                }
                row.fill(++number, all.next());
                return row;
            }

            @Override
            public void close() {
                // Nothing is open.
            }
        };
    }

    private static List<String> read(Corrections corrections, List<List<String>> cells) throws IOException {
        Corrections.Opener opener = corrections.correct("a.csv", () -> rows(cells));
        List<String> read = new ArrayList<>();
        try (RowSource source = opener == null ? rows(cells) : opener.open()) {
            for (Row row = source.next(); row != null; row = source.next()) {
                read.add(
                        row.number() + ":" + (row.aside() == null ? String.join("|", RowKey.cells(row)) : row.aside()));
            }
        }
        return read;
    }

    private static Corrections corrections(Correction... all) {
        return new Corrections(List.of(all), List.of("a.csv"), List.of(), file -> true);
    }

    @Test
    public void aKeyIsOfTheContentAlone() {
        assertThat(KEYS.of(ONE))
                .isEqualTo(KEYS.of(List.of(" 1", "tin ", "5.00", "", " ")))
                .hasSize(20);
        assertThat(KEYS.of(ONE)).isNotEqualTo(KEYS.of(List.of("1", "tin5.00"))).isNotEqualTo(KEYS.of(TWO));
        assertThat(KEYS.of(List.of("1", Row.NO_CELL))).isEqualTo(KEYS.of(List.of("1")));
    }

    @Test
    public void aRowIsCorrectedWhereverItStands() throws IOException {
        Corrections corrections = corrections(correction(2, ONE, List.of("1", "tin", "6.00")));
        assertThat(read(corrections, List.of(ONE, TWO))).containsExactly("2:1|tin|6.00", "3:2|gas|7.00");
        assertThat(read(corrections(correction(2, ONE, List.of("1", "tin", "6.00"))), List.of(TWO, TWO, ONE)))
                .containsExactly("2:2|gas|7.00", "3:2|gas|7.00", "4:1|tin|6.00");
        assertThat(corrections.used()).hasSize(1);
        assertThat(corrections.unused()).isEmpty();
    }

    @Test
    public void ofEqualRowsTheOneAtItsPlaceIsMeant() throws IOException {
        List<List<String>> twice = List.of(ONE, ONE);
        assertThat(read(corrections(decision(3, ONE, Decision.LEAVE_OUT)), twice))
                .containsExactly("2:1|tin|5.00", "3:" + LeftOut.BY_DECISION);
        assertThat(read(corrections(decision(9, ONE, Decision.LEAVE_OUT)), twice))
                .containsExactly("2:" + LeftOut.BY_DECISION, "3:1|tin|5.00");
        assertThat(read(
                        corrections(
                                correction(9, ONE, List.of("1", "zinc", "5.00")), decision(2, ONE, Decision.LEAVE_OUT)),
                        twice))
                .containsExactly("2:" + LeftOut.BY_DECISION, "3:1|zinc|5.00");
    }

    @Test
    public void whatIsNotThereAnyMoreIsNoted() throws IOException {
        Corrections corrections = corrections(correction(2, ONE, List.of("1", "tin", "6.00")));
        assertThat(read(corrections, List.of(List.of("1", "tin", "6.00")))).containsExactly("2:1|tin|6.00");
        assertThat(corrections.unused()).extracting(Finding::rule).containsExactly(Rule.CORRECTION_UNUSED);
        Corrections ofAnother =
                new Corrections(List.of(correction(2, ONE, TWO)), List.of("b.csv"), List.of(), file -> true);
        assertThat(ofAnother.unused())
                .extracting(Finding::reason)
                .containsExactly("the correction in copy row 2 found no row: this run reads no file of this name");
    }

    @Test
    public void onlyWhatMayBeIsOverridden() throws IOException {
        Corrections corrections = corrections(decision(2, ONE, Decision.KEEP));
        read(corrections, List.of(ONE, TWO));
        Finding repeated = finding(Rule.DOCUMENT_REPEATED, 2);
        assertThat(corrections.judge(repeated).rule()).isEqualTo(Rule.KEPT_BY_DECISION);
        assertThat(corrections.judge(repeated).reason())
                .startsWith("kept, says A. Reed on 2027-04-02: seen; it would be held as document-repeated");
        for (Rule rule : List.of(Rule.DATE_WEEKDAY, Rule.ACCOUNT_UNKNOWN, Rule.JOURNAL_UNBALANCED, Rule.UNCODED)) {
            assertThat(corrections.judge(finding(rule, 2)).rule()).isEqualTo(rule);
        }
        Finding other = finding(Rule.DOCUMENT_REPEATED, 3);
        assertThat(corrections.judge(other)).isSameAs(other);
    }

    @Test
    public void aWordAboutAFileIsForItsFiguresOnly() {
        Finding closing = new Finding(Rule.BALANCE_CLOSING, Origin.of("a.csv", 0), "", "99.00", "leads to 100.00", "");
        Correction said = new Correction(
                "copy",
                "a.csv",
                0,
                KEYS.of(closing),
                null,
                Set.of(),
                null,
                Decision.KEEP,
                "A. Reed",
                "2027-04-02",
                "a misprint",
                List.of(),
                null);
        assertThat(corrections(said).judge(closing).rule()).isEqualTo(Rule.KEPT_BY_DECISION);
        Finding later = new Finding(Rule.BALANCE_CLOSING, Origin.of("a.csv", 0), "", "98.00", "leads to 100.00", "");
        assertThat(corrections(said).judge(later)).isSameAs(later);
    }

    private static Finding finding(Rule rule, long row) {
        return new Finding(rule, Origin.of("a.csv", row), "", "", "reason", "");
    }
}
