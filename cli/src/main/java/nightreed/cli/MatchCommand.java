package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.match.Match;
import nightreed.match.Matcher;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sheet.ReportJson;
import nightreed.sound.SafeFiles;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "match", description = "Fits an imitation to a recorded note; writes recipe, sound and report.")
final class MatchCommand implements Callable<Integer> {
    /** Methods that can be fitted so far; auto takes the best of them. */
    enum Method {
        AUTO,
        RESONATORS
    }

    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording (WAV).")
    Path in;

    @Option(names = "--method", description = "One of ${COMPLETION-CANDIDATES}; auto by default.")
    Method method = Method.AUTO;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key the recording stands for (57 or A3), where it is not the nearest one.")
    Integer key;

    @Option(names = "--out", paramLabel = "DIR", required = true, description = "Folder for the results.")
    Path out;

    @Override
    public Integer call() throws UnusableSound, IOException {
        PrintWriter err = spec.commandLine().getErr();
        Match match = Matcher.match(Out.read(in, err), Out.progress(err));
        ResonatorRecipe recipe = key == null ? match.recipe() : match.recipe().onKey(key);
        SafeFiles.write(out.resolve("recipe.json"), RecipeJson.text(recipe));
        WavFiles.write(match.imitation(), WavFiles.Format.PCM24, out.resolve("imitation.wav"));
        SafeFiles.write(out.resolve("report.json"), ReportJson.report(match).toPrettyString());
        spec.commandLine()
                .getOut()
                .printf(
                        Locale.ROOT,
                        "resonators, %d modes: %.2f JND all together, worst in %s (%.2f JND), %.1f s%n",
                        recipe.modes().size(),
                        match.comparison().totalJnd(),
                        match.comparison().worst().title(),
                        match.comparison().worstJnd(),
                        match.seconds());
        return 0;
    }
}
