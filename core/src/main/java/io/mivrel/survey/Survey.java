package io.mivrel.survey;

import io.mivrel.cells.AmountFormat;
import io.mivrel.cells.DatePattern;
import io.mivrel.model.Field;
import io.mivrel.model.FieldTable;
import java.util.List;
import java.util.Map;

/**
 * What a survey found, and the layout it proposes. Immutable.
 *
 * @param file the file as the user named it
 * @param text what its bytes are
 * @param rows all rows of the file
 * @param above rows above the titles, or above the data when there are none
 * @param titlesRow physical row of the titles; 0 when there are none
 * @param dataRows rows of data
 * @param blankRows rows without content
 * @param below rows below the data
 * @param until the beginning of the first row below the data; empty when there is none
 * @param columns the columns in their order
 * @param gives what the rows probably are; {@code null} when nothing fits
 * @param fields which column each field comes from
 * @param pattern how dates are written; {@code null} when there are none
 * @param numbers how amounts are written
 * @param newestFirst true when the balances say that the latest row comes first
 * @param signsReversed true when the balances say that the signs are the other way round
 * @param proofs what arithmetic says about this reading, in words; empty when nothing proves it
 * @param questions what the file does not tell
 */
public record Survey(
        String file,
        TextFacts text,
        long rows,
        long above,
        int titlesRow,
        long dataRows,
        long blankRows,
        long below,
        String until,
        List<ColumnSurvey> columns,
        FieldTable gives,
        Map<Field, ColumnSurvey> fields,
        DatePattern pattern,
        AmountFormat numbers,
        boolean newestFirst,
        boolean signsReversed,
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
     */
    public record Question(String about, String words) {}

    /**
     * What the bytes of a text file are.
     *
     * @param encoding name of the character set
     * @param encodingWhy the evidence for it
     * @param encodingSure false when another one could be meant
     * @param separator the character between cells
     * @param lineEnds such as {@code CRLF}
     */
    public record TextFacts(
            String encoding, String encodingWhy, boolean encodingSure, char separator, String lineEnds) {}

    /** The question about something, or {@code null}. */
    public Question question(String about) {
        return questions.stream()
                .filter(q -> q.about().equals(about))
                .findFirst()
                .orElse(null);
    }
}
