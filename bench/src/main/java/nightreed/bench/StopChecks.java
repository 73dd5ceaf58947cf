package nightreed.bench;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.CancellationException;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.work.Progress;

/**
 * How soon a fit obeys: stops, and stops that keep the best, at random moments over all methods; and how far limits in seconds
 * are overrun.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.StopChecks STOPS SEED NOTE...</pre>
 * A note is a file, or PLAYER:KEY:VELOCITY:SEED from the recording room.
 */
public final class StopChecks {
    /** Latest moment of a stop [s]; most fits have ended by then. */
    private static final double LATEST_SECONDS = 6;

    private StopChecks() {}

    public static void main(String[] args) throws Exception {
        int stops = Integer.parseInt(args[0]);
        Random random = new Random(Long.parseLong(args[1]));
        List<String> names = List.of(args).subList(2, args.length);
        AnalysedSound[] notes = new AnalysedSound[names.size()];
        for (int i = 0; i < notes.length; i++) {
            notes[i] = ImitationRenderer.side(MatchTable.clip(names.get(i)), Progress.NONE);
            Fits.of("subtractive", notes[i], FitOptions.USUAL.trying(0.1), Progress.NONE); // compiles what is used
        }
        double worst = 0;
        for (int i = 0; i < stops; i++) {
            String method = Starts.METHODS.get(i % Starts.METHODS.size());
            double moment = LATEST_SECONDS * random.nextDouble();
            boolean keeps = i / Starts.METHODS.size() % 2 == 0;
            double late = stopped(method, notes[random.nextInt(notes.length)], moment, keeps);
            worst = Math.max(worst, late);
            System.out.printf(
                    Locale.ROOT, "%-12s %-5s at %.2f s: %.3f s later%n", method, keeps ? "keep" : "stop", moment, late);
        }
        System.out.printf(Locale.ROOT, "worst of %d stops: %.3f s%n", stops, worst);
        double most = 0;
        for (double limit : new double[] {2, 4, 8}) {
            for (String method : Starts.METHODS) {
                for (int n = 0; n < notes.length; n++) {
                    long start = System.nanoTime();
                    var fit = Fits.of(method, notes[n], FitOptions.USUAL.within(limit), Progress.NONE);
                    double over = (System.nanoTime() - start) / 1e9 - limit;
                    most = Math.max(most, over);
                    System.out.printf(
                            Locale.ROOT,
                            "%-12s %-24s limit %.0f s: %+.2f s, %.2f JND%s%n",
                            method,
                            names.get(n),
                            limit,
                            over,
                            fit.comparison().totalJnd(),
                            fit.measured() ? "" : ", not measured");
                }
            }
        }
        System.out.printf(Locale.ROOT, "worst overrun: %.3f s%n", most);
    }

    /** @return seconds from the stop until the fit has returned; 0 where it had ended before */
    private static double stopped(String method, AnalysedSound note, double moment, boolean keeps) throws Exception {
        long at = System.nanoTime() + (long) (1e9 * moment);
        Progress stop = new Progress() {
            @Override
            public void report(double fraction, String doing) {}

            @Override
            public boolean isCancelled() {
                return !keeps && System.nanoTime() > at;
            }

            @Override
            public boolean isEnough() {
                return keeps && System.nanoTime() > at;
            }
        };
        try {
            Fits.of(method, note, FitOptions.USUAL, stop);
        } catch (CancellationException stopped) {
            // as it should
        }
        return Math.max(0, (System.nanoTime() - at) / 1e9);
    }
}
