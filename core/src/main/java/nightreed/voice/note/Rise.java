package nightreed.voice.note;

/** A slow answer: what is rendered fades in along half a cosine from the start of the note, counted in samples. */
public final class Rise {
    private final double fs;
    private int length;
    private int at;

    public Rise(double sampleRateHz) {
        this.fs = sampleRateHz;
    }

    public void start(double ms) {
        length = (int) Math.rint(ms / 1000 * fs);
        at = 0;
    }

    public boolean over() {
        return at >= length;
    }

    /** Fades {@code x[0..n)}. */
    public void fade(double[] x, int n) {
        for (int t = 0; t < n && at + t < length; t++) {
            x[t] *= 0.5 - 0.5 * Math.cos(Math.PI * (at + t) / length);
        }
        at += n;
    }
}
