package io.mivrel.ledger;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.model.DocumentIdentity.Form;
import io.mivrel.model.Kind;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.RecordRange;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.RunReport;
import io.mivrel.text.Hash64;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Writes down what one run delivers. The documents of an ordinary run become a row each; those of a large one stay in packs,
 * which are written as they fill. For one thread.
 */
final class DeedWriter {
    /** Up to so many documents, each has a row of its own. */
    static final int MOST_ROWS = 10_000;

    private static final byte[] NO_REFERENCE = new byte[0];

    private final Connection connection;
    private final long run;
    private final RunScope scope;
    private final List<DocumentPack> packs = new ArrayList<>();
    /** Packs of documents with names that were written, and whose keys were not yet. */
    private final List<DocumentPack> unindexed = new ArrayList<>();

    private final Map<SourceFile, Days> days = new LinkedHashMap<>();
    private @Nullable DocumentPack open;
    /** The days of the open pack's file. */
    private @Nullable Days seen;

    private long documents;
    private long place;
    private long checksum;

    /** The days of one file that were delivered, and how its lines are told apart. */
    private static final class Days {
        private long first = Long.MAX_VALUE;
        private long last = Long.MIN_VALUE;
        private @Nullable Form form;
    }

    DeedWriter(Connection connection, long run, RunScope scope) {
        this.connection = connection;
        this.run = run;
        this.scope = scope;
    }

    long documents() {
        return documents;
    }

    /** The amount that a document is known by: the sum of its records, or of a journal the sum of its debits. */
    static long amount(Kind kind, RecordRange records) {
        long sum = 0;
        for (int i = records.from(); i < records.to(); i++) {
            long amount = kind.signedAmount(records.block(), i);
            if (amount != SourceRecord.ABSENT && (amount > 0 || !kind.isJournal())) {
                sum = Math.addExact(sum, amount);
            }
        }
        return sum;
    }

    void add(Kind kind, RecordRange records, long identity, long figures, long content, long deliveries)
            throws SQLException {
        RecordBlock block = records.block();
        int first = records.from();
        long day = block.number(kind.date(), first);
        Form form = kind.identity().form(records);
        byte[] reference = kind.key() == null ? NO_REFERENCE : block.textBytes();
        int from = kind.key() == null ? 0 : block.textStart(kind.key(), first);
        int to = kind.key() == null ? 0 : block.textEnd(kind.key(), first);
        DocumentPack pack = packFor(block.source(), deliveries);
        pack.add(identity, figures, content, day, amount(kind, records), form, block.row(first), reference, from, to);
        documents++;
        if (seen != null) {
            seen.first = Math.min(seen.first, day);
            seen.last = Math.max(seen.last, day);
            seen.form = form;
        }
    }

    private DocumentPack packFor(SourceFile source, long deliveries) throws SQLException {
        DocumentPack pack = open;
        if (pack != null && !pack.isFull() && pack.isOf(source, deliveries)) {
            return pack;
        }
        if (documents > MOST_ROWS) {
            writePacks();
        }
        pack = new DocumentPack(source, deliveries, !scope.kind().isOfAccount());
        open = pack;
        packs.add(pack);
        if (scope.kind().isOfAccount()) {
            seen = days.computeIfAbsent(source, s -> new Days());
        }
        return pack;
    }

    private void writePacks() throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO document_pack VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'delivered', ?, ?, ?)")) {
            for (DocumentPack pack : packs) {
                byte[] content = pack.content();
                insert.setLong(1, run);
                insert.setLong(2, ++place);
                insert.setString(3, scope.kind().documents());
                insert.setString(4, account(pack.source));
                insert.setString(5, LocalDate.ofEpochDay(pack.firstDay).toString());
                insert.setString(6, LocalDate.ofEpochDay(pack.lastDay).toString());
                insert.setString(7, pack.source.currency().getCurrencyCode());
                insert.setString(8, pack.source.name());
                insert.setLong(9, pack.source.ordinal());
                insert.setLong(10, pack.deliveries);
                insert.setLong(11, pack.count);
                insert.setLong(12, DocumentPack.checksum(content));
                insert.setBytes(13, content);
                insert.executeUpdate();
                if (!scope.kind().isOfAccount()) {
                    pack.forgetContent();
                    unindexed.add(pack);
                }
                if (unindexed.size() == PackIndex.MOST_PACKS) {
                    writeKeys();
                }
            }
        }
        packs.clear();
        open = null;
    }

    // Of the packs that were written last.
    private void writeKeys() throws SQLException {
        if (unindexed.isEmpty()) {
            return;
        }
        byte[] keys = PackIndex.inOrder(unindexed);
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO document_pack_keys VALUES (?, ?, ?, ?, ?)")) {
            insert.setLong(1, run);
            insert.setLong(2, place - unindexed.size() + 1);
            insert.setLong(3, unindexed.size());
            insert.setLong(4, DocumentPack.checksum(keys));
            insert.setBytes(5, keys);
            insert.executeUpdate();
        }
        unindexed.clear();
    }

    private static String account(SourceFile source) {
        return source.account() == null ? "" : source.account();
    }

    private void writeRows() throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO document VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'delivered', ?)")) {
            for (DocumentPack pack : packs) {
                DocumentPack.read(
                        pack.content(),
                        pack.count,
                        pack.source,
                        (identity, figures, content, day, amount, form, row, ref) -> {
                            try {
                                insert.setLong(15, figures);
                                writeRow(insert, pack, identity, content, day, amount, form, row, ref);
                            } catch (SQLException e) {
                                throw new RowFailed(e);
                            }
                        });
            }
            insert.executeBatch();
        } catch (RowFailed e) {
            throw (SQLException) e.getCause();
        }
        packs.clear();
        open = null;
    }

    private static final class RowFailed extends RuntimeException {
        private static final long serialVersionUID = 1L;

        RowFailed(SQLException cause) {
            super(cause);
        }
    }

    private void writeRow(
            PreparedStatement insert,
            DocumentPack pack,
            long identity,
            long content,
            long day,
            long amount,
            Form form,
            long row,
            String reference)
            throws SQLException {
        insert.setLong(1, run);
        insert.setLong(2, ++place);
        insert.setString(3, scope.kind().documents());
        insert.setString(4, account(pack.source));
        insert.setString(5, reference);
        insert.setString(6, LocalDate.ofEpochDay(day).toString());
        insert.setLong(7, amount);
        insert.setString(8, pack.source.currency().getCurrencyCode());
        insert.setLong(9, identity);
        insert.setLong(10, content);
        insert.setString(11, form.name());
        insert.setString(12, pack.source.name());
        insert.setLong(13, row);
        insert.setLong(14, pack.deliveries);
        insert.addBatch();
        checksum = add(checksum, identity, content, day, amount);
    }

    /** Adds a document to the checksum of the rows of a run. */
    static long add(long checksum, long identity, long content, long day, long amount) {
        return Hash64.add(Hash64.add(Hash64.add(Hash64.add(checksum, identity), content), day), amount);
    }

    /** Writes the rest, the run itself and its files; the caller commits. */
    void finish(RunReport report, @Nullable String stagedEvidence, @Nullable String evidence) throws SQLException {
        if (documents <= MOST_ROWS) {
            writeRows();
        } else {
            writePacks();
            writeKeys();
        }
        try (PreparedStatement insert = connection.prepareStatement(
                "UPDATE run SET documents = ?, checksum = ?, staged_evidence = ?," + " evidence = ? WHERE id = ?")) {
            insert.setLong(1, documents);
            insert.setLong(2, checksum);
            insert.setString(3, stagedEvidence);
            insert.setString(4, evidence);
            insert.setLong(5, run);
            insert.executeUpdate();
        }
        writeDeliveries();
        writeFiles(report);
        writeDays(report);
    }

    /** Writes the run, so that others can refer to it. */
    void begin() throws SQLException {
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO run VALUES (?, ?, ?, ?, 'prepared', ?, 0, 0, NULL, NULL)")) {
            insert.setLong(1, run);
            insert.setString(2, scope.company());
            insert.setString(3, scope.run());
            insert.setString(4, scope.began().toString());
            insert.setString(5, scope.kind().documents());
            insert.executeUpdate();
        }
    }

    private void writeDeliveries() throws SQLException {
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO delivery VALUES (?, ?, ?)")) {
            for (int i = 0; i < scope.deliveries().size(); i++) {
                insert.setLong(1, run);
                insert.setLong(2, i);
                insert.setString(3, scope.deliveries().get(i));
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    private void writeFiles(RunReport report) throws SQLException {
        int file = 0;
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO delivered_file VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            for (DeliveredFile delivered : report.deliveries()) {
                int part = 0;
                for (PreparedFile prepared : delivered.files()) {
                    insert.setLong(1, run);
                    insert.setLong(2, file++);
                    insert.setString(3, delivered.delivery());
                    insert.setString(4, delivered.sheet());
                    insert.setLong(5, ++part);
                    insert.setString(6, prepared.hidden());
                    insert.setString(7, prepared.name());
                    insert.setLong(8, prepared.bytes());
                    insert.setString(9, prepared.digest());
                    insert.setLong(10, delivered.documents());
                    insert.setLong(11, delivered.rows());
                    insert.setLong(12, delivered.totals().debit());
                    insert.setLong(13, delivered.totals().credit());
                    insert.setString(14, delivered.totals().currency().getCurrencyCode());
                    insert.addBatch();
                }
            }
            insert.executeBatch();
        }
    }

    private void writeDays(RunReport report) throws SQLException {
        int at = 0;
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO account_days VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            for (Map.Entry<SourceFile, Days> entry : days.entrySet()) {
                SourceFile source = entry.getKey();
                Long closing = closing(report, source);
                insert.setLong(1, run);
                insert.setLong(2, at++);
                insert.setString(3, account(source));
                insert.setString(4, source.name());
                insert.setString(
                        5, Objects.requireNonNull(entry.getValue().form).name());
                insert.setString(6, LocalDate.ofEpochDay(entry.getValue().first).toString());
                insert.setString(7, LocalDate.ofEpochDay(entry.getValue().last).toString());
                insert.setObject(8, closing, java.sql.Types.BIGINT);
                insert.setString(9, source.currency().getCurrencyCode());
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    private static @Nullable Long closing(RunReport report, SourceFile source) {
        for (IntakeTally tally : report.files()) {
            List<StatementSpan> spans = tally.spans();
            // With rows beyond the wanted dates, the balance is of another day than the last line.
            boolean whole = !tally.leftOut().containsKey(LeftOut.OUTSIDE_DATES);
            if (tally.file().equals(source.name()) && !spans.isEmpty() && whole) {
                long closing = spans.get(spans.size() - 1).closing();
                return closing == SourceRecord.ABSENT ? null : closing;
            }
        }
        return null;
    }
}
