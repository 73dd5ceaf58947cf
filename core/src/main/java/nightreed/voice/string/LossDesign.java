package nightreed.voice.string;

import java.util.Arrays;
import nightreed.recipe.LoopLoss;

/**
 * The filter that makes a loop's partials die in the times asked for. Fitted to what each partial has to lose once round, in
 * relative terms (V. Välimäki et al., JAES 44(5), 1996). Only the constructor allocates.
 */
final class LossDesign {
    /** First-order sections at the most. */
    static final int SECTIONS = 4;

    /** Gain once round that is never passed, so that nothing grows for ever. */
    static final double MOST_GAIN = 1 - 1e-7;

    private static final int POINTS = 32;

    /** Partials that die faster than this share of the first one's time are not fitted. */
    private static final double LEAST_SHARE = 0.1;

    private static final double SIXTY_DB = Math.log(1000);
    private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;

    /** Rounds of the fit of the shelves. Chosen. */
    private static final int ROUNDS = 20;

    /** Root mean square error of the decays that needs no second beginning, as a share. */
    private static final double NEAR = 0.01;

    /** Corners: from this share of the first partial, to where a shelf only rises; the most one loses or boosts [nepers]. Chosen. */
    private static final double LOWEST_CORNER = 0.3;

    private static final double HIGHEST_CORNER = 4; // log of tan(w/2)
    private static final double MOST_SHELF = 6;

    /** Frequencies up to half the rate at which shelves that also boost are looked at for loss everywhere. */
    private static final int WATCHED = 96;

    /** Share of the least loss asked for below which nothing may fall anywhere, or a tone that nobody asked for would ring. */
    private static final double LEAST_LOSS = 0.3;

    // gain and (b0 + b1/z)/(1 + a1/z), each
    double gain;
    final double[] b0 = new double[SECTIONS];
    final double[] b1 = new double[SECTIONS];
    final double[] a1 = new double[SECTIONS];
    int sections;

    private final double fs;
    private final double[] hz = new double[POINTS];
    private final double[] bent = new double[POINTS]; // tan(w/2)
    private final double[] needed = new double[POINTS]; // once round [nepers]
    private final double[] weight = new double[POINTS];
    private int points;

    // values of the fit: log of what is lost at 0 Hz [nepers], logs of tan(w/2) at the corners, losses of the shelves
    // [nepers]
    private final double[] values = new double[2 * SECTIONS + 1];
    private final double[] best = new double[2 * SECTIONS + 1];
    private final double[] boosted = new double[2 * SECTIONS + 1];
    private final InPlaceLeastSquares fit = new InPlaceLeastSquares(2 * SECTIONS + 1, POINTS);
    private final InPlaceLeastSquares.Residuals model = this::residuals;

    LossDesign(double sampleRateHz) {
        fs = sampleRateHz;
    }

    /** Loses the same at all frequencies. @param g gain once round */
    void flat(double g) {
        sections = 0;
        gain = Math.min(MOST_GAIN, g);
    }

    void solve(LoopDesign string, LoopLoss.Kind kind) {
        grid(string);
        sections = 1;
        switch (kind) {
            case AVERAGE -> average();
            case ONE_POLE -> onePole();
            case SHELVES -> shelves();
        }
    }

    /** Partials at which decays are compared: all of the first few, then fewer and fewer. */
    private void grid(LoopDesign string) {
        int step = string.share() < 1 ? 2 : 1;
        points = 0;
        double n = 1;
        while (points < POINTS) {
            double f = string.partialHz(n);
            if (points > 0 && (f > 0.45 * fs || string.askedT60(n) < LEAST_SHARE * string.askedT60(1))) {
                break;
            }
            hz[points] = f;
            bent[points] = Math.tan(Math.PI * f / fs);
            needed[points] = SIXTY_DB * string.trip(n) / string.askedT60(n);
            weight[points] = 1 / (needed[points] * Math.sqrt(n));
            points++;
            n = Math.max(n + step, 1 + step * Math.rint((n * 1.2 - 1) / step));
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
            double w = weight[i] * weight[i];
            sum += w * (needed[i] - poleLoss(a, hz[i]));
            all += w;
        }
        double c = Math.max(1e-7, sum / all);
        gain = Math.exp(-c);
        double cost = 0;
        for (int i = 0; i < points; i++) {
            double e = weight[i] * (c + poleLoss(a, hz[i]) - needed[i]);
            cost += e * e;
        }
        return cost;
    }

    private double poleLoss(double a, double f) {
        double s = Math.sin(Math.PI * f / fs); // 1 + 2a cos w + a² = (1 + a)² - 4a sin²(w/2)
        return 0.5 * Math.log1p(-4 * a * s * s / ((1 + a) * (1 + a)));
    }

    /**
     * Shelves whose corners and losses are fitted together. They begin as the one pole, which is the shelf whose corner is
     * where its gain is, and three that lose next to nothing: so they are never worse than it. Where that ends far off, they begin anew
     * with the loss spread over all of them.
     */
    private void shelves() {
        onePole();
        double all = 0;
        double most = 0;
        for (int i = 0; i < points; i++) {
            all += weight[i] * weight[i] * needed[i] * needed[i];
            most = Math.max(most, needed[i]);
        }
        double pole = Math.log((1 + a1[0]) / (1 - a1[0]));
        double flat = Math.log(-Math.log(gain));
        corners();
        int closest = 0;
        for (int k = 1; k < SECTIONS; k++) {
            closest = Math.abs(values[1 + k] - pole) < Math.abs(values[1 + closest] - pole) ? k : closest;
        }
        Arrays.fill(values, 1 + SECTIONS, values.length, 1e-3 * most);
        values[0] = flat;
        values[1 + closest] = pole;
        values[1 + SECTIONS + closest] = -pole;
        double cost = fitShelves();
        if (cost > NEAR * NEAR * all) {
            System.arraycopy(values, 0, best, 0, values.length);
            corners();
            values[0] = flat;
            Arrays.fill(values, 1 + SECTIONS, values.length, most / SECTIONS);
            if (fitShelves() > cost) {
                take(best);
            }
        }
    }

    /** Corners spread evenly, in octaves, over what is heard of the string. */
    private void corners() {
        double first = Math.max(1.2 * hz[0], 60);
        double last = Math.max(2 * first, 0.47 * fs);
        for (int k = 0; k < SECTIONS; k++) {
            double corner = Math.min(0.47 * fs, first * Math.pow(last / first, k / (SECTIONS - 1.0)));
            values[1 + k] = Math.log(Math.tan(Math.PI * corner / fs));
        }
    }

    /**
     * Goes on from the values. Shelves may boost too, which stiff strings and steep losses need, as long as the loop loses at all
     * frequencies; where it would not, the fit is made anew without boosts.
     */
    private double fitShelves() {
        int count = values.length;
        Arrays.fill(fit.step, 0.7);
        fit.low[0] = Math.log(1e-7);
        fit.high[0] = 5;
        Arrays.fill(fit.low, 1, 1 + SECTIONS, Math.log(bent[0] * LOWEST_CORNER));
        Arrays.fill(fit.high, 1, 1 + SECTIONS, HIGHEST_CORNER);
        Arrays.fill(fit.low, 1 + SECTIONS, count, -MOST_SHELF);
        Arrays.fill(fit.high, 1 + SECTIONS, count, MOST_SHELF);
        System.arraycopy(values, 0, boosted, 0, count);
        double cost = fit.solve(model, boosted, count, points, ROUNDS, 1e-12);
        take(boosted);
        if (losesEverywhere()) {
            System.arraycopy(boosted, 0, values, 0, count);
            return cost;
        }
        Arrays.fill(fit.low, 1 + SECTIONS, count, 0);
        cost = fit.solve(model, values, count, points, ROUNDS, 1e-12);
        take(values);
        return cost;
    }

    private void residuals(double[] p, double[] residuals, double[][] slopes) {
        double flat = Math.exp(p[0]);
        for (int i = 0; i < points; i++) {
            double sum = flat;
            for (int k = 0; k < SECTIONS; k++) {
                double u = bent[i] * Math.exp(-p[1 + k]);
                double up = u * u;
                double down = up * Math.exp(-2 * p[1 + SECTIONS + k]);
                sum += 0.5 * Math.log((1 + up) / (1 + down));
                if (slopes != null) {
                    slopes[i][1 + k] = weight[i] * (down / (1 + down) - up / (1 + up));
                    slopes[i][1 + SECTIONS + k] = weight[i] * down / (1 + down);
                }
            }
            if (slopes != null) {
                slopes[i][0] = weight[i] * flat;
            }
            residuals[i] = weight[i] * (sum - needed[i]);
        }
    }

    private void take(double[] p) {
        sections = SECTIONS;
        gain = Math.min(MOST_GAIN, Math.exp(-Math.exp(p[0])));
        for (int k = 0; k < SECTIONS; k++) {
            double t = Math.exp(p[1 + k]);
            double g = Math.exp(-p[1 + SECTIONS + k]);
            b0[k] = (t + g) / (t + 1);
            b1[k] = (t - g) / (t + 1);
            a1[k] = (t - 1) / (t + 1);
        }
    }

    private boolean losesEverywhere() {
        double least = needed[0];
        for (int i = 1; i < points; i++) {
            least = Math.min(least, needed[i]);
        }
        for (int i = 0; i <= WATCHED; i++) {
            if (nepers(Math.PI * i / WATCHED) < LEAST_LOSS * least) {
                return false;
            }
        }
        return true;
    }

    /** Loss once round at an angle [nepers]. */
    double nepers(double w) {
        double c = Math.cos(w);
        double sum = -Math.log(gain);
        for (int k = 0; k < sections; k++) {
            double up = b0[k] * b0[k] + b1[k] * b1[k] + 2 * b0[k] * b1[k] * c;
            double down = 1 + a1[k] * a1[k] + 2 * a1[k] * c;
            sum -= 0.5 * Math.log(Math.max(1e-300, up / down));
        }
        return sum;
    }

    /** Phase delay at an angle [samples]. */
    double delay(double w) {
        double s = Math.sin(w);
        double c = Math.cos(w);
        double angle = 0;
        for (int k = 0; k < sections; k++) {
            angle += Math.atan2(-b1[k] * s, b0[k] + b1[k] * c) - Math.atan2(-a1[k] * s, 1 + a1[k] * c);
        }
        return -angle / w;
    }
}
