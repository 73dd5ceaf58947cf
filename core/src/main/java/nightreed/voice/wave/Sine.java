package nightreed.voice.wave;

/** Sine from a table, straight lines between 8192 points: exact to 8e-8 (-142 dB). */
public final class Sine {
    private static final int SIZE = 8192;
    private static final double[] TABLE = new double[SIZE + 1];

    static {
        for (int i = 0; i <= SIZE; i++) {
            TABLE[i] = Math.sin(2 * Math.PI * i / SIZE);
        }
    }

    private Sine() {}

    /** Sine of so many cycles, any number. */
    public static double of(double cycles) {
        double x = (cycles - Math.floor(cycles)) * SIZE;
        int i = (int) x;
        double f = x - i;
        double a = TABLE[i & SIZE - 1];
        return a + f * (TABLE[(i & SIZE - 1) + 1] - a);
    }
}
