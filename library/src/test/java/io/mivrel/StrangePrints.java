package io.mivrel;

import io.mivrel.StrangeStatements.Country;
import io.mivrel.StrangeStatements.Line;
import io.mivrel.StrangeStatements.Statement;
import java.nio.charset.StandardCharsets;
import java.text.DecimalFormat;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/**
 * Statements as line printers print them, from a seed, each with its truth: pages with headings, balances carried over,
 * totals of pages, texts that go on in the next line, days printed once or without a year, strokes between columns.
 */
final class StrangePrints {
    private static final List<String> MARKED = List.of("signed", "sides", "trailing", "brackets", "mark");
    private static final String[] WORDS = {"REF 20931", "invoice 7", "thank you", "order", "Marlow", "8841", "see note"
    };

    private final Country in;
    private final Random random;
    private final DecimalFormat numbers;
    private final String way;
    private final boolean box;
    private final boolean onceADay;
    private final boolean amountLast;
    private final boolean eachBalance;
    private final boolean pageTotals;
    private final boolean feeds;
    private final boolean yearless;
    private final boolean spaced;
    private final int textWidth;
    private final int perPage;
    private final DateTimeFormatter days;
    private final StringBuilder out = new StringBuilder();
    private final List<Line> lines = new ArrayList<>();
    private long row;
    private int page;
    private long balance;
    private long pageIn;
    private long pageOut;

    private StrangePrints(Country in, Random random) {
        this.in = in;
        this.random = random;
        this.numbers = StrangeStatements.numbers(in.numbers(), 2);
        this.way = MARKED.get(random.nextInt(MARKED.size()));
        this.box = random.nextInt(4) == 0;
        this.onceADay = random.nextInt(4) == 0;
        this.amountLast = !onceADay && random.nextInt(3) == 0;
        this.eachBalance = random.nextBoolean();
        this.pageTotals = way.equals("sides") && random.nextBoolean();
        this.feeds = random.nextBoolean();
        this.yearless = random.nextInt(3) == 0;
        this.spaced = random.nextInt(3) == 0;
        this.textWidth = 24 + random.nextInt(16);
        this.perPage = 18 + random.nextInt(20);
        String pattern = in.dates()[0];
        this.days = DateTimeFormatter.ofPattern(
                yearless ? pattern.contains(".") ? "dd.MM." : "dd MMM" : pattern, Locale.ENGLISH);
        this.balance = 100_000 + random.nextInt(500_000);
    }

    static List<Statement> make(long seed, int count) {
        List<Statement> made = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Country country = StrangeStatements.COUNTRIES.get(i % StrangeStatements.COUNTRIES.size());
            made.add(new StrangePrints(country, new Random(seed * 1000 + i)).make(i));
        }
        return made;
    }

    private Statement make(int number) {
        LocalDate day = LocalDate.of(2027, 3, 1);
        head();
        write("", in.opening(), 0, balance, true);
        String printed = "";
        int onPage = 0;
        int entries = 30 + random.nextInt(40);
        for (int i = 0; i < entries; i++) {
            LocalDate next = day.plusDays(random.nextInt(3) == 0 ? 1 : 0);
            boolean last = i == entries - 1;
            day = next.getMonthValue() == 3 ? next : day;
            boolean spends = random.nextInt(4) > 0;
            long minor = (spends ? -1 : 1) * (100L + random.nextInt(spends ? 30_000 : 300_000));
            String[] texts = spends ? in.spends() : in.earns();
            StringBuilder text = new StringBuilder(texts[random.nextInt(texts.length)]);
            for (int w = random.nextInt(5); w > 0; w--) {
                text.append(' ').append(WORDS[random.nextInt(WORDS.length)]);
            }
            String shown = day.format(days);
            balance += minor;
            pageIn += Math.max(minor, 0);
            pageOut += Math.max(-minor, 0);
            boolean first = !shown.equals(printed);
            entry(
                    onceADay && !first ? "" : shown,
                    text.toString(),
                    minor,
                    day,
                    eachBalance || last || random.nextInt(3) == 0);
            printed = shown;
            if (++onPage >= perPage && !last) {
                turn();
                onPage = 0;
                printed = "";
            }
        }
        if (pageTotals) {
            total();
        }
        write("", in.closing(), 0, balance, true);
        newLine("");
        newLine("*** " + in.language() + " 0417 ***");
        String what = in.language() + ", " + way + (box ? ", box" : "") + (onceADay ? ", once a day" : "")
                + (amountLast ? ", amount last" : "") + (eachBalance ? "" : ", some balances")
                + (pageTotals ? ", totals" : "") + (feeds ? ", feeds" : "") + (yearless ? ", yearless" : "");
        byte[] bytes = out.toString().getBytes(StandardCharsets.UTF_8);
        return new Statement("print-" + number + ".txt", bytes, in.currency(), lines, what);
    }

    private void turn() {
        if (pageTotals) {
            total();
        }
        write("", in.closing(), 0, balance, true);
        if (!feeds) {
            newLine("");
            newLine("");
        }
        head();
        write("", in.opening(), 0, balance, true);
    }

    private void total() {
        String cells = line("", "Total", numbers.format(pageOut / 100.0), numbers.format(pageIn / 100.0), "");
        newLine(cells);
        pageIn = 0;
        pageOut = 0;
    }

    private void head() {
        page++;
        newLine((feeds && page > 1 ? "\f" : "") + "OLD PORT SAVINGS BANK" + " ".repeat(30) + "- " + page + " -");
        newLine("Konto 40017 223   01/03/2027 - 31/03/2027   " + in.currency());
        newLine("");
        String[] t = in.titles();
        newLine(line(t[0], t[1], way.equals("sides") ? t[3] : t[2], way.equals("sides") ? t[4] : null, t[5]));
        newLine("-"
                .repeat(line("", "", "", way.equals("sides") ? "" : null, "x").length()));
    }

    private void entry(String shown, String text, long minor, LocalDate day, boolean withBalance) {
        List<String> parts = wrapped(text);
        long at = row + 1;
        for (int i = 0; i < parts.size(); i++) {
            boolean here = amountLast ? i == parts.size() - 1 : i == 0;
            write(i == 0 ? shown : "", parts.get(i), here ? minor : 0, balance, here && withBalance);
        }
        lines.add(new Line(at, day, minor, text));
    }

    private List<String> wrapped(String text) {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        for (String word : text.split(" ")) {
            if (part.length() + word.length() + 1 > textWidth && part.length() > 0) {
                parts.add(part.toString());
                part.setLength(0);
            }
            part.append(part.length() == 0 ? "" : " ").append(word);
        }
        parts.add(part.toString());
        return parts;
    }

    private void write(String shown, String text, long minor, long after, boolean withBalance) {
        String of = withBalance ? numbers.format(after / 100.0) : "";
        if (way.equals("sides")) {
            newLine(line(
                    shown,
                    text,
                    minor < 0 ? numbers.format(-minor / 100.0) : "",
                    minor > 0 ? numbers.format(minor / 100.0) : "",
                    of));
        } else {
            newLine(line(shown, text, minor == 0 ? "" : marked(minor), null, of));
        }
    }

    private String marked(long minor) {
        String figure = numbers.format(Math.abs(minor) / 100.0);
        return switch (way) {
            case "trailing" -> figure + (minor < 0 ? "-" : spaced ? " " : "");
            case "brackets" -> minor < 0 ? "(" + figure + ")" : figure + " ";
            case "mark" -> figure + (minor < 0 ? " DR" : " CR");
            default -> (minor < 0 ? "-" : "") + figure;
        };
    }

    private String line(String date, String text, String one, String two, String three) {
        String bar = box ? "|" : " ";
        StringBuilder line = new StringBuilder(box ? "|" : "");
        int dateWidth = Math.max(10, LocalDate.of(2027, 3, 28).format(days).length());
        line.append(left(date, dateWidth))
                .append(bar)
                .append(left(text, textWidth))
                .append(bar);
        line.append(right(one, 16)).append(bar);
        if (two != null) {
            line.append(right(two, 16)).append(bar);
        }
        return line.append(right(three, 16)).append(box ? "|" : "").toString();
    }

    private static String left(String text, int width) {
        String cut = text.length() > width ? text.substring(0, width) : text;
        return cut + " ".repeat(width - cut.length());
    }

    private static String right(String text, int width) {
        String cut = text.length() > width ? text.substring(0, width) : text;
        return " ".repeat(width - cut.length()) + cut;
    }

    private void newLine(String text) {
        row++;
        out.append(text.stripTrailing()).append(feeds ? "\r\n" : "\n");
    }
}
