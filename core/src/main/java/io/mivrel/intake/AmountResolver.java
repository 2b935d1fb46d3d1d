package io.mivrel.intake;

import io.mivrel.layout.AmountRule;
import io.mivrel.layout.Layout;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.util.Currency;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Comes to the one signed amount of a record: as given, from one of two sides that exclude each other, or from quantity
 * and price; and turns its sign where the layout says so. For one thread.
 */
final class AmountResolver {
    private static final Set<String> CURRENCIES = Currency.getAvailableCurrencies().stream()
            .map(Currency::getCurrencyCode)
            .collect(Collectors.toUnmodifiableSet());

    private final Layout layout;
    private final AmountRule rule;
    private final Currency currency;
    private final RowProblems problems;
    private final boolean oneAmount;
    private final boolean sides;
    /** {@code null} when no row names its currency. */
    private final @Nullable Field named;

    AmountResolver(Layout layout, AmountRule rule, Currency currency, RowProblems problems) {
        this.layout = layout;
        this.rule = rule;
        this.currency = currency;
        this.problems = problems;
        this.oneAmount = layout.fields().containsKey(rule.amount());
        this.sides = rule.hasSides() && layout.fields().containsKey(rule.plusSide());
        Field field = rule.kind().currency();
        this.named = field != null && layout.fields().containsKey(field) ? field : null;
    }

    /** Puts the amount into the record that is being filled, or says why there is none. */
    void resolve(RecordBlock record) {
        if (named != null) {
            String code = record.text(named);
            checkCurrency(code == null ? "" : code, place(named), hasForeign(record));
        }
        if (!rule.hasSides()) {
            reckon(record);
            return;
        }
        long amount = signed(record);
        if (amount == SourceRecord.ABSENT) {
            return;
        }
        if (layout.signs().turnsAmounts()) {
            amount = -amount;
        }
        if (amount == 0) {
            problems.add(Rule.AMOUNT_ZERO, amountPlace(), "0", "the amount is zero", "");
        }
        record.put(rule.amount(), amount);
    }

    // As it is written; absent when the row is held.
    private long signed(RecordBlock record) {
        long amount = record.number(rule.amount());
        long plus = record.number(rule.plusSide());
        long minus = record.number(rule.minusSide());
        boolean noSide = plus == SourceRecord.ABSENT && minus == SourceRecord.ABSENT;
        if (noSide && !oneAmount && hasForeign(record)) {
            return missing("a foreign amount stands there, and no home amount");
        }
        if (problems.isUnreadable(rule.amount())
                || problems.isUnreadable(rule.plusSide())
                || problems.isUnreadable(rule.minusSide())) {
            // No half of it may count as its amount.
            return SourceRecord.ABSENT;
        }
        if (!oneAmount) {
            return fromSides(plus, minus);
        }
        if (sides && !noSide) {
            return eitherWay(amount, fromSides(plus, minus));
        }
        if (amount == SourceRecord.ABSENT && layout.terms().blankIsNil() && !hasForeign(record)) {
            return 0;
        }
        return amount == SourceRecord.ABSENT ? missing("the amount is blank") : amount;
    }

    private long missing(String reason) {
        problems.add(Rule.AMOUNT_MISSING, amountPlace(), "", reason, "");
        return SourceRecord.ABSENT;
    }

    private boolean hasForeign(RecordBlock record) {
        return rule.kind().foreignAmounts().stream().anyMatch(field -> record.number(field) != SourceRecord.ABSENT);
    }

    /** The same of a column that the layout does not use, at a place from 1. */
    void checkLeft(RecordBlock record, String code, int column) {
        if (CURRENCIES.contains(code)) {
            checkCurrency(code, "column " + column, hasForeign(record));
        }
    }

    /**
     * Foreign money is never home money: says so where a row names another currency than that of its amounts.
     *
     * @param besides true when an amount in that currency stands beside the amount
     */
    void checkCurrency(String code, String place, boolean besides) {
        if (code.isEmpty() || besides || layout.terms().homeMoney() || code.equals(currency.getCurrencyCode())) {
            return;
        }
        problems.add(
                Rule.AMOUNT_IN_OTHER_CURRENCY,
                place,
                code,
                "the row names " + code + ", and its amount would be taken for " + currency.getCurrencyCode(),
                "");
    }

    // Where a layout names both forms, a row has one of them, or the two agree.
    private long eitherWay(long amount, long ofSides) {
        if (amount == SourceRecord.ABSENT || ofSides == SourceRecord.ABSENT || amount == ofSides) {
            return ofSides;
        }
        if (ofSides == 0) {
            return amount;
        }
        problems.add(
                Rule.AMOUNT_ON_BOTH_SIDES,
                amountPlace(),
                Money.show(amount, currency) + " and " + Money.show(ofSides, currency),
                "the amount is not what " + rule.plusSide().name() + " and "
                        + rule.minusSide().name() + " come to",
                "correct the one that is wrong, or give the layout only one of the two forms");
        return SourceRecord.ABSENT;
    }

    private long fromSides(long plus, long minus) {
        boolean hasPlus = plus != SourceRecord.ABSENT && plus != 0;
        boolean hasMinus = minus != SourceRecord.ABSENT && minus != 0;
        if (hasPlus && hasMinus && layout.terms().netsSides()) {
            return Math.subtractExact(plus, minus);
        }
        if (hasPlus && hasMinus) {
            problems.add(
                    Rule.AMOUNT_ON_BOTH_SIDES,
                    amountPlace(),
                    Money.show(plus, currency) + " and " + Money.show(minus, currency),
                    rule.plusSide().name() + " and " + rule.minusSide().name() + " are both filled",
                    "leave the amount on one side, or say 'allow: both sides netted' in the layout; the net would be "
                            + Money.show(plus - minus, currency));
            return SourceRecord.ABSENT;
        }
        if (plus == SourceRecord.ABSENT
                && minus == SourceRecord.ABSENT
                && layout.terms().blankIsNil()) {
            return 0;
        }
        if (plus == SourceRecord.ABSENT && minus == SourceRecord.ABSENT) {
            problems.add(
                    Rule.AMOUNT_MISSING,
                    amountPlace(),
                    "",
                    "neither " + rule.plusSide().name() + " nor "
                            + rule.minusSide().name() + " is filled",
                    "");
            return SourceRecord.ABSENT;
        }
        long side = hasPlus ? plus : hasMinus ? minus : 0;
        if (side < 0) {
            problems.add(
                    Rule.AMOUNT_NEGATIVE_ON_SIDE,
                    place(hasPlus ? rule.plusSide() : rule.minusSide()),
                    Money.show(side, currency),
                    "a negative " + (hasPlus ? rule.plusSide() : rule.minusSide()).name() + " is taken as a "
                            + (hasPlus ? rule.minusSide() : rule.plusSide()).name(),
                    "");
        }
        return hasMinus ? -minus : side;
    }

    private void reckon(RecordBlock record) {
        if (record.number(rule.amount()) != SourceRecord.ABSENT || problems.isUnreadable(rule.amount())) {
            return;
        }
        Field quantityField = rule.kind().quantity();
        Field priceField = rule.kind().price();
        if (quantityField == null || priceField == null) {
            problems.add(Rule.AMOUNT_MISSING, amountPlace(), "", "the amount is blank", "");
            return;
        }
        if (problems.isUnreadable(quantityField) || problems.isUnreadable(priceField)) {
            return;
        }
        BigDecimal quantity = record.decimal(quantityField);
        BigDecimal price = record.decimal(priceField);
        if (quantity == null || price == null) {
            problems.add(Rule.AMOUNT_MISSING, amountPlace(), "", "no net amount, nor quantity and price", "");
            return;
        }
        try {
            record.put(rule.amount(), Money.extend(quantity, price, record.currency()));
        } catch (ArithmeticException e) {
            problems.add(Rule.AMOUNT_TOO_LARGE, amountPlace(), quantity + " x " + price, "is too large", "");
        }
    }

    private String amountPlace() {
        for (Field field : layout.fields().keySet()) {
            Kind kind = rule.kind();
            if (field == kind.amount() || field == kind.plusSide() || field == kind.minusSide()) {
                return place(field);
            }
        }
        return rule.amount().name();
    }

    // How findings name a field: by its column.
    private String place(Field field) {
        List<String> columns =
                Objects.requireNonNull(layout.fields().get(field)).columns();
        return columns.isEmpty() ? field.name() : columns.get(0);
    }
}
