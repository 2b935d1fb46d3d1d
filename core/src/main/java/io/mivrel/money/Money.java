package io.mivrel.money;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Currency;
import java.util.Objects;

/**
 * An exact amount of money in the minor units of its currency. Amounts of two currencies do not add. Immutable.
 *
 * @param minor minor units: pence of a pound, whole yen, thousandths of a dinar
 * @param currency the currency, never {@code null}
 */
public record Money(long minor, Currency currency) {
    public Money {
        Objects.requireNonNull(currency);
    }

    /**
     * The sum. Throws {@link IllegalArgumentException} when the currencies differ and {@link ArithmeticException} when the
     * sum is too large.
     */
    public Money plus(Money other) {
        requireSame(currency, other.currency);
        return new Money(Math.addExact(minor, other.minor), currency);
    }

    public Money negate() {
        return new Money(Math.negateExact(minor), currency);
    }

    /** Throws {@link IllegalArgumentException} when two currencies differ. */
    public static void requireSame(Currency one, Currency other) {
        if (!one.equals(other)) {
            throw new IllegalArgumentException("amounts in " + one + " and " + other + " do not add");
        }
    }

    /** The decimals of a currency, 0 to 4, by ISO 4217; funds without any count as 0. */
    public static int decimals(Currency currency) {
        return Math.max(0, currency.getDefaultFractionDigits());
    }

    /** An amount for people: thousands commas and a decimal point, {@code -1,234.50}. */
    public static String show(long minor, Currency currency) {
        BigDecimal value = BigDecimal.valueOf(minor, decimals(currency));
        String plain = value.abs().toPlainString();
        int point = plain.indexOf('.');
        int whole = point < 0 ? plain.length() : point;
        StringBuilder text = new StringBuilder(plain.length() + 8);
        if (minor < 0) {
            text.append('-');
        }
        for (int i = 0; i < whole; i++) {
            if (i > 0 && (whole - i) % 3 == 0) {
                text.append(',');
            }
            text.append(plain.charAt(i));
        }
        return text.append(plain, whole, plain.length()).toString();
    }

    /** Quantity times price in minor units, rounded half up once: the named rounding of a line's net. */
    public static long extend(BigDecimal quantity, BigDecimal price, Currency currency) {
        return quantity.multiply(price)
                .movePointRight(decimals(currency))
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact();
    }

    /** Tax on a net amount: net times rate per cent, rounded half up away from nil. */
    public static long taxOn(long net, BigDecimal ratePerCent) {
        return part(net, ratePerCent);
    }

    /** A share of an amount in per cent, rounded half up away from nil. */
    public static long part(long amount, BigDecimal perCent) {
        return BigDecimal.valueOf(amount)
                .multiply(perCent)
                .movePointLeft(2)
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact();
    }

    /** Tax within a gross amount: gross times rate over (100 + rate), rounded half up away from nil. */
    public static long taxWithin(long gross, BigDecimal ratePerCent) {
        return BigDecimal.valueOf(gross)
                .multiply(ratePerCent)
                .divide(ratePerCent.add(BigDecimal.valueOf(100)), 0, RoundingMode.HALF_UP)
                .longValueExact();
    }

    /** For people: {@code -1,234.50 GBP}. */
    @Override
    public String toString() {
        return show(minor, currency) + " " + currency.getCurrencyCode();
    }
}
