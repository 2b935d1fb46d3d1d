package io.mivrel.model;

import io.mivrel.text.Hash64;
import java.util.List;

/**
 * What makes a document the same from run to run, as 64-bit hashes that are the same on every machine. A kind says which
 * of its fields count. Texts that people correct, such as narratives, usually do not.
 */
public interface DocumentIdentity {
    /** What the document is called: the hash of the fields that name it. */
    long identity(RecordRange records);

    /** What it would be called if it were of another day; its identity, where the day is no part of that. */
    default long identityOn(RecordRange records, long day) {
        return identity(records);
    }

    /**
     * What it says, whatever it is called and dated: the hash of its lines' accounts and amounts as the source has them,
     * before coding. Two documents with the same figures are probably one, entered twice. 0 for a document that has no name
     * of its own.
     */
    default long figures(RecordRange records) {
        return 0;
    }

    /**
     * The document as a whole. One that has no name of its own answers its identity, and then equal ones are told apart only
     * by how many there are.
     *
     * @param figures its {@link #figures}
     */
    long content(RecordRange records, long identity, long figures);

    /** What shows that a record of another file of the same account is the same one. */
    default long acrossFiles(RecordRange record) {
        return identity(record);
    }

    /** By which facts a document is told from others. Those of two forms can be compared by date and amount only. */
    default Form form(RecordRange records) {
        return Form.NUMBER;
    }

    /** The facts that tell a document from others. */
    enum Form {
        /** A number of its own. */
        NUMBER,
        /** An identifier that the bank gives. */
        BANK_IDENTIFIER,
        /** Date, amount and the running balance. */
        BALANCE,
        /** Nothing but date, amount and texts. */
        TEXTS
    }

    /** A number that no other kind has, to keep kinds apart; 0 where the kind's hashes do not have one. */
    default int number() {
        return 0;
    }

    /**
     * By fields: those of the heading name the document; the date of the first record and the fields of every line, in any
     * order, are its content.
     *
     * @param kind a number that no other kind has, to keep kinds apart
     * @param name code fields of the first record
     * @param whereFilled more of them, which count only where they are not blank
     * @param besides those of them that two documents with other numbers would have in common too, such as the party
     * @param date date field of the first record
     * @param lines code and amount fields of every record
     */
    static DocumentIdentity byFields(
            int kind, List<Field> name, List<Field> whereFilled, List<Field> besides, Field date, List<Field> lines) {
        return new DocumentIdentity() {
            @Override
            public int number() {
                return kind;
            }

            @Override
            public long identity(RecordRange records) {
                long hash = kind;
                for (Field field : name) {
                    hash = add(hash, records.block(), field, records.from());
                }
                for (Field field : whereFilled) {
                    boolean filled = records.block().textEnd(field, records.from())
                            > records.block().textStart(field, records.from());
                    hash = filled ? add(hash, records.block(), field, records.from()) : hash;
                }
                return hash;
            }

            @Override
            public long figures(RecordRange records) {
                RecordBlock block = records.block();
                // A sum, so that the order of the lines does not count: another form of the file has another one.
                long sum = records.size();
                for (int i = records.from(); i < records.to(); i++) {
                    long line = kind;
                    for (Field field : lines) {
                        line = field.type().isNumeric()
                                ? Hash64.add(line, block.number(field, i))
                                : add(line, block, field, i);
                    }
                    sum += line;
                }
                for (Field field : besides) {
                    sum = add(sum, block, field, records.from());
                }
                return sum;
            }

            @Override
            public long content(RecordRange records, long identity, long figures) {
                return DocumentIdentity.content(identity, records.block().number(date, records.from()), figures);
            }
        };
    }

    /** The content of a document that has a name, by its parts. */
    static long content(long identity, long day, long figures) {
        return Hash64.add(Hash64.add(identity, day), figures);
    }

    /** Adds a code or text of a record to a hash. */
    static long add(long hash, RecordBlock block, Field field, int index) {
        return Hash64.add(hash, block.textBytes(), block.textStart(field, index), block.textEnd(field, index));
    }
}
