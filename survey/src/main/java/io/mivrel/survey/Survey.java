package io.mivrel.survey;

import io.mivrel.intake.StatementSpan;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.Signs;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import io.mivrel.rows.RowOrder;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.Link;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What a survey found, and the layout it proposes. Immutable.
 *
 * @param file the file as the user named it
 * @param facts what it is as a whole
 * @param rows all rows of the file
 * @param above rows above the titles, or above the data when there are none
 * @param titlesRow physical row of the titles, the last where they take several; 0 when there are none
 * @param titleRows how many rows the titles take
 * @param dataRows rows of data
 * @param blankRows rows without content
 * @param below rows below the data
 * @param until the beginning of the first row below the data; empty when there is none
 * @param columns the columns in their order
 * @param gives what the rows probably are; {@code null} when nothing fits
 * @param why what tells that they are, and what speaks for another kind; empty where nothing speaks for any, and where the
 *     kind of file says it
 * @param fields which column each field comes from
 * @param pattern how dates are written; {@code null} when there are none
 * @param numbers how amounts are written
 * @param order in which order of time the rows stand
 * @param refinement what the layout says beyond which column each field comes from
 * @param fanOut the lines that each row becomes, with a question mark for each account; empty when a row is one line
 * @param links other files whose columns these rows have too; empty when there are none
 * @param statements what each statement of a statement file covers; empty for other files
 * @param proofs what arithmetic says about this reading, in words; empty when nothing proves it
 * @param questions what the file does not tell
 */
public record Survey(
        String file,
        FileProfile facts,
        long rows,
        long above,
        int titlesRow,
        int titleRows,
        long dataRows,
        long blankRows,
        long below,
        String until,
        List<ColumnSurvey> columns,
        @Nullable Kind gives,
        String why,
        Map<Field, ColumnSurvey> fields,
        @Nullable DatePattern pattern,
        AmountFormat numbers,
        RowOrder order,
        Refinement refinement,
        List<StatementSpan> statements,
        List<FanOut.Amount> fanOut,
        List<Link> links,
        List<Proof> proofs,
        List<Question> questions) {

    /** An arithmetic proof: {@code holds} tells whether it speaks for this reading. */
    public record Proof(boolean holds, String words) {}

    /**
     * Something that only a person can say.
     *
     * @param about what in the layout it decides: {@code date}, {@code numbers}, {@code signs}, {@code account} or {@code
     *     gives}
     * @param words the question with its possible answers
     * @param answer what a person said to it; {@code null} while it is open
     */
    public record Question(
            String about, String words, @Nullable String answer) {
        public Question(String about, String words) {
            this(about, words, null);
        }
    }

    /**
     * What a person calls the account of a line that each row becomes, in {@link #answered}; {@value #NOT_POSTED} stands for
     * a line that is not posted.
     */
    public static String accountOf(FanOut.Amount line) {
        return "account of " + line.column() + " as " + line.side();
    }

    /** In place of an account: the column is not posted. */
    public static final String NOT_POSTED = "none";

    /** The same with answers to its questions, by what they are about; what is not answered stays a question. */
    public Survey answered(Map<String, String> answers) {
        List<Question> all = questions.stream()
                .map(q -> new Question(q.about(), q.words(), answers.getOrDefault(q.about(), q.answer())))
                .toList();
        List<FanOut.Amount> lines = new ArrayList<>();
        for (FanOut.Amount line : fanOut) {
            String account = answers.get(accountOf(line));
            if (!NOT_POSTED.equals(account)) {
                lines.add(account == null ? line : new FanOut.Amount(line.column(), account, line.text(), line.side()));
            }
        }
        return copy(facts, this, until, refinement, statements, lines, links, proofs, all);
    }

    /** The same with data that ends elsewhere; empty where nothing ends it. */
    Survey endingAt(String other) {
        return copy(facts, this, other, refinement, statements, fanOut, links, proofs, questions);
    }

    /** The same, read otherwise. */
    Survey with(Refinement other) {
        return copy(facts, this, until, other, statements, fanOut, links, proofs, questions);
    }

    /** The same without a question that arithmetic has answered. */
    Survey without(String about) {
        List<Question> left =
                questions.stream().filter(q -> !q.about().equals(about)).toList();
        return copy(facts, this, until, refinement, statements, fanOut, links, proofs, left);
    }

    /** The same with what a reading of the whole file proves. */
    Survey proved(FinalReading reading) {
        List<Proof> all = new ArrayList<>(reading.proofs());
        all.addAll(proofs);
        List<StatementSpan> spans = facts.kind().isStatement() ? reading.spans() : statements;
        return copy(facts, this, until, refinement, spans, fanOut, links, all, questions);
    }

    /** The same, once the whole file has confirmed what its beginning said. */
    Survey with(FileProfile confirmed) {
        List<Question> all = new ArrayList<>(questions);
        if (!confirmed.encodingSure()) {
            all.add(new Question("encoding", confirmed.encodingWhy()));
        }
        if (confirmed.parts().size() > 1) {
            all.add(new Question(
                    "sheet",
                    String.join(", ", confirmed.parts()) + "? This is '" + confirmed.part() + "', the longest"));
        }
        return copy(confirmed, this, until, refinement, statements, fanOut, links, proofs, all);
    }

    /** The same of rows that have the columns of other files, with the titles of their own file. */
    public Survey linked(List<Link> found, List<Proof> why, Survey own) {
        List<Proof> all = new ArrayList<>(why);
        all.addAll(proofs);
        return copy(facts, own, until, refinement, statements, fanOut, found, all, questions);
    }

    private Survey copy(
            FileProfile asWhole,
            Survey titled,
            String end,
            Refinement more,
            List<StatementSpan> spans,
            List<FanOut.Amount> lines,
            List<Link> linked,
            List<Proof> allProofs,
            List<Question> allQuestions) {
        return new Survey(
                file,
                asWhole,
                rows,
                titled.above,
                titled.titlesRow,
                titled.titleRows,
                dataRows,
                blankRows,
                below,
                end,
                columns,
                gives,
                why,
                fields,
                pattern,
                numbers,
                order,
                more,
                spans,
                List.copyOf(lines),
                linked,
                List.copyOf(allProofs),
                List.copyOf(allQuestions));
    }

    /** True when its amounts agree with its balances, and those may all the same be what is owed on the account. */
    public boolean mayBeOwed() {
        boolean plain = refinement.signs() == Signs.AS_WRITTEN || refinement.signs() == Signs.REVERSED;
        return plain
                && fields.containsKey(BankLines.BALANCE)
                && question("account") != null
                && question("signs") == null
                && !facts.kind().isStatement();
    }

    /** The questions that nobody has answered. */
    public List<Question> open() {
        return questions.stream().filter(q -> q.answer() == null).toList();
    }

    /** The question about something, or {@code null}. */
    public @Nullable Question question(String about) {
        return questions.stream()
                .filter(q -> q.about().equals(about))
                .findFirst()
                .orElse(null);
    }

    /** True when something gives the amounts of its records: columns, or the format of the file. */
    public boolean hasAmounts() {
        if (gives == null || facts.kind().isStatement() || !fanOut.isEmpty()) {
            return true;
        }
        return Stream.of(gives.amount(), gives.plusSide(), gives.minusSide(), gives.quantity())
                .filter(Objects::nonNull)
                .anyMatch(field ->
                        fields.containsKey(field) || refinement.sources().containsKey(field));
    }
}
