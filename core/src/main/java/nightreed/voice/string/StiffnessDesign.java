package nightreed.voice.string;

/**
 * All-passes of second order in a row that delay low partials more than high ones, as a stiff string does: one pair of poles
 * for every 2π of phase that is wanted beyond a plain delay (J. S. Abel, J. O. Smith, "Robust design of very high-order
 * allpass dispersion filters", DAFx 2006), then moved until the partials lie where they belong. Only the constructor allocates.
 */
final class StiffnessDesign {
    /**
     * Sections at the most. A string of B needs N·q/(1 + 2q) of them up to partial N, q = B N²: 24 partials at B = 0.001
     * need 6.4, the spare ones serve high keys and more partials of strings that are less stiff.
     */
    static final int SECTIONS = 10;

    private static final int POINTS = 40;
    private static final int FURTHEST = 64; // partial
    private static final double HIGHEST = 0.4; // of the sample rate: above it all-passes of any kind bend

    /** Rounds from the first guess, and after what else is in the loop has changed a little. Chosen. */
    private static final int ROUNDS = 12;

    private static final int ROUNDS_AGAIN = 12;

    /** Root mean square error that needs no further round [cents]. Chosen: a tenth of the 3 cents that partials are held to in tests. */
    private static final double ENOUGH_CENTS = 0.3;

    /** Room that is left for whole samples and the tuning all-pass [samples]. */
    private static final double PLAIN = 4.5;

    /** Delay of one section whose poles do next to nothing, with a little room [samples]. */
    private static final double SECTION_DELAY = 2.2;

    /** First guess: share of the plain delay that is left for the fit to raise, and width of a pole pair against its stretch. Chosen. */
    private static final double FIRST_DELAY = 0.98;

    private static final double FIRST_WIDTH = 1.3;

    private static final double CENTS = 1200 / Math.log(2);

    /** (a2 + a1/z + 1/z²)/(1 + a1/z + a2/z²), each. */
    final double[] a1 = new double[SECTIONS];

    final double[] a2 = new double[SECTIONS];
    int sections;

    private final double[] angle = new double[POINTS]; // of each partial [rad per sample]
    private final double[] sine = new double[POINTS];
    private final double[] cosine = new double[POINTS];
    private final double[] wanted = new double[POINTS]; // once round, all but what else is in the loop [rad]
    private final double[] phase = new double[POINTS]; // the same less what else is in the loop
    private final double[] scale = new double[POINTS]; // cents for each radian, times the root of the partial's weight
    private int points;
    private double last; // times 2π that the last of them turns once round
    private double weights; // sum over the partials

    // values of the fit: logs of the poles' angles, logs of (1 + r)/(1 - r), delay [samples]
    private final double[] values = new double[2 * SECTIONS + 1];
    private final InPlaceLeastSquares fit = new InPlaceLeastSquares(2 * SECTIONS + 1, POINTS);
    private final InPlaceLeastSquares.Residuals model = this::residuals;
    private final double[] edge = new double[SECTIONS + 1];

    /** No stiffness. */
    void none() {
        sections = 0;
    }

    /**
     * From nothing.
     *
     * @param string its partials; stiff
     * @param fs     sample rate [Hz]
     */
    void solve(LoopDesign string, double fs) {
        sections = 0;
        grid(string, fs);
        if (points < 2) {
            return;
        }
        double period = fs / string.partialHz(1) * string.share();
        int count = Math.min(neededSections(string, last) + 1, (int) ((period - PLAIN) / SECTION_DELAY));
        if (count < 1) {
            return;
        }
        sections = count;
        firstGuess(string, fs);
        solve(ROUNDS);
    }

    /** Goes on from where it stands, once what else is in the loop is known: {@link LoopDesign#otherTurn}. */
    void solveAgain(LoopDesign string) {
        if (sections == 0) {
            return;
        }
        for (int i = 0; i < points; i++) {
            phase[i] = wanted[i] - string.otherTurn(angle[i]);
        }
        solve(ROUNDS_AGAIN);
    }

    private static int neededSections(LoopDesign string, double trips) {
        double q = string.stretch(trips);
        return (int) Math.ceil(trips * q / (1 + 2 * q));
    }

    /** Partials whose places are compared: all of the first, then fewer and fewer. */
    private void grid(LoopDesign string, double fs) {
        points = 0;
        double share = string.share();
        last = 0;
        weights = 0;
        for (int n = 1; points < POINTS && n <= FURTHEST; ) {
            double trips = share * n;
            double f = string.partialHz(n);
            if (f > HIGHEST * fs || neededSections(string, trips) >= SECTIONS) {
                break;
            }
            double w = 2 * Math.PI * f / fs;
            angle[points] = w;
            sine[points] = Math.sin(w);
            cosine[points] = Math.cos(w);
            wanted[points] = 2 * Math.PI * trips;
            phase[points] = wanted[points];
            double groupDelay = string.idealTrip(n) * fs;
            scale[points] = CENTS / (groupDelay * w * Math.sqrt(n));
            weights += 1.0 / n;
            points++;
            last = trips;
            int step = share < 1 ? 2 : 1;
            n = points < 20 ? n + step : n + step * Math.max(1, (int) Math.round(0.06 * n / step));
        }
    }

    /** A pair of poles in the middle of each stretch in which the phase beyond a plain delay grows by an equal part. */
    private void firstGuess(LoopDesign string, double fs) {
        double share = string.share();
        double lastN = last / share;
        double delay = Math.max(PLAIN, FIRST_DELAY * string.idealTrip(lastN) * fs);
        int steps = 400;
        double all = 2 * Math.PI * last - delay * 2 * Math.PI * string.partialHz(lastN) / fs;
        int k = 0;
        edge[0] = 0;
        double before = 0;
        double wBefore = 0;
        for (int i = 1; i <= steps; i++) {
            double n = lastN * i / steps;
            double w = 2 * Math.PI * string.partialHz(n) / fs;
            double beyond = 2 * Math.PI * share * n - delay * w;
            while (k < sections && beyond >= all * (k + 1) / sections - 1e-9) {
                double part = Math.max(0, Math.min(1, (all * (k + 1) / sections - before) / (beyond - before)));
                edge[++k] = wBefore + part * (w - wBefore);
            }
            before = beyond;
            wBefore = w;
        }
        while (k < sections) {
            edge[++k] = wBefore;
        }
        for (int s = 0; s < sections; s++) {
            double width = Math.max(1e-4, edge[s + 1] - edge[s]);
            values[s] = Math.log(Math.max(1e-4, (edge[s] + edge[s + 1]) / 2));
            values[sections + s] = Math.log(Math.max(1.05, 4 / (FIRST_WIDTH * width)));
        }
        values[2 * sections] = delay;
    }

    private void solve(int rounds) {
        int count = 2 * sections + 1;
        fit.unbound();
        for (int s = 0; s < sections; s++) {
            fit.high[s] = Math.log(3); // [rad]
            fit.step[s] = 0.5;
            fit.low[sections + s] = 0.02;
            fit.high[sections + s] = 12;
            fit.step[sections + s] = 0.5;
        }
        fit.low[count - 1] = PLAIN;
        fit.solve(model, values, count, points, rounds, ENOUGH_CENTS * ENOUGH_CENTS * weights);
        for (int s = 0; s < sections; s++) {
            double r = Math.tanh(values[sections + s] / 2);
            a1[s] = -2 * r * Math.cos(Math.exp(values[s]));
            a2[s] = r * r;
        }
    }

    private void residuals(double[] p, double[] residuals, double[][] slopes) {
        double delay = p[2 * sections];
        for (int i = 0; i < points; i++) {
            residuals[i] = angle[i] * delay - phase[i];
            if (slopes != null) {
                slopes[i][2 * sections] = angle[i] * scale[i];
            }
        }
        for (int s = 0; s < sections; s++) {
            double theta = Math.exp(p[s]);
            double r = Math.tanh(p[sections + s] / 2);
            double st = Math.sin(theta);
            double ct = Math.cos(theta);
            for (int i = 0; i < points; i++) {
                // to the pole, and to the one that mirrors it
                double s1 = sine[i] * ct - cosine[i] * st;
                double c1 = cosine[i] * ct + sine[i] * st;
                double s2 = sine[i] * ct + cosine[i] * st;
                double c2 = cosine[i] * ct - sine[i] * st;
                double x1 = 1 - r * c1;
                double x2 = 1 - r * c2;
                double re = x1 * x2 - r * r * s1 * s2;
                double im = r * (s1 * x2 + s2 * x1);
                residuals[i] += 2 * angle[i] + 2 * Math.atan2(im, re);
                if (slopes != null) {
                    double d1 = 1 / (1 - 2 * r * c1 + r * r);
                    double d2 = 1 / (1 - 2 * r * c2 + r * r);
                    slopes[i][s] = scale[i] * theta * (1 - r * r) * (d2 - d1);
                    slopes[i][sections + s] = scale[i] * (1 - r * r) * (s1 * d1 + s2 * d2);
                }
            }
        }
        for (int i = 0; i < points; i++) {
            residuals[i] *= scale[i];
        }
    }

    /** Phase delay of all sections at an angle [samples]. */
    double delay(double w) {
        double sum = 0;
        double s = Math.sin(w);
        double c = Math.cos(w);
        double s2 = 2 * s * c;
        double c2 = c * c - s * s;
        for (int k = 0; k < sections; k++) {
            sum += 2 * w - 2 * Math.atan2(a1[k] * s + a2[k] * s2, 1 + a1[k] * c + a2[k] * c2);
        }
        return sections == 0 ? 0 : sum / w;
    }
}
