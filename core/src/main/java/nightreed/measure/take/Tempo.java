package nightreed.measure.take;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Tempo of a phrase: the beat on whose fractions most of its notes begin.
 *
 * @param bpm    quarters a minute
 * @param bpmSe  standard error of it
 * @param odds   share of belief against other tempos that the same notes could have, 0 to 1
 * @param notes  notes that it is told from
 */
public record Tempo(double bpm, double bpmSe, double odds, int notes) {
    /** Notes that tell a tempo. */
    public static final int LEAST_NOTES = 4;

    private static final double SLOWEST = 40;
    private static final double FASTEST = 240;
    private static final double STEP = 1.002;

    /** Tempos that people count: about a median of 110, within a factor of 1.6 (D. Moelants, 2002, has 120 to 125 for music to dance to). */
    private static final double USUAL_BPM = 110;

    private static final double SPREAD_OCTAVES = 0.7;

    /** How exactly notes are played and found [s]; one that is off by much more says nothing. */
    private static final double EXACT_SECONDS = 0.012;

    /** Parts of a beat on which notes may begin, and how much rarer each is in music, as the logarithm of odds for each note; chosen. */
    private static final int[] PARTS = {1, 2, 3, 4};

    private static final double[] COSTS = {0, 0.01, 0.3, 0.1};

    /** Another tempo is one that differs by more. */
    private static final double OTHER = 0.03;

    /**
     * From where notes begin; null if there are fewer than {@value #LEAST_NOTES}.
     *
     * @param onsets rising [s]
     */
    public static Tempo of(List<Double> onsets) {
        if (onsets.size() < LEAST_NOTES) {
            return null;
        }
        List<double[]> tried = new ArrayList<>(); // bpm, logarithm of belief
        for (double bpm = SLOWEST; bpm <= FASTEST; bpm *= STEP) {
            double octaves = Math.log(bpm / USUAL_BPM) / Math.log(2) / SPREAD_OCTAVES;
            tried.add(new double[] {bpm, best(onsets, 60 / bpm) - 0.5 * octaves * octaves});
        }
        double[] top = tried.stream().max((a, b) -> Double.compare(a[1], b[1])).orElseThrow();
        Refined fine = refined(onsets, 60 / top[0]);
        double bpm = 60 / fine.beat;
        double other = tried.stream()
                .filter(t -> Math.abs(Math.log(t[0] / bpm)) > OTHER)
                .mapToDouble(t -> t[1])
                .max()
                .orElse(Double.NEGATIVE_INFINITY);
        double odds = 1 / (1 + Math.exp(Math.max(-30, Math.min(30, other - top[1]))));
        return new Tempo(bpm, bpm * fine.se / fine.beat, odds, onsets.size());
    }

    /** Logarithm of how well notes lie on the fractions of a beat, with the best part of it. */
    private static double best(List<Double> onsets, double beat) {
        double best = Double.NEGATIVE_INFINITY;
        for (int p = 0; p < PARTS.length; p++) {
            best = Math.max(best, fit(onsets, beat / PARTS[p]) - COSTS[p] * onsets.size());
        }
        return best;
    }

    /**
     * The same for steps of a length, each note's step counted from the note before it. Of finer steps there are more, each of which is
     * less likely: so a grid is not believed for being fine.
     */
    private static double fit(List<Double> onsets, double step) {
        double sum = (onsets.size() - 1) * Math.log(step);
        for (int i = 1; i < onsets.size(); i++) {
            double gap = onsets.get(i) - onsets.get(i - 1);
            double steps = Math.rint(gap / step);
            double off = (gap - steps * step) / EXACT_SECONDS;
            // by chance a note lies anywhere within a step
            double chance = Math.log(EXACT_SECONDS * Math.sqrt(2 * Math.PI) / step);
            sum += steps < 1 ? chance - 3 : Math.max(chance - 1, -0.5 * off * off);
        }
        return sum;
    }

    private record Refined(double beat, double se) {}

    /** A straight line through the notes over their numbers of steps. */
    private static Refined refined(List<Double> onsets, double beat) {
        int part = 1;
        double most = Double.NEGATIVE_INFINITY;
        for (int p = 0; p < PARTS.length; p++) {
            double v = fit(onsets, beat / PARTS[p]) - COSTS[p] * onsets.size();
            if (v > most) {
                most = v;
                part = PARTS[p];
            }
        }
        double step = beat / part;
        double[] at = new double[onsets.size()];
        for (int i = 1; i < at.length; i++) {
            at[i] = at[i - 1] + Math.rint((onsets.get(i) - onsets.get(i - 1)) / step);
        }
        double[] t = onsets.stream().mapToDouble(Double::doubleValue).toArray();
        double meanN = Arrays.stream(at).average().orElse(0);
        double meanT = Arrays.stream(t).average().orElse(0);
        double up = 0;
        double square = 1e-12;
        for (int i = 0; i < t.length; i++) {
            up += (at[i] - meanN) * (t[i] - meanT);
            square += (at[i] - meanN) * (at[i] - meanN);
        }
        double slope = up / square;
        double left = 0;
        for (int i = 0; i < t.length; i++) {
            double off = t[i] - meanT - slope * (at[i] - meanN);
            left += off * off;
        }
        double se = Math.sqrt(left / Math.max(1, t.length - 2) / square);
        return new Refined(slope * part, se * part);
    }
}
