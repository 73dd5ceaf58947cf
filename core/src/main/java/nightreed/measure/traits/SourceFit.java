package nightreed.measure.traits;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.measure.traits.SourceWave.Wave;

/** Which wave through which low-pass gives the levels of a harmonic spectrum. */
final class SourceFit {
    private static final int LEAST_LINES = 6;

    /** Slopes of the low-passes that are tried [dB/octave]. */
    private static final int[] SLOPES = {0, 6, 12, 24};

    /** Lines that a perfect wave lacks may stand up to this under the saw's: no real wave is perfect [dB]. */
    private static final double IMPERFECT_DB = -45;

    private final Spectrum lines;
    private final double warpedAt; // sample rate of a filter by the trapezoidal rule [Hz]; 0 for one in air or in wires
    private final boolean secondFlat; // whether of two sections in a row only the first one resonates

    SourceFit(Spectrum lines) {
        this(lines, 0, false);
    }

    private SourceFit(Spectrum lines, double warpedAt, boolean secondFlat) {
        this.lines = lines;
        this.warpedAt = warpedAt;
        this.secondFlat = secondFlat;
    }

    /**
     * @param body what explains the spectrum without a wave, null if nothing does
     * @return explanations, the likeliest first; empty with too few lines
     */
    List<SourceWave> rank(FormantFit.Body body) {
        if (lines.heard() < LEAST_LINES) {
            return List.of();
        }
        List<SourceWave> found = new ArrayList<>();
        List<double[]> judged = new ArrayList<>(); // criterion, share of independent lines
        for (Wave wave : List.of(Wave.SAW, Wave.SQUARE, Wave.PULSE, Wave.TRIANGLE)) {
            Candidate best = null;
            for (int slope : SLOPES) {
                Candidate c = best(wave, slope);
                if (c != null && (best == null || c.fit.bic() < best.fit.bic())) {
                    best = c;
                }
            }
            if (best != null) {
                found.add(best.describe());
                judged.add(new double[] {best.fit.bic(), best.fit.independent()});
            }
        }
        if (body != null) {
            found.add(new SourceWave(Wave.OTHER, null, 0, null, null, body.rmsDb(), 0));
            judged.add(new double[] {body.bic(), body.independent()});
        }
        return believed(found, judged);
    }

    /** @param judged criterion, share of independent lines of each */
    private static List<SourceWave> believed(List<SourceWave> found, List<double[]> judged) {
        double[] first =
                judged.stream().min(Comparator.comparingDouble(j -> j[0])).orElse(new double[] {0, 1});
        double[] odds = judged.stream()
                .mapToDouble(j -> Math.exp(-0.5 * (j[0] - first[0]) * first[1]))
                .toArray();
        double sum = Arrays.stream(odds).sum();
        List<SourceWave> out = new ArrayList<>();
        for (int k = 0; k < found.size(); k++) {
            out.add(found.get(k).believed(odds[k] / sum));
        }
        out.sort(Comparator.comparingDouble(SourceWave::certainty).reversed());
        return out;
    }

    /**
     * Every wave through every slope by itself, with its odds among all of them and a body; of each slope the usual kinds of filters.
     *
     * @param body         what explains the spectrum without a wave, null if nothing does
     * @param sampleRateHz at which a digital filter may have worked [Hz]
     * @return the likeliest first; empty with too few lines
     */
    List<SourceWave> each(FormantFit.Body body, double sampleRateHz) {
        if (lines.heard() < LEAST_LINES) {
            return List.of();
        }
        List<SourceWave> found = new ArrayList<>();
        List<double[]> judged = new ArrayList<>();
        for (Wave wave : List.of(Wave.SAW, Wave.SQUARE, Wave.PULSE, Wave.TRIANGLE)) {
            for (int slope : SLOPES) {
                Candidate best = null;
                for (SourceFit kind : kinds(slope, sampleRateHz)) {
                    Candidate c = kind.best(wave, slope);
                    best = c != null && (best == null || c.fit.bic() < best.fit.bic()) ? c : best;
                }
                if (best != null) {
                    found.add(best.describe());
                    judged.add(new double[] {best.fit.bic(), best.fit.independent()});
                }
            }
        }
        if (body != null) {
            found.add(new SourceWave(Wave.OTHER, null, 0, null, null, body.rmsDb(), 0));
            judged.add(new double[] {body.bic(), body.independent()});
        }
        return believed(found, judged);
    }

    private List<SourceFit> kinds(int slope, double sampleRateHz) {
        List<SourceFit> out = new ArrayList<>(List.of(this));
        if (slope > 0) {
            out.add(new SourceFit(lines, sampleRateHz, false));
        }
        if (slope == 24) {
            out.add(new SourceFit(lines, 0, true));
            out.add(new SourceFit(lines, sampleRateHz, true));
        }
        return out;
    }

    /** Wave and filter with their fitted unknowns: level, pulse width, ln cutoff, resonance. */
    private record Candidate(Wave wave, int slope, LevelFit.Result fit) {
        SourceWave describe() {
            double[] u = fit.unknowns();
            int at = wave == Wave.PULSE ? 2 : 1;
            Double width = wave == Wave.PULSE ? (Double) Math.min(fold(u[1]), 0.5) : null;
            Double cutoff = slope == 0 ? null : (Double) Math.exp(u[at]);
            Double resonance = slope < 12 ? null : (Double) (resonance(u[at + 1]) + 3.01 * (slope / 12));
            return new SourceWave(wave, width, slope, cutoff, resonance, fit.rmsDb(), 0);
        }
    }

    private Candidate best(Wave wave, int slope) {
        double[] widths = wave == Wave.PULSE ? widths() : new double[] {0};
        double[] cutoffs = slope == 0 ? new double[] {0} : cutoffs();
        double[] peaks = slope < 12 ? new double[] {0} : new double[] {-3, 3, 9};
        LevelFit fit = new LevelFit(lines, (i, u) -> level(wave, slope, i, u));
        double[][] waves = new double[widths.length][lines.count()];
        for (int k = 0; k < widths.length; k++) {
            for (int i = 0; i < lines.count(); i++) {
                waves[k][i] = waveDb(wave, i + 1, widths[k]);
            }
        }
        double[] best = null;
        double least = Double.POSITIVE_INFINITY;
        double[] filter = new double[lines.count()];
        for (double cutoff : cutoffs) {
            for (double peak : peaks) {
                double[] any = unknowns(wave, slope, 0, cutoff, peak);
                for (int i = 0; i < filter.length; i++) {
                    filter[i] = filterDb(slope, i, any, wave == Wave.PULSE ? 2 : 1);
                }
                for (int k = 0; k < widths.length; k++) {
                    double gain = gain(waves[k], filter);
                    double cost = cost(waves[k], filter, gain);
                    if (cost < least) {
                        least = cost;
                        best = unknowns(wave, slope, widths[k], cutoff, peak);
                        best[0] = gain;
                    }
                }
            }
        }
        return best.length >= lines.count() ? null : new Candidate(wave, slope, fit.polish(best));
    }

    /** Level that fits the lines over the noise best, all else given [dB]. */
    private double gain(double[] wave, double[] filter) {
        double sum = 0;
        int n = 0;
        for (int i = 0; i < wave.length; i++) {
            if (lines.db()[i] > lines.floorDb()[i] + 3 && wave[i] > IMPERFECT_DB - 40) {
                sum += lines.db()[i] - wave[i] - filter[i];
                n++;
            }
        }
        return n == 0 ? 0 : sum / n;
    }

    /** Mean square distance of the lines from a curve, as near as a search needs it: in dB, kept over the floor [dB²]. */
    private double cost(double[] wave, double[] filter, double gain) {
        double sum = 0;
        for (int i = 0; i < wave.length; i++) {
            double e = lines.db()[i] - Math.max(lines.floorDb()[i], gain + wave[i] + filter[i]);
            sum += e * e;
        }
        return sum;
    }

    private static double[] unknowns(Wave wave, int slope, double width, double cutoff, double peak) {
        List<Double> u = new ArrayList<>(List.of(0.0));
        if (wave == Wave.PULSE) {
            u.add(width);
        }
        if (slope > 0) {
            u.add(Math.log(cutoff));
        }
        if (slope >= 12) {
            u.add(peak);
        }
        return u.stream().mapToDouble(v -> v).toArray();
    }

    private static double[] widths() {
        double[] w = new double[46];
        for (int k = 0; k < w.length; k++) {
            w[k] = 0.03 + 0.01 * k;
        }
        return w;
    }

    private double[] cutoffs() {
        double[] hz = new double[14];
        double top = 1.5 * lines.count();
        for (int k = 0; k < hz.length; k++) {
            hz[k] = lines.f0Hz() * 0.7 * Math.pow(top / 0.7, k / (hz.length - 1.0));
        }
        return hz;
    }

    private double level(Wave wave, int slope, int i, double[] u) {
        int at = wave == Wave.PULSE ? 2 : 1;
        double filtered = u[0] + filterDb(slope, i, u, at);
        double db = filtered + waveDb(wave, i + 1, wave == Wave.PULSE ? u[1] : 0);
        // what an imperfect wave may add: no more than is there over the noise
        double over = Math.pow(10, lines.db()[i] / 10) - Math.pow(10, lines.floorDb()[i] / 10);
        double leak = Math.pow(10, (filtered + IMPERFECT_DB) / 10) / ((i + 1) * (i + 1));
        return 10 * Math.log10(Math.pow(10, db / 10) + Math.max(0, Math.min(over, leak)) + 1e-30);
    }

    private double filterDb(int slope, int i, double[] u, int at) {
        if (slope == 0) {
            return 0;
        }
        double x = warpedAt == 0 ? lines.hz(i) / Math.exp(u[at]) : warped(lines.hz(i)) / warped(Math.exp(u[at]));
        if (slope == 6) {
            return -10 * Math.log10(1 + x * x);
        }
        double q = Math.pow(10, resonance(u[at + 1]) / 20);
        double y = 1 - x * x;
        double first = -10 * Math.log10(y * y + x * x / (q * q) + 1e-9);
        return slope == 12 ? first : first + (secondFlat ? -10 * Math.log10(y * y + 2 * x * x) : first);
    }

    /** Where a frequency lies for a filter by the trapezoidal rule. */
    private double warped(double hz) {
        return Math.tan(Math.PI * Math.min(hz, 0.49 * warpedAt) / warpedAt);
    }

    /** Gain of one second-order section at its cutoff [dB], kept to what filters can do. */
    private static double resonance(double db) {
        return Math.max(-9, Math.min(30, db));
    }

    private static double waveDb(Wave wave, int n, double width) {
        boolean odd = n % 2 == 1;
        double amplitude = switch (wave) {
            case SQUARE -> odd ? 1.0 / n : 0;
            case PULSE -> Math.abs(Math.sin(Math.PI * n * fold(width))) / n;
            case TRIANGLE -> odd ? 1.0 / (n * n) : 0;
            default -> 1.0 / n;
        };
        return 20 * Math.log10(amplitude + 1e-9);
    }

    /** A pulse of width w sounds as one of width 1 - w. */
    private static double fold(double width) {
        double w = Math.abs(width) % 1;
        return Math.min(w, 1 - w);
    }
}
