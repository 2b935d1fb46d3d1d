package io.mivrel.files.keys;

import io.mivrel.kinds.Kinds;
import io.mivrel.model.Field;
import io.mivrel.model.Kind;

/** A delivery: how a receiver wants its file. */
public final class DeliveryKeys {
    public static final Key DELIVERY = Key.text("delivery", "what it is called").must();
    public static final Key TAKES = Key.word(
                    "takes",
                    "the documents that it delivers",
                    Kinds.ALL.stream().map(Kind::documents).toList())
            .must();
    public static final Key FILE = Key.block("file", "the form of the file", FormatKeys.DELIVERED);
    public static final Key NUMBERS = Key.block("numbers", "how amounts are written", FormatKeys.DELIVERED_NUMBERS);
    public static final Key COLUMNS = Key.named("columns", "the columns by their titles", null);
    public static final Key ROWS =
            Key.text("rows", "the level of the documents that its rows are of").must();
    public static final Key SHEETS =
            Key.named("sheets", "several files that belong together", Block.of(ROWS, FILE, NUMBERS, COLUMNS.must()));

    public static final Key CONSTANT = Key.text("constant", "the same in every row");
    public static final Key AT_MOST = Key.number(
            "at most", 1, 10_000, "characters; a code that is longer is a blocker, a text is cut and reported");
    public static final Key REFUSE = Key.text("refuse", "characters that are taken out of texts");
    public static final Key BLANK_ZERO = Key.yes("blank zero", "whether an amount of nil is left blank");
    public static final Key SIGN = Key.word("sign", "the sign of amounts", "as reckoned", "turned");

    public static final Key ZEROS = Key.number(
            "leading zeros", 1, 40, "characters to which noughts fill a code of digits or an amount, behind its sign");
    public static final Key WIDTH = Key.number(
            "width",
            1,
            10_000,
            "places in a file of fixed width; longer texts are cut and reported, longer codes are blockers");
    public static final Key ALIGN = Key.word("align", "where it stands in its places", "left", "right");

    public static final Block ALL = Block.of(DELIVERY, TAKES, FILE, NUMBERS, COLUMNS, SHEETS);

    private DeliveryKeys() {}

    /** The field that a column of documents of a kind has. */
    public static Key field(Kind kind) {
        return Key.word(
                "field",
                "the field that it has",
                kind.table().fields().stream().map(Field::name).toList());
    }

    /** A column of documents of a kind. */
    public static Block column(Kind kind) {
        Key field = field(kind);
        return Block.of(
                        field,
                        CONSTANT,
                        FormatKeys.PATTERN,
                        FormatKeys.CENTURY,
                        FormatKeys.LANGUAGE,
                        AT_MOST,
                        REFUSE,
                        BLANK_ZERO,
                        SIGN,
                        ZEROS,
                        WIDTH,
                        ALIGN)
                .oneOf(field, CONSTANT);
    }
}
