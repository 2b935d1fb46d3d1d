package io.mivrel.intake;

import io.mivrel.layout.Layout;
import io.mivrel.layout.Whose;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.Row;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;

/** Compares what a file says of its owner with what its layout knows, and its currency with that of the books. For one thread. */
final class OwnerCheck {
    private final Layout layout;
    private final SourceFile file;
    private final Map<String, String> said = new LinkedHashMap<>();
    private final Map<String, Long> rows = new LinkedHashMap<>();

    OwnerCheck(Layout layout, SourceFile file) {
        this.layout = layout;
        this.file = file;
    }

    /** Looks at a row that is no data. */
    void beside(Row row) {
        layout.whose().marks().forEach((what, mark) -> {
            if (said.containsKey(what)) {
                return;
            }
            for (int i = 0; i < row.size(); i++) {
                String cell = row.trimmed(i);
                if (cell.startsWith(mark.label())) {
                    String rest = cell.substring(mark.label().length()).replaceFirst("^\\s*[:=]?\\s*", "");
                    for (int next = i + 1; rest.isEmpty() && next < row.size(); next++) {
                        rest = row.trimmed(next);
                    }
                    said.put(what, rest);
                    rows.put(what, row.number());
                    return;
                }
            }
        });
    }

    /** The file has ended: what makes it a stranger's. */
    void compare(boolean comparesCurrency, Consumer<Finding> failing) {
        boolean numberAgrees = layout.whose().marks().containsKey(Whose.NUMBER) && agrees(Whose.NUMBER);
        layout.whose().marks().forEach((what, mark) -> {
            String here = said.get(what);
            if (here == null) {
                failing.accept(finding(
                        Rule.FILE_OWNER_UNKNOWN,
                        0,
                        mark.label(),
                        "the layout knows the " + what + " of such files by this label, and the file does not have it",
                        Rule.FILE_OWNER_UNKNOWN.remedy()));
            } else if (!agrees(what)) {
                boolean spelling = what.equals(Whose.HOLDER) && numberAgrees;
                Rule rule = spelling ? Rule.FILE_HOLDER_SPELLED : Rule.FILE_OF_ANOTHER;
                failing.accept(finding(
                        rule,
                        rows.getOrDefault(what, 0L),
                        here,
                        "the layout is for files of the " + what + " " + String.join(" or ", mark.is()),
                        rule.remedy()));
            }
        });
        if (comparesCurrency) {
            compareCurrency(failing);
        }
    }

    private boolean agrees(String what) {
        Whose.Mark mark = layout.whose().marks().get(what);
        String here = said.get(what);
        return mark != null && here != null && mark.is().stream().anyMatch(is -> Whose.isSame(what, is, here));
    }

    private void compareCurrency(Consumer<Finding> failing) {
        String own = file.currency().getCurrencyCode();
        layout.statedCurrencies().stream()
                .filter(code -> !code.equals(own))
                .findFirst()
                .ifPresent(code -> failing.accept(finding(
                        Rule.STATEMENT_CURRENCY,
                        0,
                        code,
                        "the layout reads amounts in " + code + ", but the account "
                                + (layout.account() == null ? "" : layout.account() + " ") + "is kept in " + own,
                        Rule.STATEMENT_CURRENCY.remedy())));
    }

    private Finding finding(Rule rule, long row, String value, String reason, String suggestion) {
        return new Finding(rule, Origin.of(file.name(), row), "", value, reason, suggestion);
    }
}
