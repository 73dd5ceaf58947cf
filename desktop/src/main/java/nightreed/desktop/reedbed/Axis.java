package nightreed.desktop.reedbed;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.music.Bark;

/**
 * The frequency axis that bed and strip share.
 *
 * @param kind  scale
 * @param f0Hz  frequency of ratio 1 [Hz]
 * @param lowHz  frequency at the left end [Hz]
 * @param highHz frequency at the right end [Hz]
 */
public record Axis(Kind kind, double f0Hz, double lowHz, double highHz) {
    /** What the axis counts in. */
    public enum Kind {
        RATIO("Ratio"),
        HZ("Hz"),
        BARK("Bark");

        private final String title;

        Kind(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** A mark on the axis. */
    record Tick(double hz, String text) {}

    /** Place of a frequency, 0 to 1 from left to right. */
    double position(double hz) {
        return (scale(hz) - scale(lowHz)) / (scale(highHz) - scale(lowHz));
    }

    double hzAt(double position) {
        double s = scale(lowHz) + position * (scale(highHz) - scale(lowHz));
        return kind == Kind.BARK ? Bark.hz(s) : Math.exp(s);
    }

    private double scale(double hz) {
        return kind == Kind.BARK ? Bark.of(hz) : Math.log(hz);
    }

    /** The same axis over another range, kept within hearing. */
    Axis over(double low, double high) {
        double l = Math.max(15, low);
        double h = Math.min(24_000, high);
        return h / l < 1.2 ? this : new Axis(kind, f0Hz, l, h);
    }

    Axis as(Kind other) {
        return new Axis(other, f0Hz, lowHz, highHz);
    }

    String unit() {
        return kind == Kind.RATIO ? "ratio" : kind == Kind.HZ ? "Hz" : "Bark";
    }

    /** Round values, no two closer than {@code least} of the width. */
    List<Tick> ticks(double least) {
        List<Tick> out = new ArrayList<>();
        double last = Double.NEGATIVE_INFINITY;
        for (double v : candidates()) {
            double hz = kind == Kind.RATIO ? v * f0Hz : kind == Kind.HZ ? v : Bark.hz(v);
            double x = position(hz);
            if (x >= 0.01 && x <= 0.985 && x - last >= least) {
                out.add(new Tick(hz, text(v)));
                last = x;
            }
        }
        return out;
    }

    private double[] candidates() {
        return switch (kind) {
            case RATIO ->
                new double[] {0.25, 0.5, 0.7, 1, 1.5, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 70, 100};
            case HZ ->
                new double[] {
                    20, 30, 50, 70, 100, 150, 200, 300, 500, 700, 1000, 1500, 2000, 3000, 5000, 7000, 10_000, 15_000,
                    20_000
                };
            case BARK ->
                java.util.stream.IntStream.rangeClosed(1, 24).asDoubleStream().toArray();
        };
    }

    private static String text(double v) {
        return v == Math.rint(v) ? String.format(Locale.ROOT, "%.0f", v) : String.format(Locale.ROOT, "%s", v);
    }
}
