package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.method.Starts;
import nightreed.match.start.Start;
import nightreed.recipe.RecipeJson;
import nightreed.sound.UnusableSound;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "start",
        description = "Writes a recipe whose values are computed from a recording's measurement, without fitting.")
final class StartCommand implements Callable<Integer> {
    /** Methods there are. */
    enum Method {
        RESONATORS,
        FM,
        RING,
        FORMANT,
        STRING,
        SUBTRACTIVE
    }

    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording of one note.")
    Path in;

    @Option(names = "--method", required = true, description = "One of ${COMPLETION-CANDIDATES}.")
    Method method;

    @Option(
            names = "--out",
            paramLabel = "RECIPE.json",
            required = true,
            description = "Recipe to write; - is standard output.")
    Path out;

    @Mixin
    Span span;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        results.check(out, List.of(in));
        PrintWriter err = spec.commandLine().getErr();
        PrintWriter standard = spec.commandLine().getOut();
        Start start = Starts.of(
                method.name().toLowerCase(Locale.ROOT), ImitationRenderer.side(span.read(in, err), Out.progress(err)));
        Out.text(out, RecipeJson.text(start.recipe()), standard);
        if (!out.toString().equals("-")) {
            for (Start.Origin o : start.origins()) {
                standard.printf("%-22s %-9s %s%n", o.parameterId(), o.measured() ? "measured" : "usual", o.why());
            }
        }
        return 0;
    }
}
