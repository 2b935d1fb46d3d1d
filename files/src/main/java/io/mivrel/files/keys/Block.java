package io.mivrel.files.keys;

import java.util.ArrayList;
import java.util.List;

/**
 * The keys of a block of settings, in the order of the page. Immutable.
 *
 * @param keys its keys
 * @param oneOf keys of which it has exactly one; empty when that does not matter
 * @param someOf keys of which it has at least one; empty when that does not matter
 */
public record Block(List<Key> keys, List<Key> oneOf, List<Key> someOf) {
    public static Block of(Key... keys) {
        return new Block(List.of(keys), List.of(), List.of());
    }

    /** The same with more keys. */
    public Block and(Key... more) {
        List<Key> all = new ArrayList<>(keys);
        all.addAll(List.of(more));
        return new Block(List.copyOf(all), oneOf, someOf);
    }

    /** The same, which has exactly one of these. */
    public Block oneOf(Key... some) {
        return new Block(keys, List.of(some), someOf);
    }

    /** The same, which has at least one of these. */
    public Block someOf(Key... some) {
        return new Block(keys, oneOf, List.of(some));
    }
}
