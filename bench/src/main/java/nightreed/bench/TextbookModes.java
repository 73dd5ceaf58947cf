package nightreed.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.dsp.RealFft;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.sound.AnalysedSound;
import nightreed.sound.Clip;
import nightreed.work.Progress;

/**
 * Yardstick: modal resynthesis as textbooks have it (after J. O. Smith, "Spectral Audio Signal Processing", 2011). Peaks of one
 * spectrum, each interpolated by a parabola, its decay from a straight line through the level of its bin over time; a sum of
 * dying sines, and nothing else.
 *
 * <p>{@code TextbookModes NOTES}: notes of the recording room (instrument:key:velocity:seed) or files. Prints its distance
 * and that of the best of three fits, and the median of their ratio.
 */
public final class TextbookModes {
    private static final int WINDOW = 4096;
    private static final int HOP = 1024;
    private static final int MOST_MODES = 40;
    private static final double RANGE_DB = 60;

    private TextbookModes() {}

    public static void main(String[] args) throws Exception {
        List<Double> ratios = new ArrayList<>();
        for (String note : args) {
            AnalysedSound side = ImitationRenderer.side(MatchTable.clip(note), Progress.NONE);
            double plain = PerceptualComparator.compare(side, ImitationRenderer.rendered(resynthesised(side)))
                    .totalJnd();
            Fitted best =
                    Fits.of(List.of("resonators", "formant", "subtractive"), side, FitOptions.USUAL, Progress.NONE)
                            .stream()
                            .min(Comparator.comparingDouble(f -> f.comparison().totalJnd()))
                            .orElseThrow();
            double ours = best.comparison().totalJnd();
            ratios.add(ours / plain);
            System.out.println(String.format(
                    Locale.ROOT,
                    "%s textbook %.2f, %s %.2f, ratio %.2f",
                    note,
                    plain,
                    best.method(),
                    ours,
                    ours / plain));
        }
        ratios.sort(Comparator.naturalOrder());
        System.out.println(
                String.format(Locale.ROOT, "median ratio %.3f of %d", ratios.get(ratios.size() / 2), ratios.size()));
    }

    /** The recording as a sum of dying sines, laid out as it is. */
    static Clip resynthesised(AnalysedSound side) {
        double[] x = side.clip().mixed();
        int fs = side.clip().sampleRateHz();
        int onset = (int) (side.measurement().onsetSeconds() * fs);
        double[][] frames = frames(x, onset);
        int strongest = 0;
        for (int f = 1; f < frames.length; f++) {
            strongest = sum(frames[f]) > sum(frames[strongest]) ? f : strongest;
        }
        double[] out = new double[x.length];
        for (int bin : peaks(frames[strongest])) {
            mode(frames, strongest, bin, fs, onset, out);
        }
        return Clip.mono(out, fs);
    }

    private static double[][] frames(double[] x, int onset) {
        int n = Math.max(1, (x.length - onset - WINDOW) / HOP + 1);
        double[][] out = new double[n][];
        RealFft fft = new RealFft(WINDOW);
        for (int f = 0; f < n; f++) {
            double[] frame = new double[WINDOW];
            for (int i = 0; i < WINDOW && onset + f * HOP + i < x.length; i++) {
                frame[i] = x[onset + f * HOP + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / WINDOW));
            }
            out[f] = Arrays.stream(RealFft.power(fft.forward(frame)))
                    .map(p -> 10 * Math.log10(p + 1e-20))
                    .toArray();
        }
        return out;
    }

    private static double sum(double[] db) {
        return Arrays.stream(db).map(v -> Math.pow(10, v / 10)).sum();
    }

    private static List<Integer> peaks(double[] db) {
        double top = Arrays.stream(db).max().orElse(0);
        List<Integer> out = new ArrayList<>();
        for (int k = 3; k < db.length - 3; k++) {
            boolean highest = db[k] > db[k - 1] && db[k] >= db[k + 1] && db[k] > db[k - 2] && db[k] >= db[k + 2];
            if (highest && db[k] > top - RANGE_DB) {
                out.add(k);
            }
        }
        out.sort(Comparator.comparingDouble(k -> -db[k]));
        return out.subList(0, Math.min(MOST_MODES, out.size()));
    }

    private static void mode(double[][] frames, int peak, int bin, int fs, int onset, double[] out) {
        double a = frames[peak][bin - 1];
        double b = frames[peak][bin];
        double c = frames[peak][bin + 1];
        double shift = 0.5 * (a - c) / (a - 2 * b + c);
        double hz = (bin + shift) * fs / WINDOW;
        double db = b - 0.25 * (a - c) * shift;
        // slope of the level, until it is lost 40 dB down or in what does not fall any more
        int last = peak;
        while (last + 1 < frames.length && frames[last + 1][bin] > b - 40 && frames[last + 1][bin] < b + 3) {
            last++;
        }
        double slope = slopeDb(frames, peak, last, bin) * fs / HOP; // dB a second
        double amplitude = Math.pow(10, db / 20) * 4 / WINDOW;
        double back = (peak * HOP + WINDOW / 2.0) / fs;
        double decay = Math.max(0, -slope) * Math.log(10) / 20;
        double start = amplitude * Math.exp(Math.min(3, decay * back));
        for (int i = onset; i < out.length; i++) {
            double t = (double) (i - onset) / fs;
            out[i] += start * Math.exp(-decay * t) * Math.sin(2 * Math.PI * hz * t);
        }
    }

    private static double slopeDb(double[][] frames, int from, int to, int bin) {
        int n = to - from + 1;
        if (n < 3) {
            return -40;
        }
        double middle = (from + to) / 2.0;
        double up = 0;
        double square = 0;
        for (int f = from; f <= to; f++) {
            up += (f - middle) * frames[f][bin];
            square += (f - middle) * (f - middle);
        }
        return up / square;
    }
}
