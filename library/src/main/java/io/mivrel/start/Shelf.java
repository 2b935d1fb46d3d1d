package io.mivrel.start;

import io.mivrel.files.settings.SettingsException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The deliveries and blank books that ship, each named for its shape; to be copied into a company's folder and changed there. */
public final class Shelf {
    private static final int SAMPLE_LINES = 4;
    private static final List<Shape> SHAPES = List.of(
            shape("bank-one-amount", "bank transactions"),
            shape("bank-in-and-out", "bank transactions"),
            shape("bank-decimal-comma", "bank transactions"),
            shape("journals-one-amount", "journals"),
            shape("journals-two-sides", "journals"),
            shape("journals-decimal-comma", "journals"),
            shape("invoices-rows", "invoices"),
            shape("invoices-two-files", "invoices"));

    private static final List<Template> TEMPLATES = List.of(
            template("chart-common", "A chart of the trade's common accounts: books/chart.csv.", ""),
            template(
                    "chart-blank",
                    "A chart to fill; type is asset, liability, equity, income or expense.",
                    "1800,Bank account,asset,bank,open,,00918274,"),
            template(
                    "parties-blank",
                    "Customers and suppliers: books/parties.csv.",
                    "CUS-001,Parish of Torrow,customer"),
            template(
                    "tax-codes-blank",
                    "Tax codes with their per cent: books/tax-codes.csv.",
                    "STD,Standard rate,20,2300"),
            template(
                    "periods-blank",
                    "Periods, open or closed; without any, no date is refused: books/periods.csv.",
                    "2027-03-01,2027-03-31,open"));

    private Shelf() {}

    /**
     * A blank file of the books.
     *
     * @param name its name on the shelf
     * @param about what it is, in a sentence
     * @param text to be written
     * @param sample a line as it is filled in; empty where the text has some
     */
    public record Template(String name, String about, String text, String sample) {}

    /** All of them. */
    public static List<Template> templates() {
        return TEMPLATES;
    }

    private static Template template(String name, String about, String sample) {
        return new Template(name, about, resource("books/" + name + ".csv"), sample);
    }

    /**
     * One delivery.
     *
     * @param name its file's name without the ending
     * @param takes the documents that it delivers
     * @param about its shape in a sentence
     * @param text its settings
     */
    public record Shape(String name, String takes, String about, String text) {}

    /** All of them. */
    public static List<Shape> shapes() {
        return SHAPES;
    }

    /** The one of a name. */
    public static Optional<Shape> shape(String name) {
        return SHAPES.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    /** Each with its shape in a sentence and the first rows of a made-up file, as a run delivers them. */
    public static List<String> samples() throws IOException {
        List<String> lines = new ArrayList<>();
        for (String kind : List.of("bank", "journals", "invoices")) {
            Path trial = Files.createTempDirectory("mivrel-shelf");
            try {
                Path raw = trial.resolve(kind + ".csv");
                Files.writeString(raw, resource("sample-" + kind + ".csv"));
                CompanySetup beginning = new CompanySetup(trial).take(raw);
                Map.of("company", "Larkmoor Bell Foundry", "currency", "GBP", "account", "1800", "signs", "as written")
                        .forEach(beginning::ahead);
                StartQuestion asked = beginning.next();
                while (asked != null && !asked.about().equals("deliver") && beginning.takeUsual(asked)) {
                    asked = beginning.next();
                }
                if (asked != null) {
                    addNew(asked.help(), lines);
                }
            } catch (SettingsException | WrongAnswerException own) {
                throw new IllegalStateException(own);
            } finally {
                CompanyFiles.delete(trial);
            }
        }
        for (Template template : TEMPLATES) {
            lines.add(template.name() + "   " + template.about());
            template.text().lines().limit(SAMPLE_LINES).forEach(line -> lines.add("    " + line));
            if (!template.sample().isEmpty()) {
                lines.add("    " + template.sample());
            }
        }
        return lines;
    }

    // Journals are offered for each kind, and shown once.
    private static void addNew(List<String> help, List<String> lines) {
        boolean fresh = true;
        for (String line : help) {
            if (!line.startsWith(" ")) {
                fresh = !lines.contains(line);
            }
            if (fresh) {
                lines.add(line);
            }
        }
    }

    private static Shape shape(String name, String takes) {
        String text = resource("deliveries/" + name + ".yaml");
        String about = text.lines().findFirst().orElse("").replaceFirst("^# *", "");
        return new Shape(name, takes, about, text);
    }

    /** A text that ships beside the classes of this package. */
    static String resource(String name) {
        try (InputStream in = Shelf.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the program lacks its own file " + name);
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
