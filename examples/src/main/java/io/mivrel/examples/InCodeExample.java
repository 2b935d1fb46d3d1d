package io.mivrel.examples;

import io.mivrel.Mivrel;
import io.mivrel.Outcome;
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
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.rows.FileFormat;
import java.nio.file.Path;
import java.util.Currency;
import java.util.List;

/** A whole run told in code, without any settings file, and with a check of one's own. */
public final class InCodeExample {
    private InCodeExample() {}

    /** The folder to unpack the demo data into. */
    public static void main(String[] args) throws Exception {
        Path folder = DemoData.unpackFor(args, "in-code-example");

        Books books = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
                .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
                .account("2900", "Suspense", AccountType.LIABILITY, AccountUse.SUSPENSE, AccountStatus.OPEN)
                .account("4030", "Handbells", AccountType.INCOME)
                .build();
        Layout layout = Layout.named("Wexcombe Bank", BankLines.KIND)
                .account("1200")
                .format(FileFormat.separated(',', "windows-1252").titlesIn(4).endingAt("Closing balance"))
                .field(BankLines.DATE, FieldSource.date("Booked", "EEE dd/MM/uuuu"))
                .field(BankLines.NARRATIVE, "Details")
                .field(BankLines.MONEY_IN, "Paid in")
                .field(BankLines.MONEY_OUT, "Paid out")
                .field(BankLines.BALANCE, "Balance")
                .unused("Kind")
                .unused("Cheque")
                .unused("Branch")
                .build();
        CodingTable coding =
                new CodingTable("shop only", List.of(CodingEntry.words("shop", Direction.IN, "4030", "foundry shop")));
        Delivery journals = Delivery.named("Journals", JournalLines.KIND)
                .format(DeliveryFormat.csv("journals-{date}.csv"))
                .column("Reference", JournalLines.REFERENCE)
                .column(DeliveryColumn.date("Date", JournalLines.DATE, "dd/MM/uuuu"))
                .column("Account", JournalLines.ACCOUNT)
                .column("Amount", JournalLines.AMOUNT)
                .build();

        Outcome outcome = Mivrel.named("Shop takings", books)
                .takeIn(folder.resolve("inbox/current-2027-03.csv"), layout)
                .code(coding)
                .uncodedTo("2900")
                .deliver(journals, folder.resolve("out"))
                .run();

        System.out.println(outcome.report().clear().documents() + " bank lines became journals in "
                + outcome.report().deliveries().get(0).files().get(0).name());
    }
}
