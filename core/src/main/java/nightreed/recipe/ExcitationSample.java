package nightreed.recipe;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.Base64;
import nightreed.recipe.part.Range;

/**
 * A piece of a recording that drives a body. Immutable; equal if its samples are.
 *
 * <p>In a file it is {@code sampleRateHz} and {@code pcm16}, 16-bit samples, the low byte first, in Base64.
 */
public final class ExcitationSample {
    /** Longest piece [s]. */
    public static final double MOST_SECONDS = 20;

    private final int sampleRateHz;
    private final float[] samples;

    /**
     * @param sampleRateHz 8000 to 192000
     * @param samples      full scale = 1; at least one and up to {@value #MOST_SECONDS} s
     */
    public ExcitationSample(int sampleRateHz, float[] samples) {
        Range.check("sample rate of the feed", sampleRateHz, 8000, 192_000, "Hz");
        Range.check("length of the feed", (double) samples.length / sampleRateHz, 1e-6, MOST_SECONDS, "s");
        this.sampleRateHz = sampleRateHz;
        this.samples = samples.clone();
        for (int i = 0; i < samples.length; i++) {
            if (!(Math.abs(samples[i]) <= 1)) {
                throw new IllegalArgumentException("sample " + i + " of the feed is beyond full scale: " + samples[i]);
            }
            // as a file would keep it, so that a recipe sounds the same after it has been written and read
            this.samples[i] = Math.round(samples[i] * 32767) / 32767f;
        }
    }

    /** @param pcm16 Base64 of 16-bit samples, low byte first */
    static ExcitationSample of(int sampleRateHz, String pcm16) {
        byte[] bytes = Base64.getDecoder().decode(pcm16);
        float[] x = new float[bytes.length / 2];
        ByteBuffer b = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.max(-32767, b.getShort()) / 32767f;
        }
        return new ExcitationSample(sampleRateHz, x);
    }

    String pcm16() {
        ByteBuffer b = ByteBuffer.allocate(2 * samples.length).order(ByteOrder.LITTLE_ENDIAN);
        for (float v : samples) {
            b.putShort((short) Math.round(v * 32767));
        }
        return Base64.getEncoder().encodeToString(b.array());
    }

    public int sampleRateHz() {
        return sampleRateHz;
    }

    /** A copy. */
    public float[] samples() {
        return samples.clone();
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof ExcitationSample f && f.sampleRateHz == sampleRateHz && Arrays.equals(f.samples, samples);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(samples);
    }
}
