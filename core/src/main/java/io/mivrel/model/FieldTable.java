package io.mivrel.model;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The fields of one kind of record, declared once: layouts, deliveries and the field pages of the documentation all
 * derive from it. Filled while its class is loaded and never changed after.
 */
public final class FieldTable {
    private final String name;
    private final Map<String, Field> fields = new LinkedHashMap<>();
    private int numbers;
    private int objects;

    FieldTable(String name) {
        this.name = name;
    }

    /** The kind of record in the plural, as settings write it: {@code bank lines}. */
    public String name() {
        return name;
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

    Field required(String field, FieldType type, String meaning) {
        return add(field, type, true, false, meaning);
    }

    Field optional(String field, FieldType type, String meaning) {
        return add(field, type, false, false, meaning);
    }

    Field heading(String field, FieldType type, boolean required, String meaning) {
        return add(field, type, required, true, meaning);
    }

    Field derived(String field, FieldType type, String meaning) {
        return put(new Field(field, type, false, false, true, meaning, -1));
    }

    private Field add(String field, FieldType type, boolean required, boolean heading, String meaning) {
        int slot = type.isNumeric() ? numbers++ : objects++;
        return put(new Field(field, type, required, heading, false, meaning, slot));
    }

    private Field put(Field field) {
        if (fields.put(field.name(), field) != null) {
            throw new IllegalStateException("field declared twice: " + field.name());
        }
        return field;
    }

    /** All tables, in the order of the documentation. */
    public static List<FieldTable> all() {
        return new ArrayList<>(List.of(BankLines.TABLE, JournalLines.TABLE, InvoiceLines.TABLE));
    }
}
