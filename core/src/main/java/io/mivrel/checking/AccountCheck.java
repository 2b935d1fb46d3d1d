package io.mivrel.checking;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Nearest;
import io.mivrel.model.BankBatch;
import io.mivrel.model.BankTransaction;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Finding;
import io.mivrel.model.Invoice;
import io.mivrel.model.InvoiceLine;
import io.mivrel.model.InvoiceLines;
import io.mivrel.model.Journal;
import io.mivrel.model.JournalLine;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.SpanMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/** Every account must be in the chart, open, and of a kind that the line may use. */
final class AccountCheck implements Check {
    private static final int RECENT = 256;

    private final Books books;
    private final SpanMap<Account> accounts;
    private final String[] knownOpen = new String[RECENT];
    private final Map<String, String> suggestions = new HashMap<>();

    AccountCheck(Books books) {
        this.books = books;
        this.accounts =
                new SpanMap<>(books.accounts().stream().collect(Collectors.toMap(Account::code, account -> account)));
    }

    @Override
    public void passes(DocumentBlock batch, boolean[] marked) {
        for (int i = 0; i < batch.size(); i++) {
            marked[i] = marked[i]
                    && (batch instanceof BankBatch lines
                            ? passes(lines.coding(i).account())
                            : allOpen(batch.records(), batch.from(i), batch.to(i)));
        }
    }

    private boolean passes(String code) {
        if (code == null) {
            return true;
        }
        // The codes of a coding table are always the same few strings.
        int place = code.hashCode() & RECENT - 1;
        if (knownOpen[place] == code) {
            return true;
        }
        boolean open = isOpen(books.account(code));
        knownOpen[place] = open ? code : null;
        return open;
    }

    @Override
    public boolean passes(Document document) {
        if (document instanceof BankTransaction transaction) {
            return passes(transaction.coding().account());
        }
        return document instanceof Journal journal
                && journal.asRead() != null
                && allOpen(
                        journal.asRead().batch(),
                        journal.asRead().from(),
                        journal.asRead().to());
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        if (document instanceof Invoice invoice) {
            for (InvoiceLine line : invoice.lines()) {
                SourceRecord source = line.source();
                Account account = check(source.text(InvoiceLines.ACCOUNT), source, findings);
                if (account != null) {
                    suitable(invoice, account, source, findings);
                }
            }
        } else if (document instanceof BankTransaction transaction) {
            if (transaction.coding().account() != null) {
                check(transaction.coding().account(), transaction.record(), findings);
            }
        } else if (document instanceof Journal journal) {
            for (JournalLine line : journal.lines()) {
                check(line.account(), line.source(), findings);
            }
        }
    }

    private boolean allOpen(RecordBlock batch, int from, int to) {
        for (int i = from; i < to; i++) {
            int start = batch.textStart(JournalLines.ACCOUNT, i);
            if (!isOpen(accounts.get(batch.textBytes(), start, batch.textEnd(JournalLines.ACCOUNT, i)))) {
                return false;
            }
        }
        return true;
    }

    private static boolean isOpen(Account account) {
        return account != null && account.status() == AccountStatus.OPEN;
    }

    private Account check(String code, SourceRecord line, Consumer<Finding> findings) {
        Account account = books.account(code);
        if (account == null) {
            findings.accept(new Finding(
                    Rule.ACCOUNT_UNKNOWN, line.origin(), "account", code, "is not in the chart", suggestion(code)));
        } else if (account.status() == AccountStatus.CLOSED) {
            findings.accept(new Finding(
                    Rule.ACCOUNT_CLOSED,
                    line.origin(),
                    "account",
                    code,
                    account.name() + " is closed to posting",
                    sameType(account)));
        } else if (account.status() == AccountStatus.RESERVED) {
            findings.accept(new Finding(
                    Rule.ACCOUNT_RESERVED,
                    line.origin(),
                    "account",
                    code,
                    account.name() + " is written by the receiver only",
                    "use a clearing account, or bring in the document itself"));
        } else {
            return account;
        }
        return null;
    }

    private static void suitable(Invoice invoice, Account account, SourceRecord line, Consumer<Finding> findings) {
        boolean control = account.holdsMoney()
                || account.use() == AccountUse.RECEIVABLES
                || account.use() == AccountUse.PAYABLES
                || account.use() == AccountUse.TAX;
        boolean wrongSide = invoice.kind().isSale() && account.type() == AccountType.EXPENSE
                || !invoice.kind().isSale() && account.type() == AccountType.INCOME;
        if (control || wrongSide) {
            String kind = control ? account.use().word() : account.type().word();
            findings.accept(new Finding(
                    Rule.ACCOUNT_UNSUITABLE,
                    line.origin(),
                    "account",
                    account.code(),
                    account.name() + " is of kind '" + kind + "', not for a line of this "
                            + invoice.kind().word(),
                    "use an account of type " + (invoice.kind().isSale() ? "income" : "expense or asset")));
        }
    }

    // Unknown codes tend to come back; working out what is near costs more than remembering it.
    private String suggestion(String code) {
        if (suggestions.size() > 10_000) {
            suggestions.clear();
        }
        return suggestions.computeIfAbsent(code, c -> {
            List<String> near = Nearest.to(c, books.accountCodes(), 3);
            return near.isEmpty()
                    ? "add it to chart.csv, or correct it"
                    : "was " + near.stream().map(n -> books.account(n).label()).collect(Collectors.joining(", or "))
                            + " meant?";
        });
    }

    private String sameType(Account closed) {
        return books.accounts().stream()
                .filter(a -> a.type() == closed.type() && a.use() == closed.use() && a.status() == AccountStatus.OPEN)
                .filter(a -> sharesWord(a.name(), closed.name()))
                .findFirst()
                .map(a -> "use " + a.label() + " instead?")
                .orElse("use the account that took its place");
    }

    private static boolean sharesWord(String a, String b) {
        List<String> words = List.of(a.toLowerCase(Locale.ROOT).split("\\W+"));
        for (String word : b.toLowerCase(Locale.ROOT).split("\\W+")) {
            if (word.length() > 3 && words.contains(word)) {
                return true;
            }
        }
        return false;
    }
}
