package nightreed.match.advice;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.IntStream;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.compare.Prediction;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Mode;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** The single changes that would help most, best first. */
public final class NextMoves {
    /** Moves that are worth a line. */
    private static final int SHOWN = 3;

    /** Moves that are rendered to see whether they keep their promise. */
    private static final int CHECKED = 8;

    private static final double WORTH_JND = 0.01;

    private NextMoves() {}

    /**
     * @param recording what to come closer to
     * @param recipe    where the imitation is now
     * @param now       its comparison with the recording, from a fresh render
     * @return at most three moves, each of which lowers the total by a fresh render; empty if none does
     */
    public static List<Move> of(AnalysedSound recording, Recipe recipe, Comparison now, Progress progress) {
        return of(recording, recipe, Set.of(), now, progress);
    }

    /** @param locked values that no move may touch, by id */
    public static List<Move> of(
            AnalysedSound recording, Recipe recipe, Set<String> locked, Comparison now, Progress progress) {
        return of(recording, Patch.of(recipe), locked, now, progress);
    }

    /** Of the values of a patch's first layer, beside the others. */
    public static List<Move> of(
            AnalysedSound recording, Patch patch, Set<String> locked, Comparison now, Progress progress) {
        return ImitationRenderer.isPlain(recording, patch)
                ? ofModes(recording, (ResonatorRecipe) patch.first(), locked, now, progress)
                : Sensitivity.of(recording, patch, locked, progress.part(0, 0.6))
                        .moves(now, progress.part(0.6, 1));
    }

    private static List<Move> ofModes(
            AnalysedSound recording, ResonatorRecipe recipe, Set<String> locked, Comparison now, Progress progress) {
        AnalysedSound current = Prediction.of(recipe, recording.measurement(), 30);
        List<Trial> trials = new ArrayList<>();
        for (PartialDifference d : now.partials()) {
            if (d.recording() != null) {
                modeTrials(d, recipe, trials);
            }
        }
        if (recording.measurement().f0Hz() != null) {
            double cents = 1200 * Math.log(recording.measurement().f0Hz() / recipe.f0Hz()) / Math.log(2);
            double to = recipe.tuningCents() + cents;
            trials.add(new Trial(
                    "tune",
                    to,
                    String.format(
                            Locale.ROOT,
                            "The recording sounds %.1f cents %s.",
                            Math.abs(cents),
                            cents > 0 ? "higher" : "lower")));
        }
        for (Trial t : trials) {
            t.promise =
                    now.totalJnd() - predicted(recording, current, recipe, t).totalJnd();
        }
        strikeTrials(recording, recipe, now, trials);
        trials.removeIf(t -> locked.contains(t.parameter));
        trials.sort(Comparator.comparingDouble(t -> -t.promise));
        return checked(recording, recipe, trials, progress);
    }

    private static List<Move> checked(
            AnalysedSound recording, ResonatorRecipe recipe, List<Trial> trials, Progress progress) {
        double total = total(recording, recipe);
        List<Move> moves = new ArrayList<>();
        int most = Math.min(CHECKED, trials.size());
        for (int i = 0; i < most; i++) {
            progress.report((double) i / most, "trying moves");
            Trial t = trials.get(i);
            ResonatorRecipe moved = recipe.with(t.parameter, t.to);
            double after = total(recording, moved);
            if (total - after > WORTH_JND) {
                Parameter p = recipe.setting(t.parameter).parameter();
                moves.add(
                        new Move(p, recipe.value(t.parameter), moved.value(t.parameter), after, total - after, t.why));
            }
        }
        moves.sort(Comparator.comparingDouble(m -> -m.gainJnd()));
        return heard(recording, recipe, moves.subList(0, Math.min(SHOWN, moves.size())));
    }

    /** Those that a measurement of a render confirms: what is known of plain modes without listening is a little off, too. */
    private static List<Move> heard(AnalysedSound recording, ResonatorRecipe recipe, List<Move> moves) {
        if (moves.isEmpty()) {
            return List.of();
        }
        double now = fresh(recording, recipe);
        double[] then = moves.parallelStream()
                .mapToDouble(m -> fresh(recording, recipe.with(m.parameter().id(), m.to())))
                .toArray();
        return IntStream.range(0, then.length)
                .filter(i -> then[i] < now)
                .mapToObj(moves::get)
                .toList();
    }

    private static double fresh(AnalysedSound recording, ResonatorRecipe recipe) {
        try {
            return PerceptualComparator.compare(
                            recording, ImitationRenderer.rendered(ImitationRenderer.render(recipe, recording)))
                    .totalJnd();
        } catch (UnusableSound silent) {
            return JndThresholds.MOST;
        }
    }

    private static double total(AnalysedSound recording, ResonatorRecipe recipe) {
        return PerceptualComparator.compare(recording, Prediction.of(recipe, recording.measurement(), 30))
                .totalJnd();
    }

    private static Comparison predicted(
            AnalysedSound recording, AnalysedSound current, ResonatorRecipe recipe, Trial t) {
        Measurement m = current.measurement();
        ResonatorRecipe moved = recipe.with(t.parameter, t.to);
        return PerceptualComparator.compare(
                recording,
                current.with(
                        Prediction.measurement(moved, recording.measurement(), m.attackSeconds(), m.strikeBands())));
    }

    /** To the measured value, for each value of the mode that stands for a partial. */
    private static void modeTrials(PartialDifference d, ResonatorRecipe recipe, List<Trial> trials) {
        Partial p = d.recording();
        int i = d.imitation() == null ? nearest(p, recipe) : indexOf(d.imitation(), recipe);
        if (i < 0) {
            return;
        }
        Mode m = recipe.modes().get(i);
        String id = "mode." + (i + 1) + ".";
        String partial = String.format(Locale.ROOT, "the recording's partial at %.0f Hz", p.frequencyHz());
        if (d.imitation() != null) {
            trials.add(new Trial(
                    id + "level",
                    m.levelDb() - d.levelDb(),
                    String.format(
                            Locale.ROOT,
                            "It sounds %.1f dB %s than %s.",
                            Math.abs(d.levelDb()),
                            d.levelDb() > 0 ? "louder" : "softer",
                            partial)));
        }
        if (p.t60Seconds() != null) {
            boolean longer = m.t60Seconds() > p.t60Seconds();
            trials.add(new Trial(
                    id + "t60",
                    p.t60Seconds(),
                    String.format(
                            Locale.ROOT,
                            "It rings %s: %s is down by 60 dB after %.2f s.",
                            longer ? "on too long" : "too short",
                            partial,
                            p.t60Seconds())));
        }
        double ratio = p.frequencyHz() / recipe.f0Hz();
        trials.add(new Trial(
                id + "ratio",
                ratio,
                String.format(
                        Locale.ROOT,
                        "Puts the mode onto %s, %.0f cents %s.",
                        partial,
                        Math.abs(1200 * Math.log(ratio / m.ratio()) / Math.log(2)),
                        ratio > m.ratio() ? "higher" : "lower")));
    }

    /** A mode that stands for no partial, within a third of an octave. */
    private static int nearest(Partial p, ResonatorRecipe recipe) {
        int best = -1;
        double least = 400;
        for (int i = 0; i < recipe.modes().size(); i++) {
            double hz = recipe.modes().get(i).ratio() * recipe.f0Hz();
            double cents = Math.abs(1200 * Math.log(hz / p.frequencyHz()) / Math.log(2));
            if (cents < least) {
                least = cents;
                best = i;
            }
        }
        return best;
    }

    private static int indexOf(Partial imitation, ResonatorRecipe recipe) {
        int best = -1;
        double least = 0.02 * imitation.frequencyHz();
        for (int i = 0; i < recipe.modes().size(); i++) {
            double off = Math.abs(recipe.modes().get(i).ratio() * recipe.f0Hz() - imitation.frequencyHz());
            double level = Math.abs(20 * Math.log10(imitation.amplitude())
                    - recipe.levelDb()
                    - recipe.modes().get(i).levelDb());
            if (off + 1e-3 * level < least) {
                least = off + 1e-3 * level;
                best = i;
            }
        }
        return best;
    }

    /** Small and large steps of everything that belongs to the strike, by short renders. */
    private static void strikeTrials(
            AnalysedSound recording, ResonatorRecipe recipe, Comparison now, List<Trial> trials) {
        double base = strikeCost(recording, recipe);
        for (String id : List.of("exciter.contact", "rise", "noise.level", "noise.t60", "noise.low", "noise.high")) {
            Parameter p = recipe.setting(id).parameter();
            double value = recipe.value(id);
            Trial best = null;
            for (double step : new double[] {-0.25, -0.1, -0.04, 0.04, 0.1, 0.25}) {
                Trial t = new Trial(id, p.at(p.position(value) + step), null);
                double fall = base - strikeCost(recording, recipe.with(id, t.to));
                // of the squares of seven aspects to their root mean square
                t.promise = fall / (2 * 7 * Math.max(0.2, now.totalJnd()));
                if (best == null || t.promise > best.promise) {
                    best = t;
                }
            }
            best.why = strikeReason(id, value, best.to, now);
            trials.add(best);
        }
    }

    private static String strikeReason(String id, double from, double to, Comparison now) {
        boolean more = to > from;
        String effect = switch (id) {
            case "rise" -> more ? "Lets the body answer more slowly" : "Lets the body answer sooner";
            case "exciter.contact" -> more ? "Softens the start" : "Sharpens the start";
            case "noise.level" -> more ? "Brings out the noise of the strike" : "Takes the noise of the strike back";
            case "noise.t60" ->
                more ? "Lets the noise of the strike last longer" : "Ends the noise of the strike sooner";
            case "noise.low" -> more ? "Takes thud out of the strike" : "Gives the strike more thud";
            default -> more ? "Gives the strike more hiss" : "Takes hiss out of the strike";
        };
        Aspect worst = now.jnd(Aspect.NOISE) >= now.jnd(Aspect.BRIGHTNESS) ? Aspect.NOISE : Aspect.BRIGHTNESS;
        return String.format(Locale.ROOT, "%s; the %s is %.1f JND off.", effect, worst.title(), now.jnd(worst));
    }

    private static double strikeCost(AnalysedSound recording, ResonatorRecipe r) {
        Comparison c = PerceptualComparator.compare(recording, Prediction.of(r, recording.measurement(), 0.25));
        double sum = 0;
        for (Aspect a : List.of(Aspect.ATTACK, Aspect.NOISE, Aspect.BRIGHTNESS, Aspect.LOUDNESS)) {
            sum += c.jnd(a) * c.jnd(a);
        }
        return sum;
    }

    private static final class Trial {
        final String parameter;
        final double to;
        String why;
        double promise; // fall of the total it is thought to bring [JND]

        Trial(String parameter, double to, String why) {
            this.parameter = parameter;
            this.to = to;
            this.why = why;
        }
    }
}
