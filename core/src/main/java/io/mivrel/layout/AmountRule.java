package io.mivrel.layout;

import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * How a kind of record comes to its one signed amount: given as such, on one of two sides that exclude each other, or
 * reckoned from quantity and price.
 */
public record AmountRule(Kind kind) {
    public Field amount() {
        return kind.amount();
    }

    /** Only of a kind that {@linkplain #hasSides has sides}. */
    public Field plusSide() {
        return Objects.requireNonNull(kind.plusSide());
    }

    public Field minusSide() {
        return Objects.requireNonNull(kind.minusSide());
    }

    public boolean hasSides() {
        return kind.plusSide() != null;
    }

    /** What is missing or too much when these fields are given, in words. */
    public List<String> gaps(Set<Field> given) {
        List<String> gaps = new ArrayList<>();
        Field plus = kind.plusSide();
        Field minus = kind.minusSide();
        Field quantity = kind.quantity();
        Field price = kind.price();
        if (plus != null && minus != null) {
            String sides = "'" + plus.name() + "' and '" + minus.name() + "'";
            boolean both = given.containsAll(List.of(plus, minus));
            if (given.contains(amount()) && given.contains(plus) != given.contains(minus)) {
                gaps.add("give both " + sides + ", or none of them beside '" + amount().name() + "'");
            } else if (!both && !given.contains(amount())) {
                gaps.add("an amount is required: '" + amount().name() + "', or " + sides);
            }
        } else if (!given.contains(amount())) {
            if (quantity == null || price == null) {
                gaps.add("an amount is required: '" + amount().name() + "'");
            } else if (!given.containsAll(List.of(quantity, price))) {
                gaps.add("an amount is required: '" + amount().name() + "', or '" + quantity.name() + "' and '"
                        + price.name() + "'");
            }
        }
        for (Field field : kind.foreignAmounts()) {
            Field currency = field.currency();
            if (given.contains(field) && currency != null && !given.contains(currency)) {
                gaps.add("'" + field.name() + "' needs '" + currency.name() + "'");
            }
        }
        return gaps;
    }
}
