package nightreed.match.fit;

import java.util.Arrays;

/**
 * Where a render starts against a recording, as a comparison hears it: of a struck note, where the render leaves its own silence;
 * of one that comes in slowly, whose first moments are lost in the background, where both pass the same levels.
 */
final class RenderStart {
    /** A render that starts later than this, or earlier, is another thing [s]. */
    private static final double LATEST_SECONDS = 0.06;

    /** Beginning of a sound in which its start lies [s]. */
    private static final double START_SECONDS = 0.35;

    /** Levels that tell where a slow note starts, under the most of the start [dB]. */
    private static final double[] SLOW_START_DB = {-30, -20, -10};

    private static final double SILENCE_FRAME_SECONDS = 0.002;

    /** Energy of a frame, as a share of the most, up to which a render is silent: as an onset is measured. */
    private static final double SILENCE = 1e-6;

    private final double fs;
    private final double[] shares; // of the power of a slow start, null for a struck one
    private final double[] begins; // where the recording passes each of them [samples]

    /**
     * @param note       the recording from its onset on
     * @param background its power before
     * @param slow       comes in slowly
     */
    RenderStart(double[] note, double fs, double background, boolean slow) {
        this.fs = fs;
        this.shares = slow ? shares(note, background) : null;
        this.begins = slow ? passes(note) : null;
    }

    /** Samples by which a render starts later than the recording. */
    int late(double[] render) {
        double late = 0;
        if (shares != null) {
            double[] its = passes(render);
            for (int k = 0; k < its.length; k++) {
                late += (its[k] - begins[k]) / its.length;
            }
        } else {
            late = leavesSilence(render);
        }
        double most = LATEST_SECONDS * fs;
        return (int) Math.round(Math.max(-most, Math.min(most, late)));
    }

    /** First sample of what is heard of a render [samples]. */
    private int leavesSilence(double[] x) {
        int frame = (int) (SILENCE_FRAME_SECONDS * fs);
        int frames = x.length / frame;
        double[] energy = new double[frames];
        double top = 0;
        for (int f = 0; f < frames; f++) {
            for (int i = f * frame; i < (f + 1) * frame; i++) {
                energy[f] += x[i] * x[i];
            }
            top = Math.max(top, energy[f]);
        }
        int first = 0;
        while (first + 3 < frames
                && energy[first] + energy[first + 1] + energy[first + 2] + energy[first + 3] <= 4 * SILENCE * top) {
            first++;
        }
        int at = Math.max(0, (first - 1) * frame);
        while (at < x.length - 1 && x[at] == 0) {
            at++;
        }
        return at;
    }

    /** Of the same length, from so many samples on. */
    static double[] shifted(double[] x, int late) {
        double[] out = new double[x.length];
        int from = Math.max(0, late);
        int to = Math.max(0, -late);
        System.arraycopy(x, from, out, to, Math.max(0, x.length - from - to));
        return out;
    }

    /** Power over time that a start is looked for in. */
    private double[] start(double[] x) {
        double[] power = new double[(int) Math.min(x.length, START_SECONDS * fs)];
        double keep = Math.exp(-1 / (0.001 * fs));
        double now = 0;
        for (int i = 0; i < power.length; i++) {
            now = keep * now + (1 - keep) * x[i] * x[i];
            power[i] = now;
        }
        return power;
    }

    /** Where the power of a start first passes shares of the most there is of it [samples]. */
    private double[] passes(double[] x) {
        double[] power = start(x);
        double top = Arrays.stream(power).max().orElse(0);
        double[] out = new double[shares.length];
        for (int k = 0; k < out.length; k++) {
            int at = 0;
            while (at < power.length - 1 && power[at] < shares[k] * top) {
                at++;
            }
            out[k] = at;
        }
        return out;
    }

    /** Shares of the power of the start that tell where it is, clear of the background. */
    private double[] shares(double[] x, double background) {
        double top = Arrays.stream(start(x)).max().orElse(0) + 1e-20;
        double quiet = Math.min(0.25, 4 * background / top);
        return Arrays.stream(SLOW_START_DB)
                .map(db -> Math.max(quiet, Math.pow(10, db / 10)))
                .toArray();
    }
}
