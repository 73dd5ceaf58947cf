package nightreed.cli;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import nightreed.music.ChordName;
import nightreed.music.Pitch;
import nightreed.music.Tonality;
import nightreed.music.Voicing;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "chord",
        description = "Names a chord and spells it, lays it in other ways, and says what may come next.")
final class ChordCommand implements Callable<Integer> {
    private static final int MOST_NEXT = 3;

    @Spec
    CommandSpec spec;

    @Parameters(
            paramLabel = "CHORD",
            description = "Its notes (\"D4 F4 A4 C5\"), keys (\"62 65 69 72\") or name (Dm7).")
    String chord;

    @Option(names = "--key", paramLabel = "KEY", description = "Key that it is written in, such as \"D minor\".")
    String key;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes it as JSON; - is standard output.")
    Path json;

    @Mixin
    Results results;

    @Override
    public Integer call() throws IOException {
        results.check(json, List.of());
        PrintWriter out = spec.commandLine().getOut();
        try {
            Tonality in = key == null ? null : Tonality.of(key);
            ChordName c = ChordName.parse(chord, in);
            if (json != null) {
                Out.text(json, tree(c, in).toPrettyString(), out);
                return 0;
            }
            out.println(c.name() + ": " + String.join(" ", c.notes()) + ", " + c.voices() + " voices");
            out.println("close  " + names(Voicing.close(c)));
            out.println("open   " + names(Voicing.open(c)));
            for (int drop = 2; drop <= 3 && drop <= Voicing.close(c).size(); drop++) {
                out.println("drop " + drop + " " + names(Voicing.drop(c, drop)));
            }
            for (Voicing.Next n : in == null ? List.<Voicing.Next>of() : next(c, in)) {
                out.println("next   " + n.chord().name() + ": "
                        + String.join(" ", n.chord().notes()) + ", " + n.common() + " shared");
            }
            out.flush();
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage());
        }
        return 0;
    }

    private static List<Voicing.Next> next(ChordName c, Tonality in) {
        return Voicing.next(c, in).stream().limit(MOST_NEXT).toList();
    }

    private static String names(List<Integer> keys) {
        return String.join(" ", keys.stream().map(Pitch::name).toList());
    }

    private static ObjectNode tree(ChordName c, Tonality in) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("name", c.name());
        c.notes().forEach(o.putArray("notes")::add);
        o.put("inversion", c.inversion()).put("voices", c.voices());
        ObjectNode voicings = o.putObject("voicings");
        Voicing.close(c).forEach(voicings.putArray("close")::add);
        Voicing.open(c).forEach(voicings.putArray("open")::add);
        if (in != null) {
            var next = o.putArray("next");
            for (Voicing.Next n : next(c, in)) {
                ObjectNode one = next.addObject().put("name", n.chord().name()).put("shared", n.common());
                n.chord().notes().forEach(one.putArray("notes")::add);
            }
        }
        return o;
    }
}
