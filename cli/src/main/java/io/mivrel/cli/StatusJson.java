package io.mivrel.cli;

import io.mivrel.Company.AccountStatus;
import io.mivrel.Company.CompanyStatus;
import io.mivrel.Company.SheetStatus;
import io.mivrel.LedgerPosting;
import io.mivrel.money.Money;
import io.mivrel.posting.Answer;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.report.JsonText;
import java.math.BigDecimal;
import java.util.Currency;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Where everything stands, told to machines: format {@code mivrel-status} version 1. Days are ISO 8601, amounts strings with all
 * decimals of their currency.
 */
final class StatusJson {
    private StatusJson() {}

    /** Of a company folder. */
    static String of(CompanyStatus status) {
        Map<String, Object> all = begin(status.company(), status.isOpen() ? 1 : 0);
        all.put("accounts", status.accounts().stream().map(StatusJson::account).toList());
        all.put("runSheets", status.sheets().stream().map(StatusJson::sheet).toList());
        all.put("corrections", status.copies());
        all.put(
                "dropped",
                status.dropped().stream().map(f -> f.getFileName().toString()).toList());
        return JsonText.of(all);
    }

    private static Map<String, Object> begin(String company, int status) {
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("format", "mivrel-status");
        all.put("version", 1);
        all.put("status", status);
        all.put("company", company);
        return all;
    }

    private static Map<String, Object> account(AccountStatus account) {
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("account", account.code());
        one.put("name", account.name());
        one.put("from", account.from().from());
        one.put("to", account.to().to());
        one.put("currency", account.currency());
        Currency currency = Currency.getInstance(account.currency());
        one.put("closing", account.closing() == null ? null : amount(account.closing(), currency));
        one.put("missing", account.missing());
        return one;
    }

    private static String amount(long minor, Currency currency) {
        return BigDecimal.valueOf(minor, Money.decimals(currency)).toPlainString();
    }

    private static Map<String, Object> sheet(SheetStatus sheet) {
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("runSheet", sheet.sheet());
        one.put("month", sheet.month());
        one.put("held", sheet.held());
        one.put("waiting", sheet.waiting());
        one.put("transfers", sheet.transfers());
        one.put("trouble", sheet.trouble());
        return one;
    }

    /** Of what was sent to a ledger. */
    static String of(String company, String ledger, List<LedgerPosting.Status> batches, int status) {
        Map<String, Object> all = begin(company, status);
        all.put("ledger", ledger);
        all.put("batches", batches.stream().map(StatusJson::batch).toList());
        return JsonText.of(all);
    }

    private static Map<String, Object> batch(LedgerPosting.Status status) {
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("batch", status.batch().batch().name());
        one.put("run", status.batch().run());
        one.put("began", status.batch().began());
        one.put("standing", status.batch().batch().standing().word());
        one.put("state", status.batch().state().name().toLowerCase(Locale.ROOT));
        Map<String, Object> counts = new LinkedHashMap<>();
        status.counts().forEach((state, count) -> counts.put(state.word(), count));
        one.put("documents", counts);
        one.put("open", status.open());
        one.put("listed", status.documents().stream().map(StatusJson::document).toList());
        return one;
    }

    private static Map<String, Object> document(Sent sent) {
        Answer answer = sent.answer();
        Map<String, Object> one = new LinkedHashMap<>();
        one.put("key", sent.key());
        one.put("reference", sent.reference());
        one.put("day", sent.day());
        one.put("amount", amount(sent.amount().minor(), sent.amount().currency()));
        one.put("currency", sent.amount().currency().getCurrencyCode());
        one.put("file", sent.file());
        one.put("row", sent.row());
        one.put("state", sent.state().word());
        one.put("code", answer == null || answer.code() == null ? "" : answer.code());
        one.put("words", answer == null || answer.words() == null ? "" : answer.words());
        return one;
    }
}
