package nightreed.dsp;

/**
 * One second-order section at work (transposed direct form II). One thread at a time; only the constructor allocates.
 */
public final class BiquadFilter {
    private Biquad c;
    private double s1;
    private double s2;

    public BiquadFilter(Biquad coefficients) {
        this.c = coefficients;
    }

    /** Changes the response and keeps the state. */
    public void retune(Biquad coefficients) {
        this.c = coefficients;
    }

    public void reset() {
        s1 = 0;
        s2 = 0;
    }

    public double next(double x) {
        double y = c.b0() * x + s1;
        s1 = c.b1() * x - c.a1() * y + s2;
        s2 = c.b2() * x - c.a2() * y;
        return y;
    }

    /** Ends a tail that has sunk into denormal numbers, which are slow on some processors. */
    public void flush() {
        if (Math.abs(s1) + Math.abs(s2) < 1e-30) {
            reset();
        }
    }

    /** Filters a whole signal from rest. @return new array as long as {@code x} */
    public static double[] apply(Biquad coefficients, double[] x) {
        BiquadFilter f = new BiquadFilter(coefficients);
        double[] y = new double[x.length];
        for (int i = 0; i < x.length; i++) {
            y[i] = f.next(x[i]);
        }
        return y;
    }
}
