package nightreed.match;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import nightreed.match.advice.Adviser;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.Move;
import nightreed.match.advice.NextMoves;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.frontier.Wanted;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** The road from a recording to an imitation, and the single steps on it. */
public final class Matcher {
    /** Of the time that is left after measuring, what the next moves get; chosen. */
    private static final double SHARE_FOR_MOVES = 0.2;

    /** Time that fits get at least, whatever measuring took [s]. */
    private static final double LEAST_SECONDS = 0.5;

    private Matcher() {}

    /** The recipe as the measurement gives it, before anything is fitted. */
    public static ResonatorRecipe startingValues(AnalysedSound recording) throws UnusableSound {
        return (ResonatorRecipe) Starts.of("resonators", recording).recipe();
    }

    /** What would bring a fit closer, as far as the plan's machine can do it. */
    private static List<Move> moves(AnalysedSound recording, Fitted best, FitOptions plan, Progress progress) {
        return NextMoves.of(recording, best.recipe(), best.comparison(), progress).stream()
                .filter(m -> plan.machine()
                        .missing(best.recipe().with(m.parameter().id(), m.to()))
                        .isEmpty())
                .toList();
    }

    /**
     * The whole road: measure, fit, make simpler, render, measure the imitation afresh, compare, advise.
     *
     * @param methods that are tried
     * @param wanted  which of the patches that are found
     * @throws UnusableSound if nothing can be measured, or none of the methods has anything to begin with
     */
    public static Match match(Clip clip, Collection<String> methods, FitOptions plan, Wanted wanted, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        AnalysedSound recording = ImitationRenderer.side(clip, progress.part(0, 0.1));
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        FitOptions fits = plan.within(Math.max(LEAST_SECONDS, (1 - SHARE_FOR_MOVES) * left));
        List<Found> found = Patches.of(methods, recording, fits, progress.part(0.1, 0.9));
        Frontier frontier = Frontier.over(found.stream().map(Found::frontier).toList());
        Point point = wanted.of(frontier);
        List<Fitted> each = new ArrayList<>();
        Fitted best = null;
        for (Found f : found) {
            Point own = wanted.of(f.frontier());
            Fitted fitted = f.fitted(own, recording);
            each.add(fitted);
            if (f.method().equals(point.method())) {
                best = own.equals(point) ? fitted : f.fitted(point, recording);
            }
        }
        List<Ranked> ranking = Adviser.after(each);
        Fitted chosen = best;
        double rest = plan.seconds() - (System.nanoTime() - start) / 1e9;
        List<Move> moves = Fits.within(
                Math.max(0, rest),
                progress.part(0.9, 1),
                control -> moves(recording, chosen, plan, control),
                List.of());
        return new Match(chosen, ranking, frontier, moves, (System.nanoTime() - start) / 1e9);
    }
}
