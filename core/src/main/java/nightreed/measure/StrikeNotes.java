package nightreed.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.music.Pitch;

/** Which pitch a note is heard at: the fundamentals of the series that explain it, and its strongest low partial. */
final class StrikeNotes {
    /** T60 that a tone counts with when it does not die within the clip [s]. */
    private static final double HELD_SECONDS = 5;

    private StrikeNotes() {}

    static List<StrikeNote> rank(List<Partial> partials, List<SeriesFit> ranked) {
        List<Partial> sure = partials.stream().filter(Partial::reliable).toList();
        if (sure.isEmpty()) {
            return List.of();
        }
        List<double[]> odds = new ArrayList<>(); // Hz, weight, index of the series or -1
        for (int i = 0; i < ranked.size(); i++) {
            SeriesFit f = ranked.get(i);
            if (f.matched() >= 2) {
                double weight = Math.exp(2 * (f.score() - ranked.get(0).score()) * Math.sqrt(sure.size()));
                add(odds, measured(f.fundamentalHz(), sure), weight, i);
            }
        }
        // struck bodies without a clear series are heard at their strongest low partial
        add(odds, lowestStrong(sure).frequencyHz(), odds.isEmpty() ? 1 : 0.3, -1);
        odds.sort((a, b) -> Double.compare(b[1], a[1]));
        double total = odds.stream().mapToDouble(o -> o[1]).sum();
        List<StrikeNote> out = new ArrayList<>();
        for (double[] o : odds.subList(0, Math.min(3, odds.size()))) {
            double certainty = o[1] / total * Math.min(1, 0.6 + 0.1 * sure.size());
            out.add(new StrikeNote(Pitch.name(Pitch.nearestKey(o[0])), o[0], certainty, why(o, ranked)));
        }
        return out;
    }

    private static void add(List<double[]> odds, double hz, double weight, int series) {
        for (double[] o : odds) {
            if (Math.abs(Pitch.cents(o[0], hz)) < 25) {
                o[1] += weight;
                return;
            }
        }
        odds.add(new double[] {hz, weight, series});
    }

    /**
     * The partial that sounds at the fundamental, where there is one: it is known better than the series' mean. Of several,
     * the one with the most energy, as the ear hears the pitch of what stays, not of what dies in the strike.
     */
    private static double measured(double fundamentalHz, List<Partial> sure) {
        double best = fundamentalHz;
        double most = Double.NEGATIVE_INFINITY;
        for (Partial p : sure) {
            double t60 = p.t60Seconds() == null ? HELD_SECONDS : Math.min(HELD_SECONDS, p.t60Seconds());
            double energy = p.levelDb() + 10 * Math.log10(t60);
            if (Math.abs(Pitch.cents(fundamentalHz, p.frequencyHz())) < 40 && energy > most) {
                best = p.frequencyHz();
                most = energy;
            }
        }
        return best;
    }

    private static Partial lowestStrong(List<Partial> sure) {
        Partial best = null;
        for (Partial p : sure) {
            if (p.levelDb() > -20 && (best == null || p.frequencyHz() < best.frequencyHz())) {
                best = p;
            }
        }
        return best == null ? sure.get(0) : best;
    }

    private static String why(double[] odd, List<SeriesFit> ranked) {
        if (odd[2] < 0) {
            return "the lowest strong partial";
        }
        SeriesFit f = ranked.get((int) odd[2]);
        return String.format(
                Locale.ROOT,
                "%d partials lie on a series of the kind '%s', %.0f cents off on average",
                f.matched(),
                f.series().name(),
                f.deviationCents());
    }
}
