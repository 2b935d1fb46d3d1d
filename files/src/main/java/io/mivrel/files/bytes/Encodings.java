package io.mivrel.files.bytes;

import java.nio.charset.Charset;

/** Facts about character sets that the decoder and encoder share. */
public final class Encodings {
    private Encodings() {}

    /** True when every byte below 128 is the ASCII character and nothing else, so that such bytes need no decoder. */
    public static boolean isAsciiCompatible(Charset charset) {
        return charset.name().matches("UTF-8|US-ASCII|ISO-8859-\\d+|windows-125\\d|IBM(437|850|852|858|00858)");
    }
}
