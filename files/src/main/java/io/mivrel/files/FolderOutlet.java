package io.mivrel.files;

import io.mivrel.delivery.Outlet;
import io.mivrel.delivery.PreparedFile;
import io.mivrel.delivery.RowForm;
import io.mivrel.delivery.RowWriter;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.bytes.Digests;
import io.mivrel.files.bytes.GrowingFile;
import io.mivrel.files.forms.RowForms;
import io.mivrel.rows.RowSource;
import io.mivrel.text.TemporaryName;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Files in a folder that appear whole or not at all. A part is written under a hidden temporary name beside its target;
 * publishing forces it to disk and gives it its name by a hard link, which fails when the name is taken, so nothing is
 * overwritten even when two runs meet. A taken name gets a number: {@code march-2.csv}. For one thread.
 */
public final class FolderOutlet implements Outlet {
    private final Path folder;
    private final Sheet sheet;
    private final RowForm form;
    private final Filler filler;
    private final TreeMap<Integer, Path> temporary = new TreeMap<>();
    private final Map<Integer, GrowingFile> written = new HashMap<>();
    private final List<PreparedFile> prepared = new ArrayList<>();
    private @Nullable RowWriter open;

    /** Fills in {@code {run}}, {@code {date}} and the number of a part, counted from 1. */
    @FunctionalInterface
    public interface Filler {
        String fill(String text, int part);
    }

    /**
     * @param folder made when missing
     * @param sheet what the files hold, and their form
     * @param filler fills in names
     */
    public FolderOutlet(Path folder, Sheet sheet, Filler filler) {
        this.folder = folder;
        this.sheet = sheet;
        this.form = RowForms.of(sheet.format().kind());
        this.filler = filler;
    }

    @Override
    public RowWriter open(int part) throws IOException {
        Path made = makePrivate(folder);
        Path file = made.resolve(TemporaryName.of(name(part), "part"));
        GrowingFile followed = new GrowingFile(file);
        synchronized (temporary) {
            temporary.put(part, file);
            written.put(part, followed);
        }
        open = form.writer(followed.output(), sheet);
        return open;
    }

    @Override
    public RowSource readBack(int part) throws IOException {
        GrowingFile followed;
        synchronized (temporary) {
            followed = Objects.requireNonNull(written.get(part));
        }
        return form.reader(followed.input(), sheet);
    }

    @Override
    public String named(String text, int part) {
        return filler.fill(text, part);
    }

    private String name(int part) {
        return filler.fill(sheet.format().name(), part);
    }

    private String digest(int part) throws IOException {
        Path file = Objects.requireNonNull(temporary.get(part));
        Long checksum = Objects.requireNonNull(written.get(part)).checksum();
        return checksum == null || Files.size(file) <= Digests.SHA_UP_TO ? Digests.of(file) : Digests.crc32c(checksum);
    }

    @Override
    public List<PreparedFile> prepare() throws IOException {
        for (Path file : temporary.values()) {
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
                channel.force(true);
            }
        }
        PublishedFiles.force(folder);
        for (var part : temporary.entrySet()) {
            Path target = PublishedFiles.free(folder.resolve(name(part.getKey())));
            prepared.add(new PreparedFile(
                    part.getValue().toString(), target.toString(), Files.size(part.getValue()), digest(part.getKey())));
        }
        return List.copyOf(prepared);
    }

    @Override
    public List<PreparedFile> publish() throws IOException {
        List<PreparedFile> named = new ArrayList<>();
        int part = 0;
        for (PreparedFile file : prepared) {
            part++;
            Path wanted = folder.resolve(name(part));
            Path target = PublishedFiles.link(Path.of(file.hidden()), Path.of(file.name()), wanted);
            named.add(new PreparedFile(file.hidden(), target.toString(), file.bytes(), file.digest()));
        }
        PublishedFiles.force(folder);
        return named;
    }

    @Override
    public void release() {
        temporary.values().forEach(FolderOutlet::remove);
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
        temporary.clear();
    }

    private static void remove(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException leftBehind) {
            // A hidden temporary file stays; it carries no delivered name.
        }
    }

    /** Removes the unfinished files that killed runs have left in a folder. */
    public static void sweep(Path folder) throws IOException {
        if (Files.isDirectory(folder)) {
            try (DirectoryStream<Path> parts = Files.newDirectoryStream(folder, ".*.part")) {
                for (Path part : parts) {
                    if (TemporaryName.isAbandoned(part)) {
                        remove(part);
                    }
                }
            }
        }
    }

    /**
     * Makes a folder that only its owner can look into, since books are nobody else's business; one that is there already
     * keeps the mode that it was given. Answers the folder.
     */
    public static Path makePrivate(Path folder) throws IOException {
        boolean hasModes =
                FileSystems.getDefault().supportedFileAttributeViews().contains("posix");
        return hasModes
                ? Files.createDirectories(
                        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")))
                : Files.createDirectories(folder);
    }
}
