package io.mivrel.text;

import org.jspecify.annotations.Nullable;

/** What a run of one letter stands for in a {@link DatePattern}. */
enum DatePart {
    YEAR('u', 4, 4, Says.YEAR, 4, 4, 9999),
    SHORT_YEAR('u', 2, 2, Says.YEAR, 2, 2, 99),
    MONTH_LOOSE('M', 1, 1, Says.MONTH, 1, 2, 99),
    MONTH('M', 2, 2, Says.MONTH, 2, 2, 99),
    MONTH_NAME('M', 3, 3, Says.MONTH, 0, 0, 0),
    MONTH_FULL('M', 4, 4, Says.MONTH, 0, 0, 0),
    DAY_LOOSE('d', 1, 1, Says.DAY, 1, 2, 99),
    DAY('d', 2, 2, Says.DAY, 2, 2, 99),
    WEEKDAY('E', 3, 3, Says.WEEKDAY, 0, 0, 0),
    WEEKDAY_FULL('E', 4, 4, Says.WEEKDAY, 0, 0, 0),
    HOUR('H', 1, 2, Says.TIME, 1, 2, 23),
    HALF_HOUR('h', 1, 2, Says.TIME, 1, 2, 12),
    MINUTE('m', 2, 2, Says.TIME, 2, 2, 59),
    SECOND('s', 2, 2, Says.TIME, 2, 2, 59),
    FRACTION('S', 1, Integer.MAX_VALUE, Says.TIME, 0, 0, 0),
    HALF('a', 1, 1, Says.NOTHING, 0, 0, 0),
    OFFSET('X', 1, 3, Says.NOTHING, 0, 0, 0),
    /** The whole pattern: a number of days as spreadsheets count them. */
    SERIAL((char) 0, 0, 0, Says.YEAR, 0, 0, 0),
    LITERAL((char) 0, 0, 0, Says.NOTHING, 0, 0, 0);

    /** What a part says of the day. */
    enum Says {
        YEAR,
        MONTH,
        DAY,
        WEEKDAY,
        /** A time of day, in figures. */
        TIME,
        NOTHING
    }

    final Says says;
    /** Fewest and most figures it takes; none for one that is no number. */
    final int leastFigures;

    final int mostFigures;
    private final char letter;
    private final int leastRun;
    private final int mostRun;
    private final int most;

    DatePart(char letter, int leastRun, int mostRun, Says says, int leastFigures, int mostFigures, int most) {
        this.letter = letter;
        this.leastRun = leastRun;
        this.mostRun = mostRun;
        this.says = says;
        this.leastFigures = leastFigures;
        this.mostFigures = mostFigures;
        this.most = most;
    }

    /** What so many of a letter stand for; {@code null} for nothing known. */
    static @Nullable DatePart of(char letter, int run) {
        char known = letter == 'y' ? 'u' : letter;
        for (DatePart part : values()) {
            if (part.letter == known && run >= part.leastRun && run <= part.mostRun) {
                return part;
            }
        }
        return null;
    }

    boolean isNumber() {
        return mostFigures > 0;
    }

    boolean isFullName() {
        return this == MONTH_FULL || this == WEEKDAY_FULL;
    }

    /** What it takes of a cell: its value in the upper half, its length in the lower; or -1. */
    int take(DateNames names, byte[] c, int i, int e) {
        // Most parts are numbers, and what is short is compiled into the loop over them.
        return mostFigures > 0 ? number(c, i, e) : name(names, c, i, e);
    }

    private int number(byte[] c, int i, int e) {
        int width = leastFigures == mostFigures || i + 1 < e && isDigit(c[i + 1]) ? mostFigures : leastFigures;
        int value = figures(c, i, e, width);
        return value > most ? -1 : taken(value, width);
    }

    private int name(DateNames names, byte[] c, int i, int e) {
        return switch (this) {
            case MONTH_NAME, MONTH_FULL -> {
                int length = DateNames.letters(c, i, e);
                int month = names.month(c, i, length, isFullName());
                yield month == 0 ? -1 : taken(month, length);
            }
            case WEEKDAY, WEEKDAY_FULL -> {
                int length = DateNames.letters(c, i, e);
                int days = names.days(c, i, length, isFullName());
                yield days == 0 ? -1 : taken(days, length);
            }
            case FRACTION -> fraction(c, i, e);
            case HALF -> half(c, i, e);
            case OFFSET -> offset(c, i, e);
            default -> throw new IllegalStateException(this + " is read otherwise");
        };
    }

    private static int taken(int value, int length) {
        return value < 0 ? -1 : value << 16 | length;
    }

    private static int fraction(byte[] c, int i, int e) {
        int digits = 0;
        while (i + digits < e && digits < 9 && isDigit(c[i + digits])) {
            digits++;
        }
        return digits == 0 ? -1 : digits;
    }

    // am, pm, a.m., p.m., in any case, perhaps with a blank.
    private static int half(byte[] c, int i, int e) {
        int letters = 0;
        int at = i;
        while (at < e && letters < 2) {
            int small = c[at] >= 'A' && c[at] <= 'Z' ? c[at] + 32 : c[at];
            if (letters == 0 && (small == 'a' || small == 'p') || letters == 1 && small == 'm') {
                letters++;
            } else if (letters == 0 || c[at] != '.' && c[at] != ' ') {
                return -1;
            }
            at++;
        }
        return letters < 2 ? -1 : (at < e && c[at] == '.' ? at + 1 : at) - i;
    }

    private static int offset(byte[] c, int i, int e) {
        if (i < e && c[i] == 'Z') {
            return 1;
        }
        if (i + 3 > e || c[i] != '+' && c[i] != '-' || figures(c, i + 1, e, 2) < 0) {
            return -1;
        }
        int minutes = i + 3 < e && c[i + 3] == ':' ? i + 4 : i + 3;
        return figures(c, minutes, e, 2) >= 0 ? minutes + 2 - i : 3;
    }

    private static boolean isDigit(byte c) {
        return c >= '0' && c <= '9';
    }

    private static int figures(byte[] c, int i, int e, int width) {
        if (i + width > e) {
            return -1;
        }
        int n = 0;
        for (int k = i; k < i + width; k++) {
            if (!isDigit(c[k])) {
                return -1;
            }
            n = n * 10 + c[k] - '0';
        }
        return n;
    }
}
