package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;

/**
 * Two strings that sound as one note, a little out of tune with each other: each partial is a pair, and all pairs are as many
 * cents apart. Lines of a modulation that fall together are as many hertz apart, several terms for one line that swings lie at
 * any distance, and the two stages of a decay at none.
 *
 * @param cents   from the string that sounds more to the other one; below 0 if that is lower
 * @param levelDb of the other one, 0 or less [dB]
 * @param weaker  the weaker partial of each pair
 */
public record TwinStrings(double cents, double levelDb, List<Partial> weaker) {
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

    /** T60 of a partial whose decay is not known, and the longest that counts [s]. */
    private static final double LONGEST_T60 = 3;

    public TwinStrings {
        weaker = List.copyOf(weaker);
    }

    private record Pair(Partial weaker, double signedCents, double db, double energy) {
        double cents() {
            return Math.abs(signedCents);
        }
    }

    /** Null unless at least four pairs, with most of the energy of all partials, are as many cents apart. */
    public static TwinStrings find(List<Partial> measured) {
        List<Partial> partials = measured.stream().filter(Partial::reliable).toList();
        List<Pair> agreed = agreed(pairs(partials));
        double all = partials.stream().mapToDouble(TwinStrings::energy).sum();
        double paired = agreed.stream().mapToDouble(Pair::energy).sum();
        if (agreed.size() < FEWEST_PAIRS || paired < LEAST_SHARE * all) {
            return null;
        }
        double sign = 0;
        double cents = 0;
        double db = 0;
        for (Pair p : agreed) {
            double share = p.energy / paired;
            sign += share * Math.signum(p.signedCents);
            cents += share * p.cents();
            db += share * p.db;
        }
        return new TwinStrings(
                sign < 0 ? -cents : cents, db, agreed.stream().map(Pair::weaker).toList());
    }

    public String words() {
        return String.format(
                Locale.ROOT,
                "%d partials are pairs, %.1f cents apart: two strings of one note that are a little out of tune.",
                weaker.size(),
                Math.abs(cents));
    }

    private static List<Pair> pairs(List<Partial> partials) {
        List<Partial> sorted = new ArrayList<>(partials);
        sorted.sort(Comparator.comparingDouble(Partial::frequencyHz));
        List<Pair> out = new ArrayList<>();
        for (int i = 1; i < sorted.size(); i++) {
            Partial low = sorted.get(i - 1);
            Partial high = sorted.get(i);
            double up = Pitch.cents(low.frequencyHz(), high.frequencyHz());
            if (up > NARROWEST_CENTS && up < WIDEST_CENTS) {
                boolean rises = low.amplitude() >= high.amplitude();
                double db = -Math.abs(low.levelDb() - high.levelDb());
                out.add(new Pair(rises ? high : low, rises ? up : -up, db, energy(low) + energy(high)));
            }
        }
        return out;
    }

    /** The largest group, by energy, that says the same. */
    private static List<Pair> agreed(List<Pair> pairs) {
        List<Pair> best = List.of();
        double most = 0;
        for (Pair p : pairs) {
            double near = AGREED_SHARE * p.cents() + AGREED_CENTS;
            List<Pair> like = pairs.stream()
                    .filter(o -> Math.abs(o.cents() - p.cents()) < near)
                    .toList();
            double energy = like.stream().mapToDouble(Pair::energy).sum();
            if (energy > most) {
                most = energy;
                best = like;
            }
        }
        return best;
    }

    private static double energy(Partial p) {
        double t60 = p.t60Seconds() == null ? LONGEST_T60 : Math.min(LONGEST_T60, p.t60Seconds());
        return p.amplitude() * p.amplitude() * t60;
    }
}
