package io.mivrel.files.settings;

import io.mivrel.books.Books;
import io.mivrel.coding.Coder;
import io.mivrel.coding.CodingEntry;
import io.mivrel.coding.CodingTable;
import io.mivrel.coding.Direction;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Posting;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.text.AmountFormat;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Reads a coding table from CSV. */
final class CodingFile {
    /** In place of an account that nobody has filled in yet. */
    private static final String WAITS = "?";

    private final Books books;
    private final AmountFormat amounts;

    private CodingFile(Books books) {
        this.books = books;
        this.amounts = new AmountFormat(Money.decimals(books.currency()), '.', ',', false, false, "");
    }

    /** The table, checked against the books, or {@code null}; then its problems were reported. */
    static CodingTable read(Path path, String shown, Books books, Problems problems) {
        int before = problems.count();
        Table table = Table.read(path, shown, List.of("entry", "direction", "words", "account"), also(), problems);
        if (table == null || books == null) {
            return null;
        }
        CodingFile reader = new CodingFile(books);
        List<CodingEntry> entries = new ArrayList<>();
        Set<String> names = new HashSet<>();
        for (Table.Line line : table.lines()) {
            // An entry that waits for its account decides nothing; its lines are told to be uncoded.
            if (WAITS.equals(line.text("account"))) {
                continue;
            }
            CodingEntry entry = reader.entry(line);
            if (entry != null) {
                if (!names.add(entry.name())) {
                    line.wrong("the entry '" + entry.name() + "' stands twice", "");
                }
                entries.add(entry);
            }
        }
        return problems.count() > before ? null : new CodingTable(shown, entries);
    }

    private CodingEntry entry(Table.Line line) {
        String name = line.required("entry");
        String direction = line.choice("direction", "either", "in", "out", "either");
        String account = line.required("account");
        String taxCode = line.text("tax code");
        String party = line.text("party");
        if (account != null && books.account(account) == null) {
            line.notAllowed("account", account, books.accountCodes());
        }
        if (taxCode != null && books.taxCode(taxCode) == null) {
            line.notAllowed("tax code", taxCode, books.taxCodeCodes());
        }
        if (party != null && books.party(party) == null) {
            line.notAllowed("party", party, books.partyCodes());
        }
        long from = amount(line, "from");
        long to = amount(line, "to");
        List<String> words = words(line);
        if (words.isEmpty() && from == SourceRecord.ABSENT && to == SourceRecord.ABSENT && direction.equals("either")) {
            line.wrong("the entry has neither words nor direction nor amounts, so it would take every line", "");
        }
        if (from != SourceRecord.ABSENT && to != SourceRecord.ABSENT && from > to) {
            line.wrong("'from' is larger than 'to'", "");
        }
        return name == null || account == null
                ? null
                : new CodingEntry(
                        name,
                        Direction.valueOf(direction.toUpperCase(Locale.ROOT)),
                        words,
                        from,
                        to,
                        line.text("narrative"),
                        List.of(posting(line, account, taxCode, party)));
    }

    private static Posting posting(Table.Line line, String account, String taxCode, String party) {
        Posting posting = Posting.whole(account, taxCode, party);
        for (String dimension : dimensions()) {
            posting = posting.with(dimension, line.text(dimension));
        }
        return posting;
    }

    private static List<String> also() {
        List<String> also = new ArrayList<>(List.of("from", "to", "tax code", "party", "narrative"));
        also.addAll(dimensions());
        return also;
    }

    private static List<String> dimensions() {
        return Kinds.ALL.stream()
                .filter(Kind::isCoded)
                .flatMap(kind -> kind.dimensions().stream())
                .map(Field::name)
                .distinct()
                .toList();
    }

    private static List<String> words(Table.Line line) {
        String text = line.text("words");
        if (text == null) {
            return List.of();
        }
        List<String> words =
                Arrays.stream(text.split("\\|", -1)).map(String::strip).toList();
        if (!words.stream().allMatch(Coder::isUsablePhrase)) {
            line.wrong(
                    "'words' are phrases with | between them, none of them blank: '" + text + "'",
                    "tin ingot | smelter*");
            return List.of();
        }
        return words;
    }

    private long amount(Table.Line line, String title) {
        String text = line.text(title);
        if (text == null) {
            return SourceRecord.ABSENT;
        }
        long amount = amounts.parse(text);
        if (!AmountFormat.isAmount(amount) || amount < 0) {
            line.wrong("'" + title + "' must be an amount without sign, not '" + text + "'", "");
            return SourceRecord.ABSENT;
        }
        return amount;
    }
}
