package nightreed.sound;

import java.util.Arrays;
import nightreed.dsp.Resampler;

/**
 * A piece of sound: samples of one or more channels at one rate. Immutable: arrays are copied in and out.
 */
public final class Clip {
    private final int sampleRateHz;
    private final float[][] channels;

    /**
     * @param channels     [channel][sample], at least one channel, all of one length; full scale = 1
     * @param sampleRateHz 1000 to 768000 Hz
     */
    public Clip(float[][] channels, int sampleRateHz) {
        if (sampleRateHz < 1000 || sampleRateHz > 768_000) {
            throw new IllegalArgumentException("sample rate must lie in 1000 to 768000 Hz, got " + sampleRateHz);
        }
        if (channels.length == 0) {
            throw new IllegalArgumentException("a clip needs at least one channel");
        }
        this.sampleRateHz = sampleRateHz;
        this.channels = new float[channels.length][];
        for (int c = 0; c < channels.length; c++) {
            if (channels[c].length != channels[0].length) {
                throw new IllegalArgumentException(
                        "channels differ in length: " + channels[0].length + " and " + channels[c].length + " samples");
            }
            this.channels[c] = channels[c].clone();
        }
    }

    public static Clip mono(float[] samples, int sampleRateHz) {
        return new Clip(new float[][] {samples}, sampleRateHz);
    }

    /** @param samples full scale = 1; rounded to float */
    public static Clip mono(double[] samples, int sampleRateHz) {
        float[] f = new float[samples.length];
        for (int i = 0; i < f.length; i++) {
            f[i] = (float) samples[i];
        }
        return mono(f, sampleRateHz);
    }

    public int sampleRateHz() {
        return sampleRateHz;
    }

    public int channelCount() {
        return channels.length;
    }

    /** Samples per channel. */
    public int length() {
        return channels[0].length;
    }

    public double seconds() {
        return (double) length() / sampleRateHz;
    }

    /** Copy of one channel. */
    public float[] channel(int c) {
        return channels[c].clone();
    }

    /** Whether its channels differ, so that left and right are heard. */
    public boolean isSided() {
        for (int c = 1; c < channels.length; c++) {
            if (!Arrays.equals(channels[0], channels[c])) {
                return true;
            }
        }
        return false;
    }

    /** All channels as one. */
    public Clip summed() {
        return channels.length == 1 ? this : mono(mixed(), sampleRateHz);
    }

    /** Mean of all channels: new array. */
    public double[] mixed() {
        double[] m = new double[length()];
        for (float[] channel : channels) {
            for (int i = 0; i < m.length; i++) {
                m[i] += channel[i];
            }
        }
        for (int i = 0; i < m.length && channels.length > 1; i++) {
            m[i] /= channels.length;
        }
        return m;
    }

    /** Mean of all channels, rounded to float: new array. */
    public float[] mixedFloats() {
        return channels.length == 1 ? channels[0].clone() : mono(mixed(), sampleRateHz).channels[0];
    }

    /** Largest absolute sample, 0 for an empty clip. */
    public double peak() {
        double p = 0;
        for (float[] channel : channels) {
            for (float v : channel) {
                p = Math.max(p, Math.abs(v));
            }
        }
        return p;
    }

    public Clip scaled(double gain) {
        float[][] out = new float[channels.length][length()];
        for (int c = 0; c < out.length; c++) {
            for (int i = 0; i < out[c].length; i++) {
                out[c][i] = (float) (channels[c][i] * gain);
            }
        }
        return new Clip(out, sampleRateHz);
    }

    /** Part from sample {@code from} (inclusive) to {@code to} (exclusive), filled with silence beyond either end. */
    public Clip span(int from, int to) {
        float[][] out = new float[channels.length][Math.max(0, to - from)];
        int first = Math.max(0, from);
        int last = Math.min(length(), to);
        for (int c = 0; c < out.length && last > first; c++) {
            System.arraycopy(channels[c], first, out[c], first - from, last - first);
        }
        return new Clip(out, sampleRateHz);
    }

    /** The same sound at another rate; {@code this} if the rate is the same. */
    public Clip at(int rateHz) {
        if (rateHz == sampleRateHz) {
            return this;
        }
        float[][] out = new float[channels.length][];
        for (int c = 0; c < out.length; c++) {
            out[c] = Resampler.resample(channels[c], sampleRateHz, rateHz);
        }
        return new Clip(out, rateHz);
    }
}
