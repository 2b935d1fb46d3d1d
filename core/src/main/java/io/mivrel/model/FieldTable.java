package io.mivrel.model;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The fields of one kind of record, declared once on their {@link Level}s: layouts, deliveries and the field pages of the
 * documentation all derive from it. Filled while its class is loaded; once a {@link Kind} is made of it, a further
 * declaration throws {@link IllegalStateException}.
 */
public final class FieldTable {
    private final String name;
    private final List<Level> levels;
    private final Map<String, Field> fields = new LinkedHashMap<>();
    private int numbers;
    private int objects;
    private boolean complete;

    /**
     * @param name the kind of record in the plural, as settings write it: {@code bank lines}
     * @param levels the levels from the document down, at least one, in the singular
     */
    public FieldTable(String name, String... levels) {
        this.name = name;
        List<Level> made = new ArrayList<>();
        for (String level : levels) {
            made.add(new Level(this, level, made.size()));
        }
        if (made.isEmpty()) {
            throw new IllegalArgumentException("a table has at least one level");
        }
        this.levels = List.copyOf(made);
    }

    /** The kind of record in the plural, as settings write it: {@code bank lines}. */
    public String name() {
        return name;
    }

    /** From the document down. */
    public List<Level> levels() {
        return levels;
    }

    /** The level of a depth, from 0 for the document. */
    public Level level(int depth) {
        return levels.get(depth);
    }

    public Level deepest() {
        return levels.get(levels.size() - 1);
    }

    /** All fields in the order of their declaration. */
    public List<Field> fields() {
        return List.copyOf(fields.values());
    }

    /** The names of the fields that a layout may read. */
    public List<String> readable() {
        return fields.values().stream()
                .filter(f -> !f.derived())
                .map(Field::name)
                .toList();
    }

    public Optional<Field> find(String field) {
        return Optional.ofNullable(fields.get(field));
    }

    int numberSlots() {
        return numbers;
    }

    int objectSlots() {
        return objects;
    }

    void complete() {
        complete = true;
    }

    Field declare(
            Level level,
            String field,
            FieldType type,
            boolean required,
            Derivation derivation,
            @Nullable Field currency,
            String meaning) {
        if (complete) {
            throw new IllegalStateException("the table of " + name + " is complete: '" + field + "' comes too late");
        }
        if (currency != null) {
            currency.requireOf(this);
        }
        int slot = derivation != Derivation.NONE ? -1 : type.isNumeric() ? numbers++ : objects++;
        Field made = new Field(level, field, type, required, derivation, currency, meaning, fields.size(), slot);
        if (fields.put(field, made) != null) {
            throw new IllegalStateException("field declared twice: " + field);
        }
        return made;
    }

    @Override
    public String toString() {
        return name;
    }
}
