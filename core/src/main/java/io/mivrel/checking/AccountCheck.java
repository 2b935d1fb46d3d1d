package io.mivrel.checking;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.model.Coding;
import io.mivrel.model.Document;
import io.mivrel.model.DocumentBlock;
import io.mivrel.model.Field;
import io.mivrel.model.Finding;
import io.mivrel.model.Line;
import io.mivrel.model.Posting;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.SourceRecord;
import io.mivrel.text.Nearest;
import io.mivrel.text.SpanMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Every account must be in the chart and open; on the control account of customers or suppliers a line names one. */
final class AccountCheck implements Check {
    private static final int RECENT = 256;

    private final Books books;
    private final SpanMap<Account> accounts;
    /** Codes of open accounts of which no line need name a party. */
    private final String[] knownPlain = new String[RECENT];

    private final Map<String, String> suggestions = new HashMap<>();

    private final Set<String> partiesMissing;

    AccountCheck(Books books, Set<String> partiesMissing) {
        this.books = books;
        this.partiesMissing = partiesMissing;
        this.accounts =
                new SpanMap<>(books.accounts().stream().collect(Collectors.toMap(Account::code, account -> account)));
    }

    @Override
    public Columns columns() {
        return this::unmark;
    }

    private void unmark(DocumentBlock documents, boolean[] marked) {
        Field account = documents.kind().account();
        if (account == null) {
            return;
        }
        for (int i = 0; i < documents.size(); i++) {
            for (int at = documents.from(i); marked[i] && at < documents.to(i); at++) {
                Coding coding = documents.coding(at);
                marked[i] = coding != null
                        ? isPosted(coding.posting())
                        : isBlankOrOpen(
                                documents.records(), account, documents.kind().party(), at);
            }
        }
    }

    private boolean isPosted(Posting posting) {
        String code = posting.account();
        if (code == null) {
            return true;
        }
        // The codes of a coding table are always the same few strings.
        int place = code.hashCode() & RECENT - 1;
        if (knownPlain[place] == code) {
            return true;
        }
        boolean open = isOpen(books.account(code));
        boolean control = isControl(code);
        knownPlain[place] = open && !control ? code : null;
        return open && (!control || posting.party() != null);
    }

    private boolean isBlankOrOpen(RecordBlock records, Field account, @Nullable Field party, int at) {
        int start = records.textStart(account, at);
        int end = records.textEnd(account, at);
        Account found = start == end ? null : accounts.get(records.textBytes(), start, end);
        if (start == end || !isOpen(found)) {
            return start == end;
        }
        return found == null
                || !found.isControl()
                || party != null && records.textStart(party, at) < records.textEnd(party, at)
                || partiesMissing.contains(records.source().name());
    }

    private boolean isControl(@Nullable String code) {
        Account account = code == null ? null : books.account(code);
        return account != null && account.isControl();
    }

    @Override
    public void check(Document document, Consumer<Finding> findings) {
        Field party = document.kind().party();
        boolean onHeading = party != null
                && party.level().depth() < document.kind().amount().level().depth();
        for (Line line : document.lines()) {
            String code = line.account();
            if (code != null) {
                check(code, line.source(), findings);
                String named = onHeading ? document.heading().party() : line.party();
                if (isControl(code)
                        && named == null
                        && !partiesMissing.contains(line.source().file())) {
                    lacksParty(code, line.source(), findings);
                }
            }
        }
    }

    private void lacksParty(String code, SourceRecord line, Consumer<Finding> findings) {
        Account account = books.account(code);
        if (account != null && account.status() == AccountStatus.OPEN) {
            String of = account.use() == AccountUse.RECEIVABLES ? "customers" : "suppliers";
            findings.accept(new Finding(
                    Rule.PARTY_MISSING,
                    line.origin(),
                    "account",
                    code,
                    account.name() + " is the control account of the " + of + ", and the line names none of them",
                    Rule.PARTY_MISSING.remedy()));
        }
    }

    private static boolean isOpen(@Nullable Account account) {
        return account != null && account.status() == AccountStatus.OPEN;
    }

    private void check(String code, SourceRecord line, Consumer<Finding> findings) {
        @Nullable Account account = books.account(code);
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
                    : "was "
                            + near.stream()
                                    .map(books::account)
                                    .filter(Objects::nonNull)
                                    .map(Account::label)
                                    .collect(Collectors.joining(", or "))
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
