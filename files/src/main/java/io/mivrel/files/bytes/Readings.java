package io.mivrel.files.bytes;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.zip.CRC32C;

/**
 * What was read of a file, byte for byte: the CRC-32C checksum (RFC 3720, appendix B.4) of each reading from beginning to
 * end, to be compared with that of the file itself. Safe for several threads.
 */
public final class Readings {
    private static final long NONE = -1;

    private long checksum = NONE;
    private boolean differ;

    /** The same bytes, taken note of when they are read to their end; a reading that skips some counts for nothing. */
    public InputStream watch(InputStream in) {
        return new Watched(in);
    }

    private synchronized void add(long whole) {
        differ |= checksum != NONE && checksum != whole;
        checksum = whole;
    }

    /** False when a whole reading gave other bytes than those with this checksum. */
    public synchronized boolean agreeWith(long ofTheFile) {
        return !differ && (checksum == NONE || checksum == ofTheFile);
    }

    private final class Watched extends FilterInputStream {
        private final CRC32C read = new CRC32C();
        private boolean partial;

        Watched(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] into, int at, int length) throws IOException {
            int count = in.read(into, at, length);
            if (count > 0) {
                read.update(into, at, count);
            } else if (count < 0 && !partial) {
                partial = true;
                add(read.getValue());
            }
            return count;
        }

        @Override
        public long skip(long count) throws IOException {
            partial = true;
            return in.skip(count);
        }

        @Override
        public boolean markSupported() {
            return false;
        }
    }
}
