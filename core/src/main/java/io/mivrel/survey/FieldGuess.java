package io.mivrel.survey;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.text.TradeWords;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Which field a column is, by the words of its title and by what its cells are. */
final class FieldGuess {
    private static final Map<Field, String> WORDS = new LinkedHashMap<>();

    static {
        WORDS.put(BankLines.DATE, "booked|date|posted|posting date|transaction date|booking date|value date|datum|day");
        WORDS.put(
                BankLines.MONEY_IN, "paid in|money in|in|receipts|deposits|deposit|credit|credits|credit amount|haben");
        WORDS.put(
                BankLines.MONEY_OUT,
                "paid out|money out|out|payments|withdrawals|withdrawal|debit|debits|debit amount|soll");
        WORDS.put(BankLines.AMOUNT, "amount|value|betrag|signed amount|movement");
        WORDS.put(BankLines.BALANCE, "balance|running balance|saldo|balance after|owed|amount owed|balance owed");
        WORDS.put(BankLines.REFERENCE, "reference|cheque|cheque no|ref|bank reference");
        WORDS.put(BankLines.PAYEE, "payee|name|counterparty");
        WORDS.put(BankLines.NARRATIVE, "details|description|narrative|text|memo|particulars|verwendungszweck|merchant");
        WORDS.put(
                JournalLines.REFERENCE,
                "voucher|vchr|vch|reference|journal|entry|document|doc|doc no|ref|voucher no|journal no");
        WORDS.put(JournalLines.DATE, "posted|date|posting date|datum|entry date|day");
        WORDS.put(JournalLines.ACCOUNT, "account|account code|nominal|ledger code|konto|account no|code");
        WORDS.put(JournalLines.DEBIT, "debit|debits|dr|soll|debit amount");
        WORDS.put(JournalLines.CREDIT, "credit|credits|cr|haben|credit amount");
        WORDS.put(JournalLines.AMOUNT, "amount|value|betrag");
        WORDS.put(JournalLines.DEPARTMENT, "dept|department|cost centre|cost center");
        WORDS.put(JournalLines.TAX_CODE, "tax code|vat code");
        WORDS.put(JournalLines.PARTY, "party|customer|supplier");
        WORDS.put(JournalLines.NARRATIVE, "narrative|description|details|text|memo|particulars");
        WORDS.put(
                InvoiceLines.NUMBER,
                "number|invoice|invoice no|document|invoice number|no|order|order no|order number");
        WORDS.put(InvoiceLines.DOCUMENT_KIND, "type|kind|document type");
        WORDS.put(InvoiceLines.PARTY, "party|customer code|supplier code|customer|supplier|account ref");
        WORDS.put(InvoiceLines.DATE, "date|invoice date|datum|day");
        WORDS.put(InvoiceLines.DUE, "due|due date");
        WORDS.put(InvoiceLines.TOTAL, "total|gross total|document total");
        WORDS.put(InvoiceLines.ITEM, "item|item code|product");
        WORDS.put(InvoiceLines.QUANTITY, "quantity|qty");
        WORDS.put(InvoiceLines.PRICE, "price|unit price");
        WORDS.put(InvoiceLines.NET, "net|net amount");
        WORDS.put(InvoiceLines.TAX_CODE, "tax code|vat code");
        WORDS.put(InvoiceLines.TAX, "tax|vat|tax amount");
        WORDS.put(InvoiceLines.ACCOUNT, "account|account code|nominal");
        WORDS.put(InvoiceLines.NARRATIVE, "description|narrative|details|text");
    }

    /** The fields of a ledger in other languages; those of bank lines are found otherwise. */
    private static final Map<Field, List<String>> MEANINGS = Map.of(
            JournalLines.REFERENCE,
            List.of("voucher", "reference"),
            JournalLines.DATE,
            List.of("booked", "date"),
            JournalLines.ACCOUNT,
            List.of("account"),
            JournalLines.DEBIT,
            List.of("debit"),
            JournalLines.CREDIT,
            List.of("credit"),
            JournalLines.AMOUNT,
            List.of("amount"),
            JournalLines.DEPARTMENT,
            List.of("department"),
            JournalLines.NARRATIVE,
            List.of("text"));

    private FieldGuess() {}

    /** The fields of a table that columns give by their titles. */
    static Map<Field, ColumnSurvey> fields(FieldTable table, List<ColumnSurvey> columns) {
        Map<Field, ColumnSurvey> found = new LinkedHashMap<>();
        List<ColumnSurvey> free = new ArrayList<>(columns);
        WORDS.forEach((field, words) -> {
            if (table.find(field.name()).orElse(null) == field) {
                ColumnSurvey column = best(field, List.of(words.split("\\|")), free);
                if (column != null) {
                    found.put(field, column);
                    free.remove(column);
                }
            }
        });
        return found;
    }

    private static @Nullable ColumnSurvey best(Field field, List<String> words, List<ColumnSurvey> free) {
        for (String word : words) {
            for (ColumnSurvey column : free) {
                String title = words(column.title());
                // A column of a linked file has the name of the link before its title.
                String own = words(column.title().substring(column.title().lastIndexOf('.') + 1));
                if ((title.equals(word) || own.equals(word)) && suits(field.type(), column)) {
                    return column;
                }
            }
        }
        for (String meaning : MEANINGS.getOrDefault(field, List.of())) {
            for (ColumnSurvey column : free) {
                if (TradeWords.fit(meaning, column.title()) == TradeWords.IS && suits(field.type(), column)) {
                    return column;
                }
            }
        }
        return null;
    }

    private static String words(String title) {
        return title.toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .strip();
    }

    private static boolean suits(FieldType type, ColumnSurvey column) {
        return switch (type) {
            case DATE -> column.type() == FieldType.DATE;
            case AMOUNT -> column.type() == FieldType.AMOUNT || column.couldBeAmounts() || column.filled() == 0;
            case DECIMAL -> column.couldBeAmounts();
            case TEXT, CODE -> column.type() != FieldType.DATE;
        };
    }

    /** What the rows are: by the fields that only one kind has. {@code null} when none fits. */
    static @Nullable Kind kind(List<ColumnSurvey> columns) {
        Map<Field, ColumnSurvey> invoice = fields(InvoiceLines.TABLE, columns);
        if (invoice.containsKey(InvoiceLines.NUMBER)
                && invoice.containsKey(InvoiceLines.PARTY)
                && (invoice.containsKey(InvoiceLines.NET) || invoice.containsKey(InvoiceLines.PRICE))) {
            return InvoiceLines.KIND;
        }
        Map<Field, ColumnSurvey> journal = fields(JournalLines.TABLE, columns);
        Map<Field, ColumnSurvey> bank = fields(BankLines.TABLE, columns);
        if (journal.containsKey(JournalLines.REFERENCE)
                && journal.containsKey(JournalLines.ACCOUNT)
                && journal.containsKey(JournalLines.DATE)
                && isOfSeveral(journal.get(JournalLines.ACCOUNT))
                && !bank.containsKey(BankLines.BALANCE)) {
            return JournalLines.KIND;
        }
        boolean amounts = bank.containsKey(BankLines.AMOUNT)
                || bank.containsKey(BankLines.MONEY_IN) && bank.containsKey(BankLines.MONEY_OUT);
        return bank.containsKey(BankLines.DATE) && amounts ? BankLines.KIND : null;
    }

    // A ledger has several accounts; a statement may name its own in every row.
    private static boolean isOfSeveral(@Nullable ColumnSurvey accounts) {
        return accounts != null && accounts.fewValues().size() != 1;
    }

    // The first dates and the longest texts, where no title told.
    static void byShape(Kind kind, List<ColumnSurvey> columns, Map<Field, ColumnSurvey> fields) {
        List<ColumnSurvey> free = new ArrayList<>(
                columns.stream().filter(c -> !fields.containsValue(c)).toList());
        Field date = kind.date();
        if (!fields.containsKey(date)) {
            take(
                    date,
                    free,
                    fields,
                    free.stream()
                            .filter(c -> c.type() == FieldType.DATE)
                            .findFirst()
                            .orElse(null));
        }
        Field text = kind.narrative();
        if (text != null && !fields.containsKey(text)) {
            take(
                    text,
                    free,
                    fields,
                    free.stream()
                            .filter(c -> c.type() == FieldType.TEXT)
                            .max(Comparator.comparingInt(ColumnSurvey::longest))
                            .orElse(null));
        }
    }

    private static void take(
            Field field, List<ColumnSurvey> free, Map<Field, ColumnSurvey> fields, @Nullable ColumnSurvey column) {
        if (column != null) {
            fields.put(field, column);
            free.remove(column);
        }
    }
}
