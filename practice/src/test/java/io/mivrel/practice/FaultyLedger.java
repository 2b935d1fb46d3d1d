package io.mivrel.practice;

import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.LedgerException.Kind;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.practice.web.Misbehaviour;
import io.mivrel.practice.web.Misbehaviour.Fault;
import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;

/** A ledger that takes few entries a call, misbehaves, and at whose calls our own side may be killed. */
final class FaultyLedger implements Ledger {
    private static final int FEW = 20;

    private final Ledger ledger;
    private final Misbehaviour misbehaviour;
    private final Runnable mayKill;

    /** {@code mayKill} throws where our side is killed. */
    FaultyLedger(Ledger ledger, Misbehaviour misbehaviour, Runnable mayKill) {
        this.ledger = ledger;
        this.misbehaviour = misbehaviour;
        this.mayKill = mayKill;
    }

    private interface Call<T> {
        T call() throws LedgerException;
    }

    private <T> T call(Call<T> call) throws LedgerException {
        mayKill.run();
        Fault fault = misbehaviour.draw();
        if (fault == Fault.LIMIT) {
            throw new LedgerException(Kind.BUSY, "wait", Duration.ofMillis(3), null);
        }
        T answer = call.call();
        mayKill.run();
        if (fault != null && fault != Fault.SLOW && fault != Fault.WRONG && fault != Fault.HALF) {
            throw new LedgerException(Kind.UNSURE, "lost", null);
        }
        return answer;
    }

    @Override
    public List<Answer> post(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        if (misbehaviour.draw() == Fault.HALF) {
            call(() -> ledger.post(batch, mode, entries.subList(0, entries.size() / 2)));
            throw new LedgerException(Kind.UNSURE, "half", null);
        }
        List<Answer> answers = new ArrayList<>(call(() -> ledger.post(batch, mode, entries)));
        if (misbehaviour.draw() == Fault.WRONG && entries.size() > 1) {
            Collections.reverse(answers);
        }
        return answers;
    }

    @Override
    public Abilities abilities() throws LedgerException {
        Abilities a = ledger.abilities();
        return new Abilities(
                a.drafts(),
                a.finals(),
                a.replaces(),
                a.withdraws(),
                a.rehearses(),
                a.createsParties(),
                a.kinds(),
                FEW,
                a.linesAtMost(),
                a.textAtMost(),
                a.referenceAtMost());
    }

    @Override
    public String name() {
        return ledger.name();
    }

    @Override
    public Books books() throws LedgerException {
        return call(ledger::books);
    }

    @Override
    public void create(List<Party> parties) throws LedgerException {
        ledger.create(parties);
    }

    @Override
    public List<Answer> rehearse(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        return ledger.rehearse(batch, mode, entries);
    }

    @Override
    public Map<String, PostedEntry> find(Collection<String> keys) throws LedgerException {
        return call(() -> ledger.find(keys));
    }

    @Override
    public List<Answer> makeFinal(String batch) throws LedgerException {
        return call(() -> ledger.makeFinal(batch));
    }

    @Override
    public void seal(String batch) throws LedgerException {
        call(() -> {
            ledger.seal(batch);
            return true;
        });
    }

    @Override
    public List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) throws LedgerException {
        return call(() -> ledger.withdraw(batch, keys, day));
    }

    @Override
    public List<Balance> balances(LocalDate day) throws LedgerException {
        return call(() -> ledger.balances(day));
    }

    @Override
    public long mark() throws LedgerException {
        return call(ledger::mark);
    }

    @Override
    public void entries(Query query, Consumer<PostedEntry> target) throws LedgerException {
        call(() -> {
            ledger.entries(query, target);
            return true;
        });
    }

    @Override
    public void close() {
        ledger.close();
    }
}
