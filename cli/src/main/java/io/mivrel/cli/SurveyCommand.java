package io.mivrel.cli;

import io.mivrel.FileSurvey;
import io.mivrel.files.settings.SettingsSchema;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Kind;
import io.mivrel.survey.Answers;
import io.mivrel.text.Printable;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
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
            "  mivrel survey inbox/may.csv --like bank.yaml --write new.yaml   the layout mended for both forms",
            "  mivrel survey odd.csv --gives \"bank lines\"          when the titles do not tell the kind",
            "  mivrel survey dinars.csv --currency KWD             when amounts have other decimals than two",
            "  mivrel survey heads.csv lines.csv                   files that belong together by a key",
            "  mivrel survey inbox                                 the files of a folder, by their form",
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

    @Option(
            names = "--gives",
            paramLabel = "KIND",
            description = "what the rows are, when the survey cannot tell: bank lines, journal lines or invoice lines")
    private String gives;

    @Option(
            names = "--currency",
            paramLabel = "CODE",
            description =
                    "the currency of the amounts where the file states none, such as KWD, whose amounts have three"
                            + " decimals")
    private String currency;

    @Option(
            names = "--answer",
            paramLabel = "ABOUT=ANSWER",
            description = "answer a question of the survey, such as signs=reversed; may be given several times")
    private Map<String, String> answered = new LinkedHashMap<>();

    @Option(
            names = "--words",
            paramLabel = "FILE",
            description = "more words by which columns and labels are known, a line such as 'amount: summa | total'")
    private Path words;

    @Option(names = "--json", description = "print the survey for machines")
    private boolean json;

    @Option(names = "--preview", paramLabel = "N", description = "show the first N rows before and after")
    private int preview;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        if (words != null) {
            FileSurvey.learnWords(words);
        }
        if (files.size() == 1 && Files.isDirectory(files.get(0))) {
            return folder(files.get(0), out);
        }
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
                all.add(FileSurvey.of(file, file.getFileName().toString(), answers(), counter));
            }
            together = FileSurvey.together(all, counter);
        }
        if (together != null) {
            return tell(
                    together,
                    files.stream().map(f -> Shell.quoted(f.toString())).collect(Collectors.joining(" ")),
                    out);
        }
        if (write != null) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--write takes one file, or several of one folder that belong together by keys");
        }
        boolean settled = true;
        for (int i = 0; i < all.size(); i++) {
            settled &= tell(all.get(i), Shell.quoted(files.get(i).toString()), out);
        }
        return settled;
    }

    // Each form with its files, the most usual first.
    private int folder(Path folder, PrintWriter out) throws Exception {
        Map<String, List<String>> forms = new LinkedHashMap<>();
        Map<String, Path> first = new LinkedHashMap<>();
        List<String> others = new ArrayList<>();
        List<Path> all;
        try (Stream<Path> inside = Files.list(folder)) {
            all = inside.filter(f -> Files.isRegularFile(f)
                            && !f.getFileName().toString().startsWith("."))
                    .sorted()
                    .toList();
        }
        try (Screen.Counter counter = new Screen.Counter(spec.commandLine().getErr())) {
            for (Path file : all) {
                String name = Printable.of(file.getFileName().toString());
                try {
                    String form = FileSurvey.of(file, name, answers(), counter).form();
                    forms.computeIfAbsent(form, f -> new ArrayList<>()).add(name);
                    first.putIfAbsent(form, file);
                } catch (IOException unreadable) {
                    others.add(name + ": " + unreadable.getMessage().replace(name + ": ", ""));
                }
            }
        }
        out.println("\n" + Printable.of(folder.toString()) + ": " + all.size()
                + (all.size() == 1 ? " file, " : " files, ") + forms.size() + (forms.size() == 1 ? " form" : " forms"));
        forms.entrySet().stream()
                .sorted(Comparator.comparing(form -> -form.getValue().size()))
                .forEach(form -> {
                    out.println("\n  " + form.getKey());
                    form.getValue().forEach(name -> out.println("    " + name));
                    out.println("  next: mivrel survey "
                            + Shell.quoted(first.get(form.getKey()).toString()) + " --write LAYOUT.yaml");
                });
        if (!others.isEmpty()) {
            out.println("\n  not read");
            others.forEach(name -> out.println("    " + name));
        }
        return others.isEmpty() ? 0 : 1;
    }

    // What was said on the way here belongs to the next step too.
    private String said() {
        StringBuilder words = new StringBuilder();
        words.append(sheet.isEmpty() ? "" : " --sheet " + Shell.quoted(sheet));
        words.append(gives == null ? "" : " --gives " + Shell.quoted(gives));
        words.append(currency == null ? "" : " --currency " + currency);
        answered.forEach((about, answer) -> words.append(" --answer ").append(Shell.quoted(about + "=" + answer)));
        return words.toString();
    }

    private Answers answers() {
        Map<String, String> said = new LinkedHashMap<>();
        answered.forEach((about, answer) -> said.put(about.strip(), answer.strip()));
        if (!sheet.isEmpty()) {
            said.put("sheet", sheet);
        }
        if (gives != null) {
            said.put("gives", gives);
        }
        if (currency != null) {
            said.put("currency", currency);
        }
        if (said.containsKey("gives") && Kinds.ofRecords(said.get("gives")).isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--gives is one of "
                            + Kinds.ALL.stream().map(Kind::name).collect(Collectors.joining(", ")) + ", not "
                            + said.get("gives"));
        }
        try {
            Answers answers = new Answers(said);
            answers.currency();
            return answers;
        } catch (IllegalArgumentException unknown) {
            throw new ParameterException(
                    spec.commandLine(),
                    "--currency is a code of ISO 4217, such as EUR or KWD, not " + said.get("currency"));
        }
    }

    private boolean tell(FileSurvey survey, String named, PrintWriter out) throws Exception {
        if (json) {
            out.println(survey.json());
            if (write != null) {
                write(survey.layout());
            }
            return survey.isSettled();
        }
        out.print(survey.text());
        if (!survey.survey().hasAmounts()) {
            out.println("\n  no column of amounts was found, so the layout reads nothing yet; where amounts have other"
                    + " decimals than two, say the currency: --currency KWD");
        }
        if (preview > 0) {
            out.print("\n" + survey.preview(preview));
        }
        if (write != null) {
            write(survey.layout());
            out.println("\n  layout: " + write);
            int open = survey.survey().open().size();
            if (open > 0) {
                out.println("  answer its " + (open == 1 ? "question" : open + " questions")
                        + ": a value that begins with a question mark");
            }
            out.println("  then name it in a run sheet: intake: [{files: "
                    + Shell.quoted(survey.survey().file()) + ", layout: " + Shell.quoted(write.toString()) + "}]");
            out.println("  or have all of it asked and written:");
            out.println("  next: mivrel start " + named);
        } else if (survey.survey().question("gives") != null) {
            String likely = Kinds.ALL.stream()
                    .map(Kind::name)
                    .filter(survey.survey().why()::contains)
                    .findFirst()
                    .orElse(BankLines.KIND.name());
            out.println("\n  next: mivrel survey " + named + " --gives " + Shell.quoted(likely));
        } else {
            out.println("\n  next: mivrel survey " + named + said() + " --write LAYOUT.yaml");
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
                survey = FileSurvey.of(source, name, answers(), counter);
            }
            if (like != null) {
                FileSurvey.LayoutMatch likeness = survey.like(like, preview);
                out.print(likeness.text());
                if (write != null && likeness.mended().isEmpty()) {
                    out.println("\n  nothing that other titles would mend; no layout was written");
                } else if (write != null) {
                    write(likeness.mended());
                    out.println("\n  layout: " + write + ", for files of both forms");
                } else if (!likeness.mended().isEmpty()) {
                    out.println("\n  next: mivrel survey " + Shell.quoted(file.toString()) + " --like "
                            + Shell.quoted(like.toString()) + " --write NEW.yaml");
                }
                return likeness.isLike();
            }
            return tell(survey, pasted ? "-" : Shell.quoted(file.toString()), out);
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

    // Within a company's folder the layout names its schema, for editors.
    private String schema() {
        Path folder = write.toAbsolutePath().normalize().getParent();
        for (int depth = 0; folder != null && depth < 4; depth++) {
            if (Files.isDirectory(folder.resolve(SettingsSchema.FOLDER))) {
                return SettingsSchema.line("layout", depth);
            }
            folder = folder.getParent();
        }
        return "";
    }

    private void write(String layout) throws Exception {
        try {
            Files.writeString(write, schema() + layout, StandardCharsets.UTF_8, StandardOpenOption.CREATE_NEW);
        } catch (FileAlreadyExistsException e) {
            throw new ParameterException(spec.commandLine(), write + " exists and is not overwritten");
        }
    }
}
