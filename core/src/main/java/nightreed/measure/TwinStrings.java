package nightreed.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.music.Pitch;

/**
 * Two strings that sound as one note, a little out of tune with each other: each partial is a pair, and all pairs are as many
 * cents apart. Lines of a modulation that fall together are as many hertz apart, several terms for one line that swings lie at
 * any distance, and the two stages of a decay at none.
 */
final class TwinStrings {
    /** Widest that they are out of tune [cents]. */
    private static final double WIDEST_CENTS = 60;

    /** Narrower pairs are the two stages of a decay [cents]. */
    private static final double NARROWEST_CENTS = 0.6;

    /** Distances that differ by less say the same: a share of them, and some cents on top. */
    private static final double AGREED_SHARE = 0.1;

    private static final double AGREED_CENTS = 0.1;
    private static final int FEWEST_PAIRS = 4;

    /** Share of the energy that has to lie in pairs that agree. */
    private static final double LEAST_SHARE = 0.6;

    private TwinStrings() {}

    private record Pair(DampedSinusoid stronger, DampedSinusoid weaker, double cents, double energy) {}

    /**
     * The weaker of each pair.
     *
     * @param terms what was fitted
     * @param n     samples that they were fitted to
     * @return empty unless at least four pairs, with most of the energy, are as many cents apart
     */
    static List<DampedSinusoid> weaker(List<DampedSinusoid> terms, int n) {
        List<Pair> agreed = agreed(pairs(terms, n));
        double all = terms.stream().mapToDouble(t -> PartialSearch.power(t, n)).sum();
        double paired = agreed.stream().mapToDouble(Pair::energy).sum();
        return agreed.size() < FEWEST_PAIRS || paired < LEAST_SHARE * all
                ? List.of()
                : agreed.stream().map(Pair::weaker).toList();
    }

    private static List<Pair> pairs(List<DampedSinusoid> terms, int n) {
        List<DampedSinusoid> sorted = new ArrayList<>(terms);
        sorted.sort(Comparator.comparingDouble(DampedSinusoid::omega));
        List<Pair> out = new ArrayList<>();
        for (int i = 1; i < sorted.size(); i++) {
            DampedSinusoid low = sorted.get(i - 1);
            DampedSinusoid high = sorted.get(i);
            double cents = Pitch.cents(low.omega(), high.omega());
            if (cents > NARROWEST_CENTS && cents < WIDEST_CENTS) {
                double a = PartialSearch.power(low, n);
                double b = PartialSearch.power(high, n);
                out.add(a > b ? new Pair(low, high, cents, a + b) : new Pair(high, low, cents, a + b));
            }
        }
        return out;
    }

    /** The largest group, by energy, that says the same. */
    private static List<Pair> agreed(List<Pair> pairs) {
        List<Pair> best = List.of();
        double most = 0;
        for (Pair p : pairs) {
            double near = AGREED_SHARE * p.cents + AGREED_CENTS;
            List<Pair> like = pairs.stream()
                    .filter(o -> Math.abs(o.cents - p.cents) < near)
                    .toList();
            double energy = like.stream().mapToDouble(Pair::energy).sum();
            if (energy > most) {
                most = energy;
                best = like;
            }
        }
        return best;
    }
}
