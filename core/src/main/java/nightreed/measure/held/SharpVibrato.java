package nightreed.measure.held;

import java.util.Arrays;
import nightreed.dsp.RealFft;
import nightreed.dsp.Resampler;
import nightreed.dsp.SincReader;
import nightreed.dsp.Windows;
import nightreed.measure.held.Movement.Shape;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.optim.InitialGuess;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.SimpleBounds;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.nonlinear.scalar.ObjectiveFunction;
import org.hipparchus.optim.nonlinear.scalar.noderiv.BOBYQAOptimizer;

/**
 * A vibrato found by how sharp the lines of a note stand once it is taken off: the spectra of the note have the least entropy
 * then (the measure of R. Coifman, M. Wickerhauser, "Entropy-based algorithms for best basis selection", IEEE Trans. Inf.
 * Theory 38, 1992). It asks nothing of where the lines lie, where a pitch that is followed by the phases of harmonics is led
 * astray by lines between them.
 */
final class SharpVibrato {
    /** Rate at which a note is looked at: lines that lie higher tell no more [Hz]. */
    private static final double RATE_HZ = 8000;

    private static final double MOST_SECONDS = 3;

    /** Windows, the shorter first, whose valley is wider [s]. */
    private static final double[] WINDOWS = {0.085, 0.17};

    /** By how much the entropy has to fall beside what was followed, and beside a pitch that stays [nats per frame]. */
    private static final double LEAST_GAIN = 0.002;

    private static final double LEAST_SWING = 0.05;

    /** What is tried where nothing was followed: rates, steps of a cycle, depth and delay. */
    private static final double SLOWEST_HZ = 3;

    private static final double FASTEST_HZ = 11;
    private static final double RATE_STEP_HZ = 0.3;
    private static final int TURNS = 6;
    private static final double TRIED_CENTS = 60;
    private static final double[] TRIED_DELAYS = {0.2, 0.7};
    private static final double TRIED_RAMP = 0.3;

    /** Steps that a value may be off by, and looks from one window to the next. */
    private static final double MOST_STEPS = 8;

    private static final int MOST_LOOKS = 90;
    private static final int FEWEST_SAMPLES = 3000;

    /**
     * How well a depth, and the cycles of a whole note, are known by it. Depths of clean lines were missed by a thousandth, but
     * those of strings in the noise of their bow by up to three hundredths.
     */
    private static final double DEPTH_DOUBT = 0.02;

    private static final double RATE_DOUBT = 0.02;

    private final double[] note;
    private final double seconds;

    private SharpVibrato(double[] note) {
        this.note = note;
        this.seconds = note.length / RATE_HZ;
    }

    /** @param atMiddle part of the cycle at half of the time that is looked at */
    private record Swing(double rateHz, double cents, double atMiddle, double delay, double ramp) {
        private static final double LEAST_CENTS = 20;

        /** Moved by values of which 1 is as much as can be told from nothing in one window. */
        Swing by(double[] u, double seconds) {
            return new Swing(
                    Math.max(1, rateHz + 0.25 / seconds * u[0]),
                    Math.max(0, cents + 0.15 * Math.max(LEAST_CENTS, cents) * u[1]),
                    atMiddle + 0.08 * u[2],
                    delay + 0.08 * u[3],
                    Math.max(0.001, ramp + 0.12 * u[4]));
        }
    }

    /**
     * @param x        samples
     * @param followed what the pitch was found to do, counted from the onset; null for nothing
     * @param onset    first sample that is looked at, up to {@code to}
     * @return the sine near it, or any sine if it is none, that leaves sharper lines; {@code followed} if there is none, and if
     *     it swings with corners or edges, which a sine would only come near
     */
    static Movement near(Movement followed, double[] x, double fs, int onset, int to) {
        if (followed != null && (followed.shape() == Shape.TRIANGLE || followed.shape() == Shape.SQUARE)) {
            return followed;
        }
        int end = Math.min(Math.min(x.length, to), onset + (int) (MOST_SECONDS * fs));
        float[] span = new float[Math.max(0, end - onset)];
        for (int i = 0; i < span.length; i++) {
            span[i] = (float) x[onset + i];
        }
        float[] slow = Resampler.resample(span, fs, RATE_HZ);
        if (slow.length < FEWEST_SAMPLES) {
            return followed;
        }
        double[] note = new double[slow.length];
        Arrays.setAll(note, i -> slow[i]);
        return new SharpVibrato(note).near(followed);
    }

    private Movement near(Movement followed) {
        double last = WINDOWS[WINDOWS.length - 1];
        double still = entropy(note, last);
        Swing from = followed != null && followed.shape() == Shape.SINE ? swing(followed) : null;
        if (from != null) {
            Swing found = sharpest(from);
            double there = entropy(found, last);
            if (still - there > LEAST_SWING) {
                return entropy(from, last) - there < LEAST_GAIN ? followed : movement(found, followed);
            }
        }
        Swing found = sharpest(sought());
        double was = followed == null ? still : Math.min(still, entropy(followed, last));
        return was - entropy(found, last) < LEAST_SWING ? followed : movement(found, null);
    }

    private Swing sharpest(Swing from) {
        Swing found = from;
        for (double window : WINDOWS) {
            found = sharpest(found, window);
        }
        return found;
    }

    private Swing swing(Movement m) {
        double atMiddle = m.phaseAtOnsetRad() / (2 * Math.PI) + m.rateHz() * seconds / 2;
        return new Swing(m.rateHz(), m.depth(), atMiddle, m.delaySeconds(), m.rampSeconds());
    }

    private Movement movement(Swing s) {
        double start = s.atMiddle + s.rateHz * (s.delay - seconds / 2);
        return new Movement(
                s.rateHz,
                s.cents,
                2 * Math.PI * (start - Math.floor(start)),
                s.delay,
                s.ramp,
                0,
                0,
                Shape.SINE,
                1,
                null,
                null);
    }

    /** With the doubts of what was followed, but of the depth no smaller ones than those of such looks; null for none. */
    private Movement movement(Swing s, Movement followed) {
        Movement m = movement(s);
        return new Movement(
                m.rateHz(),
                m.depth(),
                m.phaseRad(),
                m.delaySeconds(),
                m.rampSeconds(),
                followed != null ? followed.rateSeHz() : RATE_DOUBT / seconds,
                Math.max(followed != null ? followed.depthSe() : 0, DEPTH_DOUBT * m.depth()),
                Shape.SINE,
                followed != null ? followed.shapeOdds() : 1,
                followed != null ? followed.ranked() : null,
                null);
    }

    private Swing sought() {
        Swing best = null;
        double least = Double.POSITIVE_INFINITY;
        for (double rate = SLOWEST_HZ; rate <= FASTEST_HZ; rate += RATE_STEP_HZ) {
            for (int k = 0; k < TURNS; k++) {
                for (double delay : TRIED_DELAYS) {
                    Swing s = new Swing(rate, TRIED_CENTS, (double) k / TURNS, delay, TRIED_RAMP);
                    double there = entropy(s, WINDOWS[0]);
                    if (there < least) {
                        least = there;
                        best = s;
                    }
                }
            }
        }
        return best;
    }

    private Swing sharpest(Swing from, double window) {
        double[] most = new double[5];
        Arrays.fill(most, MOST_STEPS);
        double[] least = Arrays.stream(most).map(v -> -v).toArray();
        Looks looks = new Looks(from, window);
        try {
            new BOBYQAOptimizer(2 * most.length + 1, 1, 0.01)
                    .optimize(
                            GoalType.MINIMIZE,
                            new ObjectiveFunction(looks::entropy),
                            new InitialGuess(new double[most.length]),
                            new SimpleBounds(least, most),
                            new MaxEval(MOST_LOOKS));
        } catch (MathRuntimeException endOfLooks) {
            return looks.best;
        }
        return looks.best;
    }

    /** What was looked at on the way, and the best of it, which stands however the way ends. */
    private final class Looks {
        private final Swing from;
        private final double window;
        private Swing best;
        private double least;

        Looks(Swing from, double window) {
            this.from = from;
            this.window = window;
            this.best = from;
            this.least = SharpVibrato.this.entropy(from, window);
        }

        double entropy(double[] u) {
            Swing there = from.by(u, seconds);
            double e = SharpVibrato.this.entropy(there, window);
            if (e < least) {
                least = e;
                best = there;
            }
            return e;
        }
    }

    private double entropy(Swing s, double window) {
        return entropy(movement(s), window);
    }

    private double entropy(Movement m, double window) {
        SincReader reader = new SincReader(note);
        double[] steady = new double[note.length];
        double t = 0;
        for (int i = 0; i < steady.length; i++) {
            steady[i] = reader.at(t * RATE_HZ);
            // half a step ahead, where the pitch stands for the whole of it
            t += Math.exp(-m.at(t + 0.5 / RATE_HZ) * Math.log(2) / 1200) / RATE_HZ;
        }
        return entropy(steady, window);
    }

    /** Mean of the spectra, each taken as shares of its power [nats]. */
    private static double entropy(double[] steady, double window) {
        int n = RealFft.powerOfTwoFrom((int) (window * RATE_HZ));
        RealFft fft = new RealFft(n);
        double sum = 0;
        int frames = 0;
        double[] y = new double[n];
        for (int at = 0; at + n <= steady.length; at += n / 2) {
            for (int i = 0; i < n; i++) {
                y[i] = steady[at + i] * Windows.hann(i, n);
            }
            sum += entropy(RealFft.power(fft.forward(y)));
            frames++;
        }
        return frames == 0 ? 0 : sum / frames;
    }

    private static double entropy(double[] power) {
        double all = Arrays.stream(power).sum() + 1e-30;
        double sum = 0;
        for (double p : power) {
            sum -= p > 0 ? p / all * Math.log(p / all) : 0;
        }
        return sum;
    }
}
