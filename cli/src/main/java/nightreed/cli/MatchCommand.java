package nightreed.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.match.Match;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.fit.Adviser;
import nightreed.match.fit.Adviser.Ranked;
import nightreed.match.fit.Layers;
import nightreed.match.fit.Layers.Layered;
import nightreed.match.fit.Plan;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sheet.ReportJson;
import nightreed.sound.Clip;
import nightreed.sound.SafeFiles;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import picocli.CommandLine.Command;
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

    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording.")
    Path in;

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
            description = "Time the search may take [s]; as long as it needs by default, 45 s at the most.")
    Double seconds;

    @Option(
            names = "--layers",
            paramLabel = "N",
            description = "1, or 2 to put a second recipe under the nearest where it brings something.")
    int layers = 1;

    @Option(names = "--out", paramLabel = "DIR", required = true, description = "Folder for the results.")
    Path out;

    @Override
    public Integer call() throws UnusableSound, IOException {
        PrintWriter err = spec.commandLine().getErr();
        if (seconds != null && !(seconds > 0)) {
            throw new ParameterException(spec.commandLine(), "--seconds must be above 0, got " + seconds);
        }
        List<String> methods =
                method == Method.AUTO ? Starts.METHODS : List.of(method.name().toLowerCase(Locale.ROOT));
        Plan plan = seconds == null ? Plan.USUAL : Plan.USUAL.within(seconds);
        if (layers != 1 && layers != 2) {
            throw new ParameterException(spec.commandLine(), "--layers must be 1 or 2, got " + layers);
        }
        Clip clip = Out.read(in, err);
        Match match = Matcher.match(clip, methods, plan, Out.progress(err));
        Recipe recipe = key != null && match.recipe() instanceof ResonatorRecipe r ? r.onKey(key) : match.recipe();
        if (key != null && recipe.key() != key) {
            err.println("The recipe stays on key " + recipe.key() + ": only resonators can be put on another one.");
        }
        ObjectNode report = ReportJson.report(match);
        PrintWriter screen = spec.commandLine().getOut();
        for (Ranked r : match.ranking()) {
            screen.printf(
                    Locale.ROOT,
                    "%-12s %5.2f JND all together, worst in %s (%.2f JND); %s; %.1f s%n",
                    r.fitted().method(),
                    r.fitted().comparison().totalJnd(),
                    r.fitted().comparison().worst().title(),
                    r.fitted().comparison().worstJnd(),
                    Adviser.cost(r.fitted().recipe()),
                    r.fitted().seconds());
        }
        Layered two = layers == 2 ? layered(clip, match, plan, err) : null;
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
        SafeFiles.write(out.resolve("recipe.json"), both ? RecipeJson.text(two.patch()) : RecipeJson.text(recipe));
        WavFiles.write(both ? two.imitation() : match.imitation(), WavFiles.Format.PCM24, out.resolve("imitation.wav"));
        SafeFiles.write(out.resolve("report.json"), report.toPrettyString());
        return 0;
    }

    private static Layered layered(Clip clip, Match match, Plan plan, PrintWriter err) throws UnusableSound {
        Side recording = Matcher.side(clip, Progress.NONE);
        return Layers.of(recording, match.best(), plan, Out.progress(err));
    }
}
