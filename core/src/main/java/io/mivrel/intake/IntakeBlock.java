package io.mivrel.intake;

import io.mivrel.model.Finding;
import io.mivrel.model.RecordBlock;
import java.util.ArrayList;
import java.util.List;

/** Some records in the order of the file, with the findings made while reading them: what passes between threads. */
public final class IntakeBlock {
    /** Records in a full block. */
    public static final int SIZE = 1024;

    private final RecordBlock records;
    private final List<Finding> findings = new ArrayList<>(0);

    IntakeBlock(RecordBlock records) {
        this.records = records;
    }

    public RecordBlock records() {
        return records;
    }

    public List<Finding> findings() {
        return findings;
    }
}
