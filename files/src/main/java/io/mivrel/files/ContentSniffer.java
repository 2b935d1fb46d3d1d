package io.mivrel.files;

import io.mivrel.files.bytes.Readable;
import io.mivrel.files.lines.HandedBack;
import io.mivrel.rows.FileKind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Tells by its beginning what a file is; its name is not looked at. */
public final class ContentSniffer {
    private static final int HEAD = 1 << 15;
    private static final Pattern XML_ENCODING =
            Pattern.compile("<\\?[^>]*encoding *= *[\"']([A-Za-z0-9._-]{1,40})[\"']");
    private static final Pattern MT940_FIELD =
            Pattern.compile("(?m)^(\\{[0-9].*\\{4:\\s{0,4})?[ \\t]*:(20|25|28C?|60[FM]):");

    private ContentSniffer() {}

    /**
     * What the beginning of a file says.
     *
     * @param kind {@link FileKind#SEPARATED} for any text that is nothing else; {@code null} for what Mivrel does not read
     * @param words the same for people
     * @param encoding what a statement file itself says of its encoding; {@code auto} where it does not
     * @param handedBack the beginning of a file with held rows that Mivrel wrote; empty for any other
     */
    public record Content(@Nullable FileKind kind, String words, String encoding, String handedBack) {}

    /** Looks at the beginning of a file; throws {@link IOException} with a message for people when it cannot be read. */
    public static Content look(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(Readable.check(file))) {
            return look(in.readNBytes(HEAD));
        }
    }

    public static Content look(byte[] head) {
        if (starts(head, 'P', 'K', 3, 4) || starts(head, 'P', 'K', 5, 6)) {
            return content(FileKind.WORKBOOK, "a workbook or another archive");
        }
        if (starts(head, 0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1)) {
            return content(FileKind.WORKBOOK, "an old workbook (XLS)");
        }
        if (starts(head, '%', 'P', 'D', 'F')) {
            return content(null, "a PDF document");
        }
        String text = text(head);
        String begin = text.stripLeading();
        String upper = begin.substring(0, Math.min(begin.length(), 4096)).toUpperCase(Locale.ROOT);
        if (upper.startsWith("OFXHEADER") || upper.startsWith("<?OFX") || upper.contains("<OFX>")) {
            return new Content(FileKind.OFX, "a statement in OFX", ofxEncoding(upper, text), "");
        }
        if (upper.startsWith("<")) {
            return xml(upper, begin);
        }
        if (upper.startsWith("!TYPE:") || upper.startsWith("!ACCOUNT") || upper.startsWith("!OPTION:")) {
            return content(FileKind.QIF, "a QIF list");
        }
        Matcher field = MT940_FIELD.matcher(begin);
        if (field.find() && begin.contains(":60")) {
            return content(FileKind.MT940, "an MT940 statement");
        }
        return new Content(FileKind.SEPARATED, "plain text", "auto", begin.contains(HandedBack.MARK) ? begin : "");
    }

    private static Content xml(String upper, String begin) {
        if (upper.contains("CAMT.053")) {
            return content(FileKind.CAMT_053, "a camt.053 statement");
        }
        if (upper.contains("<HTML") || upper.contains("<TABLE") || upper.startsWith("<!DOCTYPE HTML")) {
            return content(null, "a web page; open it in a spreadsheet and save it as a workbook");
        }
        if (upper.startsWith("<?XML")) {
            Matcher other = Pattern.compile("(camt|pain|pacs)\\.[0-9.]+").matcher(begin);
            return content(null, other.find() ? "a message " + other.group() : "XML of a kind that is not read");
        }
        return new Content(FileKind.SEPARATED, "plain text", "auto", "");
    }

    private static Content content(@Nullable FileKind kind, String words) {
        return new Content(kind, words, "auto", "");
    }

    // OFX 1 says ENCODING and CHARSET in its header, OFX 2 says it as XML does.
    private static String ofxEncoding(String upper, String text) {
        Matcher declared = XML_ENCODING.matcher(text);
        if (upper.startsWith("<?XML") && declared.find()) {
            return known(declared.group(1));
        }
        Matcher charset = Pattern.compile("CHARSET: *([A-Z0-9_-]{1,30})").matcher(upper);
        Matcher encoding = Pattern.compile("ENCODING: *([A-Z0-9_-]{1,30})").matcher(upper);
        String name = encoding.find() ? encoding.group(1) : "";
        if (name.equals("UTF-8") || name.equals("UNICODE")) {
            return "UTF-8";
        }
        if (charset.find()) {
            return charset.group(1).equals("1252")
                    ? "windows-1252"
                    : charset.group(1).equals("ISO-8859-1") || charset.group(1).equals("8859-1")
                            ? "ISO-8859-1"
                            : known(charset.group(1));
        }
        return "auto";
    }

    private static String known(String name) {
        try {
            return Charset.isSupported(name) ? Charset.forName(name).name() : "auto";
        } catch (IllegalArgumentException e) {
            return "auto";
        }
    }

    private static String text(byte[] head) {
        if (starts(head, 0xFF, 0xFE)) {
            return new String(head, 2, head.length - 2, StandardCharsets.UTF_16LE);
        }
        if (starts(head, 0xFE, 0xFF)) {
            return new String(head, 2, head.length - 2, StandardCharsets.UTF_16BE);
        }
        int from = starts(head, 0xEF, 0xBB, 0xBF) ? 3 : 0;
        return new String(head, from, head.length - from, StandardCharsets.ISO_8859_1);
    }

    private static boolean starts(byte[] head, int... mark) {
        if (head.length < mark.length) {
            return false;
        }
        for (int i = 0; i < mark.length; i++) {
            if ((head[i] & 0xFF) != (mark[i] & 0xFF)) {
                return false;
            }
        }
        return true;
    }
}
