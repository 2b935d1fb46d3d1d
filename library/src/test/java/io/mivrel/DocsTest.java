package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
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
                        "in a layout. *Heading* fields belong to the whole document: all its lines must agree. *Worked out*\n")
                .append("fields can be delivered but not read.\n");
        for (FieldTable table : FieldTable.all()) {
            page.append("\n## ").append(table.name()).append("\n\n| field | type | | meaning |\n|---|---|---|---|\n");
            for (Field field : table.fields()) {
                String marks = (field.required() ? "required " : "")
                        + (field.heading() ? "heading " : "")
                        + (field.derived() ? "worked out" : "");
                page.append("| `")
                        .append(field.name())
                        .append("` | ")
                        .append(field.type().word());
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
