package nightreed.cli;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.measure.take.TakeTempo;
import nightreed.sound.UnusableSound;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "tempo", description = "Measures the tempo of a phrase or of an echo.")
final class TempoCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording of a phrase, of clicks, or of a note with an echo.")
    Path in;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes it as JSON; - is standard output.")
    Path json;

    @Mixin
    Span span;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        results.check(json, List.of(in));
        PrintWriter out = spec.commandLine().getOut();
        TakeTempo t = TakeTempo.of(span.read(in, spec.commandLine().getErr()));
        if (json != null) {
            ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
            o.put("bpm", t.bpm()).put("bpmSe", t.bpmSe()).put("odds", t.odds());
            o.put("echoSeconds", t.echoSeconds()).put("noteValue", t.noteValue());
            Out.text(json, o.toPrettyString(), out);
            return 0;
        }
        out.println(
                t.bpm() == null
                        ? "Too few notes, and no echo: a tempo needs four notes or more."
                        : String.format(Locale.ROOT, "%.2f bpm, %s", t.bpm(), t.from()));
        if (t.echoSeconds() != null) {
            out.println(String.format(Locale.ROOT, "echo after %.1f ms", 1000 * t.echoSeconds())
                    + (t.noteValue() == null ? "" : ", a " + t.noteValue()));
        }
        out.flush();
        return 0;
    }
}
