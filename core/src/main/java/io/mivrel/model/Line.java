package io.mivrel.model;

import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Currency;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One node of a document: its heading, a line, a delivery of a line, and so on, as deep as the kind has levels. A field of
 * a level above is answered by the node above. A value is what the drafter put, else what the source record says, where
 * that is of the same table; no other table ever answers. Filled by a drafter; read-only once its document is made.
 */
public final class Line {
    /** Put by a drafter in the place of a value that the source has. */
    private static final Object BLANK = new Object();

    private final Kind kind;
    private final Level level;
    private final @Nullable Line parent;
    private final SourceRecord source;
    private final int index;
    private final List<Line> children = new ArrayList<>(0);
    private Object @Nullable [] own;
    private boolean complete;

    private Line(Kind kind, Level level, @Nullable Line parent, SourceRecord source, int index) {
        this.kind = kind;
        this.level = level;
        this.parent = parent;
        this.source = Objects.requireNonNull(source);
        this.index = index;
    }

    /** A heading, made of the first record of its document. */
    public static Line heading(Kind kind, SourceRecord source) {
        return new Line(kind, kind.table().level(0), null, source, 0);
    }

    /** Adds a node of the next level below, made of a record; {@code index} is its place among those of its level. */
    public Line add(SourceRecord record, int place) {
        requireOpen();
        Line child = new Line(kind, kind.table().level(level.depth() + 1), this, record, place);
        children.add(child);
        return child;
    }

    public Kind kind() {
        return kind;
    }

    public Level level() {
        return level;
    }

    /** The node above; {@code null} for a heading. */
    public @Nullable Line parent() {
        return parent;
    }

    /** The nodes of the next level below, in the order of the source. */
    public List<Line> children() {
        return Collections.unmodifiableList(children);
    }

    /** The record that it was made of, which may be of another table: a journal of a bank line has its bank line here. */
    public SourceRecord source() {
        return source;
    }

    /** Its place among the nodes of its level in the document, from 0. */
    public int index() {
        return index;
    }

    /** Puts a text or code in the place of the source's; {@code null} leaves it blank. */
    public Line put(Field field, @Nullable String text) {
        return putValue(field, text);
    }

    /** Puts minor units or an epoch day; {@link SourceRecord#ABSENT} leaves it blank. */
    public Line put(Field field, long number) {
        return putValue(field, number == SourceRecord.ABSENT ? null : number);
    }

    private Line putValue(Field field, @Nullable Object value) {
        requireOpen();
        field.requireOf(kind.table());
        if (field.level() != level) {
            throw new IllegalArgumentException(field + " belongs to the level " + field.level() + ", not to " + level);
        }
        if (own == null) {
            own = new Object[kind.table().fields().size()];
        }
        own[field.ordinal()] = value == null ? BLANK : value;
        return this;
    }

    private void requireOpen() {
        if (complete) {
            throw new IllegalStateException("the document is complete");
        }
    }

    void complete() {
        complete = true;
        children.forEach(Line::complete);
    }

    // The node that answers for a field: this one or one above it.
    private Line at(Field field) {
        field.requireOf(kind.table());
        Line line = this;
        while (line.level.depth() > field.level().depth()) {
            line = Objects.requireNonNull(line.parent);
        }
        if (line.level != field.level()) {
            throw new IllegalArgumentException(field + " belongs to the level " + field.level() + " below " + level);
        }
        return line;
    }

    private @Nullable Object own(Field field) {
        return own == null ? null : own[field.ordinal()];
    }

    /** True for words that no cell of the source holds: a coding table or a drafter put them there. */
    public boolean isComposed(Field field) {
        Object value = at(field).own(field);
        if (!(value instanceof String words)) {
            return false;
        }
        for (Field cell : source.table().fields()) {
            boolean isText = cell.type() == FieldType.TEXT || cell.type() == FieldType.CODE;
            if (isText && !cell.derived() && words.equals(source.text(cell))) {
                return false;
            }
        }
        return true;
    }

    private boolean readsSource(Field field) {
        return source.table() == kind.table() && !field.derived();
    }

    /** The text or code of a field, worked out where it is derived; {@code null} when blank. */
    public @Nullable String text(Field field) {
        Line line = at(field);
        Object value = line.own(field);
        if (value != null) {
            return value == BLANK ? null : (String) value;
        }
        return switch (field.derivation()) {
            case NONE -> line.readsSource(field) ? line.source.text(field) : null;
            case LINE_NUMBER -> Integer.toString(line.index + 1);
            case SOURCE_FILE -> line.source.file();
            case SOURCE_ROW -> Long.toString(line.source.row());
            case FILE_ACCOUNT -> line.source.block().source().account();
            case CODING_ENTRY, DRAFTED -> null;
        };
    }

    /** Minor units of an amount field, or the epoch day of a date field; {@link SourceRecord#ABSENT} when blank. */
    public long number(Field field) {
        if (field == kind.plusSide()) {
            return Math.max(0, number(kind.amount()));
        }
        if (field == kind.minusSide()) {
            return Math.max(0, -number(kind.amount()));
        }
        Line line = at(field);
        Object value = line.own(field);
        if (value != null) {
            return value == BLANK ? SourceRecord.ABSENT : (Long) value;
        }
        return line.readsSource(field) ? line.source.number(field) : SourceRecord.ABSENT;
    }

    /** The number of a decimal field; {@code null} when blank. */
    public @Nullable BigDecimal decimal(Field field) {
        Line line = at(field);
        return line.readsSource(field) ? line.source.decimal(field) : null;
    }

    /** Its account code; {@code null} when it has none. */
    public @Nullable String account() {
        return code(kind.account());
    }

    /** Its tax code; {@code null} when it has none. */
    public @Nullable String taxCode() {
        return code(kind.taxCode());
    }

    /** The code of its customer or supplier; {@code null} when it has none. */
    public @Nullable String party() {
        return code(kind.party());
    }

    private @Nullable String code(@Nullable Field field) {
        return field == null ? null : text(field);
    }

    /** Minor units of its amount, as its kind signs it. */
    public long minor() {
        return number(kind.amount());
    }

    /** Its amount, as its kind signs it; {@code null} when it has none. */
    public @Nullable Money amount() {
        return money(kind.amount());
    }

    /** The currency of every amount that names none of its own. */
    public Currency currency() {
        return source.block().currency();
    }

    /** An amount field with its currency, which is that of the file unless another field names it; {@code null} when blank. */
    public @Nullable Money money(Field field) {
        long minor = number(field);
        if (minor == SourceRecord.ABSENT) {
            return null;
        }
        String named = field.currency() == null ? null : text(field.currency());
        return new Money(minor, named == null ? currency() : Currency.getInstance(named));
    }
}
