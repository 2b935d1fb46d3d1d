package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.settings.BooksFolder;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.posting.Entry;
import io.mivrel.posting.Ledger;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** No value that was read vanishes: each further code of a line goes from the file, or the coding table, to journals and ledger. */
public class DimensionsTest {
    private static final String CODE = "CODE-1";

    @DataProvider
    static Object[][] dimensions() {
        List<Object[]> all = new ArrayList<>();
        for (Kind kind : Kinds.ALL) {
            kind.dimensions().forEach(dimension -> all.add(new Object[] {kind, dimension}));
        }
        return all.toArray(Object[][]::new);
    }

    @Test
    public void everyKindHasTheSameUnderTheSameNames() {
        for (Kind kind : Kinds.ALL) {
            assertThat(kind.dimensions())
                    .extracting(Field::name)
                    .isNotEmpty()
                    .isSubsetOf(JournalLines.KIND.dimensions().stream()
                            .map(Field::name)
                            .toList());
        }
    }

    @Test(dataProvider = "dimensions")
    public void reachesJournalsAndLedger(Kind kind, Field dimension) throws Exception {
        Map<Kind, String> sheets =
                Map.of(BankLines.KIND, "bank", JournalLines.KIND, "journal", InvoiceLines.KIND, "invoice");
        String sheet = sheets.get(kind);
        Workshop shop = new Workshop();
        String layout = sheet + "-layout.yaml";
        shop.put(layout, shop.read(layout) + "  " + dimension.name() + ": {column: further}\n");
        switch (sheet) {
            case "bank" ->
                shop.put("bank.csv", """
                    Date,Text,In,Out,Balance,further
                    Mon 01/03/2027,tin,,5.00,95.00,CODE-1
                    """)
                        .replace("bank.yaml", "coding: {table: coding.csv, uncoded: hold}\n", "")
                        .put(layout, shop.read(layout) + "  account: {constant: \"5010\"}\n");
            case "journal" -> shop.put("journal.csv", """
                    ref,date,account,text,debit,credit,tax,party,further
                    1,01/03/2027,5010,tin,5.00,,,,CODE-1
                    1,01/03/2027,2900,tin,,5.00,,,
                    """);
            default -> shop.put("invoice.csv", """
                    number,kind,party,date,due,text,qty,price,net,code,tax,account,total,further
                    I1,BILL,SUP-001,01/03/2027,01/04/2027,tin,1,5.00,5.00,,,5010,,CODE-1
                    """).replace("invoice.yaml", "flat.yaml", "journals.yaml");
        }
        assertThatItArrives(shop, sheet, dimension);
    }

    @Test
    public void aColumnOfTheCodingTableReachesThemToo() throws Exception {
        for (Field dimension : BankLines.KIND.dimensions()) {
            Workshop shop = new Workshop().bank("Mon 01/03/2027,tin,,5.00,95.00\n");
            shop.put("coding.csv", "entry,direction,words,account," + dimension.name() + "\ntin,out,tin,5010,CODE-1\n");
            assertThatItArrives(shop, "bank", dimension);
        }
    }

    private static void assertThatItArrives(Workshop shop, String sheet, Field dimension) throws Exception {
        shop.replace("journals.yaml", "  Amount:", "  Further: {field: " + dimension.name() + "}\n  Amount:");
        Outcome outcome = shop.run(sheet);
        assertThat(outcome.report().clear().documents())
                .as(Workshop.told(outcome).toString())
                .isEqualTo(1);
        assertThat(shop.delivered().lines().filter(line -> line.contains("," + CODE + ",")))
                .singleElement()
                .asString()
                .contains(",5010,");
        try (PracticeLedger ledger = PracticeLedger.openOrCreate(
                "practice",
                PracticePlace.file(shop.folder.resolve("practice.db")),
                BooksFolder.read(shop.folder.resolve("books")))) {
            shop.open(sheet).postTo(ledger).post();
            List<Entry> entries = new ArrayList<>();
            ledger.entries(Ledger.Query.ALL, recorded -> entries.add(recorded.entry()));
            assertThat(entries)
                    .singleElement()
                    .satisfies(entry -> assertThat(entry.lines())
                            .filteredOn(line -> !line.dimensions().isEmpty())
                            .singleElement()
                            .satisfies(line -> {
                                assertThat(line.account()).isEqualTo("5010");
                                assertThat(line.dimensions()).isEqualTo(Map.of(dimension.name(), CODE));
                            }));
        }
    }
}
