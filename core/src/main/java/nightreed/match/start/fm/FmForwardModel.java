package nightreed.match.start.fm;

import java.util.Arrays;
import nightreed.match.start.NonuniformStft;
import nightreed.recipe.FmPair;
import nightreed.recipe.part.Envelope;
import nightreed.voice.fm.ModulatedCycle;
import nightreed.voice.fm.Sidebands;

/** The expected spectrum of an FM pair, and of strike noise, in the frames of a note, by formula. Immutable. */
final class FmForwardModel {
    private static final double LOWEST_HZ = 12;

    /** Reach of a weak line, and of a strong one whose skirts are as strong as it [bins]. */
    private static final double REACH = 2;

    private static final double FAR = WindowPieces.FAR - 0.5;

    /** Amplitude under the strongest under which nothing is told. */
    private static final double LEAST = 1e-3;

    /** Orders beyond those of a sideband table, for a modulator that feeds itself back. */
    private static final int MORE_ORDERS = 8;

    /** NonuniformStft that begin earlier have what a tone begins with, or is let go with [s]. */
    private static final double FIRST = 0.015;

    /** Those that begin earlier change much [s]. */
    private static final double EARLY = 0.3;

    private final NonuniformStft frames;
    private final FrameBins bins;
    private final double f0;
    private final WindowPieces[] pieces; // of each frame
    private final double least;

    /** @param f0 what ratios are of [Hz] */
    FmForwardModel(NonuniformStft frames, FrameBins bins, double f0) {
        this.frames = frames;
        this.bins = bins;
        this.f0 = f0;
        least = LEAST * Math.sqrt(bins.most());
        double[] t = frames.seconds();
        double half = 0.5 / frames.binHz();
        pieces = new WindowPieces[t.length];
        for (int f = 0; f < t.length; f++) {
            boolean releases = Math.abs(t[f] - frames.keySeconds()) < half;
            if (releases || t[f] - half < FIRST) {
                pieces[f] = releases ? Pieces.RELEASED : Pieces.FIRST;
            } else {
                boolean early = t[f] < EARLY || t[f] > frames.keySeconds() - half;
                pieces[f] = early ? Pieces.EARLY : Pieces.LATE;
            }
        }
    }

    /** Where the course of an amplitude is told within a frame. */
    private static final class Pieces {
        static final WindowPieces FIRST = new WindowPieces(0, 0.05, 0.12, 0.22, 0.36, 0.6, 0.9);
        static final WindowPieces RELEASED = new WindowPieces(0.05, 0.23, 0.41, 0.59, 0.77, 0.95);
        static final WindowPieces EARLY = new WindowPieces(0.12, 0.37, 0.63, 0.88);
        static final WindowPieces LATE = new WindowPieces(0.3, 0.7);
    }

    /** How loud a pair is and how far it bends, at each place of each frame that its course is told at. */
    private record Courses(double[][] level, double[][] index) {}

    private Courses courses(FmPair p) {
        double[] t = frames.seconds();
        double[][] level = new double[t.length][];
        double[][] index = new double[t.length][];
        double loud = bins.gain() * Math.pow(10, p.levelDb() / 20);
        for (int f = 0; f < t.length; f++) {
            int n = pieces[f].count();
            level[f] = new double[n];
            index[f] = new double[n];
            for (int s = 0; s < n; s++) {
                double at = Math.max(0, t[f] + pieces[f].place(s) / frames.binHz());
                level[f][s] = loud * course(p.amplitude(), at);
                index[f][s] = p.index() * course(p.bend(), at);
            }
        }
        return new Courses(level, index);
    }

    private double course(Envelope e, double t) {
        double key = frames.keySeconds();
        return t <= key ? e.at(t, 1) : e.released(e.at(key, 1), t - key);
    }

    /** Amplitudes of sidebands that frequencies and phases do not change. */
    static final class Shape {
        private final ModulatedCycle cycle;
        private final Courses courses;
        private final int[] orders; // on either side, of each frame
        private final double[][][] lines; // for a carrier of 1 [frame][piece][2 (order + orders)]
        private final double[][][] amounts; // the same, as loud as it is
        private final double[][][] bends; // slopes of the lines by the index, once they are asked for

        private Shape(FmPair of, Courses courses) {
            this.courses = courses;
            cycle = new ModulatedCycle(of.feedback());
            int n = courses.level.length;
            orders = new int[n];
            lines = new double[n][][];
            amounts = new double[n][][];
            bends = new double[n][][];
            for (int f = 0; f < n; f++) {
                double most = 0;
                for (double i : courses.index[f]) {
                    most = Math.max(most, i);
                }
                orders[f] = most == 0 ? 0 : Sidebands.orders(most) + MORE_ORDERS;
                lines[f] = lines(f, false);
                amounts[f] = scaled(lines[f], courses.level[f]);
            }
        }

        /** For a carrier of 1 [piece][2 (order + orders)]. @param slopes whether by the index */
        private double[][] lines(int frame, boolean slopes) {
            double[] index = courses.index[frame];
            double[][] out = new double[index.length][];
            for (int s = 0; s < out.length; s++) {
                boolean known = s > 0 && index[s] == index[s - 1];
                out[s] = known
                        ? out[s - 1]
                        : ordered(slopes ? cycle.slopes(index[s]) : cycle.lines(index[s]), orders[frame]);
            }
            return out;
        }

        /** From the lowest order to the highest. */
        private static double[] ordered(double[] c, int orders) {
            int n = c.length / 2;
            double[] out = new double[2 * (2 * orders + 1)];
            int most = Math.min(orders, n / 2 - 1);
            for (int k = -most; k <= most; k++) {
                int from = 2 * Math.floorMod(k, n);
                out[2 * (k + orders)] = c[from];
                out[2 * (k + orders) + 1] = c[from + 1];
            }
            return out;
        }

        /** How much of the amounts changes on another course, so far as it is straight. */
        private double[][][] more(Courses to) {
            double[][][] out = new double[amounts.length][][];
            for (int f = 0; f < out.length; f++) {
                double[][] bends = bends(f);
                out[f] = new double[amounts[f].length][amounts[f][0].length];
                for (int s = 0; s < out[f].length; s++) {
                    double louder = to.level[f][s] - courses.level[f][s];
                    double bent = courses.level[f][s] * (to.index[f][s] - courses.index[f][s]);
                    for (int i = 0; i < out[f][s].length; i++) {
                        out[f][s][i] = louder * lines[f][s][i] + bent * bends[s][i];
                    }
                }
            }
            return out;
        }

        private double[][] bends(int frame) {
            if (bends[frame] == null) {
                bends[frame] = lines(frame, true);
            }
            return bends[frame];
        }

        private static double[][] scaled(double[][] lines, double[] by) {
            double[][] out = new double[lines.length][lines[0].length];
            for (int s = 0; s < out.length; s++) {
                for (int i = 0; i < out[s].length; i++) {
                    out[s][i] = by[s] * lines[s][i];
                }
            }
            return out;
        }
    }

    /** Whether two differ in frequencies and phases only. */
    static boolean isSameShape(FmPair a, FmPair b) {
        return a.levelDb() == b.levelDb()
                && a.index() == b.index()
                && a.feedback() == b.feedback()
                && a.amplitude().equals(b.amplitude())
                && a.bend().equals(b.bend());
    }

    Shape shape(FmPair p) {
        return new Shape(p, courses(p));
    }

    /**
     * A pair put where its frequencies and phases are.
     *
     * @param shape of the pair, or of one that differs in frequencies and phases only
     */
    Placed placed(FmPair p, Shape shape) {
        return new Placed(p, shape);
    }

    /** Lines of a pair in the bins of each frame. */
    final class Placed {
        private final FmPair pair;
        private final Shape shape;
        private final Reached[] reached; // of each frame
        private final double[][] value;

        private Placed(FmPair pair, Shape shape) {
            this.pair = pair;
            this.shape = shape;
            double[] t = frames.seconds();
            reached = new Reached[t.length];
            value = new double[t.length][];
            for (int f = 0; f < t.length; f++) {
                reached[f] = new Reached(pair, shape, f, t[f]);
                value[f] = reached[f].value();
            }
        }

        /** Real and imaginary part of each bin that is looked at, then power of each band [frame]. Not to be changed. */
        double[][] value() {
            return value;
        }

        /** How much of that changes, so far as it is straight, if the pair becomes another that hardly differs. */
        double[][] change(FmPair to) {
            double[][] out = new double[reached.length][];
            double[][][] more = more(to);
            double carrier = to.carrierRatio() - pair.carrierRatio();
            double modulator = to.modulatorRatio() - pair.modulatorRatio();
            double carrierTurn = Math.IEEEremainder(to.carrierPhaseRad() - pair.carrierPhaseRad(), 2 * Math.PI);
            double modulatorTurn = Math.IEEEremainder(to.modulatorPhaseRad() - pair.modulatorPhaseRad(), 2 * Math.PI);
            boolean moves = carrier != 0 || modulator != 0 || carrierTurn != 0 || modulatorTurn != 0;
            for (int f = 0; f < out.length; f++) {
                out[f] = new double[value[f].length];
                if (more != null) {
                    reached[f].addMore(out[f], more[f]);
                }
                if (moves) {
                    reached[f].addMoved(out[f], f0 * carrier, f0 * modulator, carrierTurn, modulatorTurn);
                }
            }
            return out;
        }

        /** Of the amounts; null for none. */
        private double[][][] more(FmPair to) {
            if (to.feedback() != pair.feedback()) {
                double[][][] other = new Shape(to, shape.courses).amounts;
                double[][][] out = new double[other.length][][];
                for (int f = 0; f < out.length; f++) {
                    out[f] = new double[other[f].length][other[f][0].length];
                    for (int s = 0; s < out[f].length; s++) {
                        for (int i = 0; i < out[f][s].length; i++) {
                            out[f][s][i] = other[f][s][i] - shape.amounts[f][s][i];
                        }
                    }
                }
                return out;
            }
            return isSameShape(to, pair) ? null : shape.more(courses(to));
        }
    }

    /** Bins of one frame that lines reach, and how. */
    private final class Reached {
        private final WindowPieces window;
        private final double[][] amounts;
        private final double seconds;
        private final int orders;
        private int count;
        private final int[] order; // of each line that counts
        private final double[] turned; // cosine and sine of its phase in the middle of the frame
        private final double[] hz; // below 0 where it folds
        private final int[] first; // bin
        private final int[] bin; // how many
        private final int[] at; // of its first kernel
        private double[] kernel; // for each bin of each line two values for each piece

        Reached(FmPair p, Shape shape, int frame, double seconds) {
            this.seconds = seconds;
            window = pieces[frame];
            amounts = shape.amounts[frame];
            orders = shape.orders[frame];
            int most = 2 * orders + 1;
            order = new int[most];
            turned = new double[2 * most];
            hz = new double[most];
            first = new int[most];
            bin = new int[most];
            at = new int[most];
            kernel = new double[64 * window.count()];
            int used = 0;
            for (int k = -orders; k <= orders; k++) {
                double signed = f0 * (p.carrierRatio() + k * p.modulatorRatio());
                double amount = strongest(k);
                double place = Math.abs(signed) / frames.binHz();
                double reach = Math.max(REACH, Math.min(FAR, Math.cbrt(amount / (Math.PI * least))));
                int from = Math.max(frames.lowestBin(), (int) Math.ceil(place - reach));
                int many = (int) Math.min(Math.floor(place + reach), bins.all() - 1) - from + 1;
                if (amount < least || Math.abs(signed) < LOWEST_HZ || many <= 0) {
                    continue;
                }
                double turn = p.carrierPhaseRad() + k * p.modulatorPhaseRad() + 2 * Math.PI * signed * seconds;
                order[count] = k;
                turned[2 * count] = Math.cos(turn);
                turned[2 * count + 1] = Math.sin(turn);
                hz[count] = signed;
                first[count] = from;
                bin[count] = many;
                at[count++] = used;
                int needed = used + 2 * many * window.count();
                kernel = needed > kernel.length ? Arrays.copyOf(kernel, 2 * needed) : kernel;
                for (int b = 0; b < many; b++) {
                    window.at(from + b - place, kernel, used);
                    used += 2 * window.count();
                }
            }
        }

        private double strongest(int k) {
            double most = 0;
            int i = 2 * (k + orders);
            for (double[] a : amounts) {
                most = Math.max(most, a[i] * a[i] + a[i + 1] * a[i + 1]);
            }
            return Math.sqrt(most);
        }

        /** Amounts of a line turned to its phase and folded over [2 piece]. */
        private void turn(int line, double[][] amounts, double[] to) {
            int i = 2 * (order[line] + orders);
            double c = turned[2 * line];
            double s = turned[2 * line + 1];
            for (int p = 0; p < amounts.length; p++) {
                double re = amounts[p][i];
                double im = amounts[p][i + 1];
                double x = re * c - im * s;
                to[2 * p] = hz[line] < 0 ? -x : x; // of a sine: folds over with a change of sign
                to[2 * p + 1] = re * s + im * c;
            }
        }

        double[] value() {
            double[] out = new double[2 * bins.count() + bins.bands()];
            double[] v = new double[2 * window.count()];
            double[] z = new double[2];
            for (int l = 0; l < count; l++) {
                turn(l, amounts, v);
                for (int b = 0; b < bin[l]; b++) {
                    sum(v, kernel, at[l] + b * v.length, z);
                    int slot = bins.slot(first[l] + b);
                    if (bins.isLookedAt(first[l] + b)) {
                        out[2 * slot] += z[0];
                        out[2 * slot + 1] += z[1];
                    } else {
                        out[bins.count() + slot] += z[0] * z[0] + z[1] * z[1];
                    }
                }
            }
            return out;
        }

        private static void sum(double[] v, double[] kernel, int from, double[] out) {
            double x = 0;
            double y = 0;
            for (int p = 0; p < v.length; p += 2) {
                double c = kernel[from + p];
                double s = kernel[from + p + 1];
                x += v[p] * c - v[p + 1] * s;
                y += v[p] * s + v[p + 1] * c;
            }
            out[0] = x;
            out[1] = y;
        }

        void addMore(double[] out, double[][] more) {
            double[] v = new double[2 * window.count()];
            double[] m = new double[2 * window.count()];
            for (int l = 0; l < count; l++) {
                turn(l, amounts, v);
                turn(l, more, m);
                add(out, l, v, m);
            }
        }

        void addMoved(double[] out, double carrierHz, double modulatorHz, double carrierRad, double modulatorRad) {
            double[] v = new double[2 * window.count()];
            double[] m = new double[2 * window.count()];
            double[] slopes = new double[2 * window.count()];
            double[] both = new double[m.length];
            for (int l = 0; l < count; l++) {
                int k = order[l];
                double shift = carrierHz + k * modulatorHz;
                double turn = carrierRad + k * modulatorRad + 2 * Math.PI * shift * seconds;
                boolean folds = hz[l] < 0;
                turn(l, amounts, v);
                for (int p = 0; p < m.length; p += 2) {
                    m[p] = (folds ? 1 : -1) * turn * v[p + 1];
                    m[p + 1] = (folds ? -1 : 1) * turn * v[p];
                }
                add(out, l, v, m);
                double by = (folds ? 1 : -1) * shift / frames.binHz();
                if (by != 0) {
                    for (int p = 0; p < m.length; p++) {
                        both[p] = by * v[p];
                    }
                    double place = Math.abs(hz[l]) / frames.binHz();
                    for (int b = 0; b < bin[l]; b++) {
                        window.slope(first[l] + b - place, slopes, 0);
                        add(out, first[l] + b, v, kernel, at[l] + b * v.length, both, slopes, 0);
                    }
                }
            }
        }

        private void add(double[] out, int line, double[] v, double[] more) {
            for (int b = 0; b < bin[line]; b++) {
                int place = at[line] + b * v.length;
                add(out, first[line] + b, v, kernel, place, more, kernel, place);
            }
        }

        /** To one bin what more leaves there, beside what is there already. */
        private void add(
                double[] out, int b, double[] v, double[] own, int at, double[] more, double[] other, int from) {
            double[] z = new double[2];
            sum(more, other, from, z);
            int slot = bins.slot(b);
            if (bins.isLookedAt(b)) {
                out[2 * slot] += z[0];
                out[2 * slot + 1] += z[1];
            } else {
                double x = z[0];
                double y = z[1];
                sum(v, own, at, z);
                out[bins.count() + slot] += 2 * (x * z[0] + y * z[1]);
            }
        }
    }
}
