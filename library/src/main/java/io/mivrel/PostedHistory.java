package io.mivrel;

import io.mivrel.ledger.Register;
import io.mivrel.ledger.RegisterPlace;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordRange;
import io.mivrel.run.DocumentHistory;
import io.mivrel.run.Input;
import java.io.IOException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The register as posting sees it: what went out in import files is posted all the same, and counted; what contradicts what
 * went out is held, as in a run.
 */
final class PostedHistory implements DocumentHistory, AutoCloseable {
    private final Register register;
    private final boolean holds;
    /** How many documents went out in import files, by the run that delivered them. */
    private final Map<String, Long> delivered = new TreeMap<>();

    private PostedHistory(Register register, boolean holds) {
        this.register = register;
        this.holds = holds;
    }

    /** {@code holds} is true when a document that went out in an import file is not posted. */
    static PostedHistory open(RegisterPlace place, Mivrel run, List<Input> inputs, boolean holds) throws IOException {
        Register register = Register.openToRead(place);
        boolean begun = false;
        try {
            register.beginCheck(run.scope(run.plan(inputs).build()));
            begun = true;
            return new PostedHistory(register, holds);
        } finally {
            if (!begun) {
                register.close();
            }
        }
    }

    /** How many documents went out in import files, by the run that delivered them. */
    Map<String, Long> delivered() {
        return delivered;
    }

    @Override
    public Verdict judge(Kind kind, RecordRange records, long identity, long content) throws IOException {
        Verdict verdict = register.judge(kind, records, identity, content);
        if (verdict == Verdict.DELIVERED) {
            Earlier earlier = register.named(identity);
            delivered.merge(earlier == null || earlier.run() == null ? "" : earlier.run(), 1L, Long::sum);
            return holds ? verdict : Verdict.NEW;
        }
        return verdict;
    }

    @Override
    public long lacking() {
        return 0;
    }

    @Override
    public long matchedByAmount() {
        return 0;
    }

    @Override
    public @Nullable Earlier named(long identity) throws IOException {
        return register.named(identity);
    }

    @Override
    public @Nullable Earlier alike(long identity, long figures, long day) throws IOException {
        return register.alike(identity, figures, day);
    }

    @Override
    public boolean covers(String account, long from, long to) throws IOException {
        return register.covers(account, from, to);
    }

    @Override
    public @Nullable Earlier counterpart(String account, long amount, long day) throws IOException {
        return register.counterpart(account, amount, day);
    }

    @Override
    public void remember(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries) {
        // Posting has a memory of its own.
    }

    @Override
    public void startOver() throws IOException {
        register.startOver();
        delivered.clear();
    }

    @Override
    public boolean foundChangedDays() {
        return register.foundChangedDays();
    }

    @Override
    public @Nullable Closing lastClosing(String account, LocalDate day) throws IOException {
        return register.lastClosing(account, day);
    }

    @Override
    public void close() {
        register.close();
    }
}
