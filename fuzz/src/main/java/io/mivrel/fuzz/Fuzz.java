package io.mivrel.fuzz;

import java.util.Locale;

/** What the fuzzer calls; the system property {@code mivrel.fuzz} names the reader. */
public final class Fuzz {
    private static final Target TARGET =
            Target.valueOf(System.getProperty("mivrel.fuzz", "separated").toUpperCase(Locale.ROOT));

    private Fuzz() {}

    /** One input of the fuzzer. */
    public static void fuzzerTestOneInput(byte[] input) {
        TARGET.read(input);
    }
}
