package io.mivrel.checking;

import io.mivrel.model.Line;
import io.mivrel.money.Money;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.StringJoiner;

/**
 * Works out why a journal does not balance, the way bookkeepers do: one minor unit is a rounding; twice a line is a line
 * on the wrong side; once a line is a line doubled or left out; a difference that nine divides is two digits swapped or
 * a decimal point that slipped.
 */
public final class Imbalance {
    private static final int MOST = 3;

    private Imbalance() {}

    /** What may have happened. */
    public enum Kind {
        ROUNDING,
        WRONG_SIDE,
        DOUBLED,
        OMITTED,
        SWAPPED_DIGITS,
        SLIPPED_POINT
    }

    /**
     * A likely cause.
     *
     * @param kind what may have happened
     * @param line index of the line it may be; -1 when it is no line that stands there
     * @param amount what the line's signed amount, in minor units, would have to be for the journal to balance
     */
    public record Cause(Kind kind, int line, long amount) {}

    /**
     * The likely causes of a difference (debits less credits, not nil), likeliest first, at most three.
     */
    public static List<Cause> explain(List<Line> lines, long difference) {
        List<Cause> causes = new ArrayList<>();
        if (Math.abs(difference) == 1) {
            causes.add(new Cause(Kind.ROUNDING, -1, 0));
        }
        each(lines, causes, difference, Kind.WRONG_SIDE);
        each(lines, causes, difference, Kind.SWAPPED_DIGITS);
        each(lines, causes, difference, Kind.DOUBLED);
        each(lines, causes, difference, Kind.SLIPPED_POINT);
        // A missing line has the amount of the difference, so when it equals a line of the other side, that line's
        // counterpart may be what was left out.
        each(lines, causes, difference, Kind.OMITTED);
        return causes.size() > MOST ? List.copyOf(causes.subList(0, MOST)) : causes;
    }

    private static void each(List<Line> lines, List<Cause> causes, long difference, Kind kind) {
        for (int i = 0; i < lines.size() && causes.size() < MOST; i++) {
            long amount = lines.get(i).minor();
            long right = amount - difference;
            boolean fits = switch (kind) {
                case WRONG_SIDE -> right == -amount;
                case DOUBLED -> right == 0;
                case OMITTED -> amount == -difference || amount == difference && lines.size() == 1;
                case SWAPPED_DIGITS -> sameSign(amount, right) && areSwapped(Math.abs(amount), Math.abs(right));
                case SLIPPED_POINT -> sameSign(amount, right) && right != 0 && haveSlipped(amount, right);
                default -> false;
            };
            if (fits) {
                causes.add(new Cause(kind, i, kind == Kind.OMITTED ? -difference : right));
            }
        }
    }

    private static boolean sameSign(long a, long b) {
        return Long.signum(a) == Long.signum(b);
    }

    private static boolean haveSlipped(long a, long b) {
        long large = Math.max(Math.abs(a), Math.abs(b));
        long small = Math.min(Math.abs(a), Math.abs(b));
        return large == small * 10 || large == small * 100;
    }

    /** True when the two numbers differ by exactly two digits that changed places. */
    public static boolean areSwapped(long a, long b) {
        if ((a - b) % 9 != 0) {
            return false;
        }
        String x = Long.toString(a);
        String y = Long.toString(b);
        if (x.length() != y.length()) {
            int width = Math.max(x.length(), y.length());
            x = "0".repeat(width - x.length()) + x;
            y = "0".repeat(width - y.length()) + y;
        }
        int first = -1;
        int second = -1;
        for (int i = 0; i < x.length(); i++) {
            if (x.charAt(i) != y.charAt(i)) {
                if (first < 0) {
                    first = i;
                } else if (second < 0) {
                    second = i;
                } else {
                    return false;
                }
            }
        }
        return second >= 0 && x.charAt(first) == y.charAt(second) && x.charAt(second) == y.charAt(first);
    }

    /** The causes in words, for a finding. */
    static String words(List<Cause> causes, List<Line> lines, long difference, Currency currency) {
        if (causes.isEmpty()) {
            String missing = "a line of " + Money.show(Math.abs(difference), currency) + " is missing on the "
                    + (difference > 0 ? "credit" : "debit") + " side, or an amount is wrong";
            return difference % 9 == 0 ? missing + " (nine divides the difference: look for swapped digits)" : missing;
        }
        StringJoiner words = new StringJoiner("; or ");
        for (Cause cause : causes) {
            words.add(words(cause, lines, difference, currency));
        }
        return words.toString();
    }

    private static String words(Cause cause, List<Line> lines, long difference, Currency currency) {
        if (cause.kind == Kind.ROUNDING) {
            return "a rounding of one minor unit";
        }
        Line line = lines.get(cause.line);
        String place = "row " + line.source().row();
        String is = Money.show(Math.abs(line.minor()), currency);
        String should = Money.show(Math.abs(cause.amount), currency);
        return switch (cause.kind) {
            case WRONG_SIDE -> place + ", " + is + ", is probably on the wrong side";
            case DOUBLED -> place + ", " + is + ", is probably one line too many";
            case OMITTED ->
                "a line of " + Money.show(Math.abs(difference), currency) + " on the "
                        + (difference > 0 ? "credit" : "debit") + " side is probably left out, as in " + place;
            case SWAPPED_DIGITS -> place + ", " + is + ", is probably " + should + " (two digits swapped)";
            case SLIPPED_POINT -> place + ", " + is + ", is probably " + should + " (the decimal point slipped)";
            default -> "";
        };
    }
}
