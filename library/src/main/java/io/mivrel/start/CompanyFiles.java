package io.mivrel.start;

import io.mivrel.files.FolderOutlet;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Files to be written into a folder, all of them or none, and none over another. */
final class CompanyFiles {
    private final Map<String, byte[]> files = new LinkedHashMap<>();
    private final Map<String, String> mended = new LinkedHashMap<>();

    void put(String name, String text) {
        files.put(name, text.getBytes(StandardCharsets.UTF_8));
    }

    void put(String name, byte[] content) {
        files.put(name, content);
    }

    /** Takes the place of a file that is there, which is kept beside it in {@code earlier}. */
    void mend(String name, String text) {
        mended.put(name, text);
    }

    /** Answers what was written. Throws {@link FileAlreadyExistsException} when one is there already. */
    List<Path> writeTo(Path folder) throws IOException {
        for (String name : files.keySet()) {
            if (Files.exists(folder.resolve(name))) {
                throw new FileAlreadyExistsException(
                        folder.resolve(name).toString(), null, "it exists, and nothing is overwritten");
            }
        }
        List<Path> written = new ArrayList<>();
        boolean done = false;
        try {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                Path path = folder.resolve(file.getKey());
                Path parent = path.getParent();
                if (parent != null) {
                    FolderOutlet.makePrivate(parent);
                }
                Files.write(path, file.getValue(), StandardOpenOption.CREATE_NEW);
                written.add(path);
            }
            for (Map.Entry<String, String> file : mended.entrySet()) {
                mend(folder.resolve(file.getKey()), file.getValue(), written);
            }
            done = true;
            return written;
        } finally {
            if (!done) {
                for (Path path : written) {
                    Files.deleteIfExists(path);
                }
            }
        }
    }

    private static void mend(Path path, String text, List<Path> written) throws IOException {
        Path earlier = Files.createDirectories(path.resolveSibling("earlier"));
        String name = path.getFileName().toString();
        Path kept = earlier.resolve(name);
        for (int n = 2; Files.exists(kept); n++) {
            kept = earlier.resolve(name.replaceFirst("(?=\\.[^.]*$)", "-" + n));
        }
        Files.copy(path, kept);
        written.add(kept);
        Path fresh = Files.writeString(path.resolveSibling("." + name + ".new"), text, StandardOpenOption.CREATE_NEW);
        Files.move(fresh, path, StandardCopyOption.ATOMIC_MOVE);
    }

    /** The cells of such a line. */
    static List<String> cells(String line) {
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        boolean quoted = false;
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '"' && quoted && i + 1 < line.length() && line.charAt(i + 1) == '"') {
                cell.append(c);
                i++;
            } else if (c == '"') {
                quoted = !quoted;
            } else if (c == ',' && !quoted) {
                cells.add(cell.toString());
                cell.setLength(0);
            } else {
                cell.append(c);
            }
        }
        cells.add(cell.toString());
        return cells;
    }

    /** Removes a folder that was made for a trial. */
    static void delete(@Nullable Path trial) {
        if (trial == null) {
            return;
        }
        try (Stream<Path> all = Files.walk(trial)) {
            for (Path path : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(path);
            }
        } catch (IOException leftBehind) {
            // It lies in the temporary folder, and harms nothing there.
        }
    }

    /** A line of a table. */
    static String csv(String... cells) {
        return Arrays.stream(cells)
                .map(c -> c.matches("[^\",\r\n]*") && c.equals(c.strip()) ? c : '"' + c.replace("\"", "\"\"") + '"')
                .collect(Collectors.joining(","));
    }
}
