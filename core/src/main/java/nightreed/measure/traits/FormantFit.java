package nightreed.measure.traits;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * The body over a spectrum: a straight slope in dB per octave, and on it resonances, each a second-order peak in power. Peaks
 * are added one by one where the lines ask for one most, all polished together, as long as Schwarz's criterion falls.
 */
final class FormantFit {
    private static final int MOST = 5;
    private static final int LEAST_LINES = 8;

    /** How much the criterion must fall for a peak: odds of about twenty to one (R. Kass, A. Raftery, 1995). */
    private static final double LEAST_GAIN = 6;

    private static final double LEAST_DB = 3;

    /** Widths in distances of the lines, and heights [dB], that a further peak is tried with. */
    private static final double[] WIDTHS = {0.7, 1.5, 3, 6};

    private static final double[] HEIGHTS = {6, 12, 18};
    private static final int MOST_PLACES = 120;

    /**
     * What was found.
     *
     * @param slopeDb   slope [dB/octave]
     * @param formants  by rising centre
     * @param rmsDb     what is left over [dB]
     * @param bic       Bayesian information criterion
     * @param independent share of the lines that count as independent
     */
    record Body(double slopeDb, List<Formant> formants, double rmsDb, double bic, double independent) {}

    private final Spectrum lines;
    private final double[] given; // what is already explained at each line [dB]

    /** @param given level of each line that something else explains already [dB] */
    FormantFit(Spectrum lines, double[] given) {
        this.lines = lines;
        this.given = given;
    }

    /** Null with too few lines. */
    Body fit() {
        if (lines.heard() < LEAST_LINES) {
            return null;
        }
        LevelFit plain = new LevelFit(lines, this::curve);
        LevelFit.Result best = plain.polish(new double[] {0, -6});
        List<Double> gains = new ArrayList<>();
        while (gains.size() < MOST && 2 + 3 * (gains.size() + 1) < lines.count() - 2) {
            LevelFit.Result next = plain.polish(withPeak(best.unknowns(), plain));
            double gain = best.bic() - next.bic();
            if (gain < LEAST_GAIN || !sensible(next.unknowns())) {
                break;
            }
            gains.add(gain);
            best = next;
        }
        return describe(best, gains);
    }

    /** Level [dB]: unknowns are level at 1 kHz, slope, and for each peak ln centre, ln bandwidth, height. */
    private double curve(int i, double[] u) {
        double hz = lines.hz(i);
        double db = given[i] + u[0] + u[1] * Math.log(hz / 1000) / Math.log(2);
        for (int k = 2; k + 2 < u.length; k += 3) {
            double x = 2 * (hz - Math.exp(u[k])) / Math.exp(u[k + 1]);
            db += 10 * Math.log10(1 + (Math.pow(10, Math.max(0, u[k + 2]) / 10) - 1) / (1 + x * x));
        }
        return db;
    }

    /** The start with one more peak, where and as wide as it takes the most off. */
    private double[] withPeak(double[] u, LevelFit plain) {
        double[] base = new double[lines.count()];
        for (int i = 0; i < base.length; i++) {
            base[i] = Math.pow(10, curve(i, u) / 10);
        }
        double[] best = null;
        double least = Double.POSITIVE_INFINITY;
        double top = lines.hz(lines.count() - 1);
        double[] power = new double[base.length];
        double step = Math.max(0.5 * lines.f0Hz(), top / MOST_PLACES);
        for (double centre = lines.f0Hz(); centre <= top + 0.6 * lines.f0Hz(); centre += step) {
            for (double width : WIDTHS) {
                for (double height : HEIGHTS) {
                    double lift = Math.pow(10, height / 10) - 1;
                    double lower = -height * Math.min(1, width * lines.f0Hz() / top);
                    double gain = Math.pow(10, lower / 10);
                    for (int i = 0; i < power.length; i++) {
                        double x = 2 * (lines.hz(i) - centre) / (width * lines.f0Hz());
                        power[i] = base[i] * gain * (1 + lift / (1 + x * x));
                    }
                    double cost = plain.costOfPowers(power);
                    if (cost < least) {
                        least = cost;
                        best = Arrays.copyOf(u, u.length + 3);
                        best[0] += lower;
                        best[u.length] = Math.log(centre);
                        best[u.length + 1] = Math.log(width * lines.f0Hz());
                        best[u.length + 2] = height;
                    }
                }
            }
        }
        return best;
    }

    private boolean sensible(double[] u) {
        double low = 0.5 * lines.f0Hz();
        double top = lines.hz(lines.count() - 1) + lines.f0Hz();
        for (int k = 2; k + 2 < u.length; k += 3) {
            double centre = Math.exp(u[k]);
            double width = Math.exp(u[k + 1]);
            if (!(centre > low && centre < top && width > 10 && width < 0.6 * top) || u[k + 2] < 1 || u[k + 2] > 60) {
                return false;
            }
        }
        return true;
    }

    private Body describe(LevelFit.Result r, List<Double> gains) {
        List<Formant> formants = new ArrayList<>();
        double[] u = r.unknowns();
        for (int k = 2; k + 2 < u.length; k += 3) {
            double centre = Math.exp(u[k]);
            double gain = gains.get((k - 2) / 3);
            if (u[k + 2] >= LEAST_DB) {
                formants.add(new Formant(
                        centre,
                        Math.exp(u[k + 1]),
                        u[k + 2],
                        centre * r.errors()[k],
                        1 / (1 + Math.exp(-0.5 * gain * r.independent()))));
            }
        }
        formants.sort(Comparator.comparingDouble(Formant::centreHz));
        return new Body(u[1], formants, r.rmsDb(), r.bic(), r.independent());
    }
}
