package io.mivrel.practice;

import io.mivrel.books.AccountStatus;
import io.mivrel.posting.Entry;
import io.mivrel.posting.LedgerException;
import java.time.LocalDate;

/** What the receiver's own people do in their books, besides what is posted from outside. */
public final class PracticeDesk {
    private final PracticeLedger ledger;

    PracticeDesk(PracticeLedger ledger) {
        this.ledger = ledger;
    }

    /** Enters something by hand, as final and without a key; answers its number. */
    public String enter(Entry entry) throws LedgerException {
        return ledger.enter(entry);
    }

    public void setStatus(String account, AccountStatus status) throws LedgerException {
        ledger.change((books, company) -> books.setStatus(company, account, status));
    }

    /** Opens or closes the period that a day is in. */
    public void setOpen(LocalDate day, boolean open) throws LedgerException {
        ledger.change((books, company) -> books.setOpen(company, day, open));
    }

    /** Notes that an entry rests upon another, as a payment does on its invoice; both by number. */
    public void rest(String number, String upon) throws LedgerException {
        ledger.rest(number, upon);
    }
}
