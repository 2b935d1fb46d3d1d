package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.coding.CodingEntry;
import io.mivrel.coding.CodingTable;
import io.mivrel.coding.Direction;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryColumn;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.model.OwnRule;
import io.mivrel.model.Posting;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.RunReport;
import io.mivrel.run.SortedDocument;
import io.mivrel.run.SortedDocument.Disposition;
import io.mivrel.text.AmountFormat;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** The library's face without any settings file: what an engineer embeds in a service. */
public class InCodeTest {
    private static final Books BOOKS = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
            .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
            .account("2900", "Suspense", AccountType.LIABILITY, AccountUse.SUSPENSE, AccountStatus.OPEN)
            .account("4030", "Handbells", AccountType.INCOME)
            .account("5010", "Tin", AccountType.EXPENSE)
            .build();
    private static final Layout BANK = Layout.named("bank", BankLines.KIND)
            .account("1200")
            .field(BankLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
            .field(BankLines.NARRATIVE, "text")
            .field(BankLines.AMOUNT, "amount")
            .build();
    private static final CodingTable CODING =
            new CodingTable("coding", List.of(CodingEntry.words("shop", Direction.IN, "4030", "shop")));

    private Path folder;

    @BeforeMethod
    public void newFolder() throws IOException {
        folder = Files.createTempDirectory("mivrel in code");
    }

    private Path file(String... lines) throws IOException {
        return Files.write(folder.resolve("bank.csv"), List.of(lines));
    }

    private static Delivery journals(DeliveryFormat form) {
        return Delivery.named("journals", JournalLines.KIND)
                .format(form)
                .column("account", JournalLines.ACCOUNT)
                .column("date", JournalLines.DATE)
                .column("amount", JournalLines.AMOUNT)
                .build();
    }

    private Mivrel run(Path file) {
        return Mivrel.named("Shop takings", BOOKS)
                .takeIn(file, BANK)
                .clock(Clock.fixed(Instant.parse("2027-03-31T11:30:00Z"), ZoneId.of("Pacific/Auckland")))
                .code(CODING);
    }

    @Test
    public void nothingIsKeptUnlessAFolderIsNamed() throws IOException {
        Path file = file("date,text,amount", "2027-03-01,shop,5.00");
        Outcome outcome = run(file)
                .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                .run();
        assertThat(outcome.isAllClear()).isTrue();
        assertThat(outcome.evidence()).isNull();
        assertThat(outcome.held()).isEmpty();
        assertThat(folder.resolve("out/j.csv"))
                .hasContent("account,date,amount\n1200,2027-03-01,5.00\n4030,2027-03-01,-5.00");
        assertThat(folder.resolve(".mivrel")).doesNotExist();
    }

    @Test
    public void keptInAFolderARunIsRemembered() throws IOException {
        Path file = file("date,text,amount", "2027-03-01,shop,5.00", "2027-03-01,shop,5.00");
        for (int round = 0; round < 3; round++) {
            RunReport report = run(file)
                    .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                    .keepIn(folder)
                    .run()
                    .report();
            assertThat(report.clear().documents()).isEqualTo(round == 0 ? 2 : 0);
        }
        Files.write(
                file,
                List.of("date,text,amount", "2027-03-01,shop,5.00", "2027-03-01,shop,5.00", "2027-03-01,shop,5.00"));
        RunReport third = run(file)
                .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                .keepIn(folder)
                .run()
                .report();
        // Two equal lines were delivered, so of three equal ones the third is new.
        assertThat(third.clear().documents()).isEqualTo(1);
        assertThat(third.leftOut()).containsEntry(LeftOut.DELIVERED_BEFORE, 2L);
    }

    @Test
    public void fileNamesHaveTheDayOfTheClock() throws IOException {
        Path file = file("date,text,amount", "2027-03-01,shop,5.00");
        run(file)
                .deliver(journals(DeliveryFormat.csv("{run}-{date}-{part}.csv")), folder.resolve("out"))
                .run();
        // Half past eleven in the morning in Greenwich is the next day in Auckland.
        assertThat(folder.resolve("out/shop-takings-2027-04-01-1.csv")).exists();
    }

    @Test
    public void whatNothingDecidesIsHeldOrGoesToSuspense() throws IOException {
        Path file = file("date,text,amount", "2027-03-01,unheard,5.00");
        assertThat(run(file).check().report().held().documents()).isEqualTo(1);
        RunReport report = run(file)
                .uncodedTo("2900")
                .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                .run()
                .report();
        assertThat(report.clear().documents()).isEqualTo(1);
        assertThat(folder.resolve("out/j.csv")).content().contains("2900,2027-03-01,-5.00");
    }

    private Mivrel takings() {
        return Mivrel.named("Shop takings", BOOKS).code(CODING);
    }

    @Test
    public void rowsComeFromAStreamAndFromMemoryToo() throws IOException {
        String text = "date,text,amount\n2027-03-01,shop,5.00\n2027-03-02,unheard,7.00\n";
        List<Map<String, String>> records = List.of(
                Map.of("date", "2027-03-01", "text", "shop", "amount", "5.00"),
                Map.of("date", "2027-03-02", "text", "unheard", "amount", "7.00"));
        Outcome stream = takings()
                .takeIn("upload", new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), BANK)
                .check();
        Outcome memory =
                takings().takeIn("records", records, BANK).keepIn(folder).run();
        for (Outcome outcome : List.of(stream, memory)) {
            assertThat(outcome.report().clear().totals().debit()).isEqualTo(5_00);
            assertThat(outcome.findings())
                    .filteredOn(Finding::blocks)
                    .singleElement()
                    .satisfies(finding -> assertThat(finding.origin().row()).isEqualTo(3));
        }
        assertThat(stream.findings().get(0).origin().file()).isEqualTo("upload");
        assertThat(memory.held())
                .singleElement()
                .satisfies(held -> assertThat(held).content().contains("unheard"));
    }

    @Test
    public void documentsAreToldWithWhatBecameOfThem() throws IOException {
        String[] lines = {
            "date,text,amount", "2027-03-01,shop,5.00", "2027-03-02,unheard,7.00", "2027-03-03,shop,8.00", "x,shop,9.00"
        };
        Path file = file(lines[0], lines[1]);
        Delivery journals = journals(DeliveryFormat.csv("j.csv"));
        run(file).deliver(journals, folder.resolve("out")).keepIn(folder).run();
        Files.write(file, List.of(lines));
        Outcome outcome = run(file)
                .deliver(journals, folder.resolve("out"))
                .keepIn(folder)
                .keepDocuments(100)
                .run();
        assertThat(outcome.documents())
                .extracting(SortedDocument::disposition)
                .containsExactly(Disposition.DELIVERED_BEFORE, Disposition.HELD, Disposition.CLEAR, Disposition.HELD);
        assertThat(outcome.documents().get(1).findings())
                .extracting(Finding::rule)
                .containsExactly(Rule.UNCODED);
        assertThat(outcome.documents().get(2)).hasToString("bank line 1200-270303-4 (" + file + " row 4): clear");
        assertThat(run(file).keepDocuments(2).check().documents()).hasSize(2);
    }

    @Test
    public void aCheckOfOnesOwnHasARuleOfItsOwn() throws IOException {
        OwnRule rule = new OwnRule("takings-too-round", Severity.BLOCKER, "Takings are round.", "Count them again.");
        List<String> asked = new ArrayList<>();
        Outcome outcome = run(file("date,text,amount", "2027-03-01,shop,5.00", "2027-03-02,shop,7.31"))
                .check((document, findings) -> {
                    asked.add(document.reference());
                    if (document.lines().get(0).minor() % 100 == 0) {
                        findings.accept(new Finding(rule, document.origin(), "amount", "", "is round", ""));
                    }
                })
                .check();
        // Once of each document, though it has no columnar form.
        assertThat(asked).hasSize(2).doesNotHaveDuplicates();
        assertThat(outcome.report().held().documents()).isEqualTo(1);
        assertThat(Workshop.told(outcome))
                .extracting(finding -> finding.rule().id())
                .containsExactly("takings-too-round");
        assertThat(outcome.json()).contains("takings-too-round");
        assertThatThrownBy(() -> new OwnRule("uncoded", Severity.NOTE, "", ""))
                .hasMessageContaining("a rule of Mivrel");
    }

    @Test
    public void aDepartmentOfTheCodingReachesBothKindsOfDelivery() throws IOException {
        CodingEntry entry = new CodingEntry(
                "shop",
                Direction.IN,
                List.of("shop"),
                SourceRecord.ABSENT,
                SourceRecord.ABSENT,
                "",
                List.of(Posting.whole("4030", null, null).with("department", "SHOP")));
        Delivery lines = Delivery.named("lines", BankLines.KIND)
                .format(DeliveryFormat.csv("b.csv"))
                .column("amount", BankLines.AMOUNT)
                .column("department", BankLines.DEPARTMENT)
                .build();
        Delivery journals = Delivery.named("journals", JournalLines.KIND)
                .format(DeliveryFormat.csv("j.csv"))
                .column("amount", JournalLines.AMOUNT)
                .column("department", JournalLines.DEPARTMENT)
                .build();
        takings()
                .code(new CodingTable("coding", List.of(entry)))
                .takeIn(file("date,text,amount", "2027-03-01,shop,5.00"), BANK)
                .deliver(lines, folder.resolve("out"))
                .deliver(journals, folder.resolve("out"))
                .run();
        assertThat(folder.resolve("out/b.csv")).hasContent("amount,department\n5.00,SHOP");
        assertThat(folder.resolve("out/j.csv")).hasContent("amount,department\n5.00,\n-5.00,SHOP");
    }

    @Test
    public void formsAreToldOneThingAtATime() throws IOException {
        Layout layout = Layout.named("bank", BankLines.KIND)
                .account("1200")
                .format(FileFormat.separated(';', "UTF-8").titlesIn(2).endingAt("Total"))
                .numbers(AmountFormat.marked(2, ',', '.').withBrackets().withTrailingMinus())
                .field(BankLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
                .field(BankLines.NARRATIVE, "text")
                .field(BankLines.AMOUNT, "amount")
                .build();
        Path file = file(
                "Larkmoor;;",
                "date;text;amount",
                "2027-03-01;shop;1.005,00",
                "2027-03-02;shop;7,00-",
                "2027-03-03;shop;(8,00)",
                "Total;;");
        DeliveryFormat form = DeliveryFormat.csv("b-{part}.csv")
                .with('|', "UTF-8", "\n")
                .withoutTitles()
                .inParts(2);
        Delivery lines = Delivery.named("lines", BankLines.KIND)
                .format(form)
                .column("date", BankLines.DATE)
                .column("amount", BankLines.AMOUNT)
                .build();
        Mivrel.named("Lines", BOOKS)
                .takeIn(file, layout)
                .deliver(lines, folder.resolve("out"))
                .run();
        assertThat(Files.readString(folder.resolve("out/b-1.csv"))).isEqualTo("2027-03-01|1005.00\n2027-03-02|-7.00\n");
        assertThat(Files.readString(folder.resolve("out/b-2.csv"))).isEqualTo("2027-03-03|-8.00\n");
    }

    @Test
    public void aSplitIsDeliveredAsSeveralLines() throws IOException {
        CodingEntry split = new CodingEntry(
                "shop",
                Direction.IN,
                List.of("shop"),
                SourceRecord.ABSENT,
                SourceRecord.ABSENT,
                "",
                List.of(
                        Posting.whole("4030", null, null).of(Posting.Part.perCent(BigDecimal.valueOf(60))),
                        Posting.whole("2900", null, null)));
        Mivrel.named("Shop takings", BOOKS)
                .takeIn(file("date,text,amount", "2027-03-01,shop,5.01", "2027-03-01,shop,-1.00"), BANK)
                .code(new CodingTable("split", List.of(split)))
                .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                .run();
        // 60 % of 5.01 is 3.006; the rest takes what rounding leaves.
        assertThat(folder.resolve("out/j.csv"))
                .hasContent(
                        "account,date,amount\n1200,2027-03-01,5.01\n4030,2027-03-01,-3.01\n" + "2900,2027-03-01,-2.00");
    }

    @Test
    public void aForeignAmountStandsBesideTheHomeAmount() throws IOException {
        Layout layout = Layout.named("ledger", JournalLines.KIND)
                .field(JournalLines.REFERENCE, "ref")
                .field(JournalLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
                .field(JournalLines.ACCOUNT, "account")
                .field(JournalLines.AMOUNT, "home")
                .field(JournalLines.CURRENCY, "currency")
                .field(JournalLines.FOREIGN_AMOUNT, "foreign")
                .build();
        Delivery delivery = Delivery.named("journals", JournalLines.KIND)
                .format(DeliveryFormat.csv("j.csv"))
                .column("account", JournalLines.ACCOUNT)
                .column("amount", JournalLines.AMOUNT)
                .column("currency", JournalLines.CURRENCY)
                .column("foreign", JournalLines.FOREIGN_AMOUNT)
                .build();
        Path file = file(
                "ref,date,account,home,currency,foreign",
                "J1,2027-03-01,5010,5.25,JPY,950",
                "J1,2027-03-01,1200,-5.25,JPY,-950",
                "J2,2027-03-01,5010,5.25,KWD,2.125",
                "J2,2027-03-01,1200,-5.25,KWD,-2.125",
                "J3,2027-03-01,5010,5.25,JPY,950.5",
                "J3,2027-03-01,1200,-5.25,JPY,-950.5",
                "J4,2027-03-01,5010,5.25,XQQ,9",
                "J4,2027-03-01,1200,-5.25,XQQ,-9");
        Outcome outcome = Mivrel.named("Foreign", BOOKS)
                .takeIn(file, layout)
                .deliver(delivery, folder.resolve("out"))
                .run();
        assertThat(outcome.report().held().documents()).isEqualTo(2);
        assertThat(outcome.findings())
                .extracting(Finding::rule)
                .contains(Rule.AMOUNT_TOO_PRECISE, Rule.CURRENCY_UNKNOWN);
        assertThat(folder.resolve("out/j.csv"))
                .hasContent("account,amount,currency,foreign\n5010,5.25,JPY,950\n1200,-5.25,JPY,-950\n"
                        + "5010,5.25,KWD,2.125\n1200,-5.25,KWD,-2.125");
    }

    @Test
    public void datesOutsideAreLeftOut() throws IOException {
        Path file = file("date,text,amount", "2027-02-28,shop,1.00", "2027-03-01,shop,2.00", "2027-03-02,shop,4.00");
        RunReport report = run(file)
                .dates(LocalDate.of(2027, 3, 1), LocalDate.of(2027, 3, 1))
                .check()
                .report();
        assertThat(report.clear().totals().debit()).isEqualTo(2_00);
        assertThat(report.leftOut()).containsEntry(LeftOut.OUTSIDE_DATES, 2L);
    }

    @Test
    public void progressIsHeard() throws IOException {
        String[] lines = new String[3001];
        lines[0] = "date,text,amount";
        for (int i = 1; i < lines.length; i++) {
            lines[i] = "2027-03-01,shop " + i + ",1.00";
        }
        List<String> heard = new ArrayList<>();
        run(file(lines))
                .progress((stage, rows) -> heard.add(rows + " " + stage))
                .check();
        assertThat(heard).contains("1024 read", "3000 read");
    }

    @Test
    public void oneDeliveryGetsTheLinesAnotherTheJournals() throws IOException {
        Path file = file("date,text,amount", "2027-03-01,shop,5.00");
        Delivery lines = Delivery.named("lines", BankLines.KIND)
                .format(new DeliveryFormat(';', "UTF-8", "\n", true, true, true, 0, "b.csv"))
                .column(DeliveryColumn.date("d", BankLines.DATE, "d.M.uuuu"))
                .column("in", BankLines.MONEY_IN)
                .column(DeliveryColumn.of("out", BankLines.MONEY_OUT).blankForZero())
                .column("account", BankLines.ACCOUNT)
                .column("entry", BankLines.ENTRY)
                .build();
        run(file)
                .deliver(lines, folder.resolve("out"))
                .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("other"))
                .run();
        assertThat(folder.resolve("out/b.csv"))
                .content(StandardCharsets.UTF_8)
                .isEqualTo(
                        "\uFEFF\"d\";\"in\";\"out\";\"account\";\"entry\"\n\"1.3.2027\";\"5.00\";\"\";\"4030\";\"shop\"\n");
        assertThat(folder.resolve("other/j.csv")).exists();
    }

    @Test
    public void aPlanThatCannotBeRunSaysWhy() throws IOException {
        Path file = file("date,text,amount");
        Delivery invoices = Delivery.named("i", InvoiceLines.KIND)
                .column("net", InvoiceLines.NET)
                .build();
        assertThatThrownBy(() -> run(file).deliver(invoices, folder).run())
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("can only be delivered as bank transactions or journals");
        assertThatThrownBy(() -> Mivrel.named("x", BOOKS).check()).hasMessageContaining("at least one file");
        assertThatThrownBy(() -> Mivrel.named("x", BOOKS).first(0)).hasMessageContaining("at least one document");
        Layout astray = Layout.named("astray", BankLines.KIND)
                .account("5010")
                .field(BankLines.DATE, FieldSource.date("date", "uuuu-MM-dd"))
                .field(BankLines.AMOUNT, "amount")
                .build();
        assertThatThrownBy(() -> Mivrel.named("x", BOOKS).takeIn(file, astray).check())
                .hasMessageContaining("not set up as a bank or card account");
    }

    @Test
    public void sumsBeyondExactReckoningFailRatherThanWrap() throws IOException {
        String[] lines = new String[9301];
        lines[0] = "date,text,amount";
        for (int i = 1; i < lines.length; i++) {
            lines[i] = "2027-03-01,shop " + i + ",9999999999999.99";
        }
        Path file = file(lines);
        assertThatThrownBy(() -> run(file)
                        .deliver(journals(DeliveryFormat.csv("j.csv")), folder.resolve("out"))
                        .run())
                .isInstanceOf(ArithmeticException.class);
        assertThat(folder.resolve("out"))
                .satisfiesAnyOf(
                        f -> assertThat(f).doesNotExist(), f -> assertThat(f).isEmptyDirectory());
    }
}
