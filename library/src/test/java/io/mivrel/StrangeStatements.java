package io.mivrel;

import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/**
 * Statements of account as banks of thirteen countries might export them, from a seed, each with its truth. Titles, texts
 * and forms are written down here as such exports have them, without a look at what a survey knows.
 */
final class StrangeStatements {
    /** What one line truly is: the physical row, the day, minor units with money in positive, and the text. */
    record Line(long row, LocalDate day, long minor, String text) {}

    /** A file and the truth of it. */
    record Statement(String name, byte[] bytes, String currency, List<Line> lines, String what) {}

    record Country(
            String language,
            String currency,
            String[] encodings,
            String[] titles,
            String[] spends,
            String[] earns,
            String[] dates,
            String numbers,
            String opening,
            String closing) {
        /** Accounts in another currency, as banks of the country keep them too. */
        Country with(String other) {
            return new Country(language, other, encodings, titles, spends, earns, dates, numbers, opening, closing);
        }

        String show(long minor) {
            int decimals = Currency.getInstance(currency).getDefaultFractionDigits();
            return StrangeStatements.numbers(numbers, decimals).format(BigDecimal.valueOf(minor, decimals));
        }
    }

    // Titles: day, text, amount, out, in, balance, reference.
    static final List<Country> COUNTRIES = List.of(
            new Country(
                    "en",
                    "GBP",
                    new String[] {"UTF-8", "windows-1252"},
                    new String[] {"Date", "Transaction description", "Amount", "Money out", "Money in", "Balance", "Ref"
                    },
                    new String[] {"Card payment Hollins Bakery", "Direct debit Fenwater Energy", "Standing order rent"},
                    new String[] {"Salary Larkmoor", "Refund Hollins Bakery", "Transfer from A Penn"},
                    new String[] {"dd/MM/yyyy", "dd MMM yyyy", "yyyy-MM-dd"},
                    ".,",
                    "Opening balance",
                    "Closing balance"),
            new Country(
                    "de",
                    "EUR",
                    new String[] {"windows-1252", "UTF-8", "IBM850"},
                    new String[] {"Buchungstag", "Verwendungszweck", "Betrag", "Soll", "Haben", "Saldo", "Referenz"},
                    new String[] {"Kartenzahlung Bäckerei Grün", "Lastschrift Stadtwerke Süd", "Dauerauftrag Miete"},
                    new String[] {"Gehalt Glockengießerei", "Gutschrift Müller", "Rückerstattung Bäckerei Grün"},
                    new String[] {"dd.MM.yyyy", "dd.MM.yy", "yyyy-MM-dd"},
                    ",.",
                    "Anfangssaldo",
                    "Endsaldo"),
            new Country(
                    "fr",
                    "EUR",
                    new String[] {"windows-1252", "UTF-8", "ISO-8859-15"},
                    new String[] {"Date comptable", "Libellé", "Montant", "Débit", "Crédit", "Solde", "Référence"},
                    new String[] {"Paiement par carte Épicerie Noël", "Prélèvement Énergie du Hêtre", "Retrait espèces"
                    },
                    new String[] {"Virement reçu de Mme Lançon", "Salaire Fonderie", "Remboursement Épicerie Noël"},
                    new String[] {"dd/MM/yyyy", "d MMM yyyy", "dd-MM-yyyy"},
                    ", ",
                    "Solde initial",
                    "Solde final"),
            new Country(
                    "es",
                    "EUR",
                    new String[] {"windows-1252", "UTF-8"},
                    new String[] {"Fecha", "Concepto", "Importe", "Cargo", "Abono", "Saldo", "Referencia"},
                    new String[] {"Compra con tarjeta Panadería Peña", "Recibo domiciliado Energía", "Comisión"},
                    new String[] {"Nómina Fundición", "Transferencia de J. Núñez", "Devolución Panadería Peña"},
                    new String[] {"dd/MM/yyyy", "dd-MMM-yy", "d MMM yyyy"},
                    ",.",
                    "Saldo inicial",
                    "Saldo final"),
            new Country(
                    "it",
                    "EUR",
                    new String[] {"windows-1252", "UTF-8"},
                    new String[] {
                        "Data contabile",
                        "Descrizione operazione",
                        "Importo",
                        "Addebiti",
                        "Accrediti",
                        "Saldo contabile",
                        "Riferimento"
                    },
                    new String[] {"Pagamento POS Panificio Città", "Addebito diretto Energia", "Prelievo bancomat"},
                    new String[] {"Stipendio Fonderia", "Bonifico da L. Perù", "Rimborso Panificio Città"},
                    new String[] {"dd/MM/yyyy", "dd.MM.yyyy", "d MMM yyyy"},
                    ",.",
                    "Saldo iniziale",
                    "Saldo finale"),
            new Country(
                    "pt",
                    "EUR",
                    new String[] {"windows-1252", "UTF-8"},
                    new String[] {"Data mov.", "Descrição", "Montante", "Débito", "Crédito", "Saldo", "Referência"},
                    new String[] {"Compra com cartão Padaria São", "Débito direto Água", "Levantamento multibanco"},
                    new String[] {"Vencimento Fundição", "Transferência de J. Leão", "Reembolso Padaria São"},
                    new String[] {"dd-MM-yyyy", "dd/MM/yyyy", "yyyy/MM/dd"},
                    ",.",
                    "Saldo inicial",
                    "Saldo final"),
            new Country(
                    "nl",
                    "EUR",
                    new String[] {"UTF-8", "windows-1252"},
                    new String[] {"Boekdatum", "Omschrijving", "Bedrag", "Af", "Bij", "Saldo na boeking", "Kenmerk"},
                    new String[] {"Betaalautomaat Bakkerij Één", "Incasso Energie", "Periodieke overboeking huur"},
                    new String[] {"Salaris gieterij", "Overschrijving van J. Coöp", "Terugbetaling Bakkerij Één"},
                    new String[] {"dd-MM-yyyy", "yyyyMMdd", "dd/MM/yyyy"},
                    ",.",
                    "Beginsaldo",
                    "Eindsaldo"),
            new Country(
                    "sv",
                    "SEK",
                    new String[] {"windows-1252", "UTF-8"},
                    new String[] {"Bokföringsdatum", "Beskrivning", "Belopp", "Uttag", "Insättning", "Saldo", "Referens"
                    },
                    new String[] {"Kortköp Bageri Åsen", "Autogiro Energi", "Överföring till hyra"},
                    new String[] {"Lön Gjuteriet", "Insättning från Öberg", "Återbetalning Bageri Åsen"},
                    new String[] {"yyyy-MM-dd", "yyyy-MM-dd", "dd.MM.yyyy"},
                    ", ",
                    "Ingående saldo",
                    "Utgående saldo"),
            new Country(
                    "da",
                    "DKK",
                    new String[] {"windows-1252", "UTF-8"},
                    new String[] {"Bogført", "Tekst", "Beløb", "Ud", "Ind", "Saldo", "Reference"},
                    new String[] {"Dankort Bageri Ø", "Betalingsservice Energi", "Overførsel til husleje"},
                    new String[] {"Løn Støberiet", "Indbetaling fra Sørensen", "Tilbagebetaling Bageri Ø"},
                    new String[] {"dd-MM-yyyy", "dd.MM.yyyy", "dd.MM.yy"},
                    ",.",
                    "Primosaldo",
                    "Ultimosaldo"),
            new Country(
                    "nb",
                    "NOK",
                    new String[] {"UTF-8", "windows-1252"},
                    new String[] {
                        "Bokført dato", "Forklaring", "Beløp", "Ut fra konto", "Inn på konto", "Saldo", "Arkivref"
                    },
                    new String[] {"Varekjøp Bakeri Ås", "Avtalegiro Strøm", "Minibank Oslogata"},
                    new String[] {"Lønn Støperiet", "Innbetaling fra Sørli", "Tilbakebetaling Bakeri Ås"},
                    new String[] {"dd.MM.yyyy", "dd.MM.yyyy", "yyyy-MM-dd"},
                    ", ",
                    "Inngående saldo",
                    "Utgående saldo"),
            new Country(
                    "fi",
                    "EUR",
                    new String[] {"UTF-8", "ISO-8859-15"},
                    new String[] {"Kirjauspäivä", "Selite", "Määrä", "Otot", "Panot", "Saldo", "Viite"},
                    new String[] {"Korttiosto Leipomo Yö", "Suoraveloitus Sähkö", "Käteisnosto"},
                    new String[] {"Palkka Valimo", "Palautus Leipomo Yö", "Talletus"},
                    new String[] {"dd.MM.yyyy", "d.M.yyyy", "yyyy-MM-dd"},
                    ", ",
                    "Alkusaldo",
                    "Loppusaldo"),
            new Country(
                    "pl",
                    "PLN",
                    new String[] {"windows-1250", "UTF-8", "ISO-8859-2"},
                    new String[] {
                        "Data księgowania",
                        "Opis operacji",
                        "Kwota",
                        "Obciążenia",
                        "Uznania",
                        "Saldo po operacji",
                        "Numer referencyjny"
                    },
                    new String[] {"Płatność kartą Piekarnia Żuraw", "Polecenie zapłaty Energia", "Wypłata gotówki"},
                    new String[] {"Wynagrodzenie Odlewnia", "Wpłata Łukasz Ćwik", "Zwrot Piekarnia Żuraw"},
                    new String[] {"dd-MM-yyyy", "yyyy-MM-dd", "dd.MM.yyyy"},
                    ", ",
                    "Saldo początkowe",
                    "Saldo końcowe"),
            new Country(
                    "cs",
                    "CZK",
                    new String[] {"windows-1250", "UTF-8", "ISO-8859-2"},
                    new String[] {"Datum zaúčtování", "Popis", "Částka", "Výdaje", "Příjmy", "Zůstatek", "Reference"},
                    new String[] {"Platba kartou Pekařství Růže", "Inkaso Elektřina", "Výběr z bankomatu"},
                    new String[] {"Mzda Slévárna", "Příchozí platba Dvořák", "Vrácení Pekařství Růže"},
                    new String[] {"dd.MM.yyyy", "d.M.yyyy", "yyyy-MM-dd"},
                    ", ",
                    "Počáteční zůstatek",
                    "Konečný zůstatek"));

    private static final List<String> WAYS = List.of("signed", "sides", "trailing", "brackets", "mark", "plus");

    private StrangeStatements() {}

    /** So many files, the languages in turn. */
    static List<Statement> make(long seed, int count) {
        return make(seed, count, "");
    }

    /** The same of accounts in one currency; empty for those of the countries. */
    static List<Statement> make(long seed, int count, String currency) {
        Random random = new Random(seed);
        List<Statement> all = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Country country = COUNTRIES.get(i % COUNTRIES.size());
            all.add(make(currency.isEmpty() ? country : country.with(currency), i, random));
        }
        return all;
    }

    private static Statement make(Country in, int number, Random random) {
        String way = WAYS.get(random.nextInt(WAYS.size()));
        String pattern = in.dates[random.nextInt(in.dates.length)];
        String encoding = in.encodings[random.nextInt(in.encodings.length)];
        char separator = ";;\t|,".charAt(random.nextInt(5));
        boolean balance = random.nextInt(3) > 0;
        boolean stated = random.nextBoolean();
        boolean newest = random.nextInt(3) == 0;
        boolean mark = random.nextInt(4) == 0;
        int preamble = random.nextInt(4);
        List<String> order = order(way, balance, random);
        DateTimeFormatter dates = DateTimeFormatter.ofPattern(pattern, Locale.forLanguageTag(in.language));
        int lines = 18 + random.nextInt(30);
        long opening = 100_000 + random.nextInt(900_000);
        List<long[]> moves = new ArrayList<>();
        List<String> texts = new ArrayList<>();
        LocalDate day = LocalDate.of(2027, 1 + random.nextInt(10), 1 + random.nextInt(9));
        long running = opening;
        for (int i = 0; i < lines; i++) {
            boolean earns = random.nextInt(5) == 0;
            String[] from = earns ? in.earns : in.spends;
            long minor = (earns ? 1 : -1) * (long) (100 + random.nextInt(earns ? 300_000 : 30_000));
            running += minor;
            day = day.plusDays(random.nextInt(3));
            moves.add(new long[] {day.toEpochDay(), minor, running});
            texts.add(from[random.nextInt(from.length)] + " " + (1000 + random.nextInt(9000)));
        }
        // Only Unicode has the sign.
        String minus = encoding.equals("UTF-8") ? "\u2212" : "-";
        StringBuilder file = new StringBuilder();
        int row = 0;
        String[] above = {
            "IBAN" + separator + "XX00 1111 2222", in.opening + separator + quoted(in.show(opening), separator)
        };
        for (int i = 0; i < preamble; i++) {
            file.append(i == 0 ? "Larkmoor" : i == 1 ? above[0] : stated ? above[1] : "")
                    .append("\r\n");
            row++;
        }
        file.append(String.join(
                        String.valueOf(separator),
                        order.stream().map(c -> title(in, c)).toList()))
                .append("\r\n");
        row++;
        List<Line> truth = new ArrayList<>();
        for (int k = 0; k < lines; k++) {
            int i = newest ? lines - 1 - k : k;
            row++;
            List<String> cells = new ArrayList<>();
            for (String column : order) {
                cells.add(quoted(cell(column, way, moves.get(i), texts.get(i), dates, in, mark, i, minus), separator));
            }
            file.append(String.join(String.valueOf(separator), cells)).append("\r\n");
            truth.add(new Line(row, LocalDate.ofEpochDay(moves.get(i)[0]), moves.get(i)[1], texts.get(i)));
        }
        if (preamble > 2 && stated) {
            file.append(in.closing)
                    .append(separator)
                    .append(quoted(in.show(running), separator))
                    .append("\r\n");
        }
        String what = in.language + ", " + way + ", " + pattern + ", " + encoding + ", '" + separator + "'"
                + (balance ? ", balance" : "") + (newest ? ", newest first" : "") + (mark ? ", currency" : "");
        byte[] bytes = file.toString().getBytes(Charset.forName(encoding));
        return new Statement("strange-" + number + ".csv", bytes, in.currency, truth, what);
    }

    private static List<String> order(String way, boolean balance, Random random) {
        List<String> columns = new ArrayList<>(List.of("day", "text", "reference"));
        columns.addAll(way.equals("sides") ? List.of("out", "in") : List.of("amount"));
        if (way.equals("mark")) {
            columns.add("mark");
        }
        if (balance) {
            columns.add("balance");
        }
        if (random.nextBoolean()) {
            columns.add("currency");
        }
        int turn = random.nextInt(3);
        for (int i = 0; i < turn; i++) {
            columns.add(columns.remove(1));
        }
        return columns;
    }

    private static String title(Country in, String column) {
        return switch (column) {
            case "day" -> in.titles[0];
            case "text" -> in.titles[1];
            case "amount" -> in.titles[2];
            case "out" -> in.titles[3];
            case "in" -> in.titles[4];
            case "balance" -> in.titles[5];
            case "reference" -> in.titles[6];
            case "mark" -> "+/-";
            default -> "ISO";
        };
    }

    private static String cell(
            String column,
            String way,
            long[] move,
            String text,
            DateTimeFormatter dates,
            Country in,
            boolean mark,
            int at,
            String minus) {
        String size = in.show(Math.abs(move[1]));
        String marked = mark ? size + " " + in.currency : size;
        boolean out = move[1] < 0;
        return switch (column) {
            case "day" -> LocalDate.ofEpochDay(move[0]).format(dates);
            case "text" -> text;
            case "out" -> out ? size : "";
            case "in" -> out ? "" : size;
            case "mark" -> out ? "-" : "+";
            case "balance" -> in.show(move[2]);
            case "reference" -> "R" + (70_000 + at * 37);
            case "currency" -> in.currency;
            default ->
                switch (way) {
                    case "trailing" -> out ? size + "-" : size;
                    case "brackets" -> out ? "(" + size + ")" : size;
                    case "mark" -> size;
                    case "plus" -> (out ? minus : "+") + size;
                    default -> (out ? "-" : "") + marked;
                };
        };
    }

    private static String quoted(String cell, char separator) {
        return cell.indexOf(separator) >= 0 ? '"' + cell + '"' : cell;
    }

    static DecimalFormat numbers(String marks, int decimals) {
        DecimalFormatSymbols symbols = DecimalFormatSymbols.getInstance(Locale.ROOT);
        symbols.setDecimalSeparator(marks.charAt(0));
        symbols.setGroupingSeparator(marks.charAt(1) == ' ' ? '\u00a0' : marks.charAt(1));
        return new DecimalFormat(decimals == 0 ? "#,##0" : "#,##0." + "0".repeat(decimals), symbols);
    }
}
