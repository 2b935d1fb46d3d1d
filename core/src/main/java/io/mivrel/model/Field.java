package io.mivrel.model;

/**
 * One field of a {@link FieldTable}.
 *
 * @param name the name used in layouts, deliveries and findings
 * @param type what its values are
 * @param required true when every row must give it
 * @param heading true when it belongs to the whole document, so that all lines of one must agree
 * @param derived true when Mivrel works it out, so that it can be delivered but not read
 * @param meaning one sentence for people
 * @param slot where a {@link SourceRecord} keeps it; -1 for a derived field
 */
public record Field(
        String name, FieldType type, boolean required, boolean heading, boolean derived, String meaning, int slot) {
    // Written out, because what the language makes of a record when it is first asked takes a short command 0.04 s.
    @Override
    public boolean equals(Object other) {
        return this == other
                || other instanceof Field field
                        && name.equals(field.name)
                        && type == field.type
                        && required == field.required
                        && heading == field.heading
                        && derived == field.derived
                        && meaning.equals(field.meaning)
                        && slot == field.slot;
    }

    @Override
    public int hashCode() {
        return name.hashCode();
    }
}
