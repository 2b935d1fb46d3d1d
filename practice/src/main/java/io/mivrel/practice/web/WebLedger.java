package io.mivrel.practice.web;

import dev.failsafe.Failsafe;
import dev.failsafe.FailsafeException;
import dev.failsafe.RetryPolicy;
import io.mivrel.books.Books;
import io.mivrel.books.Party;
import io.mivrel.posting.Abilities;
import io.mivrel.posting.Answer;
import io.mivrel.posting.Balance;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostedEntry;
import io.mivrel.practice.PracticeRefusals;
import io.mivrel.practice.web.WebJson.Malformed;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpConnectTimeoutException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.CertificateFactory;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.TrustManagerFactory;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * A ledger behind the practice ledger's protocol over HTTP. What only asks is asked again by itself, a few times; what changes
 * something is sent once, and who calls decides. An answer counts only when its digest is that of its content.
 */
public final class WebLedger implements Ledger {
    private static final Duration CONNECT = Duration.ofSeconds(10);
    private static final Duration ANSWER = Duration.ofSeconds(60);
    private static final int TOO_MANY = 429;
    private static final int UNAVAILABLE = 503;
    private static final int OK = 200;
    private static final int ERROR = 500;
    private static final int ASKED_AGAIN = 3;

    private final String name;
    private final URI address;
    private final String token;
    private final HttpClient client;
    private final RetryPolicy<JsonNode> askAgain = RetryPolicy.<JsonNode>builder()
            .handleIf(e -> e instanceof LedgerException failed && failed.kind() != LedgerException.Kind.REFUSED)
            .withMaxRetries(ASKED_AGAIN)
            .withBackoff(Duration.ofMillis(50), Duration.ofSeconds(2))
            .withJitter(Duration.ofMillis(20))
            .build();

    /** Nothing is sent until the first call. */
    public WebLedger(String name, WebPlace place) throws LedgerException {
        this.name = name;
        this.token = place.token();
        this.address = address(name, place.address());
        HttpClient.Builder builder = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(CONNECT);
        if (place.certificate() != null) {
            builder.sslContext(trusting(place.certificate()));
        }
        this.client = builder.build();
    }

    private static URI address(String name, String text) throws LedgerException {
        try {
            URI uri = URI.create(text.endsWith("/") ? text : text + "/");
            boolean local = "localhost".equals(uri.getHost()) || "127.0.0.1".equals(uri.getHost());
            if (uri.getHost() != null && ("https".equals(uri.getScheme()) || "http".equals(uri.getScheme()) && local)) {
                return uri;
            }
        } catch (IllegalArgumentException e) {
            // It is told below.
        }
        throw new LedgerException(
                LedgerException.Kind.REFUSED,
                "the address of the ledger '" + name + "' must begin with https://; http:// is for localhost only",
                null);
    }

    private static SSLContext trusting(Path certificate) throws LedgerException {
        try (InputStream in = Files.newInputStream(certificate)) {
            KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
            store.load(null, null);
            int n = 0;
            for (Certificate one : CertificateFactory.getInstance("X.509").generateCertificates(in)) {
                store.setCertificateEntry("stated-" + n++, one);
            }
            if (n == 0) {
                throw new GeneralSecurityException("there is no certificate in it");
            }
            TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
            trust.init(store);
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, trust.getTrustManagers(), null);
            return context;
        } catch (IOException | GeneralSecurityException e) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED,
                    certificate + ": the certificate cannot be used: " + e.getMessage(),
                    e);
        }
    }

    @Override
    public String name() {
        return name;
    }

    /** Makes something of an answer. */
    private interface Reading<T> {
        T read(JsonNode answer) throws Malformed;
    }

    private static <T> T read(JsonNode answer, Reading<T> reading) throws LedgerException {
        try {
            return reading.read(answer);
        } catch (Malformed e) {
            throw new LedgerException(
                    LedgerException.Kind.UNSURE, "the ledger's answer cannot be understood: " + e.getMessage(), e);
        }
    }

    private JsonNode get(String path) throws LedgerException {
        return ask(() -> exchange(request(path).GET(), null));
    }

    private interface Call {
        JsonNode call() throws LedgerException;
    }

    private JsonNode ask(Call call) throws LedgerException {
        try {
            return Failsafe.with(askAgain).get(call::call);
        } catch (FailsafeException e) {
            if (e.getCause() instanceof LedgerException failed) {
                throw failed;
            }
            throw new LedgerException(LedgerException.Kind.BUSY, "interrupted while asking the ledger", e);
        }
    }

    private JsonNode post(String path, ObjectNode body) throws LedgerException {
        byte[] bytes = WebJson.bytes(body);
        HttpRequest.Builder request = request(path)
                .header("Content-Type", "application/json")
                .header("Content-Digest", WebJson.digest(bytes))
                .POST(HttpRequest.BodyPublishers.ofByteArray(bytes));
        return exchange(request, bytes);
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(address.resolve("v1/" + path))
                .timeout(ANSWER)
                .header("Authorization", "Bearer " + token);
    }

    private JsonNode exchange(HttpRequest.Builder request, byte @Nullable [] sent) throws LedgerException {
        String id = Long.toHexString(
                java.util.concurrent.ThreadLocalRandom.current().nextLong());
        HttpResponse<byte[]> response;
        try {
            response =
                    client.send(request.header("Mivrel-Request", id).build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (ConnectException | HttpConnectTimeoutException e) {
            throw failure(LedgerException.Kind.BUSY, "cannot be reached", Duration.ZERO, e);
        } catch (SSLHandshakeException e) {
            throw failure(LedgerException.Kind.REFUSED, "shows a certificate that is not trusted", Duration.ZERO, e);
        } catch (IOException e) {
            // It may have been done before the connection broke.
            throw failure(
                    sent == null ? LedgerException.Kind.BUSY : LedgerException.Kind.UNSURE,
                    "broke off before its answer was complete",
                    Duration.ZERO,
                    e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw failure(LedgerException.Kind.UNSURE, "was left while it was asked", Duration.ZERO, e);
        }
        return answer(response, id, sent);
    }

    private LedgerException failure(LedgerException.Kind kind, String what, Duration pause, @Nullable Throwable cause) {
        return new LedgerException(
                kind, "the ledger '" + name + "' at " + address.getHost() + " " + what, pause, cause);
    }

    private JsonNode answer(HttpResponse<byte[]> response, String id, byte @Nullable [] sent) throws LedgerException {
        int status = response.statusCode();
        if (status == TOO_MANY || status == UNAVAILABLE) {
            throw failure(LedgerException.Kind.BUSY, "asks to wait", pause(response), null);
        }
        byte[] body = response.body();
        boolean whole = response.headers()
                        .firstValue("Content-Digest")
                        .filter(WebJson.digest(body)::equals)
                        .isPresent()
                && response.headers()
                        .firstValue("Mivrel-Request")
                        .filter(id::equals)
                        .isPresent();
        LedgerException.Kind open = sent == null ? LedgerException.Kind.BUSY : LedgerException.Kind.UNSURE;
        if (status >= ERROR || !whole && status == OK) {
            throw failure(
                    open,
                    status >= ERROR ? "failed (" + status + ")" : "gave an answer to something else",
                    Duration.ZERO,
                    null);
        }
        JsonNode node;
        try {
            node = WebJson.read(body);
        } catch (Malformed e) {
            throw failure(status == OK ? open : LedgerException.Kind.REFUSED, "answered " + status, Duration.ZERO, e);
        }
        if (status != OK) {
            JsonNode message = node.get("message");
            throw failure(
                    LedgerException.Kind.REFUSED,
                    "refused the call (" + status + ")"
                            + (message == null || !message.isString() ? "" : ": " + message.stringValue()),
                    Duration.ZERO,
                    null);
        }
        return node;
    }

    private static Duration pause(HttpResponse<byte[]> response) {
        try {
            JsonNode node = WebJson.read(response.body());
            if (node.has("waitMillis")) {
                return Duration.ofMillis(WebJson.number(node, "waitMillis"));
            }
        } catch (Malformed e) {
            // The header says it too.
        }
        return pause(response.headers().firstValue("Retry-After").orElse("1").strip(), Instant.now());
    }

    /** What Retry-After says: seconds or a date (RFC 9110, section 10.2.3); five seconds when it is neither. */
    static Duration pause(String retryAfter, Instant now) {
        try {
            return retryAfter.matches("[0-9]{1,9}")
                    ? Duration.ofSeconds(Long.parseLong(retryAfter))
                    : Duration.between(now, Instant.from(DateTimeFormatter.RFC_1123_DATE_TIME.parse(retryAfter)));
        } catch (DateTimeException neither) {
            return Duration.ofSeconds(5);
        }
    }

    @Override
    public Abilities abilities() throws LedgerException {
        return read(get("abilities"), WebJson::abilities);
    }

    @Override
    public Books books() throws LedgerException {
        return read(get("books"), WebJson::books);
    }

    @Override
    public void create(List<Party> parties) throws LedgerException {
        post("parties", WebJson.list("parties", parties, WebJson::of));
    }

    @Override
    public List<Answer> post(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        return answers(post("entries", posting(batch, mode, entries, false)));
    }

    @Override
    public List<Answer> rehearse(Batch batch, PostMode mode, List<Entry> entries) throws LedgerException {
        return answers(post("entries", posting(batch, mode, entries, true)));
    }

    private static ObjectNode posting(Batch batch, PostMode mode, List<Entry> entries, boolean rehearsal) {
        ObjectNode body = WebJson.list("entries", entries, WebJson::of);
        body.set("batch", WebJson.of(batch));
        return body.put("mode", WebJson.word(mode)).put("rehearsal", rehearsal);
    }

    private static List<Answer> answers(JsonNode node) throws LedgerException {
        return read(node, answer -> {
            List<Answer> answers = new ArrayList<>();
            for (JsonNode one : WebJson.list(answer, "answers")) {
                answers.add(WebJson.answer(one));
            }
            return answers;
        });
    }

    @Override
    public Map<String, PostedEntry> find(Collection<String> keys) throws LedgerException {
        ObjectNode body = keys(keys);
        JsonNode answer = ask(() -> post("find", body));
        return read(answer, node -> {
            Map<String, PostedEntry> found = new HashMap<>();
            for (JsonNode one : WebJson.list(node, "entries")) {
                PostedEntry posted = WebJson.posted(one);
                found.put(posted.entry().key(), posted);
            }
            return found;
        });
    }

    private static ObjectNode keys(Collection<String> keys) {
        ObjectNode body = WebJson.object();
        ArrayNode list = body.putArray("keys");
        keys.forEach(list::add);
        return body;
    }

    @Override
    public List<Answer> makeFinal(String batch) throws LedgerException {
        return answers(post("batches/" + encoded(batch) + "/final", WebJson.object()));
    }

    @Override
    public void seal(String batch) throws LedgerException {
        post("batches/" + encoded(batch) + "/seal", WebJson.object());
    }

    @Override
    public List<Answer> withdraw(String batch, Collection<String> keys, LocalDate day) throws LedgerException {
        return answers(
                post("batches/" + encoded(batch) + "/withdraw", keys(keys).put("day", day.toString())));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    @Override
    public List<Balance> balances(LocalDate day) throws LedgerException {
        LocalDate last = LocalDate.of(9999, 12, 31);
        return read(get("balances?day=" + (day.isAfter(last) ? last : day)), node -> {
            List<Balance> balances = new ArrayList<>();
            for (JsonNode one : WebJson.list(node, "balances")) {
                balances.add(WebJson.balance(one));
            }
            return balances;
        });
    }

    @Override
    public long mark() throws LedgerException {
        return read(get("mark"), node -> WebJson.number(node, "mark"));
    }

    @Override
    public void entries(Query query, Consumer<PostedEntry> target) throws LedgerException {
        String filter = "entries?since=" + query.since()
                + (query.account() == null ? "" : "&account=" + encoded(query.account()))
                + (query.batch() == null ? "" : "&batch=" + encoded(query.batch()));
        // Page by page; the next one begins behind the last number.
        for (String after = "0"; !after.isEmpty(); ) {
            JsonNode page = get(filter + "&after=" + after);
            List<PostedEntry> entries = read(page, node -> {
                List<PostedEntry> all = new ArrayList<>();
                for (JsonNode one : WebJson.list(node, "entries")) {
                    all.add(WebJson.posted(one));
                }
                return all;
            });
            entries.forEach(target);
            after = read(page, node -> WebJson.text(node, "next"));
        }
    }

    @Override
    public @Nullable Plain plain(Answer answer) {
        return PracticeRefusals.plain(answer);
    }

    @Override
    public void close() {
        // The client's threads end by themselves.
    }
}
