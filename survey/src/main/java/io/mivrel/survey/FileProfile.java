package io.mivrel.survey;

import io.mivrel.rows.FileFormat.Slice;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.Shape;
import io.mivrel.shape.Years;
import io.mivrel.text.TradeWords;
import java.util.Currency;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a file is as a whole, before its rows are looked at. Immutable.
 *
 * @param kind the kind of file by its content
 * @param words the kind for people, such as {@code a statement in OFX}
 * @param encoding name of the character set of a text
 * @param encodingWhy the evidence for it; empty for files that are no text
 * @param encodingSure false when another one could be meant
 * @param separator the character between cells of separated text
 * @param lineEnds such as {@code CRLF}; empty for files that are no text
 * @param part the sheet that is looked at
 * @param parts the sheets that hold rows
 * @param currency the currency of its amounts, as the file states it, or what is assumed: it decides the decimals
 * @param currencyStated true when the file states it
 * @param print how a print file is divided; {@code null} for other files
 */
public record FileProfile(
        FileKind kind,
        String words,
        String encoding,
        String encodingWhy,
        boolean encodingSure,
        char separator,
        String lineEnds,
        String part,
        List<String> parts,
        Currency currency,
        boolean currencyStated,
        @Nullable Print print) {

    /** What is assumed of a file that states no currency: two decimals, as most currencies have. */
    public static final Currency ASSUMED = Currency.getInstance("GBP");

    /**
     * How fixed-width text is divided.
     *
     * @param slices its columns
     * @param shapes what is done to its lines, in order: headings that are carried down, page headings, wrapped rows
     * @param filters lines that are left out: rules, totals, balances that are carried over
     * @param carried how the rows begin that carry a balance over
     * @param totals how the rows begin that add up those above them
     */
    public record Print(
            List<Slice> slices,
            List<Shape> shapes,
            List<RowFilter> filters,
            List<String> carried,
            List<String> totals) {

        /** True when accounts stand above their movements, as in a ledger. */
        boolean carriesAccounts() {
            return shapes.stream()
                    .filter(CarryDown.class::isInstance)
                    .flatMap(shape -> ((CarryDown) shape).headings().stream())
                    .anyMatch(heading -> TradeWords.is("account", heading.title()));
        }

        /** True for a cell that other columns are made of: the whole line, and a date without its year. */
        boolean isSource(String title) {
            return title.equals("line")
                    || shapes.stream()
                            .anyMatch(shape -> shape instanceof Years
                                    && ((Years) shape).column().equals(title));
        }
    }

    /** A text of the given encoding. */
    public static FileProfile text(FileKind kind, String words, String encoding, String why, boolean sure) {
        return new FileProfile(kind, words, encoding, why, sure, ',', "", "", List.of(), ASSUMED, false, null);
    }

    /** The same with another separator and line ends. */
    public FileProfile divided(char by, String ends) {
        return copy(kind, words, by, ends, currency, currencyStated, print);
    }

    /** The same as a print file. */
    public FileProfile printed(Print division) {
        String fixed = "fixed-width text";
        return copy(FileKind.FIXED_WIDTH, fixed, separator, lineEnds, currency, currencyStated, division);
    }

    /** The same with its amounts in a currency. */
    public FileProfile in(Currency stated) {
        return copy(kind, words, separator, lineEnds, stated, true, print);
    }

    private FileProfile copy(
            FileKind of, String named, char by, String ends, Currency in, boolean stated, @Nullable Print division) {
        return new FileProfile(
                of, named, encoding, encodingWhy, encodingSure, by, ends, part, parts, in, stated, division);
    }

    /** True when two readings by these facts give the same cells. */
    boolean readsLike(FileProfile other) {
        return kind == other.kind && encoding.equals(other.encoding) && separator == other.separator;
    }
}
