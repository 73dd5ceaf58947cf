package nightreed.match.start;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.Ground.Line;

/**
 * Lines of a held note wherever they lie, not at multiples of its pitch alone: peaks of its mean spectrum once its vibrato and
 * its tremolo are taken off.
 */
final class SteadyLines {
    /** Power under the strongest at which a peak is a line. */
    private static final double LEAST = 1e-5;

    private static final int MOST = 60;

    /** How far a line lies off a harmonic that it is not [Hz], and the power of such lines, as a share of that of all. */
    private static final double BESIDE_HZ = 1.5;

    private static final double LEAST_BESIDE = 0.004;

    private static final double SILENCE = 1e-20;

    private SteadyLines() {}

    /** The strongest first; empty of a sound that is too short. */
    static List<Line> of(SteadySpectrum spectrum) {
        double[] mean = spectrum.power();
        double binHz = spectrum.binHz();
        List<Line> out = new ArrayList<>();
        double floor = LEAST * Arrays.stream(mean).max().orElse(0);
        for (int k = (int) Math.ceil(Frames.LOWEST_HZ / binHz); k + 2 < mean.length; k++) {
            if (mean[k] > floor && isPeak(mean, k)) {
                out.add(new Line((k + top(mean, k)) * binHz, Math.sqrt(mean[k]), null, null, 0));
            }
        }
        out.sort(Comparator.comparingDouble(l -> -l.amplitude()));
        return out.subList(0, Math.min(MOST, out.size()));
    }

    /** Whether a share of their power that is no chance lies off the multiples of a pitch. */
    static boolean areBesideHarmonics(List<Line> lines, double f0) {
        double all = 0;
        double off = 0;
        for (Line l : lines) {
            double power = l.amplitude() * l.amplitude();
            double nearest = Math.max(1, Math.rint(l.hz() / f0)) * f0;
            all += power;
            off += Math.abs(l.hz() - nearest) > BESIDE_HZ ? power : 0;
        }
        return off > LEAST_BESIDE * all;
    }

    private static boolean isPeak(double[] power, int k) {
        return power[k] > Math.max(power[k - 1], power[k - 2]) && power[k] > Math.max(power[k + 1], power[k + 2]);
    }

    /** Where the parabola through the levels about a peak has its top, in bins from it. */
    private static double top(double[] power, int k) {
        double a = Math.log(power[k - 1] + SILENCE);
        double b = Math.log(power[k] + SILENCE);
        double c = Math.log(power[k + 1] + SILENCE);
        return 0.5 * (a - c) / (a - 2 * b + c);
    }
}
