package io.mivrel.survey.templates;

import io.mivrel.delivery.Frame;
import io.mivrel.files.forms.RowForms;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.DatePattern;
import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a receiver's template tells of the files that it takes. Immutable.
 *
 * @param file the template
 * @param form the form of the file
 * @param titles whether it has a row of titles
 * @param frame rows that are no data, as they stand in it
 * @param columns its columns, in their order
 * @param rows sample rows in it
 * @param numbers how amounts are written; {@code null} when no sample tells
 * @param notes what is in it and is not delivered
 */
public record Template(
        Path file,
        Form form,
        boolean titles,
        Frame frame,
        List<Column> columns,
        long rows,
        @Nullable AmountFormat numbers,
        List<String> notes) {

    public Template {
        columns = List.copyOf(columns);
        notes = List.copyOf(notes);
    }

    /**
     * The form of its file.
     *
     * @param kind the word of a {@link io.mivrel.delivery.RowForm}
     * @param separator the character between cells of separated text
     * @param encoding the name of a character set
     * @param lineEnds {@code CRLF} or {@code LF}
     * @param mark true when it begins with a byte-order mark
     * @param quoteAll true when every cell stands in quotes
     * @param sheet the sheet of a workbook
     */
    public record Form(
            String kind,
            char separator,
            String encoding,
            String lineEnds,
            boolean mark,
            boolean quoteAll,
            String sheet) {

        /** True for a workbook. */
        public boolean isWorkbook() {
            return kind.equals(RowForms.WORKBOOK);
        }
    }

    /**
     * A column.
     *
     * @param title as it stands there, which may be empty
     * @param name by which it is asked for: its title, or its place
     * @param must true when it is marked as required
     * @param optional true when it is said to be left out at will, or to stay blank
     * @param samples what stands in it, in the order of the rows
     * @param words the words of which it takes one; empty for any
     * @param atMost characters that it takes; 0 for any number
     * @param date how days are written in it, as samples or its meaning tell; {@code null} when they do not, or it has none
     * @param dates every way that its samples can be read as days; empty when they are none
     * @param amounts true when its samples are amounts
     * @param width places that it takes in fixed-width text; 0 for any other
     * @param right true when its samples stand at the right of their places
     */
    public record Column(
            String title,
            String name,
            boolean must,
            boolean optional,
            List<String> samples,
            List<String> words,
            int atMost,
            @Nullable DatePattern date,
            List<DatePattern> dates,
            boolean amounts,
            int width,
            boolean right) {

        public Column {
            samples = List.copyOf(samples);
            words = List.copyOf(words);
            dates = List.copyOf(dates);
        }

        /** The same text in every sample, of two at least; {@code null} when they differ. */
        public @Nullable String same() {
            return samples.size() > 1 && samples.stream().distinct().count() == 1 ? samples.get(0) : null;
        }

        /** True when there are samples and all are blank. */
        public boolean isBlank() {
            return !samples.isEmpty() && samples.stream().allMatch(String::isEmpty);
        }
    }
}
