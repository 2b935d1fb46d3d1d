package io.mivrel.history;

import io.mivrel.history.DocumentHistory.Earlier;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.util.Locale;
import java.util.Objects;

/** What is said of a document that another one seems to be already. */
public final class RepeatFinding {
    private RepeatFinding() {}

    /** Two files have a document of this name. */
    public static Finding ofName(Kind kind, RecordRange records, Earlier before) {
        return finding(
                Rule.DOCUMENT_REPEATED,
                kind,
                records,
                "this number stands in another file too: " + before,
                "take one of the two out; if they are two documents, give one a number of its own");
    }

    /**
     * One with the same figures came before under another name. Of one day, with a party, it is a blocker, and so it is when
     * the two numbers are one, spelled in two ways; else a caution.
     */
    public static Finding ofFigures(Kind kind, RecordRange records, RepeatedDocuments.Alike alike) {
        Earlier before = alike.document();
        long days = Math.abs(before.day().toEpochDay() - records.block().number(kind.date(), records.from()));
        boolean spelled = areSpelledAlike(before.reference(), number(kind, records));
        boolean blocks = spelled || kind.isEnteredOnce() && days == 0 && alike.sameTexts();
        String what = (kind.isEnteredOnce() ? "same party" : "same accounts")
                + (days == 0 ? ", date" : "")
                + (kind.isEnteredOnce() ? " and lines" : " and amounts");
        return finding(
                blocks ? Rule.DOCUMENT_REPEATED : Rule.DOCUMENT_ALIKE,
                kind,
                records,
                what + " as " + before
                        + (days == 0 ? "" : ", " + days + (days == 1 ? " day" : " days") + " apart")
                        + (spelled ? "; same number, written differently" : ""),
                blocks
                        ? "take one of the two out, or make them differ if both are true"
                        : "is it one document, entered twice?");
    }

    /** True when two documents with the same figures are near enough for being one. */
    public static boolean isNear(Kind kind, Earlier before, RecordRange records) {
        long days = Math.abs(before.day().toEpochDay() - records.block().number(kind.date(), records.from()));
        return days <= (kind.isEnteredOnce() ? DocumentHistory.NEAR_DAYS : 0)
                || areSpelledAlike(before.reference(), number(kind, records));
    }

    private static Finding finding(Rule rule, Kind kind, RecordRange records, String reason, String suggestion) {
        SourceRecord first = records.get(0);
        Field key = Objects.requireNonNull(kind.key());
        return new Finding(rule, first.origin(), key.name(), number(kind, records), reason, suggestion);
    }

    private static String number(Kind kind, RecordRange records) {
        String number = records.get(0).text(Objects.requireNonNull(kind.key()));
        return number == null ? "" : number;
    }

    // They differ in punctuation, case and leading zeros only.
    private static boolean areSpelledAlike(String one, String other) {
        return !one.equals(other) && plain(one).equals(plain(other));
    }

    private static String plain(String number) {
        return number.toUpperCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]+", " ")
                .replaceAll("(?<!\\d)0+(?=\\d)", "")
                .replaceAll("(?<=\\p{L}) ?(?=\\d)|(?<=\\d) ?(?=\\p{L})", "")
                .strip();
    }
}
