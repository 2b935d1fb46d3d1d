package io.mivrel.files.keys;

/** The parts of a layout that say what shape a file has: of pages, rows and linked files. */
public final class ShapeKeys {
    public static final Key YEARLESS = Key.text("pattern", "how a day without its year is written, such as dd MMM")
            .must();
    public static final Key PERIOD =
            Key.text("period", "the label of the period that the file states").must();
    public static final Key DAYS = Key.block("days", "how the days of the period are written", FormatKeys.DAY)
            .must();
    public static final Key TITLE =
            Key.text("title", "the title of the column that is made").must();
    public static final Key YEARS = Key.list(
            "years",
            "days without a year, which the period of the file gives",
            Block.of(FormatKeys.COLUMN, YEARLESS, PERIOD, DAYS, TITLE));

    public static final Key IN_COLUMN =
            Key.text("column", "the column that the heading stands in; left out: the first that is filled");
    public static final Key HEADING_BEGINS = Key.text("begins", "how the heading begins; needed without 'take'");
    public static final Key CARRY_DOWN = Key.list(
            "carry down",
            "headings above their rows, which become a column",
            Block.of(TITLE, IN_COLUMN, HEADING_BEGINS, FormatKeys.TAKE));

    public static final Key BEGINS =
            Key.text("begins", "how the first line of a page's heading begins").must();
    public static final Key ENDS = Key.text("ends", "how the last line of it begins; left out: the same line");
    public static final Key PAGE_HEADS =
            Key.block("page heads", "headings that come again on each page", Block.of(BEGINS, ENDS));

    public static final Key BEGINNERS = Key.texts("begins", "columns that are filled in the first line of a row")
            .must();
    public static final Key JOINS =
            Key.texts("joins", "columns whose texts go on in the next lines").must();
    public static final Key FILLER = Key.text("filler", "a character that fills the line, such as .");
    public static final Key WRAPPED =
            Key.block("wrapped", "rows that go on in the lines below", Block.of(BEGINNERS, JOINS, FILLER));

    public static final Key FILLED = Key.texts("columns", "columns that are blank where they say the same as above")
            .must();
    public static final Key WHERE = Key.texts("where", "columns that are filled in each row that is filled so");
    public static final Key FILL_DOWN =
            Key.block("fill down", "cells that stand for the rows below too", Block.of(FILLED, WHERE));

    public static final Key HEADING =
            Key.texts("heading", "names of the cells of a heading, which stand in each row below; - for none");
    public static final Key LINE =
            Key.texts("line", "names of the cells of a row of data; named: a row of the file names them");
    public static final Key COLUMNS_OF = Key.text("columns of", "the row names the columns of this tag");
    public static final Key COLUMNS_OF_CELL =
            Key.number("columns of cell", 1, 1000, "the row names the columns of the tag in this cell");
    public static final Key ALSO = Key.texts("also", "columns that only a later row names");
    public static final Key ASIDE = Key.yes("aside", "whether rows of the tag are left aside");
    /** One tag. */
    public static final Block TAG = Block.of(HEADING, LINE, COLUMNS_OF, COLUMNS_OF_CELL, ALSO, ASIDE);

    public static final Key TAGS =
            Key.named("tags", "a column that says what each row is, and what each tag means", null);

    public static final Key FILE = Key.text("file", "a file beside the one that is read; same: that file itself");
    public static final Key KEY =
            Key.text("key", "the column that leads to the other file").must();
    public static final Key THEIR_KEY = Key.text("their key", "the column of the other file; left out: the same title");
    public static final Key KEYS = Key.word("keys", "how often a key stands in the other file", "once", "first counts");
    public static final Key FORM =
            Key.block("is", "the form of the other file; left out: like the first", FormatKeys.SOURCE);
    public static final Key LINK = Key.named(
            "link",
            "files or sheets whose columns come beside, as name.title",
            Block.of(FILE, KEY, THEIR_KEY, KEYS, FORM, FormatKeys.SHEET));

    public static final Key FAN_ACCOUNT = Key.text("account", "the account of the line");
    public static final Key FAN_TEXT = Key.text("text", "the text of the line; left out: the title");
    public static final Key FAN_SIDE = Key.word("side", "the side that the figure stands on", "debit", "credit")
            .must();
    public static final Key FAN_OUT = Key.list(
            "fan out",
            "columns of amounts, of which each becomes a line",
            Block.of(FormatKeys.COLUMN, FAN_ACCOUNT, FAN_TEXT, FAN_SIDE));

    static final Key[] ALL = {YEARS, CARRY_DOWN, PAGE_HEADS, WRAPPED, FILL_DOWN, TAGS, LINK, FAN_OUT};

    private ShapeKeys() {}
}
