package nightreed.measure.held;

import nightreed.dsp.RealFft;

/**
 * Fundamental of a stretch of a harmonic sound, by the cumulative mean normalized difference (A. de Cheveigné, H. Kawahara,
 * "YIN, a fundamental frequency estimator for speech and music", JASA 111, 2002).
 */
final class Yin {
    static final double LOWEST_HZ = 26;
    static final double HIGHEST_HZ = 4500;
    private static final double THRESHOLD = 0.12;

    private final double fs;
    private final int longest;
    private final int shortest;
    private final int frame;
    private final RealFft fft;

    Yin(double sampleRateHz) {
        this(sampleRateHz, LOWEST_HZ, HIGHEST_HZ);
    }

    /** For pitches between two [Hz]; a look takes about two periods of the lower one. */
    Yin(double sampleRateHz, double lowestHz, double highestHz) {
        this.fs = sampleRateHz;
        this.longest = (int) Math.ceil(fs / Math.max(LOWEST_HZ, lowestHz));
        this.shortest = Math.max(2, (int) (fs / Math.min(HIGHEST_HZ, highestHz)));
        this.frame = longest; // a difference over one longest period
        this.fft = new RealFft(RealFft.powerOfTwoFrom(2 * frame + longest));
    }

    /** Samples that one look takes. */
    int samples() {
        return frame + longest;
    }

    /** @param aperiodicity share of the power that does not repeat, 0 to about 1 */
    record Look(double hz, double aperiodicity) {}

    /** @param from first sample looked at; {@link #samples()} have to be there */
    Look at(double[] x, int from) {
        double[] a = new double[frame];
        System.arraycopy(x, from, a, 0, frame);
        double[] b = new double[frame + longest];
        System.arraycopy(x, from, b, 0, frame + longest);
        double[] sa = fft.forward(a);
        double[] sb = fft.forward(b);
        for (int k = 0; k < sa.length; k += 2) {
            double re = sa[k] * sb[k] + sa[k + 1] * sb[k + 1];
            double im = sa[k] * sb[k + 1] - sa[k + 1] * sb[k];
            sa[k] = re;
            sa[k + 1] = im;
        }
        double[] r = fft.inverse(sa); // r[lag] = Σ a[i] b[i + lag]
        double own = 0;
        for (double v : a) {
            own += v * v;
        }
        double shifted = own;
        double sum = 0;
        double[] d = new double[longest];
        d[0] = 1;
        for (int lag = 1; lag < longest; lag++) {
            shifted += b[frame + lag - 1] * b[frame + lag - 1] - b[lag - 1] * b[lag - 1];
            double difference = Math.max(0, own + shifted - 2 * r[lag]);
            sum += difference;
            d[lag] = sum > 0 ? difference * lag / sum : 1;
        }
        int best = shortest;
        for (int lag = shortest; lag < longest - 1; lag++) {
            if (d[lag] < d[best]) {
                best = lag;
            }
        }
        double limit = Math.max(THRESHOLD, 1.5 * d[best]);
        for (int lag = shortest; lag < best; lag++) {
            if (d[lag] < limit && d[lag] <= d[lag + 1]) {
                best = lag;
                break;
            }
        }
        double shift = 0;
        if (best > 1 && best < longest - 1) {
            double bend = d[best - 1] - 2 * d[best] + d[best + 1];
            shift = bend > 0 ? 0.5 * (d[best - 1] - d[best + 1]) / bend : 0;
        }
        return new Look(fs / (best + shift), d[best]);
    }
}
