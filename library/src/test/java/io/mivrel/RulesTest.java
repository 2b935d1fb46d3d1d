package io.mivrel;

import static io.mivrel.model.Rule.*;
import static io.mivrel.model.Rule.AMOUNT_IN_OTHER_CURRENCY;
import static io.mivrel.model.Rule.CELL_MISSING;
import static io.mivrel.model.Rule.FILE_HOLDER_SPELLED;
import static io.mivrel.model.Rule.FILE_OF_ANOTHER;
import static io.mivrel.model.Rule.FILE_OWNER_UNKNOWN;
import static io.mivrel.model.Rule.ROWS_NOT_PROVED;
import static io.mivrel.model.Rule.ROW_SUM_DIFFERS;
import static io.mivrel.model.Rule.SIGNS_NOT_SAID;
import static io.mivrel.model.Rule.STATED_MISSING;
import static io.mivrel.model.Rule.WORD_UNKNOWN;
import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Finding;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
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

    private static String vouchers(String... days) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < days.length; i++) {
            all.append(GOOD_VOUCHER.replace("1,01/03", i + 1 + "," + days[i]).replace("10.00", i + 10 + ".00"));
        }
        return all.toString();
    }

    private static Case invoice(Rule rule, long row, String rows, String says) {
        return new Case(rule, "invoice", row, new Workshop().invoice(rows), says);
    }

    private static List<Case> all() {
        List<Case> cases = new ArrayList<>();
        intake(cases);
        expected(cases);
        cells(cases);
        documents(cases);
        delivery(cases);
        formats(cases);
        files(cases);
        shapes(cases);
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

    // What a file proves and whose it is, as its layout expects both.
    private static void expected(List<Case> cases) {
        String row = "Mon 01/03/2027,shop,1.00,,10.00\n";
        cases.add(bank(ROWS_NOT_PROVED, 2, row, "1 of 1 row, in 1.00, out 0.00"));
        cases.add(owner(
                STATED_MISSING, 0, "stated: {closing: Closing}\n", "Account,123\nHolder,x\n" + row, "does not state"));
        String whose = "whose: {number: {label: Account, is: \"12 34\"}, holder: {label: Holder, is: Larkmoor Ltd}}\n";
        cases.add(owner(FILE_OF_ANOTHER, 1, whose, "Account,1235\nHolder,LARKMOOR\n" + row, "of the number 12 34"));
        cases.add(owner(FILE_OWNER_UNKNOWN, 0, whose, "Konto,1234\nHolder,Larkmoor\n" + row, "does not have it"));
        cases.add(
                owner(FILE_HOLDER_SPELLED, 2, whose, "Account,1234\nHolder,Larkmoor Foundry\n" + row, "of the holder"));
        cases.add(owner(
                ROW_SUM_DIFFERS,
                4,
                "row sums: [{plus: Balance, minus: [In]}]\n",
                "Account,1\nHolder,x\n" + row.replace("10.00", "1.01"),
                "Balance = In does not hold"));
        Workshop euro = new Workshop()
                .replace("bank-layout.yaml", "fields:", "fields:\n  currency: {column: Curr}")
                .put("bank.csv", Workshop.BANK_TITLES.replace("\n", ",Curr\n") + row.replace("\n", ",EUR\n"));
        cases.add(new Case(AMOUNT_IN_OTHER_CURRENCY, "bank", 2, euro, "would be taken for GBP"));
        Workshop card = new Workshop().bank(row);
        card.replace("books/chart.csv", "1200,Current account,asset,bank", "1200,Card,liability,card");
        cases.add(new Case(SIGNS_NOT_SAID, "bank", 0, card, "signs: all reversed"));
    }

    private static Case owner(Rule rule, long row, String layout, String file, String says) {
        String above = file.substring(0, file.indexOf("Mon"));
        Workshop workshop = new Workshop()
                .replace("bank-layout.yaml", "until: Total", "titles: row 3")
                .replace("bank-layout.yaml", "fields:", layout + "fields:")
                .put("bank.csv", above + Workshop.BANK_TITLES + file.substring(file.indexOf("Mon")));
        return new Case(rule, "bank", row, workshop, says);
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
        Workshop cut = new Workshop()
                .bank("")
                .put(
                        "bank.csv",
                        "Date,Text,Balance,In\nMon 01/03/2027,shop,1.00,1.00\nMon 01/03/2027,shop,2.50,1.50\n"
                                + "Mon 01/03/2027,shop,4.75,2.25\nMon 01/03/2027,shop,8.00,3")
                .replace("bank-layout.yaml", "  money out: {column: Out}\n", "")
                .replace("bank-layout.yaml", "money in: ", "amount:   ")
                .replace("bank-layout.yaml", ", until: Total", "");
        cases.add(new Case(ROW_CUT_OFF, "bank", 5, cut, "shorter than those above"));
        byte[] mixed = (Workshop.BANK_TITLES + "Mon 01/03/2027,caf\u00c3\u00a9 shop,1.00,,1.00\n,Total,,,\n")
                .getBytes(StandardCharsets.ISO_8859_1);
        Workshop twoEncodings = new Workshop()
                .put("bank.csv", mixed)
                .replace("bank-layout.yaml", "encoding: UTF-8", "encoding: windows-1252");
        cases.add(new Case(TEXT_MIXED_ENCODING, "bank", 2, twoEncodings, "read as windows-1252"));
        Workshop noSigns = new Workshop()
                .bank("Mon 01/03/2027,shop,1.00,,10.00\nMon 01/03/2027,tin,2.00,,8.00\n,Total,,,\n")
                .replace("bank-layout.yaml", "gives:", "signs: by balance\ngives:")
                .replace("bank-layout.yaml", "  money out: {column: Out}\n", "")
                .replace("bank-layout.yaml", "{column: Balance}\n", "{column: Balance}\nunused: [Out]\n")
                .replace("bank-layout.yaml", "money in: ", "amount:   ");
        cases.add(new Case(AMOUNT_SIDE_UNKNOWN, "bank", 2, noSigns, "no balance before this row"));
        cases.add(bank(AMOUNT_ZERO, 2, "Mon 01/03/2027,shop,0.00,,\n", "zero"));
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
        cases.add(invoice(
                DOCUMENT_ALIKE, 3, "A-1," + bill + "B-9," + bill.replace("01/03/2027", "03/03/2027"), "2 days apart"));
        Workshop noBalance = new Workshop()
                .bank("Mon 01/03/2027,shop,1.00,,\nMon 01/03/2027,shop,1.00,,\n,Total,,,\n")
                .replace("bank-layout.yaml", "  balance:   {column: Balance}\n", "unused: [Balance]\n");
        cases.add(new Case(LINE_ALIKE, "bank", 3, noBalance, "equal to row 2"));
        cases.add(journal(LINES_REPEATED, 4, GOOD_VOUCHER + GOOD_VOUCHER, "rows 2, 3 and again rows 4, 5"));
        cases.add(invoice(
                DOCUMENT_SIGN, 2, "1,CRN,CUS-001,01/03/2027,,b,,,-10.00,STD,-2.00,4000,-12.00\n", "credits: negative"));
        cases.add(invoice(
                LINE_NEGATIVE,
                3,
                "1,INV,CUS-001,01/03/2027,,b,,,10.00,STD,2.00,4000,\n1,INV,CUS-001,01/03/2027,,b,,,-5.00,STD,-1.00,4000,\n",
                "takes from its document"));
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
        cases.add(bank(
                DATE_OUT_OF_ORDER,
                3,
                "Mon 01/03/2027,shop,1.00,,\nMon 02/08/2027,shop,1.00,,\nWed 03/03/2027,shop,1.00,,\n",
                "was 2027-03-02 meant?"));
        cases.add(journal(DATE_SWAPPED, 6, vouchers("01/03", "02/03", "03/05", "08/03"), "was 2027-03-05 meant?"));
        cases.add(journal(DATE_SWAPPED, 8, vouchers("01/03", "02/03", "05/03", "03/06"), "was 2027-03-06 meant?"));
        StringBuilder charges = new StringBuilder();
        for (int day = 10; day < 20; day++) {
            charges.append("01/03/2027,tin ")
                    .append(day)
                    .append(",,")
                    .append(day)
                    .append(".10,\n");
        }
        Workshop card = new Workshop().bank(charges.toString());
        card.replace("bank-layout.yaml", "EEE dd", "dd")
                .replace("bank-layout.yaml", "  balance:   {column: Balance}\n", "");
        cases.add(new Case(FILE_UNLIKE_ACCOUNT, "bank", 0, card, "as in the file of a card"));
        Workshop bank = new Workshop().bank(charges.toString().replaceAll(",,(1[4-9].10),", ",$1,,"));
        bank.replace("bank-layout.yaml", "EEE dd", "dd")
                .replace("bank-layout.yaml", "  balance:   {column: Balance}\n", "");
        bank.replace("books/chart.csv", "1200,Current account,asset,bank", "1200,Current account,liability,card");
        cases.add(new Case(FILE_UNLIKE_ACCOUNT, "bank", 0, bank, "6 of 10 amounts come in"));
        Workshop nobody = new Workshop().journal(GOOD_VOUCHER);
        nobody.replace("journal-layout.yaml", "allow: [control lines without party]\n", "");
        cases.add(new Case(PARTY_MISSING, "journal", 3, nobody, "control account of the suppliers"));
        Workshop elsewhere = new Workshop().bank("Mon 01/03/2027,shop,1.00,,\n");
        elsewhere.replace("bank.yaml", "run:", "dates: 2027-04-01 to 2027-04-30\nrun:");
        cases.add(new Case(NOTHING_CLEAR, "bank", 0, elsewhere, "1 outside the wanted dates"));
        cases.add(new Case(LINE_AMENDED, "bank", 2, amended(), "not in this file as they were"));
        cases.add(journal(CODE_INVISIBLE, 2, GOOD_VOUCHER.replaceFirst("1,01", "1\u200b,01"), "U+200B"));
        cases.add(journal(CODE_FORMULA, 2, GOOD_VOUCHER.replace("1,01", "=1,01"), "begins with '='"));
        cases.add(bank(DATA_END_MISSING, 0, "Mon 01/03/2027,shop,1.00,,\n", "cut off"));
        cases.add(bank(UNCODED, 2, "Mon 01/03/2027,unheard of,,1.00,\n", "direction out"));
        Workshop suspense = new Workshop().bank("Mon 01/03/2027,unheard of,,1.00,\n");
        suspense.replace("bank.yaml", "uncoded: hold", "uncoded: 2900");
        cases.add(new Case(UNCODED_TO_SUSPENSE, "bank", 2, suspense, "goes to 2900"));
        cases.add(bank(CODING_ENTRY_UNUSED, 0, "Mon 01/03/2027,shop,1.00,,\n", "decided no line"));
    }

    private static Workshop amended() {
        try {
            Workshop workshop = new Workshop().bank("Mon 01/03/2027,shop,1.00,,1.00\n");
            workshop.run("bank");
            return workshop.bank("Mon 01/03/2027,shop,2.00,,2.00\n");
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    private static Workshop strict(String column) {
        return new Workshop()
                .put(
                        "journals.yaml",
                        "delivery: Strict\ntakes: journals\ncolumns:\n  Tax: {field: tax code, " + column
                                + "}\n  Amount: {field: amount}\n")
                .journal("1,01/03/2027,5010,tin,10.00,,STD,\n1,01/03/2027,1200,tin,,10.00,,\n");
    }

    private static void delivery(List<Case> cases) {
        cases.add(journal(CODE_TOO_LONG, 2, GOOD_VOUCHER.replace("1,01", "9".repeat(21) + ",01"), "takes 20"));
        cases.add(journal(CODE_REFUSED, 2, GOOD_VOUCHER.replace("1,01", "1*,01"), "refuses *"));
        cases.add(journal(TEXT_CUT, 2, GOOD_VOUCHER.replace("tin,10", "t".repeat(31) + ",10"), "takes 30"));
        cases.add(journal(TEXT_REFUSED_CHARACTERS, 2, GOOD_VOUCHER.replace("tin,10", "<tin>,10"), "refuses < >"));
        cases.add(journal(TEXT_FORMULA, 2, GOOD_VOUCHER.replace("tin,10", "=tin(),10"), "spreadsheet"));
        cases.add(journal(TEXT_NOT_ENCODABLE, 2, GOOD_VOUCHER.replace("tin,10", "Łódź,10"), "windows-1252"));
        cases.add(new Case(CELL_MISSING, "journal", 3, strict("required: yes"), "requires the column 'Tax'"));
        cases.add(new Case(
                WORD_UNKNOWN, "journal", 2, strict("values: {ZERO: Z}"), "no word for it in the column 'Tax'"));
        Workshop changed = delivered();
        changed.journal(GOOD_VOUCHER.replace("10.00", "11.00"));
        cases.add(new Case(CHANGED_SINCE_DELIVERED, "journal", 2, changed, "other figures"));
        cases.add(new Case(DELIVERED_BEFORE, "journal", 0, delivered(), "1 document was delivered"));
        Workshop anew = delivered();
        anew.journal(GOOD_VOUCHER.replace("10.00", "11.00").replace("01/03/2027", "01/12/2027"));
        cases.add(new Case(NUMBER_RETURNS, "journal", 2, anew, "more than half a year apart"));
        Workshop otherwise = delivered();
        otherwise.put("copies.yaml", otherwise.read("journals.yaml").replace("delivery: Journals", "delivery: Copies"));
        otherwise.sheet("journal", "", "copies.yaml");
        cases.add(new Case(DELIVERED_OTHERWISE, "journal", 0, otherwise, "and not by 'Copies'"));
        cases.add(
                new Case(DELIVERED_IN_ANOTHER_FORM, "bank", 0, inTwoForms("-1.00"), "1 line has the date and amount"));
        cases.add(new Case(DAYS_DELIVERED_BEFORE, "bank", 1, inTwoForms("-1.50"), "no line has this date and amount"));
    }

    // The first two days of March as text, delivered, and then one of them as a statement.
    private static Workshop inTwoForms(String amount) {
        Workshop workshop = new Workshop().bank("Mon 01/03/2027,shop,5.00,,5.00\nTue 02/03/2027,tin,,1.00,4.00\n");
        try {
            workshop.run("bank");
        } catch (Exception e) {
            throw new AssertionError(e);
        }
        return workshop.takes("bank", "s.ofx", "layout: B\ngives: bank lines\naccount: 1200\nfile: {kind: statement}\n")
                .put("s.ofx", OFX.replace("-1.00", amount).replace("<NAME>x", "<NAME>tin"));
    }

    private static Workshop foreign(String rows) {
        return shaped(PLACES + "  currency: {column: 5}\n  foreign amount: {column: 6}\nfile: {titles: none}\n", rows);
    }

    private static final String OFX =
            "<OFX><STMTRS><CURDEF>GBP<BANKACCTFROM><ACCTID>555</BANKACCTFROM><BANKTRANLIST><STMTTRN>"
                    + "<DTPOSTED>20270302<TRNAMT>-1.00<FITID>A<NAME>x</STMTTRN></BANKTRANLIST></STMTRS></OFX>";
    private static final String MT940 =
            ":20:R\n:25:555\n:28C:1\n:60F:C270301GBP2,00\n:61:270302D1,00NTRFA\n:62F:C270331GBP1,00\n";

    private static Workshop statement(String file, String text) {
        return new Workshop()
                .takes("bank", file, "layout: B\ngives: bank lines\naccount: 1200\nfile: {kind: statement}\n")
                .put(file, text);
    }

    private static Workshop known(Workshop workshop, String numberAndCurrency) {
        return workshop.replace("books/chart.csv", "tax code\n", "tax code,number,currency\n")
                .replace("books/chart.csv", "asset,bank,,", "asset,bank,,," + numberAndCurrency);
    }

    private static Case of(Rule rule, long row, Workshop workshop, String says) {
        return new Case(rule, workshop.isBank() ? "bank" : "journal", row, workshop, says);
    }

    private static String camt(String body) {
        return "<Document xmlns=\"urn:iso:std:iso:20022:tech:xsd:camt.053.001.04\"><A><Stmt>" + body
                + "</Stmt></A></Document>";
    }

    private static void formats(List<Case> cases) {
        cases.add(of(FILE_KIND_DIFFERS, 0, statement("a.ofx", "Date,Text\n"), "the file is plain text"));
        cases.add(of(FILE_ENDING_DIFFERS, 0, statement("a.csv", OFX), "it is a statement in OFX"));
        cases.add(of(FILE_DAMAGED, 1, statement("a.ofx", OFX.replace("</OFX>", "")), "ends before </OFX>"));
        cases.add(of(
                FILE_DAMAGED,
                1,
                statement("a.ofx", OFX.replace("<STMTTRN>", "<STMTTRM>")),
                "<STMTTRM>, which OFX does not know"));
        cases.add(of(FILE_DAMAGED, 5, statement("a.sta", MT940.replace(":61:", ":6I:")), "not a field of a statement"));
        cases.add(of(FILE_DAMAGED, 6, statement("a.sta", MT940.replace(":62F:", ":62M:")), "last page is missing"));
        cases.add(of(FILE_DAMAGED, 0, statement("a.xml", camt("<Ntri/>")), "<Ntri>"));
        cases.add(of(FILE_BEYOND_CAP, 3, statement("a.ofx", OFX + "\n\n<" + "x".repeat(300)), "256"));
        cases.add(of(ENTRY_UNREADABLE, 5, statement("a.sta", MT940.replace("D1,00", "1.00")), "not a statement entry"));
        cases.add(of(
                ENTRY_CURRENCY,
                1,
                statement("a.ofx", OFX.replace("<NAME>", "<CURRENCY><CURSYM>USD</CURRENCY><NAME>")),
                "currency"));
        cases.add(
                of(ENTRY_CORRECTS, 1, statement("a.ofx", OFX.replace("<NAME>", "<CORRECTFITID>Z<NAME>")), "corrects"));
        String entry = OFX.substring(OFX.indexOf("<STMTTRN>"), OFX.indexOf("</BANKTRANLIST>"));
        cases.add(of(ENTRY_TWICE, 2, statement("a.ofx", OFX.replace(entry, entry + entry)), "same identifier"));
        cases.add(of(
                ENTRY_OUTSIDE_STATEMENT,
                1,
                statement("a.ofx", OFX.replace("<STMTTRN>", "<DTSTART>20270201<DTEND>20270228<STMTTRN>")),
                "goes from 2027-02-01 to 2027-02-28"));
        String part = "<TxDtls><Amt Ccy=\"GBP\">1.00</Amt></TxDtls>";
        String batch = camt(
                "<Ntry><Amt Ccy=\"GBP\">3.00</Amt><CdtDbtInd>DBIT</CdtDbtInd><BookgDt><Dt>2027-03-02</Dt></BookgDt>"
                        + "<NtryDtls>" + part + part + "</NtryDtls></Ntry>");
        cases.add(of(BATCH_DIFFERS, 1, statement("a.xml", batch), "do not add up"));
        String totals = "<TxsSummry><TtlNtries><NbOfNtries>4</NbOfNtries></TtlNtries></TxsSummry>";
        cases.add(of(CONTROL_TOTAL_DIFFERS, 0, statement("a.xml", camt(totals)), "4 entries, but there are 0"));
        cases.add(of(
                BALANCE_CLOSING,
                0,
                statement("a.sta", MT940.replace("GBP1,00", "GBP9,00")),
                "an entry of 8.00 is missing"));
        cases.add(of(STATEMENT_GAP, 0, statement("a.sta", MT940 + MT940), "opens with 2.00"));
        cases.add(of(STATEMENT_ACCOUNT, 0, known(statement("a.sta", MT940), "777,"), "has the number 777"));
        cases.add(of(STATEMENT_ACCOUNT_UNCHECKED, 0, statement("a.sta", MT940), "has no number in the books"));
        cases.add(of(STATEMENT_CURRENCY, 0, known(statement("a.sta", MT940), "555,EUR"), "is kept in EUR"));
    }

    private static void files(List<Case> cases) {
        String first = Workshop.BANK_TITLES + "Mon 01/03/2027,shop,1.00,,1.00\nTue 02/03/2027,shop,2.00,,3.00\n";
        String second = Workshop.BANK_TITLES + "Tue 02/03/2027,shop,2.00,,3.00\nWed 03/03/2027,shop,5.00,,8.00\n";
        cases.add(new Case(LINES_TAKEN_ONCE, "bank", 0, two(first, second), "1 line stands in a file before it too"));
        String later = second.replace("3.00", "4.00").replace("8.00", "9.00").replace("Tue 02", "Wed 03");
        cases.add(new Case(STATEMENT_GAP, "bank", 0, two(first, later), "lines of -1.00 in all are missing"));
        String other = Workshop.BANK_TITLES + "Mon 01/03/2027,shop,7.00,,3.00\nWed 03/03/2027,shop,-3.00,,0.00\n";
        cases.add(new Case(FILES_OVERLAP, "bank", 0, two(first, other), "no line is the same in both"));
        Workshop plain = two(first.replaceAll(",[0-9.]+\n", ",\n"), second.replaceAll(",[0-9.]+\n", ",\n"));
        cases.add(new Case(LINES_TAKEN_ONCE_BY_CONTENT, "bank", 3, plain, "an equal line stands in another file"));
        String more = "Tue 02/03/2027,shop,9.00,,\n";
        Workshop several = two(
                first.replaceAll(",[0-9.]+\n", ",\n") + more,
                Workshop.BANK_TITLES + "Tue 02/03/2027,shop,2.00,,\n" + more + "Wed 03/03/2027,shop,5.00,,\n");
        cases.add(new Case(LINES_TAKEN_ONCE_BY_CONTENT, "bank", 0, several, "date, amount and text alone"));
    }

    private static Workshop two(String first, String second) {
        return new Workshop()
                .put("bank-1.csv", first)
                .put("bank-2.csv", second)
                .replace("bank.yaml", "files: bank.csv", "files: bank-*.csv");
    }

    private static Workshop shaped(String layout, String text) {
        return new Workshop()
                .takes("journal", "a.csv", "layout: J\ngives: journal lines\n" + layout)
                .put("a.csv", text);
    }

    private static final String PLACES = """
            fields:
              reference: {column: 1}
              date:      {column: 2, pattern: uuuu-MM-dd}
              account:   {column: 3}
              amount:    {column: 4}
            """;

    private static Workshop print(String more, String text) {
        return new Workshop().takes("bank", "a.prn", """
                        layout: P
                        gives: bank lines
                        account: 1200
                        file: {kind: fixed width, columns: {Day: 1-6, Text: 8-20, Amount: 22-30, Balance: 32-40}}
                        leave out: [{column: Text, begins: [CARRIED, PAGE TOTAL]}]
                        stated: {carried: CARRIED, totals: PAGE TOTAL}
                        unused: [line, Day]
                        fields:
                          date: {column: Whole, pattern: uuuu-MM-dd}
                          narrative: {column: Text}
                          amount: {column: Amount}
                          balance: {column: Balance}
                        """ + more).put("a.prn", text);
    }

    private static void prints(List<Case> cases) {
        String pages =
                "years: [{column: Day, pattern: dd MMM, period: Period, days: {pattern: dd/MM/uuuu}, title: Whole}]\n"
                        + "page heads: {begins: THE BANK, ends: '---'}\nwrapped: {begins: Day, joins: Text}\n";
        String head = "THE BANK\nPeriod 01/03/2027 to 31/03/2027\n---\n";
        String first = "01 Mar shop               1.00      5.00\n";
        cases.add(of(
                LINE_CONTINUES_NOTHING,
                6,
                print(pages, head + first + "\n       lost text\n"),
                "goes on where no row is open"));
        cases.add(of(
                LINE_CONTINUED_TWICE,
                4,
                print(pages, head + first + "       more               2.00      7.00\n"),
                "two values in one column"));
        cases.add(of(PAGE_HEAD_UNENDED, 5, print(pages, head + first + "THE BANK\nno end\n"), "no line that begins"));
        cases.add(of(DATE_YEAR_UNKNOWN, 4, print(pages, head + first.replace("Mar", "Apr")), "in no one year"));
        cases.add(of(
                BALANCE_CARRIED,
                5,
                print(pages, head + first + "       CARRIED                      6.00\n"),
                "lead to 5.00, but 6.00 is carried"));
        cases.add(of(
                TOTAL_WITHIN_DIFFERS,
                6,
                print(
                        pages,
                        head + first + "02 Mar inn                2.00      7.00\n       PAGE TOTAL         4.00\n"),
                "adds up to 3.00"));
    }

    private static void shapes(List<Case> cases) {
        cases.add(of(
                FOREIGN_AMOUNT_DIFFERS,
                1,
                foreign("7,2027-03-02,5010,10.00,EUR,-12.00\n7,2027-03-02,1200,-10.00,,\n"),
                "stands beside 10.00 GBP"));
        cases.add(of(
                CURRENCY_UNKNOWN,
                2,
                foreign("7,2027-03-02,5010,10.00,KWD,3.125\n7,2027-03-02,1200,-10.00,EURO,1.00\n"),
                "no such currency"));
        String tags = "file: {titles: none}\ntags: {column: 1, H: {heading: [t, r, d]}, L: {line: [t, r, a, m]}}\n"
                + PLACES.replace("column: 1", "column: r")
                        .replace("column: 2", "column: d")
                        .replace("column: 3", "column: a")
                        .replace("column: 4", "column: m");
        String good = "H,7,2027-03-02\nL,7,5010,1.00\nL,7,1200,-1.00\n";
        cases.add(of(TAG_UNKNOWN, 4, shaped(tags, good + "Q,1\n"), "does not know"));
        cases.add(of(HEADING_WITHOUT_LINES, 4, shaped(tags, good + "H,8,2027-03-02\n"), "no line below"));
        String link = "link: {h: {file: h.csv, key: ref}}\n"
                + PLACES.replace("column: 2", "column: h.day")
                        .replace("column: 4", "column: 3")
                        .replace("account:   {column: 3}", "account: {column: 2}");
        String rows = "ref,acc,amt\n7,5010,1.00\n7,1200,-1.00\n";
        Workshop linked = shaped(link, rows + "9,5010,1.00\n").put("h.csv", "ref,day\n7,2027-03-02\n");
        cases.add(of(LINK_MISSING, 4, linked, "linked file lacks"));
        cases.add(of(
                LINK_UNUSED,
                3,
                shaped(link, rows).put("h.csv", "ref,day\n7,2027-03-02\n8,2027-03-02\n"),
                "no row names it"));
        cases.add(of(
                LINK_TWICE,
                0,
                shaped(link, rows).put("h.csv", "ref,day\n7,2027-03-02\n7,2027-03-02\n"),
                "row 2 and in row 3"));
        cases.add(of(LINKED_FILE_MISSING, 0, shaped(link, rows), "'h.csv' beside it"));
        String places = "file: {kind: fixed width, columns: {a: 1-1, b: 3-12, c: 14-17, d: 21-24}}\nunused: [line]\n"
                + PLACES.replace("column: 1", "column: a")
                        .replace("column: 2", "column: b")
                        .replace("column: 3", "column: c")
                        .replace("column: 4", "column: d");
        cases.add(of(
                TEXT_BETWEEN_COLUMNS,
                2,
                shaped(places, "7 2027-03-02 5010    1.00\n7 2027-03-02 1200 -1001.00\n"),
                "would be lost"));
        prints(cases);
        cases.add(of(
                LAYOUT_NOT_FOR_DATES,
                0,
                shaped("for dates: 2026-01-01 to 2026-12-31\n" + PLACES, "ref,day,acc,amt\n7,2027-03-02,5010,1.00\n"),
                "is for dates from 2026-01-01 to 2026-12-31"));
        String sheet = "file: {kind: workbook, sheet: Pay}\n" + PLACES;
        cases.add(of(
                SHEET_MISSING, 0, shaped(sheet, "").put("a.csv", WorkbooksTest.sheet("<table:table-cell/>")), "'Pay'"));
        String formula = "<table:table-cell office:value-type=\"string\"><text:p>1</text:p></table:table-cell>"
                + "<table:table-cell table:formula=\"of:=[.A1]\"/>";
        cases.add(of(
                FORMULA_UNVALUED,
                1,
                shaped(sheet.replace("sheet: Pay", "sheet: 2, titles: none"), "")
                        .put("a.csv", WorkbooksTest.sheet(formula)),
                "value the file does not hold"));
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
        // Told when it is asked for.
        Outcome outcome = expected.rule == CODING_ENTRY_UNUSED
                ? expected.workshop.open(expected.kind).check()
                : expected.workshop.run(expected.kind);
        List<Finding> findings = outcome.report().findings().worstFirst();
        assertThat(findings).anySatisfy(found -> {
            assertThat(found.rule()).isEqualTo(expected.rule);
            assertThat(found.origin().row()).isEqualTo(expected.row);
            assertThat(found.reason() + " " + found.suggestion()).contains(expected.says);
        });
        boolean blocked = findings.stream().anyMatch(f -> f.severity() == Severity.BLOCKER);
        boolean empty = findings.stream().anyMatch(f -> f.rule() == NOTHING_CLEAR);
        assertThat(outcome.status()).isEqualTo(blocked || empty ? 1 : 0);
    }

    @Test
    public void noRuleIsWithoutATest() {
        Set<FindingRule> tested = new HashSet<>();
        all().forEach(c -> tested.add(c.rule));
        tested.addAll(PostingTest.RULES);
        tested.addAll(CorrectionsTest.RULES);
        tested.addAll(TruthTest.RULES);
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
