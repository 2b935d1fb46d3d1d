package io.mivrel;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A folder with small books, layouts, deliveries and run sheets for bank lines, journals and invoices. */
final class Workshop {
    static final String BANK_TITLES = "Date,Text,In,Out,Balance\n";
    static final String JOURNAL_TITLES = "ref,date,account,text,debit,credit,tax,party\n";
    static final String INVOICE_TITLES = "number,kind,party,date,due,text,qty,price,net,code,tax,account,total\n";

    private static final Clock CLOCK = Clock.fixed(Instant.parse("2027-04-02T08:00:00Z"), ZoneOffset.UTC);

    final Path folder;

    Workshop() {
        try {
            folder = newFolder();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        put("books/books.yaml", "books: Larkmoor Bell Foundry\ncurrency: GBP\n");
        put("books/chart.csv", """
                code,name,type,use,status,tax code
                1200,Current account,asset,bank,,
                1300,Customers,asset,receivables,,
                2100,Suppliers,liability,payables,,
                2200,Tax,liability,tax,,
                2900,Suspense,liability,suspense,,
                3100,Retained earnings,equity,,reserved,
                4000,Tower bells,income,,,STD
                5010,Tin,expense,,,STD
                5020,Copper,expense,,,STD
                6200,Telephone and internet,expense,,,
                6215,Telephone old exchange,expense,,closed,
                """);
        put("books/tax-codes.csv", "code,name,rate,account\nSTD,Standard,20,2200\nZERO,Zero,0,\n");
        put("books/parties.csv", "code,name,kind\nCUS-001,St Aldhelm,customer\nSUP-001,Calder Vale,supplier\n");
        put("books/periods.csv", "from,to,status\n2026-12-01,2026-12-31,closed\n2027-01-01,2027-12-31,open\n");
        put("coding.csv", """
                entry,direction,words,from,to,account,tax code,party,narrative
                shop,in,shop,,,4000,STD,,
                tin,out,tin,,,5010,,,
                """);
        put("bank-layout.yaml", """
                layout: Bank
                gives: bank lines
                account: 1200
                file: {encoding: UTF-8, until: Total}
                fields:
                  date:      {column: Date, pattern: "EEE dd/MM/uuuu"}
                  narrative: {column: Text}
                  money in:  {column: In}
                  money out: {column: Out}
                  balance:   {column: Balance}
                """);
        put("journal-layout.yaml", """
                layout: Ledger
                gives: journal lines
                allow: [control lines without party]
                numbers: {negative: brackets}
                fields:
                  reference: {column: ref}
                  date:      {column: date, pattern: dd/MM/uuuu}
                  account:   {column: account}
                  narrative: {column: text}
                  debit:     {column: debit}
                  credit:    {column: credit}
                  tax code:  {column: tax}
                  party:     {column: party}
                """);
        put("invoice-layout.yaml", """
                layout: Invoices
                gives: invoice lines
                fields:
                  number:    {column: number}
                  kind:      {column: kind, values: {INV: invoice, CRN: credit note, BILL: bill}}
                  party:     {column: party}
                  date:      {column: date, pattern: dd/MM/uuuu}
                  due date:  {column: due, pattern: dd/MM/uuuu}
                  narrative: {column: text}
                  quantity:  {column: qty}
                  price:     {column: price}
                  net:       {column: net}
                  tax code:  {column: code}
                  tax:       {column: tax}
                  account:   {column: account}
                  total:     {column: total}
                """);
        put("journals.yaml", """
                delivery: Journals
                takes: journals
                file: {name: "journals-{run}-{date}-{part}.csv", encoding: windows-1252, line ends: LF}
                columns:
                  Reference: {field: reference, at most: 20, refuse: "*"}
                  Date:      {field: date, pattern: uuuu-MM-dd}
                  Account:   {field: account}
                  Text:      {field: narrative, at most: 30, refuse: "<>"}
                  Amount:    {field: amount}
                """);
        put("flat.yaml", """
                delivery: Flat
                takes: invoices
                file: {name: "invoices-{date}.csv", line ends: LF}
                columns:
                  Kind:   {field: kind}
                  Number: {field: number}
                  Date:   {field: date, pattern: uuuu-MM-dd}
                  Net:    {field: net}
                  Tax:    {field: tax}
                """);
        sheet("bank", "coding: {table: coding.csv, uncoded: hold}\n", "journals.yaml");
        sheet("journal", "", "journals.yaml");
        sheet("invoice", "", "flat.yaml");
    }

    // A machine whose locale is not installed cannot name a folder with an umlaut.
    static Path newFolder() throws IOException {
        try {
            return Files.createTempDirectory("mivrel workshop ä");
        } catch (InvalidPathException plainNamesOnly) {
            return Files.createTempDirectory("mivrel workshop");
        }
    }

    /** Writes {@code kind.yaml}, a run sheet that takes in {@code kind.csv}. */
    Workshop sheet(String kind, String more, String delivery) {
        return put(
                kind + ".yaml",
                "run: " + kind + "\nbooks: books\nintake: [{files: " + kind + ".csv, layout: " + kind
                        + "-layout.yaml}]\ndeliver: [{as: " + delivery + ", to: out}]\n" + more);
    }

    /** A run of this kind that takes in another file under another layout, and delivers bank lines or journals. */
    Workshop takes(String kind, String file, String layout) {
        put("lines.yaml", """
                delivery: Lines
                takes: bank transactions
                file: {name: "lines-{date}.csv", line ends: LF}
                columns:
                  Date:   {field: date, pattern: uuuu-MM-dd}
                  Text:   {field: narrative}
                  Amount: {field: amount}
                """);
        String delivery = layout.contains("gives: bank lines") ? "lines.yaml" : "journals.yaml";
        return sheet(kind, "", delivery)
                .put(kind + "-layout.yaml", layout)
                .replace(kind + ".yaml", "files: " + kind + ".csv", "files: " + file);
    }

    /** True when the run of bank lines was changed by {@link #takes}. */
    boolean isBank() {
        return read("bank.yaml").contains("lines.yaml");
    }

    Workshop put(String name, String text) {
        return put(name, text, StandardCharsets.UTF_8);
    }

    Workshop put(String name, String text, Charset charset) {
        return put(name, text.getBytes(charset));
    }

    Workshop put(String name, byte[] bytes) {
        try {
            Files.createDirectories(folder.resolve(name).getParent());
            Files.write(folder.resolve(name), bytes);
            return this;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    Workshop replace(String name, String what, String by) {
        String text = read(name);
        if (!text.contains(what)) {
            throw new IllegalArgumentException(name + " lacks " + what);
        }
        return put(name, text.replace(what, by));
    }

    String read(String name) {
        try {
            return Files.readString(folder.resolve(name));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    byte[] bytes(String name) throws IOException {
        return Files.readAllBytes(folder.resolve(name));
    }

    Workshop bank(String rows) {
        return put("bank.csv", BANK_TITLES + rows);
    }

    Workshop journal(String rows) {
        return put("journal.csv", JOURNAL_TITLES + rows);
    }

    Workshop invoice(String rows) {
        return put("invoice.csv", INVOICE_TITLES + rows);
    }

    /** All files that were delivered, one behind the other by their names. */
    String delivered() throws IOException {
        try (Stream<Path> out = Files.list(folder.resolve("out"))) {
            return out.sorted(Comparator.comparing(Path::toString))
                    .map(file -> read("out/" + file.getFileName()))
                    .collect(Collectors.joining());
        }
    }

    Mivrel open(String kind) throws SettingsException {
        return Mivrel.open(folder.resolve(kind + ".yaml")).clock(CLOCK);
    }

    Outcome run(String kind) throws SettingsException, IOException {
        return open(kind).run();
    }

    /** The names in a folder of the workshop, hidden ones too; empty when there is none. */
    List<String> names(String inside) {
        if (!Files.isDirectory(folder.resolve(inside))) {
            return List.of();
        }
        try (Stream<Path> files = Files.list(folder.resolve(inside))) {
            return files.map(f -> f.getFileName().toString()).sorted().toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What a run tells, but for the rows that nothing proves: nearly every small file has some. */
    static List<Finding> told(Outcome outcome) {
        return outcome.report().findings().worstFirst().stream()
                .filter(finding -> finding.rule() != Rule.ROWS_NOT_PROVED)
                .toList();
    }
}
