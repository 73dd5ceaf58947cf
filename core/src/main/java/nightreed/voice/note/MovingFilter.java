package nightreed.voice.note;

import nightreed.recipe.Recipe;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Route.Target;

/**
 * A recipe's filter at work, one side: a state-variable filter by the trapezoidal rule, whose cutoff may move as fast as it
 * likes (V. Zavalishin, "The Art of VA Filter Design", 2012). 6 dB: one pole; 24 dB: two in a row, the second one flat.
 */
public final class MovingFilter {
    /** Resonance of the second stage: flat. */
    private static final double FLAT = Math.sqrt(2);

    private final double fs;
    private double g; // of one pole: tan of half the cutoff's angle, gliding
    private double gStep;
    private double s1; // of one pole
    private double s2;
    private final Stage first = new Stage();
    private final Stage second = new Stage();
    private final SoftClipper clipper = new SoftClipper();
    private double drive = 1;
    private boolean driven;
    private Filter.Kind kind = Filter.Kind.LOW;
    private Filter.Slope slope = Filter.Slope.DB_12;

    public MovingFilter(double sampleRateHz) {
        this.fs = sampleRateHz;
    }

    public void reset() {
        s1 = 0;
        s2 = 0;
        first.reset();
        second.reset();
        clipper.reset();
        g = 0;
    }

    /** Cutoff of a filter for a note as it is now [Hz]. */
    public static double cutoffHz(Filter f, Recipe recipe, Note note) {
        double octaves = f.keyTracking() * (note.glideKey() - recipe.key()) / 12
                + f.velocityOctaves()
                        * (Math.max(note.velocity(), recipe.velocity().floor())
                                - recipe.velocity().reference())
                + note.added(Target.CUTOFF);
        if (f.envelope() != null) {
            octaves += (f.envelopeOctaves() + note.added(Target.SWEEP)) * note.course(f.envelope(), 1);
        }
        return f.cutoffHz() * Math.pow(2, octaves);
    }

    /**
     * What it makes of a sine's level while its cutoff stays [dB], down to -200.
     *
     * @param kind any but {@link Filter.Kind#NOTCH}
     */
    public static double levelDb(
            Filter.Kind kind, Filter.Slope slope, double q, double cutoffHz, double hz, double fs) {
        double x = Math.tan(Math.PI * Math.min(hz, 0.49 * fs) / fs)
                / Math.tan(Math.PI * Math.max(5, Math.min(cutoffHz, 0.49 * fs)) / fs);
        double y = x * x;
        if (slope == Filter.Slope.DB_6) {
            double power = switch (kind) {
                case HIGH -> y / (1 + y);
                case BAND -> 4 * y / ((1 + y) * (1 + y));
                default -> 1 / (1 + y);
            };
            return 10 * Math.log10(power + 1e-20);
        }
        double top = switch (kind) {
            case HIGH -> y * y;
            case BAND -> y / (q * q);
            default -> 1;
        };
        double power = top / ((1 - y) * (1 - y) + y / (q * q));
        if (slope == Filter.Slope.DB_18 && kind != Filter.Kind.BAND) {
            power *= kind == Filter.Kind.HIGH ? y / (1 + y) : 1 / (1 + y);
        }
        if (slope == Filter.Slope.DB_24) {
            power *= kind == Filter.Kind.BAND ? power : top / ((1 - y) * (1 - y) + 2 * y);
        }
        return 10 * Math.log10(power + 1e-20);
    }

    /** Sets what the next {@code n} samples glide towards. */
    public void step(Filter f, double cutoffHz, int n) {
        kind = f.kind();
        slope = f.slope();
        driven = f.driveDb() > 0.05;
        drive = Math.pow(10, f.driveDb() / 20);
        double target = Math.tan(Math.PI * Math.max(5, Math.min(cutoffHz, 0.49 * fs)) / fs);
        if (g == 0 || slope != Filter.Slope.DB_6 && slope != Filter.Slope.DB_18) {
            g = target;
        }
        gStep = n > 0 ? (target - g) / n : 0;
        double damping = 1 / f.q();
        first.step(target, damping, n);
        second.step(target, kind == Filter.Kind.LOW || kind == Filter.Kind.HIGH ? FLAT : damping, n);
        if (Math.abs(s1) + Math.abs(s2) + first.left() + second.left() < 1e-30) {
            s1 = 0;
            s2 = 0;
            first.reset();
            second.reset();
        }
        if (driven) {
            clipper.flush();
        }
    }

    /** Filters {@code x[from..to)} in place. */
    public void process(double[] x, int from, int to) {
        if (driven) {
            clipper.process(x, from, to, drive, 1 / Math.sqrt(drive), 1);
        }
        if (slope == Filter.Slope.DB_6) {
            for (int i = from; i < to; i++) {
                x[i] = onePole(x[i]);
                g += gStep;
            }
            return;
        }
        first.process(kind, x, from, to);
        if (slope == Filter.Slope.DB_18 && (kind == Filter.Kind.LOW || kind == Filter.Kind.HIGH)) {
            for (int i = from; i < to; i++) {
                x[i] = onePole(x[i]);
                g += gStep;
            }
        }
        if (slope == Filter.Slope.DB_24) {
            second.process(kind, x, from, to);
        }
    }

    private double onePole(double x) {
        double v = (x - s1) * g / (1 + g);
        double low = v + s1;
        s1 = low + v;
        return switch (kind) {
            case LOW -> low;
            case HIGH -> x - low;
            case BAND -> 2 * bandOfOne(low);
            case NOTCH -> x - 2 * bandOfOne(low);
        };
    }

    /** Band of one pole each side: the low-pass less what is lower still. */
    private double bandOfOne(double low) {
        double v = (low - s2) * g / (1 + g);
        double lower = v + s2;
        s2 = lower + v;
        return low - lower;
    }

    /**
     * 12 dB: its two states after a sample from those before it and the sample, by coefficients that glide in straight lines
     * within a step. Whatever the cutoff, a sample without input never adds to the sum of the states' squares (the trapezoidal
     * rule keeps that of the filter itself), nor do coefficients that lie between two such sets.
     */
    private static final class Stage {
        private double band;
        private double low;
        private double damping;
        private double own; // of the band in itself
        private double cross; // of each state in the other, and of the input in the band
        private double in; // of the input in the low
        private double ownStep;
        private double crossStep;
        private double inStep;
        private boolean fresh = true;

        void reset() {
            band = 0;
            low = 0;
            fresh = true;
        }

        double left() {
            return Math.abs(band) + Math.abs(low);
        }

        /** @param g tan of half the angle of the cutoff, that is reached in so many samples */
        void step(double g, double wantedDamping, int n) {
            damping = wantedDamping;
            double k = 1 / (1 + g * (g + damping));
            double toOwn = 2 * k - 1;
            double toCross = 2 * g * k;
            double toIn = g * toCross;
            if (fresh) {
                own = toOwn;
                cross = toCross;
                in = toIn;
                fresh = false;
            }
            ownStep = n > 0 ? (toOwn - own) / n : 0;
            crossStep = n > 0 ? (toCross - cross) / n : 0;
            inStep = n > 0 ? (toIn - in) / n : 0;
        }

        void process(Filter.Kind kind, double[] x, int from, int to) {
            // what comes out is made of the input and of the means of the states before and after
            double ofInput = kind == Filter.Kind.HIGH || kind == Filter.Kind.NOTCH ? 1 : 0;
            double ofBand = kind == Filter.Kind.LOW ? 0 : kind == Filter.Kind.BAND ? 0.5 * damping : -0.5 * damping;
            double ofLow = kind == Filter.Kind.LOW ? 0.5 : kind == Filter.Kind.HIGH ? -0.5 : 0;
            double b = band;
            double l = low;
            double o = own;
            double c = cross;
            double i = in;
            double os = ownStep;
            double cs = crossStep;
            double is = inStep;
            if (kind == Filter.Kind.LOW) { // by far the most usual
                for (int t = from; t < to; t++) {
                    double v = x[t];
                    double nextBand = (c * v + o * b) - c * l;
                    double nextLow = (i * v + (l - i * l)) + c * b;
                    x[t] = 0.5 * (l + nextLow);
                    b = nextBand;
                    l = nextLow;
                    o += os;
                    c += cs;
                    i += is;
                }
            } else {
                for (int t = from; t < to; t++) {
                    double v = x[t];
                    double nextBand = (c * v + o * b) - c * l;
                    double nextLow = (i * v + (l - i * l)) + c * b;
                    x[t] = ofInput * v + (ofBand * (b + nextBand) + ofLow * (l + nextLow));
                    b = nextBand;
                    l = nextLow;
                    o += os;
                    c += cs;
                    i += is;
                }
            }
            band = b;
            low = l;
            own = o;
            cross = c;
            in = i;
        }
    }
}
