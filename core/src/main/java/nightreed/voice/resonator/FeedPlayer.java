package nightreed.voice.resonator;

import nightreed.dsp.Resampler;
import nightreed.recipe.ExcitationSample;

/** Plays the recording that drives a body, once per note, at its own pitch. */
final class FeedPlayer {
    private final float[] samples;
    private int at;

    /** @param feed null for none */
    FeedPlayer(ExcitationSample feed, double fs) {
        samples = feed == null ? new float[0] : Resampler.resample(feed.samples(), feed.sampleRateHz(), fs);
        at = samples.length;
    }

    void start() {
        at = 0;
    }

    boolean over() {
        return at >= samples.length;
    }

    void add(double[] out, int from, int to) {
        int n = Math.min(to - from, samples.length - at);
        for (int i = 0; i < n; i++) {
            out[from + i] += samples[at + i];
        }
        at += Math.max(0, n);
    }
}
