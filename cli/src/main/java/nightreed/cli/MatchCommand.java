package nightreed.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.stream.IntStream;
import nightreed.files.OutputFile;
import nightreed.files.Shown;
import nightreed.files.Written;
import nightreed.machine.Machine;
import nightreed.match.Match;
import nightreed.match.Matcher;
import nightreed.match.advice.Adviser;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.LimitCosts;
import nightreed.match.advice.LimitCosts.Price;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Heard;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.fit.JointFit.Result;
import nightreed.match.fit.Layers;
import nightreed.match.fit.Layers.Layered;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.JointPatches;
import nightreed.match.frontier.Wanted;
import nightreed.match.hearing.Use;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.music.Pitch;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.recipe.size.PatchSize;
import nightreed.sheet.ReportJson;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "match", description = "Fits an imitation to a recorded note; writes recipe, sound and report.")
final class MatchCommand implements Callable<Integer> {
    /** Methods that can be fitted; auto takes the nearest of them. */
    enum Method {
        AUTO,
        RESONATORS,
        FM,
        RING,
        FORMANT,
        STRING,
        SUBTRACTIVE
    }

    /** Of a limit, what the search for the first layer gets where there are two; chosen. */
    private static final double SHARE_OF_FIRST_LAYER = 0.6;

    /** What a second layer gets at least [s]. */
    private static final double LEAST_SECONDS = 0.5;

    @Spec
    CommandSpec spec;

    @Parameters(
            paramLabel = "IN",
            arity = "1..*",
            description =
                    "Recording; several of one instrument are fitted together, with what follows key and strength.")
    List<Path> in;

    @Option(names = "--method", description = "One of ${COMPLETION-CANDIDATES}; auto by default.")
    Method method = Method.AUTO;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key the recording stands for (57 or A3), where it is not the nearest one.")
    Integer key;

    @Option(
            names = "--seconds",
            paramLabel = "N",
            description = "Time the search may take [s]; as long as it needs by default.")
    Double seconds;

    @Option(
            names = "--size",
            paramLabel = "N",
            description = "The nearest patch of at most N values that a hand has to set.")
    Integer size;

    @Option(
            names = "--simplest",
            paramLabel = "JND",
            description = "The patch with the fewest values that is at least so near [JND].")
    Double simplest;

    @Option(
            names = "--use",
            description =
                    "What it is for, one of ${COMPLETION-CANDIDATES}: what is nearer than it asks for is not paid for with values.")
    Use use = Use.ALONE;

    @Option(
            names = "--follow",
            description = "Formant bands take their courses from the recording: an effect, which no hand can set.")
    boolean follow;

    @Option(
            names = "--layers",
            paramLabel = "N",
            description = "1, or 2 to put a second recipe under the nearest where it brings something.")
    int layers = 1;

    @Option(
            names = "--machine",
            paramLabel = "FILE",
            description = "Limits of a machine (JSON): what is found can be played on it, and what it lacks is priced.")
    Path machine;

    @Option(
            names = "--keys",
            paramLabel = "KEY",
            split = ",",
            converter = KeyConverter.class,
            description = "Keys of several recordings, in their order; as measured by default.")
    List<Integer> keys = List.of();

    @Option(
            names = "--strengths",
            paramLabel = "V",
            split = ",",
            description =
                    "Strengths of several recordings, 0 to 1, in their order; as their loudness tells by default.")
    List<Double> strengths = List.of();

    @Mixin
    FileLevel level;

    @Option(names = "--out", paramLabel = "DIR", required = true, description = "Folder for the results.")
    Path out;

    @Mixin
    Span span;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, UnusableRecipe, IOException {
        PrintWriter err = spec.commandLine().getErr();
        if (seconds != null && !(seconds > 0)) {
            throw new ParameterException(spec.commandLine(), "--seconds must be above 0, got " + seconds);
        }
        if (size != null && size < 1 || simplest != null && !(simplest > 0)) {
            throw new ParameterException(
                    spec.commandLine(), "--size must be 1 or more, and --simplest above 0: see --help");
        }
        if (size != null && simplest != null) {
            throw new ParameterException(
                    spec.commandLine(), "--size and --simplest ask for two things: give one of them");
        }
        if (follow && method != Method.AUTO && method != Method.FORMANT) {
            throw new ParameterException(spec.commandLine(), "--follow is for formant bands: --method formant");
        }
        if (layers != 1 && layers != 2) {
            throw new ParameterException(spec.commandLine(), "--layers must be 1 or 2, got " + layers);
        }
        if (Files.exists(out) && !Files.isDirectory(out)) {
            throw new IOException(Shown.of(out) + " is a file, and --out names a folder: choose another name.");
        }
        for (String result : List.of("recipe.json", "imitation.wav", "report.json")) {
            List<Path> inputs = new ArrayList<>(in);
            inputs.add(machine);
            results.check(out.resolve(result), inputs);
        }
        for (int i = 1; Files.exists(out.resolve(ReportJson.frontierFile(i))); i++) {
            results.check(out.resolve(ReportJson.frontierFile(i)), in);
        }
        List<String> methods = follow
                ? List.of("formant")
                : method == Method.AUTO ? Starts.METHODS : List.of(method.name().toLowerCase(Locale.ROOT));
        FitOptions usual = follow ? FitOptions.USUAL.following() : FitOptions.USUAL;
        FitOptions plan = (seconds == null ? usual : usual.within(seconds)).on(machine());
        return in.size() == 1 ? one(methods, plan, err) : several(methods, plan, err);
    }

    private Machine machine() throws UnusableRecipe {
        return machine == null ? Machine.ANY : RecipeFiles.machine(machine);
    }

    private int one(List<String> methods, FitOptions plan, PrintWriter err) throws UnusableSound, IOException {
        if (!keys.isEmpty() || !strengths.isEmpty()) {
            throw new ParameterException(
                    spec.commandLine(), "--keys and --strengths are for several recordings; one has --note");
        }
        Clip clip = span.read(in.get(0), err);
        long start = System.nanoTime();
        FitOptions first = layers == 2 && seconds != null ? plan.within(SHARE_OF_FIRST_LAYER * seconds) : plan;
        Match match = Matcher.match(clip, methods, first, new Wanted(use, size, simplest), Out.progress(err));
        Recipe recipe = key != null && match.recipe() instanceof ResonatorRecipe r ? r.onKey(key) : match.recipe();
        if (key != null && recipe.key() != key) {
            err.println("The recipe stays on key " + recipe.key() + ": only resonators can be put on another one.");
        }
        ObjectNode report = ReportJson.report(match);
        PrintWriter screen = spec.commandLine().getOut();
        for (Ranked r : match.ranking()) {
            screen.printf(
                    Locale.ROOT,
                    "%-12s %4d values %5.2f JND all together, worst in %s (%.2f JND); %s; %.1f s%n",
                    r.fitted().method(),
                    PatchSize.of(r.fitted().recipe()),
                    r.fitted().comparison().totalJnd(),
                    r.fitted().comparison().worst().title(),
                    r.fitted().comparison().worstJnd(),
                    Adviser.cost(r.fitted().recipe()),
                    r.fitted().seconds());
        }
        screen.println(match.frontier().words(point(match), match.recipe().method()));
        if (size != null && match.size() > size) {
            err.println("No patch of " + size + " values was found; this is the simplest, of " + match.size() + ".");
        }
        if (simplest != null && match.comparison().totalJnd() > simplest) {
            err.println("No patch within " + simplest + " JND was found; this is the nearest.");
        }
        if (PatchSize.followsRecording(match.recipe())) {
            screen.println("It follows the recording: stored courses, which no hand can set.");
        }
        if (machine != null) {
            AnalysedSound recording = ImitationRenderer.side(clip, Progress.NONE);
            List<Price> prices = LimitCosts.of(recording, match.best(), plan, Out.progress(err));
            ReportJson.machine(plan.machine(), prices, report);
            prices.forEach(price -> screen.println(price.words()));
        }
        Layered two = layers == 2 ? layered(clip, match, left(plan, start), err) : null;
        if (two != null) {
            ReportJson.layers(two, report);
            screen.printf(
                    Locale.ROOT,
                    "%-12s %5.2f JND all together; %s%n",
                    two.patch().layers().size() == 2 ? "two layers" : "one is enough",
                    two.comparison().totalJnd(),
                    String.join("; ", two.carries()));
        }
        boolean both = two != null && two.patch().layers().size() == 2;
        OutputFile.write(out.resolve("recipe.json"), both ? RecipeJson.text(two.patch()) : RecipeJson.text(recipe));
        level.write(
                both ? two.imitation() : match.imitation(),
                both ? two.patch() : Patch.of(match.recipe()),
                out.resolve("imitation.wav"),
                err);
        writeFrontier(match.frontier().points());
        OutputFile.write(out.resolve("report.json"), report.toPrettyString());
        return 0;
    }

    /** Points of an earlier run that this one has no more of are taken away. */
    private void writeFrontier(List<Point> points) throws IOException {
        for (int i = 0; i < points.size(); i++) {
            OutputFile.write(
                    out.resolve(ReportJson.frontierFile(i + 1)),
                    RecipeJson.text(points.get(i).recipe()));
        }
        for (int i = points.size() + 1; Files.exists(out.resolve(ReportJson.frontierFile(i))); i++) {
            Path old = out.resolve(ReportJson.frontierFile(i));
            if (!Written.byAnother(old)) {
                Files.delete(old);
            }
        }
    }

    /** The best as a point of the frontier. */
    private static Point point(Match match) {
        return match.frontier().points().stream()
                .filter(p -> p.recipe().equals(match.recipe()))
                .findFirst()
                .orElse(new Point(
                        match.size(), match.recipe(), match.comparison().totalJnd()));
    }

    private int several(List<String> methods, FitOptions plan, PrintWriter err) throws UnusableSound, IOException {
        if (key != null || layers != 1) {
            throw new ParameterException(
                    spec.commandLine(), "several recordings have --keys, and one layer: leave out --note and --layers");
        }
        List<Note> notes = notes(err);
        JointPatches.Found found = JointPatches.best(methods, notes, plan, Out.progress(err));
        Point chosen = new Wanted(use, size, simplest).of(found.frontier());
        Result best = found.result(chosen);
        ObjectNode report = ReportJson.together(
                best, found.frontier(), in.stream().map(Path::toString).toList());
        PrintWriter screen = spec.commandLine().getOut();
        screen.printf(
                Locale.ROOT,
                "%s, mean of %d notes%n",
                found.frontier().words(chosen, best.recipe().method()),
                notes.size());
        for (int i = 0; i < in.size(); i++) {
            Heard h = best.notes().get(i);
            screen.printf(
                    Locale.ROOT,
                    "%-24s key %d, strength %.2f: %5.2f JND, worst in %s (%.2f JND)%n",
                    in.get(i).getFileName(),
                    h.note().key(),
                    h.note().velocity(),
                    h.comparison().totalJnd(),
                    h.comparison().worst().title(),
                    h.comparison().worstJnd());
        }
        best.maps().forEach((id, value) -> screen.printf(Locale.ROOT, "%-24s %.3f%n", id, value));
        OutputFile.write(out.resolve("recipe.json"), RecipeJson.text(best.recipe()));
        level.write(best.imitation(), Patch.of(best.recipe()), out.resolve("imitation.wav"), err);
        writeFrontier(found.frontier().points());
        OutputFile.write(out.resolve("report.json"), report.toPrettyString());
        return 0;
    }

    private List<Note> notes(PrintWriter err) throws UnusableSound {
        if (!keys.isEmpty() && keys.size() != in.size() || !strengths.isEmpty() && strengths.size() != in.size()) {
            throw new ParameterException(
                    spec.commandLine(),
                    "there are " + in.size() + " recordings: give as many --keys and --strengths, or none");
        }
        for (double v : strengths) {
            if (!(v > 0 && v <= 1)) {
                throw new ParameterException(spec.commandLine(), "strengths must be above 0, up to 1, got " + v);
            }
        }
        List<AnalysedSound> sides = new ArrayList<>();
        List<Integer> on = new ArrayList<>(keys);
        for (Path file : in) {
            AnalysedSound side = ImitationRenderer.side(span.read(file, err), Out.progress(err));
            Double f0 = side.measurement().f0Hz();
            if (keys.isEmpty() && f0 == null) {
                throw new UnusableSound(file + " has no pitch that could be found: give --keys for all recordings.");
            }
            if (keys.isEmpty()) {
                on.add(Pitch.nearestKey(f0));
            }
            sides.add(side);
        }
        List<Double> v = strengths.isEmpty() ? JointFit.strengths(sides, on) : strengths;
        return IntStream.range(0, sides.size())
                .mapToObj(i -> new Note(sides.get(i), on.get(i), v.get(i), !strengths.isEmpty()))
                .toList();
    }

    /** What is left of a limit. */
    private FitOptions left(FitOptions plan, long start) {
        double gone = (System.nanoTime() - start) / 1e9;
        return seconds == null ? plan : plan.within(Math.max(LEAST_SECONDS, seconds - gone));
    }

    private static Layered layered(Clip clip, Match match, FitOptions plan, PrintWriter err) throws UnusableSound {
        AnalysedSound recording = ImitationRenderer.side(clip, Progress.NONE);
        return Layers.of(recording, match.best(), plan, Out.progress(err));
    }
}
