package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.files.CorrectionFiles;
import io.mivrel.files.FolderOutlet;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.intake.IntakeTally;
import io.mivrel.layout.Layout;
import io.mivrel.model.FindingRule;
import io.mivrel.model.Rule;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A folder that files are dropped into. A file that has arrived whole is run by the run sheet whose layout fits it, and filed
 * away under {@code done} or, while something of it is held, under {@code held}; one that no layout fits, or more than one,
 * waits. What is held is run again when its corrections come home. A process that dies loses nothing: what was delivered is
 * known to the register, and a file is moved only after its run. One process at a time; for one thread.
 */
public final class DropFolder implements AutoCloseable {
    /** What it is called in a company's folder, where nothing else is said. */
    public static final String NAME = "drop";

    /** Rules that say that a file is of another form. */
    private static final Set<Rule> FORM = Set.of(
            Rule.FILE_KIND_DIFFERS,
            Rule.FILE_NOT_TEXT,
            Rule.SHEET_MISSING,
            Rule.TITLES_MISSING,
            Rule.COLUMN_MISSING,
            Rule.COLUMN_TWICE,
            Rule.CELLS_MISSING,
            Rule.CELLS_EXTRA);

    private static final Set<String> UNFINISHED =
            Set.of("part", "tmp", "crdownload", "download", "partial", "filepart");

    private final Path drop;
    private final Company company;
    private final Duration settle;
    private final Consumer<String> told;
    private final FileChannel channel;
    private final FileLock lock;
    private final Map<Path, Seen> seen = new HashMap<>();
    private final Map<Path, String> said = new HashMap<>();
    private final Map<Path, Instant> ran = new HashMap<>();

    /** A file as it was seen, and since when it has been so. */
    private record Seen(long size, FileTime modified, Instant since) {}

    /** What a file is to be run by. */
    private record Fit(Path sheet, Layout layout) {}

    private DropFolder(
            Path drop, Company company, Duration settle, Consumer<String> told, FileChannel channel, FileLock lock) {
        this.drop = drop;
        this.company = company;
        this.settle = settle;
        this.told = told;
        this.channel = channel;
        this.lock = lock;
    }

    /**
     * Opens it; the folder is made when it is missing. Throws when another process watches for the company.
     *
     * @param company the folder with the run sheets
     * @param settle how long a file must have stayed as it is to have arrived whole
     * @param told hears what is done, a line each
     */
    public static DropFolder open(Path drop, Path company, Duration settle, Consumer<String> told) throws IOException {
        FolderOutlet.makePrivate(drop);
        Path own = FolderOutlet.makePrivate(company.resolve(".mivrel"));
        FileChannel channel =
                FileChannel.open(own.resolve("watch.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        FileLock lock = null;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException heldInThisProcess) {
            // Told below.
        } finally {
            if (lock == null) {
                channel.close();
            }
        }
        if (lock == null) {
            throw new IOException(drop + ": another process watches for " + company);
        }
        return new DropFolder(drop, Company.in(company), settle, told, channel, lock);
    }

    /** The files that lie in a drop folder; none when it is not there. */
    static List<Path> waiting(Path drop) throws IOException {
        if (!Files.isDirectory(drop)) {
            return List.of();
        }
        try (Stream<Path> inside = Files.list(drop)) {
            return inside.filter(Files::isRegularFile)
                    .filter(DropFolder::isMeant)
                    .sorted()
                    .toList();
        }
    }

    // Programs give a file its name when it is whole; until then it has another.
    private static boolean isMeant(Path file) {
        String name = file.getFileName().toString();
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return !name.startsWith(".") && !name.startsWith("~") && !UNFINISHED.contains(ending);
    }

    /** Looks once: runs what has arrived whole, and what was held and has corrections. Answers how many files were filed. */
    public int look() throws IOException {
        int filed = 0;
        List<Path> files = waiting(drop);
        seen.keySet().retainAll(files);
        said.keySet().retainAll(files);
        for (Path file : files) {
            if (isWhole(file)) {
                filed += take(file) ? 1 : 0;
            }
        }
        return filed + again();
    }

    /** True while a file may still be arriving. */
    public boolean isArriving() throws IOException {
        for (Path file : waiting(drop)) {
            if (!isWhole(file)) {
                return true;
            }
        }
        return false;
    }

    private boolean isWhole(Path file) throws IOException {
        long size = Files.size(file);
        FileTime modified = Files.getLastModifiedTime(file);
        Seen before = seen.get(file);
        if (before == null || before.size() != size || !before.modified().equals(modified)) {
            seen.put(file, new Seen(size, modified, Instant.now()));
            return settle.isZero() && size > 0;
        }
        return size > 0 && !Instant.now().isBefore(before.since().plus(settle));
    }

    private boolean take(Path file) throws IOException {
        String name = file.getFileName().toString();
        try {
            List<Fit> fits = fits(file);
            if (fits.size() != 1) {
                say(
                        file,
                        fits.isEmpty()
                                ? name + " waits: no layout fits it; this makes one: mivrel start '" + file + "' --in '"
                                        + company.folder() + "'"
                                : name + " waits: more than one layout fits it ("
                                        + String.join(
                                                ", ",
                                                fits.stream()
                                                        .map(f -> f.layout().name())
                                                        .toList())
                                        + "); put it into the inbox of one, and run that");
                return false;
            }
            run(file, fits.get(0), "");
            return true;
        } catch (IOException | SettingsException e) {
            say(
                    file,
                    name + " waits: "
                            + String.valueOf(e.getMessage())
                                    .lines()
                                    .findFirst()
                                    .orElse("")
                                    .strip());
            return false;
        }
    }

    // Once for each state of things.
    private void say(Path file, String words) {
        if (!words.equals(said.put(file, words))) {
            told.accept(words);
        }
    }

    // Runs it, and files it by what came of it.
    private void run(Path file, Fit fit, String again) throws IOException, SettingsException {
        RunSheet sheet = RunSheet.read(fit.sheet(), null, true);
        List<Outcome> outcomes = new ArrayList<>();
        for (@Nullable YearMonth month : months(file, fit, sheet)) {
            outcomes.add(Mivrel.open(fit.sheet(), month, file, fit.layout()).run());
        }
        ran.put(file, Instant.now());
        boolean held = outcomes.stream().anyMatch(o -> o.status() != 0);
        Path filed = held && !again.isEmpty() ? file : file(file, held ? "held" : "done");
        ran.put(filed, Instant.now());
        long clear =
                outcomes.stream().mapToLong(o -> o.report().clear().documents()).sum();
        long heldNow =
                outcomes.stream().mapToLong(o -> o.report().held().documents()).sum();
        told.accept(file.getFileName() + again + " by " + fit.sheet().getFileName() + ": " + clear + " delivered, "
                + heldNow + " held -> "
                + company.folder().relativize(filed.toAbsolutePath().normalize()));
    }

    // A file of several months is run for each of them.
    private static List<@Nullable YearMonth> months(Path file, Fit fit, RunSheet sheet)
            throws IOException, SettingsException {
        List<@Nullable YearMonth> months = new ArrayList<>();
        if (sheet.monthly()) {
            months.addAll(Mivrel.monthsOf(fit.sheet(), file, fit.layout()));
        }
        if (months.isEmpty()) {
            months.add(null);
        }
        return months;
    }

    private Path file(Path file, String where) throws IOException {
        Path day = Files.createDirectories(
                company.folder().resolve(where).resolve(LocalDate.now().toString()));
        String name = file.getFileName().toString();
        Path target = day.resolve(name);
        for (int n = 2; Files.exists(target); n++) {
            target = day.resolve(n + "-" + name);
        }
        return Files.move(file, target, StandardCopyOption.ATOMIC_MOVE);
    }

    // What is held is run once more after its corrections or the settings have changed.
    private int again() throws IOException {
        Path held = company.folder().resolve("held");
        if (!Files.isDirectory(held)) {
            return 0;
        }
        List<Path> files;
        try (Stream<Path> all = Files.walk(held, 2)) {
            files = all.filter(Files::isRegularFile)
                    .filter(DropFolder::isMeant)
                    .sorted()
                    .toList();
        }
        Instant changed = changed();
        int filed = 0;
        for (Path file : files) {
            Instant last = ran.getOrDefault(file, Instant.MIN);
            if (!changed.isBefore(last) && Instant.now().isAfter(changed.plus(settle))) {
                ran.put(file, Instant.now());
                filed += againOne(file) ? 1 : 0;
            }
        }
        return filed;
    }

    private boolean againOne(Path file) throws IOException {
        try {
            List<Fit> fits = fits(file);
            if (fits.size() == 1) {
                run(file, fits.get(0), ", once more,");
                return !Files.exists(file);
            }
        } catch (IOException | SettingsException e) {
            say(
                    file,
                    file.getFileName() + " stays held: "
                            + String.valueOf(e.getMessage())
                                    .lines()
                                    .findFirst()
                                    .orElse("")
                                    .strip());
        }
        return false;
    }

    private Instant changed() throws IOException {
        Instant latest = Instant.EPOCH;
        List<Path> all = new ArrayList<>(CorrectionFiles.in(company.folder().resolve(Mivrel.CORRECTIONS)));
        for (String folder : List.of("books", "coding", "layouts", "deliveries")) {
            Path settings = company.folder().resolve(folder);
            if (Files.isDirectory(settings)) {
                try (Stream<Path> inside = Files.list(settings)) {
                    inside.filter(Files::isRegularFile).forEach(all::add);
                }
            }
        }
        for (Path file : all) {
            Instant modified = Files.getLastModifiedTime(file).toInstant();
            latest = modified.isAfter(latest) ? modified : latest;
        }
        return latest;
    }

    // By form and by the number of the bank account; where several have the form, by the name that a run sheet expects.
    private List<Fit> fits(Path file) throws IOException, SettingsException {
        FileSurvey survey = FileSurvey.of(file);
        List<Fit> like = fits(file, survey, false);
        return like.isEmpty() ? fits(file, survey, true) : like;
    }

    /** {@code reads} when it is enough that a layout can read the file: a short one with a fault in it tells little. */
    private List<Fit> fits(Path file, FileSurvey survey, boolean reads) throws IOException, SettingsException {
        Set<String> numbers = survey.accountNumbers();
        Map<String, Fit> fits = new LinkedHashMap<>();
        List<Fit> byName = new ArrayList<>();
        for (Path path : company.runSheets()) {
            RunSheet sheet = RunSheet.read(path, null, true);
            for (RunSheet.Entry entry : sheet.intake()) {
                Layout layout = entry.layout();
                boolean fitting = reads ? reads(path, file, layout) : survey.isLike(layout);
                if (!fitting || !isOf(layout, numbers, sheet)) {
                    continue;
                }
                Fit fit = new Fit(path, layout);
                fits.putIfAbsent(layout.name() + "\n" + path, fit);
                if (RunSheet.matches(file.getFileName().toString(), entry.names())) {
                    byName.add(fit);
                }
            }
        }
        return fits.size() > 1 && byName.size() == 1 ? byName : List.copyOf(fits.values());
    }

    // All columns are there, and most rows can be read.
    private static boolean reads(Path sheet, Path file, Layout layout) throws IOException, SettingsException {
        RunReport report = Mivrel.open(sheet, null, file, layout).check().report();
        Map<FindingRule, Long> counts = report.findings().counts();
        long records = report.files().stream().mapToLong(IntakeTally::records).sum();
        long unread = counts.getOrDefault(Rule.DATE_UNREADABLE, 0L) + counts.getOrDefault(Rule.AMOUNT_UNREADABLE, 0L);
        return FORM.stream().noneMatch(counts::containsKey) && records > 0 && 2 * unread < records;
    }

    private static boolean isOf(Layout layout, Set<String> numbers, RunSheet sheet) {
        Account account = sheet.books().account(layout.account());
        return numbers.isEmpty()
                || Layout.BY_NUMBER.equals(layout.account())
                || account == null
                || account.numbers().isEmpty()
                || numbers.stream().allMatch(number -> account.hasNumber(number, account.currency()));
    }

    @Override
    public void close() throws IOException {
        lock.release();
        channel.close();
    }
}
