package io.mivrel.examples;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The demo data: Larkmoor Bell Foundry, made up, with every kind of disorder that Mivrel deals with. */
public final class DemoData {
    /** The run sheets, in the order of the story. */
    public static final List<String> RUN_SHEETS = List.of("bank.yaml", "ledger.yaml", "invoices.yaml");

    private DemoData() {}

    /** Unpacks all files into a new folder; throws {@link IOException} when it exists and is not empty. */
    public static void unpack(Path folder) throws IOException {
        if (Files.exists(folder)) {
            if (!Files.isDirectory(folder)) {
                throw new IOException(folder + ": is a file; name a new folder");
            }
            try (var inside = Files.list(folder)) {
                if (inside.findAny().isPresent()) {
                    throw new IOException(folder + ": exists already and is not empty; name a new folder");
                }
            }
        }
        for (String name : names()) {
            Path target = folder.resolve(name);
            Files.createDirectories(target.getParent());
            try (InputStream in = open(name)) {
                Files.copy(in, target);
            }
        }
    }

    /** The examples that can be started, each by the name of its class. */
    public static final List<String> EXAMPLES = List.of(
            RunSheetExample.class.getName(),
            InCodeExample.class.getName(),
            StageByStageExample.class.getName(),
            OwnLedgerExample.class.getName());

    /**
     * Unpacks all files for an example: into the folder that its first word names, or into a new one that is called after it.
     * Says so, and answers the folder.
     */
    static Path unpackFor(String[] words, String example) throws IOException {
        Path folder = words.length > 0 ? Path.of(words[0]) : Path.of(example);
        for (int n = 2; words.length == 0 && Files.exists(folder); n++) {
            folder = Path.of(example + "-" + n);
        }
        unpack(folder);
        System.out.println("the demo data lies in " + folder);
        return folder;
    }

    private static List<String> names() throws IOException {
        try (BufferedReader reader =
                new BufferedReader(new InputStreamReader(open("files.txt"), StandardCharsets.UTF_8))) {
            return reader.lines().filter(line -> !line.isBlank()).toList();
        }
    }

    private static InputStream open(String name) throws IOException {
        InputStream in = DemoData.class.getResourceAsStream("/demo/" + name);
        if (in == null) {
            throw new IOException("the demo data lacks " + name);
        }
        return in;
    }
}
