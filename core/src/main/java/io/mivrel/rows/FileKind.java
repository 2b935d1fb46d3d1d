package io.mivrel.rows;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** The kinds of files that a layout can name. What a file really is, its content decides. */
public enum FileKind {
    /** Text with a separator between cells. */
    SEPARATED("separated"),
    /** Text whose columns stand at fixed places of the line, such as a print file. */
    FIXED_WIDTH("fixed width"),
    /** XLSX, XLS or ODS. */
    WORKBOOK("workbook"),
    /** Open Financial Exchange, versions 1 and 2. */
    OFX("ofx"),
    /** ISO 20022 bank-to-customer statement, camt.053 versions 02 to 08. */
    CAMT_053("camt.053"),
    /** SWIFT customer statement message MT940. */
    MT940("mt940"),
    /** The Q interchange text that banks offer. */
    QIF("qif"),
    /** Whichever of the four statement formats the content is. */
    STATEMENT("statement");

    private final String word;

    FileKind(String word) {
        this.word = word;
    }

    /** As layouts write it. */
    public String word() {
        return word;
    }

    /** True when the format itself fixes the columns; they are those of {@code intake.StatementColumns}. */
    public boolean isStatement() {
        return ordinal() >= OFX.ordinal();
    }

    /** True when a layout of this kind takes a file whose content is the other. */
    public boolean takes(FileKind content) {
        return this == content || this == STATEMENT && content.isStatement();
    }

    public static Optional<FileKind> of(String word) {
        return Arrays.stream(values()).filter(k -> k.word.equals(word)).findFirst();
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(FileKind::word).toList();
    }
}
