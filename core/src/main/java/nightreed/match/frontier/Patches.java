package nightreed.match.frontier;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.function.Supplier;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;
import nightreed.work.Supervisor.Control;
import nightreed.work.Supervisor.Work;

/** Fits a method, and makes what it finds simpler: a frontier of patches. */
public final class Patches {
    /** Of the usual number of renders, what the fit itself gets: the simpler patches are polished anew. */
    private static final double FIT_EFFORT = 0.3;

    /** Of a limit, what the fit itself gets; chosen. */
    private static final double SHARE_OF_FIT = 0.5;

    /** Of what is left of a limit after the fit, what measuring gets. */
    private static final double SHARE_FOR_LAST = 0.5;

    private Patches() {}

    /**
     * What came out of one method.
     *
     * @param nearest what the fit found, which may be too much for a hand
     * @param frontier from the simplest to the nearest
     */
    public record Found(Fitted nearest, Frontier frontier) {
        public String method() {
            return nearest.method();
        }

        /** One of the points as a finished fit, heard anew. @throws UnusableSound if it cannot be measured, which a point once was */
        public Fitted fitted(Point p, AnalysedSound recording) throws UnusableSound {
            if (p.recipe().equals(nearest.recipe())) {
                return nearest;
            }
            Clip imitation = ImitationRenderer.render(p.recipe(), recording);
            return new Fitted(
                    p.recipe(),
                    imitation,
                    PerceptualComparator.compare(recording, ImitationRenderer.rendered(imitation)),
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

    /** @throws UnusableSound if the recording gives nothing to build on */
    public static Found of(String method, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        FitOptions own = plan.trying(FIT_EFFORT * plan.effort())
                .within(plan.isLimited() ? SHARE_OF_FIT * plan.seconds() : plan.seconds());
        Fitted nearest = Fits.of(method, recording, own, progress.part(0, 0.5));
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        if (PatchSize.followsRecording(nearest.recipe())) { // an effect, which nothing makes simpler
            Point only = Point.of(nearest.recipe(), nearest.comparison());
            return new Found(nearest, new Frontier(List.of(only)));
        }
        return new Found(nearest, around(nearest, recording, plan.within(Math.max(0, left)), progress.part(0.5, 1)));
    }

    /** From what a fit found downwards; ends within its time with what was measured so far. @throws UnusableSound never after a fit */
    public static Frontier around(Fitted nearest, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        List<Point> heard = Collections.synchronizedList(new ArrayList<>());
        heard.add(Point.of(nearest.recipe(), nearest.comparison()));
        double last = plan.isLimited() ? SHARE_FOR_LAST * plan.seconds() : 0;
        Supplier<Frontier> soFar = () -> {
            synchronized (heard) {
                return Frontier.of(heard);
            }
        };
        Work<Frontier> work = control -> {
            search(nearest.recipe(), recording, plan, heard, control);
            return soFar.get();
        };
        return Fits.within(plan.seconds() - last, last, progress, work, soFar);
    }

    /** @param heard takes what is measured, one by one */
    private static void search(
            Recipe nearest, AnalysedSound recording, FitOptions plan, List<Point> heard, Control control) {
        FrontierSearch search = new FrontierSearch(recording, nearest, plan, control);
        try {
            List<Recipe> met =
                    search.found().stream().map(m -> m.heard().recipe()).toList();
            measure(met, recording, plan, heard, control);
            if (!control.isEnough()) {
                List<Recipe> kept =
                        Frontier.of(heard).points().stream().map(Point::recipe).toList();
                control.report(0.9, "listening for slow swells");
                measure(search.swelling(kept), recording, plan, heard, control);
            }
        } catch (CancellationException ended) {
            control.check(); // only that enough was found ended it
        }
    }

    private static void measure(
            List<Recipe> recipes, AnalysedSound recording, FitOptions plan, List<Point> heard, Control control) {
        control.report(0.8, "listening");
        recipes.stream()
                .distinct()
                .parallel()
                .filter(r -> !control.isCancelled())
                .map(r -> heard(r, recording, plan))
                .filter(p -> p != null)
                .forEach(heard::add);
    }

    /** As loud as the recording, measured afresh; null if there is nothing to be heard. */
    private static Point heard(Recipe recipe, AnalysedSound recording, FitOptions plan) {
        try {
            Recipe r = PlayingLevel.set(plan.isLevelFree() ? ImitationRenderer.asLoud(recipe, recording) : recipe);
            AnalysedSound imitation = ImitationRenderer.rendered(ImitationRenderer.render(plan.with(r), recording));
            return Point.of(r, PerceptualComparator.compare(recording, imitation));
        } catch (UnusableSound silent) {
            return null;
        }
    }
}
