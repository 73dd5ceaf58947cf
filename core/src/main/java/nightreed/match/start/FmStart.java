package nightreed.match.start;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import nightreed.match.start.FmFit.Found;
import nightreed.match.start.FmFrames.Course;
import nightreed.match.start.Ground.Line;
import nightreed.measure.FmLaw;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.fm.Sidebands;

/**
 * Pairs whose sidebands fall on the partials: the likeliest are walked to by {@link FmFit}; plain ones, each found in what
 * those before it leave out, are there at once.
 */
final class FmStart {
    /** A sideband falls on a partial within this [cents]. */
    private static final double NEAR = 15;

    /** Amplitude under the strongest at which a partial needs no pair of its own. */
    private static final double LEAST = 0.01;

    /** Ways to put pairs together that are told. */
    private static final int TOLD = 6;

    /** Of these, how many are told again with a measured tremolo. */
    private static final int WITH_TREMOLO = 2;

    /** What leaves so many times as much as another is not meant, though an ear that is quick may not tell them apart. */
    private static final double FAR_OFF = 3;

    private FmStart() {}

    static FmRecipe of(Ground g) {
        return several(g, 1, true).get(0);
    }

    /** What a measured law says, and the likeliest pairs that differ. @param brief whether none are walked to */
    static List<FmRecipe> several(Ground g, int most, boolean brief) {
        List<FmRecipe> out = new ArrayList<>();
        if (g.measurement().fm() != null) {
            g.say("pair.1", true, "measured law of a frequency modulation");
            out.add(recipe(g, List.of(pair(g, g.measurement().fm())), g.movement(false)));
        }
        if (!brief) {
            out.addAll(swinging(g, fitted(g)));
        }
        if (out.size() < most) {
            Frames frames = Frames.of(g.side(), g.movementWithoutTremolo(), false);
            out.addAll(new FmFrames(frames)
                    .pairs(g.lines(), g.f0(), most - out.size()).parallelStream()
                            .map(c -> recipe(g, pairs(g, frames, c), g.movement(false)))
                            .toList());
        }
        return out;
    }

    /** Of a held note also with whole ratios, which bodies that are bowed or blown have, where others come nearer by chance. */
    private static List<Found> fitted(Ground g) {
        if (!g.isHeld()) {
            return new FmFit(g, false).found(TOLD);
        }
        List<Found> all = Stream.of(true, false)
                .parallel() // each alone has steps that one core waits in
                .flatMap(tuned -> new FmFit(g, tuned).found(TOLD / 2).stream())
                .toList();
        double least = all.stream().mapToDouble(Found::misfit).min().orElse(0);
        return all.stream().filter(f -> f.misfit() <= FAR_OFF * least).toList();
    }

    /** A level that swings may do so because pairs beat: the likeliest are told without a tremolo, and again with it. */
    private static List<FmRecipe> swinging(Ground g, List<Found> fitted) {
        Common measured = g.movement(false);
        Common still = g.movementWithoutTremolo();
        List<FmRecipe> out = new ArrayList<>();
        fitted.forEach(f -> out.add(recipe(g, f.sound().pairs(), still)));
        if (!measured.equals(still)) {
            fitted.stream()
                    .limit(WITH_TREMOLO)
                    .forEach(f -> out.add(recipe(g, f.sound().pairs(), measured)));
        }
        return out;
    }

    private static FmPair pair(Ground g, FmLaw law) {
        return FmPair.of(
                        0,
                        ratio(g, law.carrierHz()),
                        ratio(g, law.modulatorHz()),
                        Ground.limited(law.index(), 0, 50),
                        Envelope.struck(0.0003, Ground.limited(law.t60Seconds(), 0.01, 100), 0.3),
                        Envelope.struck(0, Ground.limited(law.indexSeconds() * Math.log(1000), 0.01, 100), 0.3))
                .withPhases(wrapped(law.carrierRad()), wrapped(law.modulatorRad()));
    }

    private static double wrapped(double rad) {
        return Math.IEEEremainder(rad, 2 * Math.PI);
    }

    private static double ratio(Ground g, double hz) {
        return Ground.limited(hz / g.f0(), 0.05, 60);
    }

    private static FmRecipe recipe(Ground g, List<FmPair> pairs, Common movement) {
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

    private static List<FmPair> pairs(Ground g, Frames frames, Course first) {
        List<FmPair> pairs = new ArrayList<>();
        List<Line> left = new ArrayList<>(g.lines());
        Frames remaining = frames;
        Course course = first;
        double loudest = top(first.level());
        while (true) {
            int before = left.size();
            FmFrames fit = new FmFrames(remaining);
            double[] phases = fit.phases(course, left);
            left.removeAll(reached(course, left));
            String id = "pair." + (pairs.size() + 1);
            g.say(
                    id,
                    true,
                    String.format(
                            Locale.ROOT,
                            "its sidebands fall on %d of %d partials that were left",
                            before - left.size(),
                            before));
            g.say(id + ".amp", true, "level of its lines in each frame");
            g.say(id + ".bend", true, "index that fits each frame");
            pairs.add(pair(g, frames, course, loudest).withPhases(wrapped(phases[0]), wrapped(phases[1])));
            left.removeIf(l -> l.amplitude() < LEAST * g.lines().get(0).amplitude());
            if (left.isEmpty() || pairs.size() >= FmRecipe.MOST_PAIRS) {
                return pairs;
            }
            remaining = remaining.without(fit.power(course));
            course = new FmFrames(remaining).beside(left, g.f0(), first.modulatorHz());
            if (top(course.level()) < LEAST * loudest) {
                return pairs;
            }
        }
    }

    /** The pair whose envelopes follow a course. @param loudest amplitude of level 0 dB */
    static FmPair pair(Ground g, Frames frames, Course c, double loudest) {
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
                Ground.limited(20 * Math.log10(level * amp.top() / loudest), -60, 6),
                ratio(g, c.carrierHz()),
                ratio(g, c.modulatorHz()),
                Ground.limited(index * (index < 0.05 ? 1 : bend.top()), 0, 50),
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

    /** Partials that a sideband of the pair falls on, as loud as they are or nearly so. */
    private static List<Line> reached(Course c, List<Line> lines) {
        double[] most = new double[40];
        for (int f = 0; f < c.index().length; f++) {
            double[] j = Sidebands.bessel(c.index()[f], most.length - 1);
            for (int k = 0; k < most.length; k++) {
                most[k] = Math.max(most[k], Math.abs(j[k]) * c.level()[f]);
            }
        }
        List<Line> out = new ArrayList<>();
        for (Line l : lines) {
            double there = 0;
            for (int k = 1 - most.length; k < most.length; k++) {
                double hz = Math.abs(c.carrierHz() + k * c.modulatorHz());
                boolean near = hz > 1 && Math.abs(Pitch.cents(hz, l.hz())) < NEAR;
                there = near ? Math.max(there, most[Math.abs(k)]) : there;
            }
            if (there > 0.15 * l.amplitude()) {
                out.add(l);
            }
        }
        return out;
    }
}
