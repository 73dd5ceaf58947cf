package nightreed.voice.fm;

import org.jtransforms.fft.DoubleFFT_1D;

/**
 * Which lines a modulator that feeds itself back gives a carrier: the amplitudes c_k of e^(j I y(θ)) = Σ c_k e^(jkθ), where
 * y(θ) = sin(θ + f y(θ)). Without feedback c_k is J_k(I) (Chowning 1973); with it the modulator is a bent sine
 * (N. Tomisawa, 1979), of which no table tells, so one cycle is computed and transformed. Not for several
 * threads at once.
 */
public final class ModulatedCycle {
    private static final int SHORT = 64;
    private static final int LONG = 256;
    private static final int ROUNDS = 12;

    private final double feedback;
    private final double[] few;
    private double[] many; // once it is needed
    private final DoubleFFT_1D shortTransform = new DoubleFFT_1D(SHORT);
    private final DoubleFFT_1D longTransform = new DoubleFFT_1D(LONG);

    /** @param feedback f, 0 to 2 [rad] */
    public ModulatedCycle(double feedback) {
        this.feedback = feedback;
        few = cycle(SHORT, feedback);
    }

    private static double[] cycle(int length, double feedback) {
        double[] cycle = new double[length];
        for (int i = 0; i < cycle.length; i++) {
            double theta = 2 * Math.PI * i / cycle.length;
            double y = Math.sin(theta);
            for (int k = 0; feedback > 0 && k < ROUNDS; k++) { // halfway, as the voice takes the mean of two samples
                y = 0.5 * (y + Math.sin(theta + feedback * y));
            }
            cycle[i] = y;
        }
        return cycle;
    }

    private double[] cycle(boolean isShort) {
        if (isShort) {
            return few;
        }
        if (many == null) {
            many = cycle(LONG, feedback);
        }
        return many;
    }

    /**
     * @param index I, 0 or more [rad]
     * @return real and imaginary parts of c_0 to c_(N/2-1) and then of c_(-N/2) to c_(-1), as a transform orders them: N is
     *     enough for all that matter, up to indexes of about 100
     */
    public double[] lines(double index) {
        boolean isShort = isShort(index);
        double[] cycle = cycle(isShort);
        double[] out = new double[2 * cycle.length];
        for (int i = 0; i < cycle.length; i++) {
            double turn = index * cycle[i];
            out[2 * i] = Math.cos(turn) / cycle.length;
            out[2 * i + 1] = Math.sin(turn) / cycle.length;
        }
        return transformed(out, isShort);
    }

    /** How much each of {@link #lines} changes per radian of index, in the same order. @param index 0 or more [rad] */
    public double[] slopes(double index) {
        boolean isShort = isShort(index);
        double[] cycle = cycle(isShort);
        double[] out = new double[2 * cycle.length];
        for (int i = 0; i < cycle.length; i++) {
            double turn = index * cycle[i];
            out[2 * i] = -cycle[i] * Math.sin(turn) / cycle.length;
            out[2 * i + 1] = cycle[i] * Math.cos(turn) / cycle.length;
        }
        return transformed(out, isShort);
    }

    private static boolean isShort(double index) {
        return 2 * (Sidebands.orders(index) + 8) < SHORT;
    }

    private double[] transformed(double[] cycle, boolean isShort) {
        (isShort ? shortTransform : longTransform).complexForward(cycle);
        return cycle;
    }
}
