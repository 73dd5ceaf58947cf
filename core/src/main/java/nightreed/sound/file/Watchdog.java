package nightreed.sound.file;

import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import nightreed.sound.UnusableSound;

/**
 * Watches a decoder, as old ones loop for ever on damaged files. It works in a thread of its own and is given up when it
 * neither takes bytes nor gives samples for a while, or takes many bytes without giving a sample. One for each reading.
 */
final class Watchdog {
    /** Without a byte or a sample for so long it is given up [s]. */
    private static final double MOST_SECONDS = 2;

    /** Bytes without a sample after which it is given up; no header, pictures in it included, is meant to be larger. */
    private static final long MOST_BYTES = 8L << 20;

    /** Reads at the end of the bytes that are answered; a decoder that asks on does not notice the end. */
    private static final int MOST_ENDS = 64;

    private static final long LOOKS_EVERY_MILLIS = 100;

    private volatile long lastNanos = System.nanoTime();
    private volatile long bytesSinceSample;
    private volatile boolean givenUp;

    /** Something to do with a source. */
    interface Work<T> {
        T on(Source source) throws UnusableSound, IOException;
    }

    private static final class GivenUp extends RuntimeException {
        private static final long serialVersionUID = 1;
    }

    /** @throws UnusableSound if it had to be given up, and whatever the work throws */
    <T> T run(Source source, Work<T> work) throws UnusableSound, IOException {
        Source watched = new Source(
                source.name(), source.size(), () -> new Watched(source.opener().open()));
        CompletableFuture<T> result = new CompletableFuture<>();
        Thread t = new Thread(
                () -> {
                    try {
                        result.complete(work.on(watched));
                    } catch (Throwable e) { // handed on to who waits
                        result.completeExceptionally(e);
                    }
                },
                "decoding");
        t.setDaemon(true); // one that is given up does not keep the program
        t.start();
        while (true) {
            try {
                return result.get(LOOKS_EVERY_MILLIS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException notYet) {
                if ((System.nanoTime() - lastNanos) / 1e9 > MOST_SECONDS || bytesSinceSample > MOST_BYTES) {
                    givenUp = true;
                    t.setPriority(Thread.MIN_PRIORITY);
                    throw hopeless(source);
                }
            } catch (InterruptedException e) {
                givenUp = true;
                Thread.currentThread().interrupt();
                throw new java.util.concurrent.CancellationException();
            } catch (ExecutionException e) {
                rethrow(source, e.getCause());
            }
        }
    }

    private static void rethrow(Source source, Throwable cause) throws UnusableSound, IOException {
        if (cause instanceof GivenUp) {
            throw hopeless(source);
        } else if (cause instanceof UnusableSound e) {
            throw e;
        } else if (cause instanceof IOException e) {
            throw e;
        } else if (cause instanceof RuntimeException e) {
            throw e;
        } else if (cause instanceof Error e) {
            throw e;
        }
        throw new IllegalStateException(cause);
    }

    private static UnusableSound hopeless(Source source) {
        return new UnusableSound(
                source.name() + " is damaged: its decoder comes to no end. Export the recording again as WAV.");
    }

    /** A reader whose samples count. */
    SoundReader watched(SoundReader reader) {
        return new SoundReader() {
            @Override
            public SoundFormat format() {
                return reader.format();
            }

            @Override
            public int read(float[][] into, int count) throws IOException {
                int n = reader.read(into, count);
                alive();
                bytesSinceSample = n > 0 ? 0 : bytesSinceSample;
                return n;
            }

            @Override
            public long skip(long frames) throws IOException {
                return reader.skip(frames);
            }

            @Override
            public List<String> warnings() {
                return reader.warnings();
            }

            @Override
            public void close() throws IOException {
                reader.close();
            }
        };
    }

    private void alive() {
        if (givenUp) {
            throw new GivenUp();
        }
        lastNanos = System.nanoTime();
    }

    private final class Watched extends FilterInputStream {
        private int ends;

        Watched(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] b, int off, int len) throws IOException {
            int n = in.read(b, off, len);
            if (n > 0) {
                alive();
                count(n);
            } else if (len > 0 && ++ends > MOST_ENDS) {
                throw new EOFException("read on and on at the end");
            }
            if (bytesSinceSample > MOST_BYTES || givenUp) {
                throw new GivenUp();
            }
            return n;
        }

        private void count(int n) {
            long now = bytesSinceSample; // only the decoding thread writes it
            bytesSinceSample = now + n;
        }

        @Override
        public long skip(long n) throws IOException {
            alive();
            return in.skip(n);
        }
    }
}
