package io.mivrel.survey;

import io.mivrel.layout.FieldSource;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.RowEquation;
import io.mivrel.layout.Signs;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import java.util.List;
import java.util.Map;

/**
 * What a layout says beyond which column each field comes from. Immutable.
 *
 * @param signs whose plus the amounts' plus is, as far as the file tells
 * @param sources fields that take more than one column, or a column that says their side
 * @param filters rows that are no movements: pending ones, and balances carried over
 * @param expectations what each row must hold, such as the currency of the account
 * @param equations sums that agree in each row
 * @param whose whose the file is, as it says itself
 * @param sections headings that stand above some rows and say something of them
 * @param stated labels of balances beside the rows
 */
public record Refinement(
        Signs signs,
        Map<Field, FieldSource> sources,
        List<RowFilter> filters,
        List<RowFilter> expectations,
        List<RowEquation> equations,
        Whose whose,
        List<CarryDown.Heading> sections,
        FigureLabels stated) {
    /** A layout that says nothing more. */
    public static final Refinement NONE = new Refinement(
            Signs.AS_WRITTEN,
            Map.of(),
            List.of(),
            List.of(),
            List.of(),
            Whose.ANYBODY,
            List.of(),
            FigureLabels.NOTHING);

    public Refinement {
        sources = Map.copyOf(sources);
        filters = List.copyOf(filters);
        expectations = List.copyOf(expectations);
        sections = List.copyOf(sections);
    }

    /** True when charges are taken off amounts that stand beside them. */
    public boolean nets() {
        return sources.values().stream().anyMatch(source -> source.less() != null);
    }

    /** The same with sums of each row, and an owner. */
    Refinement with(List<RowEquation> sums, Whose owner) {
        return new Refinement(signs, sources, filters, expectations, sums, owner, sections, stated);
    }

    /** The same with other labels of figures. */
    Refinement with(FigureLabels labels) {
        return new Refinement(signs, sources, filters, expectations, equations, whose, sections, labels);
    }

    /** The same with other signs. */
    Refinement with(Signs other) {
        return new Refinement(other, sources, filters, expectations, equations, whose, sections, stated);
    }
}
