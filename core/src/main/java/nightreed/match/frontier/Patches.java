package nightreed.match.frontier;

import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;
import nightreed.work.Supervisor.Control;
import nightreed.work.Supervisor.Work;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Fits a method, and makes what it finds simpler: a frontier of patches. */
public final class Patches {
    private static final Logger LOG = LoggerFactory.getLogger(Patches.class);

    /** Of the usual number of renders, what the fit itself gets; chosen, as the simpler patches are polished anew. */
    private static final double FIT_EFFORT = 0.3;

    /** Of a limit, what the fit itself gets; chosen. */
    private static final double SHARE_OF_FIT = 0.5;

    /** Of what is left of a limit after the fit, what measuring gets; chosen. */
    private static final double SHARE_FOR_LAST = 0.5;

    private Patches() {}

    /**
     * What came out of one method.
     *
     * @param nearest  what the fit found, which may be too much for a hand
     * @param frontier from the simplest to the nearest
     * @param compared how each point compares with the recording
     */
    public record Found(Fitted nearest, Frontier frontier, Map<Point, Comparison> compared) {
        public Found {
            compared = Map.copyOf(compared);
        }

        public String method() {
            return nearest.method();
        }

        /** One of the points as a finished fit. */
        public Fitted fitted(Point p, AnalysedSound recording) {
            return p.recipe().equals(nearest.recipe())
                    ? nearest
                    : new Fitted(
                            p.recipe(),
                            ImitationRenderer.render(p.recipe(), recording),
                            compared.get(p),
                            true,
                            nearest.seconds());
        }
    }

    /** Several methods side by side, as {@link Fits#ofEach} does it. @throws UnusableSound if none can be begun with */
    public static List<Found> of(
            Collection<String> methods, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        return Fits.ofEach(methods, recording, plan, (m, options, p) -> of(m, recording, options, p), progress);
    }

    /**
     * Where there is little time, only the nearest.
     *
     * @throws UnusableSound if the recording gives nothing to build on
     */
    public static Found of(String method, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        boolean brief = plan.seconds() < Fits.BRIEF_SECONDS;
        FitOptions own = brief
                ? plan
                : plan.trying(FIT_EFFORT * plan.effort())
                        .within(plan.isLimited() ? SHARE_OF_FIT * plan.seconds() : plan.seconds());
        Fitted nearest = Fits.of(method, recording, own, progress.part(0, 0.5));
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        Map<Point, Comparison> heard = Collections.synchronizedMap(new HashMap<>());
        boolean effect = PatchSize.followsRecording(nearest.recipe()); // which nothing makes simpler
        if (!brief && !effect) {
            around(nearest.recipe(), recording, plan.within(Math.max(0, left)), heard, progress.part(0.5, 1));
        }
        Map<Point, Comparison> all = copy(heard);
        if (all.isEmpty()) {
            all.put(Point.of(nearest.recipe(), nearest.comparison()), nearest.comparison());
        }
        return new Found(nearest, Frontier.of(List.copyOf(all.keySet())), all);
    }

    private static Map<Point, Comparison> copy(Map<Point, Comparison> heard) {
        synchronized (heard) { // what is left of a search that was told to end may still come
            return new HashMap<>(heard);
        }
    }

    /** From what a fit found downwards; ends within its time. @param heard takes what is measured, one by one */
    private static void around(
            Recipe nearest, AnalysedSound recording, FitOptions plan, Map<Point, Comparison> heard, Progress progress)
            throws UnusableSound {
        double last = plan.isLimited() ? SHARE_FOR_LAST * plan.seconds() : 0;
        Work<Boolean> work = control -> {
            search(nearest, recording, plan, heard, control);
            return true;
        };
        Fits.within(plan.seconds() - last, last, progress, work, () -> false);
    }

    private static void search(
            Recipe nearest, AnalysedSound recording, FitOptions plan, Map<Point, Comparison> heard, Control control) {
        FrontierSearch search = new FrontierSearch(recording, nearest, plan, control);
        try {
            List<Recipe> met =
                    search.found().stream().map(m -> m.heard().recipe()).toList();
            measure(met, recording, plan, heard, control);
            if (!control.isEnough()) {
                List<Recipe> kept = Frontier.of(List.copyOf(copy(heard).keySet())).points().stream()
                        .map(Point::recipe)
                        .toList();
                control.report(0.9, "listening for slow swells");
                measure(search.swelling(kept), recording, plan, heard, control);
            }
        } catch (CancellationException ended) {
            control.check(); // only that enough was found ended it
        }
    }

    private static void measure(
            List<Recipe> recipes,
            AnalysedSound recording,
            FitOptions plan,
            Map<Point, Comparison> heard,
            Control control) {
        control.report(0.8, "listening");
        recipes.stream()
                .distinct()
                .parallel()
                .filter(r -> !control.isCancelled())
                .forEach(r -> measure(r, recording, plan, heard));
    }

    /** As loud as the recording, measured afresh; left out if there is nothing to be heard. */
    private static void measure(Recipe recipe, AnalysedSound recording, FitOptions plan, Map<Point, Comparison> heard) {
        try {
            Recipe r = PlayingLevel.set(plan.isLevelFree() ? ImitationRenderer.asLoud(recipe, recording) : recipe);
            AnalysedSound imitation = ImitationRenderer.rendered(ImitationRenderer.render(plan.with(r), recording));
            Comparison c = PerceptualComparator.compare(recording, imitation);
            heard.put(Point.of(r, c), c);
        } catch (UnusableSound silent) {
            LOG.debug("a patch of so few values that nothing is heard: {}", silent.getMessage());
        }
    }
}
