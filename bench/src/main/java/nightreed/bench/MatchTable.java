package nightreed.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.method.MethodAdvice;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.recipe.Recipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.file.SoundFiles;
import nightreed.work.Progress;

/**
 * All methods on all given notes: distance of values that know only the key, of starting values, and of the fit, each by a
 * fresh render and measurement, and time.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.MatchTable [--after] [--effort SHARE] METHOD,METHOD NOTE...</pre>
 * With {@code --after}, only the fit is told; with {@code --effort}, a search takes that share of its usual renders.
 * A note is a file, or PLAYER:KEY:STRENGTH:SEED from the recording room.
 */
public final class MatchTable {
    private MatchTable() {}

    public static void main(String[] args) throws Exception {
        Deque<String> words = new ArrayDeque<>(Arrays.asList(args));
        boolean after = words.removeFirstOccurrence("--after");
        FitOptions options = FitOptions.USUAL;
        if (words.peek().equals("--effort")) {
            words.pop();
            options = options.trying(Double.parseDouble(words.pop()));
        }
        String named = words.pop();
        List<String> methods = named.equals("all") ? Starts.METHODS : Arrays.asList(named.split(","));
        for (String note : words) {
            AnalysedSound side = ImitationRenderer.side(clip(note), Progress.NONE);
            String name = Path.of(note).getFileName().toString();
            System.out.printf(
                    "%-26s advised: %s%n",
                    name, MethodAdvice.of(side.measurement()).get(0).method());
            for (String method : methods) {
                System.out.println(line(name, method, side, options, after));
            }
        }
    }

    private static String line(String name, String method, AnalysedSound side, FitOptions options, boolean only) {
        try {
            double plain = only
                    ? Double.NaN
                    : PerceptualComparator.compare(side, heard(side, untuned(method, side)))
                            .totalJnd();
            double before = only
                    ? Double.NaN
                    : PerceptualComparator.compare(
                                    side, heard(side, Starts.of(method, side).recipe()))
                            .totalJnd();
            long t = System.nanoTime();
            Recipe fitted = Fits.of(method, side, options, Progress.NONE).recipe();
            double seconds = (System.nanoTime() - t) / 1e9;
            Comparison after = PerceptualComparator.compare(side, heard(side, fitted));
            StringBuilder all = new StringBuilder();
            after.aspects()
                    .forEach((a, v) -> all.append(String.format(Locale.ROOT, " %s %.1f", a.id().substring(0, 3), v)));
            return String.format(
                    Locale.ROOT,
                    "%-26s %-12s untuned %5.2f  %5.2f to %5.2f  worst %5.2f %-10s %5.1f s %s",
                    name,
                    method,
                    plain,
                    before,
                    after.totalJnd(),
                    after.worstJnd(),
                    after.worst().id(),
                    seconds,
                    all);
        } catch (Exception e) {
            return name + " " + method + " " + e;
        }
    }

    /** What the method starts with for any plain tone on that key: harmonics that fall with their number, and die or stay. */
    private static Recipe untuned(String method, AnalysedSound side) throws Exception {
        Measurement m = side.measurement();
        double fs = m.sampleRateHz();
        double hz = m.f0Hz() == null ? 261.63 : m.f0Hz();
        double[] x = new double[(int) (2.5 * fs)];
        int onset = (int) (0.1 * fs);
        for (int i = onset; i < x.length; i++) {
            double t = (i - onset) / fs;
            double course = m.held() == null ? Math.exp(-Math.log(1000) / 2 * t) : Math.min(1, t / 0.05);
            for (int n = 1; n * hz < 0.4 * fs && n <= 20; n++) {
                x[i] += 0.1 * course / n * Math.sin(2 * Math.PI * n * hz * t);
            }
        }
        return Starts.of(method, ImitationRenderer.rendered(Clip.mono(x, m.sampleRateHz())))
                .recipe();
    }

    private static AnalysedSound heard(AnalysedSound side, Recipe recipe) throws Exception {
        return ImitationRenderer.rendered(ImitationRenderer.render(recipe, side));
    }

    /** A file, or PLAYER:KEY:STRENGTH:SEED from the recording room. */
    static Clip clip(String note) throws Exception {
        if (Files.exists(Path.of(note))) {
            return SoundFiles.read(Path.of(note)).clip();
        }
        String[] p = note.split(":");
        return RecordingRoom.record(
                RecordingRoom.instrument(p[0]), Integer.parseInt(p[1]), Double.parseDouble(p[2]), Long.parseLong(p[3]));
    }
}
