package io.mivrel.files.bytes;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.zip.CRC32C;

/**
 * Digests of whole files, for the evidence. Up to {@value #SHA_UP_TO} bytes SHA-512 (FIPS 180-4), written {@code
 * sha-512:...}; a larger file gets a CRC-32C checksum (RFC 3720, appendix B.4), written {@code crc-32c:...}, which finds
 * accidents though not forgeries and takes a fiftieth of the time.
 */
public final class Digests {
    /** The largest file that gets a cryptographic digest. */
    public static final long SHA_UP_TO = 64 << 20;

    private static final int BLOCK = 1 << 18;

    private Digests() {}

    /** The digest of a file, with the name of its kind. */
    public static String of(Path file) throws IOException {
        return withChecksum(file).digest();
    }

    /** The digest of a file with the checksum that is taken in the same reading. */
    public static Both withChecksum(Path file) throws IOException {
        CRC32C checksum = new CRC32C();
        boolean small = Files.size(Readable.check(file)) <= SHA_UP_TO;
        String sha = digest(file, checksum, small);
        return new Both(small ? sha : crc32c(checksum.getValue()), checksum.getValue());
    }

    /**
     * A digest and a checksum of one file.
     *
     * @param digest as {@link #of} writes it
     * @param checksum its CRC-32C
     */
    public record Both(String digest, long checksum) {}

    /** True when a file has this digest. */
    public static boolean matches(Path file, String digest) throws IOException {
        CRC32C checksum = new CRC32C();
        boolean isSha = digest.startsWith("sha-512:");
        String sha = digest(file, checksum, isSha);
        return digest.equals(isSha ? sha : crc32c(checksum.getValue()));
    }

    private static String digest(Path file, CRC32C checksum, boolean withSha) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            MessageDigest sha = MessageDigest.getInstance("SHA-512");
            byte[] block = new byte[BLOCK];
            for (int n = in.read(block); n >= 0; n = in.read(block)) {
                checksum.update(block, 0, n);
                if (withSha) {
                    sha.update(block, 0, n);
                }
            }
            return "sha-512:" + HexFormat.of().formatHex(sha.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-512", e);
        }
    }

    /** As {@link #of} writes a checksum that was worked out already. */
    public static String crc32c(long checksum) {
        return "crc-32c:" + HexFormat.of().toHexDigits((int) checksum);
    }
}
