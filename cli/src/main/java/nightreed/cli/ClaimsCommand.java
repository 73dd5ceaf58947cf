package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.claim.Claim;
import nightreed.claim.ClaimJson;
import nightreed.claim.ClaimJudge;
import nightreed.claim.Verdict;
import nightreed.measure.Measurer;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "claims", description = "Holds what was heard or read of a sound against a recording of it.")
final class ClaimsCommand implements Callable<Integer> {
    /** Longer files are no claims [bytes]. */
    private static final long MOST_BYTES = 1_000_000;

    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "IN", description = "Recording of one note.")
    Path in;

    @Option(names = "--claims", paramLabel = "FILE", required = true, description = "Claims (JSON, docs/formats.md).")
    Path claims;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes the verdicts as JSON; - is standard output.")
    Path json;

    @Mixin
    Span span;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableSound, IOException {
        results.check(json, List.of(in, claims));
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        List<Claim> all = read();
        Clip clip = span.read(in, err);
        ClaimJudge judge = new ClaimJudge(Measurer.measure(clip, Out.progress(err)), clip);
        List<Verdict> verdicts = all.stream().map(judge::of).toList();
        if (json != null) {
            Out.text(json, ClaimJson.tree(verdicts).toPrettyString(), out);
            return 0;
        }
        for (Verdict v : verdicts) {
            out.printf(
                    Locale.ROOT,
                    "%-48s %s%s; %s%n",
                    v.claim().words(),
                    v.answer().title(),
                    v.odds() > 0 ? String.format(Locale.ROOT, ", %.1f %%", 100 * v.odds()) : "",
                    v.why());
        }
        out.flush();
        return 0;
    }

    private List<Claim> read() throws IOException {
        if (Files.isDirectory(claims) || Files.isRegularFile(claims) && Files.size(claims) > MOST_BYTES) {
            throw new ParameterException(spec.commandLine(), claims + " is no file of claims: see docs/formats.md");
        }
        try {
            return ClaimJson.parse(new String(Files.readAllBytes(claims), StandardCharsets.UTF_8));
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), claims + ": " + e.getMessage());
        }
    }
}
