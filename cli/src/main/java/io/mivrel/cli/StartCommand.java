package io.mivrel.cli;

import io.mivrel.Outcome;
import io.mivrel.files.settings.AnswersFile;
import io.mivrel.start.CompanySetup;
import io.mivrel.start.StartQuestion;
import io.mivrel.start.WrongAnswerException;
import io.mivrel.text.Printable;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintWriter;
import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel start}: from raw files to a company folder that works. */
@Command(
        name = "start",
        mixinStandardHelpOptions = true,
        header = "Makes a company folder from raw files, asking only what they do not tell.",
        description = {
            "",
            "Looks at the files, asks in plain words for what they leave open, and writes books, layouts, a coding"
                    + " table, deliveries and run sheets that work. Run it again in the same folder for a second bank"
                    + " account or the old ledger. Nothing is overwritten."
        },
        synopsisHeading = "%n",
        parameterListHeading = "%n",
        optionListHeading = "%n",
        footer = {
            "",
            "Examples:",
            "  mivrel start download-2027-03.csv                 into the folder you are in",
            "  mivrel start download.csv chart.csv --in foundry  with a chart that another program exported",
            "  mivrel start statement.sta --in foundry --answer company=\"Larkmoor Bell Foundry\" \\",
            "      --answer currency=GBP --answer account=1800   the same in a script",
            "  mivrel start download.csv --template receiver.xlsx   in the form of the receiver's own template",
            "  mivrel start --template receiver.xlsx --in foundry   the same for a company that is there",
            "  mivrel start download.csv --answers answers.yaml  or with the answers in a file, 'company: ...'",
            "",
            "At a terminal each question shows what is taken when you press Enter. In a script what has a usual answer",
            "is taken and told; what has none must be answered. The deliveries to choose from: mivrel help shelf",
            "",
            "Exit status: 0 everything is clear, 1 it works and something is held, 2 an answer is missing or wrong,",
            "3 a file failed."
        })
final class StartCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", arity = "0..*", description = "raw files: statements, ledgers, invoices; a chart")
    private List<Path> files = new ArrayList<>();

    @Option(names = "--in", paramLabel = "FOLDER", defaultValue = "", description = "the company's folder")
    private Path folder;

    @Option(
            names = "--template",
            paramLabel = "FILE",
            description = "the receiver's template, or a file that it took before: deliver in its form")
    private Path template;

    @Option(names = "--chart", paramLabel = "FILE", description = "a file with the chart of accounts")
    private Path chart;

    @Option(
            names = "--answer",
            paramLabel = "QUESTION=ANSWER",
            description = "an answer, such as currency=GBP; as often as you like")
    private List<String> answers = new ArrayList<>();

    @Option(names = "--answers", paramLabel = "FILE", description = "a YAML file of answers, such as 'currency: GBP'")
    private Path answersFile;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        CompanySetup beginning = new CompanySetup(folder);
        PrintWriter out = spec.commandLine().getOut();
        if (files.isEmpty() && template == null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "name a raw file, such as a statement that a bank gave: mivrel start download.csv --in foundry");
        }
        try {
            if (chart != null) {
                beginning.takeChart(chart);
            }
            for (Path file : files) {
                beginning.take(file);
            }
            if (template != null) {
                beginning.takeTemplate(template);
            }
            out.println();
            beginning.reading().forEach(line -> out.println("  " + Printable.of(line)));
            out.flush();
            given().forEach(beginning::ahead);
            if (!ask(beginning)) {
                return Failures.SETTINGS_WRONG;
            }
            if (!beginning.unasked().isEmpty()) {
                spec.commandLine()
                        .getErr()
                        .println("mivrel: not asked for, so not used: " + String.join(", ", beginning.unasked()));
            }
            return end(beginning, beginning.write(), out);
        } catch (WrongAnswerException wrong) {
            throw new ParameterException(spec.commandLine(), Printable.of(wrong.getMessage()));
        }
    }

    private Map<String, String> given() throws Exception {
        Map<String, String> all = new LinkedHashMap<>();
        if (answersFile != null) {
            all.putAll(AnswersFile.read(answersFile));
        }
        for (String answer : answers) {
            int equals = answer.indexOf('=');
            if (equals < 1) {
                throw new ParameterException(
                        spec.commandLine(),
                        "--answer is a question and its answer, such as currency=GBP, not " + answer);
            }
            all.put(answer.substring(0, equals), answer.substring(equals + 1));
        }
        return all;
    }

    // One by one where a person sits; else all that is missing is told at once.
    private boolean ask(CompanySetup beginning) throws IOException, WrongAnswerException {
        boolean person = Screen.isTerminal();
        PrintWriter err = spec.commandLine().getErr();
        // What a person types is in the encoding of the terminal.
        BufferedReader typed = new BufferedReader(new InputStreamReader(System.in, Charset.defaultCharset()));
        for (StartQuestion asked = beginning.next(); asked != null; asked = beginning.next()) {
            if (!person && !beginning.takeUsual(asked)) {
                missing(asked, err);
                return false;
            }
            if (person && !ask(beginning, asked, typed, err)) {
                return false;
            }
        }
        return true;
    }

    private static boolean ask(CompanySetup beginning, StartQuestion asked, BufferedReader typed, PrintWriter err)
            throws IOException {
        show(asked, err);
        while (true) {
            err.print("  " + (asked.usual() == null ? "" : "[" + asked.usual() + "] ") + "> ");
            err.flush();
            String line = typed.readLine();
            if (line == null) {
                err.println();
                return false;
            }
            try {
                beginning.answer(asked, line.isBlank() && asked.usual() != null ? asked.usual() : line);
                return true;
            } catch (WrongAnswerException again) {
                err.println("  " + Printable.of(again.getMessage()));
            }
        }
    }

    private static void show(StartQuestion asked, PrintWriter err) {
        err.println();
        asked.help().forEach(line -> err.println("    " + Printable.of(line)));
        err.println("  " + Printable.of(asked.words()));
        if (asked.help().isEmpty() && asked.choices().size() <= 12) {
            asked.choices().forEach(choice -> err.println("    " + Printable.of(choice.replace("\t", "   "))));
        }
    }

    private static void missing(StartQuestion asked, PrintWriter err) {
        err.println("mivrel: an answer is missing; nothing was written");
        show(asked, err);
        err.println();
        err.println("  give it with --answer " + Shell.quoted(asked.about() + "=...") + ", or answer at a terminal");
    }

    private Integer end(CompanySetup beginning, CompanySetup.Written written, PrintWriter out) throws Exception {
        boolean mended = written.files().stream()
                .anyMatch(f -> f.getParent() != null && f.getParent().endsWith("earlier"));
        out.println(
                mended
                        ? "\n  written; what was there before is kept in 'earlier'"
                        : "\n  written, and nothing overwritten");
        written.files().stream()
                .filter(f -> !f.startsWith(folder.resolve(".mivrel")))
                .forEach(f -> out.println("    " + Printable.of(f.toString())));
        beginning.taken().forEach((about, answer) -> out.println("  taken as usual: " + about + " = " + answer));
        written.told().forEach(line -> out.println("  " + Printable.of(line)));
        int status = 0;
        for (Path sheet : written.runSheets()) {
            status = Math.max(status, check(sheet, out));
        }
        out.flush();
        return status;
    }

    private static int check(Path sheet, PrintWriter out) throws Exception {
        Outcome outcome = RunSheetArgument.openLatest(sheet).check();
        out.print(outcome.brief(Screen.style()));
        OutcomePrinter.samples(RunSheetArgument.openLatest(sheet), outcome, out);
        String shown = Shell.quoted(sheet.toString());
        if (!outcome.uncoded().isEmpty()) {
            out.println("\n  next: put account codes into the coding table, then");
            out.println("  mivrel run " + shown + forMonth(sheet)
                    + "     # what has none comes back in a workbook, in groups");
        } else {
            out.println("\n  next: mivrel run " + shown + forMonth(sheet));
        }
        return outcome.status();
    }

    // Where the files are of several months the run must be told which.
    private static String forMonth(Path sheet) {
        @Nullable String month = RunSheetArgument.latest(sheet);
        return month == null ? "" : " --for " + month;
    }
}
