package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.method.Methods;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;

/**
 * One recipe for several recordings of an instrument: fitted to the middle one first, then to all of them at once, with what
 * follows key and strength among the values that are searched.
 */
public final class JointFit {
    /** Seconds after the onset of each note that a search listens to. */
    public static final double HEARD_SECONDS = 2;

    private static final double SOUND_SECONDS = 900;

    /** Span after the onset whose loudness tells how strength moves the level [s]. */
    private static final double LOUD_SECONDS = 0.6;

    /** Level over strength, by id. */
    private static final String LEVEL = "velocity.level";

    private final AnalysedSound middle;
    private final List<Note> notes;
    private final Note reference;
    private final SeveralNotes trial;

    private final Patch around; // other layers that sound beside it; null for none

    private JointFit(List<Note> notes, Note reference, FitOptions plan) {
        this.notes = List.copyOf(notes);
        this.reference = reference;
        this.middle = reference.recording();
        this.around = plan.around();
        this.trial = new SeveralNotes(notes, reference, HEARD_SECONDS, plan.around());
    }

    /**
     * One of the recordings.
     *
     * @param key      that was struck (MIDI number)
     * @param velocity how hard it was struck, 0 to 1
     * @param told     whether that is known; if it was taken from the loudness, it cannot tell what strength does to the level
     */
    public record Note(AnalysedSound recording, int key, double velocity, boolean told) {
        /** Of known strength. */
        public Note(AnalysedSound recording, int key, double velocity) {
            this(recording, key, velocity, true);
        }
    }

    /**
     * One of the recordings against the recipe.
     *
     * @param levelDb how much louder the recording is than the recipe makes it [dB]
     */
    public record Heard(Note note, Comparison comparison, double levelDb) {}

    /**
     * What came out.
     *
     * @param imitation of the middle recording, laid out as it is
     * @param notes     in the order they were given
     * @param maps      what follows key and strength, by id; only what these notes can tell
     * @param seconds   time it took [s]
     */
    public record Result(Recipe recipe, Clip imitation, List<Heard> notes, Map<String, Double> maps, double seconds) {
        /** Mean of the distances [JND]. */
        public double meanJnd() {
            return notes.stream()
                    .mapToDouble(n -> n.comparison().totalJnd())
                    .average()
                    .orElse(JndThresholds.MOST);
        }
    }

    /** The recording that the others are seen from: near the middle of the keys, and of the strengths on it. */
    public static Note middle(List<Note> notes) {
        double key =
                notes.stream().mapToInt(Note::key).sorted().boxed().toList().get((notes.size() - 1) / 2);
        double strength = notes.stream().mapToDouble(Note::velocity).average().orElseThrow();
        return notes.stream()
                .min(Comparator.comparingDouble(n -> Math.abs(n.key() - key) + Math.abs(n.velocity() - strength)))
                .orElseThrow();
    }

    /**
     * @param method    one of the six
     * @param notes     two or more
     * @param reference the one of them whose key is the recipe's
     * @throws UnusableSound if that recording gives nothing to build on
     */
    public static Result of(String method, List<Note> notes, Note reference, FitOptions plan, Progress progress)
            throws UnusableSound {
        if (notes.size() < 2) {
            throw new IllegalArgumentException("fitting together needs two notes or more, got " + notes.size());
        }
        return new JointFit(notes, reference, plan).run(method, plan, progress);
    }

    /**
     * Strengths of notes that nobody has told: by loudness among those of one key, as the usual map of strength has it; the
     * usual strength for a note that is alone on its key.
     *
     * @param keys of the notes, in their order
     */
    public static List<Double> strengths(List<AnalysedSound> recordings, List<Integer> keys) {
        List<Double> out = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            int key = keys.get(i);
            double mean = IntStream.range(0, keys.size())
                    .filter(k -> keys.get(k) == key)
                    .mapToDouble(k -> recordings.get(k).measurement().loudnessLufs())
                    .average()
                    .orElseThrow();
            double above = recordings.get(i).measurement().loudnessLufs() - mean;
            double v = VelocityMap.USUAL.reference() + above / VelocityMap.USUAL.levelDb();
            out.add(Double.isFinite(v) ? Math.max(0.1, Math.min(1, v)) : VelocityMap.USUAL.reference());
        }
        return out;
    }

    /**
     * Of several methods the two that come nearest to the middle recording are fitted to all; the nearer one is kept.
     *
     * @throws UnusableSound if none of the methods has anything to begin with
     */
    public static Result best(Collection<String> methods, List<Note> notes, FitOptions plan, Progress progress)
            throws UnusableSound {
        if (methods.size() == 1) {
            return of(methods.iterator().next(), notes, middle(notes), plan, progress);
        }
        long start = System.nanoTime();
        List<Fitted> alone =
                Fits.of(methods, middle(notes).recording(), plan.within(plan.seconds() / 3), progress.part(0, 0.4));
        Result best = null;
        List<Fitted> two = alone.stream()
                .sorted(Comparator.comparingDouble(f -> f.comparison().totalJnd()))
                .limit(2)
                .toList();
        for (int i = 0; i < two.size(); i++) {
            double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
            FitOptions part = plan.within(Math.max(0.5, left / (two.size() - i)));
            Result r = new JointFit(notes, middle(notes), part)
                    .spread(two.get(i), part, progress.part(0.4 + 0.3 * i, 0.7 + 0.3 * i));
            best = best == null || r.meanJnd() < best.meanJnd() ? r : best;
        }
        return best;
    }

    private Result run(String method, FitOptions plan, Progress progress) throws UnusableSound {
        long start = System.nanoTime();
        Fitted alone = Fits.of(method, middle, plan.within(plan.seconds() / 2), progress.part(0, 0.4));
        double left = plan.seconds() - (System.nanoTime() - start) / 1e9;
        return spread(alone, plan.within(left), progress.part(0.4, 1));
    }

    /** From the middle recording to all of them. */
    private Result spread(Fitted alone, FitOptions plan, Progress progress) throws UnusableSound {
        long start = System.nanoTime();
        Recipe first = levelled(asStruck(alone.recipe()), plan);
        return Fits.supervised(progress, plan, control -> spread(first, plan, start, control));
    }

    private Result spread(Recipe first, FitOptions plan, long start, Progress progress) throws UnusableSound {
        Progress search = progress.part(0, 0.9);
        double renders = Math.max(40, plan.effort() * SOUND_SECONDS / HEARD_SECONDS);
        Budget budget = new Budget(renders * trial.cost(first) / notes.size(), search);
        RenderedLeastSquares polish = new RenderedLeastSquares(trial, budget, search, plan.machine());
        List<String> maps =
                maps(first).stream().filter(id -> !plan.locked().contains(id)).toList();
        Candidate at = polish.run(polish.at(first), Map.of(), maps, 6);
        List<String> all = new ArrayList<>(maps);
        List<List<String>> stages = Methods.of(first).stages(first);
        all.addAll(stages.get(stages.size() - 1));
        if (around != null) {
            all.add("level"); // how the layers are mixed
        }
        all.removeAll(plan.locked());
        at = polish.run(at, Methods.of(first).anchors(first), all, 6);
        progress.report(0.9, "listening to each note");
        Result one = judged(first, start);
        Result two = judged(levelled(at.recipe(), plan), start);
        return two.meanJnd() <= one.meanJnd() ? two : one;
    }

    /** With the middle recording's strength as that at which the values hold. */
    private Recipe asStruck(Recipe recipe) {
        VelocityMap v = recipe.velocity();
        double here = Math.max(0.05, Math.min(1, reference.velocity()));
        VelocityMap map = new VelocityMap(here, v.levelDb(), v.hardnessOctaves(), v.floor());
        return (Recipe) ParameterAccess.exchanged((Record) recipe, v, map);
    }

    private boolean tellsLevel() {
        return strengthsDiffer() && notes.stream().allMatch(Note::told);
    }

    private boolean strengthsDiffer() {
        return strengthsDiffer(notes);
    }

    private static boolean strengthsDiffer(List<Note> notes) {
        return notes.stream().mapToDouble(Note::velocity).distinct().count() > 1;
    }

    /** Maps that some notes can tell, by id: of the key if keys differ, of strength if strengths do. */
    public static List<String> told(Recipe recipe, List<Note> notes) {
        boolean keys = notes.stream().mapToInt(Note::key).distinct().count() > 1;
        boolean strengths = strengthsDiffer(notes);
        return maps(recipe).stream()
                .filter(id -> id.startsWith("track.") || id.endsWith(".keyTracking") ? keys : strengths)
                .toList();
    }

    /** Values that tell how a recipe follows key and strength, and that a recording can tell. */
    public static List<String> maps(Recipe recipe) {
        return recipe.settings().stream()
                .map(Recipe.Setting::parameter)
                .filter(p -> p.law() != Parameter.Law.CHOICE)
                .map(Parameter::id)
                .filter(id -> id.startsWith("track.")
                        || id.equals("velocity.hardness")
                        || id.equals("velocity.interval")
                        || id.endsWith(".keyTracking")
                        || id.endsWith(".velocityOctaves"))
                .toList();
    }

    /** With the change of level over strength that the recordings have; as it was if they are all of one strength. */
    private Recipe levelled(Recipe recipe, FitOptions plan) {
        if (plan.locked().contains(LEVEL) || !tellsLevel()) {
            return recipe;
        }
        Recipe r = recipe;
        for (int pass = 0; pass < 3; pass++) { // strength moves more than the level, and that is heard in it
            double up = 0;
            double square = 0;
            for (int key : notes.stream().mapToInt(Note::key).distinct().toArray()) {
                Recipe now = r;
                List<Note> on = notes.stream().filter(n -> n.key() == key).toList();
                double v = on.stream().mapToDouble(Note::velocity).average().orElse(0);
                double[] off =
                        on.parallelStream().mapToDouble(n -> missingDb(n, now)).toArray();
                double mean = IntStream.range(0, off.length)
                        .mapToDouble(i -> off[i])
                        .average()
                        .orElse(0);
                for (int i = 0; i < off.length; i++) {
                    up += (on.get(i).velocity() - v) * (off[i] - mean);
                    square += (on.get(i).velocity() - v) * (on.get(i).velocity() - v);
                }
            }
            if (square < 1e-3) {
                return recipe;
            }
            r = r.with(LEVEL, r.value(LEVEL) + up / square);
        }
        return r;
    }

    /** How much louder the recording is than the recipe makes it [dB]. */
    private double missingDb(Note note, Recipe recipe) {
        Measurement m = note.recording().measurement();
        double fs = m.sampleRateHz();
        double[] x = note.recording().clip().mixed();
        int onset = (int) (m.onsetSeconds() * fs);
        int n = (int) Math.min(LOUD_SECONDS * fs, x.length - onset);
        double[] y = trial.render(recipe, note, 0, n / fs).mixed();
        double want = 1e-12;
        double have = 1e-12;
        for (int i = 0; i < Math.min(n, y.length); i++) {
            want += x[onset + i] * x[onset + i];
            have += y[i] * y[i];
        }
        return 10 * Math.log10(want / have);
    }

    /**
     * How a recipe compares with each of some notes, as loud as they are together.
     *
     * @param reference the one whose key and tuning are the recipe's
     * @throws UnusableSound if nothing of it is heard
     */
    public static Result judged(Recipe recipe, List<Note> notes, Note reference, FitOptions plan) throws UnusableSound {
        return new JointFit(notes, reference, plan).judged(recipe, System.nanoTime());
    }

    private Result judged(Recipe recipe, long start) throws UnusableSound {
        // the loudness of all of them together is the recipe's level; beside other layers the level says how they are
        // mixed
        double off = around != null
                ? 0
                : notes.parallelStream()
                        .mapToDouble(n -> missingDb(n, recipe))
                        .average()
                        .orElse(0);
        Recipe r = recipe.with("level", recipe.levelDb() + off);
        List<Heard> heard = new ArrayList<>();
        for (Note n : notes) {
            Measurement m = n.recording().measurement();
            Clip clip = trial.render(r, n, m.onsetSeconds(), m.durationSeconds());
            heard.add(new Heard(
                    n, PerceptualComparator.compare(n.recording(), ImitationRenderer.rendered(clip)), missingDb(n, r)));
        }
        Map<String, Double> maps = new LinkedHashMap<>();
        if (tellsLevel()) {
            maps.put(LEVEL, r.value(LEVEL));
        }
        told(r, notes).forEach(id -> maps.put(id, r.value(id)));
        return new Result(
                PlayingLevel.set(r),
                ImitationRenderer.render(around == null ? Patch.of(r) : around.withFirst(r), middle),
                List.copyOf(heard),
                maps,
                (System.nanoTime() - start) / 1e9);
    }
}
