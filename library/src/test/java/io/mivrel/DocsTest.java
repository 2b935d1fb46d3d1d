package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.keys.Block;
import io.mivrel.files.keys.DeliveryKeys;
import io.mivrel.files.keys.FormatKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.LayoutKeys;
import io.mivrel.files.keys.LedgerKeys;
import io.mivrel.files.keys.RunKeys;
import io.mivrel.files.keys.ShapeKeys;
import io.mivrel.kinds.JournalLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Collectors;
import org.testng.annotations.Test;

/**
 * The pages of fields and findings are made from the tables in the code. Make them anew with {@code mvn verify
 * -Dmivrel.docs=write}; without that this test fails when they are out of date.
 */
public class DocsTest {
    private static final Path DOCS = Path.of("..", "docs");

    private static String fields() {
        StringBuilder page = new StringBuilder("# Fields\n\n")
                .append(
                        "Made from the tables in the code: the names that layouts and deliveries use. *Required* fields must be\n")
                .append(
                        "in a layout. *Worked out* fields can be delivered but not read. A field belongs to a *level*: those of\n")
                .append("the first level belong to the whole document, and all its lines must agree on them.\n");
        for (Kind kind : Kinds.ALL) {
            page.append("\n## ")
                    .append(kind.name())
                    .append("\n\nDelivered as ")
                    .append(kind.documents())
                    .append(kind.isJournal() || !kind.hasJournal() ? "" : " or journals")
                    .append(".\n\n| field | type | level | | meaning |\n|---|---|---|---|---|\n");
            for (Field field : kind.table().fields()) {
                String marks = (field.required() ? "required " : "") + (field.derived() ? "worked out" : "");
                page.append("| `")
                        .append(field.name())
                        .append("` | ")
                        .append(field.type().word())
                        .append(" | ")
                        .append(field.level().name());
                page.append(" | ")
                        .append(marks.strip())
                        .append(" | ")
                        .append(field.meaning())
                        .append(" |\n");
            }
        }
        return page.toString();
    }

    private static String findings() {
        StringBuilder page = new StringBuilder("# Findings\n\n")
                .append(
                        "Made from the table in the code. The names are permanent. A **blocker** holds its document, a\n")
                .append("**caution** wants a look, a **note** is worth knowing.\n");
        for (Severity severity : Severity.values()) {
            page.append("\n## ")
                    .append(severity.word())
                    .append("s\n\n| name | what it means | what to do |\n|---|---|---|\n");
            for (Rule rule : Rule.values()) {
                if (rule.severity() == severity) {
                    page.append("| `").append(rule.id()).append("` | ").append(rule.meaning());
                    page.append(" | ").append(rule.remedy()).append(" |\n");
                }
            }
        }
        return page.toString();
    }

    private static String keys() {
        StringBuilder page = new StringBuilder("# Every key of every settings file\n\n")
                .append(
                        "Made from the table in the code by which files are read. **Bold** keys must be given; of words the first is\n")
                .append(
                        "meant when the key is left out. [Settings](settings.md) and [shapes](shapes.md) show them at work.\n");
        page(page, "A run sheet", RunKeys.ALL);
        page(page, "A layout", LayoutKeys.ALL);
        for (FieldType type : FieldType.values()) {
            Field field = Kinds.ALL.stream()
                    .flatMap(kind -> kind.table().fields().stream())
                    .filter(f -> f.type() == type && !f.derived())
                    .findFirst()
                    .orElseThrow();
            page(page, "A field of a layout that is " + type.one(), LayoutKeys.source(field));
        }
        page(page, "A tag of a layout", ShapeKeys.TAG);
        page(page, "A delivery", DeliveryKeys.ALL);
        page(page, "A column of a delivery", DeliveryKeys.column(JournalLines.KIND));
        page(page, "A ledger", LedgerKeys.ALL);
        page(page, "The company: books.yaml", LedgerKeys.COMPANY_BOOKS);
        return page.toString();
    }

    private static void page(StringBuilder page, String title, Block block) {
        page.append("\n## ").append(title).append("\n\n| key | value | meaning |\n|---|---|---|\n");
        keys(page, "", block);
    }

    private static void keys(StringBuilder page, String above, Block block) {
        for (Key key : block.keys()) {
            String mark = key.required() ? "**" : "";
            page.append("| ")
                    .append(mark)
                    .append('`')
                    .append(above + key)
                    .append('`')
                    .append(mark);
            page.append(" | ")
                    .append(value(key))
                    .append(" | ")
                    .append(key.meaning())
                    .append(" |\n");
            if (key.block() != null && !key.block().equals(FormatKeys.SOURCE) || key == LayoutKeys.FILE) {
                keys(page, above + key + ": ", key.block());
            }
        }
    }

    private static String value(Key key) {
        // A long list is that of the fields, or of currencies.
        return switch (key.form()) {
            case TEXT, TEXTS ->
                key.words().isEmpty() || key.words().size() > 12
                        ? key.form() == Key.Form.TEXT ? "text" : "text or list"
                        : key.words().stream().map(word -> "`" + word + "`").collect(Collectors.joining(", "));
            case YES -> "yes or no";
            case NUMBER -> key.least() + " to " + (key.most() == Integer.MAX_VALUE ? "any" : key.most());
            case BLOCK -> "block";
            case LIST -> "list of blocks";
            case NAMED -> "blocks under names";
            case ROWS -> "rows of texts";
            case OPEN -> "texts under names";
        };
    }

    private static void compare(String name, String made) throws IOException {
        Path page = DOCS.resolve(name);
        if ("write".equals(System.getProperty("mivrel.docs"))) {
            Files.createDirectories(DOCS);
            Files.writeString(page, made);
        }
        assertThat(page).content(StandardCharsets.UTF_8).isEqualTo(made);
    }

    @Test
    public void theFieldPageIsUpToDate() throws IOException {
        compare("fields.md", fields());
    }

    @Test
    public void theKeyPageIsUpToDate() throws IOException {
        compare("keys.md", keys());
    }

    @Test
    public void theFindingsPageIsUpToDate() throws IOException {
        compare("findings.md", findings());
    }
}
