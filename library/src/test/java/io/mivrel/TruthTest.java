package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.report.SummaryText;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What goes out is in the money and in the books it is said to be in, once. */
public final class TruthTest {
    /** Rules that are tested here. */
    static final Set<FindingRule> RULES =
            Set.of(Rule.TRANSFER_BOOKED, Rule.TRANSFER_OPEN, Rule.TWO_ENTRIES, Rule.CODED_OTHERWISE);

    private static final String MONEY_LAYOUT = """
            layout: Ledger
            gives: journal lines
            numbers: {negative: minus}
            fields:
              reference: {column: ref}
              date:      {column: date, pattern: dd/MM/uuuu}
              account:   {column: account}
              amount:    {column: amount}
              currency:  {column: curr}
            """;

    private static List<String> blockers(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .filter(Finding::blocks)
                .map(f -> f.rule().id() + f.origin().row())
                .toList();
    }

    @Test
    public void aJournalOfTwoCurrenciesIsHeldWithoutHomeAmounts() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                ref,date,account,amount,curr
                J1,01/03/2027,5010,85.00,GBP
                J1,01/03/2027,1200,-84.00,GBP
                J1,01/03/2027,1200,-1.00,EUR
                J2,02/03/2027,5010,30.00,GBP
                J2,02/03/2027,1200,-30.00,GBP
                """);
        Outcome outcome = workshop.takes("journal", "a.csv", MONEY_LAYOUT).run("journal");
        assertThat(blockers(outcome)).contains("amount-in-other-currency4");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
        assertThat(outcome.status()).isEqualTo(1);
        Outcome trusted = workshop.takes("journal", "a.csv", MONEY_LAYOUT + "allow: [amounts are home money]\n")
                .run("journal");
        assertThat(trusted.report().clear().documents()).isEqualTo(1);
    }

    @DataProvider
    public Object[][] columnsLeftAside() {
        return new Object[][] {{"unused: [curr]\n"}, {""}};
    }

    @Test(dataProvider = "columnsLeftAside")
    public void aColumnOfCurrenciesThatIsLeftAsideHoldsRowsInOtherMoney(String unused) throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                ref,date,account,amount,curr
                J1,01/03/2027,5010,4519,JPY
                J1,01/03/2027,1200,-4519,JPY
                J2,02/03/2027,5010,30.00,GBP
                J2,02/03/2027,1200,-30.00,GBP
                """);
        String layout = MONEY_LAYOUT.replaceFirst("(?m)^ +currency.*\\R", "") + unused;
        Outcome outcome = workshop.takes("journal", "a.csv", layout).run("journal");
        assertThat(blockers(outcome)).contains("amount-in-other-currency2", "amount-in-other-currency3");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void anInvoiceInOtherMoneyIsHeld() throws Exception {
        Workshop workshop = new Workshop();
        String titles = Workshop.INVOICE_TITLES.replace("total\n", "total,curr\n");
        workshop.put(
                "invoice.csv",
                titles + "7,INV,CUS-001,01/03/2027,,bell,,,4519,ZERO,,4000,,JPY\n"
                        + "8,INV,CUS-001,01/03/2027,,bell,,,100.00,ZERO,,4000,,GBP\n");
        workshop.replace(
                "invoice-layout.yaml",
                "  total:     {column: total}",
                "  currency: {column: curr}\n  total: {column: total}");
        Outcome outcome = workshop.run("invoice");
        assertThat(blockers(outcome)).containsExactly("amount-in-other-currency2");
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(100_00);
    }

    private static final String HOME_LAYOUT = """
            layout: Ledger
            gives: journal lines
            allow: [blank is nil]
            fields:
              reference: {column: ref}
              date:      {column: date, pattern: dd/MM/uuuu}
              account:   {column: account}
              amount:    {column: home}
              currency:  {column: curr}
              foreign amount: {column: foreign}
            """;

    @Test
    public void aForeignAmountWithoutAHomeAmountIsNotNil() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                ref,date,account,home,curr,foreign
                J1,01/03/2027,5010,,EUR,100.00
                J1,01/03/2027,1200,,EUR,-100.00
                """);
        Outcome outcome = workshop.takes("journal", "a.csv", HOME_LAYOUT).run("journal");
        assertThat(blockers(outcome)).contains("amount-missing2", "amount-missing3");
        assertThat(outcome.report().clear().documents()).isZero();
    }

    @Test
    public void ratesThatAreFarFromOneAnotherAndUnbalancedForeignMoneyAreHeld() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                ref,date,account,home,curr,foreign
                J1,01/03/2027,5010,85.00,EUR,100.00
                J1,01/03/2027,1200,-85.00,EUR,-100.00
                J2,02/03/2027,5010,8500.00,EUR,100.00
                J2,02/03/2027,1200,-8500.00,,
                J3,03/03/2027,5010,86.00,EUR,100.00
                J3,03/03/2027,1200,-86.00,EUR,-101.00
                """);
        Outcome outcome = workshop.takes("journal", "a.csv", HOME_LAYOUT).run("journal");
        assertThat(blockers(outcome)).contains("foreign-amount-differs4", "journal-unbalanced6");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
        assertThat(Workshop.told(outcome))
                .anyMatch(
                        f -> !f.blocks() && f.reason().contains("nothing before it in this run confirms such a rate"));
    }

    @Test
    public void documentsOfTwoCompaniesNeverJoin() throws Exception {
        String file = """
                co,ref,date,account,amount
                AA,J1,01/03/2027,5010,1.00
                BB,J1,01/03/2027,1200,-1.00
                AA,J2,02/03/2027,5010,30.00
                AA,J2,02/03/2027,1200,-30.00
                BB,J2,02/03/2027,5010,40.00
                BB,J2,02/03/2027,1200,-40.00
                """;
        String layout = MONEY_LAYOUT.replace("currency:  {column: curr}", "company: {column: co}");
        Workshop workshop = new Workshop().put("a.csv", file);
        workshop.replace("journals.yaml", "  Amount: ", "  Company: {field: company}\n  Amount: ");
        Outcome outcome = workshop.takes("journal", "a.csv", layout).run("journal");
        assertThat(blockers(outcome)).containsExactly("journal-unbalanced2", "journal-unbalanced3");
        assertThat(outcome.report().clear().documents()).isEqualTo(2);
        assertThat(workshop.delivered()).contains("AA,30.00", "BB,40.00");
        // Apart in the file too.
        String apart = file.replaceFirst("(?m)^AA,J2,02/03/2027,1200.*\\R", "") + "AA,J2,02/03/2027,1200,-30.00\n";
        Outcome again = new Workshop()
                .put("a.csv", apart)
                .takes("journal", "a.csv", layout)
                .run("journal");
        assertThat(again.report().clear().documents()).isEqualTo(2);
    }

    @Test
    public void aSurveyTakesACurrencyForWhatItIs() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                Jnl,Date,Account,Amount,Curr,Home Debit,Home Credit
                1,13/03/2027,5010,100.00,EUR,85.00,
                1,13/03/2027,1200,-100.00,EUR,,85.00
                2,14/03/2027,5020,30.00,GBP,30.00,
                2,14/03/2027,1200,-30.00,GBP,,30.00
                """);
        String layout = FileSurvey.of(workshop.folder.resolve("a.csv")).layout();
        assertThat(layout)
                .contains(
                        "debit: {column: \"Home Debit\"}",
                        "credit: {column: \"Home Credit\"}",
                        "currency: {column: \"Curr\"}",
                        "foreign amount: {column: \"Amount\"}")
                .doesNotContain("unused");
        Outcome outcome = workshop.takes("journal", "a.csv", layout).run("journal");
        assertThat(blockers(outcome)).isEmpty();
        assertThat(outcome.report().clear().totals().debit()).isEqualTo(115_00);
    }

    private static final String DATED = """
            Mon 01/03/2027,shop,10.00,,110.00
            Tue 02/03/2027,shop,20.00,,130.00
            Wed 03/03/2027,tin,,5.00,125.00
            """;

    @Test
    public void aLineThatCameBeforeWithAnotherDateIsHeldAndBothAreShown() throws Exception {
        Workshop workshop = new Workshop().bank(DATED);
        assertThat(workshop.run("bank").report().clear().documents()).isEqualTo(3);
        Outcome moved =
                workshop.bank(DATED.replace("Wed 03/03/2027", "Fri 05/03/2027")).run("bank");
        assertThat(blockers(moved)).containsExactly("line-amended4");
        assertThat(Workshop.told(moved).get(0).toString())
                .contains("was delivered before with another date", "2027-03-03", "bank.csv row 4");
        assertThat(moved.report().clear().documents()).isZero();
        assertThat(moved.status()).isEqualTo(1);
    }

    @Test
    public void theSameAmountAndBalanceOfAnotherMonthIsAnotherLine() throws Exception {
        Workshop workshop = new Workshop().bank(DATED);
        workshop.run("bank");
        Outcome april = workshop.bank("""
                Wed 17/03/2027,shop,5.00,,130.00
                Thu 18/03/2027,tin,,5.00,125.00
                """).run("bank");
        assertThat(blockers(april)).isEmpty();
        assertThat(april.report().clear().documents()).isEqualTo(2);
    }

    @Test
    public void anEmptyRegisterBesideEvidenceIsADamagedOne() throws Exception {
        Workshop workshop = new Workshop().bank(DATED);
        workshop.run("bank");
        try (Stream<Path> files = Files.walk(workshop.folder.resolve(".mivrel"))) {
            for (Path file : files.filter(f -> f.toString().endsWith(".db")).toList()) {
                Files.write(file, new byte[0]);
            }
        }
        assertThatThrownBy(() -> workshop.run("bank")).hasMessageContaining("the register is empty, though");
    }

    private static Workshop twoAccounts() {
        Workshop workshop = new Workshop();
        workshop.replace(
                "books/chart.csv",
                "1300,Customers",
                "1250,Reserve account,asset,bank,,\n1260,Transfers,asset,clearing,,\n1300,Customers");
        workshop.replace(
                "coding.csv",
                "tin,out,tin",
                "there,out,to reserve,,,1250,,,\nback,in,from current,,,1200,,,\ntin,out,tin");
        workshop.put("other-layout.yaml", workshop.read("bank-layout.yaml").replace("account: 1200", "account: 1250"));
        workshop.put("other.csv", Workshop.BANK_TITLES + "Thu 04/03/2027,from current,500.00,,700.00\n");
        workshop.put(
                "other.yaml",
                workshop.read("bank.yaml")
                        .replace("run: bank", "run: other")
                        .replace("bank.csv", "other.csv")
                        .replace("bank-layout", "other-layout"));
        return workshop.bank("Tue 02/03/2027,to reserve,,500.00,100.00\n");
    }

    @Test
    public void aTransferBetweenOwnAccountsIsBookedOnce() throws Exception {
        // In two runs, one after the other.
        Workshop workshop = twoAccounts();
        assertThat(workshop.run("bank").report().clear().documents()).isEqualTo(1);
        Outcome other = workshop.run("other");
        assertThat(blockers(other)).containsExactly("transfer-booked2");
        assertThat(Workshop.told(other).get(0).toString())
                .contains("to account 1200", "2027-03-02", "delivered by 'bank'");
        assertThat(other.report().clear().documents()).isZero();
        // In one run.
        Workshop together = twoAccounts();
        together.replace(
                "bank.yaml",
                "intake: [{files: bank.csv, layout: bank-layout.yaml}]",
                "intake: [{files: bank.csv, layout: bank-layout.yaml}, {files: other.csv, layout: other-layout.yaml}]");
        Outcome both = together.run("bank");
        assertThat(blockers(both)).containsExactly("transfer-booked2");
        assertThat(both.report().clear().documents()).isEqualTo(1);
    }

    @Test
    public void bothEndsThroughAClearingAccountAndOtherAmountsGoOut() throws Exception {
        Workshop through = twoAccounts();
        through.replace("coding.csv", "to reserve,,,1250", "to reserve,,,1260")
                .replace("coding.csv", "from current,,,1200", "from current,,,1260");
        through.run("bank");
        assertThat(through.run("other").report().clear().documents()).isEqualTo(1);
        Workshop another = twoAccounts();
        another.run("bank");
        another.replace("other.csv", "500.00,,700.00", "501.00,,701.00");
        assertThat(another.run("other").report().clear().documents()).isEqualTo(1);
    }

    private static List<Finding> transfers(Outcome outcome) {
        return Workshop.told(outcome).stream()
                .filter(found -> found.rule() == Rule.TRANSFER_OPEN)
                .toList();
    }

    @Test
    public void bothEndsGoThroughTheAccountForTransfers() throws Exception {
        Workshop shop = twoAccounts();
        shop.replace("books/chart.csv", "1260,Transfers,asset,clearing", "1260,Transfers,asset,transfer");
        Outcome first = shop.run("bank");
        assertThat(first.report().clear().documents()).isEqualTo(1);
        assertThat(shop.delivered()).contains(",1260,").doesNotContain(",1250,");
        assertThat(transfers(first))
                .singleElement()
                .satisfies(open -> assertThat(open.toString())
                        .contains("caution", "1250", "no line within 5 days answers it yet"));
        // It is listed until the other end comes.
        Company company = Company.in(shop.folder);
        assertThat(company.status().sheets())
                .filteredOn(sheet -> sheet.sheet().equals("bank.yaml"))
                .singleElement()
                .satisfies(sheet -> assertThat(sheet.transfers()).hasSize(1));
        Outcome other = shop.run("other");
        assertThat(other.report().clear().documents()).isEqualTo(1);
        assertThat(transfers(other)).isEmpty();
        assertThat(company.status().sheets())
                .allSatisfy(sheet -> assertThat(sheet.transfers()).isEmpty());
        // In one run, in either order, nothing is told.
        Workshop together = twoAccounts();
        together.replace("books/chart.csv", "1260,Transfers,asset,clearing", "1260,Transfers,asset,transfer");
        together.replace(
                "bank.yaml",
                "intake: [{files: bank.csv, layout: bank-layout.yaml}]",
                "intake: [{files: bank.csv, layout: bank-layout.yaml}, {files: other.csv, layout: other-layout.yaml}]");
        Outcome both = together.run("bank");
        assertThat(both.report().clear().documents()).isEqualTo(2);
        assertThat(transfers(both)).isEmpty();
    }

    @Test
    public void anEndThatTheOtherStatementDoesNotAnswerIsHeld() throws Exception {
        Workshop shop = twoAccounts();
        shop.replace("books/chart.csv", "1260,Transfers,asset,clearing", "1260,Transfers,asset,transfer");
        shop.put("other.csv", Workshop.BANK_TITLES + """
                Mon 01/03/2027,shop,1.00,,201.00
                Fri 12/03/2027,shop,1.00,,202.00
                """);
        shop.run("other");
        Outcome held = shop.run("bank");
        assertThat(blockers(held)).containsExactly("transfer-open2");
        assertThat(held.report().clear().documents()).isZero();
    }

    @Test
    public void twoEntriesUnderOneNumberAreHeldAndASeriesTellsThemApart() throws Exception {
        StringBuilder file = new StringBuilder("ref,date,account,amount,src\n");
        file.append("9,01/03/2027,5010,10.00,A\n9,01/03/2027,1200,-10.00,A\n");
        for (int i = 100; i < 130; i++) {
            file.append(i + ",02/03/2027,5010,1.00,A\n" + i + ",02/03/2027,1200,-1.00,A\n");
        }
        file.append("9,01/03/2027,5020,70.00,B\n9,01/03/2027,1200,-70.00,B\n");
        Workshop workshop = new Workshop().put("a.csv", file.toString());
        String layout = MONEY_LAYOUT.replace("  currency:  {column: curr}\n", "") + "unused: [src]\n";
        Outcome outcome = workshop.takes("journal", "a.csv", layout).run("journal");
        assertThat(blockers(outcome)).contains("two-entries2");
        assertThat(Workshop.told(outcome).toString()).contains("rows 2 to 3 and rows 64 to 65");
        assertThat(outcome.report().clear().documents()).isEqualTo(30);
        Outcome apart = workshop.takes(
                        "journal", "a.csv", MONEY_LAYOUT.replace("currency:  {column: curr}", "series: {column: src}"))
                .run("journal");
        assertThat(blockers(apart)).isEmpty();
        assertThat(apart.report().clear().documents()).isEqualTo(32);
    }

    @Test
    public void twoSourcesThatBothCountFromOneDoNotMeet() throws Exception {
        String rows = "1,01/03/2027,5010,10.00\n1,01/03/2027,1200,-10.00\n";
        Workshop workshop = new Workshop()
                .put("a.csv", "ref,date,account,amount\n" + rows)
                .put("b.csv", "ref,date,account,amount\n" + rows.replace("10.00", "12.00"));
        String layout = MONEY_LAYOUT.replace("currency:  {column: curr}", "series: {constant: SERIES}");
        workshop.takes("journal", "a.csv", layout.replace("SERIES", "sales")).run("journal");
        Outcome other = workshop.takes("journal", "b.csv", layout.replace("SERIES", "payroll"))
                .run("journal");
        assertThat(blockers(other)).isEmpty();
        assertThat(other.report().clear().documents()).isEqualTo(1);
        Outcome same = workshop.takes("journal", "b.csv", layout.replace("SERIES", "sales"))
                .run("journal");
        assertThat(blockers(same)).contains("changed-since-delivered2");
    }

    @DataProvider
    public Object[][] withoutEffect() {
        return new Object[][] {
            {"journal", "account: 1200", "'account' has no effect"},
            {"journal", "file: {order: newest first}", "'order' has no effect"},
            {"invoice", "file: {order: newest first}", "'order' has no effect"},
            {"journal", "credits: negative", "'credits' has no effect"},
            {"journal", "credits: positive", "'credits' has no effect"},
            {"journal", "signs: balance reversed", "has no effect without a balance"},
            {"journal", "stated: {carried: C}", "has no effect without the balance"},
            {"journal", "stated: {owed: yes}", "has no effect without a balance"},
            {"invoice", "allow: [both sides netted]", "has no effect without two sides"},
            {"invoice", "allow: [blank is nil]", "has no effect on invoice lines"},
            {"invoice", "allow: [control lines without party]", "has no effect on invoice lines"},
        };
    }

    @Test(dataProvider = "withoutEffect")
    public void aKeyThatChangesNothingIsRefused(String kind, String key, String says) throws Exception {
        Workshop workshop = new Workshop().journal("").invoice("");
        workshop.replace(kind + "-layout.yaml", "fields:", key + "\nfields:");
        assertThatThrownBy(() -> workshop.open(kind)).hasMessageContaining(says);
    }

    @Test
    public void settingsWithoutEffectAreRefused() throws Exception {
        Workshop invoices = new Workshop().put("invoice.csv", Workshop.INVOICE_TITLES);
        invoices.replace("invoice-layout.yaml", "fields:", "signs: reversed\nfields:");
        assertThatThrownBy(() -> invoices.run("invoice"))
                .hasMessageContaining("'signs' has no effect on invoice lines");
        Workshop fanned = new Workshop().put("a.csv", "Day,Pay,Kept\n01/03/2027,10.00,10.00\n");
        fanned.takes("journal", "a.csv", """
                layout: Pay
                gives: journal lines
                stated: {totals: Total}
                fan out:
                  - {column: Pay, account: "5010", side: debit}
                  - {column: Kept, account: "1200", side: credit}
                fields:
                  reference: {constant: P1}
                  date: {column: Day, pattern: dd/MM/uuuu}
                  account: {column: fan account}
                  amount: {column: fan amount, side: {column: fan side, plus: debit, minus: credit}}
                """);
        assertThatThrownBy(() -> fanned.run("journal")).hasMessageContaining("'stated: totals' has no effect");
        // What a fan-out uses is no unexpected column.
        fanned.replace("journal-layout.yaml", "stated: {totals: Total}\n", "");
        Outcome outcome = fanned.run("journal");
        assertThat(outcome.report().clear().documents()).isEqualTo(1);
        assertThat(Workshop.told(outcome)).isEmpty();
    }

    // No list says which departments there are; a misspelt one is seen, because the rarest stand first.
    @Test
    public void valuesOfADepartmentAreCounted() throws Exception {
        Workshop workshop = new Workshop().put("a.csv", """
                ref,date,account,amount,dept
                J1,01/03/2027,5010,4.00,CAST
                J1,01/03/2027,1200,-4.00,CAST
                J2,02/03/2027,5010,3.00,Nosuchdept
                J2,02/03/2027,1200,-3.00,
                """);
        String layout = MONEY_LAYOUT.replaceFirst("(?m)^ +currency.*\\R", "  department: {column: dept}\n");
        Outcome outcome = workshop.takes("journal", "a.csv", layout).run("journal");
        assertThat(outcome.summary(SummaryText.Style.PLAIN)).contains("department  Nosuchdept 1, CAST 2");
        assertThat(outcome.json().replaceAll("\\s", ""))
                .contains("\"values\":{\"department\":{\"CAST\":2,\"Nosuchdept\":1}}");
    }

    @Test
    public void aSecretThatStandsWhereItsNameBelongsIsNotPrintedBack() throws Exception {
        Workshop workshop = new Workshop()
                .put("ledgers/web.yaml", "ledger: W\nkind: http\naddress: http://localhost:1\ntoken from: s3cret77\n");
        LedgerSettings settings = LedgerSettings.read("web", workshop.folder);
        assertThatThrownBy(() -> Ledgers.open(settings, null))
                .hasMessageContaining("token from")
                .satisfies(e -> assertThat(e.getMessage()).doesNotContain("s3cret77"));
    }

    @Test
    public void codingThatChangedAfterDeliveryIsTold() throws Exception {
        for (int lines : new int[] {2, 400}) {
            StringBuilder rows = new StringBuilder();
            for (int i = 1; i <= lines; i++) {
                rows.append("Mon 01/03/2027,tin ")
                        .append(i)
                        .append(",,")
                        .append(i)
                        .append(".00,\n");
                rows.append("Mon 01/03/2027,shop ")
                        .append(i)
                        .append(',')
                        .append(i)
                        .append(".00,,\n");
            }
            Workshop workshop = new Workshop().bank(rows.toString());
            workshop.replace("bank-layout.yaml", "  balance:   {column: Balance}\n", "");
            workshop.run("bank");
            assertThat(workshop.run("bank").findings().toString()).doesNotContain("coded-otherwise");
            workshop.replace("coding.csv", "tin,out,tin,,,5010", "tin,out,tin,,,5020");
            assertThat(workshop.run("bank").findings())
                    .filteredOn(f -> f.rule() == Rule.CODED_OTHERWISE)
                    .singleElement()
                    .satisfies(f -> {
                        assertThat(f.origin().row()).isEqualTo(2);
                        assertThat(f.reason()).startsWith(lines + " lines went out before, coded otherwise");
                    });
        }
    }

    // What a file itself says of a line is not lost where the line is led through the account for transfers.
    @Test
    public void aTransferThatComesCodedKeepsItsDepartment() throws Exception {
        Workshop shop = twoAccounts();
        shop.replace("books/chart.csv", "1260,Transfers,asset,clearing", "1260,Transfers,asset,transfer")
                .replace("bank.yaml", "coding: {table: coding.csv, uncoded: hold}\n", "")
                .replace(
                        "bank-layout.yaml",
                        "  balance:   {column: Balance}",
                        "  balance: {column: Balance}\n  account: {column: To}\n  department: {column: Dept}")
                .replace("journals.yaml", "  Amount:", "  Dept: {field: department}\n  Amount:")
                .put("bank.csv", "Date,Text,In,Out,Balance,To,Dept\nTue 02/03/2027,saved,,500.00,100.00,1250,SITE\n");
        shop.run("bank");
        assertThat(shop.delivered()).contains(",1260,saved,SITE,500.00").doesNotContain(",1250,");
    }
}
