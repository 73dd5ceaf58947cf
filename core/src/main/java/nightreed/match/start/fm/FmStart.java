package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.match.start.EnvelopeFit;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.match.start.StartContext.Line;
import nightreed.match.start.fm.FmBeamSearch.Found;
import nightreed.match.start.fm.FrameIndexSearch.Course;
import nightreed.measure.law.FmLaw;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;

/**
 * FM starting values: pairs whose sidebands fall on the partials, as {@link FmBeamSearch} finds them.
 */
public final class FmStart {
    /** Of these, how many are told again with a measured tremolo. */
    private static final int WITH_TREMOLO = 2;

    /** Lines, and one frame of so many, that a single pair is read off. */
    private static final int FEW = 4;

    private FmStart() {}

    /** Put together in some tenths of a second. */
    public static FmRecipe of(StartContext g) {
        return several(g, true).get(0);
    }

    /** The likeliest single pair, read off a few frames. */
    static FmRecipe onePair(StartContext g) {
        NonuniformStft frames =
                NonuniformStft.of(g.side(), g.movementWithoutTremolo(), false).thinned(FEW);
        List<Line> strongest = g.lines().subList(0, Math.min(FEW, g.lines().size()));
        Course c = new FrameIndexSearch(frames).pairs(strongest, g.f0(), 1).get(0);
        double loudest = Math.max(1e-9, Arrays.stream(c.level()).max().orElse(1));
        return recipe(g, List.of(pair(g, frames, c, loudest)), g.movement(false));
    }

    /**
     * The law of a modulation if one was measured, then pairs that were searched for.
     *
     * @param brief whether only what is found in some tenths of a second
     * @return at least one
     */
    public static List<FmRecipe> several(StartContext g, boolean brief) {
        List<FmRecipe> out = new ArrayList<>();
        if (g.measurement().fm() != null) {
            g.say("pair.1", true, "measured law of a frequency modulation");
            out.add(recipe(g, List.of(pair(g, g.measurement().fm())), g.movement(false)));
        }
        if (brief) {
            FmModel found = new FmBeamSearch(g).roughly();
            for (int i = 1; i <= found.pairs().size(); i++) {
                g.say("pair." + i, true, "its sidebands fall on the partials, as loud as these are in each frame");
            }
            out.add(recipe(g, found.pairs(), g.movement(false)));
        } else {
            out.addAll(swinging(g, new FmBeamSearch(g).found()));
        }
        return out;
    }

    /** A level that swings may do so because pairs beat: the likeliest are told without a tremolo, and again with it. */
    private static List<FmRecipe> swinging(StartContext g, List<Found> fitted) {
        Common measured = g.movement(false);
        Common still = g.movementWithoutTremolo();
        List<FmRecipe> out = new ArrayList<>();
        fitted.forEach(f -> out.add(recipe(g, f.model().pairs(), still)));
        if (!measured.equals(still)) {
            fitted.stream()
                    .limit(WITH_TREMOLO)
                    .forEach(f -> out.add(recipe(g, f.model().pairs(), measured)));
        }
        return out;
    }

    private static FmPair pair(StartContext g, FmLaw law) {
        return FmPair.of(
                        0,
                        ratio(g, law.carrierHz()),
                        ratio(g, law.modulatorHz()),
                        StartContext.limited(law.index(), 0, 50),
                        Envelope.struck(0.0003, StartContext.limited(law.t60Seconds(), 0.01, 100), 0.3),
                        Envelope.struck(0, StartContext.limited(law.indexSeconds() * Math.log(1000), 0.01, 100), 0.3))
                .withPhases(wrapped(law.carrierRad()), wrapped(law.modulatorRad()));
    }

    private static double wrapped(double rad) {
        return Math.IEEEremainder(rad, 2 * Math.PI);
    }

    private static double ratio(StartContext g, double hz) {
        return StartContext.limited(hz / g.f0(), 0.05, 60);
    }

    private static FmRecipe recipe(StartContext g, List<FmPair> pairs, Common movement) {
        return new FmRecipe(
                g.key(),
                g.cents(),
                -12,
                pairs,
                g.strike(),
                g.isHeld() ? 0 : 0.5,
                new VelocityMap(0.7, 24, g.isHeld() ? 2 : 1),
                movement);
    }

    /** The pair whose envelopes follow a course. @param loudest amplitude of level 0 dB */
    static FmPair pair(StartContext g, NonuniformStft frames, Course c, double loudest) {
        double[] t = frames.seconds();
        double[] weight = new double[t.length];
        for (int f = 0; f < t.length; f++) {
            weight[f] = frames.weight(f) + 0.02;
        }
        double level = top(c.level());
        double index = top(c.index());
        EnvelopeFit amp = EnvelopeFit.ofLevel(t, shares(c.level(), level), weight, g.attack(), g.release());
        EnvelopeFit bend = index < 0.05
                ? amp
                : EnvelopeFit.of(t, shares(c.index(), index), weight, Math.min(0.0005, g.attack()), g.release());
        return FmPair.of(
                StartContext.limited(20 * Math.log10(level * amp.top() / loudest), -60, 6),
                ratio(g, c.carrierHz()),
                ratio(g, c.modulatorHz()),
                StartContext.limited(index * (index < 0.05 ? 1 : bend.top()), 0, 50),
                amp.envelope(),
                bend.envelope());
    }

    private static double[] shares(double[] values, double of) {
        double[] out = new double[values.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = values[i] / Math.max(1e-12, of);
        }
        return out;
    }

    private static double top(double[] values) {
        double most = 0;
        for (double v : values) {
            most = Math.max(most, v);
        }
        return most;
    }
}
