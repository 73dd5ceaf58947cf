package nightreed.match.sound;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.recipe.part.Lfo;
import nightreed.voice.Renderer;

/**
 * Random steps of an LFO, found again in the level of a held note. Its chance is the same each time a note is rendered alone,
 * so there is one course for each rate and each start; that which lies nearest to the measured level is taken, if so many steps
 * do not lie so near by accident.
 *
 * @param depthDb of the course, negative where it goes the other way [dB]
 */
public record LevelSteps(Lfo lfo, double depthDb) {
    private static final double SLOWEST_HZ = 3;
    private static final double FASTEST_HZ = 26;

    /** Starts within the cycle that are tried. */
    private static final int STARTS = 12;

    /** Part of a cycle that the last step may be off by on the net of rates. */
    private static final double NET_CYCLES = 0.12;

    private static final int FINER = 8;

    /**
     * Twice the gain of log-likelihood, which one course of some thousands does not reach by chance: levels without steps came
     * to 7, those with steps to 17 and more.
     */
    private static final double LEAST_GAIN = 12;

    /** The same where steps of such a rate were measured, so that far fewer courses are tried. */
    private static final double LEAST_GAIN_SEEN = 10;

    private static final double NEAR_HZ = 0.3;

    private static final double LEAST_DB = 0.4;

    /** A level so far under the loudest is as good as nothing [dB]. */
    private static final double RANGE_DB = 40;

    /** Times after the onset up to which an LFO may be held back, and which are looked at [s]. */
    private static final double LATEST_DELAY = 0.6;

    private static final double DELAY_STEP = 0.01;

    private static final int FEWEST_FRAMES = 60;

    /**
     * @param t    times after the onset, while the key is held [s]
     * @param loud amplitude there
     * @return null where the level does not follow such steps
     */
    public static LevelSteps find(double[] t, double[] loud, HeldNote held) {
        double top = Arrays.stream(loud).max().orElse(0);
        int first = 0;
        while (first < loud.length && loud[first] < 0.3 * top) {
            first++;
        }
        if (loud.length - first < FEWEST_FRAMES) {
            return null;
        }
        double[] db = new double[loud.length - first];
        for (int i = 0; i < db.length; i++) {
            db[i] = Math.max(-RANGE_DB, 20 * Math.log10(loud[first + i] / top + 1e-9));
        }
        Movement vibrato = held.vibrato();
        Level level = new Level(Arrays.copyOfRange(t, first, t.length), db, vibrato == null ? 0 : vibrato.rateHz());
        Movement seen = held.tremolo();
        if (seen != null && seen.shape() == Movement.Shape.STEPPED) {
            Way near = level.nearest(seen.rateHz() - NEAR_HZ, seen.rateHz() + NEAR_HZ);
            if (near.gain(level.seconds()) > LEAST_GAIN_SEEN) {
                return new LevelSteps(near.lfo(), near.depthDb);
            }
        }
        Way best = level.nearest(SLOWEST_HZ, FASTEST_HZ);
        boolean real = best.gain(level.seconds()) > LEAST_GAIN && Math.abs(best.depthDb) > LEAST_DB;
        return real ? new LevelSteps(best.lfo(), best.depthDb) : null;
    }

    /** Swing of the level at a time after the onset [dB]. */
    public double db(double seconds) {
        return depthDb * lfo.grown(seconds) * lfo.at(lfo.rate() * seconds, Renderer.STEPS_OF_SECOND);
    }

    /**
     * One way that the steps may take, and what it explains.
     *
     * @param start part of the cycle at the onset, 0 to 1
     * @param delay time from which on it is heard [s]
     * @param share of the squares of the level that it explains, 0 to 1
     */
    private record Way(double rateHz, double start, double delay, double share, double depthDb) {
        /** Twice the gain of log-likelihood, with as many independent values as steps. */
        double gain(double seconds) {
            return -rateHz * (seconds - delay) * Math.log(Math.max(1e-6, 1 - share));
        }

        Lfo lfo() {
            return steps(rateHz, start, delay);
        }
    }

    private static Lfo steps(double rateHz, double start, double delay) {
        return new Lfo(
                Lfo.Shape.RANDOM_STEPS,
                rateHz,
                Lfo.Per.SECOND,
                360 * (start - Math.floor(start)),
                delay,
                0,
                0.5,
                0,
                false,
                false,
                List.of());
    }

    /** Level over time without what is slow, and without what goes with a vibrato. */
    private static final class Level {
        private final double[] t;
        private final double[] db;
        private final List<double[]> slow = new ArrayList<>(); // each of length 1, at right angles
        private final double squares;

        Level(double[] t, double[] db, double vibratoHz) {
            this.t = t;
            this.db = db;
            double middle = t[t.length / 2];
            for (int power = 0; power <= 3; power++) {
                int n = power;
                taken(Arrays.stream(t).map(s -> Math.pow(s - middle, n)).toArray());
            }
            taken(Arrays.stream(t).map(s -> Math.exp(-(s - t[0]) / 0.08)).toArray()); // the end of the attack
            for (int n = 1; n <= 2 && vibratoHz > 0; n++) {
                double w = 2 * Math.PI * n * vibratoHz;
                taken(Arrays.stream(t).map(s -> Math.sin(w * s)).toArray());
                taken(Arrays.stream(t).map(s -> Math.cos(w * s)).toArray());
            }
            without(db);
            squares = product(db, db);
        }

        double seconds() {
            return t[t.length - 1] - t[0];
        }

        private void taken(double[] course) {
            without(course);
            double length = Math.sqrt(product(course, course));
            if (length > 1e-9) {
                slow.add(Arrays.stream(course).map(v -> v / length).toArray());
            }
        }

        private void without(double[] v) {
            for (double[] s : slow) {
                double p = product(v, s);
                for (int i = 0; i < v.length; i++) {
                    v[i] -= p * s[i];
                }
            }
        }

        private static double product(double[] a, double[] b) {
            double sum = 0;
            for (int i = 0; i < a.length; i++) {
                sum += a[i] * b[i];
            }
            return sum;
        }

        /** Of rates between two [Hz]. */
        Way nearest(double slowest, double fastest) {
            double net = NET_CYCLES / seconds();
            Way best = at(slowest, 0, 0);
            for (double rate = slowest; rate < fastest; rate += net) {
                for (int k = 0; k < STARTS; k++) {
                    best = better(best, at(rate, (double) k / STARTS, 0));
                }
            }
            best = finer(best, net);
            for (double delay = DELAY_STEP; delay < LATEST_DELAY; delay += DELAY_STEP) {
                best = better(best, at(best.rateHz, best.start, delay));
            }
            return best;
        }

        private Way finer(Way from, double net) {
            Way best = from;
            double dr = net / 2;
            double ds = 0.5 / STARTS;
            for (int i = 0; i < FINER; i++) {
                for (double[] step : new double[][] {{dr, 0}, {-dr, 0}, {0, ds}, {0, -ds}, {dr, -ds}, {-dr, ds}}) {
                    double start = best.start + step[1];
                    if (start >= 0 && start < 1) { // before and after it other values are drawn
                        best = better(best, at(best.rateHz + step[0], start, 0));
                    }
                }
                dr *= 0.6;
                ds *= 0.6;
            }
            return best;
        }

        private static Way better(Way a, Way b) {
            return b.share > a.share ? b : a;
        }

        private Way at(double rate, double start, double delay) {
            Lfo lfo = steps(rate, start, delay);
            double[] course = new double[t.length];
            for (int i = 0; i < t.length; i++) {
                course[i] = lfo.grown(t[i]) * lfo.at(rate * t[i], Renderer.STEPS_OF_SECOND);
            }
            without(course);
            double length = product(course, course);
            double both = product(course, db);
            double share = length > 1e-9 ? both * both / length / squares : 0;
            return new Way(rate, start, delay, share, length > 1e-9 ? both / length : 0);
        }
    }
}
