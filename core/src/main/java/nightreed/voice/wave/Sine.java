package nightreed.voice.wave;

/**
 * Sine by a polynomial of the eleventh degree over half a cycle, fitted at the roots of a Chebyshev polynomial: exact to
 * 1e-11. Without tables and branches, so that the compiler can work on several samples at once.
 */
public final class Sine {
    private static final double A1 = 6.2831853064857786;
    private static final double A3 = -41.34170192921954;
    private static final double A5 = 81.60520938151326;
    private static final double A7 = -76.7036660146372;
    private static final double A9 = 41.99996081496588;
    private static final double A11 = -14.336855870650938;

    private Sine() {}

    /** Sine of so many cycles, any number. */
    public static double of(double cycles) {
        double y = cycles - 0.25;
        double q = 0.25 - Math.abs(y - Math.rint(y)); // the quarters of a cycle on either side of a rising zero
        double z = q * q;
        double zz = z * z;
        return q * ((A1 + z * A3) + zz * ((A5 + z * A7) + zz * (A9 + z * A11)));
    }

    /** Turns {@code cycles[0..n)} into their sines. */
    public static void all(double[] cycles, int n) {
        for (int i = 0; i < n; i++) {
            cycles[i] = of(cycles[i]);
        }
    }
}
