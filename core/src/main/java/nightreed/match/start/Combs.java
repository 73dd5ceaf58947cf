package nightreed.match.start;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.recipe.FmPair;

/**
 * Wide modulations that lie off the harmonics, in what others leave of a finely resolved spectrum: their many weak lines lie as
 * far from each other as the modulator tells, so that the spectrum is like itself when it is shifted by that, and all of them
 * fall on one place, and those that are folded at zero on another, where it is laid over itself in pieces of that length.
 */
final class Combs {
    /** Modulators that are looked for, over the pitch. */
    private static final double LEAST_PITCH = 0.3;

    private static final double MOST_PITCH = 8;

    /** Bins to either side of a known line that are left out. */
    private static final int SKIRT = 5;

    /** Orders beyond its index that a modulation has. */
    private static final int MORE_ORDERS = 6;

    /** Half of what a bin is held against [bins]. */
    private static final int AROUND = 24;

    /** How nearly whole a step is of another that it is made of. */
    private static final double SAME = 0.003;

    /** Multiples of a shift that count for it, and how closely shifts are tried [bins]. */
    private static final int SHIFTS = 8;

    private static final double SHIFT_NET = 1.0 / SHIFTS;

    /** How many shifts, and rests for each, are looked at again. */
    private static final int STEPS = 3;

    private static final int RESTS = 2;

    /** How closely rests are tried, and how far those lie apart that differ [bins]. */
    private static final double REST_NET = 0.5;

    private static final double APART = 3;

    /** The same of shifts. */
    private static final double STEP_APART = 1;

    /** The net about each that is looked at again [bins]. */
    private static final int FINE = 16;

    private static final double STEP_FINE = 0.016;
    private static final double REST_FINE = 0.125;

    private final double[] root; // of the amplitudes, over what is around
    private final double binHz;
    private final double f0;

    /** @param known what is left out of it */
    Combs(SteadySpectrum spectrum, List<FmPair> known, double f0) {
        this.f0 = f0;
        binHz = spectrum.binHz();
        double[] raw = Arrays.stream(spectrum.power())
                .map(p -> Math.sqrt(Math.sqrt(p)))
                .toArray();
        for (FmPair p : known) {
            int orders = (int) Math.ceil(p.index()) + MORE_ORDERS;
            for (int k = -orders; k <= orders; k++) {
                int at = (int) Math.rint(Math.abs(p.carrierRatio() + k * p.modulatorRatio()) * f0 / binHz);
                for (int b = Math.max(0, at - SKIRT); b <= Math.min(raw.length - 1, at + SKIRT); b++) {
                    raw[b] = 0;
                }
            }
        }
        Arrays.fill(raw, 0, (int) (Frames.LOWEST_HZ / binHz), 0);
        double[] sum = new double[raw.length + 1];
        for (int b = 0; b < raw.length; b++) {
            sum[b + 1] = sum[b] + raw[b];
        }
        root = new double[raw.length];
        for (int b = 0; b < raw.length; b++) {
            int from = Math.max(0, b - AROUND);
            int to = Math.min(raw.length, b + AROUND + 1);
            root[b] = Math.max(0, raw[b] - (sum[to] - sum[from]) / (to - from));
        }
    }

    /** @param stepHz the modulator  @param restHz one of the lines, not more than half of it */
    record Comb(double stepHz, double restHz) {}

    /** The same, and how much of what is left lies on it [bins]. */
    private record Laid(double step, double rest, double much) {}

    /** The likeliest first. */
    List<Comb> likeliest(int most) {
        List<Laid> differing = new ArrayList<>();
        steps().stream()
                .flatMap(step -> rests(step).stream())
                .sorted(Comparator.comparingDouble(l -> -l.much))
                .forEachOrdered(l -> {
                    boolean known = differing.stream().anyMatch(o -> isPartOf(l.step / o.step));
                    if (!known && differing.size() < most) {
                        differing.add(l);
                    }
                });
        return differing.stream()
                .map(l -> new Comb(l.step * binHz, l.rest * binHz))
                .toList();
    }

    /** Every other line of a comb, or twice as many lines, are no other comb. */
    private static boolean isPartOf(double times) {
        double either = Math.max(times, 1 / times);
        return Math.rint(either) > 1 && Math.abs(either - Math.rint(either)) < SAME;
    }

    /** Shifts with which the spectrum is most like itself [bins]. */
    private List<Double> steps() {
        double[] like = likeItself();
        double low = LEAST_PITCH * f0 / binHz;
        double high = Math.min(MOST_PITCH * f0 / binHz, root.length / 3.0);
        List<double[]> peaks = new ArrayList<>();
        double[] before = {0, 0};
        double[] mid = {0, 0};
        for (double m = low; m < high; m += SHIFT_NET) {
            double[] now = {m, shifted(like, m)};
            if (mid[1] > before[1] && mid[1] >= now[1]) {
                peaks.add(mid);
            }
            before = mid;
            mid = now;
        }
        peaks.sort(Comparator.comparingDouble(p -> -p[1]));
        List<Double> out = new ArrayList<>();
        for (double[] p : peaks) {
            boolean known = out.stream().anyMatch(o -> Math.abs(o - p[0]) < STEP_APART);
            if (!known && out.size() < STEPS) {
                out.add(p[0]);
            }
        }
        return out;
    }

    private double shifted(double[] like, double m) {
        double sum = 0;
        int many = 0;
        for (int j = 1; j <= SHIFTS && j * m + 1 < like.length; j++) {
            sum += at(like, j * m);
            many++;
        }
        return sum / Math.max(1, many);
    }

    private static double at(double[] v, double x) {
        int i = (int) x;
        return i < 0 || i + 1 >= v.length ? 0 : v[i] + (x - i) * (v[i + 1] - v[i]);
    }

    private double[] likeItself() {
        int n = RealFft.powerOfTwoFrom(2 * root.length);
        RealFft fft = new RealFft(n);
        double[] s = fft.forward(Arrays.copyOf(root, n));
        for (int k = 0; k <= n / 2; k++) {
            s[2 * k] = s[2 * k] * s[2 * k] + s[2 * k + 1] * s[2 * k + 1];
            s[2 * k + 1] = 0;
        }
        return Arrays.copyOf(fft.inverse(s), root.length);
    }

    private List<Laid> rests(double step) {
        List<Laid> all = new ArrayList<>();
        for (double rest = 0; rest <= step / 2; rest += REST_NET) {
            all.add(laid(step, rest));
        }
        all.sort(Comparator.comparingDouble(l -> -l.much));
        List<Laid> out = new ArrayList<>();
        for (Laid l : all) {
            boolean known = out.stream().anyMatch(o -> Math.abs(o.rest - l.rest) < APART);
            if (!known && out.size() < RESTS) {
                out.add(l);
            }
        }
        return out.stream().map(this::refined).toList();
    }

    private Laid refined(Laid l) {
        Laid best = l;
        for (int s = -FINE; s <= FINE; s++) {
            for (int r = -FINE; r <= FINE; r++) {
                Laid other = laid(l.step + s * STEP_FINE, l.rest + r * REST_FINE);
                best = other.much > best.much ? other : best;
            }
        }
        return best;
    }

    /** Sum over all lines, over what that of as many others would scatter by. */
    private Laid laid(double step, double rest) {
        double sum = 0;
        int many = 0;
        for (double from : new double[] {rest, step - rest}) {
            for (double x = from; x < root.length; x += step) {
                sum += at(root, x);
                many++;
            }
        }
        return new Laid(step, rest, sum / Math.sqrt(Math.max(1, many)));
    }
}
