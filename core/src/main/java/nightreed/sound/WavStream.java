package nightreed.sound;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;

/** A WAV file of two channels and 24 bits that grows while it is written, and can be read at any time. One thread. */
public final class WavStream implements AutoCloseable {
    private static final int HEADER = 44;
    private static final int FRAME = 6;
    private final RandomAccessFile file;
    private final int sampleRateHz;
    private long frames;
    private ByteBuffer buffer = ByteBuffer.allocate(0);

    /**
     * Makes the file, with its folder.
     *
     * @throws IOException with a message for the user
     */
    public WavStream(Path path, int sampleRateHz) throws IOException {
        this.sampleRateHz = sampleRateHz;
        try {
            if (path.toAbsolutePath().getParent() != null) {
                Files.createDirectories(path.toAbsolutePath().getParent());
            }
            file = new RandomAccessFile(path.toFile(), "rw");
            file.setLength(0);
            refresh();
        } catch (IOException e) {
            throw new IOException(
                    "cannot write " + path + " (" + e.getMessage() + "): choose a folder that can be written", e);
        }
    }

    /** Adds {@code left[from..to)} and {@code right[from..to)}; beyond full scale they are held there. */
    public void append(float[] left, float[] right, int from, int to) throws IOException {
        int bytes = FRAME * Math.max(0, to - from);
        if (buffer.capacity() < bytes) {
            buffer = ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
        }
        buffer.clear();
        for (int i = from; i < to; i++) {
            WavFiles.put(buffer, left[i], WavFiles.Format.PCM24);
            WavFiles.put(buffer, right[i], WavFiles.Format.PCM24);
        }
        file.write(buffer.array(), 0, bytes);
        frames += Math.max(0, to - from);
    }

    /** Brings the lengths in the header up to what has been written. */
    public void refresh() throws IOException {
        byte[] empty = WavFiles.encode(new Clip(new float[2][0], sampleRateHz), WavFiles.Format.PCM24);
        ByteBuffer header = ByteBuffer.wrap(empty, 0, HEADER).order(ByteOrder.LITTLE_ENDIAN);
        long data = frames * FRAME;
        header.putInt(4, (int) Math.min(0xFFFF_FFFFL, 36 + data));
        header.putInt(40, (int) Math.min(0xFFFF_FFFFL, data));
        file.seek(0);
        file.write(empty, 0, HEADER);
        file.seek(HEADER + data);
    }

    @Override
    public void close() throws IOException {
        try (file) {
            refresh();
        }
    }
}
