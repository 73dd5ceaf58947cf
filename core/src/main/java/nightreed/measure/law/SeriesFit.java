package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;

/**
 * A model series laid over measured partials.
 *
 * @param series         the series
 * @param fundamentalHz  frequency that ratio 1 falls on [Hz]
 * @param deviationCents weighted root mean square distance of the matched partials from the series [cents]
 * @param matched        how many partials it explains
 * @param score          mean log-likelihood per partial, for ranking; higher is better
 */
public record SeriesFit(ModelSeries series, double fundamentalHz, double deviationCents, int matched, double score) {
    /** What it costs a tube that its lower modes are loud, or a bar that they are not: as much as two that are missing. */
    private static final double OTHER_BALANCE = 1;

    /** What each octave costs by which a pitch lies out of those at which such bodies are made, as much as a missing partial. */
    private static final double UNUSUAL = 0.5;

    /** Share of partials that belong to no series at all. */
    private static final double STRAY = 0.08;

    /** Range over which a stray partial may fall [cents]: six octaves. */
    private static final double RANGE_CENTS = 7200;

    /**
     * Ranks all series and all ways to lay them, the best first, at most one entry per series.
     *
     * <p>Each partial is either a member of the series, spread normally about it, or a stray anywhere. A series with many
     * members has to spread its promise over all of them, so that a dense one does not win by being everywhere; a low
     * member that does not sound counts against it.
     */
    public static List<SeriesFit> rank(List<Partial> partials) {
        List<Partial> used = representatives(partials);
        List<SeriesFit> out = new ArrayList<>();
        if (used.size() < 2) {
            return out;
        }
        for (ModelSeries s : ModelSeries.all()) {
            SeriesFit best = null;
            for (Partial anchor : used.subList(0, Math.min(6, used.size()))) {
                for (int k = 0; k < Math.min(12, s.ratios().length); k++) {
                    SeriesFit f = lay(s, anchor.frequencyHz() / s.ratios()[k], used);
                    if (best == null || f.score > best.score) {
                        best = f;
                    }
                }
            }
            out.add(best);
        }
        out.sort((a, b) -> Double.compare(b.score, a.score));
        return out;
    }

    /** The strongest partials, one for every cluster: pairs and the splinters of an uneven decay count once. */
    private static List<Partial> representatives(List<Partial> partials) {
        List<Partial> out = new ArrayList<>();
        partials.stream()
                .filter(p -> p.reliable() && p.levelDb() > -45)
                .sorted((a, b) -> Double.compare(weight(b), weight(a)))
                .filter(p -> out.stream().noneMatch(o -> Math.abs(Pitch.cents(o.frequencyHz(), p.frequencyHz())) < 60))
                .forEach(out::add);
        return out.subList(0, Math.min(24, out.size()));
    }

    private static SeriesFit lay(ModelSeries s, double firstGuessHz, List<Partial> partials) {
        double f1 = firstGuessHz;
        for (int pass = 0; pass < 2; pass++) { // the second pass lays it where the members, not the anchor, want it
            double sum = 0;
            double weights = 0;
            for (Partial p : partials) {
                double c = centsOff(s, f1, p.frequencyHz());
                if (Math.abs(c) < 2 * s.spreadCents()) {
                    double w = weight(p);
                    sum += w * c;
                    weights += w;
                }
            }
            f1 *= weights > 0 ? Math.pow(2, sum / weights / 1200) : 1;
        }
        return judge(s, f1, partials);
    }

    private static SeriesFit judge(ModelSeries s, double f1, List<Partial> partials) {
        double top = partials.stream().mapToDouble(Partial::frequencyHz).max().orElse(f1) * 1.03;
        int members = 0;
        while (members < s.ratios().length && s.ratios()[members] * f1 <= top) {
            members++;
        }
        double log = 0;
        double weights = 0;
        double square = 0;
        double matchedWeight = 0;
        int matched = 0;
        boolean[] sounded = new boolean[s.ratios().length];
        for (Partial p : partials) {
            double w = weight(p);
            double c = centsOff(s, f1, p.frequencyHz());
            double z = c / s.spreadCents();
            double member = (1 - STRAY)
                    / Math.max(1, members)
                    * Math.exp(-0.5 * z * z)
                    / (s.spreadCents() * Math.sqrt(2 * Math.PI));
            log += w * Math.log(member + STRAY / RANGE_CENTS);
            weights += w;
            if (Math.abs(z) < 2.5) {
                matched++;
                square += w * c * c;
                matchedWeight += w;
                sounded[nearest(s, p.frequencyHz() / f1)] = true;
            }
        }
        double missing = 0;
        for (int k = s.firstEssential(); k < s.firstEssential() + s.essential(); k++) {
            if (!sounded[k]) {
                missing += s.ratios()[k] == 1 && s.needsFundamental() ? 2 : 0.5;
            }
        }
        missing += UNUSUAL
                * Math.max(0, Math.max(Math.log(s.lowestHz() / f1), Math.log(f1 / s.highestHz())) / Math.log(2));
        boolean tube = s.firstEssential() > 0;
        if (tube || s.canBeTube()) {
            missing += outdone(s, f1, partials) == tube ? 0 : OTHER_BALANCE;
        }
        double deviation = matchedWeight > 0 ? Math.sqrt(square / matchedWeight) : Double.POSITIVE_INFINITY;
        return new SeriesFit(s, f1, deviation, matched, log / weights - missing);
    }

    /**
     * Whether those partials by which a body is heard outdo the lower ones by 6 dB (T. D. Rossing, "Science of Percussion
     * Instruments", 2000, on tubes); else it is heard at its lowest.
     */
    private static boolean outdone(ModelSeries s, double f1, List<Partial> partials) {
        double low = Double.NEGATIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (Partial p : partials) {
            if (Math.abs(centsOff(s, f1, p.frequencyHz())) < 2.5 * s.spreadCents()) {
                int k = nearest(s, p.frequencyHz() / f1);
                double t60 = p.t60Seconds() == null ? 3 : Math.min(3, p.t60Seconds());
                double db = p.levelDb() + 10 * Math.log10(t60);
                if (k < ModelSeries.HEARD_FROM) {
                    low = Math.max(low, db);
                } else {
                    high = Math.max(high, db);
                }
            }
        }
        return high > low + 6;
    }

    /** Stronger and longer partials say more of what is heard; a level counts as that of the energy of a one-second T60. */
    private static double weight(Partial p) {
        double t60 = p.t60Seconds() == null ? 3 : Math.min(3, p.t60Seconds());
        return Math.max(0.05, (p.levelDb() + 10 * Math.log10(t60) + 45) / 45);
    }

    private static int nearest(ModelSeries s, double ratio) {
        double[] r = s.ratios();
        int above = Arrays.binarySearch(r, ratio);
        above = above < 0 ? -above - 1 : above;
        if (above == 0 || above == r.length) {
            return Math.min(above, r.length - 1);
        }
        return ratio * ratio < r[above - 1] * r[above] ? above - 1 : above;
    }

    private static double centsOff(ModelSeries s, double f1, double hz) {
        return Pitch.cents(s.ratios()[nearest(s, hz / f1)] * f1, hz);
    }

    /** Name of the member that a partial is, or null if it is none (more than 75 cents off). */
    public String nameOf(double hz) {
        int k = nearest(series, hz / fundamentalHz);
        return Math.abs(Pitch.cents(series.ratios()[k] * fundamentalHz, hz)) <= 75
                ? series.names().get(k)
                : null;
    }

    /** Distance of a frequency [Hz] from the nearest member [cents]. */
    public double centsFrom(double hz) {
        return centsOff(series, fundamentalHz, hz);
    }
}
