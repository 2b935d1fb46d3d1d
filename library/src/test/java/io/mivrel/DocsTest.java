package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
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

    private static void compare(String name, String made) throws IOException {
        Path page = DOCS.resolve(name);
        if ("write".equals(System.getProperty("mivrel.docs"))) {
            Files.createDirectories(DOCS);
            Files.writeString(page, made);
        }
        assertThat(page).content().isEqualTo(made);
    }

    @Test
    public void theFieldPageIsUpToDate() throws IOException {
        compare("fields.md", fields());
    }

    @Test
    public void theFindingsPageIsUpToDate() throws IOException {
        compare("findings.md", findings());
    }
}
