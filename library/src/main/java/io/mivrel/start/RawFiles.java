package io.mivrel.start;

import io.mivrel.FileSurvey;
import io.mivrel.files.settings.RunSheet;
import io.mivrel.model.Kind;
import io.mivrel.run.Progress;
import io.mivrel.survey.Answers;
import io.mivrel.survey.FileProfile;
import io.mivrel.text.DateNames;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Raw files of one form: one layout reads them all. */
final class RawFiles {
    private static final Pattern WORD = Pattern.compile("\\p{L}+");

    final List<Path> files = new ArrayList<>();
    /** A look at the first of them. */
    FileSurvey survey;
    /** What was said of it when it was looked at. */
    private Answers answers = Answers.NONE;
    /** What its settings are called: the name of the file without its figures and months. */
    String slug;
    /** A layout of the folder that was made for such a file; {@code null} for none. */
    @Nullable
    Path like;
    /** Whether it is in another form than that layout reads, and called as the files of its run sheet are. */
    boolean isChanged;
    /** The account of that layout; {@code null} when it has none. */
    @Nullable
    String account;
    /** How its amounts are signed; {@code null} where nothing is known of it. */
    @Nullable
    String signs;
    /** What is different from that. */
    FileSurvey.@Nullable LayoutMatch likeness;
    /** What a list of invoices tells about the books; {@code null} until it is asked for. */
    @Nullable
    InvoiceFacts facts;

    RawFiles(Path file, FileSurvey survey) {
        this.files.add(file);
        this.survey = survey;
        String name = file.getFileName().toString().replaceFirst("\\.[^.]*$", "");
        String plain = Arrays.stream(name.toLowerCase(Locale.ROOT).split("[^\\p{L}]+"))
                .filter(word -> !word.isEmpty() && !DateNames.isMonth(word))
                .collect(Collectors.joining("-"));
        this.slug = plain.isEmpty() ? "file" : plain.length() > 30 ? plain.substring(0, 30) : plain;
    }

    @Nullable
    Kind gives() {
        return survey.survey().gives();
    }

    /** The currency that the files state, where it is not that of the books; {@code null} when it is, or none is stated. */
    @Nullable
    String foreign(@Nullable String home) {
        FileProfile facts = survey.survey().facts();
        String stated = facts.currency().getCurrencyCode();
        return facts.currencyStated() && !stated.equals(home) ? stated : null;
    }

    /** Looks once more, knowing what a person says of it. */
    void look(String about, String answer) throws IOException {
        answers = answers.with(about, answer);
        Path file = files.get(0);
        survey = FileSurvey.of(file, file.getFileName().toString(), answers, Progress.NONE);
    }

    /** Looks once more, knowing the currency of the books, where its amounts have other decimals than most. */
    void look(Currency currency) throws IOException {
        if (currency.getDefaultFractionDigits() != FileProfile.ASSUMED.getDefaultFractionDigits()) {
            look("currency", currency.getCurrencyCode());
        }
    }

    /**
     * The names of these files and of those that follow month after month: a star for figures and months in the name, where
     * there are any and no other file is meant by it.
     */
    String pattern(List<Path> others) {
        String name = files.get(0).getFileName().toString();
        int dot = name.lastIndexOf('.');
        String ending = dot < 0 ? "" : name.substring(dot);
        String star = WORD.matcher(dot < 0 ? name : name.substring(0, dot))
                        .replaceAll(word -> DateNames.isMonth(word.group()) ? "*" : word.group())
                        .replaceAll("[0-9]+", "*")
                        .replaceAll("\\*([-_. ]?\\*)+", "*")
                + ending;
        boolean ofAll =
                files.stream().allMatch(f -> RunSheet.matches(f.getFileName().toString(), star));
        boolean ofOthers = others.stream()
                .anyMatch(f ->
                        !files.contains(f) && RunSheet.matches(f.getFileName().toString(), star));
        return star.contains("*") && ofAll && !ofOthers ? star : files.size() == 1 ? name : "";
    }
}
