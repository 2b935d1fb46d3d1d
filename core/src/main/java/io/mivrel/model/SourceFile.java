package io.mivrel.model;

import java.time.LocalDate;
import java.util.Currency;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What all records of one sheet of one file have in common. Immutable.
 *
 * @param name the file as the user named it
 * @param sheet the sheet; empty for a file without sheets
 * @param ordinal place of the file in the run, from 1
 * @param account the account that the layout names for the file; {@code null} for none
 * @param currency the currency of its amounts
 */
public record SourceFile(
        String name, String sheet, int ordinal, @Nullable String account, Currency currency) {
    public SourceFile {
        Objects.requireNonNull(name);
        Objects.requireNonNull(sheet);
        Objects.requireNonNull(currency);
    }

    /** The only file of a run, without sheets and of no account. */
    public static SourceFile of(String name, Currency currency) {
        return new SourceFile(name, "", 1, null, currency);
    }

    /** What a document without a number is called: account, day and row, and the place of the file to keep several apart. */
    public String reference(long day, long row) {
        String place = (ordinal == 1 ? "-" : "-" + ordinal + ".") + row;
        if (day == SourceRecord.ABSENT) {
            return account + place;
        }
        LocalDate date = LocalDate.ofEpochDay(day);
        int yymmdd = date.getYear() % 100 * 10_000 + date.getMonthValue() * 100 + date.getDayOfMonth();
        return account + "-" + Integer.toString(1_000_000 + yymmdd).substring(1) + place;
    }

    /** The same, of an account. */
    public SourceFile ofAccount(String code) {
        return new SourceFile(name, sheet, ordinal, code, currency);
    }
}
