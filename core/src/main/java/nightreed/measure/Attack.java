package nightreed.measure;

/** How fast a note comes in. */
public final class Attack {
    private Attack() {}

    /**
     * Rise of the running maximum from 10 to 90 % of the first peak.
     *
     * @param x     samples
     * @param fs    their rate [Hz]
     * @param onset first sample of the note
     * @return time [s], or null if there is nothing to rise
     */
    public static Double seconds(double[] x, double fs, int onset) {
        double early = peak(x, onset, onset + (int) (0.1 * fs));
        double late = peak(x, onset, onset + (int) (0.4 * fs));
        double top = late > 1.4 * early ? late : early; // a slow attack still rises after 100 ms
        int ten = -1;
        for (int i = onset; top > 0 && i < x.length; i++) {
            double v = Math.abs(x[i]);
            if (ten < 0 && v >= 0.1 * top) {
                ten = i;
            }
            if (v >= 0.9 * top) {
                return Math.max(1, i - ten) / fs;
            }
        }
        return null;
    }

    private static double peak(double[] x, int from, int to) {
        double p = 0;
        for (int i = from; i < Math.min(x.length, to); i++) {
            p = Math.max(p, Math.abs(x[i]));
        }
        return p;
    }
}
