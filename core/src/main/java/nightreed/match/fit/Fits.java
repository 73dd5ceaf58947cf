package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.method.MethodAdvice;
import nightreed.match.method.Methods;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;
import nightreed.work.Supervisor;
import nightreed.work.Supervisor.Control;
import nightreed.work.Supervisor.Work;

/** Fits any method to a recording: starting values, a search from several of them, and a polish of all values at once. */
public final class Fits {
    /** Measured distance over that of the quick ear up to which the two agree; chosen. */
    private static final double AGREED = 1.3;

    /** Recipes that are measured at the most: that of a long, rich note takes seconds. */
    private static final int MOST_JUDGED = 4;

    /** A fit that may take less begins with what is computed at once, and does not measure on its way [s]. */
    public static final double BRIEF_SECONDS = 5;

    /** Of the time for a fit, what its last measuring is given [s], [share]; measured: that of a long note takes 0.6 to 1.2 s. */
    private static final double MOST_FOR_LAST = 1.3;

    private static final double SHARE_FOR_LAST = 0.4;

    /** What a fit may go over its limit to finish what it returns [s]. */
    private static final double MARGIN_SECONDS = 0.1;

    /** Time that a method needs to come to something [s]; a shorter limit leaves out the least promising ones; chosen. */
    private static final double LEAST_SECONDS = 0.25;

    private Fits() {}

    /**
     * Ends at any moment within some hundredths of a second after the progress has cancelled it, and within 0.3 s with the nearest found so far once
     * that is enough. The same for a recording on any number of cores, unless it is ended by time.
     *
     * @param method one of {@link Starts#METHODS}
     * @throws UnusableSound if the recording gives nothing to build on
     */
    public static Fitted of(String method, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        Run run = new Run(method, recording, plan);
        double last = plan.isLimited() ? Math.min(MOST_FOR_LAST, plan.seconds() * SHARE_FOR_LAST) : 0;
        return supervised(progress, plan.seconds() - last, last + MARGIN_SECONDS, run::found, run::estimated);
    }

    /** Work that is left where the time is over, with something else to return then. */
    public static <T> T within(double seconds, Progress progress, Work<T> work, T otherwise) throws UnusableSound {
        return supervised(progress, seconds, 0, work, () -> otherwise);
    }

    /**
     * Work that is told when it should end, and given some more time to finish what it returns.
     *
     * @param reserve   time after that [s]
     * @param otherwise what to return if it has not ended then
     */
    public static <T> T within(double seconds, double reserve, Progress progress, Work<T> work, Supplier<T> otherwise)
            throws UnusableSound {
        return supervised(progress, seconds, reserve, work, otherwise);
    }

    /** Work within the time of a plan, which has nothing to return before it has ended. */
    public static <T> T supervised(Progress progress, FitOptions plan, Work<T> work) throws UnusableSound {
        return supervised(progress, plan.seconds(), 0, work, () -> null);
    }

    private static <T> T supervised(
            Progress progress, double seconds, double reserve, Work<T> work, Supplier<T> fallback)
            throws UnusableSound {
        try {
            return Supervisor.run(progress, seconds, reserve, work, fallback);
        } catch (UnusableSound | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IllegalStateException(e);
        }
    }

    /** What is done for each of several methods. */
    public interface OfMethod<T> {
        /** @throws UnusableSound if there is nothing to begin with */
        T with(String method, FitOptions plan, Progress progress) throws UnusableSound;
    }

    /** All {@linkplain #ofEach of} several methods. */
    public static List<Fitted> of(
            Collection<String> methods, AnalysedSound recording, FitOptions plan, Progress progress)
            throws UnusableSound {
        return ofEach(methods, recording, plan, (m, options, p) -> of(m, recording, options, p), progress);
    }

    /**
     * Several methods side by side, the most promising first. One that cannot be begun with, or not played on the plan's machine,
     * is left out; so are the least promising ones where the time is too short for all.
     *
     * @param methods names; may be in any order
     * @throws UnusableSound if none of them can be
     */
    public static <T> List<T> ofEach(
            Collection<String> methods, AnalysedSound recording, FitOptions plan, OfMethod<T> work, Progress progress)
            throws UnusableSound {
        List<String> order = MethodAdvice.of(recording.measurement()).stream()
                .map(MethodAdvice::method)
                .filter(methods::contains)
                .filter(plan.machine()::can)
                .toList();
        if (order.isEmpty()) {
            throw new UnusableSound("'" + plan.machine().name() + "' can play none of these methods: "
                    + String.join(", ", methods) + ". Choose another method, or give it what it needs.");
        }
        int lanes = Math.min(order.size(), Runtime.getRuntime().availableProcessors());
        int many = plan.isLimited()
                ? (int) Math.max(1, Math.min(order.size(), plan.seconds() / LEAST_SECONDS))
                : order.size();
        FitOptions each = plan.within(plan.seconds() / Math.ceil((double) many / lanes));
        return supervised(
                progress,
                Double.POSITIVE_INFINITY,
                0,
                control -> sideBySide(order.subList(0, many), lanes, each, work, control),
                () -> null);
    }

    private static <T> List<T> sideBySide(
            List<String> order, int lanes, FitOptions plan, OfMethod<T> work, Control control) throws UnusableSound {
        ExecutorService pool = Executors.newFixedThreadPool(lanes);
        Shares shares = new Shares(control, order.size());
        List<CompletableFuture<T>> results = new ArrayList<>();
        for (int i = 0; i < order.size(); i++) {
            String method = order.get(i);
            Progress part = shares.of(i).named(method);
            boolean first = i == 0;
            results.add(CompletableFuture.supplyAsync(
                    () -> {
                        if (!first && control.isEnough()) {
                            return null; // nor is another method begun with
                        }
                        try {
                            return work.with(method, plan, part);
                        } catch (UnusableSound e) {
                            throw new CompletionException(e);
                        }
                    },
                    pool));
        }
        pool.shutdown();
        List<T> out = new ArrayList<>();
        UnusableSound unusable = null;
        for (CompletableFuture<T> r : results) {
            try {
                T f = r.join();
                if (f != null) {
                    out.add(f);
                }
            } catch (CompletionException e) {
                if (e.getCause() instanceof UnusableSound u) {
                    unusable = unusable == null ? u : unusable;
                } else {
                    throw e.getCause() instanceof RuntimeException r2 ? r2 : e;
                }
            }
        }
        if (out.isEmpty() && unusable != null) {
            throw unusable;
        }
        return out;
    }

    /** The mean of how far several pieces of work are, each of which counts as much. */
    private static final class Shares {
        private final Progress whole;
        private final double[] done;

        Shares(Progress whole, int pieces) {
            this.whole = whole;
            done = new double[pieces];
        }

        Progress of(int piece) {
            return new Progress() {
                @Override
                public void report(double fraction, String doing) {
                    double sum = 0;
                    synchronized (done) {
                        done[piece] = fraction;
                        for (double d : done) {
                            sum += d / done.length;
                        }
                    }
                    whole.report(sum, doing);
                }

                @Override
                public boolean isCancelled() {
                    return whole.isCancelled();
                }

                @Override
                public boolean isEnough() {
                    return whole.isEnough();
                }
            };
        }
    }

    /** One fit of one method. */
    private static final class Run {
        private final String method;
        private final AnalysedSound recording;
        private final FitOptions plan;
        private final long start = System.nanoTime();
        private final BestSoFar best = new BestSoFar();
        private volatile PerceptualResiduals ear; // once anything was heard
        private FitStrategy search;

        Run(String method, AnalysedSound recording, FitOptions plan) {
            this.method = method;
            this.recording = recording;
            this.plan = plan;
        }

        Fitted found(Control control) throws UnusableSound {
            control.report(0, "starting values");
            ear = new PerceptualResiduals(recording, FitStrategy.HEARD_SECONDS);
            if (!goesOn()) {
                hear(Starts.instant(method, recording));
            }
            try {
                return searched(control);
            } catch (CancellationException ended) {
                control.check();
                Fitted soFar = estimated(); // only that enough was found ended it
                if (soFar == null) {
                    throw ended;
                }
                return soFar;
            }
        }

        private Fitted searched(Control control) throws UnusableSound {
            search = new FitStrategy(plan, starts(true, control.endedByEnough()), ear, best, control);
            if (!goesOn() && Methods.of(method).hasDearStarts() && plan.seconds() >= BRIEF_SECONDS) {
                search.hear();
                search = new FitStrategy(
                        plan, starts(false, control.endedByEnough()), ear, best, control.part(0.3, 0.9));
            }
            List<Recipe> met = search.found();
            control.check();
            control.report(0.9, "listening");
            return judged(List.copyOf(new LinkedHashSet<>(met)), plan.isLimited() || control.isEnough());
        }

        /** Whether it goes on from a recipe of its method. */
        private boolean goesOn() {
            return plan.onward() && plan.recipe().method().equals(method);
        }

        /** So that there is something to return from the first moment on. */
        private void hear(Recipe recipe) {
            Recipe r = plan.machine().limited(plan.kept(recipe));
            double[] d = OneNote.within(plan.with(r), ear).differences(r);
            best.offer(new Candidate(r, d, PerceptualResiduals.total(d)));
        }

        /** @param brief whether only those that take no time to compute */
        private List<Recipe> starts(boolean brief, Progress progress) throws UnusableSound {
            if (goesOn()) {
                return List.of(plan.machine().limited(plan.recipe()));
            }
            List<Recipe> all = plan.follows() && method.equals("formant")
                    ? List.of(Starts.following(recording))
                    : Starts.several(method, recording, brief, progress);
            return all.stream().map(plan::kept).map(plan.machine()::limited).toList();
        }

        private Fitted judged(List<Recipe> met, boolean soon) throws UnusableSound {
            Judged found = nearest(met, search.note(), plan, soon);
            Clip imitation = ImitationRenderer.render(plan.with(found.recipe), recording);
            Comparison comparison = found.comparison != null
                    ? found.comparison
                    : PerceptualComparator.compare(
                            recording, ImitationRenderer.rendered(imitation)); // says what is wrong with it
            return new Fitted(PlayingLevel.set(found.recipe), imitation, comparison, true, seconds());
        }

        /** The nearest found so far as the search itself heard it; null if nothing was heard yet. */
        Fitted estimated() {
            Candidate p = best.get();
            if (p == null) {
                return null;
            }
            Comparison heard = new Comparison(ear.byAspect(p.differences()), List.of(), 0);
            Clip imitation = ImitationRenderer.render(plan.with(p.recipe()), recording);
            if (!plan.isLevelFree()) {
                return new Fitted(PlayingLevel.set(p.recipe()), imitation, heard, false, seconds());
            }
            double db = ImitationRenderer.missingDb(imitation, recording);
            Recipe r = p.recipe().with("level", p.recipe().levelDb() + db);
            return new Fitted(PlayingLevel.set(r), imitation.scaled(Math.pow(10, db / 20)), heard, false, seconds());
        }

        private double seconds() {
            return (System.nanoTime() - start) / 1e9;
        }
    }

    /**
     * Of several recipes the one that a fresh measurement finds nearest; what the quick ear says counts as much. None that is
     * measured to be further than the first. More than two are measured only where the ears do not agree about the second.
     */
    private static Judged nearest(List<Recipe> recipes, OneNote note, FitOptions plan, boolean soon) {
        List<Judged> judged = new ArrayList<>(judged(recipes.subList(0, Math.min(2, recipes.size())), note, plan));
        Judged last = judged.get(judged.size() - 1);
        if (last.measured() > Math.max(1, AGREED * last.quick) && !soon) {
            judged.addAll(judged(recipes.subList(judged.size(), Math.min(MOST_JUDGED, recipes.size())), note, plan));
        }
        double first = judged.get(0).measured();
        return judged.stream()
                .filter(j -> j.measured() <= first)
                .min(Comparator.comparingDouble(j -> j.measured() + j.quick))
                .orElseThrow();
    }

    private static List<Judged> judged(List<Recipe> recipes, OneNote note, FitOptions plan) {
        return recipes.parallelStream().map(r -> judged(r, note, plan)).toList();
    }

    /**
     * A recipe as loud as the recording, and its distance by both ears [JND].
     *
     * @param comparison from a fresh measurement; null if there is nothing to be measured
     */
    private record Judged(Recipe recipe, Comparison comparison, double quick) {
        double measured() {
            return comparison == null ? JndThresholds.MOST : comparison.totalJnd();
        }
    }

    private static Judged judged(Recipe found, OneNote note, FitOptions plan) {
        AnalysedSound recording = note.recording();
        Recipe r = plan.isLevelFree() ? ImitationRenderer.asLoud(found, recording) : found;
        double quick = PerceptualResiduals.total(note.differences(r));
        try {
            AnalysedSound imitation = ImitationRenderer.rendered(ImitationRenderer.render(plan.with(r), recording));
            return new Judged(r, PerceptualComparator.compare(recording, imitation), quick);
        } catch (UnusableSound silent) {
            return new Judged(r, null, quick);
        }
    }
}
