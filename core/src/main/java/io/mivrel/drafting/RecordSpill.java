package io.mivrel.drafting;

import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import io.mivrel.model.FieldType;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Keeps records on disk until the file has ended, in parts small enough to be read back one at a time. The files are
 * removed when it is closed.
 */
final class RecordSpill implements Closeable {
    private static final int BLOCK = 64;
    private static final String PREFIX = "mivrel-spill-";

    private final FieldTable table;
    private final List<Field> fields;
    /** Written by their place here. */
    private final List<SourceFile> sources = new ArrayList<>();

    private final Path folder;
    private final DataOutputStream[] parts;

    RecordSpill(FieldTable table, int parts) throws IOException {
        this.table = table;
        this.fields = table.fields().stream().filter(f -> !f.derived()).toList();
        removeThoseOfTheDead();
        this.folder = Files.createTempDirectory(PREFIX + ProcessHandle.current().pid() + "-");
        this.parts = new DataOutputStream[parts];
    }

    // A process that was killed could not remove its records, which are confidential. Its number stands in the name.
    private static void removeThoseOfTheDead() {
        Path temporary = Path.of(System.getProperty("java.io.tmpdir"));
        try (DirectoryStream<Path> left = Files.newDirectoryStream(temporary, PREFIX + "*")) {
            for (Path spill : left) {
                String pid = spill.getFileName()
                        .toString()
                        .substring(PREFIX.length())
                        .replaceAll("-.*", "");
                if (pid.matches("[0-9]{1,18}")
                        && ProcessHandle.of(Long.parseLong(pid)).isEmpty()) {
                    remove(spill);
                }
            }
        } catch (IOException | DirectoryIteratorException another) {
            // They are of another user, or another process removes them now.
        }
    }

    private static void remove(Path spill) throws IOException {
        try (DirectoryStream<Path> files = Files.newDirectoryStream(spill)) {
            for (Path file : files) {
                Files.deleteIfExists(file);
            }
        }
        Files.deleteIfExists(spill);
    }

    int parts() {
        return parts.length;
    }

    void write(int part, SourceRecord record) throws IOException {
        DataOutputStream out = parts[part];
        if (out == null) {
            out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(file(part)), 16_384));
            parts[part] = out;
        }
        out.writeInt(place(record.block().source()));
        out.writeLong(record.row());
        out.writeBoolean(record.isValid());
        for (Field field : fields) {
            switch (field.type()) {
                case DATE, AMOUNT -> out.writeLong(record.number(field));
                case DECIMAL ->
                    writeText(out, record.has(field) ? record.decimal(field).toPlainString() : null);
                default -> writeText(out, record.text(field));
            }
        }
    }

    /** Hands out the records of one part in the order they were written. */
    void read(int part, Consumer<SourceRecord> target) throws IOException {
        if (parts[part] == null) {
            return;
        }
        parts[part].close();
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file(part))))) {
            RecordBlock block = null;
            while (true) {
                SourceFile source = sources.get(in.readInt());
                if (block == null || block.isFull() || block.source() != source) {
                    block = new RecordBlock(table, source, BLOCK);
                }
                readRecord(in, block);
                target.accept(block.get(block.size() - 1));
            }
        } catch (EOFException end) {
            // The part is read.
        }
    }

    private void readRecord(DataInputStream in, RecordBlock block) throws IOException {
        block.begin(in.readLong());
        boolean sound = in.readBoolean();
        for (Field field : fields) {
            if (field.type() == FieldType.DATE || field.type() == FieldType.AMOUNT) {
                block.put(field, in.readLong());
            } else {
                @Nullable String text = readText(in);
                if (field.type() == FieldType.DECIMAL) {
                    block.put(field, text == null ? null : new BigDecimal(text));
                } else {
                    block.put(field, text);
                }
            }
        }
        block.end(sound);
    }

    private int place(SourceFile source) {
        int place = sources.indexOf(source);
        if (place < 0) {
            sources.add(source);
            return sources.size() - 1;
        }
        return place;
    }

    // Longer texts than writeUTF takes can come, so length and bytes.
    private static void writeText(DataOutputStream out, @Nullable String text) throws IOException {
        if (text == null) {
            out.writeInt(-1);
        } else {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            out.writeInt(bytes.length);
            out.write(bytes);
        }
    }

    private static @Nullable String readText(DataInputStream in) throws IOException {
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
