package io.mivrel.files.keys;

import io.mivrel.kinds.Kinds;
import io.mivrel.layout.Credits;
import io.mivrel.layout.Permissions;
import io.mivrel.layout.Signs;
import io.mivrel.layout.Whose;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;
import java.util.List;

/** A layout: how a source file is laid out. */
public final class LayoutKeys {
    public static final Key LAYOUT = Key.text("layout", "what it is called").must();
    public static final Key GIVES = Key.word(
                    "gives",
                    "the kind of its records",
                    Kinds.ALL.stream().map(Kind::name).toList())
            .must();
    public static final Key ACCOUNT = Key.text(
            "account", "the account in the books that bank lines belong to; by number: each statement names its own");
    public static final Key SIGNS = Key.word("signs", "whose plus is plus, of amounts and of balances", Signs.words());
    public static final Key CREDITS = Key.word("credits", "how the figures of credits are written", Credits.words());
    public static final Key DOCUMENTS =
            Key.word("documents", "where the lines of one document stand", "in one file", "across files");
    public static final Key FILE = Key.block("file", "the form of the file", FormatKeys.SOURCE);
    public static final Key NUMBERS = Key.block("numbers", "how figures are written", FormatKeys.NUMBERS);
    public static final Key ALLOW =
            Key.words("allow", "what is let pass that would be held without it", Permissions.WORDS);
    public static final Key FOR_DATES = Key.text(
                    "for dates", "the days that it is made for, such as 2026-01-01 to 2026-12-31; other days are held")
            .like(RunKeys.DAYS);
    public static final Key UNUSED = Key.texts("unused", "titles of columns that are left aside");
    public static final Key IN_ORDER =
            Key.texts("columns in order", "titles as they stood when it was made, for survey --like");

    /** Of a filter, where any cell may fit, and of a mark. */
    public static final Key ANY_COLUMN = Key.text("column", "the title of a column, or its place");

    public static final Key IS = Key.texts("is", "texts that the cell is");
    public static final Key BEGINS = Key.texts("begins", "texts that the cell begins with");
    public static final Key CONTAINS = Key.texts("contains", "texts that the cell contains");
    private static final Block FILTER =
            Block.of(ANY_COLUMN, IS, BEGINS, CONTAINS).oneOf(IS, BEGINS, CONTAINS);
    public static final Key LEAVE_OUT = Key.list("leave out", "rows that are left out", FILTER);
    public static final Key ONLY = Key.list("only", "rows that alone are taken", FILTER);

    public static final Key MUST_BE = IS.must();
    public static final Key EXPECT = Key.list(
            "expect",
            "cells that are this in every row, or blank; else the row is held",
            Block.of(FormatKeys.COLUMN, MUST_BE));

    public static final Key PLUS = Key.texts("plus", "columns that are added; of a side, texts that mean plus")
            .must();
    public static final Key MINUS = Key.texts("minus", "columns that are taken off; of a side, texts that mean minus")
            .must();
    public static final Key ROW_SUMS = Key.list(
            "row sums", "columns that agree in every row that has them all; else it is held", Block.of(PLUS, MINUS));

    public static final Key LABEL = Key.text("label", "how the cell before the value begins");
    private static final Block MARK = Block.of(LABEL, IS);
    /** What a file says of whose it is: number, bank, currency, holder. */
    public static final List<Key> MARKS = Whose.WORDS.stream()
            .map(word -> Key.block(
                    word,
                    "the " + word + " that the file states",
                    word.equals(Whose.NUMBER) ? MARK.and(ANY_COLUMN) : MARK))
            .toList();

    public static final Key WHOSE = Key.block(
            "whose", "whose file it is; a file that says something else is held", Block.of(MARKS.toArray(Key[]::new)));

    public static final Key OPENING = Key.text("opening", "the label of the opening balance");
    public static final Key CLOSING = Key.text("closing", "the label of the closing balance");
    public static final Key IN = Key.text("in", "the label of the sum of all that comes in");
    public static final Key OUT = Key.text("out", "the label of the sum of all that goes out");
    public static final Key COUNT = Key.text("count", "the label of the number of movements");
    public static final Key OWED = Key.yes("owed", "whether the balances say what is owed");
    public static final Key CARRIED = Key.texts("carried", "how rows begin that carry a balance over");
    public static final Key TOTALS = Key.texts("totals", "how rows begin that add up the amounts above them");
    public static final Key STATED = Key.block(
            "stated",
            "figures beside the rows that each run compares with them",
            Block.of(OPENING, CLOSING, IN, OUT, COUNT, OWED, CARRIED, TOTALS));

    public static final Key FIELDS = Key.named("fields", "where each field comes from", null);
    public static final Key ONE_COLUMN =
            Key.texts("column", "the title of its column, or its place; several: the titles of different months");
    public static final Key COLUMNS = Key.texts("columns", "columns whose texts are joined, or an amount's two sides");
    public static final Key CONSTANT = Key.text("constant", "the same for every row");
    public static final Key SIDE =
            Key.block("side", "a column that says the sign", Block.of(FormatKeys.COLUMN, PLUS, MINUS));
    public static final Key LESS = Key.text("less", "a column that is taken off");
    public static final Key BETWEEN = Key.text("between", "what stands between several columns; left out: a blank");
    public static final Key IF_BLANK = Key.text("if blank", "what stands for a blank cell");
    public static final Key VALUES = Key.open("values", "what the texts of the file mean, such as {INV: invoice}");
    public static final Key VALUES_FROM = Key.text("values from", "a CSV file of these, with the columns from and to");

    /** Everything but the shapes, in the order of the page. */
    public static final Block ALL = Block.of(
                    LAYOUT, GIVES, ACCOUNT, SIGNS, CREDITS, DOCUMENTS, FILE, NUMBERS, ALLOW, FOR_DATES, UNUSED,
                    IN_ORDER, LEAVE_OUT, ONLY, EXPECT, ROW_SUMS, WHOSE, STATED, FIELDS)
            .and(ShapeKeys.ALL);

    private LayoutKeys() {}

    /** Where a field may come from. */
    public static Block source(Field field) {
        Block block = Block.of(ONE_COLUMN, COLUMNS, CONSTANT).someOf(ONE_COLUMN, COLUMNS, CONSTANT);
        return switch (field.type()) {
            case DATE -> block.and(FormatKeys.PATTERN, FormatKeys.CENTURY, FormatKeys.LANGUAGE);
            case AMOUNT -> block.and(SIDE, LESS);
            case TEXT, CODE -> block.and(BETWEEN, IF_BLANK, VALUES, VALUES_FROM, FormatKeys.TAKE);
            case DECIMAL -> block;
        };
    }

    /** The fields that records of a kind have. */
    public static Block fields(Kind kind) {
        return Block.of(kind.table().fields().stream()
                .filter(field -> !field.derived())
                .map(field -> Key.block(field.name(), field.meaning(), source(field)))
                .toArray(Key[]::new));
    }
}
