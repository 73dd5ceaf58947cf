package nightreed.desktop.stage.measure;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nightreed.dsp.LineFit;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.BrightnessPath;
import nightreed.measure.Measurement;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.sound.Loudness;

/** The small pictures of the Measure stage that are not of one partial. */
final class MeasuredPaths {
    private static final double FIRST_SECONDS = 0.1;

    private MeasuredPaths() {}

    /** The first 100 ms: the highest sample of every half millisecond. */
    static PathPlot.Path first(AnalysedSound side) {
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
    static PathPlot.Path brightness(AnalysedSound side) {
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

    /** K-weighted level over time, in steps of 20 ms. */
    static PathPlot.Path loudness(AnalysedSound side) {
        double step = 0.02;
        int frame = (int) (step * side.clip().sampleRateHz());
        double[] power = Loudness.framePower(side.clip(), frame);
        double[] t = new double[power.length];
        double[] db = new double[power.length];
        double top = Arrays.stream(power).max().orElse(0);
        if (top <= 0 || power.length < 2) {
            return null;
        }
        for (int i = 0; i < t.length; i++) {
            t[i] = (i + 0.5) * step - side.measurement().onsetSeconds();
            db[i] = 10 * Math.log10(power[i] / top + 1e-9);
        }
        Double lufs = side.measurement().loudnessLufs();
        String words = lufs == null
                ? "too quiet for a loudness"
                : String.format(Locale.ROOT, "%.1f LUFS over the whole clip", lufs);
        return new PathPlot.Path("Loudness: the K-weighted level", t, db, null, -60, 0, "dB", words);
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
        String words = swings(held);
        return new PathPlot.Path(
                "Pitch over time",
                t,
                cents,
                fitted,
                -reach,
                reach,
                "cents",
                words.isEmpty() ? "nothing swings" : words);
    }

    /** All that swings, with rate, depth and the likeliest shape. */
    private static String swings(HeldNote held) {
        return Stream.of(
                        swing("pitch", held.vibrato(), "cents"),
                        swing("level", held.tremolo(), "dB"),
                        swing("brightness", held.filter(), "oct"))
                .filter(s -> s != null)
                .collect(Collectors.joining("\n"));
    }

    private static String swing(String what, Movement m, String unit) {
        return m == null
                ? null
                : String.format(
                        Locale.ROOT,
                        unit.equals("oct") ? "%s %.2f Hz, %.2f ± %.2f %s, %s" : "%s %.2f Hz, %.1f ± %.1f %s, %s",
                        what,
                        m.rateHz(),
                        m.depth(),
                        2 * m.depthSe(),
                        unit,
                        ranked(m));
    }

    /** The forms that may be, the likeliest first. */
    private static String ranked(Movement m) {
        return m.ranked().stream()
                .filter(r -> r.odds() > 0.01)
                .limit(2)
                .map(r -> String.format(Locale.ROOT, "%s %.0f %%", r.shape().title(), 100 * r.odds()))
                .collect(Collectors.joining(", "));
    }

    /** By how much each harmonic comes in later than the one below it [ms], NaN if too few can be read. */
    static double msPerHarmonic(HeldNote held) {
        LineFit line = new LineFit();
        for (HeldHarmonic h : held.harmonics()) {
            if (h.delaySeconds() != null && h.number() <= 24) {
                line.add(h.number(), h.delaySeconds());
            }
        }
        return line.count() >= 4 ? 1000 * line.slope() : Double.NaN;
    }
}
