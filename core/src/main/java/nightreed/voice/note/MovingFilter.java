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
    private double g; // tan of half the cutoff's angle, gliding
    private double gStep;
    private double damping; // 1/Q
    private double s1;
    private double s2;
    private double t1;
    private double t2;
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
        t1 = 0;
        t2 = 0;
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
            octaves += f.envelopeOctaves() * note.course(f.envelope(), 1);
        }
        return f.cutoffHz() * Math.pow(2, octaves);
    }

    /** Sets what the next {@code n} samples glide towards. */
    public void step(Filter f, double cutoffHz, int n) {
        kind = f.kind();
        slope = f.slope();
        damping = 1 / f.q();
        driven = f.driveDb() > 0.05;
        drive = Math.pow(10, f.driveDb() / 20);
        double target = Math.tan(Math.PI * Math.max(5, Math.min(cutoffHz, 0.49 * fs)) / fs);
        if (g == 0) {
            g = target;
        }
        gStep = n > 0 ? (target - g) / n : 0;
        if (Math.abs(s1) + Math.abs(s2) + Math.abs(t1) + Math.abs(t2) < 1e-30) {
            s1 = 0;
            s2 = 0;
            t1 = 0;
            t2 = 0;
        }
    }

    /** Filters {@code x[from..to)} in place. */
    public void process(double[] x, int from, int to) {
        for (int i = from; i < to; i++) {
            double v = x[i];
            if (driven) {
                v = bent(v * drive) / Math.sqrt(drive);
            }
            x[i] = slope == Filter.Slope.DB_6 ? onePole(v) : slope == Filter.Slope.DB_12 ? stage(v) : second(stage(v));
            g += gStep;
        }
    }

    /** tanh by a ratio of polynomials, never more than 0.024 off, flat beyond ±3. */
    static double bent(double x) {
        double c = Math.max(-3, Math.min(3, x));
        double q = c * c;
        return c * (27 + q) / (27 + 9 * q);
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

    private double stage(double x) {
        double high = (x - (damping + g) * s1 - s2) / (1 + g * (damping + g));
        double band = g * high + s1;
        double low = g * band + s2;
        s1 = band + g * high;
        s2 = low + g * band;
        return switch (kind) {
            case LOW -> low;
            case HIGH -> high;
            case BAND -> damping * band;
            case NOTCH -> high + low;
        };
    }

    private double second(double x) {
        double d = kind == Filter.Kind.LOW || kind == Filter.Kind.HIGH ? FLAT : damping;
        double high = (x - (d + g) * t1 - t2) / (1 + g * (d + g));
        double band = g * high + t1;
        double low = g * band + t2;
        t1 = band + g * high;
        t2 = low + g * band;
        return switch (kind) {
            case LOW -> low;
            case HIGH -> high;
            case BAND -> d * band;
            case NOTCH -> high + low;
        };
    }
}
