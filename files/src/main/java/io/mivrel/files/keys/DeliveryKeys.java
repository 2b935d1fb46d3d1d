package io.mivrel.files.keys;

import io.mivrel.delivery.Counting;
import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;

/** A delivery: how a receiver wants its file. */
public final class DeliveryKeys {
    public static final Key DELIVERY = Key.text("delivery", "what it is called").must();
    public static final Key TAKES = Key.word(
            "takes",
            "the documents that it delivers",
            Kinds.ALL.stream().map(Kind::documents).toList());
    public static final Key FILE = Key.block("file", "the form of the file", FormatKeys.DELIVERED);
    public static final Key NUMBERS = Key.block("numbers", "how amounts are written", FormatKeys.DELIVERED_NUMBERS);
    public static final Key COLUMNS = Key.named("columns", "the columns by their titles", null);
    public static final Key ROWS =
            Key.text("rows", "the level of the documents that its rows are of").must();
    public static final Key SHEETS =
            Key.named("sheets", "several files that belong together", Block.of(ROWS, FILE, NUMBERS, COLUMNS.must()));

    public static final Key LIKE = Key.text(
            "like",
            "another delivery's file: what is not said here is as it is there; columns: {Memo: {drop: yes}} leaves one out");
    public static final Key DROP =
            Key.yes("drop", "whether a column of the delivery that this one is like is left out");

    public static final Key TITLE = Key.text(
            "title",
            "its title in the file, where that cannot be its name here, as when two columns have the same or none");
    public static final Key CONSTANT =
            Key.text("constant", "the same in every row; \"\" for a column that stays blank");
    public static final Key COUNTS =
            Key.word("counts", "what it counts, from 1 in each file", Counting.ROWS.word(), Counting.DOCUMENTS.word());
    public static final Key CELL =
            Key.word("cell", "whether a day is a text in a workbook, or a date that the pattern shows", "text", "date");
    public static final Key REQUIRED = Key.yes("required", "whether a document with nothing for it is held");
    public static final Key SQUEEZE = Key.yes("squeeze blanks", "whether several blanks of a text become one");
    public static final Key TAKE = Key.text(
            "take", "a pattern of what is taken out of the text: its first group, or all; blank where it fits not");
    public static final Key PART = Key.number("part", 1, 20, "the part of a segmented code that it has");
    public static final Key DIVIDED =
            Key.text("divided by", "what stands between the parts of a segmented code, such as -");
    public static final Key VALUES = Key.open(
            "values", "the receiver's words by ours, such as {STD: S20}; a value that is not among them is held");
    public static final Key AT_MOST = Key.number(
            "at most", 1, 10_000, "characters; a code that is longer is a blocker, a text is cut and reported");
    public static final Key REFUSE = Key.text("refuse", "characters that are taken out of texts");
    public static final Key BLANK_ZERO = Key.yes("blank zero", "whether an amount of nil is left blank");
    public static final Key SIGN = Key.word(
            "sign", "the sign of amounts; none: a column with 'side' says it", "as reckoned", "turned", "none");
    public static final Key SIDE = Key.texts(
            "side",
            "in place of an amount its side: the words for a debit or money in, and for a credit or money out, such as [D, C]");

    public static final Key ZEROS = Key.number(
            "leading zeros", 1, 40, "characters to which noughts fill a code of digits or an amount, behind its sign");
    public static final Key WIDTH = Key.number(
            "width",
            1,
            10_000,
            "places in a file of fixed width; longer texts are cut and reported, longer codes are blockers");
    public static final Key ALIGN = Key.word("align", "where it stands in its places", "left", "right");

    public static final Block ALL = Block.of(DELIVERY, LIKE, TAKES, FILE, NUMBERS, COLUMNS, SHEETS);

    private DeliveryKeys() {}

    /** The field that a column of documents of a kind has. */
    public static Key field(Kind kind) {
        return Key.words(
                "field",
                "the field that it has; of texts and codes several",
                kind.table().fields().stream().map(Field::name).toList());
    }

    /** A column of documents of a kind. */
    public static Block column(Kind kind) {
        Key field = field(kind);
        return Block.of(
                TITLE,
                field,
                CONSTANT,
                COUNTS,
                LayoutKeys.BETWEEN,
                SQUEEZE,
                TAKE,
                PART,
                DIVIDED,
                VALUES,
                REQUIRED,
                DROP,
                FormatKeys.PATTERN,
                FormatKeys.CENTURY,
                FormatKeys.LANGUAGE,
                AT_MOST,
                REFUSE,
                BLANK_ZERO,
                SIGN,
                SIDE,
                ZEROS,
                WIDTH,
                ALIGN);
    }
}
