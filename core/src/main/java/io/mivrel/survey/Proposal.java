package io.mivrel.survey;

import io.mivrel.intake.DateWindow;
import io.mivrel.intake.FieldSource;
import io.mivrel.intake.Layout;
import io.mivrel.intake.Stated;
import io.mivrel.intake.Terms;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowOrder;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.Link;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Makes the layout that a survey proposes. */
public final class Proposal {
    private Proposal() {}

    /** The layout as if every question were answered by its first choice; to look at data, not to run with. */
    public static Layout layout(Survey survey) {
        return builder(
                        survey.facts(),
                        survey.titlesRow(),
                        survey.titleRows(),
                        survey.above() + 1,
                        survey.until(),
                        survey.order(),
                        Objects.requireNonNull(survey.gives()),
                        survey.columns(),
                        survey.fields(),
                        survey.pattern(),
                        survey.numbers(),
                        survey.refinement(),
                        survey.fanOut(),
                        survey.links())
                .buildUnchecked();
    }

    private static Layout.Builder builder(
            Facts facts,
            int titlesRow,
            int titleRows,
            long firstRow,
            String until,
            RowOrder order,
            Kind gives,
            List<ColumnSurvey> columns,
            Map<Field, ColumnSurvey> fields,
            @Nullable DatePattern pattern,
            AmountFormat numbers,
            Refinement refinement,
            List<FanOut.Amount> fanOut,
            List<Link> links) {
        boolean text = facts.kind() == FileKind.SEPARATED || facts.kind() == FileKind.FIXED_WIDTH;
        int dataRow = titlesRow > 0 ? titlesRow + 1 : text ? Math.max(1, (int) firstRow) : 1;
        Layout.Builder layout = Layout.named("proposed", gives)
                .format(new FileFormat(
                        facts.kind(),
                        facts.separator(),
                        facts.kind() == FileKind.WORKBOOK ? FileFormat.AUTO : facts.encoding(),
                        facts.part(),
                        facts.print() == null ? List.of() : facts.print().slices(),
                        titlesRow,
                        titleRows,
                        facts.kind() == FileKind.FIXED_WIDTH ? 1 : dataRow,
                        until,
                        order))
                .numbers(numbers);
        if (facts.print() != null) {
            facts.print().shapes().forEach(layout::shape);
            facts.print().filters().forEach(layout::filter);
        }
        layout.signs(refinement.signs()).stated(stated(facts, refinement));
        if (refinement.nets()) {
            layout.terms(new Terms(true, false, DateWindow.ALL));
        }
        if (!refinement.sections().isEmpty()) {
            layout.shape(new CarryDown(refinement.sections()));
        }
        refinement.filters().forEach(layout::filter);
        refinement.expectations().forEach(layout::expect);
        refinement.equations().forEach(layout::equation);
        layout.whose(refinement.whose());
        links.forEach(layout::shape);
        fields.forEach((field, column) -> layout.field(field, source(field, column, pattern, refinement)));
        if (!fanOut.isEmpty()) {
            layout.shape(new FanOut(fanOut))
                    .field(JournalLines.ACCOUNT, FanOut.ACCOUNT)
                    .field(JournalLines.NARRATIVE, FanOut.TEXT)
                    .field(
                            JournalLines.AMOUNT,
                            FieldSource.column(FanOut.AMOUNT)
                                    .withSide(new FieldSource.Side(FanOut.SIDE, List.of("debit"), List.of("credit"))));
        }
        Set<String> taken = taken(refinement);
        columns.stream()
                .filter(c -> !fields.containsValue(c) && !c.title().isEmpty() && !taken.contains(column(c)))
                .forEach(c -> layout.unused(c.title()));
        return layout;
    }

    private static FieldSource source(
            Field field, ColumnSurvey column, @Nullable DatePattern pattern, Refinement refinement) {
        FieldSource more = refinement.sources().get(field);
        if (more != null) {
            return more;
        }
        String name = column(column);
        return field.type() == FieldType.DATE
                ? new FieldSource(List.of(name), " ", pattern, Map.of(), null, null)
                : FieldSource.column(name);
    }

    /** The labels of balances and totals that the layout compares. */
    public static Stated stated(Facts facts, Refinement refinement) {
        Stated beside = refinement.stated();
        return facts.print() == null
                ? beside
                : beside.among(facts.print().carried(), facts.print().totals());
    }

    /** Columns that fields take beside their first, and that rows are left out by. */
    public static Set<String> taken(Refinement refinement) {
        Set<String> taken = new HashSet<>();
        for (FieldSource source : refinement.sources().values()) {
            taken.addAll(source.columns());
            if (source.less() != null) {
                taken.add(source.less());
            }
            FieldSource.Side side = source.side();
            if (side != null) {
                taken.add(side.column());
            }
        }
        refinement.filters().forEach(filter -> taken.add(filter.column()));
        refinement.expectations().forEach(cell -> taken.add(cell.column()));
        refinement.equations().forEach(sum -> taken.addAll(sum.columns()));
        if (refinement.whose().numberColumn() != null) {
            taken.add(refinement.whose().numberColumn());
        }
        return taken;
    }

    /** How a layout names the column: by its title, or by its place when it has none or another has the same. */
    public static String column(ColumnSurvey column) {
        // A title that looks like a place would be taken for one.
        boolean usable = !column.title().isEmpty() && !column.title().matches("#.*|[0-9]+");
        return usable ? column.title() : "#" + column.place();
    }
}
