package nightreed.measure.law;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;

/** Which pitch a note is heard at: the fundamentals of the series that explain it, and its strongest low partial. */
public final class StrikeNotes {
    /** T60 that a tone counts with when it does not die within the clip [s]. */
    private static final double HELD_SECONDS = 5;

    /** Odds under which a candidate is not worth a word. */
    private static final double HARDLY = 0.005;

    private StrikeNotes() {}

    /**
     * @param string law of a string that the partials follow, null if none: its fundamental is the pitch then, as surely as
     *     the partials follow it
     */
    public static List<StrikeNote> rank(List<Partial> partials, List<SeriesFit> ranked, StiffString string) {
        List<StrikeNote> others = rank(partials, ranked);
        if (string == null) {
            return others;
        }
        long sure = partials.stream().filter(Partial::reliable).count();
        double certainty = Math.min(1, (double) string.matched() / Math.max(1, sure));
        List<StrikeNote> out = new ArrayList<>();
        out.add(new StrikeNote(
                Pitch.name(Pitch.nearestKey(string.f0Hz())),
                string.f0Hz(),
                certainty,
                string.matched() + " partials follow the law of a string"));
        for (StrikeNote n : others) {
            if (out.size() < 3 && Math.abs(Pitch.cents(n.frequencyHz(), string.f0Hz())) >= 25) {
                out.add(new StrikeNote(n.note(), n.frequencyHz(), (1 - certainty) * n.certainty(), n.why()));
            }
        }
        return out;
    }

    /** The notes of a chord, none of which is the pitch before somebody chooses it. */
    public static List<StrikeNote> of(Chord chord) {
        return chord.notesHz().stream()
                .map(hz -> new StrikeNote(
                        Pitch.name(Pitch.nearestKey(hz)),
                        hz,
                        chord.share() / chord.notesHz().size(),
                        "one of " + chord.notesHz().size() + " notes that sound at once"))
                .toList();
    }

    public static List<StrikeNote> rank(List<Partial> partials, List<SeriesFit> ranked) {
        List<Partial> sure = partials.stream().filter(Partial::reliable).toList();
        if (sure.isEmpty()) {
            return List.of();
        }
        List<double[]> odds = new ArrayList<>(); // Hz, weight, index of the series or -1
        for (int i = 0; i < ranked.size(); i++) {
            SeriesFit f = ranked.get(i);
            if (f.matched() >= 2) {
                double weight = Math.exp(2 * (f.score() - ranked.get(0).score()) * Math.sqrt(sure.size()));
                boolean harmonic = f.series().name().equals(ModelSeries.HARMONIC);
                add(odds, harmonic ? residuePitch(f, sure) : measured(f.fundamentalHz(), sure), weight, i);
            }
        }
        // struck bodies without a clear series are heard at their strongest low partial
        int explained = odds.isEmpty() ? 0 : ranked.get(0).matched();
        add(odds, lowestStrong(sure).frequencyHz(), odds.isEmpty() ? 1 : 0.3 * Math.exp(-0.4 * (explained - 2)), -1);
        odds.sort((a, b) -> Double.compare(b[1], a[1]));
        double total = odds.stream().mapToDouble(o -> o[1]).sum();
        List<StrikeNote> out = new ArrayList<>();
        for (double[] o : odds.subList(0, Math.min(3, odds.size()))) {
            if (!out.isEmpty() && o[1] / total < HARDLY) {
                break;
            }
            double certainty = o[1] / total * Math.min(1, 0.6 + 0.1 * sure.size());
            out.add(new StrikeNote(Pitch.name(Pitch.nearestKey(o[0])), o[0], certainty, why(o, ranked)));
        }
        return out;
    }

    /** Energy of a partial [dB]: level and how long it stays. */
    private static double energyDb(Partial p) {
        double t60 = p.t60Seconds() == null ? HELD_SECONDS : Math.min(HELD_SECONDS, p.t60Seconds());
        return p.levelDb() + 10 * Math.log10(t60);
    }

    private static Partial loudestNear(double hz, List<Partial> sure) {
        Partial best = null;
        for (Partial p : sure) {
            if (Math.abs(Pitch.cents(hz, p.frequencyHz())) < 40 && (best == null || energyDb(p) > energyDb(best))) {
                best = p;
            }
        }
        return best;
    }

    /**
     * Pitch of a harmonic sound: what its lowest eight harmonics agree on. The third to the sixth decide most (R. Plomp,
     * JASA 41, 1967); the fundamental may be pulled aside by the body, or be missing.
     */
    private static double residuePitch(SeriesFit f, List<Partial> sure) {
        double sum = 0;
        double weights = 0;
        for (int n = 1; n <= 8; n++) {
            Partial p = loudestNear(n * f.fundamentalHz(), sure);
            if (p != null && p.levelDb() > -45) {
                double w = (n >= 3 && n <= 6 ? 2 : 1) * Math.max(0.5, energyDb(p) + 50);
                sum += w * Math.log(p.frequencyHz() / n);
                weights += w;
            }
        }
        return weights > 0 ? Math.exp(sum / weights) : f.fundamentalHz();
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
            double energy = energyDb(p);
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
