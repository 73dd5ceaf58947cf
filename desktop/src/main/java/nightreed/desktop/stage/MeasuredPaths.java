package nightreed.desktop.stage;

import java.util.Arrays;
import java.util.Locale;
import nightreed.match.Side;
import nightreed.measure.BrightnessPath;
import nightreed.measure.Measurement;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;

/** The small pictures of the Measure stage that are not of one partial. */
final class MeasuredPaths {
    private static final double FIRST_SECONDS = 0.1;

    private MeasuredPaths() {}

    /** The first 100 ms: the highest sample of every half millisecond. */
    static PathPlot.Path first(Side side) {
        Measurement m = side.measurement();
        float[] x = side.clip().mixedFloats();
        double fs = side.clip().sampleRateHz();
        int start = (int) ((m.onsetSeconds() - 0.005) * fs);
        int step = (int) Math.max(1, 0.0005 * fs);
        int count = (int) ((FIRST_SECONDS + 0.005) * fs / step);
        double[] t = new double[count];
        double[] db = new double[count];
        double top = 1e-9;
        for (int k = 0; k < count; k++) {
            double peak = 0;
            for (int i = Math.max(0, start + k * step); i < Math.min(x.length, start + (k + 2) * step); i++) {
                peak = Math.max(peak, Math.abs(x[i]));
            }
            top = Math.max(top, peak);
            t[k] = (double) k * step / fs - 0.005;
            db[k] = peak;
        }
        for (int k = 0; k < count; k++) {
            db[k] = 20 * Math.log10(db[k] / top + 1e-9);
        }
        String rise = m.attackSeconds() == null
                ? "its rise cannot be read"
                : String.format(Locale.ROOT, "10 to 90 %% in %.2f ms", 1000 * m.attackSeconds());
        return new PathPlot.Path("The first 100 ms", t, db, null, -60, 0, "dB", rise);
    }

    /** Centroid over time. */
    static PathPlot.Path brightness(Side side) {
        BrightnessPath b = BrightnessPath.of(side.clip(), side.measurement());
        double[] t = new double[b.centroidHz().length];
        double low = Double.POSITIVE_INFINITY;
        double high = 0;
        double[] v = b.centroidHz().clone();
        double loudest = Arrays.stream(b.levelDb()).max().orElse(0);
        for (int i = 0; i < t.length; i++) {
            t[i] = i * b.hopSeconds();
            if (b.levelDb()[i] < loudest - 60 || !(v[i] > 0)) {
                v[i] = Double.NaN;
            } else {
                low = Math.min(low, v[i]);
                high = Math.max(high, v[i]);
            }
        }
        String words = side.measurement().brightness() == null
                ? ""
                : String.format(
                        Locale.ROOT,
                        "%.0f to %.0f Hz, half-way after %.2f s",
                        side.measurement().brightness().startHz(),
                        side.measurement().brightness().endHz(),
                        side.measurement().brightness().halfTimeSeconds());
        return high <= low ? null : new PathPlot.Path("Brightness: the centroid", t, v, null, low, high, "Hz", words);
    }

    /** Pitch of a held note, and the swing that was found in it. */
    static PathPlot.Path pitch(Measurement m) {
        HeldNote held = m.held();
        if (held == null || held.pathSeconds().length < 2) {
            return null;
        }
        double[] t = held.pathSeconds();
        double[] hz = held.pathHz();
        double[] cents = new double[t.length];
        double[] fitted = new double[t.length];
        double reach = 5;
        double middle = (t[0] + t[t.length - 1]) / 2;
        double length = Math.max(1e-3, t[t.length - 1] - t[0]);
        for (int i = 0; i < t.length; i++) {
            double since = t[i] - held.onsetSeconds();
            cents[i] = 1200 * Math.log(hz[i] / held.f0Hz()) / Math.log(2);
            fitted[i] = held.glideCents() * (t[i] - middle) / length
                    + (held.vibrato() == null ? 0 : held.vibrato().at(since));
            t[i] = since;
            reach = Math.max(reach, Math.abs(cents[i]));
        }
        reach = Math.min(reach, 200);
        Movement v = held.vibrato();
        String words = v == null
                ? "no vibrato"
                : String.format(
                        Locale.ROOT,
                        "vibrato %.2f ± %.2f Hz, %.1f ± %.1f cents",
                        v.rateHz(),
                        2 * v.rateSeHz(),
                        v.depth(),
                        2 * v.depthSe());
        return new PathPlot.Path("Pitch over time", t, cents, fitted, -reach, reach, "cents", words);
    }

    /** By how much each harmonic comes in later than the one below it [ms], NaN if too few can be read. */
    static double msPerHarmonic(HeldNote held) {
        double n = 0;
        double sx = 0;
        double sy = 0;
        double sxx = 0;
        double sxy = 0;
        for (HeldHarmonic h : held.harmonics()) {
            if (h.delaySeconds() != null && h.number() <= 24) {
                n++;
                sx += h.number();
                sy += h.delaySeconds();
                sxx += h.number() * h.number();
                sxy += h.number() * h.delaySeconds();
            }
        }
        double det = n * sxx - sx * sx;
        return n >= 4 && det > 0 ? 1000 * (n * sxy - sx * sy) / det : Double.NaN;
    }
}
