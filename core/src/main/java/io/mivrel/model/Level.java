package io.mivrel.model;

import org.jspecify.annotations.Nullable;

/**
 * One level of a {@link FieldTable}: the heading of a document, its lines, the deliveries of a line, and so on. Fields are
 * declared on the level that they belong to. A level of depth 0 is the document itself.
 */
public final class Level {
    private final FieldTable table;
    private final String name;
    private final int depth;

    Level(FieldTable table, String name, int depth) {
        this.table = table;
        this.name = name;
        this.depth = depth;
    }

    public FieldTable table() {
        return table;
    }

    /** In the singular, such as {@code journal} or {@code line}. */
    public String name() {
        return name;
    }

    /** 0 for the document, one more for each level below it. */
    public int depth() {
        return depth;
    }

    /** Declares a field that every row must give. */
    public Field required(String field, FieldType type, String meaning) {
        return table.declare(this, field, type, true, Derivation.NONE, null, meaning);
    }

    /** Declares a field that a row may leave blank. */
    public Field optional(String field, FieldType type, String meaning) {
        return table.declare(this, field, type, false, Derivation.NONE, null, meaning);
    }

    /** Declares an amount in the currency that another field of the row names. */
    public Field foreign(String field, @Nullable Field currency, String meaning) {
        return table.declare(this, field, FieldType.AMOUNT, false, Derivation.NONE, currency, meaning);
    }

    /** Declares a field that is worked out, so that it can be delivered but not read. */
    public Field derived(String field, FieldType type, Derivation how, String meaning) {
        return table.declare(this, field, type, false, how, null, meaning);
    }

    /** Declares the fields that say where a line came from. */
    public void origins() {
        derived("source file", FieldType.CODE, Derivation.SOURCE_FILE, "file the line came from");
        derived("source row", FieldType.CODE, Derivation.SOURCE_ROW, "first physical row there");
    }

    @Override
    public String toString() {
        return name;
    }
}
