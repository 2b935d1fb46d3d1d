package io.mivrel.cli;

import io.mivrel.FileSurvey;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.concurrent.Callable;
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
            "",
            "What the file does not tell is asked, never assumed: a run refuses a layout with a question in it.",
            "Reads separated text (comma, semicolon, tab, pipe).",
            "",
            "Exit status: 0 nothing to ask and all proofs hold, 1 a question or a proof that fails,",
            "2 the command is wrong, 3 a file failed."
        })
final class SurveyCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", arity = "1..*", description = "the files to look at")
    private List<Path> files;

    @Option(
            names = "--write",
            paramLabel = "LAYOUT",
            description = "write the proposed layout; the file must not exist")
    private Path write;

    @Option(names = "--preview", paramLabel = "N", description = "show the first N rows before and after")
    private int preview;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (write != null && files.size() > 1) {
            throw new ParameterException(spec.commandLine(), "--write takes one file at a time");
        }
        PrintWriter out = spec.commandLine().getOut();
        boolean settled = true;
        for (Path file : files) {
            FileSurvey survey = FileSurvey.of(file);
            settled &= survey.isSettled();
            out.print(survey.text());
            if (preview > 0) {
                out.print("\n" + survey.preview(preview));
            }
            if (write != null) {
                write(survey);
                out.println("\n  layout: " + write);
            } else {
                out.println("\n  next: mivrel survey " + file + " --write LAYOUT.yaml");
            }
        }
        return settled ? 0 : 1;
    }

    private void write(FileSurvey survey) throws Exception {
        try {
            Files.writeString(write, survey.layout(), StandardCharsets.UTF_8, StandardOpenOption.CREATE_NEW);
        } catch (FileAlreadyExistsException e) {
            throw new ParameterException(spec.commandLine(), write + " exists and is not overwritten");
        }
    }
}
