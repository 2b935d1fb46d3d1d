package io.mivrel.model;

import org.jspecify.annotations.Nullable;

/**
 * One field of one {@link FieldTable}, and equal to no other: two tables may both have a {@code date}, and a record asked
 * for the wrong one throws. Made by the {@link Level} that declares it. Immutable.
 */
public final class Field {
    /** Kept beside the level: it is compared for every value of every row. */
    private final FieldTable table;

    private final Level level;
    private final String name;
    private final FieldType type;
    private final boolean required;
    private final Derivation derivation;
    private final @Nullable Field currency;
    private final String meaning;
    private final int ordinal;
    private final int slot;

    Field(
            Level level,
            String name,
            FieldType type,
            boolean required,
            Derivation derivation,
            @Nullable Field currency,
            String meaning,
            int ordinal,
            int slot) {
        this.table = level.table();
        this.level = level;
        this.name = name;
        this.type = type;
        this.required = required;
        this.derivation = derivation;
        this.currency = currency;
        this.meaning = meaning;
        this.ordinal = ordinal;
        this.slot = slot;
    }

    /** The table that it belongs to. */
    public FieldTable table() {
        return table;
    }

    /** The level that it belongs to. */
    public Level level() {
        return level;
    }

    /** The name used in layouts, deliveries and findings. */
    public String name() {
        return name;
    }

    /** What its values are. */
    public FieldType type() {
        return type;
    }

    /** True when every row must give it. */
    public boolean required() {
        return required;
    }

    /** True when it is worked out, so that it can be delivered but not read. */
    public boolean derived() {
        return derivation != Derivation.NONE;
    }

    public Derivation derivation() {
        return derivation;
    }

    /** The field that names the currency of this amount; {@code null} for an amount in the currency of its file. */
    public @Nullable Field currency() {
        return currency;
    }

    /** One sentence for people. */
    public String meaning() {
        return meaning;
    }

    /** Its place in the table, from 0. */
    int ordinal() {
        return ordinal;
    }

    /** Where a record keeps it among the fields of its storage; -1 for a derived field. */
    int slot() {
        return slot;
    }

    /** Throws {@link IllegalArgumentException} when it belongs to another table. */
    void requireOf(FieldTable asked) {
        if (table != asked) {
            throw new IllegalArgumentException(
                    "'" + name + "' is a field of " + table.name() + ", not of " + asked.name());
        }
    }

    @Override
    public String toString() {
        return name + " of " + table.name();
    }
}
