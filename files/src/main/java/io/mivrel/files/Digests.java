package io.mivrel.files;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Digests of whole files, for the evidence and the register. */
public final class Digests {
    private Digests() {}

    /** The SHA-256 digest of a file (FIPS 180-4) in hexadecimal digits. */
    public static String sha256(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(Readable.check(file))) {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            byte[] block = new byte[1 << 16];
            for (int n = in.read(block); n >= 0; n = in.read(block)) {
                digest.update(block, 0, n);
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
