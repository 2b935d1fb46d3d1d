package io.mivrel.files.bytes;

import io.mivrel.model.Rule;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.UnreadableFileException;

/** The libraries that read workbooks and XML, which a program can do without as long as it reads no such file. */
public final class OptionalLibrary {
    private OptionalLibrary() {}

    /** What a file is refused with when the library for its kind is not there. */
    public static UnreadableFileException absent(FileKind kind) {
        return new UnreadableFileException(
                Rule.FILE_KIND_DIFFERS,
                0,
                "files of the kind '" + kind.word() + "' are read by a library that this program does not have",
                "add io.mivrel:mivrel-extras to its class path");
    }
}
