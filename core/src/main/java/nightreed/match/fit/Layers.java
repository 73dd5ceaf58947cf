package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import nightreed.machine.Machine;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.method.Methods;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** A second recipe under the first, for what the first leaves over; then both are polished, each beside the other. */
public final class Layers {
    private static final double HEARD_SECONDS = 2.5;

    /** What may be spent, and the least of it, as {@link RenderCost} counts. */
    private static final double AMOUNT = 1700;

    private static final double LEAST_AMOUNT = 260;

    /** Of the distance; a second layer that brings less is not worth its voices. */
    private static final double WORTH = 0.05;

    /** Of the energy [%]; less is hardly heard. */
    private static final double LEAST_SHARE = 0.1;

    private final AnalysedSound recording;
    private final PerceptualResiduals ear;
    private final Budget budget;
    private final Progress progress;
    private final Machine machine;
    private final Set<String> locked;

    private Layers(AnalysedSound recording, FitOptions plan, Progress progress) {
        this.recording = recording;
        this.ear = new PerceptualResiduals(recording, HEARD_SECONDS);
        this.progress = progress;
        this.machine = plan.machine();
        this.locked = plan.locked();
        this.budget = new Budget(Math.max(LEAST_AMOUNT, plan.effort() * AMOUNT), progress);
    }

    /**
     * Two recipes together.
     *
     * @param patch      one layer where a second would bring nothing
     * @param imitation  rendered as the recording is laid out in time
     * @param comparison recording against imitation, measured afresh
     * @param carries    what each layer carries, in plain words
     */
    public record Layered(Patch patch, Clip imitation, Comparison comparison, List<String> carries) {}

    /**
     * @param first the fit that a second layer is put under; what the plan locks of it stays
     * @throws UnusableSound if nothing can be measured of what is rendered
     */
    public static Layered of(AnalysedSound recording, Fitted first, FitOptions plan, Progress progress)
            throws UnusableSound {
        return Fits.supervised(progress, plan, control -> new Layers(recording, plan, control).run(first));
    }

    private Layered run(Fitted first) throws UnusableSound {
        progress.report(0, "what the first layer leaves over");
        Clip base = alone(first.recipe());
        Candidate second = null;
        for (String method : List.of("formant", "resonators", "subtractive")) {
            if (!method.equals(first.method()) && machine.can(method)) {
                Candidate p = under(method, base);
                second = second == null || p != null && p.total() < second.total() ? p : second;
            }
        }
        Layered one = heard(Patch.of(first.recipe()));
        if (second == null) {
            return one;
        }
        // the first gives way to the second
        RenderedLeastSquares polish =
                new RenderedLeastSquares(new OneNote(ear, alone(second.recipe())), budget, progress, machine);
        Recipe r = first.recipe();
        List<String> stage = Methods.of(r).stages(r).get(Methods.of(r).stages(r).size() - 1).stream()
                .filter(id -> !locked.contains(id))
                .toList();
        Candidate together = polish.run(polish.at(r), Methods.of(r).anchors(r), stage, 4);
        progress.report(0.9, "listening");
        Layered two = heard(new Patch(List.of(Layer.of(together.recipe()), Layer.of(second.recipe()))));
        double gain = 1 - two.comparison.totalJnd() / Math.max(1e-9, one.comparison.totalJnd());
        return gain > WORTH ? heard(asLoud(two)) : one;
    }

    /** Both moved by what is lacking of the recording's loudness, as far as their levels reach. */
    private static Patch asLoud(Layered layered) {
        double db = layered.comparison.gainDb();
        for (Layer l : layered.patch.layers()) {
            Parameter level = l.recipe().setting("level").parameter();
            double now = l.recipe().levelDb();
            db = Math.max(level.least() - now, Math.min(level.most() - now, db));
        }
        double by = db;
        return new Patch(layered.patch.layers().stream()
                .map(l -> Layer.of(l.recipe().with("level", l.recipe().levelDb() + by)))
                .toList());
    }

    private Clip alone(Recipe recipe) {
        return new OneNote(ear).render(recipe);
    }

    /** The best of a method beside what is there; null if it has nothing to begin with. */
    private Candidate under(String method, Clip base) {
        OneNote note = new OneNote(ear, base);
        RenderedLeastSquares polish = new RenderedLeastSquares(note, budget, progress, machine);
        List<Recipe> starts = new ArrayList<>();
        try {
            for (Recipe r : Starts.several(method, recording, true, progress)) {
                Recipe asLoud = Starts.levelled(r, recording);
                starts.add(asLoud.with("level", asLoud.levelDb() - 15));
            }
        } catch (UnusableSound nothing) {
            return null;
        }
        List<Candidate> points = new ArrayList<>(polish.at(starts));
        points.sort(Comparator.comparingDouble(Candidate::total));
        Candidate best = points.get(0);
        best = BandLevelFit.levelled(polish, note, best);
        List<String> ids =
                new ArrayList<>(Methods.of(best.recipe()).stages(best.recipe()).get(0));
        ids.add("level");
        return polish.run(best, Methods.of(best.recipe()).anchors(best.recipe()), ids, 4);
    }

    private Layered heard(Patch patch) throws UnusableSound {
        Clip imitation = ImitationRenderer.render(patch, recording);
        Comparison c = PerceptualComparator.compare(recording, ImitationRenderer.rendered(imitation));
        return new Layered(patch, imitation, c, carries(patch));
    }

    /** Shares of the energy, of all and of the first 30 ms. */
    private List<String> carries(Patch patch) {
        List<double[]> sounds = new ArrayList<>();
        double[] all = new double[2];
        int early = (int) (0.03 * recording.measurement().sampleRateHz());
        for (Layer l : patch.layers()) {
            double[] x = alone(l.recipe()).mixed();
            double[] energy = new double[2];
            for (int i = 0; i < x.length; i++) {
                energy[0] += x[i] * x[i];
                energy[1] += i < early ? x[i] * x[i] : 0;
            }
            all[0] += energy[0];
            all[1] += energy[1];
            sounds.add(energy);
        }
        List<String> out = new ArrayList<>();
        for (int i = 0; i < sounds.size(); i++) {
            String method = patch.layers().get(i).recipe().method();
            double whole = 100 * sounds.get(i)[0] / Math.max(1e-20, all[0]);
            double start = 100 * sounds.get(i)[1] / Math.max(1e-20, all[1]);
            out.add(
                    Math.max(whole, start) < LEAST_SHARE
                            ? method + ": hardly heard, the other does nearly as well alone"
                            : String.format(
                                    Locale.ROOT,
                                    "%s: %.1f %% of the energy, %.1f %% of that of the first 30 ms",
                                    method,
                                    whole,
                                    start));
        }
        return out;
    }
}
