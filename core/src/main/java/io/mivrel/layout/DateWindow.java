package io.mivrel.layout;

import java.time.LocalDate;

/** The dates wanted of a run, both ends included. */
public record DateWindow(LocalDate from, LocalDate to) {

    /** No date is left out. */
    public static final DateWindow ALL = new DateWindow(LocalDate.MIN, LocalDate.MAX);
}
