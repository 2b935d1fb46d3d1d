package io.mivrel.model;

import org.jspecify.annotations.Nullable;

/**
 * Documents whose lines are the records of one block, one after the other: for what runs over millions of them without
 * making an object of each. Only kinds that are {@linkplain Kind#isColumnar columnar} come so, and only documents that
 * are decided: their records are valid and agree on their heading, and a coding has one posting. Documents count from 0.
 * Immutable once it is handed on.
 */
public final class DocumentBlock {
    private final Kind kind;
    private final RecordBlock records;
    private final int @Nullable [] bounds;
    private final int size;
    private final Coding @Nullable [] codings;
    private final Drafter drafter;

    /**
     * @param records the lines
     * @param bounds where each document begins, and behind them where the last one ends; {@code null} when each record is
     *     a document
     * @param size how many documents there are
     * @param codings what was decided about each record; {@code null} when nothing is coded
     * @param drafter makes a document an object
     */
    public DocumentBlock(
            Kind kind,
            RecordBlock records,
            int @Nullable [] bounds,
            int size,
            Coding @Nullable [] codings,
            Drafter drafter) {
        this.kind = kind;
        this.records = records;
        this.bounds = bounds;
        this.size = size;
        this.codings = codings;
        this.drafter = drafter;
    }

    public Kind kind() {
        return kind;
    }

    /** The records that the lines are. */
    public RecordBlock records() {
        return records;
    }

    /** Documents in the block. */
    public int size() {
        return size;
    }

    /** The place of a document's first line among the records; of {@link #size}, the place behind the last line of all. */
    public int from(int document) {
        return bounds == null ? document : bounds[document];
    }

    /** The place behind a document's last line. */
    public int to(int document) {
        return from(document + 1);
    }

    /** The records of a document. */
    public RecordRange range(int document) {
        return records.range(from(document), to(document));
    }

    /** The date of a document, as an epoch day. */
    public long day(int document) {
        return records.number(kind.date(), from(document));
    }

    /** True when a coding was asked for each record. */
    public boolean isCoded() {
        return codings != null;
    }

    /** What was decided about a record; {@code null} when nothing was. */
    public @Nullable Coding coding(int at) {
        return codings == null ? null : codings[at];
    }

    /** True when the value of a field is not what stands in the record, and {@link #made} has it. */
    public boolean isMade(Field field, int at) {
        if (field.derived()) {
            return true;
        }
        if (codings == null) {
            return false;
        }
        return field.type() == FieldType.CODE && field.level() == kind.amount().level()
                || field == kind.narrative() && codings[at].narrative() != null;
    }

    /** The text of a code or text field that is worked out or coded; {@code null} when blank. */
    public @Nullable String made(Field field, int document, int at) {
        return switch (field.derivation()) {
            case LINE_NUMBER -> Integer.toString(at - from(document) + 1);
            case SOURCE_FILE -> records.source().name();
            case SOURCE_ROW -> Long.toString(records.row(at));
            case FILE_ACCOUNT -> records.source().account();
            case CODING_ENTRY -> codings == null ? null : codings[at].entry();
            case DRAFTED -> throw new IllegalArgumentException(field + " is worked out by a drafter");
            case NONE -> coded(field, at);
        };
    }

    private @Nullable String coded(Field field, int at) {
        if (codings == null) {
            return records.text(field, at);
        }
        Posting posting = codings[at].posting();
        if (field == kind.account()) {
            return posting.account();
        }
        if (field == kind.taxCode()) {
            return posting.taxCode();
        }
        if (field == kind.party()) {
            return posting.party();
        }
        return field == kind.narrative()
                ? codings[at].narrative()
                : posting.dimensions().get(field.name());
    }

    /** A document as an object. */
    public Document get(int document) {
        return drafter.draft(range(document), coding(from(document)), finding -> {});
    }
}
