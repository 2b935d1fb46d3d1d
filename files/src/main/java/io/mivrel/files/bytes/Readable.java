package io.mivrel.files.bytes;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Says plainly why a file cannot be read, before anything is tried with it. */
public final class Readable {
    private Readable() {}

    /** The file itself; throws {@link IOException} with a message for people. */
    public static Path check(Path file) throws IOException {
        if (!Files.exists(file)) {
            throw new IOException(file + ": there is no such file");
        }
        if (Files.isDirectory(file)) {
            throw new IOException(file + ": is a folder, a file was expected");
        }
        if (!Files.isRegularFile(file)) {
            throw new IOException(file + ": is a pipe or a device, a file was expected");
        }
        if (!Files.isReadable(file)) {
            throw new IOException(file + ": may not be read (permission)");
        }
        return file;
    }

    /** True for text, which has hardly any control characters; a few NULs damage their rows only. */
    public static boolean isText(byte[] beginning, int length) {
        int odd = 0;
        for (int i = 0; i < length; i++) {
            byte c = beginning[i];
            if (c >= 0 && c < ' ' && c != '\t' && c != '\n' && c != '\r' && c != '\f' && c != 0x1A) {
                odd++;
            }
        }
        return odd <= 2 || odd * 50 <= length;
    }
}
