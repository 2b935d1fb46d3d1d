package io.mivrel.practice;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Ledger.Plain;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The codes by which the practice ledger refuses, terse as those of real ones, and what they mean. */
enum Refusal {
    ACCOUNT_UNKNOWN("A1", "the ledger has no account %s", "open the account there, or code the line otherwise"),
    ACCOUNT_CLOSED("A2", "the account %s is not open in the ledger", "open it there, or code the line otherwise"),
    ACCOUNT_CONTROL(
            "A3",
            "the account %s is a control account, and its line names no customer or supplier",
            "name the party on the line, or post to another account"),
    PARTY_UNKNOWN("A4", "the ledger has no customer or supplier %s", "create it there, or post with --create-parties"),
    TAX_CODE_UNKNOWN("A5", "the ledger has no tax code %s", "add it there, or name another one"),
    UNBALANCED("B1", "the debits and credits differ by %s", "correct the lines"),
    CURRENCY("B2", "the ledger does not keep books in %s", "post it in the currency of the ledger"),
    PERIOD_CLOSED(
            "D1",
            "the period of %s is closed in the ledger",
            "have it opened there, or take a date in an open period; --date says it when a batch is withdrawn"),
    REFERENCE_TAKEN(
            "R1",
            "the ledger has a journal with the number %s already, which did not come from here",
            "compare the two: if they are one, remove one; otherwise give this one another number"),
    NOT_THERE("R2", "there is nothing to replace under the key %s", "post it with '--mode add-or-replace'"),
    NOT_WHOLE("R3", "the content is not that of its digest %s", "send it again; if it is refused again, tell us"),
    TEXT_LONG("T1", "a text is longer than the ledger takes: %s", "shorten it at the source"),
    LINES_MANY("T2", "there are more lines than the ledger takes: %s", "divide the document"),
    BATCH_WITHDRAWN("W1", "the batch was withdrawn and takes nothing more", "post again, which begins a new batch"),
    RESTED_UPON("W2", "the ledger's entry %s rests upon it, such as a payment", "take that back first, in the ledger"),
    NO_BATCH("W3", "the ledger has no such batch", "look up the name with mivrel status");

    private static final Map<String, Refusal> BY_CODE = new HashMap<>();

    static {
        for (Refusal refusal : values()) {
            BY_CODE.put(refusal.code, refusal);
        }
    }

    private final String code;
    private final String reason;
    private final String suggestion;

    Refusal(String code, String reason, String suggestion) {
        this.code = code;
        this.reason = reason;
        this.suggestion = suggestion;
    }

    /** The answer to an entry; {@code detail} is all that the ledger says besides its code. */
    Answer to(String key, String detail, int line) {
        return Answer.refused(key, code, detail, line);
    }

    static @Nullable Plain plain(Answer answer) {
        Refusal refusal = answer.code() == null ? null : BY_CODE.get(answer.code());
        String detail = answer.words() == null ? "" : answer.words();
        return refusal == null ? null : new Plain(refusal.reason.replace("%s", detail), refusal.suggestion);
    }
}
