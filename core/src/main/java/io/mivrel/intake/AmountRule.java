package io.mivrel.intake;

import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * How a kind of record comes to its one signed amount: given as such, on one of two sides that exclude each other, or
 * reckoned from quantity and price.
 */
record AmountRule(Kind kind) {
    Field amount() {
        return kind.amount();
    }

    Field plusSide() {
        return kind.plusSide();
    }

    Field minusSide() {
        return kind.minusSide();
    }

    boolean hasSides() {
        return kind.plusSide() != null;
    }

    boolean isReckoned() {
        return kind.quantity() != null;
    }

    /** What is missing or too much when these fields are given, in words. */
    List<String> gaps(Set<Field> given) {
        List<String> gaps = new ArrayList<>();
        if (hasSides()) {
            String sides = "'" + plusSide().name() + "' and '" + minusSide().name() + "'";
            boolean one = given.contains(plusSide()) || given.contains(minusSide());
            if (given.contains(amount()) && one) {
                gaps.add("give either '" + amount().name() + "' or " + sides + ", not both");
            } else if (!given.contains(amount()) && !given.containsAll(List.of(plusSide(), minusSide()))) {
                gaps.add("an amount is required: '" + amount().name() + "', or " + sides);
            }
        } else if (!given.contains(amount())) {
            boolean reckoned = isReckoned() && given.containsAll(List.of(kind.quantity(), kind.price()));
            String from = isReckoned()
                    ? ", or '" + kind.quantity().name() + "' and '"
                            + kind.price().name() + "'"
                    : "";
            if (!reckoned) {
                gaps.add("an amount is required: '" + amount().name() + "'" + from);
            }
        }
        for (Field field : kind.foreignAmounts()) {
            if (given.contains(field) && !given.contains(field.currency())) {
                gaps.add("'" + field.name() + "' needs '" + field.currency().name() + "'");
            }
        }
        return gaps;
    }
}
