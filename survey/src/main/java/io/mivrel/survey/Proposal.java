package io.mivrel.survey;

import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Permissions;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FanOut;
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
        FileProfile facts = survey.facts();
        FileProfile.Print print = facts.print();
        Refinement refinement = survey.refinement();
        boolean text = facts.kind() == FileKind.SEPARATED || facts.kind() == FileKind.FIXED_WIDTH;
        int titlesRow = survey.titlesRow();
        int dataRow = titlesRow > 0 ? titlesRow + 1 : text ? Math.max(1, (int) survey.above() + 1) : 1;
        Layout.Builder layout = Layout.named("proposed", Objects.requireNonNull(survey.gives()))
                .format(new FileFormat(
                        facts.kind(),
                        facts.separator(),
                        facts.kind() == FileKind.WORKBOOK ? FileFormat.AUTO : facts.encoding(),
                        facts.part(),
                        print == null ? List.of() : print.slices(),
                        titlesRow,
                        survey.titleRows(),
                        facts.kind() == FileKind.FIXED_WIDTH ? 1 : dataRow,
                        survey.until(),
                        survey.order()))
                .numbers(survey.numbers())
                .signs(refinement.signs())
                .stated(stated(facts, refinement))
                .whose(refinement.whose());
        if (print != null) {
            print.shapes().forEach(layout::shape);
            print.filters().forEach(layout::filter);
        }
        layout.terms(new Permissions(refinement.nets(), false, false, namesNobody(survey), DateWindow.ALL));
        if (!refinement.sections().isEmpty()) {
            layout.shape(new CarryDown(refinement.sections()));
        }
        refinement.filters().forEach(layout::filter);
        refinement.expectations().forEach(layout::expect);
        refinement.equations().forEach(layout::equation);
        survey.links().forEach(layout::shape);
        survey.fields()
                .forEach((field, column) -> layout.field(field, source(field, column, survey.pattern(), refinement)));
        if (!survey.fanOut().isEmpty()) {
            layout.shape(new FanOut(survey.fanOut()))
                    .field(JournalLines.ACCOUNT, FanOut.ACCOUNT)
                    .field(JournalLines.NARRATIVE, FanOut.TEXT)
                    .field(
                            JournalLines.AMOUNT,
                            FieldSource.column(FanOut.AMOUNT)
                                    .withSide(new FieldSource.Side(FanOut.SIDE, List.of("debit"), List.of("credit"))));
        }
        Set<String> taken = taken(refinement);
        survey.columns().stream()
                .filter(c -> !survey.fields().containsValue(c) && !c.title().isEmpty() && !taken.contains(column(c)))
                .forEach(c -> layout.unused(c.title()));
        return layout.buildUnchecked();
    }

    private static FieldSource source(
            Field field, ColumnSurvey column, @Nullable DatePattern pattern, Refinement refinement) {
        String name = column(column);
        FieldSource plain = field.type() == FieldType.DATE
                ? new FieldSource(List.of(name), " ", pattern, Map.of(), null, null)
                : FieldSource.column(name);
        return refinement.sources().getOrDefault(field, plain);
    }

    /** The labels of balances and totals that the layout compares. */
    public static FigureLabels stated(FileProfile facts, Refinement refinement) {
        FigureLabels beside = refinement.stated();
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

    /** True for journals without a column for customers and suppliers. */
    public static boolean namesNobody(Survey survey) {
        return survey.gives() != null
                && survey.gives().isJournal()
                && !survey.fields().containsKey(JournalLines.PARTY);
    }
}
