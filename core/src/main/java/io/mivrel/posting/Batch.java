package io.mivrel.posting;

import java.time.LocalDate;

/**
 * Entries that are sent together, over as many calls as they need.
 *
 * @param key by which both sides know it; never used again
 * @param name for people
 * @param day the date it bears
 * @param standing how its entries are posted, {@link Standing#DRAFT} or {@link Standing#FINAL}
 */
public record Batch(String key, String name, LocalDate day, Standing standing) {}
