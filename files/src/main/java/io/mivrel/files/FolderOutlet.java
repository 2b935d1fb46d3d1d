package io.mivrel.files;

import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Outlet;
import io.mivrel.delivery.RowWriter;
import io.mivrel.files.bytes.Digests;
import io.mivrel.files.bytes.GrowingFile;
import io.mivrel.files.lines.SeparatedRows;
import io.mivrel.files.lines.SeparatedWriter;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.IntFunction;

/**
 * Files in a folder that appear whole or not at all. A part is written under a hidden temporary name beside its target;
 * publishing forces it to disk and gives it its name by a hard link, which fails when the name is taken, so nothing is
 * overwritten even when two runs meet. A taken name gets a number: {@code march-2.csv}. For one thread.
 */
public final class FolderOutlet implements Outlet {
    private static final int MOST_TRIES = 10_000;

    private final Path folder;
    private final DeliveryFormat form;
    private final IntFunction<String> names;
    private final TreeMap<Integer, Path> temporary = new TreeMap<>();
    private final Map<Integer, GrowingFile> written = new HashMap<>();
    private final List<Path> published = new ArrayList<>();
    private RowWriter open;

    /**
     * @param folder made when missing
     * @param form how the files are written
     * @param names the file name of each part, counted from 1
     */
    public FolderOutlet(Path folder, DeliveryFormat form, IntFunction<String> names) {
        this.folder = folder;
        this.form = form;
        this.names = names;
    }

    @Override
    public RowWriter open(int part) throws IOException {
        Path made = Files.createDirectories(folder);
        String unique = Long.toHexString(ThreadLocalRandom.current().nextLong());
        Path file = made.resolve("." + names.apply(part) + "." + unique + ".part");
        GrowingFile followed = new GrowingFile(file);
        synchronized (temporary) {
            temporary.put(part, file);
            written.put(part, followed);
        }
        open = new SeparatedWriter(followed.output(), form);
        return open;
    }

    @Override
    public RowSource readBack(int part) throws IOException {
        GrowingFile followed;
        synchronized (temporary) {
            followed = written.get(part);
        }
        return new SeparatedRows(followed.input(), form.separator(), form.encoding());
    }

    @Override
    public String digest(int part) throws IOException {
        Path file = temporary.get(part);
        Long checksum;
        synchronized (temporary) {
            checksum = written.get(part).checksum();
        }
        return checksum == null || Files.size(file) <= Digests.SHA_UP_TO ? Digests.of(file) : Digests.crc32c(checksum);
    }

    @Override
    public List<String> publish() throws IOException {
        for (Path file : temporary.values()) {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
                channel.force(true);
            }
        }
        List<String> named = new ArrayList<>();
        for (var part : temporary.entrySet()) {
            Path target = name(part.getValue(), names.apply(part.getKey()));
            published.add(target);
            named.add(target.toString());
        }
        forceFolder();
        for (Path file : temporary.values()) {
            Files.deleteIfExists(file);
        }
        temporary.clear();
        return named;
    }

    private Path name(Path file, String wanted) throws IOException {
        int dot = wanted.lastIndexOf('.');
        String stem = dot <= 0 ? wanted : wanted.substring(0, dot);
        String ending = dot <= 0 ? "" : wanted.substring(dot);
        for (int n = 1; n < MOST_TRIES; n++) {
            Path target = folder.resolve(n == 1 ? wanted : stem + "-" + n + ending);
            try {
                Files.createLink(target, file);
                return target;
            } catch (FileAlreadyExistsException taken) {
                continue;
            } catch (UnsupportedOperationException | FileSystemException noLinks) {
                if (Files.exists(target)) {
                    continue;
                }
                // A file system without hard links: a plain move, which refuses to overwrite.
                return Files.move(file, target);
            }
        }
        throw new IOException(folder.resolve(wanted) + ": the name and " + MOST_TRIES + " like it are taken");
    }

    // The new names are safe only when the folder itself is; some systems cannot force a folder.
    private void forceFolder() {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException notSupported) {
            // Nothing more can be done here.
        }
    }

    @Override
    public void discard() {
        try {
            if (open != null) {
                open.close();
            }
        } catch (IOException alreadyFailing) {
            // It is removed in any case.
        }
        temporary.values().forEach(FolderOutlet::remove);
        published.forEach(FolderOutlet::remove);
        temporary.clear();
        published.clear();
    }

    private static void remove(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException leftBehind) {
            // A hidden temporary file stays; it carries no delivered name.
        }
    }
}
