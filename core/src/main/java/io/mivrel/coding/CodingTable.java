package io.mivrel.coding;

import java.util.List;

/** The entries in their order: the first that fits decides. Immutable. */
public record CodingTable(String name, List<CodingEntry> entries) {
    public CodingTable {
        entries = List.copyOf(entries);
    }
}
