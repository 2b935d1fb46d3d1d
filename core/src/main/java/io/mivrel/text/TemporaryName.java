package io.mivrel.text;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.ThreadLocalRandom;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Names of files and folders that are not finished. They say which process writes them, so that what a killed one has left is
 * known and can go.
 */
public final class TemporaryName {
    private static final Pattern NAME = Pattern.compile("\\..+\\.([0-9a-f]+)-([0-9]+)-[0-9a-f]+\\.(part|staged)");
    /** Of another machine, or of this one before it was started, nobody can tell whether the process lives. */
    private static final Duration LONG_AGO = Duration.ofDays(1);

    private static final String MACHINE = Integer.toHexString(machine());

    private TemporaryName() {}

    /** A hidden name beside the one that it is to get; {@code ending} is {@code part} or {@code staged}. */
    public static String of(String name, String ending) {
        return "." + name + "." + MACHINE + "-" + ProcessHandle.current().pid() + "-"
                + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "." + ending;
    }

    /** True for what a process left that is no more. */
    public static boolean isAbandoned(Path file) throws IOException {
        Matcher name = NAME.matcher(file.getFileName().toString());
        if (!name.matches()) {
            return false;
        }
        if (!name.group(1).equals(MACHINE)) {
            return Files.getLastModifiedTime(file)
                    .toInstant()
                    .isBefore(Instant.now().minus(LONG_AGO));
        }
        return ProcessHandle.of(Long.parseLong(name.group(2))).isEmpty();
    }

    // Of this start of this machine, where the system tells that.
    private static int machine() {
        try {
            return Files.readString(Path.of("/proc/sys/kernel/random/boot_id")).hashCode();
        } catch (IOException elsewhere) {
            return System.getProperty("user.name", "").hashCode();
        }
    }
}
