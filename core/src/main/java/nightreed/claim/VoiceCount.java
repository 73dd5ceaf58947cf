package nightreed.claim;

import java.util.Arrays;
import nightreed.dsp.LineFit;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.measure.Measurement;
import nightreed.measure.take.Channels;
import nightreed.sound.Clip;

/**
 * How many voices sound, by the lines that each harmonic is made of: detuned voices lie further apart, in Hz, on higher harmonics.
 *
 * @param voices most often found; 0 if nothing can be told
 * @param share  of the harmonics looked at that say so, 0 to 1
 * @param looked harmonics that were looked at
 * @param leastCents  distance that could still be told apart on the highest of them [cents]
 * @param spreadSlope power of the number by which the distance of the outer lines grows: 1 for voices, 0 for what a swing puts beside each
 */
record VoiceCount(int voices, double share, int looked, double leastCents, double spreadSlope) {
    /** A line counts if it stands so far over what lies between it and the next, and under the strongest by no more [dB]. */
    private static final double DIP_DB = 5;

    private static final double WEAKER_DB = 20;
    private static final double AROUND_CENTS = 45;
    private static final int HIGHEST = 40;
    private static final double LEAST_SECONDS = 0.4;
    private static final double CLEAR_DB = 25;

    /** Lines of voices lie apart by a power of the harmonic's number that is nearer to 1 than this; seen from so many harmonics on. */
    private static final double GROWS = 0.8;

    private static final int LEAST_FOR_SPREAD = 8;

    /** Width of a line of a windowed sine, within which two are one [bins]. */
    private static final double LINE_BINS = 4;

    static VoiceCount of(Clip clip, Measurement m) {
        if (m.held() == null) {
            return new VoiceCount(0, 0, 0, 0, 0);
        }
        double fs = clip.sampleRateHz();
        double[] x = Channels.of(clip).samples();
        int from = (int) ((m.held().onsetSeconds() + 0.1) * fs);
        int to = (int) Math.min(x.length, (m.held().releaseSeconds() - 0.02) * fs);
        if (to - from < LEAST_SECONDS * fs) {
            return new VoiceCount(0, 0, 0, 0, 0);
        }
        double[] part = new double[to - from];
        for (int i = 0; i < part.length; i++) {
            part[i] = x[from + i] * Windows.hann(i, part.length);
        }
        int padded = RealFft.powerOfTwoFrom(2 * part.length);
        double[] power = RealFft.power(new RealFft(padded).forward(part));
        double bin = fs / padded;
        double line = LINE_BINS * fs / part.length;
        int[] counts = new int[17];
        LineFit wide = new LineFit();
        int looked = 0;
        int last = 0;
        double f0 = m.held().f0Hz();
        for (var h : m.held().harmonics()) {
            double around = h.number() * f0 * (Math.pow(2, AROUND_CENTS / 1200) - 1);
            if (h.snrDb() > CLEAR_DB && h.number() <= HIGHEST && around > 2.5 * line && around < 0.45 * f0) {
                int[] peaks = lines(power, bin, h.number() * f0, around);
                counts[Math.min(16, peaks.length)]++;
                if (peaks.length > 1) {
                    wide.add(Math.log(h.number()), Math.log((peaks[peaks.length - 1] - peaks[0]) * bin));
                }
                looked++;
                last = h.number();
            }
        }
        if (looked < 4) {
            return new VoiceCount(0, 0, looked, 0, 0);
        }
        int best = 1;
        for (int n = 1; n < counts.length; n++) {
            best = counts[n] > counts[best] ? n : best;
        }
        double cents = 1200 * Math.log(1 + 0.7 * line / (last * f0)) / Math.log(2);
        return new VoiceCount(best, counts[best] / (double) looked, looked, cents, wide.count() < 3 ? 1 : wide.slope());
    }

    /** Whether the lines of all harmonics are as far apart, as those that a swing makes are. */
    boolean isEvenlyApart() {
        return spreadSlope < GROWS || looked < LEAST_FOR_SPREAD;
    }

    /** Bins of the peaks that valleys part, about a harmonic. */
    private static int[] lines(double[] power, double bin, double hz, double around) {
        int from = (int) Math.max(1, (hz - around) / bin);
        int to = (int) Math.min(power.length - 2, (hz + around) / bin);
        double top = Arrays.stream(power, from, to + 1).max().orElse(0);
        int[] found = new int[to - from + 1];
        int n = 0;
        int peak = from;
        double valley = power[from];
        boolean rising = true;
        for (int k = from; k <= to; k++) {
            if (rising) {
                peak = power[k] > power[peak] ? k : peak;
                if (power[peak] > top * Math.pow(10, -WEAKER_DB / 10)
                        && power[k] < power[peak] * Math.pow(10, -DIP_DB / 10)) {
                    found[n++] = peak;
                    rising = false;
                    valley = power[k];
                }
            } else {
                valley = Math.min(valley, power[k]);
                if (power[k] > valley * Math.pow(10, DIP_DB / 10)) {
                    rising = true;
                    peak = k;
                }
            }
        }
        return n == 0 ? new int[] {peak} : Arrays.copyOf(found, n);
    }
}
