package nightreed.match.fit;

import nightreed.match.hearing.JndThresholds;
import nightreed.measure.StrikeBands;
import nightreed.music.Bark;

/**
 * The first 60 ms by groups of four critical bands, as a comparison hears them: how loud it is in each, where what is not
 * partials stands out of those. What is not partials is known of the recording; of a render it is taken to be what it has more.
 */
final class StrikeGroups {
    private static final int GROUP = 4;
    private static final int GROUPS = Bark.BANDS / GROUP;
    private static final int SPANS = 3;

    /** Number of differences. */
    static final int SIZE = SPANS * GROUPS;

    /** A burst that is masked nearly everywhere is heard as little as its audible part is wide. */
    private static final double LEAST_WEIGHTS = 3;

    private final double[][] whole = new double[SPANS][GROUPS]; // of the recording, power per sample
    private final double[][] tone = new double[SPANS][GROUPS]; // what of it is partials
    private final double[][] masked = new double[SPANS][GROUPS]; // dB
    private final double[][] scatter = new double[SPANS][GROUPS]; // of levels, by chance [dB]
    private final double step;
    private final double least; // of power that is heard

    /**
     * @param strike     what of the recording is partials
     * @param bands      [span][band] power per sample of the recording from its onset on, in the spans of the strike
     * @param background [band] power per sample
     */
    StrikeGroups(StrikeBands strike, double[][] bands, double[] background, JndThresholds hearing) {
        step = hearing.noiseDb();
        double loudest = 1e-12;
        for (int s = 0; s < SPANS; s++) {
            for (int g = 0; g < GROUPS; g++) {
                whole[s][g] = Math.max(0, group(bands[s], g) - group(background, g));
                double all = group(strike.whole()[s], g);
                double burst = all > 0 ? Math.min(1, group(strike.burst()[s], g) / all) : 0;
                tone[s][g] = (1 - burst) * whole[s][g];
                loudest = Math.max(loudest, whole[s][g]);
                double width = Bark.edgeHz(GROUP * (g + 1)) - Bark.edgeHz(GROUP * g);
                scatter[s][g] = 4.34 * Math.sqrt(2 / Math.max(1, width * strike.spanSeconds(s)));
            }
        }
        least = 3e-5 * loudest;
        for (int s = 0; s < SPANS; s++) {
            for (int g = 0; g < GROUPS; g++) {
                masked[s][g] = Math.max(10 * Math.log10(loudest) - JndThresholds.RANGE_DB, masking(s, g));
            }
        }
    }

    private double masking(int span, int group) {
        double out = Double.NEGATIVE_INFINITY;
        for (int o = 0; o < GROUPS; o++) {
            out = Math.max(
                    out,
                    JndThresholds.maskedDb(tone[span][o], GROUP * (group - o), Bark.centreHz(GROUP * o + GROUP / 2)));
        }
        return out;
    }

    private static double group(double[] bands, int group) {
        double sum = 0;
        for (int k = GROUP * group; k < GROUP * (group + 1); k++) {
            sum += bands[k];
        }
        return sum;
    }

    /**
     * Writes {@value #SIZE} differences [JND times the root of their weight].
     *
     * @param render [span][band] power per sample
     * @param gain   factor on it
     * @param accent factor on all of them
     */
    void differences(double[][] render, double gain, double accent, double[] out, int at) {
        double[] weight = new double[SIZE];
        double weights = 0;
        for (int n = 0; n < SIZE; n++) {
            int s = n / GROUPS;
            int g = n % GROUPS;
            double other = gain * group(render[s], g);
            double burst = Math.max(whole[s][g], other) - tone[s][g];
            weight[n] = Math.max(0, Math.min(1, (10 * Math.log10(burst + 1e-20) - masked[s][g]) / 10));
            weights += weight[n];
            double db = 10 * Math.log10((other + least) / (whole[s][g] + least));
            out[at + n] = Math.signum(db) * JndThresholds.limited(Math.max(0, Math.abs(db) - scatter[s][g]) / step);
        }
        for (int n = 0; n < SIZE; n++) {
            out[at + n] *= accent * Math.sqrt(weight[n] / Math.max(LEAST_WEIGHTS, weights));
        }
    }
}
