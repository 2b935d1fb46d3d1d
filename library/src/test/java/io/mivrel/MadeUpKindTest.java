package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.books.AccountType;
import io.mivrel.books.Books;
import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.drafting.DocumentTree;
import io.mivrel.kinds.Kinds;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.KindWords;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.Progress;
import io.mivrel.run.RunReport;
import io.mivrel.survey.Answers;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/**
 * A kind that the main code has never heard of, with three levels: an order, its items, and the casts of each item. It is a
 * table, a kind and a drafter, and goes from a file to a delivery of three sheets.
 */
public class MadeUpKindTest {
    private static final FieldTable TABLE = new FieldTable("bell orders", "order", "item", "cast");
    private static final Field NUMBER = TABLE.level(0).required("number", FieldType.CODE, "number of the order");
    private static final Field DAY = TABLE.level(0).required("date", FieldType.DATE, "day of the order");
    private static final Field TOWER = TABLE.level(0).optional("tower", FieldType.TEXT, "where the bells go");
    private static final Field ITEM = TABLE.level(1).required("item", FieldType.CODE, "the bell ordered");
    private static final Field ACCOUNT = TABLE.level(1).required("account", FieldType.CODE, "income account");
    private static final Field PRICE = TABLE.level(1).required("price", FieldType.AMOUNT, "price of the bell");
    private static final Field CAST = TABLE.level(2).optional("cast", FieldType.CODE, "number of the cast");
    private static final Field KILOGRAMS =
            TABLE.level(2).optional("kilograms", FieldType.DECIMAL, "weight of the cast");

    private static final Kind ORDERS = Kind.of(TABLE, "bell orders")
            .words(KindWords.of("order", "orders", "to receive", "to pay"))
            .titles(() -> Map.of(
                    "number",
                    List.of("order"),
                    "date",
                    List.of("day"),
                    "item",
                    List.of("bell"),
                    "price",
                    List.of("price"),
                    "account",
                    List.of("account"),
                    "cast",
                    List.of("cast"),
                    "tower",
                    List.of("tower")))
            .toldBy(List.of(NUMBER), List.of(ITEM), List.of(CAST))
            .date(DAY)
            .key(NUMBER, ITEM, CAST)
            .amount(PRICE)
            .narrative(TOWER)
            .codes(ACCOUNT, null, null)
            .identity(DocumentIdentity.byFields(
                    71, List.of(NUMBER), List.of(), List.of(), DAY, List.of(ITEM, PRICE, CAST)))
            .drafter(context -> (records, coding, findings) -> {
                Line heading = DocumentTree.of(ORDERS(), records, findings);
                return new Document(ORDERS(), records, heading, heading.text(NUMBER), null);
            })
            .build();

    private static final Books BOOKS = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
            .account("4010", "Tower bells", AccountType.INCOME)
            .build();
    private static final Layout LAYOUT = Layout.named("orders", ORDERS)
            .field(NUMBER, "order")
            .field(DAY, FieldSource.date("day", "dd.MM.uuuu"))
            .field(TOWER, "tower")
            .field(ITEM, "bell")
            .field(ACCOUNT, "account")
            .field(PRICE, "price")
            .field(CAST, "cast")
            .field(KILOGRAMS, "kg")
            .build();
    private static final Delivery SHEETS = Delivery.named("Orders", ORDERS)
            .sheet("orders", TABLE.level(0))
            .format(DeliveryFormat.csv("orders.csv"))
            .column("Order", NUMBER)
            .column("Day", DAY)
            .column("Tower", TOWER)
            .sheet("items", TABLE.level(1))
            .format(DeliveryFormat.csv("items.csv"))
            .column("Order", NUMBER)
            .column("Bell", ITEM)
            .column("Price", PRICE)
            .column("Account", ACCOUNT)
            .sheet("casts", TABLE.level(2))
            .format(DeliveryFormat.csv("casts.csv"))
            .column("Order", NUMBER)
            .column("Bell", ITEM)
            .column("Cast", CAST)
            .column("Kg", KILOGRAMS)
            .build();

    private Path folder;

    // Its drafter refers to the kind that it is part of.
    private static Kind ORDERS() {
        return ORDERS;
    }

    @BeforeMethod
    public void newFolder() throws IOException {
        folder = Files.createTempDirectory("mivrel orders");
    }

    private Mivrel run(String... rows) throws IOException {
        Path file = folder.resolve("orders.csv");
        Files.writeString(file, "order,day,tower,bell,account,price,cast,kg\n" + String.join("\n", rows) + "\n");
        return Mivrel.named("Orders", BOOKS)
                .takeIn(file, LAYOUT)
                .deliver(SHEETS, folder.resolve("out"))
                .keepIn(folder);
    }

    private static final String[] ORDER = {
        "O-1,03.02.2027,St Wend,tenor,4010,9000.00,C-1,480.5",
        "O-1,03.02.2027,St Wend,tenor,4010,9000.00,C-2,481",
        "O-1,03.02.2027,St Wend,treble,4010,2100.50,,",
        "O-2,04.02.2027,Hallow Down,treble,4010,2000.00,C-3,99.25"
    };

    @Test
    public void twoKindsCannotShareANumber() {
        FieldTable table = new FieldTable("odd lines", "odd", "line");
        Field day = table.level(0).required("date", FieldType.DATE, "day");
        Field price = table.level(1).required("price", FieldType.AMOUNT, "price");
        Kind.Builder odd = Kind.of(table, "odd ones")
                .words(KindWords.of("odd one", "odd ones", "in", "out"))
                .date(day)
                .amount(price)
                .drafter(context -> (records, coding, findings) -> {
                    throw new AssertionError("nothing is drafted");
                });
        DocumentIdentity taken = DocumentIdentity.byFields(3, List.of(), List.of(), List.of(), day, List.of(price));
        assertThatThrownBy(() -> odd.identity(taken).build())
                .hasMessage("'journal lines' and 'odd lines' have the same number of identity, 3; choose another");
    }

    @Test
    public void goesFromAFileToADeliveryOfThreeSheets() throws IOException {
        RunReport report = run(ORDER).run().report();
        assertThat(report.findings().worstFirst()).isEmpty();
        assertThat(report.clear().documents()).isEqualTo(2);
        // The price of the tenor stands on two rows and counts once.
        assertThat(report.clear().totals().debit()).isEqualTo(13_100_50);
        assertThat(folder.resolve("out/orders.csv"))
                .hasContent("Order,Day,Tower\nO-1,2027-02-03,St Wend\nO-2,2027-02-04,Hallow Down");
        assertThat(folder.resolve("out/items.csv"))
                .hasContent("Order,Bell,Price,Account\nO-1,tenor,9000.00,4010\nO-1,treble,2100.50,4010\n"
                        + "O-2,treble,2000.00,4010");
        assertThat(folder.resolve("out/casts.csv"))
                .hasContent("Order,Bell,Cast,Kg\nO-1,tenor,C-1,480.5\nO-1,tenor,C-2,481\nO-2,treble,C-3,99.25");
    }

    @Test
    public void isRememberedAndCheckedLikeAnyOther() throws IOException {
        run(ORDER).run();
        String[] again = ORDER.clone();
        again[3] = "O-2,04.02.2027,Hallow Down,treble,4010,2001.00,C-3,99.25";
        RunReport second = run(again).run().report();
        assertThat(second.leftOut()).containsEntry(LeftOut.DELIVERED_BEFORE, 3L);
        assertThat(second.findings().worstFirst()).extracting(Finding::rule).contains(Rule.CHANGED_SINCE_DELIVERED);

        RunReport unknown =
                run("O-3,04.02.2027,Hallow Down,treble,4099,5.00,C-4,1").check().report();
        assertThat(unknown.findings().worstFirst()).extracting(Finding::rule).containsExactly(Rule.ACCOUNT_UNKNOWN);
    }

    @Test
    public void itemsOfOneOrderThatDisagreeAreHeld() throws IOException {
        String[] rows = ORDER.clone();
        rows[1] = "O-1,03.02.2027,St Wend,tenor,4010,9001.00,C-2,481";
        RunReport report = run(rows).run().report();
        assertThat(report.findings().worstFirst()).extracting(Finding::rule).contains(Rule.HEADING_DIFFERS);
        assertThat(report.held().documents()).isEqualTo(1);
        assertThat(folder.resolve("out/orders.csv")).content().doesNotContain("O-1");
        assertThat(folder.resolve("out/casts.csv")).content().doesNotContain("O-1");
    }

    @Test
    public void aSurveyKnowsItByItsTitles() throws IOException {
        Path file = folder.resolve("survey.csv");
        Files.writeString(
                file,
                "order,day,tower,bell,account,price,cast\n"
                        + String.join("\n", ORDER).replaceAll("(?m),[0-9.]*$", "") + "\n");
        List<Kind> kinds = new ArrayList<>(Kinds.ALL);
        kinds.add(ORDERS);
        FileSurvey surveyed = FileSurvey.of(file, "orders", Answers.NONE, kinds, Progress.NONE);
        assertThat(surveyed.survey().gives()).isEqualTo(ORDERS);
        assertThat(surveyed.survey().fields().keySet()).contains(NUMBER, DAY, TOWER, ITEM, ACCOUNT, PRICE, CAST);
        assertThat(surveyed.layout()).contains("gives: bell orders", "item: {column: \"bell\"");
        assertThat(FileSurvey.of(file).survey().gives()).isNotEqualTo(ORDERS);
    }
}
