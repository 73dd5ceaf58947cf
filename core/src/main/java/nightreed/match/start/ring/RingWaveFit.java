package nightreed.match.start.ring;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.StartContext;
import nightreed.match.start.ring.HarmonicSwings.Swing;
import nightreed.optim.LevenbergMarquardt;
import nightreed.optim.RobustLoss;
import nightreed.recipe.part.Oscillator.Wave;

/**
 * A filtered wave, and beside it its product with a sine at its own pitch or hardly off it, that have the levels and the swings
 * of a held note's harmonics. Each lies where one harmonic of the wave is dry and two others are moved to: the next lower one
 * comes up by the sine's frequency, the next higher one down, and so there are three lines as far apart as the sine is off.
 *
 * @param hz       the sine over the wave's fundamental [Hz]
 * @param cutoffHz of the low-pass of 12 dB per octave [Hz]
 * @param width    of a pulse
 * @param ringDb   of the product's lines over what is dry, as the voice counts them [dB]
 * @param phaseRad of the sine at the onset, the wave's at 0 [rad]
 * @param rms      what is left over, 1 for what is near
 */
record RingWaveFit(
        Wave wave, double hz, double cutoffHz, double q, double width, double ringDb, double phaseRad, double rms) {
    private static final double[] CUTOFFS = {1, 3, 10, 30};
    private static final double[] WIDTHS = {0.5, 0.25, 0.1};
    private static final double[] RINGS_DB = {-6, 6, 18};
    private static final double[] RESONANCES = {0.6, 2.5};
    private static final double[] PHASES = {0, 0.5 * Math.PI, Math.PI, 1.5 * Math.PI};

    /** Distances that are tried, and for each of them and each wave the beginnings that are walked from. */
    private static final int DISTANCES = 5;

    private static final int WALKED = 8;

    /** Levels under the strongest that are looked at, and what they may be off to be near [dB]. */
    private static final double RANGE_DB = 40;

    private static final double NEAR_DB = 2;

    /** What a swing may be off to be near, as a share of the power. */
    private static final double NEAR_SWING = 0.15;

    /** At which a filter is told; the voice's is higher by far. */
    private static final double SAMPLE_RATE_HZ = 96_000;

    /**
     * What is to be told.
     *
     * @param hz   the sine over the fundamental [Hz]
     * @param loss of a line so far beside a harmonic where swings are measured
     */
    private record Seen(double f0, List<Swing> swings, double hz, double loss) {}

    private static final C NONE = new C(0, 0);

    /** A complex number. */
    private record C(double re, double im) {
        static C turned(double length, double rad) {
            return new C(length * Math.cos(rad), length * Math.sin(rad));
        }

        C times(C o) {
            return new C(re * o.re - im * o.im, re * o.im + im * o.re);
        }

        C plus(C o) {
            return new C(re + o.re, im + o.im);
        }

        C conjugate() {
            return new C(re, -im);
        }

        double power() {
            return re * re + im * im;
        }
    }

    /** At unison and at every distance that the swings make likely, of every wave, by what is left over. */
    static List<RingWaveFit> of(HarmonicSwings note, double f0, List<Wave> waves) {
        List<Double> likely = note.likely(DISTANCES);
        List<Seen> all = new ArrayList<>();
        all.add(new Seen(f0, note.at(likely.isEmpty() ? 0 : likely.get(0)), 0, 1)); // leaves all swings over
        for (double d : likely) {
            all.add(new Seen(f0, note.at(d), d, note.loss(d)));
            all.add(new Seen(f0, note.at(d), -d, note.loss(d)));
        }
        return all.parallelStream()
                .flatMap(seen -> waves.stream().map(w -> nearest(w, seen)))
                .sorted(Comparator.comparingDouble(RingWaveFit::rms))
                .toList();
    }

    private static RingWaveFit nearest(Wave wave, Seen seen) {
        List<RingWaveFit> starts = new ArrayList<>();
        for (double cutoff : CUTOFFS) {
            for (double width : wave == Wave.PULSE ? WIDTHS : new double[] {0.5}) {
                for (double ring : RINGS_DB) {
                    for (double phase : PHASES) {
                        for (double q : RESONANCES) {
                            double[] u = {Math.log(cutoff * seen.f0), Math.log(q), width / 0.2, ring / 9, phase};
                            starts.add(at(wave, u, seen));
                        }
                    }
                }
            }
        }
        return starts.stream()
                .sorted(Comparator.comparingDouble(RingWaveFit::rms))
                .limit(WALKED)
                .map(f -> at(
                        wave,
                        LevenbergMarquardt.nearest(
                                f.unknowns(), v -> at(wave, v, seen).residuals(seen)),
                        seen))
                .min(Comparator.comparingDouble(RingWaveFit::rms))
                .orElseThrow();
    }

    /** Logarithms of cutoff and Q, width, balance and phase, each on a ruler on which 1 is far. */
    private double[] unknowns() {
        return new double[] {Math.log(cutoffHz), Math.log(q), width / 0.2, ringDb / 9, phaseRad};
    }

    private static RingWaveFit at(Wave wave, double[] u, Seen seen) {
        RingWaveFit f = new RingWaveFit(
                wave,
                seen.hz,
                StartContext.limited(Math.exp(u[0]), 20, 18_000),
                StartContext.limited(Math.exp(u[1]), 0.3, 12),
                StartContext.limited(0.2 * u[2], 0.03, 0.5),
                StartContext.limited(9 * u[3], -40, 40),
                u[4],
                Double.NaN);
        double[] left = f.residuals(seen);
        double squares = Arrays.stream(left).map(r -> r * r).sum();
        return f.with(Math.sqrt(squares / left.length));
    }

    private RingWaveFit with(double left) {
        return new RingWaveFit(wave, hz, cutoffHz, q, width, ringDb, phaseRad, left);
    }

    /** Of each harmonic its level, whatever all have in common taken off, and four numbers of its swing, over what is near. */
    private double[] residuals(Seen seen) {
        int n = seen.swings.size();
        int last = seen.swings.get(n - 1).number();
        C[] own = new C[last + 2];
        for (int k = 0; k < own.length; k++) {
            own[k] = k == 0 ? NONE : harmonic(k, seen.f0);
        }
        double ring = 0.5 * Math.pow(10, ringDb / 20) * seen.loss;
        C up = C.turned(ring, phaseRad - 0.5 * Math.PI);
        C down = C.turned(ring, 0.5 * Math.PI - phaseRad);
        double[] out = new double[5 * n];
        double[] off = new double[n];
        double[] weight = new double[n];
        double mean = 0;
        double weights = 1e-9;
        for (int i = 0; i < n; i++) {
            Swing s = seen.swings.get(i);
            C dry = own[s.number()];
            C above = own[s.number() - 1].times(up);
            C below = own[s.number() + 1].times(down);
            weight[i] = Math.max(0, 1 + 10 * Math.log10(s.power()) / RANGE_DB);
            double power = 1e-9;
            if (hz == 0) {
                power += dry.plus(above).plus(below).power();
                swing(s, NONE, dry, NONE, power, weight[i], out, n + 4 * i);
            } else {
                power += dry.power() + above.power() + below.power();
                swing(s, hz > 0 ? above : below, dry, hz > 0 ? below : above, power, weight[i], out, n + 4 * i);
            }
            off[i] = 10 * Math.log10(power / s.power());
            mean += weight[i] * off[i];
            weights += weight[i];
        }
        for (int i = 0; i < n; i++) {
            out[i] = Math.sqrt(weight[i]) * RobustLoss.limited((off[i] - mean / weights) / NEAR_DB);
        }
        return out;
    }

    /** Power of three lines that lie as far apart: once the distance each outer one with the middle one, twice both of them. */
    private static void swing(Swing s, C high, C dry, C low, double power, double weight, double[] out, int at) {
        C once = dry.conjugate().times(high).plus(dry.times(low.conjugate()));
        C twice = high.times(low.conjugate());
        double[] told = {2 * once.re / power, -2 * once.im / power, 2 * twice.re / power, -2 * twice.im / power};
        double[] measured = {s.once()[0], s.once()[1], s.twice()[0], s.twice()[1]};
        for (int i = 0; i < 4; i++) {
            out[at + i] = Math.sqrt(weight) * RobustLoss.limited((told[i] - measured[i]) / NEAR_SWING);
        }
    }

    /** Of the filtered wave, over one that begins as a sine. */
    private C harmonic(int k, double f0) {
        double x = Math.tan(Math.PI * Math.min(k * f0, 0.49 * SAMPLE_RATE_HZ) / SAMPLE_RATE_HZ)
                / Math.tan(Math.PI * cutoffHz / SAMPLE_RATE_HZ);
        C below = new C(1 - x * x, x / q);
        C filter = new C(below.re / below.power(), -below.im / below.power());
        double a = 2 / (Math.PI * k);
        return switch (wave) {
            case PULSE -> {
                C back = C.turned(1, -2 * Math.PI * k * width);
                yield filter.times(new C(a * (1 - back.re), -a * back.im));
            }
            case TRIANGLE -> filter.times(new C(k % 2 == 0 ? 0 : (k % 4 == 1 ? 4 : -4) * a / (Math.PI * k), 0));
            default -> filter.times(new C(a, 0));
        };
    }
}
