package nightreed.match.frontier;

import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.fit.JointFit.Result;
import nightreed.match.frontier.Frontier.Point;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;
import nightreed.work.Supervisor.Control;
import nightreed.work.Supervisor.Work;

/** What {@link JointFit} finds for several recordings of an instrument, made simpler: each patch is judged by all of them. */
public final class JointPatches {
    /** Of a limit, what the fit itself gets; chosen, as {@link Patches} has it. */
    private static final double SHARE_OF_FIT = 0.5;

    private static final double SHARE_FOR_LAST = 0.3;

    private JointPatches() {}

    /**
     * What came out.
     *
     * @param nearest  what the fit found
     * @param frontier from the simplest to the nearest; distances are means over the notes
     * @param judged   how each point compares with each note
     */
    public record Found(Result nearest, Frontier frontier, Map<Point, Result> judged) {
        public Found {
            judged = Map.copyOf(judged);
        }

        /** A point as a finished fit, by what it takes and asks for. */
        public Result result(Point p) {
            return judged.get(p);
        }
    }

    /** Of several methods the one that comes nearest. @throws UnusableSound as {@link JointFit#best} */
    public static Found best(Collection<String> methods, List<Note> notes, FitOptions plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        Result found = JointFit.best(methods, notes, ofFit(plan), progress.part(0, 0.5));
        return around(found, notes, JointFit.middle(notes), plan, start, progress.part(0.5, 1));
    }

    /** By one method. @throws UnusableSound as {@link JointFit#of} */
    public static Found of(String method, List<Note> notes, Note reference, FitOptions plan, Progress progress)
            throws UnusableSound {
        long start = System.nanoTime();
        Result found = JointFit.of(method, notes, reference, ofFit(plan), progress.part(0, 0.5));
        return around(found, notes, reference, plan, start, progress.part(0.5, 1));
    }

    private static FitOptions ofFit(FitOptions plan) {
        return plan.isLimited() ? plan.within(SHARE_OF_FIT * plan.seconds()) : plan;
    }

    private static Found around(
            Result found, List<Note> notes, Note reference, FitOptions plan, long start, Progress progress)
            throws UnusableSound {
        Map<Point, Result> judged = Collections.synchronizedMap(new HashMap<>());
        judged.put(point(found), found);
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        if (left > Fits.BRIEF_SECONDS && !PatchSize.followsRecording(found.recipe())) {
            double last = plan.isLimited() ? SHARE_FOR_LAST * left : 0;
            Work<Boolean> work = control -> {
                search(found.recipe(), notes, reference, plan, judged, control);
                return true;
            };
            Fits.within(left - last, last, progress, work, () -> false);
        }
        Map<Point, Result> all;
        synchronized (judged) { // what is left of a search that was told to end may still come
            all = new HashMap<>(judged);
        }
        return new Found(found, Frontier.of(List.copyOf(all.keySet())), all);
    }

    private static Point point(Result r) {
        return new Point(PatchSize.of(r.recipe()), r.recipe(), r.meanJnd());
    }

    private static void search(
            Recipe nearest,
            List<Note> notes,
            Note reference,
            FitOptions plan,
            Map<Point, Result> judged,
            Control control) {
        try {
            for (FrontierSearch.Met m : new FrontierSearch(notes, reference, nearest, plan, control).found()) {
                control.report(0.8, "listening to each note");
                judge(m.heard().recipe(), notes, reference, plan, judged);
            }
        } catch (CancellationException ended) {
            control.check(); // only that enough was found ended it
        }
    }

    private static void judge(
            Recipe recipe, List<Note> notes, Note reference, FitOptions plan, Map<Point, Result> judged) {
        try {
            Result r = JointFit.judged(recipe, notes, reference, plan);
            judged.put(point(r), r);
        } catch (UnusableSound silent) {
            // of so few values that nothing is heard, which is no patch
        }
    }
}
