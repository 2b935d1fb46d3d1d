package io.mivrel.survey;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.InvoiceLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
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
    /** By kind and field, as {@code fields.txt} says it. */
    private static final Map<String, List<String>> WORDS = TradeWords.lists(FieldGuess.class, "fields.txt");

    private FieldGuess() {}

    /** The fields of a kind that columns give by their titles. */
    static Map<Field, ColumnSurvey> fields(Kind kind, List<ColumnSurvey> columns) {
        Map<Field, ColumnSurvey> found = new LinkedHashMap<>();
        List<ColumnSurvey> free = new ArrayList<>(columns);
        WORDS.forEach((name, words) -> {
            Field field = name.startsWith(kind.name() + ", ")
                    ? kind.table()
                            .find(name.substring(kind.name().length() + 2))
                            .orElseThrow()
                    : null;
            ColumnSurvey column = field == null ? null : best(field, words, free);
            if (field != null && column != null) {
                found.put(field, column);
                free.remove(column);
            }
        });
        boolean sides = found.containsKey(JournalLines.DEBIT) || found.containsKey(JournalLines.CREDIT);
        if (sides && found.containsKey(JournalLines.CURRENCY) && found.containsKey(JournalLines.AMOUNT)) {
            // Beside two sides in home money, an amount with a currency is the foreign one.
            found.put(JournalLines.FOREIGN_AMOUNT, found.remove(JournalLines.AMOUNT));
        }
        return found;
    }

    private static @Nullable ColumnSurvey best(Field field, List<String> words, List<ColumnSurvey> free) {
        for (String word : words) {
            for (ColumnSurvey column : free) {
                String title = words(column.title());
                // A column of a linked file has the name of the link before its title.
                String own = words(column.title().substring(column.title().lastIndexOf('.') + 1));
                boolean is = word.startsWith("@")
                        ? TradeWords.fit(word.substring(1), column.title()) == TradeWords.IS
                        : title.equals(word) || own.equals(word);
                if (is && suits(field.type(), column)) {
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
        Map<Field, ColumnSurvey> invoice = fields(InvoiceLines.KIND, columns);
        if (invoice.containsKey(InvoiceLines.NUMBER)
                && invoice.containsKey(InvoiceLines.PARTY)
                && (invoice.containsKey(InvoiceLines.NET) || invoice.containsKey(InvoiceLines.PRICE))) {
            return InvoiceLines.KIND;
        }
        Map<Field, ColumnSurvey> journal = fields(JournalLines.KIND, columns);
        Map<Field, ColumnSurvey> bank = fields(BankLines.KIND, columns);
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
        Field text = kind.narrative();
        columns.stream()
                .filter(c -> !fields.containsValue(c) && c.type() == FieldType.DATE)
                .findFirst()
                .ifPresent(c -> fields.putIfAbsent(kind.date(), c));
        columns.stream()
                .filter(c -> text != null && !fields.containsValue(c) && c.type() == FieldType.TEXT)
                .max(Comparator.comparingInt(ColumnSurvey::longest))
                .ifPresent(c -> fields.putIfAbsent(text, c));
    }
}
