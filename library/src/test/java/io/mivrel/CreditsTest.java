package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Credits are posted the right way round, however a list writes their figures; what contradicts the layout is held. */
public class CreditsTest {
    private static final String INVOICE = "I1,INV,CUS-001,01/03/2027,,bell,2,50.00,100.00,STD,20.00,4000,120.00\n";
    private static final String POSITIVE = "C1,CRN,CUS-001,02/03/2027,,bell,1,50.00,50.00,STD,10.00,4000,60.00\n";
    private static final String NEGATIVE = "C1,CRN,CUS-001,02/03/2027,,bell,-1,50.00,-50.00,STD,-10.00,4000,-60.00\n";

    private static Outcome run(String credits, String rows) throws Exception {
        Workshop workshop = new Workshop()
                .replace("invoice.yaml", "flat.yaml", "journals.yaml")
                .invoice(rows);
        if (!credits.isEmpty()) {
            workshop.replace("invoice-layout.yaml", "gives:", "credits: " + credits + "\ngives:");
        }
        return workshop.run("invoice");
    }

    private static List<String> rules(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .map(finding -> finding.rule().id())
                .toList();
    }

    private static List<String> delivered(Outcome outcome) throws Exception {
        return Files.readAllLines(java.nio.file.Path.of(
                outcome.report().deliveries().get(0).files().get(0).name()));
    }

    @DataProvider
    public Object[][] ways() {
        return new Object[][] {
            {"", POSITIVE},
            {"positive", POSITIVE},
            {"negative", NEGATIVE},
            {
                // The minus may stand at the price, or at the figures alone.
                "negative", NEGATIVE.replace("-1,50.00", "1,-50.00")
            },
            {"negative", NEGATIVE.replace("-1,50.00,", "1,50.00,")}
        };
    }

    @Test(dataProvider = "ways")
    public void aCreditIsPostedAgainstTheInvoice(String credits, String credit) throws Exception {
        Outcome outcome = run(credits, INVOICE + credit);
        assertThat(rules(outcome)).isEmpty();
        assertThat(delivered(outcome))
                .contains("C1,2027-03-02,1300,\"credit note C1, St Aldhelm\",-60.00", "C1,2027-03-02,4000,bell,50.00");
    }

    @DataProvider
    public Object[][] contradictions() {
        return new Object[][] {
            {"", NEGATIVE},
            {"positive", NEGATIVE},
            {"negative", POSITIVE},
            {
                "negative",
                INVOICE.replace("100.00,STD,20.00", "-100.00,STD,-20.00")
                        .replace("2,50.00", "-2,50.00")
                        .replace(",120.00", ",-120.00")
                        .replace("I1", "C1")
            }
        };
    }

    @Test(dataProvider = "contradictions")
    public void whatContradictsTheLayoutIsHeld(String credits, String document) throws Exception {
        Outcome outcome = run(credits, INVOICE + document);
        assertThat(rules(outcome)).containsExactly("document-sign");
        assertThat(Workshop.told(outcome).get(0).origin().row()).isEqualTo(3);
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void chargesAndCreditsMayStandInTwoColumns() throws Exception {
        Workshop workshop = new Workshop()
                .replace("invoice.yaml", "flat.yaml", "journals.yaml")
                .replace("invoice-layout.yaml", "gives:", "credits: both sides\ngives:")
                .replace("invoice-layout.yaml", "net:       {column: net}", "net:       {column: charge, less: credit}")
                .replace("invoice-layout.yaml", "tax:       {column: tax}", "tax:       {column: tax+, less: tax-}")
                .replace("invoice-layout.yaml", "total:     {column: total}", "total:     {column: sum+, less: sum-}")
                .replace("invoice-layout.yaml", "  quantity:  {column: qty}\n", "")
                .replace("invoice-layout.yaml", "  price:     {column: price}\n", "");
        String titles = "number,kind,party,date,due,text,code,account,charge,credit,tax+,tax-,sum+,sum-\n";
        String invoice = "I1,INV,CUS-001,01/03/2027,,bell,STD,4000,100.00,,20.00,0.00,120.00,\n";
        String credit = "C1,CRN,CUS-001,02/03/2027,,bell,STD,4000,,50.00,,10.00,,60.00\n";
        Outcome outcome = workshop.put("invoice.csv", titles + invoice + credit).run("invoice");
        assertThat(rules(outcome)).isEmpty();
        assertThat(delivered(outcome))
                .contains("C1,2027-03-02,1300,\"credit note C1, St Aldhelm\",-60.00", "C1,2027-03-02,4000,bell,50.00");
        String wrongSide = "C2,CRN,CUS-001,02/03/2027,,bell,STD,4000,51.00,,10.20,,61.20,\n";
        String both = "I3,INV,CUS-001,03/03/2027,,bell,STD,4000,100.00,1.00,20.00,,120.00,\n";
        Outcome wrong = workshop.put("invoice.csv", titles + wrongSide + both).run("invoice");
        assertThat(rules(wrong)).containsExactlyInAnyOrder("document-sign", "amount-on-both-sides");
        workshop.replace("invoice-layout.yaml", "charge, less: credit", "charge")
                .replace("invoice-layout.yaml", "tax+, less: tax-", "tax+")
                .replace("invoice-layout.yaml", "sum+, less: sum-", "sum+");
        assertThatThrownBy(() -> workshop.run("invoice")).hasMessageContaining("an amount needs 'less'");
    }

    @Test
    public void aDeductionThatNothingProvesIsACaution() throws Exception {
        String lines = "I1,INV,CUS-001,01/03/2027,,bell,,,100.00,STD,20.00,4000,\n"
                + "I1,INV,CUS-001,01/03/2027,,less,,,-10.00,STD,-2.00,4000,\n";
        assertThat(rules(run("", lines))).containsExactly("line-negative");
        assertThat(rules(run("", lines.replace("4000,\n", "4000,108.00\n")))).isEmpty();
    }

    @Test
    public void theSurveyAsksHowCreditsAreWritten() throws Exception {
        Workshop workshop = new Workshop().invoice(INVOICE + NEGATIVE + INVOICE.replace("I1", "I2"));
        FileSurvey survey = FileSurvey.of(workshop.folder.resolve("invoice.csv"));
        assertThat(survey.layout()).contains("credits: \"? some figures are below nil");
    }
}
