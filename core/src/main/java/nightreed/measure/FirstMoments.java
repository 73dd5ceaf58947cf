package nightreed.measure;

import nightreed.dsp.RealFft;
import nightreed.measure.take.Channels;
import nightreed.music.Bark;
import nightreed.sound.Clip;

/**
 * The beginning of a note by half critical bands over time, fine in time: which part of the spectrum speaks first.
 *
 * @param startSeconds time of the first frame after the onset [s], below 0
 * @param hopSeconds   time between two frames [s]
 * @param levelDb      [half band][frame] level [dB re the loudest half band of any frame]; half band k reaches from k/2 to
 *                     (k+1)/2 Bark
 */
public record FirstMoments(double startSeconds, double hopSeconds, double[][] levelDb) {
    private static final double BEFORE_SECONDS = 0.005;
    private static final double HOP_SECONDS = 0.002;
    private static final double FRAME_SECONDS = 0.008;

    /** Periods of its lower edge that the window of a half band spans at the least: what is low cannot be told sooner. */
    private static final double PERIODS = 6;

    private static final double LONGEST_FRAME_SECONDS = 0.032;

    /** So many half bands reach up to 15.5 kHz. */
    public static final int HALF_BANDS = 48;

    /**
     * @param seconds how much of the note is looked at, from its onset on [s]
     */
    public static FirstMoments of(Clip clip, Measurement m, double seconds) {
        double fs = clip.sampleRateHz();
        double[] x = Channels.of(clip).samples();
        int frames = (int) Math.ceil((seconds + BEFORE_SECONDS) / HOP_SECONDS);
        double[][] level = new double[HALF_BANDS][frames];
        int k = 0;
        for (double window = LONGEST_FRAME_SECONDS; window >= FRAME_SECONDS; window /= 2) {
            int upTo = k; // half bands that need a window of this length
            while (upTo < HALF_BANDS && (PERIODS / Bark.hz(upTo / 2.0) > window / 2 || window / 2 < FRAME_SECONDS)) {
                upTo++;
            }
            fill(x, fs, m.onsetSeconds(), (int) (window * fs), level, k, upTo);
            k = upTo;
        }
        double loudest = 1e-18;
        for (double[] band : level) {
            for (double power : band) {
                loudest = Math.max(loudest, power);
            }
        }
        for (double[] band : level) {
            for (int f = 0; f < frames; f++) {
                band[f] = 10 * Math.log10(band[f] / loudest + 1e-12);
            }
        }
        return new FirstMoments(-BEFORE_SECONDS, HOP_SECONDS, level);
    }

    /** Mean power of the half bands from one to another, all frames. */
    private static void fill(double[] x, double fs, double onset, int length, double[][] level, int from, int to) {
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom(4 * length));
        for (int f = 0; f < level[0].length && from < to; f++) {
            double middle = onset - BEFORE_SECONDS + (f + 0.5) * HOP_SECONDS;
            double[] frame = new double[length];
            int first = (int) Math.round(middle * fs) - length / 2;
            for (int i = Math.max(0, -first); i < length && first + i < x.length; i++) {
                frame[i] = x[first + i] * (1 - Math.cos(2 * Math.PI * (i + 0.5) / length)) / length;
            }
            double[] p = RealFft.power(fft.forward(frame));
            double perHz = fft.length() / fs;
            for (int k = from; k < to; k++) {
                level[k][f] = band(p, Bark.hz(k / 2.0) * perHz, Bark.hz((k + 1) / 2.0) * perHz) * length;
            }
        }
    }

    /** Sum of bins from one place to another, parts of bins included. */
    private static double band(double[] p, double from, double to) {
        double sum = 0;
        for (int k = (int) Math.max(0, Math.round(from)); k <= Math.min(p.length - 1, Math.round(to)); k++) {
            sum += p[k] * Math.max(0, Math.min(to, k + 0.5) - Math.max(from, k - 0.5));
        }
        return sum;
    }
}
