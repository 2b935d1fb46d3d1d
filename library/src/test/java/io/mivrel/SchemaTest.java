package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.Error;
import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import io.mivrel.files.settings.SettingsFiles;
import io.mivrel.files.settings.SettingsSchema;
import io.mivrel.start.Shelf;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The schemas say of settings files what the readers say, as far as a schema can. */
public class SchemaTest {
    private static final Map<String, String> SCHEMAS = Map.of(
            "run", "run-sheet.json",
            "layout", "layout.json",
            "delivery", "delivery.json",
            "books", "books.json",
            "ledger", "ledger.json");

    /** What only shows when a file is read with others, or keys are compared with one another. */
    private static final Set<String> BEYOND_A_SCHEMA = Set.of(
            "no such folder of books",
            "blank-layout.yaml: there is no such file",
            "no file matches",
            "was '2900' meant?",
            "is not YAML",
            "stands twice",
            "'coding' in a run sheet",
            "not set up as a bank or card account",
            "an amount is required",
            "was 'UTF-8' meant?",
            "must differ",
            "no column carries the amount",
            "needs {part}",
            "cannot write the column");

    private static List<Error> errors(Path file) throws IOException {
        return errors(SettingsFiles.kind(file).orElseThrow(), Files.readString(file));
    }

    private static List<Error> errors(String kind, String yaml) {
        Schema schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(SettingsSchema.all().get(SCHEMAS.get(kind)));
        return schema.validate(yaml, InputFormat.YAML);
    }

    @Test
    public void allSettingsOfTheDemoAndOfTheTestsAreAllowed() throws IOException {
        List<Path> all = new ArrayList<>();
        for (Path folder : List.of(Path.of("../examples/src/main/resources/demo"), new Workshop().folder)) {
            try (Stream<Path> files = Files.walk(folder)) {
                files.filter(f -> f.toString().endsWith(".yaml")).forEach(all::add);
            }
        }
        assertThat(all).hasSizeGreaterThan(30);
        for (Path file : all) {
            assertThat(errors(file)).as(file.toString()).isEmpty();
        }
        Shelf.shapes()
                .forEach(shape -> assertThat(errors("delivery", shape.text()))
                        .as(shape.name())
                        .isEmpty());
    }

    @DataProvider
    public Object[][] refused() {
        return Arrays.stream(new SettingsTest().mistakes())
                .filter(row -> row[0].toString().endsWith(".yaml"))
                .filter(row -> !BEYOND_A_SCHEMA.contains(row[3].toString()))
                .toArray(Object[][]::new);
    }

    @Test(dataProvider = "refused")
    public void whatIsRefusedIsRefusedByTheSchema(String file, String what, String by, String says) throws IOException {
        Workshop workshop = new Workshop().bank("").replace(file, what, by);
        assertThat(errors(workshop.folder.resolve(file))).as(says).isNotEmpty();
    }

    @Test
    public void wrongKeysAndOpenQuestionsAreRefused() {
        assertThat(errors("run", "run: a\nbooks: b\nintake: []\nrnu: c\n")).isNotEmpty();
        assertThat(errors("layout", "layout: a\ngives: bank lines\naccount: \"? which\"\n"))
                .isNotEmpty();
        assertThat(errors("layout", "layout: a\ngives: bank lines\nfields: {narative: {column: x}}\n"))
                .isNotEmpty();
        assertThat(errors("layout", "layout: a\ngives: journal lines\nfields: {debit: {column: x}}\n"))
                .isEmpty();
        assertThat(errors("layout", "layout: a\ngives: bank lines\nfields: {debit: {column: x}}\n"))
                .isNotEmpty();
        assertThat(errors("delivery", "delivery: a\ntakes: journals\ncolumns: {A: {field: amuont}}\n"))
                .isNotEmpty();
    }
}
