package io.mivrel.books;

import java.time.LocalDate;

/** A period from its first to its last day, both included. */
public record Period(LocalDate from, LocalDate to, boolean isOpen) {

    public boolean contains(LocalDate date) {
        return !date.isBefore(from) && !date.isAfter(to);
    }
}
