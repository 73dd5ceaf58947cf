package nightreed.dsp;

/**
 * A signal read between its samples, by a windowed sinc (Kaiser window, β 8, 16 zero crossings a side: stop band about -80 dB
 * from 0.9 of the band on).
 */
public final class SincReader {
    private static final int REACH = 16;
    private static final int TABLE = 256;
    private static final double BETA = 8;
    private static final double[] KERNEL = kernel();

    private final double[] x;

    /** @param x samples; kept, not copied */
    public SincReader(double[] x) {
        this.x = x;
    }

    private static double[] kernel() {
        double[] h = new double[REACH * TABLE + 2];
        for (int k = 0; k <= REACH * TABLE; k++) {
            double t = (double) k / TABLE;
            double sinc = k == 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t);
            double u = t / REACH;
            h[k] = sinc * Resampler.bessel0(BETA * Math.sqrt(Math.max(0, 1 - u * u))) / Resampler.bessel0(BETA);
        }
        return h;
    }

    /** @param position in samples, from 0; the signal counts as 0 outside of its samples */
    public double at(double position) {
        int whole = (int) Math.floor(position);
        if (whole < -REACH || whole >= x.length + REACH) {
            return 0;
        }
        double into = position - whole;
        double sum = 0;
        // left of the position, then right of it
        double u = into * TABLE;
        int k = (int) u;
        double f = u - k;
        int last = Math.max(0, whole - REACH + 1);
        for (int i = whole; i >= last; i--) {
            if (i < x.length) {
                sum += x[i] * (KERNEL[k] + f * (KERNEL[k + 1] - KERNEL[k]));
            }
            k += TABLE;
        }
        u = (1 - into) * TABLE;
        k = (int) u;
        f = u - k;
        int end = Math.min(x.length - 1, whole + REACH);
        for (int i = whole + 1; i <= end; i++) {
            if (i >= 0 && k < REACH * TABLE) {
                sum += x[i] * (KERNEL[k] + f * (KERNEL[k + 1] - KERNEL[k]));
            }
            k += TABLE;
        }
        return sum;
    }
}
