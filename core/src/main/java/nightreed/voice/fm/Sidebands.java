package nightreed.voice.fm;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.TreeMap;
import org.hipparchus.special.BesselJ;

/**
 * Spectrum of sin(2π c t + φc + I sin(2π m t + φm)) = Σ J_k(I) sin(2π (c + k m) t + φc + k φm) (Chowning 1973). What lies
 * below 0 Hz folds over with a change of sign, and adds to what is there as a complex number; what lies at 0 Hz is gone.
 */
public final class Sidebands {
    private static final int MOST_ORDERS = 400;
    private static final double LEAST = 1e-6;

    private Sidebands() {}

    /**
     * One line.
     *
     * @param hz        frequency, above 0
     * @param amplitude for a carrier of 1
     * @param phaseRad  of a sine
     * @param orders    sidebands that fall on it, such as "+2 -4"
     */
    public record Line(double hz, double amplitude, double phaseRad, String orders) {
        public double levelDb() {
            return 20 * Math.log10(Math.max(1e-12, amplitude));
        }
    }

    /** J_0(I) to J_n(I). @param index I, 0 or more [rad] */
    public static double[] bessel(double index, int n) {
        if (index < 1e-9) {
            double[] j = new double[n + 1];
            j[0] = 1;
            return j;
        }
        return BesselJ.rjBesl(index, 0, n + 1).getVals();
    }

    /** Orders that matter: all beyond are more than 70 dB down. */
    public static int orders(double index) {
        return index < 1e-9 ? 0 : (int) Math.min(MOST_ORDERS, Math.ceil(index + 4 * Math.cbrt(index) + 1));
    }

    /** Highest frequency that matters [Hz]. */
    public static double topHz(double carrierHz, double modulatorHz, double index) {
        return carrierHz + (index < 1e-9 ? 0 : index + 4 * Math.cbrt(index)) * modulatorHz;
    }

    /** Largest index, up to the one wanted, whose sidebands stay under a frequency. */
    static double heldIndex(double carrierHz, double modulatorHz, double wanted, double top) {
        if (topHz(carrierHz, modulatorHz, wanted) <= top) {
            return wanted;
        }
        double low = 0;
        double high = wanted;
        for (int i = 0; i < 24; i++) {
            double mid = (low + high) / 2;
            if (topHz(carrierHz, modulatorHz, mid) <= top) {
                low = mid;
            } else {
                high = mid;
            }
        }
        return low;
    }

    /** All lines up to a frequency, by rising frequency. */
    public static List<Line> lines(
            double carrierHz, double modulatorHz, double index, double carrierRad, double modulatorRad, double topHz) {
        int n = orders(index);
        double[] j = bessel(index, n);
        TreeMap<Long, double[]> sums = new TreeMap<>();
        TreeMap<Long, String> names = new TreeMap<>();
        for (int k = -n; k <= n; k++) {
            double signed = carrierHz + k * modulatorHz;
            double a = j[Math.abs(k)] * (k < 0 && k % 2 != 0 ? -1 : 1);
            double phase = carrierRad + k * modulatorRad;
            double hz = Math.abs(signed);
            if (hz < 1e-6 || hz > topHz || Math.abs(a) < LEAST) {
                continue;
            }
            // sin(-x) = -sin x: a line below 0 Hz turns sign and phase over
            double re = signed > 0 ? a * Math.cos(phase) : -a * Math.cos(-phase);
            double im = signed > 0 ? a * Math.sin(phase) : -a * Math.sin(-phase);
            long place = Math.round(hz * 1e4);
            sums.merge(place, new double[] {hz, re, im}, (x, y) -> new double[] {x[0], x[1] + y[1], x[2] + y[2]});
            names.merge(place, (k > 0 ? "+" : "") + k, (x, y) -> x + " " + y);
        }
        List<Line> out = new ArrayList<>();
        sums.forEach((place, s) ->
                out.add(new Line(s[0], Math.hypot(s[1], s[2]), Math.atan2(s[2], s[1]), names.get(place))));
        out.sort(Comparator.comparingDouble(Line::hz));
        return out;
    }
}
