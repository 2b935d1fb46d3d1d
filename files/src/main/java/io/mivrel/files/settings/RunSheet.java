package io.mivrel.files.settings;

import io.mivrel.books.Books;
import io.mivrel.coding.CodingTable;
import io.mivrel.delivery.Delivery;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.RunKeys;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.Layout;
import io.mivrel.run.DeliveryTarget;
import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A run sheet with everything it names, read and checked. Paths in it are relative to its own folder. Immutable.
 *
 * @param name the run's name
 * @param file the run sheet itself
 * @param books the books
 * @param sources the files to take in, with their layouts
 * @param coding {@code null} when nothing is coded
 * @param suspense account of what is not coded; {@code null} to hold it
 * @param dates the wanted dates
 * @param targets the deliveries and their folders
 * @param holdEverything true when one blocker stops the whole delivery
 * @param monthly true when the run is of one month, and nobody has said yet of which
 * @param intake what it says of the files to take in
 * @param settings every settings file that was read, for the evidence
 */
public record RunSheet(
        String name,
        Path file,
        Books books,
        List<Source> sources,
        CodingTable coding,
        String suspense,
        DateWindow dates,
        List<Target> targets,
        boolean holdEverything,
        boolean monthly,
        List<Entry> intake,
        List<Path> settings) {

    /** Stands for the month in a run's name, in the files that it takes in and in the folders that it delivers to. */
    public static final String MONTH = "{month}";

    /** One file to take in; {@code shown} is its name relative to the run sheet's folder. */
    public record Source(Path path, String shown, List<Layout> layouts) {}

    /** One entry of the intake: how the files are called, without their folder, their layout, and how that is named. */
    public record Entry(String names, Layout layout, String layoutFile) {}

    /** One delivery, the folder it goes to, and what becomes of documents that went out by another one before. */
    public record Target(Delivery delivery, Path folder, DeliveryTarget.Earlier earlier) {}

    /** The folder that paths are relative to. */
    public Path folder() {
        Path parent = file.toAbsolutePath().getParent();
        return parent == null ? file.toAbsolutePath() : parent;
    }

    /** Reads a run sheet and all it names; throws with every problem of every file at once. */
    public static RunSheet read(Path file) throws SettingsException {
        return read(file, null);
    }

    /** The same for one month, which takes the place of the dates that the run sheet names; {@code null} for none. */
    public static RunSheet read(Path file, YearMonth month) throws SettingsException {
        return read(file, month, false);
    }

    /** The same; {@code withoutFiles} when it does not matter whether files are there that it names. */
    public static RunSheet read(Path file, YearMonth month, boolean withoutFiles) throws SettingsException {
        return new Reader(file, month, withoutFiles).read();
    }

    /** True when a name is of a pattern, in which a star stands for any characters and a question mark for one. */
    // Only the last star is ever taken back, so that the time grows with the two lengths and not faster.
    public static boolean matches(String name, String pattern) {
        int n = 0;
        int p = 0;
        int star = -1;
        int from = 0;
        while (n < name.length()) {
            if (p < pattern.length() && pattern.charAt(p) == '*') {
                star = p++;
                from = n;
            } else if (p < pattern.length() && (pattern.charAt(p) == '?' || pattern.charAt(p) == name.charAt(n))) {
                p++;
                n++;
            } else if (star >= 0) {
                p = star + 1;
                n = ++from;
            } else {
                return false;
            }
        }
        while (p < pattern.length() && pattern.charAt(p) == '*') {
            p++;
        }
        return p == pattern.length();
    }

    private static final class Reader {
        private final Path file;
        private final Path folder;
        private final YearMonth month;
        private final boolean withoutFiles;
        private final List<Entry> intake = new ArrayList<>();
        private final Problems problems = new Problems();
        private final List<Path> settings = new ArrayList<>();
        private final Map<Path, Layout> layouts = new HashMap<>();

        Reader(Path file, YearMonth month, boolean withoutFiles) {
            this.withoutFiles = withoutFiles;
            this.file = file;
            this.month = month;
            this.folder = file.toAbsolutePath().getParent();
        }

        RunSheet read() throws SettingsException {
            SettingsNode form = SettingsNode.open(file, file.toString(), problems);
            problems.throwIfAny();
            settings.add(file);
            String name = form.required(RunKeys.RUN);
            if (name != null && name.replaceAll("[^\\p{L}\\p{N}]", "").isEmpty()) {
                form.at(RunKeys.RUN, "'run' needs a name with letters or digits", "");
            }
            Books books = books(form);
            List<Source> sources = sources(form);
            CodingTable coding = null;
            String suspense = null;
            SettingsNode code = form.block(RunKeys.CODING);
            if (code != null) {
                coding = coding(code, books);
                suspense = suspense(code, books);
                code.done();
            }
            boolean monthly = "month".equals(form.text(RunKeys.DATES));
            DateWindow dates = month != null
                    ? new DateWindow(month.atDay(1), month.atEndOfMonth())
                    : monthly ? DateWindow.ALL : FormatSettings.dates(form, RunKeys.DATES);
            List<Target> targets = targets(form);
            boolean holdEverything = form.isSecond(RunKeys.WHEN_BLOCKED);
            form.done();
            problems.throwIfAny();
            problems.tables().stream().distinct().forEach(settings::add);
            return new RunSheet(
                    ofMonth(name),
                    file,
                    books,
                    sources,
                    coding,
                    suspense,
                    dates,
                    targets,
                    holdEverything,
                    monthly && month == null,
                    intake,
                    settings);
        }

        private String ofMonth(String text) {
            return month == null ? text : text.replace(MONTH, month.toString());
        }

        private Books books(SettingsNode form) {
            String books = form.required(RunKeys.BOOKS);
            Path path = books == null ? null : resolve(form, RunKeys.BOOKS, books);
            if (path == null) {
                return null;
            }
            for (String name : List.of("books.yaml", "chart.csv", "tax-codes.csv", "parties.csv", "periods.csv")) {
                if (Files.isRegularFile(path.resolve(name))) {
                    settings.add(path.resolve(name));
                }
            }
            return BooksFolder.read(path, books, problems);
        }

        private Path resolve(SettingsNode form, Key key, String text) {
            try {
                return folder.resolve(text).normalize();
            } catch (InvalidPathException e) {
                form.at(key, "'" + text + "' is not a path", "");
                return null;
            }
        }

        private List<Source> sources(SettingsNode form) {
            List<Source> sources = new ArrayList<>();
            List<SettingsNode> entries = form.blocks(RunKeys.INTAKE);
            if (entries.isEmpty()) {
                form.wrong("the run sheet lacks 'intake', the files to take in", "");
            }
            for (SettingsNode entry : entries) {
                String files = entry.required(RunKeys.FILES);
                List<String> names = entry.texts(RunKeys.LAYOUT);
                if (names.isEmpty()) {
                    entry.required(RunKeys.LAYOUT);
                }
                List<Layout> read = new ArrayList<>();
                for (String name : names) {
                    Layout layout = layout(entry, name);
                    if (layout != null) {
                        read.add(layout);
                    }
                }
                boolean whole = !read.isEmpty() && read.size() == names.size();
                entry.done();
                for (int i = 0; files != null && whole && i < read.size(); i++) {
                    intake.add(new Entry(
                            files.substring(Math.max(files.lastIndexOf('/'), files.lastIndexOf('\\')) + 1),
                            read.get(i),
                            names.get(i)));
                }
                if (withoutFiles) {
                    continue;
                }
                if (files != null && files.contains(MONTH) && month == null) {
                    entry.at(RunKeys.FILES, "'files' depends on the month, and none is said", "--for 2027-03");
                } else if (files != null) {
                    for (Path path : matching(entry, ofMonth(files))) {
                        sources.add(new Source(path, shown(path), read));
                    }
                }
            }
            return sources;
        }

        private Layout layout(SettingsNode entry, String name) {
            Path path = resolve(entry, RunKeys.LAYOUT, name);
            if (path == null) {
                return null;
            }
            if (!layouts.containsKey(path)) {
                settings.add(path);
                layouts.put(path, LayoutFile.read(path, name, problems));
            }
            return layouts.get(path);
        }

        private String shown(Path path) {
            return path.startsWith(folder) ? folder.relativize(path).toString() : path.toString();
        }

        // A plain name stands for itself, also when it is missing: then the run says so. Stars are for the last part.
        private List<Path> matching(SettingsNode entry, String files) {
            int slash = Math.max(files.lastIndexOf('/'), files.lastIndexOf('\\'));
            String last = files.substring(slash + 1);
            if (last.indexOf('*') < 0 && last.indexOf('?') < 0) {
                Path path = resolve(entry, RunKeys.FILES, files);
                return path == null ? List.of() : List.of(path);
            }
            Path in = resolve(entry, RunKeys.FILES, slash < 0 ? "." : files.substring(0, slash + 1));
            List<Path> found = new ArrayList<>();
            if (in != null && Files.isDirectory(in)) {
                try (DirectoryStream<Path> stream = Files.newDirectoryStream(
                        in, file -> matches(file.getFileName().toString(), last))) {
                    stream.forEach(found::add);
                } catch (IOException | DirectoryIteratorException e) {
                    entry.at(RunKeys.FILES, "'" + files + "' cannot be looked up: " + e.getMessage(), "");
                }
            }
            if (found.isEmpty()) {
                entry.at(RunKeys.FILES, "no file matches '" + files + "'", "");
            }
            found.removeIf(p -> p.getFileName().toString().startsWith("."));
            found.sort(null);
            return found;
        }

        private CodingTable coding(SettingsNode form, Books books) {
            String table = form.required(RunKeys.TABLE);
            Path path = table == null ? null : resolve(form, RunKeys.TABLE, table);
            if (path == null) {
                return null;
            }
            settings.add(path);
            return CodingFile.read(path, table, books, problems);
        }

        private static String suspense(SettingsNode form, Books books) {
            String uncoded = form.required(RunKeys.UNCODED);
            if (uncoded == null || uncoded.equals("hold")) {
                return null;
            }
            if (books != null && books.account(uncoded) == null) {
                List<String> allowed = new ArrayList<>(List.of("hold"));
                allowed.addAll(books.accountCodes());
                form.notAllowed(RunKeys.UNCODED, uncoded, allowed);
            }
            return uncoded;
        }

        private List<Target> targets(SettingsNode form) {
            List<Target> targets = new ArrayList<>();
            for (SettingsNode entry : form.blocks(RunKeys.DELIVER)) {
                String as = entry.required(RunKeys.AS);
                String to = entry.required(RunKeys.TO);
                boolean too = entry.isSecond(RunKeys.EARLIER);
                entry.done();
                Path path = as == null ? null : resolve(entry, RunKeys.AS, as);
                Path target = to == null ? null : resolve(entry, RunKeys.TO, ofMonth(to));
                if (path != null) {
                    settings.add(path);
                    targets.add(new Target(
                            DeliveryFile.read(path, as, problems),
                            target,
                            too ? DeliveryTarget.Earlier.DELIVERED_TOO : DeliveryTarget.Earlier.LEFT_OUT));
                }
            }
            return targets;
        }
    }
}
