package io.mivrel.practice.web;

import io.mivrel.books.Account;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.books.Period;
import io.mivrel.books.TaxCode;
import io.mivrel.money.Money;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.PostedEntry;
import io.mivrel.posting.Standing;
import java.math.BigDecimal;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * What client and server say to one another, as JSON. Amounts are whole minor units, debit positive. Reading throws {@link
 * Malformed} for whatever is not as it must be.
 */
final class WebJson {
    private static final int MOST_DEPTH = 20;
    private static final int MOST_TEXT = 100_000;
    /** Each costs memory many times its length in the body. */
    private static final int MOST_TOKENS = 1_000_000;

    private static final JsonMapper MAPPER = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(MOST_DEPTH)
                            .maxStringLength(MOST_TEXT)
                            .maxNumberLength(20)
                            .maxTokenCount(MOST_TOKENS)
                            .build())
                    .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                    .build())
            .build();

    private WebJson() {}

    /** Not what was agreed. */
    static final class Malformed extends Exception {
        private static final long serialVersionUID = 1L;

        Malformed(String message) {
            super(message);
        }
    }

    static ObjectNode object() {
        return MAPPER.createObjectNode();
    }

    static byte[] bytes(JsonNode node) {
        return MAPPER.writeValueAsBytes(node);
    }

    static JsonNode read(byte[] body) throws Malformed {
        try {
            JsonNode node = MAPPER.readTree(body);
            if (node == null || !node.isObject()) {
                throw new Malformed("the body is not a JSON object");
            }
            return node;
        } catch (RuntimeException e) {
            throw new Malformed("the body is not JSON");
        }
    }

    /** The digest of a body, as RFC 9530 writes it. */
    static String digest(byte[] body) {
        try {
            byte[] sum = MessageDigest.getInstance("SHA-256").digest(body);
            return "sha-256=:" + Base64.getEncoder().encodeToString(sum) + ":";
        } catch (NoSuchAlgorithmException everyJavaHasIt) {
            throw new IllegalStateException(everyJavaHasIt);
        }
    }

    static String text(JsonNode node, String name) throws Malformed {
        JsonNode value = node.get(name);
        if (value == null || !value.isString()) {
            throw new Malformed("'" + name + "' must be a text");
        }
        return value.stringValue();
    }

    static @Nullable String textOrNull(JsonNode node, String name) throws Malformed {
        JsonNode value = node.get(name);
        return value == null || value.isNull() ? null : text(node, name);
    }

    static long number(JsonNode node, String name) throws Malformed {
        JsonNode value = node.get(name);
        if (value == null || !value.isIntegralNumber() || !value.canConvertToLong()) {
            throw new Malformed("'" + name + "' must be a whole number");
        }
        return value.longValue();
    }

    static boolean flag(JsonNode node, String name) throws Malformed {
        JsonNode value = node.get(name);
        if (value == null || !value.isBoolean()) {
            throw new Malformed("'" + name + "' must be true or false");
        }
        return value.booleanValue();
    }

    static List<JsonNode> list(JsonNode node, String name) throws Malformed {
        JsonNode value = node.get(name);
        if (value == null || !value.isArray()) {
            throw new Malformed("'" + name + "' must be a list");
        }
        List<JsonNode> items = new ArrayList<>(value.size());
        value.forEach(items::add);
        return items;
    }

    static List<String> texts(JsonNode node, String name) throws Malformed {
        List<String> texts = new ArrayList<>();
        for (JsonNode item : list(node, name)) {
            if (!item.isString()) {
                throw new Malformed("'" + name + "' must be a list of texts");
            }
            texts.add(item.stringValue());
        }
        return texts;
    }

    private static Set<String> kinds(JsonNode node) throws Malformed {
        return node.has("kinds") ? Set.copyOf(texts(node, "kinds")) : Set.of();
    }

    static LocalDate date(JsonNode node, String name) throws Malformed {
        try {
            return LocalDate.parse(text(node, name));
        } catch (java.time.DateTimeException e) {
            throw new Malformed("'" + name + "' must be a date such as 2027-03-31");
        }
    }

    private static Currency currency(JsonNode node, String name) throws Malformed {
        try {
            return Currency.getInstance(text(node, name));
        } catch (IllegalArgumentException e) {
            throw new Malformed("'" + name + "' must be a currency of ISO 4217");
        }
    }

    static <T extends Enum<T>> T word(JsonNode node, String name, Class<T> of) throws Malformed {
        try {
            return Enum.valueOf(of, text(node, name).toUpperCase(Locale.ROOT).replace('-', '_'));
        } catch (IllegalArgumentException e) {
            throw new Malformed("'" + name + "' is none of the words allowed");
        }
    }

    static String word(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    static <T> ObjectNode list(String name, List<T> items, Function<T, ObjectNode> writer) {
        ObjectNode node = object();
        ArrayNode array = node.putArray(name);
        items.forEach(item -> array.add(writer.apply(item)));
        return node;
    }

    static ObjectNode of(Batch batch) {
        return object().put("key", batch.key())
                .put("name", batch.name())
                .put("day", batch.day().toString())
                .put("standing", word(batch.standing()));
    }

    static Batch batch(JsonNode node) throws Malformed {
        JsonNode batch = node.get("batch");
        if (batch == null || !batch.isObject()) {
            throw new Malformed("'batch' must be an object");
        }
        Standing standing = word(batch, "standing", Standing.class);
        if (!standing.isLive()) {
            throw new Malformed("'standing' is draft or final");
        }
        return new Batch(text(batch, "key"), text(batch, "name"), date(batch, "day"), standing);
    }

    static ObjectNode of(Entry entry) {
        ObjectNode node = object().put("key", entry.key())
                .put("kind", entry.kind())
                .put("reference", entry.reference())
                .put("date", entry.date().toString())
                .put("currency", entry.currency().getCurrencyCode())
                .put("narrative", entry.narrative())
                .put("digest", entry.digest());
        ArrayNode lines = node.putArray("lines");
        for (EntryLine line : entry.lines()) {
            ObjectNode one = object().put("account", line.account()).put("amount", line.minor());
            if (!line.narrative().isEmpty()) {
                one.put("narrative", line.narrative());
            }
            if (line.taxCode() != null) {
                one.put("taxCode", line.taxCode());
            }
            if (line.party() != null) {
                one.put("party", line.party());
            }
            Money foreign = line.foreign();
            if (foreign != null) {
                one.put("foreignCurrency", foreign.currency().getCurrencyCode());
                one.put("foreignAmount", foreign.minor());
            }
            if (!line.dimensions().isEmpty()) {
                ObjectNode dimensions = one.putObject("dimensions");
                line.dimensions().forEach(dimensions::put);
            }
            lines.add(one);
        }
        return node;
    }

    static Entry entry(JsonNode node) throws Malformed {
        List<EntryLine> lines = new ArrayList<>();
        for (JsonNode line : list(node, "lines")) {
            lines.add(line(line));
        }
        return new Entry(
                text(node, "key"),
                text(node, "kind"),
                text(node, "reference"),
                date(node, "date"),
                currency(node, "currency"),
                text(node, "narrative"),
                lines,
                text(node, "digest"));
    }

    private static EntryLine line(JsonNode line) throws Malformed {
        Map<String, String> dimensions = new TreeMap<>();
        JsonNode codes = line.get("dimensions");
        if (codes != null) {
            for (String name : codes.propertyNames()) {
                dimensions.put(name, text(codes, name));
            }
        }
        String narrative = textOrNull(line, "narrative");
        return new EntryLine(
                text(line, "account"),
                number(line, "amount"),
                narrative == null ? "" : narrative,
                textOrNull(line, "taxCode"),
                textOrNull(line, "party"),
                line.has("foreignCurrency")
                        ? new Money(number(line, "foreignAmount"), currency(line, "foreignCurrency"))
                        : null,
                dimensions);
    }

    static ObjectNode of(PostedEntry posted) {
        ObjectNode node = object();
        node.set("entry", of(posted.entry()));
        node.put("number", posted.number()).put("standing", word(posted.standing()));
        node.put("recorded", posted.recorded()).put("removed", posted.removed());
        if (posted.batch() != null) {
            node.put("batch", posted.batch());
        }
        if (posted.reverses() != null) {
            node.put("reverses", posted.reverses());
        }
        return node;
    }

    static PostedEntry posted(JsonNode node) throws Malformed {
        JsonNode entry = node.get("entry");
        if (entry == null) {
            throw new Malformed("'entry' is missing");
        }
        Entry read = entry(entry);
        if (!read.isWhole()) {
            throw new Malformed("an entry is not that of its digest");
        }
        return new PostedEntry(
                read,
                text(node, "number"),
                textOrNull(node, "batch"),
                word(node, "standing", Standing.class),
                number(node, "recorded"),
                number(node, "removed"),
                textOrNull(node, "reverses"));
    }

    static ObjectNode of(Answer answer) {
        ObjectNode node = object().put("key", answer.key()).put("result", word(answer.result()));
        if (answer.number() != null) {
            node.put("number", answer.number());
        }
        if (answer.code() != null) {
            node.put("code", answer.code()).put("words", answer.words()).put("line", answer.line());
        }
        return node;
    }

    static Answer answer(JsonNode node) throws Malformed {
        boolean refused = node.has("code");
        return new Answer(
                text(node, "key"),
                word(node, "result", Answer.Result.class),
                textOrNull(node, "number"),
                textOrNull(node, "code"),
                refused ? textOrNull(node, "words") : null,
                refused ? (int) number(node, "line") : 0);
    }

    static ObjectNode of(Balance balance) {
        return object().put("account", balance.account())
                .put("currency", balance.posted().currency().getCurrencyCode())
                .put("posted", balance.posted().minor())
                .put("drafts", balance.drafts().minor());
    }

    static Balance balance(JsonNode node) throws Malformed {
        Currency currency = currency(node, "currency");
        return new Balance(
                text(node, "account"),
                new Money(number(node, "posted"), currency),
                new Money(number(node, "drafts"), currency));
    }

    static ObjectNode of(Abilities a) {
        ObjectNode node = object().put("drafts", a.drafts())
                .put("finals", a.finals())
                .put("replaces", a.replaces())
                .put("withdraws", a.withdraws())
                .put("rehearses", a.rehearses())
                .put("createsParties", a.createsParties())
                .put("entriesAtMost", a.entriesAtMost())
                .put("linesAtMost", a.linesAtMost())
                .put("textAtMost", a.textAtMost())
                .put("referenceAtMost", a.referenceAtMost());
        ArrayNode kinds = node.putArray("kinds");
        a.kinds().forEach(kinds::add);
        return node;
    }

    static Abilities abilities(JsonNode node) throws Malformed {
        return new Abilities(
                flag(node, "drafts"),
                flag(node, "finals"),
                flag(node, "replaces"),
                flag(node, "withdraws"),
                flag(node, "rehearses"),
                flag(node, "createsParties"),
                kinds(node),
                (int) number(node, "entriesAtMost"),
                (int) number(node, "linesAtMost"),
                (int) number(node, "textAtMost"),
                (int) number(node, "referenceAtMost"));
    }

    static ObjectNode of(Party party) {
        return object().put("code", party.code()).put("name", party.name()).put("customer", party.isCustomer());
    }

    static Party party(JsonNode node) throws Malformed {
        return new Party(text(node, "code"), text(node, "name"), flag(node, "customer"));
    }

    static ObjectNode of(Books books) {
        ObjectNode node = object().put("company", books.company())
                .put("currency", books.currency().getCurrencyCode());
        ArrayNode accounts = node.putArray("accounts");
        for (Account a : books.accounts()) {
            ObjectNode one = object().put("code", a.code())
                    .put("name", a.name())
                    .put("type", word(a.type()))
                    .put("use", word(a.use()))
                    .put("status", word(a.status()));
            one.put("taxCode", a.taxCode()).put("currency", a.currency());
            ArrayNode numbers = one.putArray("numbers");
            a.numbers().forEach(numbers::add);
            accounts.add(one);
        }
        ArrayNode taxCodes = node.putArray("taxCodes");
        for (String code : books.taxCodeCodes()) {
            TaxCode tax = books.taxCode(code);
            if (tax != null) {
                taxCodes.add(object().put("code", code)
                        .put("name", tax.name())
                        .put("rate", tax.rate().toPlainString())
                        .put("account", tax.account()));
            }
        }
        ArrayNode parties = node.putArray("parties");
        for (String code : books.partyCodes()) {
            Party party = books.party(code);
            if (party != null) {
                parties.add(of(party));
            }
        }
        ArrayNode periods = node.putArray("periods");
        for (Period period : books.periods()) {
            periods.add(object().put("from", period.from().toString())
                    .put("to", period.to().toString())
                    .put("open", period.isOpen()));
        }
        return node;
    }

    static Books books(JsonNode node) throws Malformed {
        Books.Builder books = Books.named(text(node, "company"), currency(node, "currency"));
        for (JsonNode a : list(node, "accounts")) {
            books.account(new Account(
                    text(a, "code"),
                    text(a, "name"),
                    word(a, "type", AccountType.class),
                    word(a, "use", AccountUse.class),
                    word(a, "status", AccountStatus.class),
                    textOrNull(a, "taxCode"),
                    texts(a, "numbers"),
                    textOrNull(a, "currency")));
        }
        for (JsonNode t : list(node, "taxCodes")) {
            try {
                BigDecimal rate = new BigDecimal(text(t, "rate"));
                books.taxCode(new TaxCode(text(t, "code"), text(t, "name"), rate, textOrNull(t, "account")));
            } catch (NumberFormatException e) {
                throw new Malformed("'rate' must be a number");
            }
        }
        for (JsonNode p : list(node, "parties")) {
            books.party(party(p));
        }
        for (JsonNode p : list(node, "periods")) {
            books.period(new Period(date(p, "from"), date(p, "to"), flag(p, "open")));
        }
        return books.build();
    }
}
