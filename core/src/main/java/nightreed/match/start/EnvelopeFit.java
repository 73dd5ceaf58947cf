package nightreed.match.start;

import nightreed.recipe.part.Envelope;

/**
 * The course from 0 to 1, and the top it is multiplied with, that lie nearest to values seen at a few times: the best of a coarse net over attack, decay, sustain
 * and the curve of the fall, and then of ever finer ones around it.
 */
public final class EnvelopeFit {
    private static final double[] DECAYS = {0.04, 0.08, 0.15, 0.25, 0.4, 0.65, 1, 1.6, 2.5, 4, 6.5, 10, 16, 25, 50};
    private static final double[] SUSTAINS = {0, 0.05, 0.12, 0.25, 0.4, 0.6, 0.8, 1};
    private static final double[] CURVES = {0, 0.5, 1};
    private static final int FINER = 4;

    /** A slower rise than the measured one has to fit better by this. */
    private static final double UNSURE = 1.5;

    /** Under this a level is as good as nothing [dB]. */
    private static final double LEAST_DB = -50;

    private static final double LEAST_TOP = 0.8;
    private static final double MOST_TOP = 3;

    /** A plainer course is taken if it misses by no more than this beyond the best of the net [dB]. */
    private static final double PLAIN_DB = 1;

    private final double[] seconds;
    private final double[] values;
    private final double[] weights;
    private final boolean decibels;
    private final Envelope envelope;

    private EnvelopeFit(
            double[] seconds, double[] values, double[] weights, boolean decibels, double attack, double release) {
        this.seconds = seconds;
        this.values = values;
        this.weights = weights;
        this.decibels = decibels;
        this.envelope = best(attack, release);
    }

    public Envelope envelope() {
        return envelope;
    }

    /** What the envelope has to be multiplied by to come to the values; about 1, more for a fast fall that is seen late. */
    public double top() {
        return top(envelope);
    }

    /**
     * Of a level, with differences in dB.
     *
     * @param seconds times after key-down [s]
     * @param values  there, 1 at the top; as many
     * @param weights how much each counts; as many
     * @param attack  of the whole sound as it was measured [s]
     * @param release of the result [s]
     */
    public static EnvelopeFit ofLevel(
            double[] seconds, double[] values, double[] weights, double attack, double release) {
        return new EnvelopeFit(seconds, values, weights, true, attack, release);
    }

    /** Of anything else, with plain differences; all as in {@link #ofLevel}. */
    public static EnvelopeFit of(double[] seconds, double[] values, double[] weights, double attack, double release) {
        return new EnvelopeFit(seconds, values, weights, false, attack, release);
    }

    private Envelope best(double attack, double release) {
        double rise = StartContext.limited(attack, 0.0002, 5);
        double[] attacks = {rise, 0.1, 0.2, 0.5, 1};
        Envelope best = envelope(rise, 1, 0, 1, release);
        double least = Double.POSITIVE_INFINITY;
        for (double a : attacks) {
            boolean measured = a <= rise; // what frames say of the rise has to be clear
            for (double d : DECAYS) {
                for (double s : SUSTAINS) {
                    for (double c : CURVES) {
                        Envelope e = envelope(a, d, s, c, release);
                        double cost = (measured ? 1 : UNSURE) * cost(e);
                        if (cost < least - 1e-9) {
                            least = cost;
                            best = e;
                        }
                    }
                }
            }
        }
        if (decibels) { // what simply stays, or falls like a body, needs no better reason
            double weight = 0;
            for (double w : weights) {
                weight += w;
            }
            for (Envelope plain : new Envelope[] {Envelope.held(rise, release), falling(rise, release)}) {
                if (cost(plain) < least + weight * PLAIN_DB * PLAIN_DB / 400) {
                    return plain;
                }
            }
        }
        double step = 0.5;
        for (int round = 0; round < FINER; round++, step /= 2) {
            best = around(best, step, attack > 0.02, release);
        }
        return best;
    }

    /** The best that falls like a struck body, without end. */
    private Envelope falling(double attack, double release) {
        Envelope best = envelope(attack, DECAYS[0], 0, 1, release);
        for (double d = DECAYS[0]; d < 100; d *= 1.05) {
            Envelope e = envelope(attack, d, 0, 1, release);
            best = cost(e) < cost(best) ? e : best;
        }
        return best;
    }

    private Envelope around(Envelope at, double step, boolean slow, double release) {
        Envelope best = at;
        double least = cost(at);
        for (int a = slow ? -1 : 0; a <= (slow ? 1 : 0); a++) {
            for (int d = -1; d <= 1; d++) {
                for (int s = -1; s <= 1; s++) {
                    for (int c = -1; c <= 1; c++) {
                        Envelope e = envelope(
                                at.attackSeconds() * Math.exp(a * step),
                                at.decaySeconds() * Math.exp(d * step),
                                at.sustain() + 0.1 * s * step,
                                at.fallCurve() + 0.5 * c * step,
                                release);
                        double cost = cost(e);
                        if (cost < least - 1e-9) {
                            least = cost;
                            best = e;
                        }
                    }
                }
            }
        }
        return best;
    }

    private static Envelope envelope(double attack, double decay, double sustain, double curve, double release) {
        return new Envelope(
                0,
                StartContext.limited(attack, 0, 20),
                0,
                0,
                StartContext.limited(decay, 0.005, 100),
                StartContext.limited(curve, -1, 1),
                StartContext.limited(sustain, 0, 1),
                StartContext.limited(release, 0, 100));
    }

    private double cost(Envelope e) {
        double top = top(e);
        double sum = 0;
        for (int i = 0; i < seconds.length; i++) {
            double v = top * e.at(seconds[i], 1);
            double d = decibels ? (db(v) - db(values[i])) / 20 : v - values[i];
            sum += weights[i] * d * d;
        }
        return sum;
    }

    private double top(Envelope e) {
        double dot = 0;
        double own = 1e-12;
        for (int i = 0; i < seconds.length; i++) {
            double v = e.at(seconds[i], 1);
            dot += weights[i] * (decibels ? db(values[i]) - db(v) : v * values[i]);
            own += weights[i] * (decibels ? 1 : v * v);
        }
        double top = decibels ? Math.pow(10, dot / own / 20) : dot / own;
        return Math.max(LEAST_TOP, Math.min(MOST_TOP, top));
    }

    private static double db(double v) {
        return Math.max(LEAST_DB, 20 * Math.log10(v + 1e-9));
    }
}
