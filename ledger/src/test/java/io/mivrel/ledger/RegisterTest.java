package io.mivrel.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.history.DocumentHistory.Earlier;
import io.mivrel.history.DocumentHistory.Verdict;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.layout.DateWindow;
import io.mivrel.model.DocumentIdentity;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.KindWords;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceFile;
import io.mivrel.money.Totals;
import io.mivrel.run.FindingLog;
import io.mivrel.run.RunReport;
import io.mivrel.testkit.PostgresServer;
import io.mivrel.text.Hash64;
import java.io.IOException;
import java.nio.file.Files;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The register remembers deeds, once it is told to for good. On real databases. */
public class RegisterTest {
    private static final Currency GBP = Currency.getInstance("GBP");
    private static final long DAY = LocalDate.of(2027, 3, 1).toEpochDay();
    private static final long ALL = -1;

    /** A place for a register that does not exist yet. */
    interface Place {
        RegisterPlace make() throws IOException;
    }

    static RegisterPlace file() throws IOException {
        return RegisterPlace.file(Files.createTempDirectory("mivrel register")
                .resolve("new folder")
                .resolve("register.db"));
    }

    static RegisterPlace onServer() throws IOException {
        return RegisterPlace.server(PostgresServer.newDatabase(), PostgresServer.USER, PostgresServer.USER);
    }

    @DataProvider
    public Object[][] places() {
        Place file = RegisterTest::file;
        Place onServer = RegisterTest::onServer;
        return new Object[][] {{file}, {onServer}};
    }

    private static RunScope scope(String run, Kind kind, String... deliveries) {
        List<String> accounts = kind.isOfAccount() ? List.of("1200") : List.of();
        return new RunScope(run, "Larkmoor", kind, accounts, List.of(deliveries), DateWindow.ALL, Instant.EPOCH);
    }

    private static Register begun(RegisterPlace place, RunScope scope) throws IOException {
        Register register = Register.open(place);
        try {
            register.begin(scope);
            return register;
        } catch (IOException e) {
            register.close();
            throw e;
        }
    }

    private static RecordRange journal(String reference, long day, long amount) {
        RecordBlock block = new RecordBlock(JournalLines.TABLE, SourceFile.of("ledger.csv", GBP), 2);
        for (int i = 0; i < 2; i++) {
            block.begin(7 + i);
            block.put(JournalLines.REFERENCE, reference);
            block.put(JournalLines.DATE, day);
            block.put(JournalLines.ACCOUNT, i == 0 ? "5010" : "1200");
            block.put(JournalLines.AMOUNT, i == 0 ? amount : -amount);
            block.end(true);
        }
        return block.range(0, 2);
    }

    // A line of a file with balances, with identifiers, or with neither.
    private static RecordRange bankLine(SourceFile file, long row, long day, long amount, String bankReference) {
        RecordBlock block = new RecordBlock(BankLines.TABLE, file, 1);
        block.begin(row);
        block.put(BankLines.DATE, day);
        block.put(BankLines.AMOUNT, amount);
        if (bankReference == null) {
            block.put(BankLines.BALANCE, 1_000_00 + row * 1_00);
        } else {
            block.put(BankLines.BANK_REFERENCE, bankReference);
        }
        block.end(true);
        return block.range(0, 1);
    }

    private static Verdict judge(Register register, Kind kind, RecordRange records) throws IOException {
        long identity = kind.identity().identity(records);
        long figures = kind.identity().figures(records);
        return register.judge(kind, records, identity, kind.identity().content(records, identity, figures));
    }

    private static void remember(Register register, Kind kind, RecordRange records, long deliveries)
            throws IOException {
        long identity = kind.identity().identity(records);
        long figures = kind.identity().figures(records);
        register.remember(
                kind, records, identity, figures, kind.identity().content(records, identity, figures), deliveries);
    }

    private static RunReport report(Kind kind, PreparedFile... files) {
        DeliveredFile delivered = new DeliveredFile("Journals", "", kind, List.of(files), 1, 2, new Totals(GBP));
        return new RunReport(
                "run",
                "Larkmoor",
                GBP,
                kind,
                false,
                List.of(),
                null,
                null,
                null,
                null,
                null,
                List.of(delivered),
                new FindingLog(),
                List.of(),
                Map.of(),
                List.of());
    }

    private static void publish(Register register, Kind kind) throws IOException {
        PreparedFile file = new PreparedFile(".hidden", "name.csv", 5, "sha-512:00");
        register.prepared(report(kind, file), null, null);
        register.published(List.of(file));
    }

    @Test(dataProvider = "places")
    public void remembersForGoodOnlyWhatIsPrepared(Place where) throws IOException {
        RegisterPlace place = where.make();
        RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
        RecordRange voucher = journal("V-1", DAY, 5_00);
        try (Register register = begun(place, scope)) {
            remember(register, JournalLines.KIND, voucher, ALL);
            assertThat(judge(register, JournalLines.KIND, voucher)).isEqualTo(Verdict.NEW);
        }
        try (Register register = begun(place, scope)) {
            assertThat(judge(register, JournalLines.KIND, voucher)).isEqualTo(Verdict.NEW);
            remember(register, JournalLines.KIND, voucher, ALL);
            publish(register, JournalLines.KIND);
        }
        // Another run sheet of the company asks the same register.
        try (Register register = begun(place, scope("by another name", JournalLines.KIND, "Journals"))) {
            assertThat(judge(register, JournalLines.KIND, voucher)).isEqualTo(Verdict.DELIVERED);
            assertThat(register.lacking()).isZero();
            assertThat(judge(register, JournalLines.KIND, journal("V-1", DAY, 5_01)))
                    .isEqualTo(Verdict.CHANGED);
            assertThat(judge(register, JournalLines.KIND, journal("V-1", DAY + 365, 5_01)))
                    .isEqualTo(Verdict.NUMBER_RETURNS);
            assertThat(judge(register, JournalLines.KIND, journal("V-2", DAY, 5_00)))
                    .isEqualTo(Verdict.NEW);
        }
        RunScope otherCompany = new RunScope(
                "ledger", "Torrow", JournalLines.KIND, List.of(), List.of("J"), DateWindow.ALL, Instant.EPOCH);
        try (Register register = begun(place, otherCompany)) {
            assertThat(judge(register, JournalLines.KIND, voucher)).isEqualTo(Verdict.NEW);
        }
    }

    @Test(dataProvider = "places")
    public void aDocumentIsListedAndFoundByItsReference(Place where) throws IOException {
        RegisterPlace place = where.make();
        try (Register register = begun(place, scope("ledger", JournalLines.KIND, "Journals", "Copies"))) {
            remember(register, JournalLines.KIND, journal("V-1", DAY, 5_00), ALL);
            remember(register, JournalLines.KIND, journal("V-2", DAY, 7_25), 0b10);
            publish(register, JournalLines.KIND);
        }
        try (Register register = Register.openToRead(place)) {
            List<RegisteredDocument> found = register.find("Larkmoor", "V-2");
            assertThat(found).hasSize(1);
            assertThat(found.get(0).amount()).hasToString("7.25 GBP");
            assertThat(found.get(0).deliveries()).containsExactly("Copies");
            assertThat(found.get(0).state()).isEqualTo("delivered");
            assertThat(found.get(0).row()).isEqualTo(7);
            assertThat(found.get(0).day()).isEqualTo(LocalDate.of(2027, 3, 1));
        }
        try (Register register = begun(place, scope("ledger", JournalLines.KIND, "Journals", "New"))) {
            assertThat(judge(register, JournalLines.KIND, journal("V-1", DAY, 5_00)))
                    .isEqualTo(Verdict.DELIVERED);
            assertThat(register.lacking()).isEqualTo(0b10);
            assertThat(judge(register, JournalLines.KIND, journal("V-2", DAY, 7_25)))
                    .isEqualTo(Verdict.DELIVERED);
            assertThat(register.lacking()).isEqualTo(0b11);
        }
    }

    @Test
    public void twoEqualLinesWithoutNameAreTwo() throws IOException {
        RegisterPlace place = file();
        RunScope scope = scope("bank", BankLines.KIND, "Lines");
        SourceFile csv = SourceFile.of("bank.csv", GBP).ofAccount("1200");
        RecordRange line = bankLine(csv, 1, DAY, 5_00, null);
        try (Register register = begun(place, scope)) {
            remember(register, BankLines.KIND, line, ALL);
            remember(register, BankLines.KIND, line, ALL);
            publish(register, BankLines.KIND);
        }
        try (Register register = begun(place, scope)) {
            for (int pass = 0; pass < 2; pass++) {
                assertThat(judge(register, BankLines.KIND, line)).isEqualTo(Verdict.DELIVERED);
                assertThat(judge(register, BankLines.KIND, line)).isEqualTo(Verdict.DELIVERED);
                assertThat(judge(register, BankLines.KIND, line)).isEqualTo(Verdict.NEW);
                register.startOver();
            }
        }
    }

    @Test
    public void theSameDaysInAnotherFormAreMetLineByLine() throws IOException {
        RegisterPlace place = file();
        RunScope scope = scope("bank", BankLines.KIND, "Lines");
        SourceFile csv = SourceFile.of("bank.csv", GBP).ofAccount("1200");
        SourceFile ofx = SourceFile.of("bank.ofx", GBP).ofAccount("1200");
        try (Register register = begun(place, scope)) {
            remember(register, BankLines.KIND, bankLine(csv, 1, DAY, 5_00, null), ALL);
            remember(register, BankLines.KIND, bankLine(csv, 2, DAY, 5_00, null), ALL);
            remember(register, BankLines.KIND, bankLine(csv, 3, DAY + 9, -7_00, null), ALL);
            publish(register, BankLines.KIND);
        }
        try (Register register = begun(place, scope)) {
            assertThat(judge(register, BankLines.KIND, bankLine(ofx, 1, DAY, 5_00, "A")))
                    .isEqualTo(Verdict.DELIVERED);
            assertThat(judge(register, BankLines.KIND, bankLine(ofx, 2, DAY, 5_00, "B")))
                    .isEqualTo(Verdict.DELIVERED);
            assertThat(register.matchedByAmount()).isEqualTo(2);
            // A third one is neither known nor surely new.
            assertThat(judge(register, BankLines.KIND, bankLine(ofx, 3, DAY, 5_00, "C")))
                    .isEqualTo(Verdict.UNSURE);
            assertThat(judge(register, BankLines.KIND, bankLine(ofx, 4, DAY + 3, 1, "D")))
                    .isEqualTo(Verdict.UNSURE);
            assertThat(judge(register, BankLines.KIND, bankLine(ofx, 5, DAY + 10, 1, "E")))
                    .isEqualTo(Verdict.NEW);
            // In the form that was delivered, a line that is not known was held then.
            assertThat(judge(register, BankLines.KIND, bankLine(csv, 9, DAY + 3, 1, null)))
                    .isEqualTo(Verdict.NEW);
        }
    }

    @Test
    public void manyArePackedAndStillFound() throws Exception {
        RegisterPlace place = file();
        RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
        int count = 60_000;
        try (Register register = begun(place, scope)) {
            for (int i = 0; i < count; i++) {
                remember(register, JournalLines.KIND, journal("V-" + i, DAY + i % 90, i), ALL);
            }
            register.startOver();
            for (int i = 0; i < count; i++) {
                remember(register, JournalLines.KIND, journal("V-" + i, DAY + i % 90, i), ALL);
            }
            publish(register, JournalLines.KIND);
        }
        assertThat(Files.size(place.file())).isLessThan(count * 60L);
        try (Register register = begun(place, scope)) {
            for (int i = 0; i < count; i += 7) {
                assertThat(judge(register, JournalLines.KIND, journal("V-" + i, DAY + i % 90, i)))
                        .isEqualTo(Verdict.DELIVERED);
            }
            assertThat(judge(register, JournalLines.KIND, journal("V-7", DAY, 1)))
                    .isEqualTo(Verdict.CHANGED);
            assertThat(register.find("Larkmoor", "V-41234")).singleElement().satisfies(document -> {
                assertThat(document.amount().minor()).isEqualTo(41_234);
                assertThat(document.day()).isEqualTo(LocalDate.ofEpochDay(DAY + 41_234 % 90));
                assertThat(document.state()).isEqualTo("delivered");
            });
            List<RegisteredDocument> all = new ArrayList<>();
            register.documents("Larkmoor", all::add);
            assertThat(all).hasSize(count);
        }
    }

    // Of names found by their pack, and of packs without keys, as an earlier Mivrel wrote them, the same is known.
    @Test
    public void aFewDocumentsAreFoundAmongManyWithoutReadingAll() throws Exception {
        RegisterPlace place = file();
        RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
        try (Register register = begun(place, scope)) {
            for (int i = 0; i < 50_000; i++) {
                remember(register, JournalLines.KIND, journal("V-" + i, DAY + i % 90, 1000 + i), ALL);
            }
            publish(register, JournalLines.KIND);
        }
        for (String before : List.of(
                "SELECT 1",
                "UPDATE document_pack_keys SET keys = zeroblob(length(keys))",
                "DELETE FROM document_pack_keys")) {
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + place.file());
                    Statement statement = connection.createStatement()) {
                statement.execute(before);
            }
            if (before.contains("zeroblob")) {
                assertThatThrownBy(() -> begun(place, scope).close())
                        .isInstanceOf(RegisterException.class)
                        .hasMessageContaining("is damaged");
                continue;
            }
            try (Register register = begun(place, scope)) {
                for (int i = 0; i < 50_000; i += 9_999) {
                    RecordRange same = journal("V-" + i, DAY + i % 90, 1000 + i);
                    assertThat(judge(register, JournalLines.KIND, same)).isEqualTo(Verdict.DELIVERED);
                    assertThat(judge(register, JournalLines.KIND, journal("V-" + i, DAY + i % 90, 7)))
                            .isEqualTo(Verdict.CHANGED);
                    assertThat(judge(register, JournalLines.KIND, journal("V-" + i, DAY + 600, 1000 + i)))
                            .isEqualTo(Verdict.NUMBER_RETURNS);
                    RecordRange other = journal("W-" + i, DAY + i % 90 + 3, 1000 + i);
                    assertThat(judge(register, JournalLines.KIND, other)).isEqualTo(Verdict.NEW);
                    long figures = JournalLines.KIND.identity().figures(other);
                    assertThat(register.alike(1, figures, DAY + i % 90 + 3))
                            .extracting(Earlier::reference)
                            .isEqualTo("V-" + i);
                    assertThat(register.alike(1, figures, DAY + i % 90 + 6)).isNull();
                }
            }
        }
    }

    // Whatever tells the documents of a kind of one's own apart, its packs are found.
    @Test
    public void documentsOfAKindOfOnesOwnAreFoundInPacks() throws Exception {
        FieldTable table = new FieldTable("loose lines", "loose", "line");
        Field day = table.level(0).required("date", FieldType.DATE, "day");
        Field price = table.level(1).required("price", FieldType.AMOUNT, "price");
        Kind loose = Kind.of(table, "loose ones")
                .words(KindWords.of("loose one", "loose ones", "in", "out"))
                .date(day)
                .amount(price)
                .identity(new DocumentIdentity() {
                    @Override
                    public long identity(RecordRange records) {
                        return Hash64.add(99, records.block().number(price, records.from()));
                    }

                    @Override
                    public Form form(RecordRange records) {
                        return Form.TEXTS;
                    }

                    @Override
                    public long content(RecordRange records, long identity, long figures) {
                        return identity;
                    }
                })
                .drafter(context -> (records, coding, findings) -> {
                    throw new AssertionError("nothing is drafted");
                })
                .build();
        RegisterPlace place = file();
        RunScope scope = scope("loose", loose, "Loose");
        int count = DeedWriter.MOST_ROWS + 5_000;
        try (Register register = begun(place, scope)) {
            for (int i = 0; i < count; i++) {
                remember(register, loose, one(table, day, price, i), ALL);
            }
            publish(register, loose);
        }
        try (Register register = begun(place, scope)) {
            for (int i = 0; i < count; i += 777) {
                assertThat(judge(register, loose, one(table, day, price, i))).isEqualTo(Verdict.DELIVERED);
            }
            assertThat(judge(register, loose, one(table, day, price, count))).isEqualTo(Verdict.NEW);
        }
    }

    private static RecordRange one(FieldTable table, Field day, Field price, long amount) {
        RecordBlock block = new RecordBlock(table, SourceFile.of("loose.csv", GBP), 1);
        block.begin(2);
        block.put(day, DAY);
        block.put(price, amount);
        block.end(true);
        return block.range(0, 1);
    }

    @Test
    public void whatIsPreparedAndNotPublishedIsUnfinished() throws IOException {
        RegisterPlace place = file();
        RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
        PreparedFile file = new PreparedFile("out/.j.csv.part", "out/j.csv", 5, "sha-512:00");
        try (Register register = begun(place, scope)) {
            remember(register, JournalLines.KIND, journal("V-1", DAY, 5_00), ALL);
            register.prepared(report(JournalLines.KIND, file), "evidence/.x", "evidence/x");
        }
        try (Register register = Register.open(place)) {
            UnfinishedRun run = register.unfinished().get(0);
            assertThat(run.files()).containsExactly(file);
            assertThat(run.evidence()).isEqualTo("evidence/x");
            register.settled(run.id(), List.of(new PreparedFile(file.hidden(), "out/j-2.csv", 5, "sha-512:00")));
            assertThat(register.unfinished()).isEmpty();
            register.begin(scope);
            assertThat(judge(register, JournalLines.KIND, journal("V-1", DAY, 5_00)))
                    .isEqualTo(Verdict.DELIVERED);
        }
    }

    // Few documents have a row each, many lie in packs; neither is written again when their run is published.
    @Test(dataProvider = "places")
    public void documentsAreIntendedUntilTheirRunIsPublished(Place where) throws Exception {
        for (int documents : new int[] {3, DeedWriter.MOST_ROWS + 5_000}) {
            RegisterPlace place = where.make();
            PreparedFile file = new PreparedFile(".hidden", "name.csv", 5, "sha-512:00");
            try (Register register = begun(place, scope("ledger", JournalLines.KIND, "Journals"))) {
                for (int i = 0; i < documents; i++) {
                    remember(register, JournalLines.KIND, journal("V-" + i, DAY, i + 1), ALL);
                }
                register.prepared(report(JournalLines.KIND, file), null, null);
                assertThat(states(place)).isEqualTo(Map.of("intended", (long) documents));
                register.published(List.of(file));
            }
            assertThat(states(place)).isEqualTo(Map.of("delivered", (long) documents));
            DeliveredRuns.takeBack(
                    place,
                    "Larkmoor",
                    1,
                    new DeliveredRuns.TakenBack(LocalDate.of(2027, 4, 2), "A. Reed", "wrong month"));
            assertThat(states(place)).isEqualTo(Map.of("withdrawn", (long) documents));
        }
    }

    private static Map<String, Long> states(RegisterPlace place) throws IOException {
        Map<String, Long> states = new TreeMap<>();
        try (Register reader = Register.openToRead(place)) {
            reader.documents("Larkmoor", document -> states.merge(document.state(), 1L, Long::sum));
        }
        return states;
    }

    @Test
    public void oneRunAtATimeAndReadersBesideIt() throws Exception {
        RegisterPlace place = file();
        RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
        try (Register first = begun(place, scope)) {
            remember(first, JournalLines.KIND, journal("V-1", DAY, 5_00), ALL);
            try (Register reader = Register.openToRead(place)) {
                reader.beginCheck(scope);
                assertThat(judge(reader, JournalLines.KIND, journal("V-1", DAY, 5_00)))
                        .isEqualTo(Verdict.NEW);
            }
            assertThatThrownBy(() -> Register.open(place)).hasMessageContaining("in use by another run");
            publish(first, JournalLines.KIND);
        }
    }

    @Test
    public void otherFormatsAreRefusedByName() throws Exception {
        RegisterPlace place = file();
        Register.open(place).close();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + place.file())) {
            connection.createStatement().executeUpdate("UPDATE register_format SET format = 99");
        }
        assertThatThrownBy(() -> Register.open(place))
                .isInstanceOf(RegisterException.class)
                .hasMessageContaining("format 99");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + place.file())) {
            connection.createStatement().executeUpdate("PRAGMA user_version = 2");
        }
        assertThatThrownBy(() -> Register.open(place)).hasMessageContaining("format 2 of an early build");
    }

    @Test
    public void aDamagedRegisterIsSaidToBeOne() throws Exception {
        RegisterPlace noDatabase = file();
        Files.createDirectories(noDatabase.file().getParent());
        Files.writeString(noDatabase.file(), "this is no database, but it is long enough to look like one".repeat(40));
        assertThatThrownBy(() -> Register.open(noDatabase))
                .isInstanceOf(RegisterException.class)
                .hasMessageContaining("register.db");
        for (int documents : new int[] {50, 20_000}) {
            RegisterPlace place = file();
            RunScope scope = scope("ledger", JournalLines.KIND, "Journals");
            try (Register register = begun(place, scope)) {
                for (int i = 0; i < documents; i++) {
                    remember(register, JournalLines.KIND, journal("V-" + i, DAY, i), ALL);
                }
                publish(register, JournalLines.KIND);
            }
            // A figure that changed where the structure did not.
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + place.file())) {
                connection
                        .createStatement()
                        .executeUpdate(
                                documents == 50
                                        ? "UPDATE document SET amount = amount + 1 WHERE reference = 'V-7'"
                                        : "UPDATE document_pack SET content = zeroblob(length(content)) WHERE place = 2");
            }
            // A pack is read when a document may be in it.
            assertThatThrownBy(() -> {
                        try (Register register = begun(place, scope)) {
                            judge(register, JournalLines.KIND, journal("V-5000", DAY, 5000));
                        }
                    })
                    .isInstanceOf(RegisterException.class)
                    .hasMessageContaining("is damaged")
                    .hasMessageContaining("Put back a copy");
            byte[] bytes = Files.readAllBytes(place.file());
            for (int i = 4096; i < 8192; i++) {
                bytes[i] = (byte) i;
            }
            Files.write(place.file(), bytes);
            assertThatThrownBy(() -> Register.open(place))
                    .isInstanceOf(RegisterException.class)
                    .hasMessageContaining("is damaged");
        }
    }

    @Test
    public void anySqlClientCanReadIt() throws Exception {
        RegisterPlace place = file();
        try (Register register = begun(place, scope("ledger", JournalLines.KIND, "Journals"))) {
            remember(register, JournalLines.KIND, journal("V-1", DAY, 5_00), ALL);
            publish(register, JournalLines.KIND);
        }
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + place.file());
                ResultSet row = connection
                        .createStatement()
                        .executeQuery("SELECT run.name, reference, day, amount, d.state,"
                                + " f.name FROM document d JOIN run ON run.id = d.run_id"
                                + " JOIN delivered_file f ON f.run_id = run.id")) {
            assertThat(row.next()).isTrue();
            assertThat(List.of(row.getString(1), row.getString(2), row.getString(3), row.getLong(4), row.getString(5)))
                    .isEqualTo(List.<Object>of("ledger", "V-1", "2027-03-01", 500L, "delivered"));
            assertThat(row.getString(6)).isEqualTo("name.csv");
        }
    }
}
