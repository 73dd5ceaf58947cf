package nightreed.desktop.shape;

import nightreed.match.sound.AnalysedSound;

/** Level of a recording since its onset, relative to its loudest moment. */
public final class RecordedLevel {
    private static final double STEP = 0.001;
    private final float[] level;

    /** Looks at every sample once: not for the UI thread with a long recording. */
    public RecordedLevel(AnalysedSound recording) {
        float[] x = recording.clip().mixedFloats();
        double fs = recording.clip().sampleRateHz();
        int start = (int) (recording.measurement().onsetSeconds() * fs);
        int hop = (int) Math.max(1, STEP * fs);
        int window = (int) (0.012 * fs); // a period and more of most notes
        int n = Math.max(1, (x.length - start) / hop);
        level = new float[n];
        float top = 1e-9f;
        for (int k = 0; k < n; k++) {
            double sum = 0;
            int from = start + k * hop;
            int to = Math.min(x.length, from + window);
            for (int i = from; i < to; i++) {
                sum += (double) x[i] * x[i];
            }
            level[k] = (float) Math.sqrt(sum / Math.max(1, to - from));
            top = Math.max(top, level[k]);
        }
        for (int k = 0; k < n; k++) {
            level[k] /= top;
        }
    }

    /** Share of the loudest, 0 to 1. @param t since the onset [s] */
    public double at(double t) {
        int k = (int) (t / STEP);
        return k < 0 || k >= level.length ? 0 : level[k];
    }
}
