package io.mivrel.files.bytes;

import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.zip.CRC32C;
import org.jspecify.annotations.Nullable;

/**
 * A new file that one thread writes and another reads at the same time: the reader gets what is on the file so far, waits
 * for more, and ends when the writer has closed it. What it reads comes from the file, never from the writer's memory.
 */
public final class GrowingFile {
    private static final int FORCED_BY = 1 << 25;
    private static final int TOLD_BY = 1 << 19;

    private final Path file;
    private long length;
    /** The length when the reader was last told of it. */
    private long told;

    private boolean closed;
    private final CRC32C checksum = new CRC32C();
    private long checked;

    public GrowingFile(Path file) {
        this.file = file;
    }

    /** Makes the file; it must not exist. */
    public OutputStream output() throws IOException {
        FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        OutputStream out = Channels.newOutputStream(channel);
        return new OutputStream() {
            private long unforced;
            /** What is on the disk already need not be waited for when the file is published. */
            private CompletableFuture<Void> forcing = CompletableFuture.completedFuture(null);

            @Override
            public void write(int b) throws IOException {
                write(new byte[] {(byte) b}, 0, 1);
            }

            @Override
            public void write(byte[] bytes, int from, int count) throws IOException {
                try {
                    out.write(bytes, from, count);
                } catch (IOException e) {
                    throw failed(e);
                }
                grown(count, false);
                unforced += count;
                if (unforced >= FORCED_BY && forcing.isDone()) {
                    awaitForcing();
                    // Beside the writing, which would stand still for the disk.
                    forcing = CompletableFuture.runAsync(() -> {
                        try {
                            channel.force(false);
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        }
                    });
                    unforced = 0;
                }
            }

            private void awaitForcing() throws IOException {
                try {
                    forcing.join();
                } catch (CompletionException e) {
                    throw failed(Objects.requireNonNull(e.getCause()));
                }
            }

            // The file has no name of its own yet, so its folder is told.
            private IOException failed(Throwable e) {
                return new IOException(file.getParent() + ": the import file cannot be written: " + e.getMessage(), e);
            }

            @Override
            public void close() throws IOException {
                try (out) {
                    grown(0, true);
                    awaitForcing();
                }
            }
        };
    }

    private synchronized void grown(long count, boolean end) {
        length += count;
        closed |= end;
        // To wake the reader for every little costs more than it does then.
        if (closed || length - told >= TOLD_BY) {
            told = length;
            notifyAll();
        }
    }

    // How many bytes lie beyond a position; waits for some, and answers 0 at the end.
    private synchronized long beyond(long position) throws IOException {
        while (length == position && !closed) {
            try {
                wait();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new InterruptedIOException("reading back was given up");
            }
        }
        return length - position;
    }

    /** The checksum of the file as it was read back; {@code null} when it was not read from beginning to end. */
    public synchronized @Nullable Long checksum() {
        return closed && checked == length ? checksum.getValue() : null;
    }

    private synchronized void read(byte[] bytes, int from, int count, long position) {
        if (position == checked) {
            checksum.update(bytes, from, count);
            checked += count;
        }
    }

    public InputStream input() throws IOException {
        InputStream in = Files.newInputStream(file);
        return new InputStream() {
            private long position;

            @Override
            public int read() throws IOException {
                byte[] one = new byte[1];
                return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
            }

            @Override
            public int read(byte[] bytes, int from, int count) throws IOException {
                long there = beyond(position);
                if (there == 0) {
                    return -1;
                }
                int read = in.read(bytes, from, (int) Math.min(count, there));
                if (read < 0) {
                    throw new IOException(file + ": is shorter than what was written");
                }
                GrowingFile.this.read(bytes, from, read, position);
                position += read;
                return read;
            }

            @Override
            public void close() throws IOException {
                in.close();
            }
        };
    }
}
