package io.mivrel.practice;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Ledger.Plain;
import org.jspecify.annotations.Nullable;

/** What the codes of the practice ledger mean, for whoever reaches it in another way. */
public final class PracticeRefusals {
    private PracticeRefusals() {}

    /** A refusal in plain words; {@code null} for a code that is not known. */
    public static @Nullable Plain plain(Answer answer) {
        return Refusal.plain(answer);
    }
}
