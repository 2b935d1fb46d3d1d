package io.mivrel.practice.web;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import io.mivrel.posting.LedgerException;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.web.Misbehaviour.Fault;
import io.mivrel.practice.web.WebJson.Malformed;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Semaphore;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.node.ObjectNode;

/**
 * Gives a practice ledger over HTTP, for practice and tests. It listens on this machine only unless it is told otherwise, asks
 * each caller for the token before it reads a body, and takes no larger body than {@value #MOST_BYTES} bytes, within {@value
 * #MOST_SECONDS} seconds. It can be told to misbehave.
 */
public final class PracticeServer implements AutoCloseable {
    /** The largest body that is taken. */
    public static final int MOST_BYTES = 16 << 20;

    /** A request that is not there whole by then is given up. */
    public static final int MOST_SECONDS = 15;

    // Looked at once, when the server's classes are loaded.
    static {
        System.setProperty("sun.net.httpserver.maxReqTime", Integer.toString(MOST_SECONDS));
    }

    /** Callers that are slow, or that send nothing, each hold a thread until their time is over. */
    private static final int THREADS = 512;

    /** Bodies that are held in memory at a time. */
    private static final int BODIES = 4;

    private static final int UNAUTHORIZED = 401;
    private static final int BAD = 400;
    private static final int TOO_LARGE = 413;
    private static final int TOO_MANY = 429;
    private static final int OK = 200;
    private static final int FAILED = 500;
    private static final int SHORT_WAIT = 40;

    private final PracticeLedger ledger;
    private final Settings settings;
    private final Calls calls;
    private HttpServer server;
    private ExecutorService threads;
    private final Semaphore bodies = new Semaphore(BODIES);
    private byte[] lastAnswer = {'{', '}'};
    private int faults;

    /**
     * How it is served.
     *
     * @param address the address to listen on; {@code null} for this machine only
     * @param port 0 for any that is free
     * @param token that callers must show
     * @param keys PKCS 12 file with key and certificate, for HTTPS; {@code null} for HTTP
     * @param password of that file; {@code null} for none
     */
    public record Settings(
            @Nullable String address,
            int port,
            String token,
            @Nullable Path keys,
            char @Nullable [] password,
            Misbehaviour misbehaviour) {
        public static Settings local(int port, String token) {
            return new Settings(null, port, token, null, null, Misbehaviour.none());
        }

        public Settings misbehaving(Misbehaviour other) {
            return new Settings(address, port, token, keys, password, other);
        }

        @Override
        public String toString() {
            return "port " + port;
        }
    }

    private PracticeServer(PracticeLedger ledger, Settings settings) throws IOException {
        if (settings.token().isBlank()) {
            throw new IOException("a server without a token would let everybody in");
        }
        this.ledger = ledger;
        this.settings = settings;
        this.calls = new Calls(ledger);
        this.threads = new ThreadPoolExecutor(0, THREADS, MOST_SECONDS, TimeUnit.SECONDS, new SynchronousQueue<>());
        this.server = listen(settings.port());
    }

    /** Starts to serve; the caller closes the ledger after the server. */
    public static PracticeServer start(PracticeLedger ledger, Settings settings) throws IOException {
        return new PracticeServer(ledger, settings);
    }

    private HttpServer listen(int port) throws IOException {
        InetAddress on = settings.address() == null
                ? InetAddress.getLoopbackAddress()
                : InetAddress.getByName(settings.address());
        InetSocketAddress socket = new InetSocketAddress(on, port);
        HttpServer made;
        if (settings.keys() == null) {
            made = HttpServer.create(socket, 0);
        } else {
            HttpsServer secure = HttpsServer.create(socket, 0);
            secure.setHttpsConfigurator(new HttpsConfigurator(context(settings.keys(), settings.password())));
            made = secure;
        }
        made.setExecutor(threads);
        made.createContext("/v1/", this::handle);
        made.start();
        return made;
    }

    private static SSLContext context(Path keys, char @Nullable [] password) throws IOException {
        try (InputStream in = Files.newInputStream(keys)) {
            KeyStore store = KeyStore.getInstance("PKCS12");
            store.load(in, password);
            KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
            managers.init(store, password);
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(managers.getKeyManagers(), null, null);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IOException(keys + ": the key cannot be used: " + e.getMessage(), e);
        }
    }

    /** The port that it listens on. */
    public int port() {
        return server.getAddress().getPort();
    }

    /** The address for clients on this machine. */
    public String address() {
        return (settings.keys() == null ? "http" : "https") + "://localhost:" + port();
    }

    /** How many requests met with a fault. */
    public int faults() {
        return faults;
    }

    private void handle(HttpExchange exchange) throws IOException {
        try (exchange) {
            if (!isAllowed(exchange)) {
                exchange.getResponseHeaders().set("Connection", "close");
                refuse(exchange, UNAUTHORIZED, "the token is missing or wrong");
                return;
            }
            bodies.acquireUninterruptibly();
            try {
                handleAllowed(exchange);
            } finally {
                bodies.release();
            }
        } catch (RuntimeException e) {
            // Nobody learns more than that it failed.
            exchange.close();
        }
    }

    private void handleAllowed(HttpExchange exchange) throws IOException {
        byte[] body = body(exchange);
        if (body == null) {
            refuse(exchange, TOO_LARGE, "the body is larger than " + MOST_BYTES + " bytes");
            return;
        }
        Fault fault = settings.misbehaviour().draw();
        if (fault != null) {
            faults++;
        }
        if (fault == Fault.LIMIT) {
            limit(exchange);
            return;
        }
        if (fault == Fault.SLOW) {
            pause(settings.misbehaviour().number(4 * SHORT_WAIT));
        }
        answer(exchange, body, fault);
    }

    private void answer(HttpExchange exchange, byte[] body, @Nullable Fault fault) throws IOException {
        ObjectNode answer;
        try {
            String digest = exchange.getRequestHeaders().getFirst("Content-Digest");
            if (digest != null && !digest.equals(WebJson.digest(body))) {
                throw new Malformed("the body is not that of its digest");
            }
            answer = calls.call(exchange.getRequestMethod(), exchange.getRequestURI(), body, fault == Fault.HALF);
        } catch (Malformed e) {
            refuse(exchange, BAD, String.valueOf(e.getMessage()));
            return;
        } catch (LedgerException e) {
            boolean refused = e.kind() == LedgerException.Kind.REFUSED;
            refuse(exchange, refused ? BAD : FAILED, refused ? String.valueOf(e.getMessage()) : "failed");
            return;
        }
        byte[] bytes = WebJson.bytes(answer);
        if (fault == Fault.LOSE) {
            return;
        }
        if (fault == Fault.HALF) {
            refuse(exchange, FAILED, "failed");
            return;
        }
        if (fault == Fault.RESTART) {
            restart();
            return;
        }
        byte[] other = lastAnswer;
        lastAnswer = bytes;
        if (fault == Fault.WRONG) {
            send(exchange, OK, settings.misbehaviour().number(2) == 0 ? other : flipped(bytes), WebJson.digest(bytes));
        } else if (fault == Fault.CUT) {
            head(exchange, OK, bytes.length, WebJson.digest(bytes));
            exchange.getResponseBody().write(bytes, 0, bytes.length / 2);
            exchange.getResponseBody().flush();
        } else {
            send(exchange, OK, bytes, WebJson.digest(bytes));
        }
    }

    private byte[] flipped(byte[] bytes) {
        byte[] flipped = bytes.clone();
        int at = settings.misbehaviour().number(flipped.length);
        flipped[at] = (byte) (flipped[at] == '7' ? '1' : '7');
        return flipped;
    }

    // The whole body is read in any case, so that the caller can read the answer.
    private static byte @Nullable [] body(HttpExchange exchange) throws IOException {
        try (InputStream in = exchange.getRequestBody()) {
            byte[] body = in.readNBytes(MOST_BYTES + 1);
            if (body.length <= MOST_BYTES) {
                return body;
            }
            // Of what is too large, only so much more is read.
            in.readNBytes(MOST_BYTES);
            return null;
        }
    }

    private boolean isAllowed(HttpExchange exchange) {
        String shown = exchange.getRequestHeaders().getFirst("Authorization");
        byte[] wanted = ("Bearer " + settings.token()).getBytes(StandardCharsets.UTF_8);
        return shown != null && MessageDigest.isEqual(wanted, shown.getBytes(StandardCharsets.UTF_8));
    }

    private void limit(HttpExchange exchange) throws IOException {
        exchange.getResponseHeaders().set("Retry-After", "1");
        byte[] bytes = WebJson.bytes(
                WebJson.object().put("message", "too many requests").put("waitMillis", SHORT_WAIT));
        send(exchange, TOO_MANY, bytes, WebJson.digest(bytes));
    }

    private static void refuse(HttpExchange exchange, int status, String message) throws IOException {
        byte[] bytes = WebJson.bytes(WebJson.object().put("message", message));
        send(exchange, status, bytes, WebJson.digest(bytes));
    }

    private static void head(HttpExchange exchange, int status, long length, String digest) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "application/json");
        exchange.getResponseHeaders().set("Content-Digest", digest);
        String id = exchange.getRequestHeaders().getFirst("Mivrel-Request");
        if (id != null && id.matches("[0-9a-f]{1,16}")) {
            exchange.getResponseHeaders().set("Mivrel-Request", id);
        }
        exchange.sendResponseHeaders(status, length);
    }

    private static void send(HttpExchange exchange, int status, byte[] bytes, String digest) throws IOException {
        head(exchange, status, bytes.length, digest);
        try (OutputStream out = exchange.getResponseBody()) {
            out.write(bytes);
        }
    }

    private static void pause(int millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    // Down, with every connection, and up again on the same port. Not on the thread of the request, which is to end.
    private void restart() {
        int port = port();
        HttpServer old = server;
        Thread again = new Thread(() -> {
            old.stop(0);
            pause(SHORT_WAIT);
            for (int tries = 0; tries < 50; tries++) {
                try {
                    synchronized (this) {
                        server = listen(port);
                    }
                    return;
                } catch (IOException stillTaken) {
                    pause(SHORT_WAIT);
                }
            }
        });
        again.setDaemon(true);
        again.start();
    }

    @Override
    public synchronized void close() {
        server.stop(0);
        threads.shutdownNow();
    }
}
