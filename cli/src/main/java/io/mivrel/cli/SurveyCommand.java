package io.mivrel.cli;

import io.mivrel.FileSurvey;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel survey}: what an unknown file is. */
@Command(
        name = "survey",
        mixinStandardHelpOptions = true,
        header = "Tells what an unknown file is, and proposes a layout for it.",
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel survey inbox/current.csv                     what it is, with the evidence",
            "  mivrel survey inbox/current.csv --preview 5         the first rows, before and after",
            "  mivrel survey inbox/current.csv --write bank.yaml   the proposed layout, with its questions",
            "  mivrel survey inbox/pay.xlsx --sheet Pay            one sheet of a workbook",
            "  mivrel survey inbox/may.csv --like bank.yaml        what has changed since the layout was made",
            "  mivrel survey heads.csv lines.csv                   files that belong together by a key",
            "  mivrel survey -                                     rows pasted on standard input",
            "",
            "What the file does not tell is asked, never assumed: a run refuses a layout with a question in it.",
            "Reads separated and fixed-width text, workbooks (XLSX, XLS, ODS), OFX, camt.053, MT940 and QIF;",
            "the content tells which, never the name of the file.",
            "",
            "Exit status: 0 nothing to ask and all proofs hold, 1 a question or a proof that fails,",
            "2 the command is wrong, 3 a file failed."
        })
final class SurveyCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", arity = "1..*", description = "the files to look at; - for standard input")
    private List<Path> files;

    @Option(
            names = "--write",
            paramLabel = "LAYOUT",
            description = "write the proposed layout; the file must not exist")
    private Path write;

    @Option(
            names = "--like",
            paramLabel = "LAYOUT",
            description = "compare the file with a layout: columns gone, new, renamed, moved, written otherwise")
    private Path like;

    @Option(
            names = "--sheet",
            paramLabel = "SHEET",
            defaultValue = "",
            description = "a sheet of a workbook, by name or place")
    private String sheet;

    @Option(names = "--preview", paramLabel = "N", description = "show the first N rows before and after")
    private int preview;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        boolean pasted = files.stream().anyMatch(f -> f.toString().equals("-"));
        if (files.size() > 1 && like == null && !pasted) {
            return several(out) ? 0 : 1;
        }
        if (files.size() > 1 && write != null) {
            throw new ParameterException(spec.commandLine(), "--write takes one file at a time, or several on disk");
        }
        boolean settled = true;
        for (Path file : files) {
            settled &= survey(file, out);
        }
        return settled ? 0 : 1;
    }

    // As one set when they belong together, else one after the other.
    private boolean several(PrintWriter out) throws Exception {
        List<FileSurvey> all = new ArrayList<>();
        FileSurvey together;
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
            for (Path file : files) {
                all.add(FileSurvey.of(file, file.getFileName().toString(), sheet, counter));
            }
            together = FileSurvey.together(all, counter);
        }
        if (together != null) {
            return tell(together, files.stream().map(Path::toString).collect(Collectors.joining(" ")), out);
        }
        if (write != null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--write takes one file, or several of one folder that belong together by keys");
        }
        boolean settled = true;
        for (int i = 0; i < all.size(); i++) {
            settled &= tell(all.get(i), files.get(i).toString(), out);
        }
        return settled;
    }

    private boolean tell(FileSurvey survey, String named, PrintWriter out) throws Exception {
        out.print(survey.text());
        if (preview > 0) {
            out.print("\n" + survey.preview(preview));
        }
        if (write != null) {
            write(survey);
            out.println("\n  layout: " + write);
        } else {
            out.println("\n  next: mivrel survey " + named + " --write LAYOUT.yaml");
        }
        return survey.isSettled();
    }

    private boolean survey(Path file, PrintWriter out) throws Exception {
        boolean pasted = file.toString().equals("-");
        Path source = pasted ? pasted() : file;
        String name = pasted ? "standard input" : file.getFileName().toString();
        try {
            FileSurvey survey;
            try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
                survey = FileSurvey.of(source, name, sheet, counter);
            }
            if (like != null) {
                FileSurvey.Likeness likeness = survey.like(like, preview);
                out.print(likeness.text());
                return likeness.isLike();
            }
            return tell(survey, pasted ? "-" : file.toString(), out);
        } finally {
            if (pasted) {
                Files.delete(source);
            }
        }
    }

    // A survey reads more than once, so what is pasted is kept for as long.
    private static Path pasted() throws Exception {
        Path kept = Files.createTempFile("mivrel-pasted", ".txt");
        try (InputStream in = System.in) {
            Files.copy(in, kept, StandardCopyOption.REPLACE_EXISTING);
            return kept;
        } catch (Exception e) {
            Files.delete(kept);
            throw e;
        }
    }

    private void write(FileSurvey survey) throws Exception {
        try {
            Files.writeString(write, survey.layout(), StandardCharsets.UTF_8, StandardOpenOption.CREATE_NEW);
        } catch (FileAlreadyExistsException e) {
            throw new ParameterException(spec.commandLine(), write + " exists and is not overwritten");
        }
    }
}
