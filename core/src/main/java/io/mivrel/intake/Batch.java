package io.mivrel.intake;

import io.mivrel.model.Finding;
import io.mivrel.model.RecordBatch;
import java.util.ArrayList;
import java.util.List;

/** Some records in the order of the file, with the findings made while reading them: what passes between threads. */
public final class Batch {
    /** Records in a full batch. */
    public static final int SIZE = 1024;

    private final RecordBatch records;
    private final List<Finding> findings = new ArrayList<>(0);

    Batch(RecordBatch records) {
        this.records = records;
    }

    public RecordBatch records() {
        return records;
    }

    public List<Finding> findings() {
        return findings;
    }
}
