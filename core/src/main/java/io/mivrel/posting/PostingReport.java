package io.mivrel.posting;

import io.mivrel.posting.Answer.Result;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What an attempt to post did, or would do. */
public final class PostingReport {
    /** What was not taken is kept in full for so many documents; all are counted. */
    public static final int KEPT = 2000;

    private final Batch batch;
    private final PostMode mode;
    private final boolean rehearsal;
    private final Map<Result, Long> results = new EnumMap<>(Result.class);
    private final List<NotTaken> notTaken = new ArrayList<>();
    private final BalanceChanges effect = new BalanceChanges();
    private final BalanceChanges takenOff = new BalanceChanges();
    private long before;
    private long beyond;

    /**
     * A document that the ledger did not take.
     *
     * @param there what it has under the same key; {@code null} for nothing
     * @param plain the refusal in plain words; {@code null} for none
     */
    public record NotTaken(
            SourcedEntry sent, Answer answer, @Nullable Entry there, Ledger.@Nullable Plain plain) {}

    PostingReport(Batch batch, PostMode mode, boolean rehearsal) {
        this.batch = batch;
        this.mode = mode;
        this.rehearsal = rehearsal;
    }

    void postedBefore(SourcedEntry entry) {
        before++;
    }

    void beyondPilot(SourcedEntry entry) {
        beyond++;
    }

    void take(SourcedEntry sent, Answer answer, @Nullable Entry there, Ledger.@Nullable Plain plain) {
        results.merge(answer.result(), 1L, Long::sum);
        boolean taken = answer.result() == Result.ADDED
                || answer.result() == Result.REPLACED
                || answer.result() == Result.THERE;
        if (!taken && notTaken.size() < KEPT) {
            notTaken.add(new NotTaken(sent, answer, there, plain));
        }
    }

    void replaces(Entry old) {
        takenOff.add(old);
    }

    int kept() {
        return notTaken.size();
    }

    public Batch batch() {
        return batch;
    }

    public PostMode mode() {
        return mode;
    }

    /** True when nothing was posted, only asked. */
    public boolean isRehearsal() {
        return rehearsal;
    }

    /** How many documents had a result. */
    public long count(Result result) {
        return results.getOrDefault(result, 0L);
    }

    /** Documents that were known to be in the ledger and were not sent. */
    public long postedBefore() {
        return before;
    }

    /** Documents that a pilot left for later. */
    public long beyondPilot() {
        return beyond;
    }

    /** Documents that now stand in the ledger by this attempt. */
    public long posted() {
        return count(Result.ADDED) + count(Result.REPLACED) + count(Result.THERE);
    }

    /** Documents that were sent. */
    public long sent() {
        return results.values().stream().mapToLong(Long::longValue).sum();
    }

    /** Documents that were not taken and are to be corrected. */
    public long held() {
        return count(Result.REFUSED) + count(Result.DIFFERS);
    }

    public List<NotTaken> notTaken() {
        return notTaken;
    }

    /** What the entries had added that were replaced; {@link #effect} is without it. */
    public BalanceChanges takenOff() {
        return takenOff;
    }

    /** What was added to the balances. */
    public BalanceChanges effect() {
        return effect;
    }
}
