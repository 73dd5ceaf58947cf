package nightreed.claim;

import java.util.Arrays;
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
 * @param runnerUp share that says the next likely number
 * @param looked harmonics that were looked at
 * @param leastCents  distance that could still be told apart on the highest of them [cents]
 */
record VoiceCount(int voices, double share, double runnerUp, int looked, double leastCents) {
    /** A line counts if it stands so far over what lies between it and the next, and under the strongest by no more [dB]. */
    private static final double DIP_DB = 5;

    private static final double WEAKER_DB = 20;
    private static final double AROUND_CENTS = 45;
    private static final int HIGHEST = 40;
    private static final double LEAST_SECONDS = 0.4;
    private static final double CLEAR_DB = 25;

    /** How often one harmonic says the right number; chosen. */
    private static final double RIGHT = 0.8;

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
        int looked = 0;
        int last = 0;
        double f0 = m.held().f0Hz();
        for (var h : m.held().harmonics()) {
            double around = h.number() * f0 * (Math.pow(2, AROUND_CENTS / 1200) - 1);
            if (h.snrDb() > CLEAR_DB && h.number() <= HIGHEST && around > 2.5 * line && around < 0.45 * f0) {
                counts[Math.min(16, lines(power, bin, h.number() * f0, around))]++;
                looked++;
                last = h.number();
            }
        }
        if (looked < 4) {
            return new VoiceCount(0, 0, 0, looked, 0);
        }
        int best = 1;
        for (int n = 1; n < counts.length; n++) {
            best = counts[n] > counts[best] ? n : best;
        }
        double cents = 1200 * Math.log(1 + 0.7 * line / (last * f0)) / Math.log(2);
        int second = 0;
        for (int n = 1; n < counts.length; n++) {
            second = n == best ? second : Math.max(second, counts[n]);
        }
        return new VoiceCount(best, counts[best] / (double) looked, second / (double) looked, looked, cents);
    }

    /** Odds of the number against the next likely one, by what harmonics say: neighbours say much the same, so every other counts. */
    double odds() {
        double said = Math.log(RIGHT / (1 - RIGHT)) * (share - runnerUp) * looked / 2;
        return 1 / (1 + Math.exp(-said));
    }

    /** Peaks about a harmonic that valleys part; at least one. */
    private static int lines(double[] power, double bin, double hz, double around) {
        int from = (int) Math.max(1, (hz - around) / bin);
        int to = (int) Math.min(power.length - 2, (hz + around) / bin);
        double top = Arrays.stream(power, from, to + 1).max().orElse(0);
        int n = 0;
        double peak = 0;
        double valley = 0;
        boolean rising = true;
        for (int k = from; k <= to; k++) {
            if (rising) {
                peak = Math.max(peak, power[k]);
                if (peak > top * Math.pow(10, -WEAKER_DB / 10) && power[k] < peak * Math.pow(10, -DIP_DB / 10)) {
                    n++;
                    rising = false;
                    valley = power[k];
                }
            } else {
                valley = Math.min(valley, power[k]);
                if (power[k] > valley * Math.pow(10, DIP_DB / 10)) {
                    rising = true;
                    peak = power[k];
                }
            }
        }
        return Math.max(1, n);
    }
}
