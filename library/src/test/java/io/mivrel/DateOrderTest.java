package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A date that does not belong where it stands holds its row, and above all never drops it in silence. */
public class DateOrderTest {
    private static final String LAYOUT = "layout: B\ngives: bank lines\naccount: 1200\nfields:\n"
            + "  date: {column: Date, pattern: dd/MM/uuuu}\n  narrative: {column: Text}\n  amount: {column: Amount}\n";

    private static Outcome run(String more, String... dates) throws Exception {
        StringBuilder file = new StringBuilder("Date,Text,Amount\n");
        for (int i = 0; i < dates.length; i++) {
            file.append(dates[i]).append(",line ").append(i).append(",1.00\n");
        }
        return new Workshop()
                .takes("bank", "bank.csv", LAYOUT)
                .replace("bank.yaml", "run:", more + "run:")
                .put("bank.csv", file.toString())
                .run("bank");
    }

    private static List<String> found(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(f -> f.rule().id() + " " + f.origin().row() + " " + f.suggestion())
                .toList();
    }

    private static final String MARCH = "dates: 2027-03-01 to 2027-03-31\n";

    @DataProvider
    public Object[][] slips() {
        return new Object[][] {
            {MARCH, new String[] {"01/03/2027", "02/08/2027", "03/03/2027"}, "3 was 2027-03-02 meant?"},
            {"", new String[] {"01/03/2027", "02/08/2027", "03/03/2027"}, "3 was 2027-03-02 meant?"},
            {MARCH, new String[] {"03/03/2027", "02/08/2027", "01/03/2027"}, "3 was 2027-03-02 meant?"},
            {MARCH, new String[] {"01/03/2027", "03/02/2027", "02/03/2027", "04/03/2027"}, "3 was 2027-03-02 meant?"},
            {MARCH, new String[] {"01/03/2027", "04/03/2027", "03/05/2027", "06/03/2027"}, "4 was 2027-03-05 meant?"},
            {MARCH, new String[] {"01/03/2027", "04/03/2027", "05/03/2072", "06/03/2027"}, "4 was 2027-03-05 meant?"},
            {"", new String[] {"01/03/2027", "04/03/2027", "05/03/2027", "02/01/2027"}, "5 was 2027-0"},
            {MARCH, new String[] {"01/03/2027", "04/03/2027", "05/03/2027", "07/08/2027"}, "5 was 2027-03-07"},
            {MARCH, new String[] {"01/08/2027", "04/03/2027", "05/03/2027", "07/03/2027"}, "2 was 2027-03-01"},
        };
    }

    @Test(dataProvider = "slips")
    public void aDateOutOfPlaceHoldsItsRow(String more, String[] dates, String expected) throws Exception {
        Outcome outcome = run(more, dates);
        assertThat(found(outcome)).hasSize(1);
        assertThat(found(outcome).get(0)).startsWith("date-out-of-order " + expected);
        assertThat(outcome.report().held().rows()).isEqualTo(1);
        assertThat(outcome.report().clear().rows()).isEqualTo(dates.length - 1);
    }

    @Test
    public void rowsOfOneWrongDayAreHeldTogether() throws Exception {
        Outcome outcome = run(MARCH, "01/03/2027", "02/08/2027", "02/08/2027", "03/03/2027");
        assertThat(outcome.report().held().rows()).isEqualTo(2);
    }

    @DataProvider
    public Object[][] soundFiles() {
        return new Object[][] {
            {MARCH, new String[] {"27/02/2027", "01/03/2027", "02/03/2027", "01/04/2027"}, 2L},
            {MARCH, new String[] {"01/04/2027", "02/03/2027", "01/03/2027", "27/02/2027"}, 2L},
            {"", new String[] {"01/03/2027", "01/03/2027", "15/06/2027"}, 3L},
            // No order at all, as in a list by name.
            {"", new String[] {"09/03/2027", "01/03/2027", "20/03/2027", "05/03/2027", "11/03/2027", "02/03/2027"}, 6L},
        };
    }

    @Test(dataProvider = "soundFiles")
    public void soundFilesAreLeftAlone(String more, String[] dates, long clear) throws Exception {
        Outcome outcome = run(more, dates);
        assertThat(found(outcome)).isEmpty();
        assertThat(outcome.report().clear().rows()).isEqualTo(clear);
    }

    @Test
    public void suggestionsKeepToTheDatesAround() throws Exception {
        Workshop workshop = new Workshop()
                .takes(
                        "bank",
                        "bank.csv",
                        LAYOUT.replace("pattern: dd/MM/uuuu", "pattern: dd/MM/uu, century from: 2000"))
                .put("bank.csv", "Date,Text,Amount\n08/03/27,a,1.00\n32/05/26,b,1.00\n10/03/27,c,1.00\n");
        assertThat(found(workshop.run("bank"))).containsExactly("date-unreadable 3 a row before it is of 08/03/27");
    }
}
