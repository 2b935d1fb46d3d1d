package io.mivrel.drafting;

import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.Record;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Keeps records on disk until the file has ended, in parts small enough to be read back one at a time. The files are
 * removed when it is closed.
 */
final class RecordSpill implements Closeable {
    private final FieldTable table;
    private final List<Field> fields;
    private final Path folder;
    private final DataOutputStream[] parts;

    RecordSpill(FieldTable table, int parts) throws IOException {
        this.table = table;
        this.fields = table.fields().stream().filter(f -> !f.derived()).toList();
        this.folder = Files.createTempDirectory("mivrel-");
        this.parts = new DataOutputStream[parts];
    }

    int parts() {
        return parts.length;
    }

    void write(int part, Record record) throws IOException {
        DataOutputStream out = parts[part];
        if (out == null) {
            out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(file(part)), 16_384));
            parts[part] = out;
        }
        writeText(out, record.file());
        writeText(out, record.origin().sheet());
        out.writeLong(record.row());
        out.writeBoolean(record.isSound());
        for (Field field : fields) {
            switch (field.type()) {
                case DATE, AMOUNT -> out.writeLong(record.number(field));
                case DECIMAL ->
                    writeText(out, record.has(field) ? record.decimal(field).toPlainString() : null);
                default -> writeText(out, record.text(field));
            }
        }
    }

    /** The records of one part in the order they were written. */
    List<Record> read(int part) throws IOException {
        List<Record> records = new ArrayList<>();
        if (parts[part] == null) {
            return records;
        }
        parts[part].close();
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file(part))))) {
            String file = "";
            while (true) {
                String name = readText(in);
                // One file name serves all its records.
                file = file.equals(name) ? file : name;
                records.add(readRecord(in, file));
            }
        } catch (EOFException end) {
            return records;
        }
    }

    private Record readRecord(DataInputStream in, String file) throws IOException {
        String sheet = readText(in);
        Record.Builder record = Record.builder(table, file, sheet, in.readLong());
        boolean sound = in.readBoolean();
        for (Field field : fields) {
            if (field.type() == FieldType.DATE || field.type() == FieldType.AMOUNT) {
                record.put(field, in.readLong());
            } else {
                String text = readText(in);
                if (field.type() == FieldType.DECIMAL) {
                    record.put(field, text == null ? null : new BigDecimal(text));
                } else {
                    record.put(field, text);
                }
            }
        }
        return record.build(sound);
    }

    // Longer texts than writeUTF takes can come, so length and bytes.
    private static void writeText(DataOutputStream out, String text) throws IOException {
        if (text == null) {
            out.writeInt(-1);
        } else {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            out.writeInt(bytes.length);
            out.write(bytes);
        }
    }

    private static String readText(DataInputStream in) throws IOException {
        int length = in.readInt();
        return length < 0 ? null : new String(in.readNBytes(length), StandardCharsets.UTF_8);
    }

    private Path file(int part) {
        return folder.resolve("part-" + part);
    }

    @Override
    public void close() throws IOException {
        for (int i = 0; i < parts.length; i++) {
            if (parts[i] != null) {
                parts[i].close();
                Files.deleteIfExists(file(i));
            }
        }
        Files.deleteIfExists(folder);
    }
}
