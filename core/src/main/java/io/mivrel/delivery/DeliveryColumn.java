package io.mivrel.delivery;

import io.mivrel.model.Field;
import io.mivrel.text.DatePattern;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * One column of a delivery. It has a field, a constant or a count.
 *
 * @param title the receiver's title
 * @param field what stands in it; {@code null} for a constant or a count
 * @param constant the same text in every row, which may be empty; {@code null} when it comes from a field or counts
 * @param counts what it counts; {@code null} when it counts nothing
 * @param date pattern of a date field; {@code null} for other types
 * @param dateCell true when a date is a date of the workbook, shown by its pattern, rather than a text
 * @param text what becomes of texts and codes
 * @param must true when a document with a blank there is held
 * @param blankZero true to leave an amount of nil blank
 * @param sign the sign of an amount
 * @param sides the words for the side that the amount of its field is on, in place of the amount; {@code null} for the amount
 * @param zeros characters to which noughts fill a code of digits or an amount, behind its sign; 0 for as it is
 * @param width places that it takes in a form of fixed width; 0 where that does not matter
 * @param right true when it stands at the right of its places
 */
public record DeliveryColumn(
        String title,
        @Nullable Field field,
        @Nullable String constant,
        @Nullable Counting counts,
        @Nullable DatePattern date,
        boolean dateCell,
        TextForm text,
        @Nullable Sides sides,
        boolean must,
        boolean blankZero,
        AmountSign sign,
        int zeros,
        int width,
        boolean right) {

    public DeliveryColumn {
        Objects.requireNonNull(title);
        Objects.requireNonNull(text);
    }

    private static DeliveryColumn of(
            String title,
            @Nullable Field field,
            @Nullable String constant,
            @Nullable Counting counts,
            @Nullable DatePattern date) {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                false,
                TextForm.WHOLE,
                null,
                false,
                false,
                AmountSign.AS_RECKONED,
                0,
                0,
                false);
    }

    public static DeliveryColumn of(String title, @Nullable Field field) {
        return of(title, field, null, null, null);
    }

    public static DeliveryColumn date(String title, @Nullable Field field, String pattern) {
        return of(title, field, null, null, DatePattern.of(pattern));
    }

    public static DeliveryColumn constant(String title, String text) {
        return of(title, null, text, null, null);
    }

    /** A column that counts rows or documents, from 1 in each file. */
    public static DeliveryColumn counting(String title, Counting counts) {
        return of(title, null, null, counts, null);
    }

    /** The same, leaving an amount of nil blank. */
    public DeliveryColumn blankForZero() {
        return new DeliveryColumn(
                title, field, constant, counts, date, dateCell, text, sides, must, true, sign, zeros, width, right);
    }

    /** The same, for texts of a limited length. */
    public DeliveryColumn atMost(int length) {
        return text(form -> form.atMost(length));
    }

    /** The same, for texts without these characters. */
    public DeliveryColumn refusing(String characters) {
        return text(form -> form.refusing(characters));
    }

    /** The same with more fields behind its own, and what stands between them. */
    public DeliveryColumn joined(String between, Field... more) {
        return text(form -> form.joined(between, List.of(more)));
    }

    /** The same in the receiver's words, by ours. */
    public DeliveryColumn inWords(Map<String, String> words) {
        return text(form -> form.inWords(words));
    }

    /** The same with other texts. */
    public DeliveryColumn text(UnaryOperator<TextForm> change) {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                dateCell,
                change.apply(text),
                sides,
                must,
                blankZero,
                sign,
                zeros,
                width,
                right);
    }

    /** The same, which may not be blank. */
    public DeliveryColumn required() {
        return new DeliveryColumn(
                title, field, constant, counts, date, dateCell, text, sides, true, blankZero, sign, zeros, width,
                right);
    }

    /** The same, whose days are dates of a workbook rather than texts. */
    public DeliveryColumn dateCells() {
        return new DeliveryColumn(
                title, field, constant, counts, date, true, text, sides, must, blankZero, sign, zeros, width, right);
    }

    /** The same, with the sign of an amount turned. */
    public DeliveryColumn signTurned() {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                dateCell,
                text,
                sides,
                must,
                blankZero,
                AmountSign.TURNED,
                zeros,
                width,
                right);
    }

    /** The same without its sign, which a column of sides says. */
    public DeliveryColumn withoutSign() {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                dateCell,
                text,
                sides,
                must,
                blankZero,
                AmountSign.NONE,
                zeros,
                width,
                right);
    }

    /** The same with words for the side that its amount is on, in place of the amount. */
    public DeliveryColumn side(String plus, String minus) {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                dateCell,
                text,
                new Sides(plus, minus),
                must,
                blankZero,
                sign,
                zeros,
                width,
                right);
    }

    /** The same, filled with noughts to so many digits. */
    public DeliveryColumn zeros(int digits) {
        return new DeliveryColumn(
                title, field, constant, counts, date, dateCell, text, sides, must, blankZero, sign, digits, width,
                right);
    }

    /** The same in so many places, at their right or left. */
    public DeliveryColumn wide(int places, boolean atTheRight) {
        return new DeliveryColumn(
                title,
                field,
                constant,
                counts,
                date,
                dateCell,
                text,
                sides,
                must,
                blankZero,
                sign,
                zeros,
                places,
                atTheRight);
    }

    /** The longest text that it takes; 0 for any. */
    int most() {
        int atMost = text.atMost();
        return atMost > 0 && width > 0 ? Math.min(atMost, width) : Math.max(atMost, width);
    }
}
