package io.mivrel.start;

import io.mivrel.Mivrel;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsFiles;
import io.mivrel.files.settings.SettingsSchema;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Kind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.YearMonth;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** The run sheets of a company's folder, one of which is to deliver by a receiver's template too. */
final class TemplateSheets {
    static final String SHEET = "run sheet";
    private static final Pattern DELIVER = Pattern.compile("(?m)^deliver: *(#.*)?\\R");

    private final Path folder;
    private final DeliveryFromTemplate template;
    private final Map<String, Mivrel> sheets;
    private @Nullable String chosen;

    private TemplateSheets(Path folder, DeliveryFromTemplate template, Map<String, Mivrel> sheets) {
        this.folder = folder;
        this.template = template;
        this.sheets = sheets;
    }

    /** Those that there are; throws {@link IOException} when there is none that works. */
    static TemplateSheets of(Path folder, DeliveryFromTemplate template) throws IOException {
        Map<String, Mivrel> sheets = new LinkedHashMap<>();
        try (Stream<Path> inside = Files.list(folder)) {
            for (Path file :
                    inside.filter(f -> f.toString().endsWith(".yaml")).sorted().toList()) {
                if (SettingsFiles.kind(file).orElse("").equals("run")) {
                    open(file, sheets);
                }
            }
        }
        if (sheets.isEmpty()) {
            throw new IOException(
                    folder + ": no run sheet in it works; begin with a raw file: mivrel start FILE --template "
                            + template.name());
        }
        return new TemplateSheets(folder, template, sheets);
    }

    // For the latest month of its files, where they are of several.
    private static void open(Path file, Map<String, Mivrel> sheets) throws IOException {
        try {
            List<YearMonth> months = Mivrel.monthsOf(file);
            sheets.put(
                    String.valueOf(file.getFileName()),
                    months.isEmpty() ? Mivrel.open(file) : Mivrel.open(file, months.get(months.size() - 1)));
        } catch (SettingsException toldWhenItIsRun) {
            // One that is wrong is no choice.
        }
    }

    /** The question which one is meant, where there are several; {@code null} once it is known. */
    @Nullable
    StartQuestion open(@Nullable String answer) throws IOException {
        if (chosen == null && answer == null && sheets.size() > 1) {
            return StartQuestion.of(SHEET, "Which run sheet is to deliver in the form of the template?")
                    .choosing(List.copyOf(sheets.keySet()));
        }
        if (chosen == null) {
            chosen = answer == null ? sheets.keySet().iterator().next() : answer;
            Mivrel run = run();
            template.among(Kinds.ALL.stream().filter(run::canDeliver).toList());
        }
        Kind takes = template.takes();
        if (takes != null && !template.isShown()) {
            template.showing(DeliveryFromTemplate.ownValues(run(), takes));
        }
        return null;
    }

    private Mivrel run() {
        return Objects.requireNonNull(sheets.get(chosen));
    }

    /** The run sheet. */
    Path chosen() {
        return folder.resolve(Objects.requireNonNull(chosen));
    }

    /** Writes the delivery and names it in the run sheet; answers what is worth a look. */
    List<String> write(Shelf.Shape shape, CompanyFiles files) throws IOException {
        String delivery = "deliveries/" + shape.name() + ".yaml";
        files.put(delivery, SettingsSchema.line("delivery", 1) + shape.text());
        String text = Files.readString(chosen());
        String line = "  - {as: " + delivery + ", to: out}";
        Matcher list = DELIVER.matcher(text);
        if (!list.find()) {
            return List.of("name it in " + chosen + ": " + line.strip().substring(2));
        }
        files.mend(
                Objects.requireNonNull(chosen),
                text.substring(0, list.end()) + line + "\n" + text.substring(list.end()));
        return List.of(chosen + " delivers in this form too; as it was before: earlier/" + chosen);
    }
}
