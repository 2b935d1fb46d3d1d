package io.mivrel.report;

import io.mivrel.model.Finding;
import io.mivrel.money.Money;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.PostingReport;
import io.mivrel.posting.Proof;
import io.mivrel.run.RunReport;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Posting and proof told to machines. Formats {@code mivrel-posting} and {@code mivrel-proof} version 1. Amounts are strings
 * with all decimals, debit positive.
 */
public final class PostingJson {
    private PostingJson() {}

    /** What came of posting. */
    public static String of(
            RunReport report,
            PostingReport posting,
            @Nullable Proof proof,
            String ledger,
            @Nullable String evidence,
            int status) {
        return OutcomeJson.text(json -> {
            json.writeStartObject();
            json.writeStringProperty("format", "mivrel-posting");
            json.writeNumberProperty("version", 1);
            json.writeNumberProperty("status", status);
            json.writeStringProperty("company", report.company());
            json.writeStringProperty("run", report.name());
            json.writeStringProperty("ledger", ledger);
            json.writeStringProperty(
                    "batch", posting.sent() == 0 ? "" : posting.batch().name());
            json.writeStringProperty("standing", posting.batch().standing().word());
            json.writeStringProperty("mode", posting.mode().words());
            json.writeBooleanProperty("rehearsal", posting.isRehearsal());
            json.writeNumberProperty("clear", report.clear().documents());
            json.writeNumberProperty("heldBefore", report.held().documents());
            json.writeNumberProperty("posted", posting.posted());
            for (Result result : List.of(
                    Result.ADDED, Result.REPLACED, Result.THERE, Result.SKIPPED, Result.DIFFERS, Result.REFUSED)) {
                json.writeNumberProperty(result.name().toLowerCase(Locale.ROOT), posting.count(result));
            }
            json.writeNumberProperty("postedBefore", posting.postedBefore());
            json.writeNumberProperty("beyondPilot", posting.beyondPilot());
            if (evidence != null) {
                json.writeStringProperty("evidence", evidence);
            }
            json.writeArrayPropertyStart("notTaken");
            for (PostingReport.NotTaken one : posting.notTaken()) {
                notTaken(json, one);
            }
            json.writeEndArray();
            if (proof != null) {
                json.writeName("proof");
                proof(json, proof);
            }
            json.writeEndObject();
        });
    }

    private static void notTaken(JsonGenerator json, PostingReport.NotTaken one) {
        Finding finding = PostingText.finding(one);
        json.writeStartObject();
        json.writeStringProperty("key", one.sent().entry().key());
        json.writeStringProperty("reference", one.sent().entry().reference());
        json.writeStringProperty("result", one.answer().result().name().toLowerCase(Locale.ROOT));
        json.writeStringProperty("file", one.sent().file());
        json.writeNumberProperty("row", one.sent().row());
        json.writeStringProperty(
                "code", one.answer().code() == null ? "" : one.answer().code());
        json.writeStringProperty("reason", finding.reason());
        json.writeStringProperty("suggestion", finding.suggestion());
        json.writeEndObject();
    }

    /** Proofs of several batches. */
    public static String of(List<Proof> proofs, String ledger, String company) {
        return OutcomeJson.text(json -> {
            json.writeStartObject();
            json.writeStringProperty("format", "mivrel-proof");
            json.writeNumberProperty("version", 1);
            json.writeStringProperty("company", company);
            json.writeStringProperty("ledger", ledger);
            json.writeArrayPropertyStart("proofs");
            proofs.forEach(proof -> proof(json, proof));
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    private static void references(JsonGenerator json, Proof.References r) {
        json.writeNumberProperty("posted", r.posted());
        json.writeNumberProperty("there", r.there());
        json.writeNumberProperty("missing", r.missing());
        json.writeNumberProperty("changed", r.changed());
        json.writeNumberProperty("doubled", r.doubled());
        json.writeNumberProperty("foreign", r.foreign());
    }

    private static void proof(JsonGenerator json, Proof proof) {
        json.writeStartObject();
        json.writeStringProperty("batch", proof.batch().batch().name());
        json.writeBooleanProperty("holds", proof.holds());
        json.writeArrayPropertyStart("but");
        proof.but().forEach(json::writeString);
        json.writeEndArray();
        references(json, proof.references());
        json.writeArrayPropertyStart("accounts");
        for (Proof.AccountLine line : proof.accounts()) {
            Currency currency = Currency.getInstance(line.place().currency());
            json.writeStartObject();
            json.writeStringProperty("account", line.place().account());
            json.writeStringProperty("currency", line.place().currency());
            amount(json, "before", line.before(), currency);
            amount(json, "sent", line.sent(), currency);
            amount(json, "landed", line.landed(), currency);
            amount(json, "others", line.others(), currency);
            amount(json, "after", line.after(), currency);
            json.writeBooleanProperty("holds", line.holds());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("differences");
        for (Proof.Difference difference : proof.differences()) {
            json.writeStartObject();
            json.writeStringProperty("what", difference.what());
            json.writeStringProperty("at", difference.at());
            json.writeStringProperty("likely", difference.likely());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("statements");
        for (Proof.ClosingLine line : proof.closings()) {
            Currency currency = line.closing().balance().currency();
            json.writeStartObject();
            json.writeStringProperty("account", line.closing().account());
            json.writeStringProperty("file", line.closing().file());
            json.writeStringProperty("day", line.closing().day().toString());
            amount(json, "statement", line.closing().balance().minor(), currency);
            amount(json, "ledger", line.ledger().minor(), currency);
            amount(json, "earlier", line.earlier().minor(), currency);
            amount(json, "notPosted", line.notPosted().minor(), currency);
            amount(json, "others", line.others().minor(), currency);
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("notNil");
        for (Proof.OpenAccount open : proof.open()) {
            json.writeStartObject();
            json.writeStringProperty("account", open.account().code());
            amount(json, "left", open.left().minor(), open.left().currency());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void amount(JsonGenerator json, String name, long minor, Currency currency) {
        json.writeStringProperty(
                name,
                java.math.BigDecimal.valueOf(minor, Money.decimals(currency)).toPlainString());
    }
}
