package nightreed.match.start;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.measure.FmLaw;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.fm.Sidebands;

/** A pair whose sidebands fall on the strongest partials, and plain carriers for what it leaves out. */
final class FmStart {
    /** Lines that are looked at. */
    private static final int LINES = 16;

    private static final double[] INDEXES = {0.3, 0.5, 0.8, 1.2, 1.6, 2, 2.5, 3, 3.7, 4.5, 5.5, 7, 9};

    /** A sideband falls on a partial within this [cents]. */
    private static final double NEAR = 35;

    /** Levels are compared down to this under the strongest [dB]. */
    private static final double FLOOR = -40;

    private FmStart() {}

    /** The best pairs that differ, and for a held note carriers and modulators at its harmonics. */
    static List<FmRecipe> several(Ground g, int most) {
        List<FmRecipe> out = new ArrayList<>(List.of(of(g)));
        List<Choice> choices = ranked(g);
        if (g.isHeld()) {
            for (double[] cm : new double[][] {{1, 1}, {1, 2}, {2, 1}, {3, 1}, {4, 1}, {5, 1}}) {
                choices.add(choice(cm[0] * g.f0(), cm[1] * g.f0(), 1.5));
            }
        }
        for (Choice c : choices) {
            if (out.size() < most) {
                out.add(recipe(g, pairs(g, c)));
            }
        }
        return out;
    }

    private static Choice choice(double carrier, double modulator, double index) {
        Choice c = new Choice();
        c.carrier = carrier;
        c.modulator = modulator;
        c.index = index;
        c.hits = 1;
        c.top = 1;
        return c;
    }

    static FmRecipe of(Ground g) {
        FmLaw law = g.measurement().fm();
        List<FmPair> pairs = new ArrayList<>();
        if (law != null) {
            double f0 = g.f0();
            g.say("pair.1", true, "measured law of a frequency modulation");
            pairs.add(FmPair.of(
                            0,
                            Ground.limited(law.carrierHz() / f0, 0.05, 60),
                            Ground.limited(law.modulatorHz() / f0, 0.05, 60),
                            Ground.limited(law.index(), 0, 50),
                            Envelope.struck(0.0003, Ground.limited(law.t60Seconds(), 0.01, 100), 0.3),
                            Envelope.struck(0, Ground.limited(law.indexSeconds() * Math.log(1000), 0.01, 100), 0.3))
                    .withPhases(wrapped(law.carrierRad()), wrapped(law.modulatorRad())));
        } else {
            pairs.addAll(pairs(g, ranked(g).get(0)));
        }
        return recipe(g, pairs);
    }

    private static FmRecipe recipe(Ground g, List<FmPair> pairs) {
        return new FmRecipe(
                g.key(),
                g.cents(),
                -12,
                pairs,
                g.strike(),
                g.isHeld() ? 0 : 0.5,
                new VelocityMap(0.7, 24, g.isHeld() ? 2 : 1),
                g.movement(false));
    }

    private static List<FmPair> pairs(Ground g, Choice best) {
        List<FmPair> pairs = new ArrayList<>();
        String why = String.format(
                Locale.ROOT,
                "its sidebands fall on %d of the %d strongest partials",
                best.hits,
                Math.min(LINES, g.lines().size()));
        g.say("pair.1", true, why);
        Envelope amplitude = g.amplitude("pair.1.amp");
        Envelope bend = g.brightness("pair.1.bend");
        pairs.add(FmPair.of(
                0,
                Ground.limited(best.carrier / g.f0(), 0.05, 60),
                Ground.limited(best.modulator / g.f0(), 0.05, 60),
                best.index,
                amplitude,
                bend));
        left(g, best, pairs);
        return pairs;
    }

    private static double wrapped(double rad) {
        return Math.IEEEremainder(rad, 2 * Math.PI);
    }

    /** One way to place a pair. */
    private static final class Choice {
        private double carrier;
        private double modulator;
        private double index;
        private double cost = Double.POSITIVE_INFINITY;
        private int hits;
        private double top; // amplitude of its strongest line
    }

    /** Ways to place a pair, the best first, one for each carrier and modulator; never empty. */
    private static List<Choice> ranked(Ground g) {
        List<Ground.Line> lines = g.lines().subList(0, Math.min(LINES, g.lines().size()));
        List<Double> modulators = new ArrayList<>();
        for (int i = 0; i < Math.min(8, lines.size()); i++) {
            modulators.add(lines.get(i).hz());
            for (int k = 0; k < i; k++) {
                modulators.add(Math.abs(lines.get(i).hz() - lines.get(k).hz()));
            }
        }
        if (g.isHeld()) {
            modulators.add(g.f0());
        }
        List<Choice> all = new ArrayList<>();
        for (int i = 0; i < Math.min(6, lines.size()); i++) {
            double c = lines.get(i).hz();
            for (double m : modulators) {
                if (m < 0.2 * g.f0() || m > 20 * g.f0()) {
                    continue;
                }
                Choice best = new Choice();
                for (double index : INDEXES) {
                    consider(g, lines, c, m, index, best);
                }
                if (all.stream().noneMatch(o -> near(o.carrier, c) && near(o.modulator, m))) {
                    all.add(best);
                }
            }
        }
        all.sort(Comparator.comparingDouble(c -> c.cost));
        if (all.isEmpty()) { // a single partial: a plain carrier
            all.add(choice(lines.get(0).hz(), lines.get(0).hz(), 0));
        }
        return all;
    }

    private static boolean near(double a, double b) {
        return Math.abs(Pitch.cents(a, b)) < NEAR / 3;
    }

    /** Cost in dB: what the sidebands miss of the partials, and what they put where there is none. */
    private static void consider(Ground g, List<Ground.Line> lines, double c, double m, double index, Choice best) {
        double top = 0.45 * g.measurement().sampleRateHz();
        List<Sidebands.Line> made = Sidebands.lines(c, m, index, 0, 0, top);
        double strongest =
                made.stream().mapToDouble(Sidebands.Line::levelDb).max().orElse(0);
        double reference = lines.get(0).db();
        double cost = 0;
        int hits = 0;
        boolean[] used = new boolean[made.size()];
        for (Ground.Line l : lines) {
            double want = Math.max(FLOOR, l.db() - reference);
            double got = FLOOR;
            for (int i = 0; i < made.size(); i++) {
                if (Math.abs(1200 * Math.log(made.get(i).hz() / l.hz()) / Math.log(2)) < NEAR) {
                    used[i] = true;
                    got = Math.max(got, made.get(i).levelDb() - strongest);
                }
            }
            hits += got > FLOOR + 10 ? 1 : 0;
            double heard = (want - FLOOR) / -FLOOR; // strong partials count more
            cost += (0.2 + heard) * (want - got) * (want - got);
        }
        for (int i = 0; i < made.size(); i++) {
            double over = made.get(i).levelDb() - strongest - FLOOR;
            if (!used[i] && over > 0) {
                cost += 0.5 * over * over;
            }
        }
        if (cost < best.cost) {
            best.cost = cost;
            best.carrier = c;
            best.modulator = m;
            best.index = index;
            best.hits = hits;
            best.top = Math.pow(10, strongest / 20);
        }
    }

    /** Plain carriers for the strongest partials that no sideband falls on. */
    private static void left(Ground g, Choice best, List<FmPair> pairs) {
        List<Sidebands.Line> made = Sidebands.lines(
                best.carrier,
                best.modulator,
                best.index,
                0,
                0,
                0.45 * g.measurement().sampleRateHz());
        for (Ground.Line l : g.lines()) {
            boolean there = made.stream()
                    .anyMatch(s -> Math.abs(1200 * Math.log(s.hz() / l.hz()) / Math.log(2)) < NEAR
                            && s.amplitude() > 0.05 * best.top);
            double db = l.db() - g.lines().get(0).db() + 20 * Math.log10(best.top);
            if (there || db < -30 || pairs.size() >= FmRecipe.MOST_PAIRS) {
                continue;
            }
            String id = "pair." + (pairs.size() + 1);
            g.say(id, true, String.format(Locale.ROOT, "partial at %.1f Hz that the first pair leaves out", l.hz()));
            Envelope amplitude = g.isHeld()
                    ? Envelope.held(g.attack(), 0.12)
                    : Envelope.struck(0.001, Ground.limited(l.t60() == null ? g.t60() : l.t60(), 0.01, 100), 0.3);
            pairs.add(FmPair.of(
                    Ground.limited(db, -60, 6), Ground.limited(l.hz() / g.f0(), 0.05, 60), 1, 0, amplitude, amplitude));
        }
    }
}
