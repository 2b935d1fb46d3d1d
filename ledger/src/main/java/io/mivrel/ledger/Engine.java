package io.mivrel.ledger;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.sqlite.SQLiteJDBCLoader;
import org.sqlite.util.LibraryLoaderUtil;

/** The part of the database that is not Java. */
final class Engine {
    /** Names a folder of Mivrel's own where that part is kept from one run to the next; it need not be set. */
    static final String KEPT_IN = "mivrel.engine";

    private static final String PLACE = "org.sqlite.lib.path";

    private Engine() {}

    /**
     * Loads it; where a folder for it is named, from there, so that it is not unpacked and compared each time. Says
     * nothing when that fails: connecting tries again, and says so.
     */
    static synchronized void load() {
        String folder = System.getProperty(KEPT_IN);
        if (folder != null && System.getProperty(PLACE) == null) {
            try {
                keep(Path.of(folder));
                System.setProperty(PLACE, folder);
            } catch (IOException e) {
                // A folder that cannot be written to: it is unpacked to the temporary one, as without a name.
            }
        }
        try {
            SQLiteJDBCLoader.initialize();
        } catch (Exception e) {
            // As said above.
        }
    }

    private static void keep(Path folder) throws IOException {
        String name = LibraryLoaderUtil.getNativeLibName();
        Path kept = folder.resolve(name);
        if (Files.exists(kept)) {
            return;
        }
        String resource = LibraryLoaderUtil.getNativeLibResourcePath() + "/" + name;
        try (InputStream in = SQLiteJDBCLoader.class.getResourceAsStream(resource)) {
            if (in == null) {
                throw new IOException("no engine for this system: " + resource);
            }
            Files.createDirectories(folder);
            // Another run may be doing the same: each writes a file of its own, and the whole one takes the place.
            Path whole = Files.createTempFile(folder, name, ".part");
            try {
                Files.copy(in, whole, StandardCopyOption.REPLACE_EXISTING);
                Files.move(whole, kept, StandardCopyOption.ATOMIC_MOVE);
            } finally {
                Files.deleteIfExists(whole);
            }
        }
    }
}
