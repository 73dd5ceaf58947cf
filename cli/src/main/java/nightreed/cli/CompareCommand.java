package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.hearing.Aspect;
import nightreed.match.sound.AnalysedSound;
import nightreed.sheet.ReportJson;
import nightreed.sound.UnusableSound;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "compare", description = "Says what a listener would notice between a recording and an imitation.")
final class CompareCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(index = "0", paramLabel = "REFERENCE", description = "Recording (WAV).")
    Path reference;

    @Parameters(index = "1", paramLabel = "IMITATION", description = "Imitation (WAV).")
    Path imitation;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes the comparison as JSON; - is standard output.")
    Path json;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        results.check(json, List.of(reference, imitation));
        PrintWriter err = spec.commandLine().getErr();
        PrintWriter out = spec.commandLine().getOut();
        AnalysedSound a = ImitationRenderer.side(Out.read(reference, err), Out.progress(err));
        // both at one rate, so that bands and spans are the same
        AnalysedSound b =
                ImitationRenderer.rendered(Out.read(imitation, err).at(a.clip().sampleRateHz()));
        Comparison c = PerceptualComparator.compare(a, b);
        if (json != null) {
            Out.text(json, ReportJson.distance(c).toPrettyString(), out);
        } else {
            out.printf(
                    Locale.ROOT,
                    "%.2f JND all together, worst in %s (%.2f JND)%n",
                    c.totalJnd(),
                    c.worst().title(),
                    c.worstJnd());
            for (Aspect aspect : Aspect.values()) {
                out.printf(Locale.ROOT, "%-14s %6.2f%n", aspect.title(), c.jnd(aspect));
            }
            out.flush();
        }
        return 0;
    }
}
