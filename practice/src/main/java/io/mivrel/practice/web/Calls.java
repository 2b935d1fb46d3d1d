package io.mivrel.practice.web;

import io.mivrel.books.Party;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.web.WebJson.Malformed;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What the server does for each path; one call at a time, as the books are behind one connection. */
final class Calls {
    /** Entries of a call. */
    static final int MOST_ENTRIES = 500;

    private static final int PAGE = 500;
    private static final int PARTS_OF_BATCH = 3;

    private final PracticeLedger ledger;

    Calls(PracticeLedger ledger) {
        this.ledger = ledger;
    }

    synchronized ObjectNode call(String method, URI uri, byte[] body, boolean onlyHalf)
            throws Malformed, LedgerException {
        String path = uri.getPath().substring("/v1/".length());
        return method.equals("GET") ? get(path, query(uri)) : post(path, WebJson.read(body), onlyHalf);
    }

    private ObjectNode get(String path, Map<String, String> query) throws Malformed, LedgerException {
        return switch (path) {
            case "abilities" -> WebJson.of(ledger.abilities()).put("entriesAtMost", MOST_ENTRIES);
            case "books" -> WebJson.of(ledger.books());
            case "mark" -> WebJson.object().put("mark", ledger.mark());
            case "balances" -> WebJson.list("balances", ledger.balances(day(query)), WebJson::of);
            case "entries" -> entries(query);
            default -> throw new Malformed("there is no such path");
        };
    }

    private static LocalDate day(Map<String, String> query) throws Malformed {
        try {
            return LocalDate.parse(query.getOrDefault("day", ""));
        } catch (DateTimeException e) {
            throw new Malformed("'day' must be a date such as 2027-03-31");
        }
    }

    private static long number(Map<String, String> query, String name) throws Malformed {
        try {
            return Long.parseLong(query.getOrDefault(name, ""));
        } catch (NumberFormatException e) {
            throw new Malformed("'" + name + "' must be a whole number");
        }
    }

    private ObjectNode entries(Map<String, String> query) throws Malformed, LedgerException {
        Ledger.Query wanted = new Ledger.Query(number(query, "since"), query.get("account"), query.get("batch"));
        List<PostedEntry> page = ledger.page(wanted, number(query, "after"), PAGE);
        ObjectNode node = WebJson.list("entries", page, WebJson::of);
        return node.put(
                "next", page.size() < PAGE ? "" : page.get(page.size() - 1).number());
    }

    private ObjectNode post(String path, JsonNode body, boolean onlyHalf) throws Malformed, LedgerException {
        switch (path) {
            case "entries":
                return postEntries(body, onlyHalf);
            case "find":
                List<String> keys = WebJson.texts(body, "keys");
                requireFew(keys);
                return WebJson.list("entries", List.copyOf(ledger.find(keys).values()), WebJson::of);
            case "parties":
                List<Party> parties = new ArrayList<>();
                for (JsonNode one : WebJson.list(body, "parties")) {
                    parties.add(WebJson.party(one));
                }
                ledger.create(parties);
                return WebJson.object();
            default:
                return ofBatch(path.split("/"), body);
        }
    }

    private ObjectNode postEntries(JsonNode body, boolean onlyHalf) throws Malformed, LedgerException {
        List<JsonNode> sent = WebJson.list(body, "entries");
        requireFew(sent);
        List<Entry> entries = new ArrayList<>();
        for (JsonNode one : onlyHalf ? sent.subList(0, sent.size() / 2) : sent) {
            entries.add(WebJson.entry(one));
        }
        Batch batch = WebJson.batch(body);
        PostMode mode = WebJson.word(body, "mode", PostMode.class);
        List<Answer> answers = WebJson.flag(body, "rehearsal")
                ? ledger.rehearse(batch, mode, entries)
                : ledger.post(batch, mode, entries);
        return answers(answers);
    }

    private ObjectNode ofBatch(String[] path, JsonNode body) throws Malformed, LedgerException {
        if (path.length != PARTS_OF_BATCH || !path[0].equals("batches")) {
            throw new Malformed("there is no such path");
        }
        String batch = path[1];
        switch (path[2]) {
            case "final":
                return answers(ledger.makeFinal(batch));
            case "seal":
                ledger.seal(batch);
                return WebJson.object();
            case "withdraw":
                List<String> keys = WebJson.texts(body, "keys");
                requireFew(keys);
                return answers(ledger.withdraw(batch, keys, WebJson.date(body, "day")));
            default:
                throw new Malformed("there is no such path");
        }
    }

    private static ObjectNode answers(List<Answer> answers) {
        return WebJson.list("answers", answers, WebJson::of);
    }

    private static void requireFew(List<?> items) throws Malformed {
        if (items.size() > MOST_ENTRIES) {
            throw new Malformed("a call takes " + MOST_ENTRIES + " entries at most");
        }
    }

    private static Map<String, String> query(URI uri) {
        Map<String, String> values = new HashMap<>();
        String query = uri.getRawQuery();
        for (String part : query == null ? new String[0] : query.split("&")) {
            int equals = part.indexOf('=');
            if (equals > 0) {
                values.put(
                        part.substring(0, equals),
                        URLDecoder.decode(part.substring(equals + 1), StandardCharsets.UTF_8));
            }
        }
        return values;
    }
}
