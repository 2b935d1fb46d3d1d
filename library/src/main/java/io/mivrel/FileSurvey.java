package io.mivrel;

import io.mivrel.files.SourceFiles;
import io.mivrel.files.settings.LayoutReader;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.Kinds;
import io.mivrel.layout.Layout;
import io.mivrel.likeness.Comparison;
import io.mivrel.likeness.LinkFinder;
import io.mivrel.model.Kind;
import io.mivrel.report.SurveyJson;
import io.mivrel.report.SurveyText;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.run.Progress;
import io.mivrel.survey.Answers;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Proposal;
import io.mivrel.survey.Survey;
import io.mivrel.survey.Surveyor;
import io.mivrel.survey.files.LinkedFile;
import io.mivrel.survey.files.SurveyFile;
import io.mivrel.survey.settings.LayoutMender;
import io.mivrel.survey.settings.ProposalFile;
import io.mivrel.text.Printable;
import io.mivrel.text.TradeWords;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** A look at an unknown file: what it is, what its reading is proved by, and a layout that reads it. */
public final class FileSurvey {
    private final SurveyFile file;
    private final Survey survey;

    private FileSurvey(SurveyFile file, Survey survey) {
        this.file = file;
        this.survey = survey;
    }

    /** Surveys a file of any kind that is read. */
    public static FileSurvey of(Path file) throws IOException {
        return of(file, file.getFileName().toString(), Answers.NONE, Progress.NONE);
    }

    /**
     * The same.
     *
     * @param shown how the file is called
     * @param answers what somebody says of it, by what a survey would ask about: {@code gives}, {@code currency}, {@code
     *     sheet}, {@code date} and so on
     * @param progress hears how many rows were read
     */
    public static FileSurvey of(Path file, String shown, Answers answers, Progress progress) throws IOException {
        return of(file, shown, answers, Kinds.ALL, progress);
    }

    /** The same with the kinds that the rows may be of: {@link Kinds#ALL}, and behind them a program's own. */
    public static FileSurvey of(Path file, String shown, Answers answers, List<Kind> kinds, Progress progress)
            throws IOException {
        String name = Printable.of(shown);
        SurveyFile surveyed = new SurveyFile(file, answers);
        try {
            return new FileSurvey(
                    surveyed,
                    new Surveyor(name, surveyed, answers, kinds, progress)
                            .survey()
                            .answered(answers.all()));
        } catch (UnreadableFileException e) {
            String next = e.suggestion().isEmpty() ? "" : "; " + e.suggestion();
            throw new IOException(name + ": " + e.getMessage() + next, e);
        }
    }

    /**
     * Surveys files together that belong together by keys, two to four of them; {@code null} when they do not, or not in one
     * way only.
     */
    public static @Nullable FileSurvey together(List<FileSurvey> files, Progress progress) throws IOException {
        List<LinkFinder.Member> members = files.stream()
                .map(f -> new LinkFinder.Member(f.survey, () -> f.file.open(f.survey.facts())))
                .toList();
        Path folder =
                Objects.requireNonNull(files.get(0).file.file().toAbsolutePath().getParent());
        boolean beside =
                files.stream().allMatch(f -> f.file.file().toAbsolutePath().equals(folder.resolve(f.survey.file())));
        LinkFinder.Links links = beside ? LinkFinder.find(members) : null;
        if (links == null) {
            return null;
        }
        FileSurvey main = files.get(links.main());
        LinkedFile linked = new LinkedFile(main.file, members.get(links.main()).format(), links.links());
        Survey survey = new Surveyor(main.survey.file(), linked, progress).survey();
        return new FileSurvey(main.file, survey.linked(links.links(), links.proofs(), main.survey));
    }

    /**
     * Adds words by which columns, labels and texts are known, to those in the survey's own table, for all surveys of this
     * program that follow. A line is a meaning, a colon, and words with strokes between them, such as {@code amount: montant
     * TTC | summa}. Throws {@link IOException} that says which line is wrong.
     */
    public static void learnWords(Path words) throws IOException {
        TradeWords.learn(words);
    }

    public Survey survey() {
        return survey;
    }

    /** The file itself. */
    public Path path() {
        return file.file();
    }

    /** All rows as text, with what stands above and below the data, at most so many. */
    public List<List<String>> rows(int most) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        try (RowSource source = file.open(survey.facts())) {
            for (Row row = source.next(); row != null && rows.size() < most; row = source.next()) {
                if (row.ended() == null) {
                    List<String> cells = new ArrayList<>();
                    for (int i = 0; i < row.size(); i++) {
                        cells.add(row.trimmed(i));
                    }
                    rows.add(cells);
                }
            }
        }
        return rows;
    }

    /** The bank accounts that its statements name, in their order; empty for a file without statements. */
    public Set<String> accountNumbers() throws IOException {
        Set<String> numbers = new LinkedHashSet<>();
        if (survey.facts().kind().isStatement()) {
            try (RowSource source = file.open(survey.facts())) {
                for (Row row = source.next(); row != null; row = source.next()) {
                    String number = row.ended() == null ? null : row.ended().account();
                    if (number != null) {
                        numbers.add(number);
                    }
                }
            }
        }
        return numbers;
    }

    /** True when nothing is asked and everything that was tried by arithmetic holds. */
    public boolean isSettled() {
        return survey.open().isEmpty()
                && !survey.proofs().isEmpty()
                && survey.proofs().stream().allMatch(Survey.Proof::holds);
    }

    /** The survey on one screen. */
    public String text() {
        return SurveyText.of(survey);
    }

    /** The proposed layout as YAML; what the file does not tell is a question in it. */
    public String layout() {
        return ProposalFile.text(survey);
    }

    /** The same with answers to its questions, by what they are about. */
    public String layout(Map<String, String> answers) {
        return ProposalFile.text(survey.answered(answers));
    }

    /** The survey for machines, the proposed layout in it. */
    public String json() {
        return SurveyJson.of(survey, layout());
    }

    /** What files that one layout reads have in common: their kind, and the titles or the number of their columns. */
    public String form() {
        FileProfile facts = survey.facts();
        String columns = survey.titlesRow() > 0 || facts.print() != null
                ? survey.columns().stream()
                        .map(ColumnSurvey::title)
                        .filter(t -> !t.equals("line"))
                        .collect(Collectors.joining(", "))
                : facts.kind().isStatement() ? "" : survey.columns().size() + " columns without titles";
        String divided = facts.kind() == FileKind.SEPARATED ? " by '" + facts.separator() + "'" : "";
        return facts.words() + divided + (columns.isEmpty() ? "" : ": " + columns);
    }

    /** True when a layout reads the file, and reads what it holds. */
    public boolean isLike(Layout layout) {
        return layout.gives() == survey.gives() && Comparison.of(survey, layout).isLike();
    }

    /** The first records side by side: each cell as it stands in the file, and the field that it is read as. */
    public String preview(int most) throws IOException {
        if (survey.gives() == null || survey.pattern() == null) {
            return "  no preview: the survey could not tell which column is what\n";
        }
        Layout proposed = Proposal.layout(survey);
        return survey.fanOut().isEmpty() && survey.links().isEmpty()
                ? Preview.of(survey, proposed, () -> file.open(survey.facts()), most)
                : Preview.of(survey, proposed, () -> SourceFiles.open(file.file(), survey.file(), proposed), most);
    }

    /**
     * What a comparison with a layout says; {@code isKind} tells whether both are of the same kind of
     * records, {@code onlyTitles} whether other titles are all that keeps the layout from reading the file, and {@code mended} is the text of a layout that reads both forms, empty when a
     * change of titles is not all that is needed.
     */
    public record LayoutMatch(boolean isLike, boolean isKind, boolean onlyTitles, String text, String mended) {}

    /**
     * Compares the file with a layout that was made for an earlier one; throws with the problems of the layout when it
     * cannot be used.
     *
     * @param layout the layout's file
     * @param preview how many rows to show before and after, as the layout reads them
     */
    public LayoutMatch like(Path layout, int preview) throws IOException, SettingsException {
        Layout read = LayoutReader.read(layout);
        Comparison comparison = Comparison.of(survey, read);
        String rows = preview == 0
                ? ""
                : "\n" + Preview.of(survey, read, () -> SourceFiles.open(file.file(), survey.file(), read), preview);
        boolean mends = !comparison.renamed().isEmpty() || !comparison.fresh().isEmpty();
        String mended = mends ? LayoutMender.mend(layout, comparison.renamed(), comparison.fresh()) : "";
        return new LayoutMatch(
                comparison.isLike(),
                read.gives() == survey.gives(),
                comparison.onlyTitles(survey),
                SurveyText.likeness(survey, read, comparison) + rows,
                mended);
    }
}
