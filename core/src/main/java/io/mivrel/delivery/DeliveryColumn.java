package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.text.DatePattern;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One column of a delivery.
 *
 * @param title the receiver's title
 * @param field what stands in it; {@code null} for a constant
 * @param constant the same text in every row; {@code null} when it comes from a field
 * @param date pattern of a date field; {@code null} for other types
 * @param atMost longest text; 0 for any length
 * @param refuse characters that must not occur; empty for none
 * @param blankZero true to leave an amount of nil blank
 * @param minus true to turn the sign of an amount
 * @param zeros characters to which noughts fill a code of digits or an amount, behind its sign; 0 for as it is
 * @param width places that it takes in a form of fixed width; 0 where that does not matter
 * @param right true when it stands at the right of its places
 */
public record DeliveryColumn(
        String title,
        @Nullable Field field,
        @Nullable String constant,
        @Nullable DatePattern date,
        int atMost,
        String refuse,
        boolean blankZero,
        boolean minus,
        int zeros,
        int width,
        boolean right) {

    public DeliveryColumn {
        Objects.requireNonNull(title);
        Objects.requireNonNull(refuse);
    }

    public static DeliveryColumn of(String title, @Nullable Field field) {
        return new DeliveryColumn(title, field, null, null, 0, "", false, false, 0, 0, false);
    }

    public static DeliveryColumn date(String title, @Nullable Field field, String pattern) {
        return new DeliveryColumn(title, field, null, DatePattern.of(pattern), 0, "", false, false, 0, 0, false);
    }

    public static DeliveryColumn constant(String title, String text) {
        return new DeliveryColumn(title, null, text, null, 0, "", false, false, 0, 0, false);
    }

    /** The same, leaving an amount of nil blank. */
    public DeliveryColumn blankForZero() {
        return new DeliveryColumn(title, field, constant, date, atMost, refuse, true, minus, zeros, width, right);
    }

    /** The same, for texts of a limited length. */
    public DeliveryColumn atMost(int length) {
        return new DeliveryColumn(title, field, constant, date, length, refuse, blankZero, minus, zeros, width, right);
    }

    /** The same, for texts without these characters. */
    public DeliveryColumn refusing(String characters) {
        return new DeliveryColumn(
                title, field, constant, date, atMost, characters, blankZero, minus, zeros, width, right);
    }

    /** The same, with the sign of an amount turned. */
    public DeliveryColumn signTurned() {
        return new DeliveryColumn(title, field, constant, date, atMost, refuse, blankZero, true, zeros, width, right);
    }

    /** The same, filled with noughts to so many digits. */
    public DeliveryColumn zeros(int digits) {
        return new DeliveryColumn(title, field, constant, date, atMost, refuse, blankZero, minus, digits, width, right);
    }

    /** The same in so many places, at their right or left. */
    public DeliveryColumn wide(int places, boolean atTheRight) {
        return new DeliveryColumn(
                title, field, constant, date, atMost, refuse, blankZero, minus, zeros, places, atTheRight);
    }

    /** The longest text that it takes; 0 for any. */
    int most() {
        return atMost > 0 && width > 0 ? Math.min(atMost, width) : Math.max(atMost, width);
    }
}
