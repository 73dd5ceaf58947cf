package nightreed.voice.explain;

import java.util.List;
import nightreed.recipe.RingRecipe;
import nightreed.voice.ring.SumsAndDifferences;

/** Sums and differences, and how the drift beats. */
final class RingTables {
    private static final int MOST_ROWS = 40;

    private RingTables() {}

    static List<Table> of(RingRecipe r, double hz) {
        double strength = r.velocity().reference();
        double a = hz * r.a().frequencyRatio();
        double b = a * r.interval(strength);
        Rows t = new Rows(
                "sums and differences",
                "frequency [Hz] .2",
                "ratio .4",
                "from harmonic [cents] .1",
                "level [dB] .1",
                "harmonic of the first .0",
                "harmonic of the second .0",
                "sum (1) or difference (0) .0");
        for (SumsAndDifferences.Line l :
                SumsAndDifferences.lines(r, a, strength, 0.49 * Arithmetic.SAMPLE_RATE_HZ, MOST_ROWS)) {
            t.add(
                    l.hz(),
                    l.hz() / hz,
                    l.hz() < 1 ? null : (Double) Rows.centsFromHarmonic(l.hz(), hz),
                    l.levelDb(),
                    (double) l.ofA(),
                    (double) l.ofB(),
                    l.sum() ? 1.0 : 0.0);
        }
        t.say(
                "First %.2f Hz, second %.2f Hz at velocity %.2f; at full force the interval is %.4f.",
                a, b, strength, r.interval(1));
        if (r.driftCents() > 0) {
            double swing = b * (Math.pow(2, r.driftCents() / 1200) - 1);
            t.say(
                    "The drift moves the second by up to %.2f Hz either way, %.2f times a second: each pair of harmonics"
                            + " beats at up to %.2f Hz times its number.",
                    swing, r.driftRateHz(), 2 * swing);
        }
        return List.of(t.done());
    }
}
