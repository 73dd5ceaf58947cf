package nightreed.bench;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.hearing.Use;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/**
 * Patches from the simplest to the nearest, by each method and over all: size and distance by a fresh render and measurement.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.FrontierTable METHOD,METHOD NOTE...</pre>
 * {@code all} stands for all methods. A note is a file, or PLAYER:KEY:STRENGTH:SEED from the recording room.
 */
public final class FrontierTable {
    private FrontierTable() {}

    public static void main(String[] args) throws Exception {
        List<String> methods = args[0].equals("all") ? Starts.METHODS : Arrays.asList(args[0].split(","));
        for (String note : Arrays.asList(args).subList(1, args.length)) {
            AnalysedSound side = ImitationRenderer.side(MatchTable.clip(note), Progress.NONE);
            String name = Path.of(note).getFileName().toString();
            List<Frontier> all = new ArrayList<>();
            long start = System.nanoTime();
            for (String method : methods) {
                try {
                    Found f = Patches.of(method, side, FitOptions.USUAL, Progress.NONE);
                    all.add(f.frontier());
                    say(name, method, f);
                } catch (UnusableSound e) {
                    System.out.println(name + " " + method + " " + e.getMessage());
                }
            }
            if (all.isEmpty()) {
                continue;
            }
            Frontier over = Frontier.over(all);
            Point best = over.recommended(Use.ALONE);
            System.out.printf(
                    Locale.ROOT,
                    "%-24s best of all: recommended %3d %5.2f %-11s nearest %3d %5.2f %-11s %5.1f s |%s%n",
                    name,
                    best.size(),
                    best.totalJnd(),
                    best.method(),
                    over.nearest().size(),
                    over.nearest().totalJnd(),
                    over.nearest().method(),
                    (System.nanoTime() - start) / 1e9,
                    points(over));
        }
    }

    private static void say(String name, String method, Found f) {
        System.out.printf(
                Locale.ROOT,
                "%-24s %-11s fit %3d %5.2f %5.1f s |%s%n",
                name,
                method,
                PatchSize.of(f.nearest().recipe()),
                f.nearest().comparison().totalJnd(),
                f.nearest().seconds(),
                points(f.frontier()));
    }

    private static String points(Frontier frontier) {
        return frontier.points().stream()
                .map(p -> String.format(Locale.ROOT, " %d:%.2f", p.size(), p.totalJnd()))
                .collect(Collectors.joining());
    }
}
