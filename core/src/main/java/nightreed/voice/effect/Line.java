package nightreed.voice.effect;

/** A delay line that can be read between its samples. */
final class Line {
    private final float[] x;
    private final int mask;
    private int at;

    /** @param longest most samples of delay */
    Line(int longest) {
        x = new float[Integer.highestOneBit(longest + 4) << 1];
        mask = x.length - 1;
    }

    void clear() {
        java.util.Arrays.fill(x, 0);
    }

    void put(double v) {
        x[at] = (float) v;
        at = (at + 1) & mask;
    }

    /** The next {@code n} samples at once. */
    void put(double[] v, int n) {
        for (int i = 0; i < n; i++) {
            x[(at + i) & mask] = (float) v[i];
        }
        at = (at + n) & mask;
    }

    /** What was put so many samples before each of the last {@code n}. */
    void get(double[] v, int samples, int n) {
        int from = at - n - samples + 1;
        for (int i = 0; i < n; i++) {
            v[i] = x[(from + i) & mask];
        }
    }

    /** What was put so many samples ago, 1 or more. */
    double get(int samples) {
        return x[(at - samples) & mask];
    }

    /** The same between samples, by Lagrange's polynomial of third order; 2 or more. */
    double get(double samples) {
        int w = (int) samples;
        double d = samples - w;
        double m = x[(at - w + 1) & mask];
        double a = x[(at - w) & mask];
        double b = x[(at - w - 1) & mask];
        double c = x[(at - w - 2) & mask];
        return -d * (d - 1) * (d - 2) / 6 * m
                + (d + 1) * (d - 1) * (d - 2) / 2 * a
                - (d + 1) * d * (d - 2) / 2 * b
                + (d + 1) * d * (d - 1) / 6 * c;
    }
}
