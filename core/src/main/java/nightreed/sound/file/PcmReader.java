package nightreed.sound.file;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;

/** Plain samples, channel beside channel, in a known part of a file. */
final class PcmReader implements SoundReader {
    private static final int BLOCK_BYTES = 1 << 16;
    private final Layout layout;
    private final InputStream in;
    private final byte[] raw;
    private final int frameBytes;
    private long left; // bytes

    /**
     * What a header says about where the samples are.
     *
     * @param format   what they are
     * @param form     how each lies in its bytes
     * @param dataAt   first byte of the samples
     * @param dataSize their bytes that are really there
     * @param warnings what was odd about the header
     */
    record Layout(SoundFormat format, SampleForm form, long dataAt, long dataSize, List<String> warnings) {}

    PcmReader(Source source, Layout layout) throws IOException {
        this.layout = layout;
        this.frameBytes = layout.form.bytes() * layout.format.channels();
        this.raw = new byte[Math.max(frameBytes, BLOCK_BYTES / frameBytes * frameBytes)];
        this.left = layout.dataSize / frameBytes * frameBytes;
        this.in = source.from(layout.dataAt);
    }

    @Override
    public SoundFormat format() {
        return layout.format;
    }

    @Override
    public int read(float[][] into, int count) throws IOException {
        int want = (int) Math.min(Math.min((long) count * frameBytes, left), raw.length);
        int got = in.readNBytes(raw, 0, want);
        left = got < want ? 0 : left - got;
        int frames = got / frameBytes;
        SampleForm form = layout.form;
        for (int i = 0; i < frames; i++) {
            for (int c = 0; c < into.length; c++) {
                into[c][i] = form.value(raw, i * frameBytes + c * form.bytes());
            }
        }
        return frames;
    }

    @Override
    public long skip(long frames) throws IOException {
        long bytes = Math.min(left, Math.multiplyExact(frames, (long) frameBytes));
        in.skipNBytes(bytes);
        left -= bytes;
        return bytes / frameBytes;
    }

    @Override
    public List<String> warnings() {
        return layout.warnings;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
