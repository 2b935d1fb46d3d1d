package io.mivrel.files.statements;

import io.mivrel.files.bytes.TextLines;
import io.mivrel.model.Rule;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Cuts text into tags and what stands between them, for SGML as OFX 1 has it, where most tags are never closed, and for
 * XML as OFX 2 has it. Declarations of entities are refused, comments passed over. For one thread.
 */
final class TagReader {
    private static final int LONGEST_TAG = 256;

    private final TextLines lines;
    private byte[] line = new byte[0];
    private int at;
    private int end;
    private boolean lineBroke;
    private String tag = "";
    private byte[] text = new byte[256];
    private int textLength;
    private boolean damaged;
    private boolean tooLong;

    TagReader(TextLines lines) {
        this.lines = lines;
    }

    private boolean nextLine() throws IOException {
        if (!lines.next()) {
            return false;
        }
        line = lines.bytes();
        at = lines.start();
        end = lines.end();
        damaged |= lines.isDamaged();
        if (lines.isTooLong()) {
            throw beyond("a line is longer than " + TextLines.LONGEST + " bytes");
        }
        return true;
    }

    private UnreadableFileException beyond(String what) {
        return new UnreadableFileException(Rule.FILE_BEYOND_CAP, lines.number(), what, Rule.FILE_BEYOND_CAP.remedy());
    }

    /**
     * Goes to the next tag, and keeps the text that follows it up to the tag after; false at the end of the file.
     */
    boolean next() throws IOException {
        if (!findOpen()) {
            return false;
        }
        readTag();
        textLength = 0;
        tooLong = false;
        if (tag.startsWith("!") || tag.startsWith("?")) {
            return next();
        }
        readText();
        return true;
    }

    private boolean findOpen() throws IOException {
        while (true) {
            while (at < end) {
                if (line[at] == '<') {
                    at++;
                    return true;
                }
                at++;
            }
            if (!nextLine()) {
                return false;
            }
        }
    }

    private void readTag() throws IOException {
        StringBuilder name = new StringBuilder();
        while (true) {
            if (at == end) {
                if (!nextLine()) {
                    throw new UnreadableFileException(
                            Rule.FILE_DAMAGED,
                            lines.number(),
                            "the file ends within the tag <" + name,
                            Rule.FILE_DAMAGED.remedy());
                }
                name.append(' ');
                continue;
            }
            byte c = line[at++];
            if (c == '>' && !(name.indexOf("!--") == 0 && !name.toString().endsWith("--"))) {
                break;
            }
            if (name.length() < LONGEST_TAG) {
                name.append((char) (c & 0xFF));
            } else if (name.indexOf("!--") == 0) {
                // A long comment: its end is all that matters.
                name.deleteCharAt(3);
                name.append((char) (c & 0xFF));
            } else {
                throw beyond("a tag is longer than " + LONGEST_TAG + " bytes");
            }
        }
        tag = name.toString();
        if (tag.startsWith("!DOCTYPE") || tag.startsWith("!ENTITY")) {
            throw new UnreadableFileException(
                    Rule.FILE_DAMAGED,
                    lines.number(),
                    "the file declares a document type of its own, which no statement needs",
                    "ask the source for a plain file");
        }
        int blank = tag.indexOf(' ');
        if (blank > 0 && !tag.startsWith("!") && !tag.startsWith("?")) {
            tag = tag.substring(0, blank);
        }
    }

    private void readText() throws IOException {
        while (true) {
            while (at < end) {
                if (line[at] == '<') {
                    return;
                }
                put(line[at++]);
            }
            if (!nextLine()) {
                return;
            }
            put((byte) ' ');
        }
    }

    private void put(byte c) {
        if (textLength == StatementRows.LONGEST) {
            tooLong = true;
            return;
        }
        if (textLength == text.length) {
            text = Arrays.copyOf(text, text.length * 2);
        }
        text[textLength++] = c;
    }

    /** The tag without its brackets; a closing one begins with a stroke. */
    String tag() {
        return tag;
    }

    /** True when bytes were met since the last question that are nothing in the encoding. */
    boolean wasDamaged() {
        boolean was = damaged;
        damaged = false;
        return was;
    }

    /** True when the text was cut at the cap. */
    boolean isTooLong() {
        return tooLong;
    }

    /** The text that follows the tag, without blanks around it and with its entities replaced. */
    String text() {
        String found = new String(text, 0, textLength, StandardCharsets.UTF_8).strip();
        return found.indexOf('&') < 0 ? found : unescaped(found);
    }

    private static String unescaped(String text) {
        StringBuilder out = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            int semicolon = c == '&' ? text.indexOf(';', i) : -1;
            String meant = semicolon < 0 || semicolon - i > 10 ? null : entity(text.substring(i + 1, semicolon));
            if (meant == null) {
                out.append(c);
            } else {
                out.append(meant);
                i = semicolon;
            }
        }
        return out.toString();
    }

    // The five of XML, the blank that banks use, and numbers; anything else stands as it is.
    private static String entity(String name) {
        return switch (name) {
            case "amp" -> "&";
            case "lt" -> "<";
            case "gt" -> ">";
            case "quot" -> "\"";
            case "apos" -> "'";
            case "nbsp" -> " ";
            default -> number(name);
        };
    }

    private static String number(String name) {
        boolean hex = name.startsWith("#x");
        String digits = hex ? name.substring(2) : name.startsWith("#") ? name.substring(1) : "";
        try {
            int point = Integer.parseInt(digits, hex ? 16 : 10);
            return Character.isValidCodePoint(point) && point >= ' ' && !(point >= 0xD800 && point < 0xE000)
                    ? Character.toString(point)
                    : null;
        } catch (NumberFormatException e) {
            return null;
        }
    }
}
