package io.mivrel.practice.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.RetryPolicy;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

/** A ledger that wants to be left alone for a while. */
public class WaitingTest {
    @Test
    public void aWaitIsSaidInSecondsOrAsADate() {
        Instant now = Instant.parse("2027-03-31T23:59:50Z");
        assertThat(WebLedger.pause("120", now)).isEqualTo(Duration.ofMinutes(2));
        assertThat(WebLedger.pause("Thu, 01 Apr 2027 00:00:20 GMT", now)).isEqualTo(Duration.ofSeconds(30));
        assertThat(WebLedger.pause("soon", now)).isEqualTo(Duration.ofSeconds(5));
        assertThat(WebLedger.pause("99999999999999999999", now)).isEqualTo(Duration.ofSeconds(5));
    }

    @Test
    public void aShortWaitIsToldAndALongOneIsLeftToAPerson() throws Exception {
        List<String> waits = new ArrayList<>();
        HttpServer busy = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        String[] wanted = {"0"};
        busy.createContext("/", exchange -> {
            exchange.getResponseHeaders().set("Retry-After", wanted[0]);
            exchange.sendResponseHeaders(429, -1);
            exchange.close();
        });
        busy.start();
        String address = "http://127.0.0.1:" + busy.getAddress().getPort();
        try (WebLedger ledger = new WebLedger("tills", new WebPlace(address, "a token", null))) {
            RetryPolicy patience = new RetryPolicy(Duration.ofMillis(1), Duration.ofMillis(4), 4)
                    .telling((failed, pause) -> waits.add(failed.getMessage() + ", " + pause.toMillis()));
            assertThatThrownBy(() -> patience.repeat(ledger::abilities)).isInstanceOf(LedgerException.class);
            assertThat(waits).hasSize(3).allMatch(w -> w.startsWith("the ledger 'tills' at 127.0.0.1 asks to wait, "));
            wanted[0] = "86400";
            assertThatThrownBy(() -> patience.repeat(ledger::abilities))
                    .hasMessageContaining("asks to wait, for 1440 minutes; give the same command again then");
            assertThat(waits).hasSize(3);
        } finally {
            busy.stop(0);
        }
    }
}
