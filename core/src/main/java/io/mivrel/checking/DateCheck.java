package io.mivrel.checking;

import io.mivrel.books.Books;
import io.mivrel.books.Period;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Rule;
import java.time.LocalDate;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Consumer;

/** The date must lie in an open period. */
final class DateCheck implements Check {
    private final Books books;
    /** The open period that the last date lay in; none at first. */
    private long openFrom = Long.MAX_VALUE;

    private long openTo = Long.MIN_VALUE;

    DateCheck(Books books) {
        this.books = books;
    }

    @Override
    public Columns columns() {
        return (documents, marked) -> {
            if (!books.periods().isEmpty()) {
                for (int i = 0; i < documents.size(); i++) {
                    marked[i] &= isInOpenPeriod(documents.day(i));
                }
            }
        };
    }

    private boolean isInOpenPeriod(long day) {
        return day >= openFrom && day <= openTo;
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (isInOpenPeriod(document.day()) || books.periods().isEmpty()) {
            return;
        }
        LocalDate date = Objects.requireNonNull(document.date());
        Optional<Period> period = books.period(date);
        if (period.isEmpty()) {
            LocalDate first = books.periods().get(0).from();
            LocalDate last = books.periods().get(books.periods().size() - 1).to();
            findings.accept(new Finding(
                    Rule.DATE_OUTSIDE_PERIODS,
                    document.origin(),
                    "date",
                    date.toString(),
                    "the books keep periods from " + first + " to " + last,
                    sameDayInside(date, first, last)));
        } else if (!period.get().isOpen()) {
            findings.accept(new Finding(
                    Rule.PERIOD_CLOSED,
                    document.origin(),
                    "date",
                    date.toString(),
                    "the period " + period.get().from() + " to " + period.get().to() + " is closed",
                    "open the period, or use a date after " + period.get().to()));
        } else {
            openFrom = period.get().from().toEpochDay();
            openTo = period.get().to().toEpochDay();
        }
    }

    // A wrong year is the commonest slip.
    private static String sameDayInside(LocalDate date, LocalDate first, LocalDate last) {
        for (int year = first.getYear(); year <= last.getYear(); year++) {
            LocalDate candidate = date.withYear(year);
            if (!candidate.isBefore(first) && !candidate.isAfter(last)) {
                return "was " + candidate + " meant?";
            }
        }
        return "correct the date, or add the period to the books";
    }
}
