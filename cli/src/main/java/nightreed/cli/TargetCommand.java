package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import nightreed.measure.MeasurementJson;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.typical.Description;
import nightreed.typical.Families;
import nightreed.typical.Family;
import nightreed.typical.TypicalNote;
import nightreed.typical.TypicalTarget;
import nightreed.typical.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "target",
        description = "Makes what is typical of a family of instruments, to build against where there is no recording.")
final class TargetCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(arity = "0..1", paramLabel = "FAMILY", description = "Family of instruments; --list names them.")
    String family;

    @Option(names = "--list", description = "Names the families.")
    boolean list;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key (69 or A4); a usual one of the family by default.")
    Integer key;

    @Option(names = "--velocity", paramLabel = "V", description = "Strength, above 0 to 1; 0.7 by default.")
    Double velocity;

    @Option(names = "--words", paramLabel = "WORDS", description = "What it is like: \"bright, slow start\".")
    String words;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes its measurement as JSON; - is standard output.")
    Path json;

    @Option(names = "--out", paramLabel = "OUT.wav", description = "Writes it as a sound.")
    Path out;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        PrintWriter screen = spec.commandLine().getOut();
        if (list) {
            for (Family f : Families.all()) {
                screen.printf("%-16s %s%n", f.id(), f.title());
            }
            screen.flush();
            return 0;
        }
        results.check(json, List.of());
        results.check(out, List.of());
        Description asked = asked();
        TypicalTarget target =
                TypicalTarget.of(asked, Out.progress(spec.commandLine().getErr()));
        if (json != null) {
            Out.text(json, MeasurementJson.text(target.measurement()), screen);
        }
        if (out != null) {
            WavFiles.write(target.clip(), WavFiles.Format.PCM24, out);
        }
        if (json == null && out == null) {
            screen.println("Typical, not recorded: " + asked.words());
            for (TypicalNote.Value v : target.note().values()) {
                screen.printf("%-24s %-28s %s%n", v.name(), v.value(), v.tolerance());
            }
            asked.family().sources().forEach(screen::println);
            screen.flush();
        }
        return 0;
    }

    private Description asked() {
        try {
            if (family == null && words == null) {
                throw new IllegalArgumentException(
                        "give a FAMILY, or --words that name one; --list names the families");
            }
            Family known = family == null ? null : Families.of(family);
            Words.Read read = words == null
                    ? new Words.Read(Description.of(known), List.of())
                    : Words.read(
                            known == null ? words : known.id() + " " + words,
                            Description.of(known == null ? Families.all().get(0) : known));
            if (!read.unknown().isEmpty()) {
                throw new IllegalArgumentException(
                        "these words are not understood: " + String.join(", ", read.unknown()));
            }
            if (known == null && !Words.namesFamily(words)) {
                throw new IllegalArgumentException("the words name no family; --list names the families");
            }
            Description d = read.description();
            d = key == null ? d : d.withKey(key);
            return velocity == null ? d : d.withVelocity(velocity);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage());
        }
    }
}
