package io.mivrel;

import io.mivrel.shape.Link;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The files of a run as they were when it began: none may be there twice, under whatever names, and none may change until
 * all of it was read.
 */
final class InputFiles {
    /** Milliseconds that a file system's clock stands still at most. */
    private static final long TICK = 20;

    private final Map<Path, Stamp> stamps = new LinkedHashMap<>();
    private final Map<Path, String> names = new HashMap<>();

    /** What tells a file from another that took its place, and from itself after a change. */
    private record Stamp(
            @Nullable Object key,
            long size,
            FileTime modified,
            @Nullable Object changed) {
        static @Nullable Stamp of(Path file) {
            try {
                BasicFileAttributes attributes = Files.readAttributes(file, BasicFileAttributes.class);
                return new Stamp(
                        attributes.fileKey(), attributes.size(), attributes.lastModifiedTime(), changeTime(file));
            } catch (IOException missing) {
                // Whoever reads it says so.
                return null;
            }
        }

        // Set by the system alone, so that a file whose time was put back shows its change.
        private static @Nullable Object changeTime(Path file) throws IOException {
            try {
                return Files.getAttribute(file, "unix:ctime");
            } catch (UnsupportedOperationException | IllegalArgumentException elsewhere) {
                return null;
            }
        }
    }

    /** Throws {@link IOException} when two of the files are one, or hold the same bytes. */
    static InputFiles of(List<Mivrel.Source> sources) throws IOException {
        InputFiles files = new InputFiles();
        for (Mivrel.Source source : sources) {
            Path path = source.path();
            if (path != null) {
                files.add(path, source.shown());
                linked(source).forEach(files::watch);
            }
        }
        return files;
    }

    /** The files that are read beside a file of a run, by their paths, and what they are called. */
    static Map<Path, String> linked(Mivrel.Source source) {
        Map<Path, String> linked = new LinkedHashMap<>();
        Path path = source.path();
        Path folder = path == null ? null : path.toAbsolutePath().getParent();
        source.layout().shapes().forEach(shape -> {
            if (shape instanceof Link link && folder != null && !link.file().equals(Link.SAME)) {
                linked.put(folder.resolve(link.file()), link.file());
            }
        });
        return linked;
    }

    private void add(Path path, String shown) throws IOException {
        Stamp stamp = Stamp.of(path);
        if (stamp == null) {
            return;
        }
        for (Map.Entry<Path, Stamp> other : new ArrayList<>(stamps.entrySet())) {
            String name = Objects.requireNonNull(names.get(other.getKey()));
            if (Files.isSameFile(path, other.getKey())) {
                throw new IOException(shown + " is taken in twice"
                        + (name.equals(shown) ? "" : ", the other time as " + name) + "; nothing was read");
            }
            boolean same = stamp.size > 0
                    && stamp.size == other.getValue().size
                    && Files.isRegularFile(path)
                    && Files.mismatch(path, other.getKey()) < 0;
            if (same) {
                throw new IOException(
                        shown + " holds the same bytes as " + name + "; take one of the two out. Nothing was read");
            }
        }
        watch(path, shown);
    }

    private void watch(Path path, String shown) {
        awaitTick(path);
        Stamp stamp = Stamp.of(path);
        if (stamp != null) {
            stamps.putIfAbsent(path, stamp);
            names.putIfAbsent(path, shown);
        }
    }

    // A change within the same tick of the file system's clock would leave the time as it is.
    private static void awaitTick(Path path) {
        try {
            long age =
                    System.currentTimeMillis() - Files.getLastModifiedTime(path).toMillis();
            if (age >= 0 && age < TICK) {
                Thread.sleep(TICK - age);
            }
        } catch (IOException missing) {
            // Whoever reads it says so.
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        }
    }

    /** Throws {@link IOException} when one was changed, replaced or removed since. */
    void requireUnchanged() throws IOException {
        for (Map.Entry<Path, Stamp> file : stamps.entrySet()) {
            if (!file.getValue().equals(Stamp.of(file.getKey()))) {
                throw changed(String.valueOf(names.get(file.getKey())));
            }
        }
    }

    static IOException changed(String shown) {
        return new IOException(
                shown + " was changed while it was read, so nothing was delivered; run again once it is whole");
    }
}
