package io.mivrel;

import static io.mivrel.model.Rule.*;
import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.Iterator;
import java.util.List;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every rule, raised by a small file and found at its place. */
public class RulesTest {
    private static final String GOOD_VOUCHER = "1,01/03/2027,5010,tin,10.00,,,\n1,01/03/2027,2100,tin,,10.00,,\n";

    /** A file that raises a rule at a row, in the run of a kind. */
    private record Case(Rule rule, String kind, long row, Workshop workshop, String says) {
        @Override
        public String toString() {
            return rule.id();
        }
    }

    private static Case bank(Rule rule, long row, String rows, String says) {
        return new Case(rule, "bank", row, new Workshop().bank(rows), says);
    }

    private static Case journal(Rule rule, long row, String rows, String says) {
        return new Case(rule, "journal", row, new Workshop().journal(rows), says);
    }

    private static Case invoice(Rule rule, long row, String rows, String says) {
        return new Case(rule, "invoice", row, new Workshop().invoice(rows), says);
    }

    private static List<Case> all() {
        List<Case> cases = new ArrayList<>();
        intake(cases);
        cells(cases);
        documents(cases);
        delivery(cases);
        return cases;
    }

    private static void intake(List<Case> cases) {
        cases.add(new Case(FILE_EMPTY, "bank", 0, new Workshop().put("bank.csv", ""), "holds nothing"));
        byte[] wide = (Workshop.BANK_TITLES + "a,b,c,d,e\n".repeat(9)).getBytes(StandardCharsets.UTF_16LE);
        cases.add(new Case(FILE_NOT_TEXT, "bank", 0, new Workshop().put("bank.csv", wide), "not text"));
        Workshop late = new Workshop().bank("").replace("bank-layout.yaml", "until: Total", "titles: row 9");
        cases.add(new Case(TITLES_MISSING, "bank", 0, late, "row 9"));
        Workshop renamed =
                new Workshop().put("bank.csv", "Date,Text,Inn,Out,Balance\nMon 01/03/2027,shop,1.00,,1.00\n");
        cases.add(new Case(COLUMN_MISSING, "bank", 1, renamed, "was 'Inn' meant?"));
        Workshop twice = new Workshop().put("bank.csv", "Date,Text,In,In,Out,Balance\n");
        cases.add(new Case(COLUMN_TWICE, "bank", 1, twice, "column: 3"));
        Workshop more = new Workshop().put("bank.csv", "Date,Text,In,Out,Balance,Branch\n");
        cases.add(new Case(COLUMN_UNEXPECTED, "bank", 1, more, "'unused'"));
        byte[] latin =
                (Workshop.BANK_TITLES + "Mon 01/03/2027,café shop,1.00,,1.00\n").getBytes(StandardCharsets.ISO_8859_1);
        cases.add(new Case(BYTES_UNREADABLE, "bank", 2, new Workshop().put("bank.csv", latin), "encoding"));
        cases.add(bank(ROW_NOT_TEXT, 2, "Mon 01/03/2027,sh\0op,1.00,,1.00\n", "NUL"));
        cases.add(bank(ROW_TOO_LONG, 2, "x".repeat(1_100_000) + "\n", "1,048,576"));
        cases.add(bank(QUOTE_UNCLOSED, 2, "Mon 01/03/2027,\"shop,1.00,,1.00\n", "quote"));
        cases.add(bank(QUOTE_INSIDE, 2, "Mon 01/03/2027,shop 5\" bell,1.00,,1.00\n", "quote"));
        cases.add(bank(CELLS_MISSING, 2, "Mon 01/03/2027,shop\n", "2 cells"));
        cases.add(bank(CELLS_EXTRA, 2, "Mon 01/03/2027,shop, large,1.00,,1.00\n", "6 cells"));
        cases.add(bank(
                ROWS_BELOW_DATA, 2, ",Total,,,\nMon 01/03/2027,shop,1.00,,1.00\n", "1 row with a date stands below"));
        cases.add(bank(
                BALANCE_BROKEN,
                3,
                "Mon 01/03/2027,shop,1.00,,10.00\nMon 01/03/2027,shop,2.00,,13.00\n",
                "a line of 1.00 is missing"));
        cases.add(bank(BALANCE_CLOSING, 3, "Mon 01/03/2027,shop,1.00,,10.00\n,Total,,,12.00\n", "lead to 10.00"));
    }

    private static void cells(List<Case> cases) {
        cases.add(bank(VALUE_MISSING, 2, ",shop,1.00,,\n", "date is required"));
        cases.add(invoice(VALUE_UNKNOWN, 2, "1,XXX,CUS-001,01/03/2027,,b,,,10.00,STD,2.00,4000,\n", "BILL, CRN, INV"));
        cases.add(bank(DATE_UNREADABLE, 2, "Mon 31/11/2027,shop,1.00,,\n", "November has 30 days"));
        cases.add(bank(DATE_WEEKDAY, 2, "Tue 01/03/2027,shop,1.00,,\n", "is a Monday"));
        cases.add(bank(AMOUNT_UNREADABLE, 2, "Mon 01/03/2027,shop,1O4.50,,\n", "104.50"));
        cases.add(bank(AMOUNT_TOO_PRECISE, 2, "Mon 01/03/2027,shop,1.005,,\n", "2 decimals"));
        cases.add(bank(AMOUNT_TOO_LARGE, 2, "Mon 01/03/2027,shop,99999999999999.00,,\n", "larger"));
        cases.add(bank(AMOUNT_MISSING, 2, "Mon 01/03/2027,shop,,,\n", "neither money in nor money out"));
        cases.add(bank(AMOUNT_ON_BOTH_SIDES, 2, "Mon 01/03/2027,shop,1.00,3.00,\n", "the net would be -2.00"));
        cases.add(bank(AMOUNT_ZERO, 2, "Mon 01/03/2027,shop,0.00,,\n", "nil"));
        cases.add(journal(
                AMOUNT_NEGATIVE_ON_SIDE,
                2,
                "1,01/03/2027,5010,tin,(10.00),,,\n1,01/03/2027,2100,tin,,(10.00),,\n",
                "a negative debit is taken as a credit"));
    }

    private static void documents(List<Case> cases) {
        cases.add(journal(DATE_OUTSIDE_PERIODS, 2, GOOD_VOUCHER.replace("2027", "2072"), "was 2027-03-01 meant?"));
        cases.add(journal(PERIOD_CLOSED, 2, GOOD_VOUCHER.replace("01/03/2027", "31/12/2026"), "closed"));
        cases.add(journal(
                REFERENCE_RETURNS,
                2,
                "1,01/03/2027,5010,tin,10.00,,,\n" + GOOD_VOUCHER.replace("1,01", "2,01")
                        + "1,01/03/2027,2100,tin,,10.00,,\n",
                "from row 2 to row 5"));
        String bill = "BILL,SUP-001,01/03/2027,,tin,,,10.00,STD,2.00,5010,12.00\n";
        cases.add(invoice(DOCUMENT_REPEATED, 3, "T-66," + bill + "T-066," + bill, "as T-66"));
        cases.add(journal(HEADING_DIFFERS, 3, GOOD_VOUCHER.replace("1,01/03/2027,2100", "1,02/03/2027,2100"), "row 2"));
        cases.add(journal(DOCUMENT_TOO_LARGE, 2, "1,01/03/2027,5010,,1,,,\n".repeat(50_001), "right column"));
        cases.add(journal(ACCOUNT_UNKNOWN, 2, GOOD_VOUCHER.replace("5010", "5100"), "5010 Tin"));
        cases.add(journal(ACCOUNT_CLOSED, 2, GOOD_VOUCHER.replace("5010", "6215"), "use 6200 Telephone and internet"));
        cases.add(journal(ACCOUNT_RESERVED, 2, GOOD_VOUCHER.replace("5010", "3100"), "receiver"));
        cases.add(
                invoice(ACCOUNT_UNSUITABLE, 2, "1,INV,CUS-001,01/03/2027,,b,,,10.00,STD,2.00,1200,\n", "kind 'bank'"));
        cases.add(journal(TAX_CODE_UNKNOWN, 2, GOOD_VOUCHER.replace("10.00,,,\n", "10.00,,SDT,\n"), "was STD meant?"));
        cases.add(
                invoice(PARTY_UNKNOWN, 2, "1,INV,CUS-01,01/03/2027,,b,,,10.00,STD,2.00,4000,\n", "was CUS-001 meant?"));
        cases.add(
                invoice(PARTY_UNSUITABLE, 2, "1,INV,SUP-001,01/03/2027,,b,,,10.00,STD,2.00,4000,\n", "is a supplier"));
        cases.add(journal(
                JOURNAL_UNBALANCED, 2, GOOD_VOUCHER.replace("tin,10.00", "tin,01.00"), "decimal point slipped"));
        cases.add(invoice(NET_DIFFERS, 2, "1,INV,CUS-001,01/03/2027,,b,3,4.00,21.00,STD,4.20,4000,\n", "swapped"));
        cases.add(invoice(
                TAX_DIFFERS, 2, "1,INV,CUS-001,01/03/2027,,b,,,10.00,STD,2.02,4000,\n", "20% of 10.00 is 2.00"));
        cases.add(invoice(TOTAL_DIFFERS, 2, "1,INV,CUS-001,01/03/2027,,b,,,10.00,STD,2.00,4000,13.00\n", "12.00"));
        cases.add(invoice(
                DUE_BEFORE_DATE, 2, "1,INV,CUS-001,31/03/2027,01/03/2027,b,,,10.00,STD,2.00,4000,\n", "swapped"));
        cases.add(bank(UNCODED, 2, "Mon 01/03/2027,unheard of,,1.00,\n", "direction out"));
        Workshop suspense = new Workshop().bank("Mon 01/03/2027,unheard of,,1.00,\n");
        suspense.replace("bank.yaml", "uncoded: hold", "uncoded: 2900");
        cases.add(new Case(UNCODED_TO_SUSPENSE, "bank", 2, suspense, "goes to 2900"));
        cases.add(bank(CODING_ENTRY_UNUSED, 0, "Mon 01/03/2027,shop,1.00,,\n", "decided no line"));
    }

    private static void delivery(List<Case> cases) {
        cases.add(journal(CODE_TOO_LONG, 2, GOOD_VOUCHER.replace("1,01", "9".repeat(21) + ",01"), "takes 20"));
        cases.add(journal(CODE_REFUSED, 2, GOOD_VOUCHER.replace("1,01", "1*,01"), "refuses *"));
        cases.add(journal(TEXT_CUT, 2, GOOD_VOUCHER.replace("tin,10", "t".repeat(31) + ",10"), "takes 30"));
        cases.add(journal(TEXT_REFUSED_CHARACTERS, 2, GOOD_VOUCHER.replace("tin,10", "<tin>,10"), "refuses < >"));
        cases.add(journal(TEXT_FORMULA, 2, GOOD_VOUCHER.replace("tin,10", "=tin(),10"), "spreadsheet"));
        cases.add(journal(TEXT_NOT_ENCODABLE, 2, GOOD_VOUCHER.replace("tin,10", "Łódź,10"), "windows-1252"));
        Workshop changed = delivered();
        changed.journal(GOOD_VOUCHER.replace("10.00", "11.00"));
        cases.add(new Case(CHANGED_SINCE_DELIVERED, "journal", 2, changed, "other figures"));
        cases.add(new Case(DELIVERED_BEFORE, "journal", 0, delivered(), "1 document was delivered"));
    }

    private static Workshop delivered() {
        Workshop workshop = new Workshop().journal(GOOD_VOUCHER);
        try {
            workshop.run("journal");
        } catch (Exception e) {
            throw new AssertionError(e);
        }
        return workshop;
    }

    @DataProvider
    public static Iterator<Object[]> cases() {
        return all().stream().map(c -> new Object[] {c}).iterator();
    }

    @Test(dataProvider = "cases")
    public void isRaisedAtItsPlaceInPlainWords(Object given) throws Exception {
        Case expected = (Case) given;
        Outcome outcome = expected.workshop.run(expected.kind);
        List<Finding> findings = outcome.report().findings().worstFirst();
        assertThat(findings).anySatisfy(found -> {
            assertThat(found.rule()).isEqualTo(expected.rule);
            assertThat(found.origin().row()).isEqualTo(expected.row);
            assertThat(found.reason() + " " + found.suggestion()).contains(expected.says);
        });
        boolean blocked = findings.stream().anyMatch(f -> f.severity() == Severity.BLOCKER);
        assertThat(outcome.status()).isEqualTo(blocked ? 1 : 0);
    }

    @Test
    public void noRuleIsWithoutATest() {
        Set<Rule> tested = EnumSet.noneOf(Rule.class);
        all().forEach(c -> tested.add(c.rule));
        assertThat(tested).containsExactlyInAnyOrderElementsOf(Arrays.asList(Rule.values()));
    }

    @Test
    public void namesArePermanent() {
        // A retired name is never used again, and a name that was given out never changes: only ever add to this list.
        assertThat(Arrays.stream(Rule.values()).map(Rule::id))
                .contains("account-unknown", "journal-unbalanced", "uncoded");
        assertThat(Arrays.stream(Rule.values()).map(Rule::id))
                .doesNotHaveDuplicates()
                .allMatch(id -> id.matches("[a-z-]+"));
    }
}
