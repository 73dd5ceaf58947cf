package nightreed.measure.take;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.measure.partial.Partial;

/** What a recording has in it that is not the instrument: clicks, something before the strike, drive. */
public final class ArtifactDetector {
    private static final double CLICK_RATIO = 30;

    /** A burst longer than this is no click [s]. */
    private static final double CLICK_SECONDS = 0.0006;

    /** Around an onset the instrument itself is sharp [s]. */
    private static final double ONSET_SECONDS = 0.03;

    private static final int FEWEST_CLICKS = 3;

    private ArtifactDetector() {}

    /**
     * @param notes      samples at which notes begin
     * @param inharmonic whether the partials are no harmonics, among which products of a drive can be told
     * @param echo       null if there is none
     * @return sentences
     */
    public static List<String> of(
            double[] x, double fs, List<Integer> notes, List<Partial> partials, boolean inharmonic, Echo echo) {
        List<String> out = new ArrayList<>();
        add(out, echo == null ? null : echo.words());
        add(out, before(x, fs, notes.get(0)));
        add(out, clicks(x, fs, notes));
        add(out, inharmonic ? drive(partials) : null);
        return out;
    }

    private static void add(List<String> out, String sentence) {
        if (sentence != null) {
            out.add(sentence);
        }
    }

    /**
     * Clicks that stand alone in the curvature of the samples.
     *
     * @param notes samples at which notes begin
     * @return a sentence, or null if there are fewer than three
     */
    public static String clicks(double[] x, double fs, List<Integer> notes) {
        List<Integer> at = new ArrayList<>();
        int reach = (int) (0.004 * fs);
        int length = Math.max(2, (int) (CLICK_SECONDS * fs));
        double[] bend = new double[x.length];
        for (int i = 1; i + 1 < x.length; i++) {
            bend[i] = Math.abs(x[i - 1] - 2 * x[i] + x[i + 1]);
        }
        double before = 0; // mean of the stretch of one reach that ends a little before the place
        double after = 0;
        int gap = length;
        for (int i = 0; i < reach; i++) {
            before += at(bend, i);
            after += at(bend, reach + 2 * gap + i);
        }
        for (int i = reach + gap; i + gap + reach + 1 < x.length; i++) {
            double around = Math.max(Math.min(before, after) / reach, 1e-9);
            boolean alone =
                    bend[i] > CLICK_RATIO * around && bend[i] > 0.3 * CLICK_RATIO * Math.max(before, after) / reach;
            int place = i;
            if (alone
                    && (at.isEmpty() || i - at.get(at.size() - 1) > reach)
                    && notes.stream().noneMatch(n -> Math.abs(place - n) < ONSET_SECONDS * fs)) {
                at.add(i);
            }
            before += bend[i - gap] - bend[i - gap - reach];
            after += at(bend, i + gap + reach) - at(bend, i + gap);
        }
        return at.size() < FEWEST_CLICKS ? null : told(at, fs);
    }

    private static double at(double[] v, int i) {
        return i < v.length ? v[i] : 0;
    }

    private static String told(List<Integer> at, double fs) {
        double period = (double) (at.get(at.size() - 1) - at.get(0)) / (at.size() - 1);
        boolean even = true;
        for (int i = 1; i < at.size(); i++) {
            even &= Math.abs(at.get(i) - at.get(i - 1) - period) < 0.02 * period + 2;
        }
        return String.format(
                Locale.ROOT,
                "There are %d clicks in it, the first at %.3f s%s: they are no part of the instrument.",
                at.size(),
                at.get(0) / fs,
                even ? String.format(Locale.ROOT, ", one every %.1f ms", 1000 * period / fs) : "");
    }

    /**
     * What rises before the strike, as coding leaves it, or a breath, a stick or a key.
     *
     * @return a sentence, or null
     */
    public static String before(double[] x, double fs, int onset) {
        int near = onset - (int) (0.025 * fs);
        int far = onset - (int) (0.12 * fs);
        if (far < 0) {
            return null;
        }
        double late = power(x, near, onset - (int) (0.003 * fs));
        double early = Math.max(power(x, far, near), 1e-14);
        double note = power(x, onset, Math.min(x.length, onset + (int) (0.05 * fs)));
        double under = 10 * Math.log10(late / note);
        if (late < 8 * early || under < -75 || under > -12) {
            return null;
        }
        return String.format(
                Locale.ROOT,
                "Something sounds just before the strike, %.0f dB under it: lossy coding smears a strike so, or something"
                        + " moved. The note is measured from the strike on.",
                -under);
    }

    private static double power(double[] x, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += x[i] * x[i] / (to - from);
        }
        return sum;
    }

    /**
     * Products of a curve that is not straight: a partial at the sum or difference of two strong ones that dies at the sum
     * of their paces. Harmonics of an instrument lie there too, but have paces of their own.
     *
     * @return a sentence, or null if fewer than three are found
     */
    public static String drive(List<Partial> partials) {
        List<Partial> strong = partials.stream()
                .filter(p -> p.reliable() && p.t60Seconds() != null && p.levelDb() > -25)
                .sorted(Comparator.comparingDouble(p -> -p.levelDb()))
                .limit(6)
                .toList();
        int found = 0;
        double loudest = Double.NEGATIVE_INFINITY;
        for (Partial p : partials) {
            if (p.reliable() && p.t60Seconds() != null && p.t60SeSeconds() != null && product(p, strong)) {
                found++;
                loudest = Math.max(loudest, p.levelDb());
            }
        }
        return found < 3
                ? null
                : String.format(
                        Locale.ROOT,
                        "%d partials, up to %.0f dB, lie at sums and differences of stronger ones and die as fast as those"
                                + " together: the sound was driven, and they are the drive's.",
                        found,
                        loudest);
    }

    private static boolean product(Partial p, List<Partial> strong) {
        for (Partial a : strong) {
            for (Partial b : strong) {
                for (int[] k : new int[][] {{1, 1}, {1, -1}, {2, 1}, {2, -1}}) {
                    boolean twice = a == b && k[1] < 0;
                    if (a == p || b == p || twice) {
                        continue;
                    }
                    double hz = Math.abs(k[0] * a.frequencyHz() + k[1] * b.frequencyHz());
                    double error = Math.hypot(
                            p.frequencySeHz(), Math.hypot(k[0] * a.frequencySeHz(), k[1] * b.frequencySeHz()));
                    double pace = k[0] / a.t60Seconds() + Math.abs(k[1]) / b.t60Seconds();
                    double share = p.t60SeSeconds() / p.t60Seconds();
                    boolean there = Math.abs(p.frequencyHz() - hz) < Math.max(0.02, 4 * error);
                    if (there && Math.abs(pace * p.t60Seconds() - 1) < Math.max(0.05, 4 * share) && share < 0.1) {
                        return true;
                    }
                }
            }
        }
        return false;
    }
}
