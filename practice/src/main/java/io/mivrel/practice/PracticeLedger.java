package io.mivrel.practice;

import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Double-entry books in a database, which refuse what real ones refuse. What must hold is held by constraints of the database
 * itself: entries balance, accounts and periods are open, keys are unique, and what is recorded does not change. For one
 * thread; several programs may have the same books open.
 */
public final class PracticeLedger implements Ledger {
    static final Abilities ABILITIES =
            new Abilities(true, true, true, true, true, true, Set.of(), 20_000, 10_000, 200, 40);

    private final PracticeDatabase database;
    private final String name;
    private final long company;
    private final EntryStore store;

    private PracticeLedger(PracticeDatabase database, String name, long company) {
        this.database = database;
        this.name = name;
        this.company = company;
        this.store = new EntryStore(database, company);
    }

    /** Opens books that exist. {@code company} may be {@code null} when the database has those of one company only. */
    public static PracticeLedger open(String name, PracticePlace place, @Nullable String company)
            throws LedgerException {
        if (!PracticeDatabase.exists(place)) {
            throw none(name, place, company);
        }
        return open(name, place, company, null);
    }

    /** Opens books and makes them of these when they are missing. */
    public static PracticeLedger openOrCreate(String name, PracticePlace place, Books books) throws LedgerException {
        return open(name, place, books.company(), books);
    }

    private static PracticeLedger open(
            String name, PracticePlace place, @Nullable String company, @Nullable Books created)
            throws LedgerException {
        PracticeDatabase database = PracticeDatabase.open(place);
        boolean ready = false;
        try {
            BooksStore books = new BooksStore(database);
            database.beginToWrite();
            long id = books.company(company == null ? books.anyCompany() : company);
            if (id == 0) {
                if (created == null) {
                    throw none(name, place, company);
                }
                id = books.create(created);
            }
            database.commit();
            ready = true;
            return new PracticeLedger(database, name, id);
        } catch (SQLException e) {
            throw database.failure(e, LedgerException.Kind.BUSY);
        } finally {
            if (!ready) {
                database.close();
            }
        }
    }

    private static LedgerException none(String name, PracticePlace place, @Nullable String company) {
        return new LedgerException(
                LedgerException.Kind.REFUSED,
                place + ": the ledger '" + name + "' has no books" + (company == null ? "" : " of " + company)
                        + " yet; open them with: mivrel practice open",
                null);
    }

    /** Work within one transaction. */
    interface Work<T> {
        T run() throws SQLException;
    }

    // A failure before the commit means that nothing was done; one at the commit itself leaves it open.
    private <T> T write(Work<T> work) throws LedgerException {
        T result;
        try {
            database.beginToWrite();
            result = work.run();
        } catch (SQLException e) {
            database.rollback();
            String refused = PracticeDatabase.refused(e);
            throw refused == null
                    ? database.failure(e, LedgerException.Kind.BUSY)
                    : new LedgerException(LedgerException.Kind.REFUSED, name + ": " + refused, e);
        }
        try {
            database.commit();
            return result;
        } catch (SQLException e) {
            database.rollback();
            throw database.failure(e, LedgerException.Kind.UNSURE);
        }
    }

    private <T> T read(Work<T> work) throws LedgerException {
        try {
            database.begin();
            return work.run();
        } catch (SQLException e) {
            throw database.failure(e, LedgerException.Kind.BUSY);
        } finally {
            database.rollback();
        }
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public Abilities abilities() {
        return ABILITIES;
    }

    @Override
    public Books books() throws LedgerException {
        return read(() -> new BooksStore(database).read(company));
    }

    @Override
    public void create(List<Party> parties) throws LedgerException {
        write(() -> {
            BooksStore books = new BooksStore(database);
            for (Party party : parties) {
                books.add(company, party);
            }
            return true;
        });
    }

    @Override
    public List<Answer> post(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        return write(() -> new PostingWork(database, store, company, batch).post(mode, entries));
    }

    @Override
    public List<Answer> rehearse(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        return read(() -> new PostingWork(database, store, company, batch).examine(mode, entries));
    }

    @Override
    public Map<String, PostedEntry> find(Collection<String> keys) throws LedgerException {
        return read(() -> {
            Map<String, PostedEntry> found = new HashMap<>();
            List<Long> ids =
                    store.live(keys).values().stream().map(EntryStore.Known::id).toList();
            store.full(ids).forEach(posted -> found.put(posted.entry().key(), posted));
            return found;
        });
    }

    @Override
    public List<Answer> makeFinal(String batch) throws LedgerException {
        return write(() -> new WithdrawalWork(database, store, company).makeFinal(batch));
    }

    @Override
    public void seal(String batch) throws LedgerException {
        write(() -> {
            new WithdrawalWork(database, store, company).seal(batch);
            return true;
        });
    }

    @Override
    public List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) throws LedgerException {
        return write(() -> new WithdrawalWork(database, store, company).withdraw(batch, keys, day));
    }

    @Override
    public List<Balance> balances(LocalDate day) throws LedgerException {
        return read(() -> store.balances(day));
    }

    @Override
    public long mark() throws LedgerException {
        return read(() -> database.number("SELECT coalesce(max(id), 0) FROM deed"));
    }

    @Override
    public void entries(Query query, Consumer<PostedEntry> target) throws LedgerException {
        read(() -> {
            store.entries(query, target);
            return true;
        });
    }

    /** The entries of {@link #entries} behind a number, at most so many. */
    public List<PostedEntry> page(Query query, long after, int most) throws LedgerException {
        return read(() -> {
            List<PostedEntry> page = new ArrayList<>();
            store.entries(query, after, most, page::add);
            return page;
        });
    }

    @Override
    public @Nullable Plain plain(Answer answer) {
        return Refusal.plain(answer);
    }

    /** The same books as the receiver's own people have them in hand; lives as long as this ledger. */
    public PracticeDesk desk() {
        return new PracticeDesk(this);
    }

    /** For the desk. */
    void change(BooksChange change) throws LedgerException {
        write(() -> {
            change.make(new BooksStore(database), company);
            return true;
        });
    }

    /** A change to the books themselves. */
    interface BooksChange {
        void make(BooksStore books, long company) throws SQLException;
    }

    /** Enters something by hand: without a key, and final. */
    String enter(Entry entry) throws LedgerException {
        List<Answer> refused = new ArrayList<>();
        String number = write(() -> {
            Answer answer = new Examination(new BooksStore(database).read(company), ABILITIES).refuse(entry);
            if (answer != null) {
                refused.add(answer);
                return "";
            }
            return Long.toString(new PostingWork(database, store, company, null).enter(entry));
        });
        if (!refused.isEmpty()) {
            Plain plain = plain(refused.get(0));
            throw new LedgerException(LedgerException.Kind.REFUSED, plain == null ? "refused" : plain.reason(), null);
        }
        return number;
    }

    /** Notes that one entry rests upon another. */
    void rest(String number, String upon) throws LedgerException {
        write(() -> {
            try (var insert = database.connection().prepareStatement("INSERT INTO dependence VALUES (?, ?)")) {
                insert.setLong(1, Long.parseLong(number));
                insert.setLong(2, Long.parseLong(upon));
                return insert.executeUpdate();
            }
        });
    }

    static boolean isDone(Result result) {
        return result == Result.ADDED || result == Result.REPLACED;
    }

    static Standing standing(Batch batch) {
        return batch.standing() == Standing.FINAL ? Standing.FINAL : Standing.DRAFT;
    }

    @Override
    public void close() {
        database.close();
    }
}
