package io.mivrel.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.posting.Answer;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.BalanceChanges;
import io.mivrel.posting.Batch;
import io.mivrel.posting.Entry;
import io.mivrel.posting.EntryLine;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.PostingLog.BatchState;
import io.mivrel.posting.PostingLog.Noted;
import io.mivrel.posting.PostingLog.Sent;
import io.mivrel.posting.PostingLog.Settled;
import io.mivrel.posting.PostingLog.State;
import io.mivrel.posting.SourcedEntry;
import io.mivrel.posting.Standing;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is kept of documents that were sent to a ledger, in both databases. */
public class PostingRegisterTest {
    private static final Currency POUND = Currency.getInstance("GBP");
    private static final LocalDate DAY = LocalDate.of(2027, 3, 5);
    private static final String COMPANY = "Larkmoor Bell Foundry";

    @DataProvider
    public Object[][] places() {
        RegisterTest.Place file = RegisterTest::file;
        RegisterTest.Place onServer = RegisterTest::onServer;
        return new Object[][] {{file}, {onServer}};
    }

    private static SourcedEntry sent(String key, long minor) {
        Entry entry = Entry.of(
                key,
                "journals",
                "V-" + key,
                DAY,
                POUND,
                "tin",
                List.of(EntryLine.of("5010", minor, "tin"), EntryLine.of("1200", -minor, "tin")));
        return new SourcedEntry(entry, "ledger.csv", new long[] {2, 3});
    }

    private static void begin(PostingRegister register, String batch) throws IOException {
        register.begin(
                new Noted(
                        new Batch(batch, "Batch " + batch, DAY, Standing.DRAFT),
                        "run",
                        PostMode.ADD,
                        Instant.parse("2027-04-02T08:00:00Z"),
                        0,
                        BatchState.OPEN),
                List.of(),
                List.of());
    }

    private static Settled posted(String key) {
        return new Settled(key, State.POSTED, Answer.of(key, Result.ADDED, "7"));
    }

    private static BalanceChanges effect(SourcedEntry... of) {
        BalanceChanges effect = new BalanceChanges();
        for (SourcedEntry one : of) {
            effect.add(one.entry());
        }
        return effect;
    }

    private static List<String> states(PostingRegister register, String batch) throws IOException {
        List<String> states = new ArrayList<>();
        register.documents(
                batch, one -> states.add(one.key() + " " + one.state().word()));
        return states;
    }

    @Test(dataProvider = "places")
    public void eachDocumentIsKeptFromIntentToAnswer(RegisterTest.Place where) throws Exception {
        RegisterPlace place = where.make();
        try (PostingRegister register = PostingRegister.open(place, COMPANY, "practice")) {
            begin(register, "a");
            register.intend("a", List.of(sent("K1", 100), sent("K2", 250)), List.of());
            assertThat(register.unsettled()).extracting(Sent::key).containsExactly("K1", "K2");
            register.settle("a", List.of(posted("K2")), effect(sent("K2", 250)));
            assertThat(states(register, "a")).containsExactly("K1 intended", "K2 posted");
            // A later parcel, and then an answer about the one before.
            register.intend("a", List.of(sent("K3", 40)), List.of());
            register.settle("a", List.of(posted("K1"), posted("K3")), effect(sent("K1", 100), sent("K3", 40)));
            register.end("a", false);
        }
        try (PostingRegister register = PostingRegister.open(place, COMPANY, "practice")) {
            assertThat(register.unsettled()).isEmpty();
            begin(register, "b");
            register.intend(
                    "b", List.of(sent("K2", 999)), List.of(sent("K2", 250).entry()));
            // The same key in two batches: each is settled in its own, whichever was sent last.
            register.settle("a", List.of(new Settled("K2", State.WITHDRAWN, null)), effect());
            register.settle("b", List.of(posted("K2")), effect(sent("K2", 999)));
            assertThat(states(register, "a")).containsExactly("K1 posted", "K2 withdrawn", "K3 posted");
            assertThat(states(register, "b")).containsExactly("K2 posted");
            Map<String, Sent> latest = register.latest(List.of("K1", "K2", "K9"));
            assertThat(latest).containsOnlyKeys("K1", "K2");
            assertThat(latest.get("K2").amount().minor()).isEqualTo(999);
            assertThat(latest.get("K2").answer().number()).isEqualTo("7");
            assertThat(register.effect("a")
                            .sides()
                            .get(new BalanceChanges.Place("5010", "GBP"))
                            .debit())
                    .isEqualTo(390);
            List<String> unpacked = new ArrayList<>();
            register.entries(
                    "b",
                    (one, replaced) ->
                            unpacked.add(one.entry().debit() + " for " + replaced.debit() + " of row " + one.row()));
            assertThat(unpacked).containsExactly("999 for 250 of row 2");
            assertThatThrownBy(() -> register.settle("b", List.of(posted("K9")), effect()))
                    .isInstanceOf(RegisterException.class)
                    .hasMessageContaining("does not know a document");
            assertThat(states(register, "b")).containsExactly("K2 posted");
        }
    }

    @Test(dataProvider = "places")
    public void manyDocumentsAreAllKept(RegisterTest.Place where) throws Exception {
        try (PostingRegister register = PostingRegister.open(where.make(), COMPANY, "practice")) {
            begin(register, "a");
            // Around the number of rows that a statement takes.
            int count = 0;
            for (int size : new int[] {1, 99, 100, 101, 350}) {
                int first = count;
                List<SourcedEntry> parcel = IntStream.range(first, first + size)
                        .mapToObj(i -> sent("K" + i, i + 1))
                        .toList();
                register.intend("a", parcel, List.of());
                register.settle(
                        "a",
                        parcel.stream().map(one -> posted(one.entry().key())).toList(),
                        effect(parcel.toArray(SourcedEntry[]::new)));
                count += size;
            }
            assertThat(states(register, "a"))
                    .isEqualTo(IntStream.range(0, count)
                            .mapToObj(i -> "K" + i + " posted")
                            .toList());
            long sum = (long) count * (count + 1) / 2;
            assertThat(register.effect("a")
                            .sides()
                            .get(new BalanceChanges.Place("1200", "GBP"))
                            .credit())
                    .isEqualTo(sum);
        }
    }

    @Test
    public void aRegisterOfTheFormatBeforeKeepsWhatItHolds() throws Exception {
        RegisterPlace place = RegisterTest.file();
        try (PostingRegister register = PostingRegister.open(place, COMPANY, "practice")) {
            begin(register, "a");
            register.intend("a", List.of(sent("K1", 100)), List.of());
        }
        Path file = place.file();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement statement = connection.createStatement()) {
            statement.executeUpdate("DROP INDEX ledger_document_by_key");
            statement.executeUpdate("DROP INDEX ledger_document_of_batch");
            statement.executeUpdate("CREATE INDEX ledger_document_by_key ON ledger_document (document_key)");
            statement.executeUpdate(
                    "CREATE UNIQUE INDEX ledger_document_of_batch ON ledger_document (batch_id, document_key)");
            statement.executeUpdate("DROP TABLE document_pack_keys");
            statement.executeUpdate("UPDATE register_format SET format = 6");
        }
        try (PostingRegister reader = PostingRegister.openToRead(place, COMPANY, "practice")) {
            assertThat(reader.unsettled()).extracting(Sent::key).containsExactly("K1");
        }
        try (PostingRegister register = PostingRegister.open(place, COMPANY, "practice")) {
            register.settle("a", List.of(posted("K1")), effect(sent("K1", 100)));
            assertThat(states(register, "a")).containsExactly("K1 posted");
            // One batch never has a document twice.
            assertThatThrownBy(() -> register.intend("a", List.of(sent("K1", 100)), List.of()))
                    .isInstanceOf(RegisterException.class);
            assertThat(states(register, "a")).containsExactly("K1 posted");
        }
    }
}
