package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.kinds.InvoiceLines;
import io.mivrel.rows.FileKind;
import io.mivrel.run.Progress;
import io.mivrel.survey.Answers;
import io.mivrel.survey.Survey;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A survey of every kind of file, and its comparison with a layout. Real files. */
public class SurveyKindsTest {
    private static FileSurvey survey(Workshop workshop, String file, String text) throws IOException {
        workshop.put(file, text);
        return FileSurvey.of(workshop.folder.resolve(file));
    }

    private static List<String> questions(FileSurvey survey) {
        return survey.survey().questions().stream().map(Survey.Question::about).toList();
    }

    // Amounts that grow, dates in order, headings by account on pages of twenty lines.
    private static String print(Random random, boolean totals) {
        StringBuilder print = new StringBuilder();
        List<String> lines = new ArrayList<>();
        for (int account = 4000; account < 4006; account++) {
            lines.add("Account " + account + " Name of it");
            long total = 0;
            for (int i = 0; i < 9; i++) {
                long amount = random.nextInt(9_000_000);
                boolean credit = random.nextBoolean();
                total += credit ? -amount : amount;
                lines.add(String.format(
                        Locale.ROOT,
                        "%02d/01/2027 V%03d  %-22s %,14.2f%s",
                        1 + i * 3,
                        i / 2,
                        "text " + random.nextInt(100) + " of, a line",
                        amount / 100.0,
                        credit ? "-" : " "));
            }
            if (totals) {
                lines.add(String.format(
                        Locale.ROOT,
                        "            Total of %-19d %,14.2f%s",
                        account,
                        Math.abs(total) / 100.0,
                        total < 0 ? "-" : " "));
            }
        }
        for (int i = 0; i < lines.size(); i++) {
            if (i % 20 == 0) {
                print.append(i > 0 ? "\f" : "")
                        .append("LEDGER      PAGE ")
                        .append(i / 20 + 1)
                        .append("\n\n");
                print.append("Date       Vchr  Narrative                      Amount\n");
            }
            print.append(lines.get(i)).append('\n');
        }
        return print.toString();
    }

    @Test
    public void aPrintFileIsDividedAndItsHeadingsAreCarriedDown() throws Exception {
        Random random = new Random(4);
        for (int i = 0; i < 20; i++) {
            FileSurvey survey = survey(new Workshop(), "a.txt", print(random, i % 2 == 0));
            assertThat(survey.survey().facts().kind()).as(survey.text()).isEqualTo(FileKind.FIXED_WIDTH);
            assertThat(survey.survey().dataRows()).as(survey.text()).isEqualTo(54);
            assertThat(survey.survey().fields().keySet().toString()).contains("account", "reference", "amount");
            assertThat(survey.layout()).contains("carry down:", "take: \"Account +(");
        }
    }

    @Test
    public void whatIsProposedForAPrintFileReadsItInARun() throws Exception {
        Workshop workshop = new Workshop();
        FileSurvey survey = survey(workshop, "a.txt", print(new Random(1), true));
        workshop.takes("journal", "a.txt", survey.layout().replaceAll("signs: \"[^\"]*\"", "signs: as written"));
        Reading read = Reading.of(workshop, "journal", io.mivrel.kinds.JournalLines.ACCOUNT);
        assertThat(read.records()).hasSize(54).startsWith("4000").endsWith("4005");
        assertThat(read.findings()).isEmpty();
    }

    @Test
    public void anAmountThatOutgrowsItsColumnIsHeldAndNeverCut() throws Exception {
        Workshop workshop = new Workshop();
        FileSurvey survey = survey(workshop, "a.txt", print(new Random(1), false));
        workshop.takes("journal", "a.txt", survey.layout().replaceAll("signs: \"[^\"]*\"", "signs: as written"));
        String wider = "28/01/2027 V009  a text that is rather 123,456,789.01 \n";
        workshop.put("a.txt", workshop.read("a.txt") + wider);
        assertThat(Reading.of(workshop, "journal").rules()).containsAnyOf("text-between-columns", "amount-unreadable");
    }

    @Test
    public void statementsNeedNoAnswerButTheirAccount() throws Exception {
        String mt940 =
                ":20:R\n:25:555\n:28C:1\n:60F:C270301GBP2,00\n:61:270302D1,00NTRFA\n:86:tin\n:62F:C270331GBP1,00\n";
        Workshop workshop = new Workshop();
        FileSurvey survey = survey(workshop, "unknown.dat", mt940);
        assertThat(questions(survey)).containsExactly("account");
        assertThat(survey.text()).contains("an MT940 statement", "opening 2.00 + movement -1.00 = closing 1.00");
        workshop.takes("bank", "unknown.dat", survey.layout().replaceAll("account: \"[^\"]*\"", "account: 1200"));
        assertThat(Reading.of(workshop, "bank", io.mivrel.kinds.BankLines.NARRATIVE)
                        .records())
                .containsExactly("tin");
        FileSurvey broken = survey(workshop, "broken.dat", mt940.replace("GBP1,00", "GBP9,00"));
        assertThat(broken.text()).contains("not proved");
        String qif = "!Type:Bank\nD01/02/2027\nT-1.00\nPx\n^\nD03/04/2027\nT2.00\nPy\n^\n";
        assertThat(questions(survey(workshop, "a.qif", qif))).contains("date", "account");
    }

    private static final String PAY = """
            Who;On;Gross;Levy;Kept;Paid
            1;15.03.2027;2.000,10;100,00;300,05;1.700,05
            2;15.03.2027;1.500,00;75,00;200,00;1.300,00
            3;15.03.2027;900,40;45,00;0,40;900,00
            4;15.03.2027;1.111,11;55,55;111,11;1.000,00
            Total;;5.511,61;275,55;611,56;4.900,05
            """;

    @Test
    public void rowsThatSumToNilAreFannedOutAndOnlyTheAccountsAreAsked() throws Exception {
        Workshop workshop = new Workshop();
        FileSurvey survey = survey(workshop, "pay.csv", PAY);
        assertThat(survey.text())
                .contains("'Gross' - 'Kept' - 'Paid' is nil in each of 4 rows")
                .contains("the totals stated in row 6 agree: 'Gross', 'Levy', 'Kept', 'Paid'")
                .doesNotContain("not proved");
        assertThat(questions(survey)).containsExactly("accounts", "reference", "signs");
        assertThat(survey.preview(1))
                .containsPattern("(?m)^ +narrative +Gross$")
                .containsPattern("(?m)^ +amount +2,000.10$");
        String answered = survey.layout()
                .replaceAll("signs: \"[^\"]*\"", "signs: as written")
                .replaceAll("constant: \"[^\"]*\"", "constant: PAY-3")
                .replaceAll("account: \"[^\"]*debit[^\"]*\"", "account: 5010")
                .replaceAll("account: \"[^\"]*credit[^\"]*\"", "account: 1200");
        assertThat(answered).doesNotContain("\"?");
        workshop.takes("journal", "pay.csv", answered);
        Reading read = Reading.of(
                workshop,
                "journal",
                io.mivrel.kinds.JournalLines.ACCOUNT,
                io.mivrel.kinds.JournalLines.NARRATIVE,
                io.mivrel.kinds.JournalLines.AMOUNT);
        assertThat(read.findings()).isEmpty();
        assertThat(read.records())
                .hasSize(20)
                .startsWith(
                        "5010 | Gross | 200010",
                        "5010 | Levy | 10000",
                        "1200 | Levy | -10000",
                        "1200 | Kept | -30005",
                        "1200 | Paid | -170005");
        assertThat(read.tally().totals().debit())
                .isEqualTo(read.tally().totals().credit());
    }

    private static final String HEADS =
            "voucher;day;clerk\nV1;13.03.2027;7\nV2;14.03.2027;8\nV3;15.03.2027;9\nV4;16.03.2027;7\n";
    private static final String LINES = "voucher;account;debit;credit\nV1;5010;1,50;\nV1;1200;;1,50\n"
            + "V2;5010;2,50;\nV2;1200;;2,50\nV3;5010;3,00;\nV3;1200;;3,00\nV4;5010;4,00;\nV4;1200;;4,00\n";

    private static FileSurvey together(Workshop workshop, String... files) throws IOException {
        List<FileSurvey> surveys = new ArrayList<>();
        for (int i = 0; i < files.length; i += 2) {
            surveys.add(survey(workshop, files[i], files[i + 1]));
        }
        return FileSurvey.together(surveys, Progress.NONE);
    }

    @Test
    public void filesThatBelongTogetherAreLinked() throws Exception {
        String clerks = "no;who\n7;ada\n8;bo\n9;cy\n10;di\n";
        Workshop workshop = new Workshop();
        FileSurvey survey = together(workshop, "clerks.csv", clerks, "old-heads.csv", HEADS, "old-lines.csv", LINES);
        assertThat(survey.text())
                .contains("'voucher' of old-lines.csv is found in each of 8 rows as 'voucher' of old-heads.csv")
                .contains("'clerk' of old-heads.csv", "3 of 4 are named", "4 of 4 journals sum to nil");
        assertThat(questions(survey)).isEmpty();
        workshop.takes("journal", "old-lines.csv", survey.layout());
        Reading read = Reading.of(
                workshop,
                "journal",
                io.mivrel.kinds.JournalLines.REFERENCE,
                io.mivrel.kinds.JournalLines.DATE,
                io.mivrel.kinds.JournalLines.AMOUNT);
        assertThat(read.records()).hasSize(8).startsWith("V1 | 2027-03-13 | 150", "V1 | 2027-03-13 | -150");
        assertThat(read.rules()).containsOnly("link-unused");
        workshop.put("mine.yaml", survey.layout());
        assertThat(FileSurvey.of(workshop.folder.resolve("old-lines.csv"))
                        .like(workshop.folder.resolve("mine.yaml"), 2)
                        .text())
                .contains("the layout reads this file");
    }

    @Test
    public void filesThatDoNotBelongTogetherInOneWayAreNotLinked() throws Exception {
        // A line without its heading, keys that stand twice, two files that could be the heading, and no key at all.
        assertThat(together(new Workshop(), "heads.csv", HEADS.replace("V4", "V5"), "lines.csv", LINES))
                .isNull();
        assertThat(together(new Workshop(), "heads.csv", HEADS + "V4;17.03.2027;8\n", "lines.csv", LINES))
                .isNull();
        assertThat(together(new Workshop(), "heads.csv", HEADS, "more.csv", HEADS))
                .isNull();
        assertThat(together(new Workshop(), "pay.csv", PAY, "lines.csv", LINES)).isNull();
        assertThat(together(new Workshop(), "lines.csv", LINES)).isNull();
    }

    @Test
    public void manySumsOrManyColumnsEndInTime() throws Exception {
        StringBuilder same = new StringBuilder("a,b,c,d,e,f,g,h,i,j,k,l\n");
        StringBuilder nil = new StringBuilder(same);
        StringBuilder wide = new StringBuilder(
                IntStream.range(0, 300).mapToObj(i -> "key" + i).collect(Collectors.joining(",")) + "\n");
        for (int i = 0; i < 1000; i++) {
            if (i < 250) {
                wide.append("k").append(i).append((",k" + i).repeat(299)).append('\n');
            }
            same.append("%d.50".formatted(i))
                    .append(",%d.50".formatted(i).repeat(11))
                    .append('\n');
            nil.append("0.00").append(",0.00".repeat(10)).append(i == 999 ? ",1.00\n" : ",0.00\n");
        }
        assertThat(survey(new Workshop(), "same.csv", same.toString()).text()).contains("is nil in each of 1,000 rows");
        assertThat(survey(new Workshop(), "nil.csv", nil.toString()).text()).doesNotContain("is nil");
        assertThat(together(new Workshop(), "a.csv", wide.toString(), "b.csv", wide.toString()))
                .isNull();
    }

    @Test
    public void aLayoutThatShapesItsRowsIsComparedByTheColumnsOfTheFile() throws Exception {
        Workshop workshop = new Workshop();
        workshop.put(
                "pay.yaml",
                survey(workshop, "pay.csv", PAY)
                        .layout()
                        .replaceAll("\"\\?[^\"]*\"", "1200")
                        .replace("signs: 1200", "signs: as written"));
        Path layout = workshop.folder.resolve("pay.yaml");
        FileSurvey.LayoutMatch same = survey(workshop, "april.csv", PAY).like(layout, 1);
        assertThat(same.isLike()).as(same.text()).isTrue();
        assertThat(same.text()).containsPattern("Gross +2.000,10 +-");
        FileSurvey.LayoutMatch other =
                survey(workshop, "may.csv", PAY.replace("Levy", "Union")).like(layout, 0);
        assertThat(other.text()).contains("breaks      renamed: 'Levy' is probably 'Union'");
    }

    @Test
    public void whatIsStatedBelowTheDataIsCompared() throws Exception {
        FileSurvey wrong = survey(new Workshop(), "a.csv", PAY.replace("5.511,61", "5.511,16"));
        assertThat(wrong.text())
                .contains("row 6 states a total of 5,511.16 for 'Gross', but its rows add up to 5,511.61")
                .contains("agree: 'Levy', 'Kept', 'Paid'");
        assertThat(wrong.isSettled()).isFalse();
        FileSurvey broken =
                survey(new Workshop(), "b.csv", PAY.replace("Total", "5;15.03.2027;9,00;1,00;1,00;7,00\nTotal"));
        assertThat(broken.text())
                .contains("bank lines, journal lines or invoice lines?")
                .doesNotContain("is nil in each");
        StringBuilder bank = new StringBuilder("Date,Text,Amount\n");
        for (int day = 1; day <= 60; day++) {
            bank.append("%02d/%02d/2027,shop,%d.50\n".formatted(1 + day % 28, 1 + day / 28, day));
        }
        assertThat(survey(new Workshop(), "c.csv", bank + "Number of rows: 60,,\nTotal,,1860.00\n")
                        .text())
                .contains("figures beside the rows that agree with them: 'Number of rows', 'Total'");
        assertThat(survey(new Workshop(), "d.csv", bank + "61 transactions,,\n").text())
                .contains("not proved  row 62 '61': the file states so many movements, but 60 were read");
    }

    @Test
    public void aWorkbookWithSeveralSheetsIsAskedWhich() throws Exception {
        Workshop workshop = new Workshop().put("a.ods", WorkbooksTest.sheet("<table:table-cell/>"));
        assertThat(FileSurvey.of(workshop.folder.resolve("a.ods"))
                        .survey()
                        .facts()
                        .kind())
                .isEqualTo(FileKind.WORKBOOK);
        workshop.put("b.xlsx", (byte[]) WorkbooksTest.kinds()[0][1]);
        FileSurvey one = FileSurvey.of(
                workshop.folder.resolve("b.xlsx"), "b.xlsx", new Answers(Map.of("sheet", "Lines")), Progress.NONE);
        assertThat(one.survey().facts().part()).isEqualTo("Lines");
        assertThat(one.survey().titlesRow()).isEqualTo(3);
        assertThatThrownBy(() -> FileSurvey.of(
                        workshop.folder.resolve("b.xlsx"),
                        "b.xlsx",
                        new Answers(Map.of("sheet", "Pay")),
                        Progress.NONE))
                .hasMessageContaining("Notes, Lines");
    }

    private static final String MARCH =
            "Date,Text,In,Out,Balance\n01/03/2027,shop,1.00,,1.00\n02/03/2027,tin,,0.50,0.50\n"
                    + "13/03/2027,tin,,0.25,0.25\n14/03/2027,shop,2.00,,2.25\n";

    private static FileSurvey.LayoutMatch like(String text) throws Exception {
        Workshop workshop = new Workshop();
        FileSurvey march = survey(workshop, "march.csv", MARCH);
        workshop.put("mine.yaml", march.layout().replaceAll("account: \"[^\"]*\"", "account: 1200"));
        return survey(workshop, "april.csv", text).like(workshop.folder.resolve("mine.yaml"), 1);
    }

    @Test
    public void aFileOfTheSameFormIsLikeItsLayout() throws Exception {
        FileSurvey.LayoutMatch same = like(MARCH);
        assertThat(same.isLike()).as(same.text()).isTrue();
        assertThat(same.text()).contains("the layout reads this file", "row 2").doesNotContain("harmless");
    }

    @Test
    public void columnsGoneNewRenamedMovedAndWrittenOtherwiseAreNamed() throws Exception {
        assertThat(like(MARCH.replace("Text", "Texts")).text()).contains("renamed: 'Text' is probably 'Texts' now");
        assertThat(like(MARCH.replace("Text", "Particulars")).text()).contains("'Text' is probably 'Particulars'");
        String moved = "Text,Date,In,Out,Balance,Branch\nshop,01/03/2027,1.00,,1.00,x\ntin,13/03/2027,,0.50,0.50,x\n"
                + "tin,14/03/2027,,0.25,0.25,x\n";
        assertThat(like(moved).text())
                .contains("moved: 'Date' from column 1 to column 2", "new: 'Branch'", "the layout reads");
        assertThat(like(MARCH.replace("/03/2027", ".03.2027")).text()).contains("'Date' is written '01.03.2027'");
        assertThat(like(MARCH.replace("2027,", "2027;").replace(',', ';')).text())
                .contains("divided by ';'");
        assertThat(like(MARCH.replaceAll("(..)/03/2027", "03/$1/2027")).text()).contains("MM/dd/uuuu");
        assertThat(like(":20:R\n:25:5\n:28C:1\n:60F:C270301GBP2,00\n:62F:C270301GBP2,00\n")
                        .text())
                .contains("an MT940 statement");
        assertThat(like(MARCH).isLike()).isTrue();
    }

    @Test
    public void twoEncodingsInOneFileAreSaidAndTheRowsNamed() throws Exception {
        byte[] utf8 = MARCH.replace("shop", "été").getBytes(StandardCharsets.UTF_8);
        byte[] latin = "15/03/2027,\u00fcber,1.00,,3.25\n".getBytes(StandardCharsets.ISO_8859_1);
        byte[] both = java.util.Arrays.copyOf(utf8, utf8.length + latin.length);
        System.arraycopy(latin, 0, both, utf8.length, latin.length);
        Path file = new Workshop().put("mixed.csv", both).folder.resolve("mixed.csv");
        FileSurvey survey = FileSurvey.of(file);
        assertThat(survey.text()).contains("two encodings are mixed; rows of the other are held");
        assertThat(survey.text()).contains("row 6 has bytes that are not valid in this encoding");
        assertThat(Files.exists(file)).isTrue();
    }

    @Test
    public void titlesMayTakeTwoRows() throws Exception {
        Workshop workshop = new Workshop();
        FileSurvey survey = survey(
                workshop,
                "a.csv",
                "Larkmoor\nDate,Text,Paid,Paid,Balance\nbooked,of it,in,out,after\n13/03/2027,shop,1.00,,1.00\n"
                        + "14/03/2027,tin,,0.25,0.75\n15/03/2027,tin,,0.25,0.50\n16/03/2027,tin,,0.25,0.25\n");
        assertThat(survey.text()).contains("titles in rows 2-3, 1 row above", "Paid in");
        String layout = "layout: B\ngives: bank lines\naccount: 1200\nfile: {titles: rows 2-3}\nfields:\n"
                + "  date: {column: Date booked, pattern: dd/MM/uuuu}\n  money in: {column: Paid in}\n"
                + "  money out: {column: Paid out}\n  balance: {column: Balance after}\nunused: [Text of it]\n";
        Reading read = Reading.of(workshop.takes("bank", "a.csv", layout), "bank", io.mivrel.kinds.BankLines.AMOUNT);
        assertThat(read.records()).containsExactly("100", "-25", "-25", "-25");
        assertThat(read.tally().leftOut().toString()).isEqualTo("{ABOVE_TITLES=1, TITLES=2}");
        assertThat(read.findings()).isEmpty();
    }

    @DataProvider
    public Object[][] ledgers() {
        return new Object[][] {
            {
                "Belegnr.;Buchungsdatum;Sachkonto;Buchungstext;Soll;Haben\n",
                "1001;%s;4400;Kupfer;%s;\n1001;%s;1600;Kupfer;;%s\n"
            },
            {"Asiento;Fecha;Cuenta;Concepto;Debe;Haber\n", "1;%s;572;Cliente;%s;\n1;%s;430;Cliente;;%s\n"},
            {"Verifikationsnr;Datum;Konto;Beskrivning;Debet;Kredit\n", "1;%s;1930;Kund;%s;\n1;%s;3001;Kund;;%s\n"},
            {"Numero registrazione;Data;Conto;Descrizione;Dare;Avere\n", "7;%s;60;Rame;%s;\n7;%s;40;Rame;;%s\n"},
            {"Doklad;Datum;Účet;Popis;Má dáti;Dal\n", "5;%s;501;Cín;%s;\n5;%s;321;Cín;;%s\n"},
        };
    }

    @Test(dataProvider = "ledgers")
    public void ledgersAreKnownInOtherLanguages(String titles, String voucher) throws Exception {
        String rows = String.format(voucher, "13.03.2027", "120,00", "13.03.2027", "120,00");
        FileSurvey survey = survey(new Workshop(), "ledger.csv", titles + rows);
        assertThat(survey.layout())
                .contains("gives: journal lines", "reference:", "account:", "debit:", "credit:", "narrative:");
        assertThat(survey.text()).contains("1 of 1 journals sum to nil");
        // A statement that names its own account in every row is no ledger.
        FileSurvey own = survey(
                new Workshop(),
                "own.csv",
                "Referenz;Datum;Konto;Text;Betrag\nR1;13.03.2027;77;Kartenzahlung;-1,00\nR2;14.03.2027;77;Lastschrift;-2,00\n"
                        + "R3;15.03.2027;77;Gehalt;9,00\n");
        assertThat(own.layout()).contains("gives: bank lines");
    }

    @Test
    public void aSideMarkIsProposed() throws Exception {
        FileSurvey survey = survey(
                new Workshop(),
                "card.csv",
                "Date,Merchant,Amount,Owed\n13/03/2027,a,5.00,5.00\n14/03/2027,b,7.00,12.00\n15/03/2027,c,10.00 CR,2.00\n"
                        + "16/03/2027,d,1.00,3.00\n");
        assertThat(survey.layout()).contains("minus mark: \"CR\"", "signs: all reversed");
    }

    @Test
    public void marksOfBothSidesSayWhichWayTheMoneyWent() throws Exception {
        FileSurvey survey = survey(
                new Workshop(),
                "bank.csv",
                "Date,Text,Amount,Balance\n13/03/2027,a,5.00 CR,105.00 CR\n14/03/2027,b,7.00 DR,98.00 CR\n"
                        + "15/03/2027,c,10.00 CR,108.00 CR\n16/03/2027,d,1.00 DR,107.00 CR\n17/03/2027,e,2.00 DR,105.00 CR\n");
        assertThat(questions(survey)).containsExactly("account");
        assertThat(survey.layout()).contains("plus mark: \"CR\", minus mark: \"DR\"");
    }

    @DataProvider
    public Object[][] invoiceLists() {
        return new Object[][] {
            {
                "Rechnungsnummer;Belegart;Kundennr.;Rechnungsdatum;Fällig am;Bezeichnung;Menge;Einzelpreis;Nettobetrag;Erlöskonto"
            },
            {
                "N° facture;Type de document;Code client;Date de facture;Échéance;Désignation;Quantité;Prix unitaire;Montant HT;Compte"
            },
            {
                "Nº factura;Tipo de documento;Cliente;Fecha factura;Vencimiento;Descripción;Cantidad;Precio;Base imponible;Cuenta"
            },
            {
                "Fakturanummer;Dokumenttyp;Kundnummer;Fakturadatum;Förfallodatum;Beskrivning;Antal;Styckpris;Nettobelopp;Konto"
            },
            {
                "Číslo faktury;Typ dokladu;Zákazník;Datum vystavení;Splatnost;Popis;Množství;Jednotková cena;Základ daně;Účet"
            }
        };
    }

    @Test(dataProvider = "invoiceLists")
    public void anInvoiceListIsKnownInItsLanguage(String titles) throws Exception {
        StringBuilder rows = new StringBuilder(titles).append('\n');
        int[] bells = {3, 1, 8, 2, 2, 9, 4};
        for (int i = 1; i <= bells.length; i++) {
            int count = bells[i - 1];
            rows.append("R-70" + i + ";invoice;K-1" + i + ";2027-03-0" + i + ";2027-04-0" + i + ";bell " + i + ";"
                            + count)
                    .append(";10,25;" + count * 1025 / 100 + "," + count * 25 % 100 / 10 + count * 5 % 10 + ";4000\n");
        }
        Survey survey = survey(new Workshop(), "list.csv", rows.toString()).survey();
        assertThat(survey.gives()).isEqualTo(InvoiceLines.KIND);
        assertThat(survey.fields().keySet())
                .contains(
                        InvoiceLines.NUMBER,
                        InvoiceLines.DOCUMENT_KIND,
                        InvoiceLines.PARTY,
                        InvoiceLines.DATE,
                        InvoiceLines.DUE,
                        InvoiceLines.NARRATIVE,
                        InvoiceLines.QUANTITY,
                        InvoiceLines.PRICE,
                        InvoiceLines.NET,
                        InvoiceLines.ACCOUNT);
    }

    @Test
    public void aColumnThatRunsLikeABalanceDoesNotMakeAStatementOfAnInvoiceList() throws Exception {
        StringBuilder rows = new StringBuilder("Invoice no,Customer,Date,Description,Qty,Price,Net\n");
        for (int i = 1; i < 9; i++) {
            rows.append("R-70" + i + ",K-1" + i + ",2027-03-0" + i + ",bell " + i + "," + i + ",10.50," + i * 1050 / 100
                    + "." + (i % 2 == 0 ? "00" : "50") + "\n");
        }
        Survey survey = survey(new Workshop(), "list.csv", rows.toString()).survey();
        assertThat(survey.gives()).isNull();
        assertThat(survey.question("gives").words())
                .isEqualTo(
                        "bank lines, journal lines or invoice lines? The titles are those of invoice lines, but 'Net' runs like a"
                                + " balance");
        FileSurvey doubted = survey(new Workshop(), "list.csv", rows.toString());
        assertThat(doubted.text()).contains("gives       not told: the titles are those of invoice lines");
        Survey said = FileSurvey.of(
                        doubted.path(), "list.csv", new Answers(Map.of("gives", "invoice lines")), Progress.NONE)
                .survey();
        assertThat(said.why()).contains("as bank lines 'Net' would be their balance");
        assertThat(said.fields().keySet()).contains(InvoiceLines.NET, InvoiceLines.PARTY);
    }
}
