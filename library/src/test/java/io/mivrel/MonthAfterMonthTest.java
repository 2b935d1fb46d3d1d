package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.Test;

/** One statement after another, on one register: gaps, amended days, and runs of which nothing comes. On real files. */
public class MonthAfterMonthTest {
    private static final String LAYOUT = "layout: B\ngives: bank lines\naccount: 1200\nfields:\n"
            + "  date: {column: Date, pattern: uuuu-MM-dd}\n  narrative: {column: Text}\n  amount: {column: Amount}\n"
            + "  balance: {column: Balance}\n";
    private static final String TITLES = "Date,Text,Amount,Balance\n";
    private static final String MARCH =
            "2027-03-01,shop,5.00,5.00\n2027-03-02,tin,-1.00,4.00\n2027-03-03,shop,2.00,6.00\n";

    private static Workshop workshop() {
        return new Workshop().takes("bank", "bank.csv", LAYOUT);
    }

    private static Outcome run(Workshop workshop, String rows) throws Exception {
        return workshop.put("bank.csv", TITLES + rows).run("bank");
    }

    private static List<String> rules(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(finding -> finding.rule().id())
                .distinct()
                .toList();
    }

    @Test
    public void aLineAmendedAtTheSourceIsHeldWithAllThatItShifts() throws Exception {
        Workshop workshop = workshop();
        assertThat(rules(run(workshop, MARCH))).isEmpty();
        String amended = "2027-03-01,shop,5.00,5.00\n2027-03-02,tin,-2.00,3.00\n2027-03-03,shop,2.00,5.00\n";
        Outcome outcome = run(workshop, amended);
        assertThat(rules(outcome)).containsExactly("line-amended", "delivered-before");
        assertThat(outcome.report().clear().rows()).isZero();
        assertThat(outcome.report().held().rows()).isEqualTo(2);
        assertThat(outcome.report().before().rows()).isEqualTo(1);
        assertThat(outcome.status()).isEqualTo(1);
    }

    @Test
    public void aDayThatGoesOnIsNoAmendment() throws Exception {
        for (boolean newestFirst : new boolean[] {false, true}) {
            Workshop workshop = workshop();
            if (newestFirst) {
                workshop.replace("bank-layout.yaml", "fields:", "file: {order: newest first}\nfields:");
            }
            String more = "2027-03-03,shop,2.00,8.00\n2027-03-04,tin,-3.00,5.00\n";
            assertThat(rules(run(workshop, turned(MARCH, newestFirst)))).isEmpty();
            Outcome outcome = run(workshop, turned(MARCH + more, newestFirst));
            assertThat(rules(outcome)).containsExactly("delivered-before");
            assertThat(outcome.report().clear().rows()).isEqualTo(2);
        }
    }

    private static String turned(String rows, boolean newestFirst) {
        List<String> lines = new java.util.ArrayList<>(rows.lines().toList());
        if (newestFirst) {
            java.util.Collections.reverse(lines);
        }
        return String.join("\n", lines) + "\n";
    }

    @Test
    public void withoutBalancesAnotherSpellingIsHeld() throws Exception {
        Workshop workshop = workshop();
        workshop.put("bank-layout.yaml", LAYOUT.replace("  balance: {column: Balance}\n", "unused: [Balance]\n"));
        assertThat(rules(run(workshop, MARCH))).isEmpty();
        Outcome outcome = run(workshop, MARCH.replace("tin", "TIN"));
        assertThat(rules(outcome)).containsExactly("line-amended", "delivered-before");
        assertThat(outcome.report().held().rows()).isEqualTo(1);
    }

    @Test
    public void aMissingStatementIsNamed() throws Exception {
        Workshop workshop = workshop();
        assertThat(rules(run(workshop, MARCH))).isEmpty();
        Outcome april = run(workshop, "2027-05-01,shop,1.00,9.00\n2027-05-02,shop,1.00,10.00\n");
        assertThat(rules(april)).containsExactly("statement-gap");
        assertThat(Workshop.told(april).get(0).toString())
                .contains(
                        "bank.csv, delivered by 'bank', closes after 2027-03-03 with 6.00",
                        "goes out from 8.00",
                        "2.00");
        assertThat(april.report().clear().rows()).isZero();
        Outcome right = run(workshop, "2027-05-01,shop,3.00,9.00\n2027-05-02,shop,1.00,10.00\n");
        assertThat(rules(right)).isEmpty();
        assertThat(right.report().clear().rows()).isEqualTo(2);
    }

    @Test
    public void nothingClearIsNotAllClear() throws Exception {
        Workshop workshop = workshop().replace("bank.yaml", "run:", "dates: 2027-04-01 to 2027-04-30\nrun:");
        Outcome outcome = run(workshop, MARCH);
        assertThat(rules(outcome)).containsExactly("nothing-clear");
        assertThat(outcome.status()).isEqualTo(1);
        assertThat(Workshop.told(outcome).get(0).reason()).contains("3 outside the wanted dates");
        // All of it delivered before is well.
        Workshop again = workshop();
        run(again, MARCH);
        assertThat(run(again, MARCH).status()).isZero();
    }
}
