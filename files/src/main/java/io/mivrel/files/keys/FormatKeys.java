package io.mivrel.files.keys;

import io.mivrel.files.forms.RowForms;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowOrder;

/** What layouts and deliveries have in common: the form of a file, numbers and dates. */
public final class FormatKeys {
    /** Words for separators. */
    public static final String[] SEPARATORS = {"comma", "semicolon", "tab", "pipe"};

    private static final String ROW = "row [1-9][0-9]{0,5}";

    public static final Key KIND = Key.word("kind", "what the file is", FileKind.words());
    public static final Key SEPARATOR = Key.word("separator", "what stands between cells", SEPARATORS);
    public static final Key ENCODING =
            Key.text("encoding", "the character set, such as windows-1252; auto: a byte-order mark, else UTF-8");
    public static final Key SHEET = Key.text("sheet", "a sheet of a workbook, by name or place");
    public static final Key STATEMENTS_OF =
            Key.text("statements of", "the number of one account, of a statement with several");
    public static final Key SLICES = Key.open("columns", "columns of fixed-width text by their places, such as 12-17");
    public static final Key TITLES = Key.text("titles", "the row of titles: row 1, rows 3-4 or none")
            .like("none|" + ROW + "|rows [0-9]+-[0-9]+");
    public static final Key DATA_FROM = Key.text(
                    "data from", "the first row of data where there are no titles, such as row 2")
            .like(ROW);
    public static final Key UNTIL = Key.text("until", "how a cell of the first row below the data begins");
    public static final Key ORDER = Key.word("order", "how the rows follow one another", RowOrder.words());

    /** The file that a layout reads. */
    public static final Block SOURCE =
            Block.of(KIND, SEPARATOR, ENCODING, SHEET, STATEMENTS_OF, SLICES, TITLES, DATA_FROM, UNTIL, ORDER);

    public static final Key DELIVERED_KIND = Key.word("kind", "what the file is", RowForms.words());
    public static final Key DELIVERED_ENCODING = Key.text("encoding", "the character set; left out: UTF-8");
    public static final Key NAME = Key.text("name", "the name of the file; {run}, {date} and {part} are filled in")
            .like("[A-Za-z0-9 _+{}()-][A-Za-z0-9 ._+{}()-]*");
    public static final Key LINE_ENDS = Key.word("line ends", "how lines end", "CRLF", "LF");
    public static final Key MARK =
            Key.yes("byte order mark", "whether the file begins with a byte-order mark; left out: no");
    public static final Key HAS_TITLES = Key.yes("titles", "whether its first row has the titles; left out: yes");
    public static final Key QUOTES = Key.word("quotes", "which cells stand in quotes", "where needed", "always");
    public static final Key ABOVE = Key.rows(
            "rows above",
            "rows above the titles, such as a heading record; {run}, {date}, {date ddMMuuuu} and {part} are filled in");
    public static final Key UNDER =
            Key.rows("rows under titles", "rows between the titles and the data, such as what the columns mean");
    public static final Key LAST = Key.rows(
            "last rows",
            "rows under the data; {rows}, {documents} and {sum of TITLE}, the sum of a column of amounts, are filled in too");
    public static final Key TAB = Key.text("sheet", "the name of the sheet in a workbook; left out: Rows");
    public static final Key ROWS_AT_MOST = Key.number(
            "rows at most", 1, Integer.MAX_VALUE, "rows of a file without its titles; a document is never divided");

    /** The file that a delivery makes. */
    public static final Block DELIVERED = Block.of(
            DELIVERED_KIND,
            SEPARATOR,
            DELIVERED_ENCODING,
            TAB,
            NAME,
            LINE_ENDS,
            MARK,
            ABOVE,
            HAS_TITLES,
            UNDER,
            LAST,
            QUOTES,
            ROWS_AT_MOST);

    /** In place of a decimal mark: the digits are minor units. */
    public static final String IMPLIED = "implied";

    public static final Key DECIMAL =
            Key.word("decimal", "the decimal mark; implied: the digits are minor units", ".", ",", IMPLIED);
    public static final Key THOUSANDS = Key.word(
            "thousands",
            "the mark between thousands; in a layout with a decimal point a comma is meant when it is left out",
            "none",
            ",",
            ".",
            " ",
            "'");
    public static final Key NEGATIVE =
            Key.word("negative", "how figures below nil are written", "minus", "brackets", "trailing minus", "any");
    public static final Key CURRENCY_MARK = Key.text("currency mark", "what may stand beside a figure, such as £");
    public static final Key PLUS_MARK = Key.text("plus mark", "what stands beside figures above nil, such as CR");
    public static final Key MINUS_MARK = Key.text("minus mark", "what stands beside figures below nil, such as DR");
    public static final Key DELIVERED_DECIMAL =
            Key.word("decimal", "the decimal mark; implied: amounts are in minor units", ".", ",", IMPLIED);
    public static final Key DELIVERED_NEGATIVE =
            Key.word("negative", "how figures below nil are written", "minus", "brackets", "trailing minus");

    public static final Block NUMBERS = Block.of(DECIMAL, THOUSANDS, NEGATIVE, CURRENCY_MARK, PLUS_MARK, MINUS_MARK);
    public static final Block DELIVERED_NUMBERS = Block.of(DELIVERED_DECIMAL, THOUSANDS, DELIVERED_NEGATIVE);

    public static final Key PATTERN = Key.text("pattern", "how a day is written, such as dd/MM/uuuu");
    public static final Key CENTURY =
            Key.number("century from", 1800, 2100, "the first of the hundred years that a year of two digits is of");
    public static final Key LANGUAGE = Key.text("language", "the language of names of months and days, by its code");

    /** How a day is written. */
    public static final Block DAY = Block.of(PATTERN, CENTURY, LANGUAGE);

    /** A column, by its title or its place. */
    public static final Key COLUMN =
            Key.text("column", "the title of a column, or its place").must();

    public static final Key TAKE =
            Key.text("take", "a pattern of what is taken out of the text: its first group, or all");

    private FormatKeys() {}
}
