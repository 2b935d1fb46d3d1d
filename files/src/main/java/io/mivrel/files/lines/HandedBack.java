package io.mivrel.files.lines;

import io.mivrel.rows.FileFormat;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Held rows of a file that was no separated text, handed back as the separated text that Mivrel wrote: the first row says
 * which column each cell is, whatever the layout says of the file itself. A spreadsheet that saved it may have put another
 * separator and another encoding.
 */
public final class HandedBack implements RowSource {
    /** Title of the column that Mivrel adds, by which its own files are known. */
    public static final String MARK = "Mivrel row";

    private static final Pattern BEFORE_MARK = Pattern.compile("([,;\t|])\"?" + MARK);
    private static final Pattern BEHIND_MARK = Pattern.compile(MARK + "\"?([,;\t|])");

    private final SeparatedRows rows;
    private final List<String> titles = new ArrayList<>();

    /** {@code head} is the beginning of the file, with the mark in it. */
    public HandedBack(Path file, String head) throws IOException {
        FileFormat form = asSaved(file, head, FileFormat.csv());
        rows = SeparatedRows.open(file, form.separator(), form.encoding());
        Row first = rows.next();
        for (int i = 0; first != null && i < first.size(); i++) {
            titles.add(first.trimmed(i));
        }
    }

    /** The form that a file with the mark really has: its separator, and UTF-8 where it is that. */
    public static FileFormat asSaved(Path file, String head, FileFormat form) throws IOException {
        Matcher separator = BEFORE_MARK.matcher(head);
        if (!separator.find()) {
            separator = BEHIND_MARK.matcher(head);
            if (!separator.find()) {
                return form;
            }
        }
        return form.saved(separator.group(1).charAt(0), isUtf8(file) ? FileFormat.AUTO : form.encoding());
    }

    // Text beyond ASCII that is UTF-8 throughout is nothing else.
    private static boolean isUtf8(Path file) throws IOException {
        try (Reader chars = new InputStreamReader(Files.newInputStream(file), StandardCharsets.UTF_8.newDecoder())) {
            char[] buffer = new char[8192];
            boolean beyond = false;
            for (int read = chars.read(buffer); read >= 0; read = chars.read(buffer)) {
                for (int i = 0; i < read && !beyond; i++) {
                    beyond = buffer[i] > 0x7F;
                }
            }
            return beyond;
        } catch (CharacterCodingException anotherEncoding) {
            return false;
        }
    }

    @Override
    public List<String> titles() {
        return titles;
    }

    @Override
    public @Nullable Row next() throws IOException {
        return rows.next();
    }

    @Override
    public void close() throws IOException {
        rows.close();
    }
}
