package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Finding;
import io.mivrel.run.Progress;
import io.mivrel.survey.Answers;
import io.mivrel.survey.Survey;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is called proved is proved by figures, and what was proved once is expected of every later file. */
public final class OnlyArithmeticProvesTest {
    private static final String BUSINESS = """
            Buchungstag;Verwendungszweck;Betrag;Saldo
            03.03.2027;Rechnung 1041 Glockengut;1.190,00;11.190,00
            04.03.2027;Gehalt Arden;-2.250,00;8.940,00
            05.03.2027;Rechnung 1042 Turmbau;595,00;9.535,00
            08.03.2027;Gehalt Kestrel;-1.980,00;7.555,00
            09.03.2027;REFUND TO Parish;-80,00;7.475,00
            10.03.2027;REFUND TO Shipyard;-20,00;7.455,00
            15.03.2027;REFUND TO Clockmaker;-30,00;7.425,00
            """;

    private static FileSurvey survey(Workshop workshop, String file) throws Exception {
        return FileSurvey.of(workshop.folder.resolve(file));
    }

    /** Surveys a file, answers the account, and runs a later file with the layout. */
    private static Outcome run(Workshop workshop, String surveyed, String later) throws Exception {
        String layout = survey(workshop, surveyed).layout();
        assertThat(layout).doesNotContain("gives: \"?");
        workshop.takes("bank", later, layout.replaceFirst("account: \"[^\"]*\"", "account: 1200"));
        return workshop.run("bank");
    }

    @Test
    public void noTextTurnsAmountsThatTheirBalanceProves() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", BUSINESS);
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.layout()).doesNotContain("\nsigns:");
        assertThat(survey.text()).contains("the balances prove 6 of 6 steps");
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(1_785_00);
        assertThat(outcome.status()).isZero();
    }

    @Test
    public void titlesOfTwoSidesAndMarksAreNotOverruledByTexts() throws Exception {
        Workshop workshop = new Workshop().put("sides.csv", """
                        Date,Text,Paid in,Paid out
                        13/03/2027,WAGES Arden,,2250.00
                        14/03/2027,Refund to Parish,,80.00
                        15/03/2027,Purchase returned,40.00,
                        """).put("marks.csv", """
                        Date,Text,Amount
                        13/03/2027,WAGES Arden,2250.00 D
                        14/03/2027,Salary Kestrel,80.00 D
                        15/03/2027,Card payment taken,40.00 C
                        """);
        for (String file : List.of("sides.csv", "marks.csv")) {
            Outcome outcome = run(new Workshop().put(file, workshop.bytes(file)), file, file);
            assertThat(outcome.report().clear().totals().debit()).as(file).isEqualTo(40_00);
            assertThat(outcome.report().clear().totals().credit()).as(file).isEqualTo(2_330_00);
            assertThat(outcome.report().files().get(0).unproved().rows()).isEqualTo(3);
        }
    }

    @Test
    public void whatWasProvedOnceIsExpectedOfEveryLaterFile() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", BUSINESS).put("b.csv", BUSINESS.replace("595,00", "596,00"));
        Outcome outcome = run(workshop, "a.csv", "b.csv");
        assertThat(Workshop.told(outcome))
                .extracting(f -> f.rule().id() + f.origin().row())
                .contains("balance-broken4");
        assertThat(outcome.status()).isEqualTo(1);
    }

    @Test
    public void balancesAtTheEndOfEachDayProveTheDayInEitherOrder() throws Exception {
        String newest = """
                Date,Text,Amount,Balance
                16/03/2027,e,-5.00,148.00
                16/03/2027,d,3.00,
                15/03/2027,c,20.00,150.00
                15/03/2027,b,10.00,
                14/03/2027,a,-7.00,120.00
                13/03/2027,z,27.00,127.00
                """;
        // The days fall while the rows of a day stand as they were booked.
        String days = """
                Date,Text,Amount,Balance
                16/03/2027,d,3.00,153.00
                16/03/2027,e,-5.00,148.00
                15/03/2027,b,10.00,130.00
                15/03/2027,c,20.00,150.00
                14/03/2027,a,-7.00,120.00
                13/03/2027,z,27.00,127.00
                """;
        for (String file : List.of(newest, days)) {
            Workshop workshop = new Workshop().put("a.csv", file);
            Outcome sound = run(workshop, "a.csv", "a.csv");
            assertThat(sound.status())
                    .as(sound.summary(io.mivrel.report.SummaryText.Style.PLAIN))
                    .isZero();
            assertThat(sound.report().files().get(0).unproved().rows()).isEqualTo(1);
            Workshop other = new Workshop().put("a.csv", file).put("b.csv", file.replace(",10.00", ",20.00"));
            Outcome wrong = run(other, "a.csv", "b.csv");
            assertThat(wrong.report().held().rows()).as(file).isPositive();
            assertThat(Workshop.told(wrong)).anyMatch(f -> f.rule().id().equals("balance-broken"));
        }
    }

    @Test
    public void pendingRowsStandOutsideTheBalances() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Date,Text,Amount,Balance
                17/03/2027,not there yet,-9.00,
                17/03/2027,nor this,-1.00,
                16/03/2027,d,3.00,153.00
                15/03/2027,c,20.00,150.00
                14/03/2027,b,10.00,130.00
                13/03/2027,a,-7.00,120.00
                """);
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        String summary = outcome.summary(io.mivrel.report.SummaryText.Style.PLAIN);
        assertThat(summary).doesNotContain("does not hold").contains("not proved  3 of 6 rows   in 0.00   out 17.00");
        assertThat(outcome.json()).contains("\"notProved\"");
        assertThat(outcome.status()).isZero();
    }

    @Test
    public void noRowOfDataEndsTheData() throws Exception {
        StringBuilder rows = new StringBuilder("Kuupaev;Selgitus;Summa\n");
        for (int i = 1; i < 20; i++) {
            rows.append(String.format("%d. xyz 2027;Ref. H %d;%d,00%n", i, i, i));
        }
        FileSurvey survey = survey(new Workshop().put("a.csv", rows.toString()), "a.csv");
        assertThat(survey.layout()).doesNotContain("until");
    }

    @Test
    public void anAnswerOpensNoWorseQuestion() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Aa;Bb;Cc;Dd
                13.03.2027;xx;10,00;7,00
                14.03.2027;yy;12,00;7,10
                15.03.2027;zz;-3,00;7,30
                """);
        Path file = workshop.folder.resolve("a.csv");
        assertThat(survey(workshop, "a.csv").survey().fields()).isEmpty();
        FileSurvey said = FileSurvey.of(file, "a.csv", new Answers(Map.of("gives", "bank lines")), Progress.NONE);
        assertThat(said.survey().question("amount").words()).contains("'Cc' or 'Dd'");
        assertThat(said.survey().fields()).doesNotContainKey(BankLines.AMOUNT);
        FileSurvey both =
                FileSurvey.of(file, "a.csv", new Answers(Map.of("gives", "bank lines", "amount", "Cc")), Progress.NONE);
        assertThat(both.survey().fields().get(BankLines.AMOUNT).title()).isEqualTo("Cc");
        assertThat(both.survey().question("signs")).isNotNull();
    }

    @DataProvider
    public Object[][] encodings() {
        return new Object[][] {
            {"windows-1253", "Πληρωμή τιμολογίου Οικοδομές Πέτρινος"},
            {"windows-1254", "Fatura ödemesi İlhan Gümüşsuyu çığırdağ"},
            {"windows-1257", "Rēķina apmaksa Jānis Bērziņš čūska"},
            {"windows-1250", "Számla kifizetése Győző Fűzfalvi tölgyfás"},
            {"windows-1251", "Оплата счёта Колокольный завод"},
            {"KOI8-R", "Оплата счёта Колокольный завод"},
            {"IBM852", "Úhrada faktury Truhlářství Švestkovec"},
            {"GB18030", "支付供应商货款及银行手续费"},
            {"Big5", "支付供應商貨款及銀行手續費"},
            {"windows-31j", "家賃の支払いと振込手数料"},
            {"EUC-JP", "スーパーで買い物をしました"},
            {"EUC-KR", "은행수수료지급합계"},
        };
    }

    @Test(dataProvider = "encodings")
    public void textsOfManyAlphabetsAreReadOrAsked(String encoding, String text) throws Exception {
        StringBuilder file = new StringBuilder("Date;Text;Amount;Balance\n");
        for (int i = 13; i < 29; i++) {
            file.append(i)
                    .append(".03.2027;")
                    .append(text)
                    .append(";1,00;")
                    .append(i)
                    .append(",00\n");
        }
        Workshop workshop = new Workshop().put("a.csv", file.toString().getBytes(Charset.forName(encoding)));
        FileSurvey survey = survey(workshop, "a.csv");
        if (survey.survey().question("encoding") == null) {
            assertThat(survey.rows(2).get(1))
                    .as(survey.survey().facts().encoding())
                    .contains(text);
        }
        FileSurvey said = FileSurvey.of(
                workshop.folder.resolve("a.csv"), "a.csv", new Answers(Map.of("encoding", encoding)), Progress.NONE);
        assertThat(said.rows(2).get(1)).contains(text);
    }

    @Test
    public void rowsThatSumToNilAreJournalsAndAnAnswerAlwaysWins() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Jnl No,Posting date,A/c,Narrative,Debit,Credit
                1,13/03/2027,5010,tin,10.00,
                1,13/03/2027,1200,tin,,10.00
                2,14/03/2027,5020,copper,30.00,
                2,14/03/2027,1200,copper,,30.00
                3,15/03/2027,1200,bell,500.00,
                3,15/03/2027,4000,bell,,500.00
                """);
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.survey().gives()).isEqualTo(JournalLines.KIND);
        assertThat(survey.text()).contains("3 of 3 groups by 'Jnl No' sum to nil");
        FileSurvey said = FileSurvey.of(
                workshop.folder.resolve("a.csv"), "a.csv", new Answers(Map.of("gives", "bank lines")), Progress.NONE);
        assertThat(said.survey().gives()).isEqualTo(BankLines.KIND);
        assertThat(said.text()).contains("as was answered", "as journals 3 of 3 groups");
    }

    @Test
    public void aCurrencyInTheLayoutIsThatOfTheAccount() throws Exception {
        Workshop workshop = new Workshop()
                .put("a.csv", BUSINESS.replace("Saldo\n", "Saldo;Währung\n").replaceAll("(?m)(\\d)$", "$1;EUR"));
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        assertThat(Workshop.told(outcome)).extracting(f -> f.rule().id()).contains("statement-currency");
        assertThat(outcome.report().clear().rows()).isZero();
    }

    @Test
    public void aFileOfSomebodyElseIsHeldByName() throws Exception {
        String head = "Kontonummer;4455667788\nKontoinhaber;Larkmoor Bell Foundry Ltd\nWährung;GBP\n";
        Workshop workshop = new Workshop()
                .put("a.csv", head + BUSINESS)
                .put("b.csv", head.replace("4455667788", "9988776655").replace("Larkmoor", "Torrow") + BUSINESS);
        Outcome own = run(workshop, "a.csv", "a.csv");
        assertThat(own.status()).isZero();
        Outcome other = run(
                new Workshop()
                        .put("a.csv", head + BUSINESS)
                        .put("b.csv", head.replace("4455667788", "9988776655") + BUSINESS),
                "a.csv",
                "b.csv");
        assertThat(Workshop.told(other)).anySatisfy(f -> {
            assertThat(f.rule().id()).isEqualTo("file-of-another");
            assertThat(f.value()).isEqualTo("9988776655");
        });
        assertThat(other.report().clear().rows()).isZero();
    }

    @Test
    public void theOnlyColumnOfTextIsTheNarrativeHoweverFewItsValues() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Xdate,Xwhat,Xmuch,Xleft
                13/03/2027,shop takings,10.00,110.00
                14/03/2027,shop takings,20.00,130.00
                15/03/2027,bank fee,-1.00,129.00
                """);
        assertThat(survey(workshop, "a.csv").layout()).contains("narrative: {column: \"Xwhat\"}");
    }

    @Test
    public void oneTurnedSignIsAFaultOfItsRow() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", BUSINESS.replace("Turmbau;595,00", "Turmbau;-595,00"));
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.layout()).doesNotContain("by balance");
        assertThat(survey.text()).contains("they break at row 4");
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        assertThat(outcome.report().held().rows()).isEqualTo(1);
        assertThat(Workshop.told(outcome).get(0).suggestion()).contains("the sign is probably wrong");
    }

    @Test
    public void statedBalancesWithADayInTheirLabelAreCompared() throws Exception {
        String file = """
                Solde au 28/02/2027;1 000,00
                Date;Libellé;Montant
                13/03/2027;cuivre;-10,00
                14/03/2027;étain;-20,00
                15/03/2027;cloche;500,00
                Solde au 31/03/2027;1 470,00
                """;
        Workshop workshop =
                new Workshop().put("a.csv", file).put("b.csv", file.replace("14/03/2027;étain;-20,00\n", ""));
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.text()).contains("opening 1,000.00 + movement 470.00 = closing 1,470.00");
        assertThat(survey.survey().question("signs")).isNull();
        Outcome outcome = run(workshop, "a.csv", "b.csv");
        assertThat(Workshop.told(outcome)).extracting(f -> f.rule().id()).contains("balance-closing");
        assertThat(outcome.report().clear().rows()).isZero();
    }

    @Test
    public void sumsOfBothSidesUnderHeadingsProveTheSides() throws Exception {
        String file = """
                Date,Details,Amount
                Zyxin
                13/03/2027,bell,500.00
                14/03/2027,clock,70.00
                Zyxin total,570.00
                Zyxout
                15/03/2027,tin,20.00
                16/03/2027,copper,33.00
                Zyxout total,53.00
                """;
        Workshop workshop = new Workshop().put("a.csv", "Opening balance,100.00\n" + file + "Closing balance,617.00\n");
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(570_00);
        assertThat(outcome.report().clear().totals().credit()).isEqualTo(53_00);
        assertThat(outcome.report().files().get(0).unproved().rows()).isZero();
    }

    @Test
    public void monthsAreReadInTheLanguageWhoseNamesCoverAllDates() throws Exception {
        StringBuilder file = new StringBuilder("Datum;Opis;Iznos;Stanje\n");
        String[] months = {"sij", "velj", "ožu", "tra", "svi", "lip", "srp", "kol", "ruj", "lis", "stu", "pro"};
        for (int i = 0; i < months.length; i++) {
            file.append(String.format("14. %s 2027;zvono;1,00;%d,00%n", months[i], i + 1));
        }
        Workshop workshop = new Workshop().put("a.csv", file.toString());
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.layout()).contains("language: hr");
        Outcome outcome = run(workshop, "a.csv", "a.csv");
        assertThat(outcome.report().files().get(0).lastDate()).contains(java.time.LocalDate.of(2027, 12, 14));
        assertThat(outcome.report().files().get(0).proof().orElseThrow().holds())
                .isTrue();
    }

    @Test
    public void rowsThatAloneHaveNoBalanceAreAskedAbout() throws Exception {
        String file = """
                Datum;Text;Zustand;Betrag;Saldo
                13.03.2027;Miete;fertig;-100,00;900,00
                14.03.2027;Verkauf;fertig;250,00;1150,00
                15.03.2027;Kauf A;fertig;-20,00;1130,00
                16.03.2027;Kauf B;unterwegs;-30,00;
                17.03.2027;Kauf C;unterwegs;-40,00;
                """;
        Workshop workshop = new Workshop().put("a.csv", file);
        FileSurvey survey = survey(workshop, "a.csv");
        assertThat(survey.text()).contains("'unterwegs' in 'Zustand' stands in 2 rows, and only they have no balance");
        assertThat(survey.layout()).contains("is: \"? 'unterwegs'");
        Map<String, Integer> rows = Map.of("unterwegs", 3, "none", 5);
        for (String answer : rows.keySet()) {
            FileSurvey said = FileSurvey.of(
                    workshop.folder.resolve("a.csv"), "a.csv", new Answers(Map.of("leave out", answer)), Progress.NONE);
            workshop = new Workshop().put("a.csv", file);
            workshop.takes("bank", "a.csv", said.layout().replaceFirst("account: \"[^\"]*\"", "account: 1200"));
            assertThat(workshop.run("bank").report().clear().documents())
                    .as(answer)
                    .isEqualTo((long) rows.get(answer));
        }
    }

    @Test
    public void figuresBesideTheRowsAreExplainedOrAskedAbout() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Zzstart;1000,00;
                Zzlimit;5000,00;
                Zzschluss;1130,00;
                Datum;Text;Betrag
                13.03.2027;Miete;-100,00
                14.03.2027;Verkauf;250,00
                15.03.2027;Kauf A;-20,00
                """).put("b.csv", """
                Zzstart;1000,00;
                Zzlimit;5000,00;
                Datum;Text;Betrag
                13.03.2027;Miete;-100,00
                14.03.2027;Verkauf;250,00
                """);
        // Two figures fit either way round, so nothing is proved until somebody says which is which.
        assertThat(survey(workshop, "a.csv").survey().open())
                .extracting(Survey.Question::about)
                .contains("opening", "closing", "signs");
        FileSurvey known = FileSurvey.of(
                workshop.folder.resolve("a.csv"),
                "a.csv",
                new Answers(Map.of("opening", "Zzstart", "closing", "Zzschluss")),
                Progress.NONE);
        assertThat(known.layout())
                .contains("stated: {opening: \"Zzstart\", closing: \"Zzschluss\"}")
                .doesNotContain("signs:");
        FileSurvey open = survey(workshop, "b.csv");
        assertThat(open.text())
                .contains("which figure is the opening balance: 'Zzstart' 1000,00 or 'Zzlimit' 5000,00?");
        FileSurvey said = FileSurvey.of(
                workshop.folder.resolve("b.csv"),
                "b.csv",
                new Answers(Map.of("opening", "Zzstart", "closing", "none")),
                Progress.NONE);
        assertThat(said.layout()).contains("stated: {opening: \"Zzstart\"}");
    }

    @Test
    public void totalsBelowTheRowsAreADutyOfEachRun() throws Exception {
        String file = """
                Jnl,Date,Account,Debit,Credit
                J1,13/03/2027,5010,10.00,
                J1,13/03/2027,1200,,10.00
                J2,14/03/2027,5020,30.00,
                J2,14/03/2027,1200,,30.00
                Total,,,40.00,40.00
                """;
        Workshop workshop = new Workshop().put("a.csv", file).put("b.csv", file.replace("5020,30.00", "5020,31.00"));
        String layout = survey(workshop, "a.csv").layout();
        assertThat(layout).contains("stated: {totals: [\"Total\"]}").doesNotContain("until");
        workshop.takes("journal", "a.csv", layout);
        assertThat(workshop.run("journal").status()).isZero();
        workshop.takes("journal", "b.csv", layout);
        assertThat(Workshop.told(workshop.run("journal")))
                .extracting(f -> f.rule().id() + f.origin().row())
                .contains("total-within-differs6");
        workshop.put("c.csv", file.replaceFirst("(?m)^Total.*\\R", ""));
        workshop.takes("journal", "c.csv", layout);
        assertThat(Workshop.told(workshop.run("journal")))
                .extracting(f -> f.rule().id())
                .contains("stated-missing");
    }

    @Test
    public void aSignThatTheBalanceContradictsIsHeld() throws Exception {
        String file = """
                Date,Text,Amount,Balance
                12/03/2027,Balance brought forward,,1000.00
                13/03/2027,tin,10.00,990.00
                14/03/2027,bell,500.00,1490.00
                15/03/2027,copper,30.00,1460.00
                16/03/2027,rent,60.00,1400.00
                17/03/2027,bell,250.00,1650.00
                """;
        Workshop workshop = new Workshop().put("a.csv", file).put("b.csv", file.replace("bell,500.00", "bell,-500.00"));
        String layout = survey(workshop, "a.csv").layout().replaceFirst("account: \"[^\"]*\"", "account: 1200");
        assertThat(layout).contains("signs: by balance");
        workshop.takes("bank", "b.csv", layout);
        Outcome outcome = workshop.run("bank");
        assertThat(Workshop.told(outcome))
                .filteredOn(Finding::blocks)
                .extracting(f -> f.rule().id() + f.origin().row())
                .containsExactly("amount-side-unknown4");
        assertThat(outcome.report().clear().documents()).isEqualTo(4);
    }
}
