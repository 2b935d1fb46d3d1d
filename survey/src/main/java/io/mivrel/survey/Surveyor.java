package io.mivrel.survey;

import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.kinds.Kinds;
import io.mivrel.layout.FigureLabels;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Signs;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowOrder;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.survey.Survey.Question;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Surveys one file. The first rows give a tentative layout; then one reading of the whole file profiles the columns and
 * tries that layout by arithmetic. Only when the whole file tells otherwise than its beginning is it read again. For one
 * thread.
 */
public final class Surveyor {
    private static final List<Question> FAN_QUESTIONS = List.of(
            new Question("accounts", "which account does the amount of each column go to?"),
            new Question("reference", "what is the journal of this file called, such as PAY-2027-03?"),
            new Question("signs", "as written or reversed? Sums to nil do not tell which columns are the debits"));

    private final String file;
    private final SurveySource surveyed;
    private final Progress progress;
    private final Answers answers;
    private final List<Kind> kinds;

    public Surveyor(String file, SurveySource surveyed, Progress progress) {
        this(file, surveyed, Answers.NONE, Kinds.ALL, progress);
    }

    /** With what somebody says of the file, and the kinds that its rows may be of: a program's own stand last. */
    public Surveyor(String file, SurveySource surveyed, Answers answers, List<Kind> kinds, Progress progress) {
        this.kinds = kinds;
        this.answers = answers;
        this.file = file;
        this.surveyed = surveyed;
        this.progress = progress;
    }

    public Survey survey() throws IOException {
        FileProfile facts = surveyed.facts();
        Survey survey = read(facts);
        FileProfile confirmed = surveyed.confirmed(facts);
        if (!confirmed.readsLike(facts)) {
            survey = read(confirmed);
        }
        return survey.with(
                survey.facts().currencyStated() ? confirmed.in(survey.facts().currency()) : confirmed);
    }

    private Survey read(FileProfile known) throws IOException {
        FileProfile facts = known;
        List<RowFilter> filters =
                facts.print() == null ? List.of() : facts.print().filters();
        Sample sample;
        try (RowSource source = surveyed.open(facts)) {
            sample = new Sample(source, filters, facts.currency(), answers.of("language"));
        }
        if (!facts.currencyStated()) {
            Currency stated = StatedCurrency.of(sample);
            Currency told = stated != null ? stated : answers.currency();
            if (told != null) {
                sample.in(told);
                facts = facts.in(told);
            }
        }
        Interpretation tentative = new Interpretation(facts, sample, sample.surveyed(), sample.above(), kinds, answers);
        List<ColumnSurvey> columns = sample.columns();
        List<RowSum> sums = RowSum.find(sample, sample.surveyed(), tentative.numbers);
        ProfiledRows watched;
        try (RowSource source = surveyed.open(facts)) {
            watched = new ProfiledRows(source, sample, columns, filters, sums, progress);
        }
        if (watched.notText) {
            throw new IOException(file + ": is neither text nor a kind of file that can be read");
        }
        List<Sample.Kept> beside = new ArrayList<>(sample.above());
        beside.addAll(watched.tail());
        Interpretation guess = new Interpretation(facts, sample, columns, beside, kinds, answers);
        return proved(survey(facts, sample, watched, guess, sums), guess);
    }

    // The layout is read as it is written, and only what that reading proves is told.
    private Survey proved(Survey survey, Interpretation guess) throws IOException {
        if (!guess.isWhole() || survey.gives() == null || !survey.fanOut().isEmpty()) {
            return survey;
        }
        Survey proposed = survey;
        FinalReading reading = reading(proposed);
        if (reading.cutsRowsOff() && !survey.until().isEmpty()) {
            // What stands behind it are movements too, so nothing ends the data.
            proposed = survey.endingAt("");
            reading = reading(proposed);
        }
        boolean open = guess.bank != null && guess.bank.signs.decided == null && guess.answerTo("signs") == null;
        if (open && !proposed.refinement().stated().equals(FigureLabels.NOTHING)) {
            Survey plain = proposed.with(proposed.refinement().with(Signs.AS_WRITTEN));
            Survey turned = proposed.with(proposed.refinement().with(Signs.REVERSED));
            FinalReading asPlain = reading(plain);
            FinalReading asTurned = reading(turned);
            // What proves both, such as a total of the column, proves neither.
            if (asPlain.provesAll() != asTurned.provesAll()) {
                return asPlain.provesAll()
                        ? plain.without("signs").proved(asPlain)
                        : turned.without("signs").proved(asTurned);
            }
        }
        return reading.provesAll()
                ? proposed.without("opening").without("closing").proved(reading)
                : proposed.proved(reading);
    }

    private FinalReading reading(Survey survey) throws IOException {
        Layout layout = Proposal.layout(survey);
        try (RowSource rows = surveyed.open(layout)) {
            return FinalReading.of(layout, SourceFile.of(file, survey.facts().currency()), rows, progress);
        }
    }

    // How the first row below the data begins that states no figure: words that no row of data begins with.
    private static String until(ProfiledRows watched, Interpretation guess, Sample sample) {
        for (Sample.Kept row : watched.tail()) {
            if (guess.isStated(row)) {
                continue;
            }
            for (String cell : row.cells()) {
                String beginning = beginning(cell);
                if (!beginning.isEmpty()) {
                    boolean ofData = sample.data().stream()
                            .anyMatch(data -> data.cells().stream().anyMatch(c -> c.startsWith(beginning)));
                    return ofData || beginning.length() < 3 ? "" : beginning;
                }
            }
            return "";
        }
        return "";
    }

    // What will stand there next month too.
    private static String beginning(String cell) {
        if (cell.isEmpty() || !Character.isLetter(cell.codePointAt(0))) {
            return "";
        }
        int end = 0;
        while (end < cell.length() && cell.charAt(end) != ':' && !Character.isDigit(cell.charAt(end))) {
            end++;
        }
        return cell.substring(0, end).strip();
    }

    private Survey survey(
            FileProfile facts, Sample sample, ProfiledRows watched, Interpretation guess, List<RowSum> sums) {
        // One sum that is nil in every row makes a journal of each row; of several, nobody knows which, nor of several
        // days.
        List<ColumnSurvey> dates =
                guess.columns.stream().filter(c -> c.type() == FieldType.DATE).toList();
        boolean fans = dates.size() == 1
                && guess.gives == null
                && sums.size() == 1
                && sums.get(0).holds();
        List<Question> questions = questions(facts, guess, watched.accounts.size() > 1);
        if (fans) {
            questions.removeIf(q -> q.about().equals("gives"));
            questions.addAll(FAN_QUESTIONS);
        }
        Map<Field, ColumnSurvey> fields = fans ? Map.of(JournalLines.DATE, dates.get(0)) : guess.fields;
        return new Survey(
                file,
                facts,
                watched.rows,
                watched.above + watched.aside,
                sample.titlesRow,
                sample.titleRows,
                watched.dataRows,
                watched.blankRows,
                watched.tail().size(),
                until(watched, guess, sample),
                guess.columns,
                fans ? JournalLines.KIND : guess.gives,
                fans ? "" : guess.why,
                fields,
                fans ? Interpretation.dates(fields.get(JournalLines.DATE), questions, List.of()) : guess.pattern,
                guess.numbers,
                order(guess),
                fans ? Refinement.NONE : refinement(guess, sums),
                List.of(),
                fans ? sums.get(0).lines() : List.of(),
                List.of(),
                proofs(guess, sample, watched, sums),
                List.copyOf(questions));
    }

    private static List<Question> questions(FileProfile facts, Interpretation guess, boolean byNumber) {
        List<Question> questions = new ArrayList<>(guess.questions);
        if (guess.gives == null) {
            return questions;
        }
        if (guess.pattern == null
                && (!facts.kind().isStatement() || facts.kind() == FileKind.QIF)
                && questions.stream().noneMatch(q -> q.about().equals("date"))) {
            questions.add(new Question("date", datesAre(guess)));
        }
        for (Field field : guess.gives.table().fields()) {
            if (field.required() && field.type() != FieldType.DATE && !guess.fields.containsKey(field)) {
                questions.add(new Question(
                        field.name(),
                        "no column was found for it; is it the same in every row? It is " + field.meaning()));
            }
        }
        boolean bank = guess.gives.isOfAccount();
        boolean byColumn = guess.bank != null && guess.bank.numberColumn() != null;
        if (bank && !byNumber && !byColumn) {
            questions.add(new Question(
                    "account",
                    "which account of the books do these lines belong to?"
                            + (guess.bank == null ? "" : guess.bank.signs.ifOwed())));
        }
        if (guess.bank != null) {
            questions.addAll(ofBank(guess, guess.bank));
        } else if (!facts.kind().isStatement()
                && (guess.fields.containsKey(JournalLines.AMOUNT) || guess.fields.containsKey(BankLines.AMOUNT))) {
            questions.add(new Question(
                    "signs", "as written or reversed? Sums to nil do not tell that debit is positive here"));
        }
        return questions;
    }

    // What a statement leaves open of its charges, its figures, its rows without a balance and its signs.
    private static List<Question> ofBank(Interpretation guess, BankColumns bank) {
        List<Question> questions = new ArrayList<>();
        ColumnSurvey charged = bank.charged;
        if (charged != null) {
            questions.add(new Question(
                    "charges",
                    "are the charges in '" + charged.title()
                            + "' taken off besides the amount? Then write its title"
                            + " here; if the amount holds them, take 'less' away"));
        }
        questions.addAll(figures(guess, bank));
        RowFilter bare = bank.unbalanced;
        if (bare != null) {
            questions.add(new Question(
                    "leave out",
                    "'" + String.join("', '", bare.texts()) + "' in '" + bare.column() + "' stands in "
                            + bank.unbalancedRows
                            + " rows, and only they have no balance: are they no movements yet? Then write it here;"
                            + " 'none' takes them",
                    guess.answers.of("leave out")));
        }
        BankSigns signs = bank.signs;
        if (signs.said != null) {
            questions.add(new Question("signs", "as was answered", signs.said.word()));
        } else if (signs.decided == null) {
            questions.add(
                    new Question("signs", String.join(" or ", signs.open) + "? Nothing in the file proves which"));
        }
        return questions;
    }

    // Figures beside the rows that nothing explains, where no running balance proves the rows.
    private static List<Question> figures(Interpretation guess, BankColumns bank) {
        List<Question> questions = new ArrayList<>();
        List<String> labels = bank.beside.unexplained();
        for (BesideFigures.Role role : List.of(BesideFigures.Role.OPENING, BesideFigures.Role.CLOSING)) {
            String about = role.name().toLowerCase(Locale.ROOT);
            if (bank.relation == null && bank.beside.of(role) == null && !labels.isEmpty()) {
                questions.add(new Question(
                        about,
                        "which figure is the " + about + " balance: " + String.join(" or ", labels)
                                + "? Write its label, or 'none'",
                        guess.answers.of(about)));
            }
        }
        return questions;
    }

    // Of the columns that are left, the one that is most like a date: every cell has figures, and nothing else is known
    // of it.
    private static String datesAre(Interpretation guess) {
        ColumnSurvey likely = guess.columns.stream()
                .filter(c -> !guess.fields.containsValue(c) && c.filled() > 0 && c.blank() == 0)
                .filter(c -> c.samples().stream().allMatch(s -> s.chars().anyMatch(Character::isDigit)))
                .findFirst()
                .orElse(null);
        return "which column holds the date, and by which pattern?"
                + (likely == null
                        ? " None was found"
                        : " '" + Proposal.column(likely) + "' is left over, such as '"
                                + likely.samples().get(0) + "'");
    }

    // What is known without a reading of records.
    private static List<Proof> proofs(Interpretation guess, Sample sample, ProfiledRows watched, List<RowSum> sums) {
        List<Proof> proofs = new ArrayList<>();
        if (sample.widest > sample.columns().size()) {
            proofs.add(new Proof(
                    false,
                    "of " + sample.widest + " columns only the first "
                            + sample.columns().size() + " were looked at"));
        }
        if (watched.faults > 0) {
            proofs.add(new Proof(
                    false,
                    watched.faults + (watched.faults == 1 ? " row" : " rows") + " cannot be divided into cells: "
                            + watched.firstFault));
        }
        for (RowSum sum : sums) {
            proofs.add(sum.proof());
            // The totals of a kind that is known are compared as the layout says it.
            if (guess.gives == null) {
                watched.tail().forEach(row -> proofs.addAll(sum.totals(row, guess.facts.currency())));
            }
        }
        return List.copyOf(proofs);
    }

    private static Refinement refinement(Interpretation guess, List<RowSum> sums) {
        BankColumns bank = guess.bank;
        return guess.refinement()
                .with(
                        sums.stream()
                                .filter(sum -> guess.gives != null && sum.isExpected())
                                .map(RowSum::equation)
                                .filter(sum -> !sum.minus().isEmpty())
                                .toList(),
                        bank != null && guess.facts.print() == null
                                ? OwnerSearch.find(guess.beside, bank.numberColumn())
                                : Whose.ANYBODY);
    }

    private static RowOrder order(Interpretation guess) {
        BankColumns bank = guess.bank;
        if (bank == null || guess.pattern == null) {
            return RowOrder.OLDEST_FIRST;
        }
        ColumnSurvey date = guess.fields.get(BankLines.DATE);
        return bank.relation != null
                ? bank.relation.order()
                : date != null && date.fallsBack() ? RowOrder.NEWEST_FIRST : RowOrder.OLDEST_FIRST;
    }
}
