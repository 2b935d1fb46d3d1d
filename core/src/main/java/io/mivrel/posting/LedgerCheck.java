package io.mivrel.posting;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.checking.Check;
import io.mivrel.model.Document;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Line;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/** Checks documents against what a ledger really has, before anything is sent. For one run. */
public final class LedgerCheck implements Check {
    private final Books there;
    private final Books own;
    private final Abilities limits;
    private final boolean createsParties;
    private final Map<String, Party> missing = new TreeMap<>();

    /**
     * @param there the ledger's books
     * @param own the books of the run, which know the parties that may be created
     * @param createsParties a party that only the ledger lacks is created rather than missed
     */
    public LedgerCheck(Books there, Books own, Abilities limits, boolean createsParties) {
        this.there = there;
        this.own = own;
        this.limits = limits;
        this.createsParties = createsParties;
    }

    /** The parties that are to be created, by code. */
    public Map<String, Party> missingParties() {
        return missing;
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Document journal = document.journal();
        LocalDate date = document.date();
        if (journal == null || date == null) {
            return;
        }
        String kind = document.kind().documents();
        if (!limits.takes(kind)) {
            findings.accept(limit(document.records().get(0), "", kind, "the ledger takes no " + kind));
        }
        // What the books of the run lack too, its own checks have said.
        boolean openHere = own.periods().isEmpty()
                || own.period(date).filter(Period::isOpen).isPresent();
        if (openHere && there.period(date).filter(Period::isOpen).isEmpty()) {
            boolean known = there.period(date).isPresent();
            findings.accept(lacks(
                    document.records().get(0),
                    "date",
                    date.toString(),
                    known
                            ? "the period of this date is closed in the ledger"
                            : "the ledger has no period of this date"));
        }
        tooLong(document.records().get(0), "reference", document.reference(), limits.referenceAtMost(), findings);
        if (journal.lines().size() > limits.linesAtMost()) {
            findings.accept(limit(
                    document.records().get(0),
                    "",
                    Integer.toString(journal.lines().size()),
                    "the journal has more lines than the ledger takes, which is " + limits.linesAtMost()));
        }
        for (Line line : journal.lines()) {
            check(line, findings);
        }
    }

    private void check(Line line, Consumer<Finding> findings) {
        Kind kind = line.kind();
        SourceRecord source = line.source();
        String code = line.account();
        Account account = there.account(code);
        Account ownAccount = own.account(code);
        if (ownAccount == null || ownAccount.status() != AccountStatus.OPEN) {
            return;
        }
        if (code != null && account == null) {
            findings.accept(lacks(source, "account", code, "the ledger has no such account"));
        } else if (account != null && account.status() != AccountStatus.OPEN) {
            findings.accept(lacks(source, "account", account.code(), "the account is not open in the ledger"));
        }
        String tax = line.taxCode();
        if (tax != null && own.taxCode(tax) != null && there.taxCode(tax) == null) {
            findings.accept(lacks(source, "tax code", tax, "the ledger has no such tax code"));
        }
        String party = line.party();
        if (party != null && own.party(party) != null && there.party(party) == null) {
            missing(source, party, findings);
        }
        if (kind.narrative() != null) {
            tooLong(source, "narrative", line.text(kind.narrative()), limits.textAtMost(), findings);
        }
    }

    private void missing(SourceRecord source, String code, Consumer<Finding> findings) {
        Party known = own.party(code);
        if (createsParties && known != null) {
            missing.put(code, known);
            return;
        }
        findings.accept(new Finding(
                Rule.LEDGER_LACKS,
                source.origin(),
                "party",
                code,
                "the ledger has no such customer or supplier",
                known == null ? "add it to the books" : "create it there, or post with --create-parties"));
    }

    private static Finding lacks(SourceRecord source, String field, String value, String reason) {
        return new Finding(Rule.LEDGER_LACKS, source.origin(), field, value, reason, Rule.LEDGER_LACKS.remedy());
    }

    private static Finding limit(SourceRecord source, String field, String value, String reason) {
        return new Finding(Rule.LEDGER_LIMIT, source.origin(), field, value, reason, Rule.LEDGER_LIMIT.remedy());
    }

    private static void tooLong(
            SourceRecord source, String field, @Nullable String text, int most, Consumer<Finding> findings) {
        if (text != null && text.length() > most) {
            findings.accept(limit(
                    source, field, text, "it has " + text.length() + " characters, and the ledger takes " + most));
        }
    }
}
