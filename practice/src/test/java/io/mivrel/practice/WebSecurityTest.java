package io.mivrel.practice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.practice.web.PracticeServer;
import io.mivrel.practice.web.WebLedger;
import io.mivrel.practice.web.WebPlace;
import java.io.IOException;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/**
 * Who is let in, what is shown, and what a server makes of bytes that are no request: {@code -Dmivrel.fuzz=N} of them,
 * {@code -Dmivrel.seed=N}.
 */
public class WebSecurityTest {
    private static final String TOKEN = "s3cret-of-the-foundry";

    private PracticeLedger books;
    private PracticeServer server;

    @BeforeClass
    public void start() throws Exception {
        Path folder = Files.createTempDirectory("mivrel practice");
        books = PracticeLedger.openOrCreate(
                "practice", PracticePlace.file(folder.resolve("books.db")), PosterProcess.Promised.BOOKS);
        server = PracticeServer.start(books, PracticeServer.Settings.local(0, TOKEN));
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
        books.close();
    }

    @Test
    public void onlyTheTokenLetsIn() throws Exception {
        for (String wrong : List.of("other", TOKEN + "x", "")) {
            try (Ledger ledger = new WebLedger("web", new WebPlace(server.address(), wrong, null))) {
                assertThatThrownBy(ledger::mark)
                        .isInstanceOfSatisfying(
                                LedgerException.class,
                                e -> assertThat(e.kind()).isEqualTo(LedgerException.Kind.REFUSED))
                        .hasMessageContaining("token");
            }
        }
    }

    @Test
    public void noMessageHoldsTheToken() throws Exception {
        WebPlace place = new WebPlace("http://localhost:1", TOKEN, null);
        assertThat(place.toString()).doesNotContain(TOKEN);
        try (Ledger ledger = new WebLedger("web", place)) {
            assertThatThrownBy(ledger::mark).satisfies(e -> {
                for (Throwable at = e; at != null; at = at.getCause()) {
                    assertThat(String.valueOf(at)).doesNotContain(TOKEN);
                }
            });
        }
        PracticePlace database =
                PracticePlace.server("jdbc:postgresql://nowhere.invalid/x?password=" + TOKEN, "u", TOKEN);
        assertThat(database.toString()).doesNotContain(TOKEN);
        assertThat(PracticeServer.Settings.local(0, TOKEN).toString()).doesNotContain(TOKEN);
    }

    @Test
    public void aTokenDoesNotTravelInTheClear() {
        assertThatThrownBy(() -> new WebLedger("web", new WebPlace("http://books.example.org", TOKEN, null)))
                .hasMessageContaining("must begin with https://");
    }

    @Test
    public void itListensOnThisMachineOnly() throws Exception {
        for (NetworkInterface one : Collections.list(NetworkInterface.getNetworkInterfaces())) {
            for (InetAddress address : Collections.list(one.getInetAddresses())) {
                if (!address.isLoopbackAddress()) {
                    assertThatThrownBy(() -> new Socket(address, server.port()).close())
                            .isInstanceOf(IOException.class);
                }
            }
        }
    }

    @Test
    public void aStatedCertificateIsTrustedAndNoOther() throws Exception {
        Path folder = Files.createTempDirectory("mivrel keys");
        Path keys = folder.resolve("keys.p12");
        Path certificate = folder.resolve("server.pem");
        keytool(
                "-genkeypair",
                "-alias",
                "s",
                "-keyalg",
                "RSA",
                "-dname",
                "CN=localhost",
                "-ext",
                "san=dns:localhost",
                "-storetype",
                "PKCS12",
                "-keystore",
                keys.toString(),
                "-storepass",
                "changed",
                "-validity",
                "30");
        keytool(
                "-exportcert",
                "-rfc",
                "-alias",
                "s",
                "-keystore",
                keys.toString(),
                "-storepass",
                "changed",
                "-file",
                certificate.toString());
        PracticeServer.Settings settings = new PracticeServer.Settings(
                null, 0, TOKEN, keys, "changed".toCharArray(), io.mivrel.practice.web.Misbehaviour.none());
        try (PracticeServer secure = PracticeServer.start(books, settings)) {
            try (Ledger ledger = new WebLedger("web", new WebPlace(secure.address(), TOKEN, certificate))) {
                assertThat(ledger.books().company()).isEqualTo("Larkmoor Bell Foundry");
            }
            try (Ledger ledger = new WebLedger("web", new WebPlace(secure.address(), TOKEN, null))) {
                assertThatThrownBy(ledger::mark).hasMessageContaining("not trusted");
            }
        }
    }

    private static void keytool(String... arguments) throws Exception {
        List<String> command = new java.util.ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString()));
        command.addAll(List.of(arguments));
        assertThat(new ProcessBuilder(command)
                        .redirectErrorStream(true)
                        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                        .start()
                        .waitFor())
                .isZero();
    }

    private HttpResponse<String> send(String path, byte[] body) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(server.address() + "/v1/" + path))
                .header("Authorization", "Bearer " + TOKEN)
                .POST(HttpRequest.BodyPublishers.ofByteArray(body))
                .build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
    }

    @Test
    public void aBodyThatIsTooLargeIsRefused() throws Exception {
        try {
            assertThat(send("entries", new byte[PracticeServer.MOST_BYTES + 1]).statusCode())
                    .isEqualTo(413);
        } catch (IOException closedWhileItWasSent) {
            // The server need not read all of it.
        }
    }

    @Test
    public void fourMillionKeysAreRefusedAndNotRead() throws Exception {
        StringBuilder keys = new StringBuilder("{\"keys\":[\"a\"");
        while (keys.length() < PracticeServer.MOST_BYTES - 10) {
            keys.append(",\"a\"");
        }
        HttpResponse<String> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(server.address() + "/v1/find"))
                                .header("Authorization", "Bearer " + TOKEN)
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        keys.append("]}").toString()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(answer.statusCode()).isEqualTo(400);
    }

    // Some send no token, some half a head, some nothing at all; none of them keeps anybody else out, or stays for
    // ever.
    @Test
    public void whoSendsNothingMoreStopsNobody() throws Exception {
        List<Socket> silent = new ArrayList<>();
        try {
            for (int i = 0; i < 60; i++) {
                Socket socket = new Socket(InetAddress.getLoopbackAddress(), server.port());
                silent.add(socket);
                String sent = i % 3 == 0
                        ? "POST /v1/find HTTP/1.1\r\nHost: x\r\nContent-Length: 100\r\n\r\n"
                        : i % 3 == 1 ? "POST /v1/find HTTP/1.1\r\nHo" : "";
                socket.getOutputStream().write(sent.getBytes(StandardCharsets.US_ASCII));
                socket.getOutputStream().flush();
            }
            long begun = System.nanoTime();
            try (Ledger ledger = new WebLedger("web", new WebPlace(server.address(), TOKEN, null))) {
                ledger.mark();
            }
            assertThat(Duration.ofNanos(System.nanoTime() - begun)).isLessThan(Duration.ofSeconds(5));
            // The one without a token is told so before its body comes.
            Socket first = silent.get(0);
            first.setSoTimeout(5000);
            byte[] answer = first.getInputStream().readNBytes(12);
            assertThat(new String(answer, StandardCharsets.US_ASCII)).isEqualTo("HTTP/1.1 401");
            // Half a head is given up.
            Socket half = silent.get(1);
            half.setSoTimeout((PracticeServer.MOST_SECONDS + 10) * 1000);
            assertThat(half.getInputStream().read()).isEqualTo(-1);
        } finally {
            for (Socket socket : silent) {
                socket.close();
            }
        }
    }

    @Test
    public void whatIsNoRequestChangesNothing() throws Exception {
        long before = books.mark();
        String good = "{\"batch\":{\"key\":\"b\",\"name\":\"b\",\"day\":\"2027-03-01\",\"standing\":\"draft\"},"
                + "\"mode\":\"add\",\"rehearsal\":false,\"entries\":[{\"key\":\"K\",\"kind\":\"journals\",\"reference\":\"1\","
                + "\"date\":\"2027-03-01\",\"currency\":\"GBP\",\"narrative\":\"\",\"digest\":\"0\",\"lines\":["
                + "{\"account\":\"5010\",\"amount\":1},{\"account\":\"1200\",\"amount\":-1}]}]}";
        // The digest is not that of the content, so even this is refused.
        assertThat(send("entries", good.getBytes(StandardCharsets.UTF_8)).body())
                .contains("\"R3\"");
        Random random = new Random(Long.getLong("mivrel.seed", 14));
        int times = Integer.getInteger("mivrel.fuzz", 300);
        for (int i = 0; i < times; i++) {
            byte[] bytes = good.getBytes(StandardCharsets.UTF_8);
            for (int n = 0; n <= random.nextInt(4); n++) {
                bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
            }
            int status = send("entries", bytes).statusCode();
            assertThat(status).isIn(200, 400);
        }
        assertThat(send("entries", "[".repeat(100_000).getBytes(StandardCharsets.UTF_8))
                        .statusCode())
                .isEqualTo(400);
        assertThat(send(
                                "batches/x'; DROP TABLE entry; --/seal".replace(" ", "%20"),
                                "{}".getBytes(StandardCharsets.UTF_8))
                        .statusCode())
                .isIn(200, 400);
        assertThat(books.mark()).isEqualTo(before);
        assertThat(books.find(List.of("K"))).isEmpty();
    }
}
