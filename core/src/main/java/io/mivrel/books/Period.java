package io.mivrel.books;

import java.time.LocalDate;

/** A period from its first to its last day, both included. */
public record Period(LocalDate from, LocalDate to, boolean isOpen) {

    public static Period open(LocalDate from, LocalDate to) {
        return new Period(from, to, true);
    }

    public static Period closed(LocalDate from, LocalDate to) {
        return new Period(from, to, false);
    }

    public boolean contains(LocalDate date) {
        return !date.isBefore(from) && !date.isAfter(to);
    }
}
