package io.mivrel.model;

/** Journals whose lines are the journal line records of one batch. Immutable once it is handed on. */
public final class JournalBatch implements DocumentBlock {
    private final RecordBlock records;
    private final int[] bounds;
    private final int size;

    /**
     * @param records the lines
     * @param bounds where each journal begins, and behind them where the last one ends; at least {@code size + 1} places
     * @param size how many journals there are
     */
    public JournalBatch(RecordBlock records, int[] bounds, int size) {
        this.records = records;
        this.bounds = bounds;
        this.size = size;
    }

    @Override
    public RecordBlock records() {
        return records;
    }

    @Override
    public int size() {
        return size;
    }

    @Override
    public int from(int journal) {
        return bounds[journal];
    }

    @Override
    public Field amount() {
        return JournalLines.AMOUNT;
    }

    @Override
    public long day(int journal) {
        return records.number(JournalLines.DATE, bounds[journal]);
    }

    /** The records of a journal, decided or not. */
    public RecordRange lines(int journal) {
        return records.range(bounds[journal], bounds[journal + 1]);
    }

    @Override
    public Journal get(int journal) {
        return Journal.asRead(lines(journal));
    }
}
