package nightreed.voice.string;

import nightreed.recipe.LoopLoss;

/**
 * Solves a loop for pitch, stiffness and decays: fs/f0 = whole samples + phase delays of everything in the loop. Holds its
 * work space, so that solving allocates nothing; one thread at a time.
 */
public final class LoopDesign {
    private static final double SIXTY_DB = Math.log(1000);

    /** Below this much room for the tuning all-pass one of first order has to do [samples]. */
    private static final double ROOM = 3.6;

    /** Highest pitch, as a share of the sample rate: four samples once round. */
    private static final double HIGHEST = 0.24;

    private final double fs;
    private double f0;
    private boolean inverted;
    private LoopLoss asked;
    private double t60Factor;
    private double stiffness;
    private double solvedHz; // what the filters were made for, and the whole samples then
    private int solvedWhole;

    /** Its parts: filters that lose and that delay. */
    final LossDesign loss;

    final StiffnessDesign stiff = new StiffnessDesign();

    // tuning: whole samples and Thiran's all-pass of third or first order
    int whole;
    final double[] thiran = new double[3];
    int order;

    private double thiranAtPitch; // its phase delay at partial 1 [samples]

    public LoopDesign(double sampleRateHz) {
        this.fs = sampleRateHz;
        loss = new LossDesign(sampleRateHz);
    }

    /**
     * Solves everything.
     *
     * @param f0Hz       pitch of the string without stiffness [Hz]; above 0
     * @param loss       decays asked for
     * @param t60Factor  factor on all of them, above 0
     * @param stiffness  B, 0 for none
     * @param inverted   whether the loop turns the wave over, for odd partials only
     */
    public void solve(double f0Hz, LoopLoss loss, double t60Factor, double stiffness, boolean inverted) {
        if (f0Hz == solvedHz
                && loss.equals(asked)
                && t60Factor == this.t60Factor
                && stiffness == this.stiffness
                && inverted == this.inverted) { // a ruler elsewhere was moved, or the key is struck again
            whole = solvedWhole;
            tune(f0Hz, true);
            return;
        }
        this.f0 = Math.min(f0Hz, HIGHEST * fs);
        this.asked = loss;
        this.t60Factor = t60Factor;
        this.stiffness = stiffness;
        this.inverted = inverted;
        this.loss.flat(1);
        stiff.none();
        if (stiffness > 0) { // the loss needs to know how long a trip takes, the stiffness what the loss delays
            stiff.solve(this, fs);
            tune(f0Hz);
        }
        this.loss.solve(this, loss.kind());
        tune(f0Hz);
        if (stiff.sections > 0) {
            stiff.solveAgain(this);
            tune(f0Hz, true);
        }
        solvedHz = f0Hz;
        solvedWhole = whole;
    }

    /** A loop all of whose partials die alike, without any filter. @param t60 [s] */
    public void solveFlat(double f0Hz, double t60) {
        f0 = Math.min(f0Hz, HIGHEST * fs);
        asked = null;
        stiffness = 0;
        inverted = false;
        stiff.none();
        loss.flat(Math.exp(-SIXTY_DB / (f0 * t60)));
        tune(f0Hz);
    }

    /** Moves the pitch and leaves the filters as they are: for glides and vibrato. */
    public void tune(double f0Hz) {
        tune(f0Hz, false);
    }

    /** @param keepWhole whether the whole samples stay if they can: what the tuning all-pass does to high partials hangs on them */
    private void tune(double f0Hz, boolean keepWhole) {
        f0 = Math.min(f0Hz, HIGHEST * fs);
        double w = 2 * Math.PI * partialHz(1) / fs;
        double period = 2 * Math.PI / w * share();
        double rest = Math.max(0.05, period - loss.delay(w) - stiff.delay(w));
        if (rest >= ROOM) {
            order = 3;
            boolean canKeep = keepWhole && rest - whole > 2.1 && rest - whole < 3.9;
            whole = canKeep ? whole : (int) Math.floor(rest - 2.5);
            double wanted = rest - whole;
            double d = wanted;
            for (int i = 0; i < 4; i++) { // Thiran's is exact at 0 Hz only; a few steps make it exact at the pitch
                thiran(d);
                d += wanted - thiranDelay(w);
            }
            thiran(d);
        } else {
            order = 1;
            whole = (int) Math.max(1, Math.floor(rest - 0.5));
            double d = Math.max(0.05, rest - whole); // less than that a loop of so few samples cannot be
            thiran[0] = Math.sin((1 - d) * w / 2) / Math.sin((1 + d) * w / 2); // exact phase at w
            thiran[1] = 0;
            thiran[2] = 0;
        }
        thiranAtPitch = thiranDelay(w);
    }

    /** Samples once round, phase delays at partial 1 included. */
    double period() {
        double w = 2 * Math.PI * partialHz(1) / fs;
        return turn(w) / w;
    }

    /** Angle that an angle per sample turns by once round [rad]: a partial is where it is a multiple of 2π. */
    double turn(double w) {
        return w * (whole + thiranDelay(w) + loss.delay(w) + stiff.delay(w));
    }

    /** What the filters turn by that are there beside the stiffness and plain delay [rad]. */
    double otherTurn(double w) {
        return w * (loss.delay(w) + thiranDelay(w) - thiranAtPitch);
    }

    /** Part of 2π that partial n turns by once round, for each n: half where the loop turns the wave over. */
    double share() {
        return inverted ? 0.5 : 1;
    }

    /** B n² of the partial that turns so many times 2π once round. */
    double stretch(double trips) {
        double n = trips / share();
        return stiffness * n * n;
    }

    /** Partial n of the string asked for, n √(1 + B n²) f0; with an inverted loop n counts 1, 3, 5.. [Hz]. */
    double partialHz(double n) {
        return n * f0 * Math.sqrt(1 + stiffness * n * n);
    }

    /** Where this loop has partial n, near where it should be [Hz]. */
    double foundHz(double n) {
        double w = 2 * Math.PI * partialHz(n) / fs;
        double slope = trip(n) * fs;
        for (int i = 0; i < 3; i++) { // Newton's steps with one slope
            w += (2 * Math.PI * share() * n - turn(w)) / slope;
        }
        return w * fs / (2 * Math.PI);
    }

    /** Time once round that a wave packet at partial n should take [s]: 1/(df/dn), or half of it in an inverted loop. */
    double idealTrip(double n) {
        double q = stiffness * n * n;
        return share() / (f0 * (1 + 2 * q) / Math.sqrt(1 + q));
    }

    /** The same as this loop has it, from how its turn changes about the partial [s]. */
    double trip(double n) {
        if (stiff.sections == 0) {
            return idealTrip(n);
        }
        double w = 2 * Math.PI * partialHz(n) / fs;
        double by = 1e-4 * w;
        return (turn(w + by) - turn(w - by)) / (2 * by * fs);
    }

    /** Decay asked for at partial n [s]. */
    double askedT60(double n) {
        return asked.t60At(partialHz(n)) * t60Factor;
    }

    /** Gain once round that partial n needs. */
    double neededGain(double n) {
        return Math.exp(-SIXTY_DB * trip(n) / askedT60(n));
    }

    /** Gain once round that the filter has there. */
    double reachedGain(double n) {
        return Math.exp(-loss.nepers(2 * Math.PI * partialHz(n) / fs));
    }

    /** Decay that this gives at partial n [s]. */
    double reachedT60(double n) {
        return SIXTY_DB * trip(n) / -Math.log(Math.min(LossDesign.MOST_GAIN, reachedGain(n)));
    }

    /** Extra gain once round that turns the T60 of partial 1 into another [s]; never more than would grow. */
    double extraGain(double t60) {
        double now = SIXTY_DB * trip(1) / reachedT60(1);
        double then = SIXTY_DB * trip(1) / Math.max(1e-3, t60);
        return Math.min(
                Math.exp(now - then), LossDesign.MOST_GAIN / Math.min(LossDesign.MOST_GAIN, Math.exp(-loss.nepers(0))));
    }

    /** Thiran's all-pass of third order for a delay of 2 to 4 samples. */
    private void thiran(double d) {
        for (int k = 1; k <= 3; k++) {
            double a = k == 2 ? 3 : k == 1 ? -3 : -1;
            for (int n = 0; n <= 3; n++) {
                a *= (d - 3 + n) / (d - 3 + k + n);
            }
            thiran[k - 1] = a;
        }
    }

    /** Phase delay of the tuning all-pass at an angle [samples]. */
    double thiranDelay(double w) {
        double re = 1;
        double im = 0;
        for (int k = 1; k <= order; k++) {
            re += thiran[k - 1] * Math.cos(k * w);
            im -= thiran[k - 1] * Math.sin(k * w);
        }
        return order + 2 * Math.atan2(im, re) / w;
    }

    double f0Hz() {
        return f0;
    }

    /** Whether the recipe's decays hold within a share at the first partials up to a frequency [Hz]. */
    boolean reaches(double share, double toHz) {
        for (double n = 1; partialHz(n) < Math.min(toHz, 0.45 * fs); n += inverted ? 2 : 1) {
            if (Math.abs(reachedT60(n) / askedT60(n) - 1) > share) {
                return false;
            }
        }
        return true;
    }
}
