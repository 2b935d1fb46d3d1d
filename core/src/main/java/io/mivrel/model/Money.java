package io.mivrel.model;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Currency;

/** Writing and reckoning with minor units, for people and for named rounding steps. */
public final class Money {
    private Money() {}

    /** The decimals of a currency by ISO 4217; funds without any count as 0. */
    public static int decimals(Currency currency) {
        return Math.max(0, currency.getDefaultFractionDigits());
    }

    /** An amount for people: thousands commas and a decimal point, {@code -1,234.50}. */
    public static String show(long minor, int decimals) {
        BigDecimal value = BigDecimal.valueOf(minor, decimals);
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
    public static long extend(BigDecimal quantity, BigDecimal price, int decimals) {
        return quantity.multiply(price)
                .movePointRight(decimals)
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact();
    }

    /** Tax on a net amount: net times rate per cent, rounded half up away from nil. */
    public static long taxOn(long net, BigDecimal ratePerCent) {
        return BigDecimal.valueOf(net)
                .multiply(ratePerCent)
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
}
