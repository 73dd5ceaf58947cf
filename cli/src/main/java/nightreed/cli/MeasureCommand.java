package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.measure.Measurement;
import nightreed.measure.MeasurementJson;
import nightreed.measure.Measurer;
import nightreed.measure.partial.Partial;
import nightreed.sheet.PartialCsv;
import nightreed.sound.UnusableSound;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "measure", description = "Measures a recorded note: onset, pitch, partials, decays, strike.")
final class MeasureCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording (WAV).")
    Path in;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes the measurement as JSON; - is standard output.")
    Path json;

    @Option(names = "--csv", paramLabel = "OUT", description = "Writes the partials as CSV; - is standard output.")
    Path csv;

    @Mixin
    Span span;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        results.check(json, List.of(in));
        results.check(csv, List.of(in));
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        Measurement m = Measurer.measure(span.read(in, err), Out.progress(err));
        if (json != null) {
            Out.text(json, MeasurementJson.text(m), out);
        }
        if (csv != null) {
            Out.text(csv, PartialCsv.text(m), out);
        }
        if (json == null && csv == null) {
            summary(m, out);
        }
        return 0;
    }

    private static void summary(Measurement m, PrintWriter out) {
        if (m.isChord()) {
            out.println(m.remarks().get(0));
        } else if (m.f0Hz() == null) {
            out.println("No pitch was found.");
        } else {
            out.printf(
                    Locale.ROOT,
                    "%s %+.1f cents (%.2f Hz), onset at %.4f s%n",
                    m.nearestNote(),
                    m.centsFromConcert(),
                    m.f0Hz(),
                    m.onsetSeconds());
        }
        if (m.series() != null) {
            out.printf(
                    Locale.ROOT,
                    "nearest series: %s, %.0f cents off%n",
                    m.series().series().name(),
                    m.series().deviationCents());
        }
        out.printf("%10s %8s %8s %9s  %s%n", "Hz", "ratio", "dB", "T60 s", "reliable");
        for (Partial p : m.partials()) {
            out.printf(
                    Locale.ROOT,
                    "%10.2f %8.3f %8.1f %9s  %s%n",
                    p.frequencyHz(),
                    p.ratio(),
                    p.levelDb(),
                    p.t60Seconds() == null ? "-" : String.format(Locale.ROOT, "%.3f", p.t60Seconds()),
                    p.reliable() ? "yes" : "no");
        }
        m.remarks().forEach(out::println);
        out.flush();
    }
}
