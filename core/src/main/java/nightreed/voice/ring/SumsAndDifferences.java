package nightreed.voice.ring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.SingleCycle;

/** Which frequencies a product of two waves holds, for every pair of harmonics. */
public final class SumsAndDifferences {
    private static final double LEAST = 1e-4;

    private SumsAndDifferences() {}

    /**
     * One line.
     *
     * @param hz        frequency, 0 or more
     * @param amplitude for two waves of 1
     * @param ofA       harmonic of the first
     * @param ofB       harmonic of the second
     * @param sum       whether it is the sum; otherwise the difference
     */
    public record Line(double hz, double amplitude, int ofA, int ofB, boolean sum) {
        public double levelDb() {
            return 20 * Math.log10(Math.max(1e-12, amplitude));
        }
    }

    /** Amplitude of a harmonic of a wave of about ±1. */
    public static double harmonic(Oscillator o, SingleCycle cycle, int n) {
        return switch (o.wave()) {
            case SINE -> n == 1 ? 1 : 0;
            case TRIANGLE -> n % 2 == 0 ? 0 : 8 / (Math.PI * Math.PI * n * n);
            case SAW -> 2 / (Math.PI * n);
            case PULSE -> 4 / (Math.PI * n) * Math.abs(Math.sin(Math.PI * n * o.width()));
            case MEASURED -> measured(cycle, n);
        };
    }

    private static double measured(SingleCycle cycle, int n) {
        if (cycle == null) {
            return 2 / (Math.PI * n);
        }
        if (n > cycle.harmonics().size()) {
            return 0;
        }
        double power = 0;
        for (double db : cycle.levelsDb()) {
            power += Math.pow(10, db / 10);
        }
        return Math.pow(10, cycle.harmonics().get(n - 1).levelDb() / 20) / Math.sqrt(power);
    }

    /**
     * Lines of the product, the strongest first; filters are not counted.
     *
     * @param aHz      frequency of the first
     * @param strength velocity, which closes the interval
     * @param topHz    highest frequency
     * @param most     lines at the most
     */
    public static List<Line> lines(RingRecipe r, double aHz, double strength, double topHz, int most) {
        double bHz = aHz * r.interval(strength);
        List<Line> out = new ArrayList<>();
        int reach = 24;
        for (int i = 1; i <= reach && i * aHz < topHz; i++) {
            for (int k = 1; k <= reach && k * bHz < topHz; k++) {
                double amplitude = 0.5 * harmonic(r.a(), r.cycle(), i) * harmonic(r.b(), r.cycle(), k);
                if (amplitude < LEAST) {
                    continue;
                }
                out.add(new Line(Math.abs(i * aHz - k * bHz), amplitude, i, k, false));
                if (i * aHz + k * bHz < topHz) {
                    out.add(new Line(i * aHz + k * bHz, amplitude, i, k, true));
                }
            }
        }
        out.sort(Comparator.comparingDouble(l -> -l.amplitude()));
        return out.subList(0, Math.min(most, out.size()));
    }
}
