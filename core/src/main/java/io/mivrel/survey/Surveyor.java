package io.mivrel.survey;

import io.mivrel.intake.Signs;
import io.mivrel.kinds.BankLines;
import io.mivrel.kinds.JournalLines;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Kind;
import io.mivrel.model.SourceFile;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowSource;
import io.mivrel.run.Progress;
import io.mivrel.survey.Survey.Proof;
import io.mivrel.survey.Survey.Question;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

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
    private final @Nullable Kind wanted;
    private final @Nullable Currency currency;

    public Surveyor(String file, SurveySource surveyed, Progress progress) {
        this(file, surveyed, null, null, progress);
    }

    /**
     * @param wanted the kind of records that somebody says the file gives; {@code null} to find it out
     * @param currency that of its amounts, where it states none; {@code null} for two decimals
     */
    public Surveyor(
            String file, SurveySource surveyed, @Nullable Kind wanted, @Nullable Currency currency, Progress progress) {
        this.wanted = wanted;
        this.currency = currency;
        this.file = file;
        this.surveyed = surveyed;
        this.progress = progress;
    }

    public Survey survey() throws IOException {
        Facts facts = surveyed.facts();
        Survey survey = read(facts);
        Facts confirmed = surveyed.confirmed(facts);
        if (!confirmed.readsLike(facts)) {
            survey = read(confirmed);
        }
        return survey.with(
                survey.facts().currencyStated() ? confirmed.in(survey.facts().currency()) : confirmed);
    }

    private Survey read(Facts known) throws IOException {
        Facts facts = known;
        List<RowFilter> filters =
                facts.print() == null ? List.of() : facts.print().filters();
        Sample sample;
        try (RowSource source = surveyed.open(facts)) {
            sample = new Sample(source, filters, facts.currency());
        }
        if (!facts.currencyStated()) {
            Currency stated = StatedCurrency.of(sample);
            Currency told = stated != null ? stated : currency;
            if (told != null) {
                sample.in(told);
                facts = facts.in(told);
            }
        }
        Guess tentative = Guess.of(facts, sample, sample.surveyed(), "", sample.above(), wanted);
        List<ColumnSurvey> columns = sample.columns();
        List<RowSum> sums = RowSum.find(sample, sample.surveyed(), tentative.numbers());
        @Nullable ReadingTest test = null;
        ProfiledRows watched;
        try (RowSource source = surveyed.open(facts)) {
            watched = new ProfiledRows(source, sample, columns, filters, sums);
            if (tentative.isWhole()) {
                test = ReadingTest.of(tentative.layout(), SourceFile.of(file, facts.currency()), watched, progress);
            } else {
                drain(watched);
            }
        }
        if (watched.notText) {
            throw new IOException(file + ": is no text, and no kind of file that is read");
        }
        List<Sample.Kept> beside = new ArrayList<>(sample.above());
        beside.addAll(watched.tail());
        Guess guess = Guess.of(facts, sample, columns, until(watched), beside, wanted);
        if (guess.isWhole() && (test == null || !guess.readsLike(tentative))) {
            try (RowSource source = surveyed.open(facts)) {
                test = ReadingTest.of(guess.layout(), SourceFile.of(file, facts.currency()), source, progress);
            }
        }
        return survey(facts, sample, watched, guess, test, sums);
    }

    private void drain(ProfiledRows watched) throws IOException {
        for (Row row = watched.next(); row != null; row = watched.next()) {
            if (watched.rows % 1024 == 0) {
                progress.at("surveyed", watched.rows);
            }
        }
    }

    // How the first row below the data begins.
    private static String until(ProfiledRows watched) {
        Sample.Kept first = watched.tail().peekFirst();
        return first == null
                ? ""
                : first.cells().stream()
                        .filter(c -> !c.isEmpty() && Character.isLetter(c.charAt(0)))
                        .findFirst()
                        .map(Surveyor::beginning)
                        .orElse("");
    }

    // What will stand there next month too, however the file is encoded then.
    private static String beginning(String cell) {
        int end = 0;
        while (end < cell.length() && cell.charAt(end) < 0x80 && cell.charAt(end) != ':' && !isDigit(cell, end)) {
            end++;
        }
        return cell.substring(0, end).strip();
    }

    private static boolean isDigit(String text, int at) {
        return text.charAt(at) >= '0' && text.charAt(at) <= '9';
    }

    private Survey survey(
            Facts facts,
            Sample sample,
            ProfiledRows watched,
            Guess guess,
            @Nullable ReadingTest test,
            List<RowSum> sums) {
        // One sum that is nil in every row makes a journal of each row; of several, nobody knows which, nor of several
        // days.
        Map<Field, ColumnSurvey> fanned = fanned(guess.columns());
        boolean fans = fanned != null
                && fanned.size() == 1
                && guess.gives() == null
                && sums.size() == 1
                && sums.get(0).holds();
        List<Question> questions = questions(facts, guess, test, watched.accounts.size() > 1);
        if (fans) {
            questions.removeIf(q -> q.about().equals("gives"));
            questions.addAll(FAN_QUESTIONS);
        }
        Map<Field, ColumnSurvey> fields = fans && fanned != null ? fanned : guess.fields();
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
                guess.until(),
                guess.columns(),
                fans ? JournalLines.KIND : guess.gives(),
                fields,
                fans ? Guess.dates(fields.get(JournalLines.DATE), questions, List.of()) : guess.pattern(),
                guess.numbers(),
                isNewestFirst(guess, test),
                fans ? Refinement.NONE : guess.refinement().with(signs(guess, test)),
                test == null ? List.of() : test.spans(),
                fans ? sums.get(0).lines() : List.of(),
                List.of(),
                proofs(facts, sample, watched, guess, test, sums),
                List.copyOf(questions));
    }

    private static List<Question> questions(Facts facts, Guess guess, @Nullable ReadingTest test, boolean byNumber) {
        List<Question> questions = new ArrayList<>(guess.questions());
        if (guess.gives() != null && guess.pattern() == null && needsPattern(facts)) {
            questions.add(new Question(
                    "date", "which column holds the date, and by which pattern? None was found by its title"));
        }
        if (guess.gives() != null) {
            for (Field field : guess.gives().table().fields()) {
                if (field.required()
                        && field.type() != FieldType.DATE
                        && !guess.fields().containsKey(field)) {
                    questions.add(new Question(
                            field.name(),
                            "no column was found for it; is it the same in every row? It is " + field.meaning()));
                }
            }
        }
        if (test == null || guess.gives() == null) {
            return questions;
        }
        boolean bank = guess.gives().isOfAccount();
        if (bank && !byNumber) {
            questions.add(new Question("account", "which account of the books do these lines belong to?"));
        }
        if (guess.bank() != null) {
            ColumnSurvey charged = guess.bank().charged;
            if (charged != null && !guess.bank().chargesProved) {
                questions.add(new Question(
                        "charges",
                        "are the charges in '" + charged.title()
                                + "' taken off besides the amount? Then write its title"
                                + " here; if the amount holds them, take 'less' away"));
            }
            if (guess.bank().signs.decided == null) {
                questions.add(new Question("signs", signsQuestion(guess, test)));
            }
        } else if (!test.provesSigns() && !facts.kind().isStatement() && signsMatter(guess.fields())) {
            questions.add(new Question(
                    "signs", "as written or reversed? Sums to nil do not tell that debit is positive here"));
        }
        return questions;
    }

    private static List<Proof> proofs(
            Facts facts,
            Sample sample,
            ProfiledRows watched,
            Guess guess,
            @Nullable ReadingTest test,
            List<RowSum> sums) {
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
        if (test != null) {
            proofs.addAll(test.proofs());
        }
        proofs.addAll(StatedTotals.proofs(
                watched.tail(),
                guess.columns(),
                guess.fields().get(BankLines.BALANCE),
                guess.numbers(),
                facts.currency(),
                watched.dataRows));
        sums.stream().map(RowSum::proof).forEach(proofs::add);
        BankColumns bank = guess.bank();
        if (bank != null && bank.signs.decided != null && !bank.signs.by.isEmpty()) {
            proofs.add(new Proof(true, "signs " + bank.signs.decided.word() + ": " + bank.signs.by));
        }
        return List.copyOf(proofs);
    }

    // The one column of dates; all else of a fanned-out line is told by the column of the amount.
    private static @Nullable Map<Field, ColumnSurvey> fanned(List<ColumnSurvey> columns) {
        List<ColumnSurvey> dates =
                columns.stream().filter(c -> c.type() == FieldType.DATE).toList();
        return dates.size() == 1 ? Map.of(JournalLines.DATE, dates.get(0)) : Map.of();
    }

    // A card company's plus is our minus, and so is a bank's CR, where amounts and balances turn together: no
    // arithmetic
    // within the file can tell.
    private static String signsQuestion(Guess guess, ReadingTest test) {
        return test.provesSigns()
                ? "all reversed, or as written? The balance proves only that the amounts agree with it, and balances"
                        + " marked CR or DR may be seen from the bank's side"
                : "as written or reversed? Nothing proves that money in is positive here";
    }

    private static Signs signs(Guess guess, @Nullable ReadingTest test) {
        BankColumns bank = guess.bank();
        if (bank != null && bank.signs.decided != null) {
            return bank.signs.decided;
        }
        return test != null && test.reversed() ? Signs.REVERSED : Signs.AS_WRITTEN;
    }

    private static boolean isNewestFirst(Guess guess, @Nullable ReadingTest test) {
        if (test != null && test.provesSigns()) {
            return test.newestFirst();
        }
        BankColumns bank = guess.bank();
        if (bank == null || guess.pattern() == null) {
            return false;
        }
        Relation relation = bank.relation;
        ColumnSurvey date = guess.fields().get(BankLines.DATE);
        return relation != null ? relation.newestFirst() : date != null && date.fallsBack();
    }

    private static boolean needsPattern(Facts facts) {
        return !facts.kind().isStatement() || facts.kind() == FileKind.QIF;
    }

    // Two columns that are named for what they hold need no proof of their signs.
    private static boolean signsMatter(Map<Field, ColumnSurvey> fields) {
        return fields.containsKey(JournalLines.AMOUNT);
    }
}
