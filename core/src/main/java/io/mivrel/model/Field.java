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
 * @param slot where a {@link Record} keeps it; -1 for a derived field
 */
public record Field(
        String name, FieldType type, boolean required, boolean heading, boolean derived, String meaning, int slot) {}
