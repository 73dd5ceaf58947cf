package nightreed.match.advice;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import nightreed.machine.Machine;
import nightreed.match.advice.Tolerances.Span;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.Budget;
import nightreed.match.fit.CoordinateRestarts;
import nightreed.match.fit.OneNote;
import nightreed.match.fit.PerceptualResiduals;
import nightreed.match.fit.RenderedLeastSquares;
import nightreed.match.fit.RenderedLeastSquares.Axis;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.hearing.Aspect;
import nightreed.match.method.Methods;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/**
 * What each value of a recipe does to the sound beside a recording: how far it may move before that is heard, how strongly it
 * moves the match, and which single change would help most. Works for every method, by renders.
 */
public final class Sensitivity {
    private static final double HEARD_SECONDS = 1.5;

    /** The same where much is tried, and little of it is likely. */
    private static final double BRIEFLY_SECONDS = 0.5;

    /** Share of a ruler whose effect is shown. */
    private static final double SHOWN_STEP = 0.05;

    /** Moves that are tried by the quick ear, that are measured side by side and in all, and that are shown. */
    private static final int TRIED = 12;

    private static final int MEASURED = 4;
    private static final int MOST_MEASURED = 12;
    private static final int SHOWN = 3;
    private static final double WORTH_JND = 0.01;

    /** Values whose spans are checked by renders: those that move the match most. */
    private static final int CHECKED = 12;

    /** Where the best of the small moves gains no more than this share of the total, large ones are tried. */
    private static final double LITTLE = 0.05;

    private final AnalysedSound recording;
    private final Patch patch;
    private final PerceptualResiduals ear;
    private final RenderedLeastSquares polish;
    private final Candidate now;
    private final List<Axis> axes;
    private final double[][] slopes;
    private final Set<String> locked;

    private Sensitivity(AnalysedSound recording, Patch patch, Set<String> locked, Progress progress) {
        Recipe recipe = patch.first();
        this.recording = recording;
        this.patch = patch;
        this.locked = locked;
        ear = new PerceptualResiduals(recording, HEARD_SECONDS);
        polish = polish(patch, ear, progress.part(0.05, 0.5));
        now = polish.at(recipe);
        progress.report(0.05, "what each value does");
        axes = RenderedLeastSquares.axes(recipe, Methods.of(recipe).advised(recipe));
        slopes = polish.slopes(now, Map.of(), axes);
        progress.report(0.5, "what each value does");
    }

    private static RenderedLeastSquares polish(Patch patch, PerceptualResiduals ear, Progress progress) {
        return new RenderedLeastSquares(
                OneNote.within(patch, ear), Budget.endless(progress), Progress.NONE, Machine.ANY);
    }

    /**
     * @param locked   values that no move may touch
     * @param progress asked between renders whether to go on
     */
    public static Sensitivity of(AnalysedSound recording, Recipe recipe, Set<String> locked, Progress progress) {
        return of(recording, Patch.of(recipe), locked, progress);
    }

    /** Of the values of a patch's first layer, beside the others. */
    public static Sensitivity of(AnalysedSound recording, Patch patch, Set<String> locked, Progress progress) {
        return new Sensitivity(recording, patch, locked, progress);
    }

    /** How far each value may move before it is heard, by id. */
    public Map<String, Span> spans() {
        List<Integer> byEffect = new ArrayList<>();
        for (int i = 0; i < axes.size(); i++) {
            byEffect.add(i);
        }
        byEffect.sort(Comparator.comparingDouble(i -> -effect(i)));
        Set<Integer> checked = Set.copyOf(byEffect.subList(0, Math.min(CHECKED, byEffect.size())));
        Span[] found = new Span[axes.size()];
        IntStream.range(0, found.length).parallel().forEach(i -> found[i] = span(i, checked.contains(i)));
        Map<String, Span> out = new LinkedHashMap<>();
        for (int i = 0; i < found.length; i++) {
            out.put(axes.get(i).parameter().id(), found[i]);
        }
        return out;
    }

    private Span span(int i, boolean checked) {
        Axis a = axes.get(i);
        double up = edge(a, i, 1, checked);
        double down = edge(a, i, -1, checked);
        Parameter p = a.parameter();
        double at = p.position(a.value());
        return new Span(p.at(at - down), p.at(at + up), effect(i));
    }

    /** How far the total rises when the value moves by a twentieth of its ruler, as the slopes foretell it [JND]. */
    private double effect(int axis) {
        double step = SHOWN_STEP / axes.get(axis).large();
        return Math.max(0, Math.max(totalAt(axis, step), totalAt(axis, -step)) - now.total());
    }

    /** Total after a step of so many large ones, as the slopes foretell it [JND]. */
    private double totalAt(int axis, double steps) {
        double[] d = now.differences().clone();
        for (int k = 0; k < d.length; k++) {
            d[k] += steps * slopes[axis][k];
        }
        return PerceptualResiduals.total(d);
    }

    /** Place on the ruler, from the value, where the change is heard: foretold by the slope, then corrected by a render. */
    private double edge(Axis a, int axis, int direction, boolean checked) {
        double at = a.parameter().position(a.value());
        double room = direction > 0 ? 1 - at : at;
        double one = ear.worst(slopes[axis]) / a.large(); // JND for the whole ruler
        double place = Math.min(room, one > 0 ? 1 / one : room);
        if (checked && place > 0) {
            double heard = heard(a, direction * place);
            if (heard >= 1 || place < room) {
                double factor = heard > 1e-6 ? 1 / heard : 4;
                place = Math.min(room, place * Math.max(0.25, Math.min(4, factor)));
            }
        }
        return place;
    }

    private double heard(Axis a, double by) {
        try {
            double[] d = polish.at(a.moved(now.recipe(), by)).differences();
            for (int k = 0; k < d.length; k++) {
                d[k] -= now.differences()[k];
            }
            return ear.worst(d);
        } catch (IllegalArgumentException touchesAnother) {
            return 4;
        }
    }

    /**
     * The single changes that help most, the best first, each checked by a render that was measured afresh.
     *
     * @param comparison of the recipe as it is
     * @return at most three; empty if none does
     */
    public List<Move> moves(Comparison comparison, Progress progress) {
        List<Trial> trials = new ArrayList<>();
        for (int i = 0; i < axes.size(); i++) {
            if (!locked.contains(axes.get(i).parameter().id())) {
                trials.add(trial(i));
            }
        }
        trials.sort(Comparator.comparingDouble(Trial::total));
        List<Trial> tried = new ArrayList<>(trials.subList(0, Math.min(TRIED, trials.size())).parallelStream()
                .map(this::better)
                .toList());
        tried.addAll(choices());
        tried.removeIf(t -> !(t.total < now.total()));
        tried.sort(Comparator.comparingDouble(Trial::total));
        progress.report(0.7, "trying moves");
        List<Move> moves = new ArrayList<>(helping(tried, comparison, progress));
        if (moves.stream().allMatch(m -> m.gainJnd() < LITTLE * comparison.totalJnd())) {
            progress.report(0.8, "trying bolder moves");
            moves.addAll(helping(leaps(progress), comparison, progress));
            moves.sort(Comparator.comparingDouble(m -> -m.gainJnd()));
        }
        Set<String> told = new HashSet<>();
        moves.removeIf(m -> !told.add(m.parameter().id())); // one for each value
        return List.copyOf(moves.subList(0, Math.min(SHOWN, moves.size())));
    }

    /** A few at a time, the likeliest first, until one is measured to help; the best first. */
    private List<Move> helping(List<Trial> trials, Comparison comparison, Progress progress) {
        for (int from = 0; from < Math.min(MOST_MEASURED, trials.size()); from += MEASURED) {
            progress.report(0.8, "trying moves");
            List<Move> moves = trials.subList(from, Math.min(from + MEASURED, trials.size())).parallelStream()
                    .map(t -> measured(t, comparison))
                    .filter(m -> m.gainJnd() > WORTH_JND)
                    .sorted(Comparator.comparingDouble(m -> -m.gainJnd()))
                    .toList();
            if (!moves.isEmpty()) {
                return moves;
            }
        }
        return List.of();
    }

    /** Each value far from where it is, at the best place of a few; a first choice of them is made by a brief look. */
    private List<Trial> leaps(Progress progress) {
        RenderedLeastSquares brief =
                polish(patch, new PerceptualResiduals(recording, BRIEFLY_SECONDS), progress.part(0.8, 0.9));
        List<Trial> all = axes.parallelStream()
                .filter(a -> !locked.contains(a.parameter().id()))
                .map(a -> leap(brief, a))
                .sorted(Comparator.comparingDouble(Trial::total))
                .toList();
        return all.subList(0, Math.min(TRIED, all.size())).parallelStream()
                .map(t -> new Trial(t.parameter, t.from, t.to, total(polish, t.parameter.id(), t.to)))
                .filter(t -> t.total < now.total())
                .sorted(Comparator.comparingDouble(Trial::total))
                .toList();
    }

    private Trial leap(RenderedLeastSquares by, Axis a) {
        Parameter p = a.parameter().around(a.value());
        Trial best = new Trial(a.parameter(), a.value(), a.value(), Double.POSITIVE_INFINITY);
        for (double place : CoordinateRestarts.PLACES) {
            double to = p.at(place);
            double total = total(by, p.id(), to);
            best = total < best.total ? new Trial(a.parameter(), a.value(), to, total) : best;
        }
        return best;
    }

    /** A value moved. @param total by the quick ear [JND] */
    private record Trial(Parameter parameter, double from, double to, double total) {}

    /** To where the slopes see the least difference. */
    private Trial trial(int i) {
        Axis a = axes.get(i);
        double steep = RenderedLeastSquares.dot(slopes[i], slopes[i]);
        double steps = steep > 1e-9 ? -RenderedLeastSquares.dot(slopes[i], now.differences()) / steep : 0;
        steps = Math.max(-2, Math.min(2, steps));
        Parameter p = a.parameter();
        double to = p.at(p.position(a.value()) + steps * a.large());
        return new Trial(p, a.value(), to, totalAt(i, steps));
    }

    /** The better one of the whole way and half of it, rendered. */
    private Trial better(Trial t) {
        Parameter p = t.parameter;
        double half = p.at((p.position(t.from) + p.position(t.to)) / 2);
        Trial best = new Trial(p, t.from, t.from, Double.POSITIVE_INFINITY);
        for (double to : new double[] {t.to, half}) {
            double total = total(polish, p.id(), to);
            best = total < best.total ? new Trial(p, t.from, to, total) : best;
        }
        return best;
    }

    private double total(RenderedLeastSquares by, String id, double to) {
        try {
            return by.at(now.recipe().with(id, to)).total();
        } catch (IllegalArgumentException touchesAnother) {
            return Double.POSITIVE_INFINITY;
        }
    }

    /** Other waves, slopes and kinds. */
    private List<Trial> choices() {
        List<Trial> all = new ArrayList<>();
        for (Recipe.Setting s : now.recipe().settings()) {
            Parameter p = s.parameter();
            String id = p.id();
            boolean shapes = id.endsWith(".wave") || id.endsWith(".slope") || id.endsWith(".kind");
            for (int c = 0; c < p.choices().size() && shapes && !locked.contains(id); c++) {
                if (c != (int) s.value()) {
                    all.add(new Trial(p, s.value(), c, Double.POSITIVE_INFINITY));
                }
            }
        }
        return all.parallelStream()
                .map(t -> new Trial(t.parameter, t.from, t.to, total(polish, t.parameter.id(), t.to)))
                .toList();
    }

    private Move measured(Trial t, Comparison before) {
        Recipe moved = now.recipe().with(t.parameter.id(), t.to);
        try {
            Comparison after = PerceptualComparator.compare(
                    recording, ImitationRenderer.imitation(recording, patch.withFirst(moved)));
            double gain = before.totalJnd() - after.totalJnd();
            return new Move(t.parameter, t.from, t.to, after.totalJnd(), gain, why(t, before, after));
        } catch (UnusableSound silent) {
            return new Move(t.parameter, t.from, t.to, Double.POSITIVE_INFINITY, -1, "");
        }
    }

    /** What becomes better most, in numbers, and what the value does. */
    private static String why(Trial t, Comparison before, Comparison after) {
        Aspect most = Aspect.PITCH;
        double fall = Double.NEGATIVE_INFINITY;
        for (Aspect a : Aspect.values()) {
            double f = before.jnd(a) * before.jnd(a) - after.jnd(a) * after.jnd(a);
            if (f > fall) {
                fall = f;
                most = a;
            }
        }
        String title = most.title().substring(0, 1).toUpperCase(Locale.ROOT)
                + most.title().substring(1);
        return String.format(
                Locale.ROOT,
                "%s: from %.1f to %.1f JND. %s",
                title,
                before.jnd(most),
                after.jnd(most),
                t.parameter.meaning());
    }
}
