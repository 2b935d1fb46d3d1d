package io.mivrel.start;

import io.mivrel.FileSurvey;
import io.mivrel.Mivrel;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.kinds.Kinds;
import io.mivrel.layout.Signs;
import io.mivrel.model.Kind;
import io.mivrel.shape.FanOut;
import io.mivrel.survey.Survey;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** What is asked about raw files: what the survey could not tell, their account, and what becomes of their documents. */
final class FileQuestions {
    static final String SAME = "same";
    static final String DELIVER = "deliver";
    static final String RATES = "rates";
    private static final String UNCODED = "uncoded";
    private static final String ACCOUNT = "account";
    private static final String SIGNS = "signs";
    private static final String HOLD = "hold";
    private static final int SAMPLE_ROWS = 3;
    private final CompanySetup beginning;
    private final StartBooks books;
    private final Map<String, String> answers;

    FileQuestions(CompanySetup beginning, StartBooks books, Map<String, String> answers) {
        this.beginning = beginning;
        this.books = books;
        this.answers = answers;
    }

    /** The next question about files of a form; {@code null} when none is open. */
    @Nullable
    StartQuestion open(RawFiles group) throws IOException {
        String prefix = beginning.prefixOf(group);
        String name = group.files.get(0).getFileName().toString();
        StartQuestion asked = aboutForm(group, prefix, name);
        if (asked != null || beginning.isSame(group) && !group.isChanged) {
            return asked;
        }
        if (beginning.isSame(group)) {
            // The account stays what it is.
            if (group.account != null) {
                answers.putIfAbsent(prefix + ACCOUNT, group.account);
            }
            return aboutReading(group, prefix, name);
        }
        asked = aboutReading(group, prefix, name);
        if (asked == null) {
            asked = aboutTax(group, prefix, name);
        }
        return asked != null ? asked : aboutDocuments(group, prefix, name);
    }

    private @Nullable StartQuestion aboutForm(RawFiles group, String prefix, String name) {
        FileSurvey.LayoutMatch likeness = group.likeness;
        if (group.isChanged && !answers.containsKey(prefix + SAME)) {
            String layout = String.valueOf(Objects.requireNonNull(group.like).getFileName());
            return StartQuestion.of(
                            prefix + SAME,
                            name + ": is it a later file of what " + layout
                                    + " was made for, in a form that has changed? Then it gets a layout of its own beside that")
                    .choosing(List.of("yes", "no"));
        }
        if (likeness == null || answers.containsKey(prefix + SAME)) {
            return null;
        }
        boolean mended = !likeness.mended().isEmpty();
        return StartQuestion.of(
                        prefix + SAME,
                        name + ": is it a later file of what "
                                + Objects.requireNonNull(group.like).getFileName() + " was made for"
                                + (mended ? ", with its columns changed as told above?" : "?"))
                .choosing(List.of("yes", "no"))
                .showing(mended ? likeness.text().lines().toList() : List.of());
    }

    // What the survey could not tell, and which accounts are meant.
    private @Nullable StartQuestion aboutReading(RawFiles group, String prefix, String name) throws IOException {
        for (Survey.Question question : group.survey.survey().open()) {
            if (!answers.containsKey(prefix + question.about())
                    && !question.about().equals("accounts")) {
                return ofSurvey(group, question, prefix, name);
            }
        }
        StartQuestion owed = aboutOwed(group, prefix, name);
        if (owed != null) {
            return owed;
        }
        for (FanOut.Amount line : group.survey.survey().fanOut()) {
            String about = prefix + Survey.accountOf(line);
            if (!answers.containsKey(about)) {
                List<String> codes = new ArrayList<>(books.accounts(false));
                codes.add(Survey.NOT_POSTED + "\tnot posted");
                return StartQuestion.of(
                                about, name + ": which account is a " + line.side() + " of '" + line.column() + "'?")
                        .choosing(codes);
            }
        }
        for (String number : group.survey.accountNumbers()) {
            boolean byNumber = group.survey.survey().question(ACCOUNT) == null;
            if (byNumber && books.codeOf(number) == null && !answers.containsKey(prefix + ACCOUNT + " " + number)) {
                return StartQuestion.of(
                                prefix + ACCOUNT + " " + number, name + ": which account is the bank's " + number + "?")
                        .choosing(books.accounts(true));
            }
        }
        return null;
    }

    // The account is a card or a loan, and arithmetic leaves open whether the balance of the file is what is owed.
    private @Nullable StartQuestion aboutOwed(RawFiles group, String prefix, String name) {
        Survey survey = group.survey.survey();
        String account = answers.get(prefix + ACCOUNT);
        if (account == null || !survey.mayBeOwed() || !books.isOwed(account) || answers.containsKey(prefix + SIGNS)) {
            return null;
        }
        Signs here = survey.refinement().signs();
        Signs owed = here == Signs.REVERSED ? Signs.BALANCE_REVERSED : Signs.ALL_REVERSED;
        return StartQuestion.of(
                        prefix + SIGNS,
                        name + ": are its balances what is owed on " + account + "? Then '" + owed.word() + "', else '"
                                + here.word() + "'")
                .choosing(List.of(owed.word(), here.word()))
                .showing(
                        List.of(Objects.requireNonNull(survey.question(ACCOUNT)).words()))
                .usually(owed.word());
    }

    private @Nullable StartQuestion aboutDocuments(RawFiles group, String prefix, String name) throws IOException {
        Kind gives = group.gives();
        if (gives == null) {
            throw new IOException(name + ": what its rows are could not be found out; see: mivrel survey " + name);
        }
        if (!group.survey.survey().hasAmounts()) {
            throw new IOException(name + ": no column of amounts was found; see: mivrel survey " + name
                    + ", and --currency where its amounts have other decimals than two");
        }
        if (!answers.containsKey(prefix + DELIVER) && beginning.template() != null) {
            StartQuestion asked = aboutTemplate(group, gives);
            if (asked != null) {
                return asked;
            }
            answers.put(prefix + DELIVER, beginning.template().name());
        }
        if (!answers.containsKey(prefix + DELIVER)) {
            return deliveries(group, gives);
        }
        if (gives.isOfAccount() && isCoded(group) && !answers.containsKey(prefix + UNCODED)) {
            List<String> choices = new ArrayList<>(List.of(HOLD + "\tuntil the coding table decides"));
            choices.addAll(books.accounts(false));
            return StartQuestion.of(
                            prefix + UNCODED,
                            "What becomes of lines that no entry of the coding table decides? '" + HOLD
                                    + "', or a suspense account")
                    .choosing(choices)
                    .usually(HOLD);
        }
        return null;
    }

    // What the receiver's template does not tell of documents as these.
    private @Nullable StartQuestion aboutTemplate(RawFiles group, Kind gives) throws IOException {
        DeliveryFromTemplate template = Objects.requireNonNull(beginning.template());
        if (!template.isShown()) {
            template.among(Kinds.ALL.stream()
                    .filter(kind -> fits(kind.documents(), group, gives))
                    .toList());
        }
        Kind takes = template.takes();
        if (takes != null && !template.isShown()) {
            template.showing(ownValues(group, takes));
        }
        return beginning.openOfTemplate();
    }

    // Without rates, foreign amounts are no journals in the currency of the books.
    private boolean fits(String takes, RawFiles group, Kind gives) {
        boolean journals = takes.equals("journals") && gives.hasJournal() && group.foreign(books.currency()) == null;
        return takes.equals(gives.documents()) || journals;
    }

    // The first values of each field of the user's own documents; empty when there are none yet.
    private Map<String, List<String>> ownValues(RawFiles group, Kind takes) {
        Shelf.Shape shape = Shelf.shapes().stream()
                .filter(s -> s.takes().equals(takes.documents()))
                .findFirst()
                .orElseThrow();
        return tried(group, shape, run -> DeliveryFromTemplate.ownValues(run, takes), Map.of());
    }

    // What the tax codes of invoices are, where neither the books nor the figures tell.
    private @Nullable StartQuestion aboutTax(RawFiles group, String prefix, String name) throws IOException {
        InvoiceFacts facts = InvoiceFacts.of(group);
        if (facts == null || books.there() != null) {
            return null;
        }
        if (!facts.unknownRates().isEmpty() && !answers.containsKey(prefix + RATES)) {
            return StartQuestion.of(
                    prefix + RATES,
                    name + ": how many per cent is each of these tax codes: "
                            + String.join(", ", facts.unknownRates()) + "? Write "
                            + facts.unknownRates().iterator().next() + ": 20, ...");
        }
        return facts.taxCodes().isEmpty() ? null : books.aboutTaxAccount();
    }

    private StartQuestion ofSurvey(RawFiles group, Survey.Question question, String prefix, String name)
            throws IOException {
        String about = prefix + question.about();
        StartQuestion asked = StartQuestion.of(about, name + ": " + question.words());
        return switch (question.about()) {
            case ACCOUNT -> {
                List<String> money = books.accounts(true);
                Set<String> numbers = group.survey.accountNumbers();
                String known =
                        numbers.size() == 1 ? books.codeOf(numbers.iterator().next()) : null;
                yield StartQuestion.of(about, name + ": which account of the chart is this one?")
                        .choosing(books.accounts(false))
                        .showing((money.isEmpty() ? books.likely() : money)
                                .stream().map(m -> m.replace("\t", "  ")).toList())
                        .usually(known);
            }
            case "gives" -> asked.choosing(Kinds.ALL.stream().map(Kind::name).toList());
            // A later form of a file is likely to count as the earlier one did; that is told.
            case SIGNS -> asked.choosing(Signs.words()).usually(group.signs);
            case "credits" -> asked.choosing(List.of("positive", "negative"));
            case "encoding" -> asked.usually(group.survey.survey().facts().encoding());
            case "sheet" ->
                asked.choosing(group.survey.survey().facts().parts())
                        .usually(group.survey.survey().facts().part());
            default -> asked;
        };
    }

    private boolean isCoded(RawFiles group) {
        return beginning.shapesOf(group).stream().anyMatch(s -> s.takes().equals("journals"));
    }

    private StartQuestion deliveries(RawFiles group, Kind gives) {
        List<String> choices = new ArrayList<>();
        List<String> samples = new ArrayList<>();
        for (Shelf.Shape shape : Shelf.shapes()) {
            if (fits(shape.takes(), group, gives)) {
                choices.add(shape.name() + "\t" + shape.about());
                samples.add(shape.name() + "   " + shape.about());
                sample(group, shape).forEach(line -> samples.add("    " + line));
            }
        }
        return StartQuestion.of(
                        beginning.prefixOf(group) + DELIVER,
                        group.files.get(0).getFileName() + ": which delivery format? (one name, or several)")
                .choosing(choices)
                .showing(samples)
                .usually(choices.get(0).replaceFirst("\t.*", ""));
    }

    // The first rows of the user's own data in this shape; empty when there are none yet.
    private List<String> sample(RawFiles group, Shelf.Shape shape) {
        return tried(
                group,
                shape,
                run -> run.samples(SAMPLE_ROWS, SAMPLE_ROWS).stream()
                        .flatMap(sample -> sample.lines().stream())
                        .toList(),
                List.of());
    }

    /** What is tried with a run. */
    private interface Trial<T> {
        T of(Mivrel run) throws IOException;
    }

    // With settings as they would be, in a folder that is gone afterwards; what else there is when they do not work
    // yet.
    private <T> T tried(RawFiles group, Shelf.Shape shape, Trial<T> tried, T otherwise) {
        Path trial = null;
        try {
            trial = Files.createTempDirectory("mivrel-sample");
            CompanyFiles files = new CompanyFiles();
            Map<String, String> assumed = new LinkedHashMap<>(answers);
            assumed.put(beginning.prefixOf(group) + DELIVER, shape.name());
            assumed.put(beginning.prefixOf(group) + UNCODED, books.anyAccount());
            new CompanyWriter(beginning, assumed, files).trial(group);
            files.writeTo(trial);
            return tried.of(Mivrel.open(trial.resolve(group.slug + ".yaml")));
        } catch (IOException | SettingsException | RuntimeException noSample) {
            return otherwise;
        } finally {
            CompanyFiles.delete(trial);
        }
    }
}
