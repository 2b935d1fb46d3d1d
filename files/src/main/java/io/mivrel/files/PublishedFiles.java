package io.mivrel.files;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;

/**
 * Gives finished files their names. A name that is taken gets a number, {@code march-2.csv}, and no existing file is ever
 * overwritten, even when two programs meet.
 */
public final class PublishedFiles {
    private static final int MOST_TRIES = 10_000;

    private PublishedFiles() {}

    /** The wanted path, or one like it that no file has now. */
    static Path free(Path wanted) throws IOException {
        for (int n = 1; n < MOST_TRIES; n++) {
            Path target = numbered(wanted, n);
            if (!Files.exists(target)) {
                return target;
            }
        }
        throw taken(wanted);
    }

    private static Path numbered(Path wanted, int n) {
        String name = wanted.getFileName().toString();
        int dot = name.lastIndexOf('.');
        String stem = dot <= 0 ? name : name.substring(0, dot);
        String ending = dot <= 0 ? "" : name.substring(dot);
        return n == 1 ? wanted : wanted.resolveSibling(stem + "-" + n + ending);
    }

    private static IOException taken(Path wanted) {
        return new IOException(wanted + ": the name and " + MOST_TRIES + " like it are taken");
    }

    /** Gives a hidden file this name, or one like it; it keeps its hidden name too. Answers the name. */
    public static Path link(Path hidden, Path chosen) throws IOException {
        return link(hidden, chosen, chosen);
    }

    /** The same; where the chosen name was taken meanwhile, the next free one like the wanted name. */
    static Path link(Path hidden, Path chosen, Path wanted) throws IOException {
        for (int n = 0; n < MOST_TRIES; n++) {
            Path target = n == 0 ? chosen : numbered(wanted, n);
            try {
                Files.createLink(target, hidden);
                return target;
            } catch (FileAlreadyExistsException taken) {
                continue;
            } catch (UnsupportedOperationException | FileSystemException noLinks) {
                if (Files.exists(target)) {
                    continue;
                }
                // A file system without hard links: a plain move, which refuses to overwrite.
                return Files.move(hidden, target);
            }
        }
        throw taken(wanted);
    }

    /** True when a file has another name beside this one, where the file system can tell. */
    public static boolean hasOtherName(Path file) throws IOException {
        try {
            return Files.getAttribute(file, "unix:nlink") instanceof Integer names && names > 1;
        } catch (UnsupportedOperationException | IllegalArgumentException cannotTell) {
            return false;
        }
    }

    /**
     * True when a file once had another name that is gone, where the file system can tell: giving or taking a name changes
     * the file's status and not its content.
     */
    public static boolean hadOtherName(Path file) throws IOException {
        try {
            return Files.getAttribute(file, "unix:ctime") instanceof FileTime changed
                    && changed.compareTo(Files.getLastModifiedTime(file)) > 0;
        } catch (UnsupportedOperationException | IllegalArgumentException cannotTell) {
            return false;
        }
    }

    /** Makes the names in a folder safe on disk, where the system can. */
    public static void force(Path folder) {
        try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException notSupported) {
            // Nothing more can be done here.
        }
    }
}
