package nightreed.voice.string;

import nightreed.recipe.LoopLoss;

/**
 * Solves a loop for pitch, stiffness and decays: fs/f0 = whole samples + phase delays of everything in the loop. Holds its
 * work space, so that solving allocates nothing; one thread at a time.
 */
public final class LoopDesign {
    /** First-order sections of the loss filter at the most. */
    static final int SECTIONS = 4;

    /** All-passes in a row that make the stiffness. */
    static final int STIFF = 8;

    private static final int POINTS = 24;

    /** Partials that die faster than this share of the first one's time are not fitted. */
    private static final double LEAST_SHARE = 0.1;

    /** Partials whose place a stiff string is fitted to; an all-pass of so few sections reaches no further. */
    private static final int STIFF_PARTIALS = 16;

    private static final double SIXTY_DB = Math.log(1000);
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

    /** Gain once round that is never passed, so that nothing grows for ever. */
    private static final double MOST_GAIN = 1 - 1e-7;

    /** Below this much room for the tuning all-pass one of first order has to do [samples]. */
    private static final double ROOM = 3.6;

    private final double fs;
    private double f0;
    private boolean inverted;
    private LoopLoss loss;
    private double t60Factor;
    private double stiffness;

    // the loss filter: gain and (b0 + b1/z)/(1 + a1/z)
    double gain;
    final double[] b0 = new double[SECTIONS];
    final double[] b1 = new double[SECTIONS];
    final double[] a1 = new double[SECTIONS];
    int sections;

    // stiffness: (c + 1/z)/(1 + c/z), so many times
    double stiff;
    int stiffSections;

    // tuning: whole samples and Thiran's all-pass of third or first order
    int whole;
    final double[] thiran = new double[3];
    int order;

    private final double[] hz = new double[POINTS];
    private final double[] needed = new double[POINTS]; // loss once round that is asked for [nepers]
    private final double[] weight = new double[POINTS];
    private final double[][] shape = new double[SECTIONS + 1][POINTS];
    private final double[] amount = new double[SECTIONS + 1];
    private final NonNegativeLeastSquares amounts = new NonNegativeLeastSquares(SECTIONS + 1);
    private int points;

    public LoopDesign(double sampleRateHz) {
        this.fs = sampleRateHz;
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
        this.f0 = Math.min(f0Hz, 0.24 * fs);
        this.loss = loss;
        this.t60Factor = t60Factor;
        this.stiffness = stiffness;
        this.inverted = inverted;
        lossFilter();
        stiffFilter();
        tune(f0Hz);
    }

    /** A loop all of whose partials die alike, without any filter. @param t60 [s] */
    public void solveFlat(double f0Hz, double t60) {
        f0 = Math.min(f0Hz, 0.24 * fs);
        stiffness = 0;
        inverted = false;
        sections = 0;
        stiffSections = 0;
        gain = Math.min(MOST_GAIN, Math.exp(-SIXTY_DB / (f0 * t60)));
        tune(f0Hz);
    }

    /** Moves the pitch and leaves the filters as they are: for glides and vibrato. */
    public void tune(double f0Hz) {
        f0 = Math.min(f0Hz, 0.24 * fs);
        double w = 2 * Math.PI * partialHz(1) / fs;
        double period = 2 * Math.PI / w * (inverted ? 0.5 : 1);
        double rest = Math.max(0.05, period - lossDelay(w) - stiffSections * allPassDelay(stiff, w));
        if (rest >= ROOM) {
            order = 3;
            whole = (int) Math.floor(rest - 2.5);
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
    }

    /** Samples once round, phase delays at partial 1 included. */
    double period() {
        double w = 2 * Math.PI * partialHz(1) / fs;
        return turn(w) / w;
    }

    /** Angle that an angle per sample turns by once round [rad]: a partial is where it is a multiple of 2π. */
    double turn(double w) {
        return w * (whole + thiranDelay(w) + lossDelay(w) + stiffSections * allPassDelay(stiff, w));
    }

    /** Partial n of the string asked for, n √(1 + B n²) f0; with an inverted loop n counts 1, 3, 5.. [Hz]. */
    double partialHz(double n) {
        return n * f0 * Math.sqrt(1 + stiffness * n * n);
    }

    /** Time once round that a wave packet at partial n takes [s]: 1/(df/dn), or half of it in an inverted loop. */
    private double trip(double n) {
        double q = stiffness * n * n;
        return (inverted ? 0.5 : 1) / (f0 * (1 + 2 * q) / Math.sqrt(1 + q));
    }

    /** Decay asked for at partial n [s]. */
    double askedT60(double n) {
        return loss.t60At(partialHz(n)) * t60Factor;
    }

    /** Gain once round that partial n needs. */
    double neededGain(double n) {
        return Math.exp(-SIXTY_DB * trip(n) / askedT60(n));
    }

    /** Gain once round that the filter has there. */
    double reachedGain(double n) {
        return Math.exp(-lossNepers(2 * Math.PI * partialHz(n) / fs));
    }

    /** Decay that this gives at partial n [s]. */
    double reachedT60(double n) {
        return SIXTY_DB * trip(n) / -Math.log(Math.min(MOST_GAIN, reachedGain(n)));
    }

    /** Extra gain once round that turns the T60 of partial 1 into another [s]; never more than would grow. */
    double extraGain(double t60) {
        double now = SIXTY_DB * trip(1) / reachedT60(1);
        double then = SIXTY_DB * trip(1) / Math.max(1e-3, t60);
        return Math.min(Math.exp(now - then), MOST_GAIN / Math.min(MOST_GAIN, Math.exp(-lossNepers(0))));
    }

    // ---- loss ----

    private void lossFilter() {
        grid();
        sections = 1;
        switch (loss.kind()) {
            case AVERAGE -> average();
            case ONE_POLE -> onePole();
            case SHELVES -> shelves();
        }
    }

    /** Partials at which decays are compared: all of the first few, then fewer and fewer. */
    private void grid() {
        int step = inverted ? 2 : 1;
        points = 0;
        double n = 1;
        while (points < POINTS) {
            double f = partialHz(n);
            if (points > 0 && (f > 0.45 * fs || askedT60(n) < LEAST_SHARE * askedT60(1))) {
                break;
            }
            hz[points] = f;
            needed[points] = SIXTY_DB * trip(n) / askedT60(n);
            weight[points] = 1 / (needed[points] * needed[points] * n);
            points++;
            n = Math.max(n + step, 1 + step * Math.rint((n * 1.17 - 1) / step));
        }
    }

    private void average() {
        double w = 2 * Math.PI * hz[0] / fs;
        gain = Math.min(MOST_GAIN, Math.exp(-needed[0]) / Math.cos(w / 2));
        b0[0] = 0.5;
        b1[0] = 0.5;
        a1[0] = 0;
    }

    /** The pole that leaves the least sum of squared relative errors of the decays; the gain follows from each pole. */
    private void onePole() {
        double low = Math.log(1e-7);
        double high = Math.log(0.98);
        double x1 = high - GOLDEN * (high - low);
        double x2 = low + GOLDEN * (high - low);
        double c1 = poleCost(-Math.exp(x1));
        double c2 = poleCost(-Math.exp(x2));
        for (int i = 0; i < 40; i++) {
            if (c1 < c2) {
                high = x2;
                x2 = x1;
                c2 = c1;
                x1 = high - GOLDEN * (high - low);
                c1 = poleCost(-Math.exp(x1));
            } else {
                low = x1;
                x1 = x2;
                c1 = c2;
                x2 = low + GOLDEN * (high - low);
                c2 = poleCost(-Math.exp(x2));
            }
        }
        double a = -Math.exp((low + high) / 2);
        poleCost(a);
        b0[0] = 1 + a;
        b1[0] = 0;
        a1[0] = a;
    }

    /** Sets the gain that suits a pole best. @return what is left over */
    private double poleCost(double a) {
        double sum = 0;
        double all = 0;
        for (int i = 0; i < points; i++) {
            sum += weight[i] * (needed[i] - poleLoss(a, hz[i]));
            all += weight[i];
        }
        double c = Math.max(1e-7, sum / all);
        gain = Math.exp(-c);
        double cost = 0;
        for (int i = 0; i < points; i++) {
            double e = c + poleLoss(a, hz[i]) - needed[i];
            cost += weight[i] * e * e;
        }
        return cost;
    }

    private double poleLoss(double a, double f) {
        double s = Math.sin(Math.PI * f / fs); // 1 + 2a cos w + a² = (1 + a)² - 4a sin²(w/2)
        return 0.5 * Math.log1p(-4 * a * s * s / ((1 + a) * (1 + a)));
    }

    /**
     * Shelves whose corners are spread over the partials: their small losses add, so the fit is a linear one with amounts
     * that are not below 0, made anew a few times about what the shelves really lose.
     */
    private void shelves() {
        sections = SECTIONS;
        double first = Math.max(1.2 * hz[0], 60);
        double last = Math.max(2 * first, Math.min(0.4 * fs, 2.5 * hz[points - 1]));
        for (int k = 0; k < SECTIONS; k++) {
            double corner = first * Math.pow(last / first, k / (SECTIONS - 1.0));
            double t = Math.tan(Math.PI * Math.min(corner, 0.45 * fs) / fs);
            for (int i = 0; i < points; i++) {
                double u = Math.tan(Math.PI * hz[i] / fs) / t;
                shape[k][i] = u * u / (1 + u * u);
            }
            amount[k] = 0;
            a1[k] = t; // kept here until the shelf is made
        }
        java.util.Arrays.fill(shape[SECTIONS], 1);
        amount[SECTIONS] = needed[0];
        for (int round = 0; round < 3; round++) {
            solveAmounts();
            for (int k = 0; k < SECTIONS; k++) { // what a shelf of this amount loses, for a unit of it
                for (int i = 0; i < points; i++) {
                    double u = Math.tan(Math.PI * hz[i] / fs) / a1[k];
                    double d = Math.max(1e-6, amount[k]);
                    double g = Math.exp(-d);
                    shape[k][i] = 0.5 * Math.log((1 + u * u) / (1 + g * g * u * u)) / d;
                }
            }
        }
        solveAmounts();
        gain = Math.exp(-Math.max(1e-7, amount[SECTIONS]));
        for (int k = 0; k < SECTIONS; k++) {
            double t = a1[k];
            double g = Math.exp(-amount[k]);
            b0[k] = (t + g) / (t + 1);
            b1[k] = (t - g) / (t + 1);
            a1[k] = (t - 1) / (t + 1);
        }
    }

    private void solveAmounts() {
        amounts.solve(shape, needed, weight, points, amount);
        amount[SECTIONS] = Math.max(1e-7, amount[SECTIONS]);
    }

    /** Loss once round at an angle [nepers]. */
    double lossNepers(double w) {
        double c = Math.cos(w);
        double sum = -Math.log(gain);
        for (int k = 0; k < sections; k++) {
            double up = b0[k] * b0[k] + b1[k] * b1[k] + 2 * b0[k] * b1[k] * c;
            double down = 1 + a1[k] * a1[k] + 2 * a1[k] * c;
            sum -= 0.5 * Math.log(Math.max(1e-300, up / down));
        }
        return sum;
    }

    /** Phase delay of the loss filter at an angle [samples]. */
    double lossDelay(double w) {
        double s = Math.sin(w);
        double c = Math.cos(w);
        double angle = 0;
        for (int k = 0; k < sections; k++) {
            angle += Math.atan2(-b1[k] * s, b0[k] + b1[k] * c) - Math.atan2(-a1[k] * s, 1 + a1[k] * c);
        }
        return -angle / w;
    }

    // ---- stiffness ----

    /** The all-pass that brings the partials closest to where a stiff string has them. */
    private void stiffFilter() {
        stiffSections = 0;
        stiff = 0;
        if (stiffness <= 0) {
            return;
        }
        double period = fs / f0 * (inverted ? 0.5 : 1);
        // the row may take up to two thirds of the time once round at low frequencies
        double most = Math.min(0.97, (2 * period / 3 - STIFF) / (2 * period / 3 + STIFF));
        if (most <= 0.01) {
            return;
        }
        double low = 0;
        double high = most;
        double x1 = high - GOLDEN * (high - low);
        double x2 = low + GOLDEN * (high - low);
        double c1 = stiffCost(-x1);
        double c2 = stiffCost(-x2);
        for (int i = 0; i < 30; i++) {
            if (c1 < c2) {
                high = x2;
                x2 = x1;
                c2 = c1;
                x1 = high - GOLDEN * (high - low);
                c1 = stiffCost(-x1);
            } else {
                low = x1;
                x1 = x2;
                c1 = c2;
                x2 = low + GOLDEN * (high - low);
                c2 = stiffCost(-x2);
            }
        }
        double c = -(low + high) / 2;
        if (stiffCost(c) < stiffCost(0)) {
            stiffSections = STIFF;
            stiff = c;
        }
    }

    /** Squares of the partials' errors, the delay tuned at partial 1, the lower partials counting more. */
    private double stiffCost(double c) {
        double w1 = 2 * Math.PI * hz[0] / fs;
        double share = inverted ? 0.5 : 1;
        double base = share * fs / hz[0] - lossDelay(w1) - STIFF * allPassDelay(c, w1);
        double cost = 0;
        int step = inverted ? 2 : 1;
        for (int k = 1; k < STIFF_PARTIALS && partialHz(1 + k * step) < 0.4 * fs; k++) {
            double n = 1 + k * step;
            double f = partialHz(n);
            double w = 2 * Math.PI * f / fs;
            // once round a partial turns by 2πn, or by πn in an inverted loop
            double wanted = share * n * fs / f;
            double e = (wanted - base - lossDelay(w) - STIFF * allPassDelay(c, w)) / wanted;
            cost += e * e / n;
        }
        return cost;
    }

    /** Phase delay of (c + 1/z)/(1 + c/z) at an angle [samples]. */
    static double allPassDelay(double c, double w) {
        return 1 - 2 * Math.atan2(c * Math.sin(w), 1 + c * Math.cos(w)) / w;
    }

    // ---- tuning ----

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
