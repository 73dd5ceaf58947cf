package nightreed.dsp;

/**
 * Notices a sound that runs away: a loop whose gain has passed 1 grows without end, where an instrument would have reached
 * its level. The limiter keeps such a sound under the ceiling, but not from being as loud as it can be for as long as it
 * likes; so after a fifth of a second beyond full scale with no sign of falling, the sound is called runaway.
 * <p>One thread at a time; only the constructor allocates.
 */
public final class RiseGuard {
    /** Level that no intended sound keeps up before the limiter: mean square 3 dB over that of a full-scale square. */
    private static final double LIMIT = 2;

    private static final double SECONDS = 0.2;
    private final double sampleRateHz;
    private double over; // how long it has been beyond [s]
    private double lastPower;

    public RiseGuard(double sampleRateHz) {
        this.sampleRateHz = sampleRateHz;
    }

    /**
     * Looks at the next samples, which are not changed.
     *
     * @return whether the sound runs away; a value that is not a number counts as running away at once
     */
    public boolean runsAway(float[] x, int n) {
        return runsAway(power(x, n), n);
    }

    /** The same for two sides, of which the louder one counts. */
    public boolean runsAway(float[] left, float[] right, int n) {
        double l = power(left, n);
        double r = power(right, n);
        return runsAway(Math.max(l, r), n); // not a number if either is not
    }

    private static double power(float[] x, int n) {
        double power = 0;
        for (int i = 0; i < n; i++) {
            power += (double) x[i] * x[i];
        }
        return power / Math.max(1, n);
    }

    private boolean runsAway(double power, int n) {
        if (!(power < Double.POSITIVE_INFINITY)) {
            return true;
        }
        boolean grows = power > LIMIT && power > 0.7 * lastPower;
        over = grows ? over + n / sampleRateHz : 0;
        lastPower = power;
        return over > SECONDS;
    }

    public void reset() {
        over = 0;
        lastPower = 0;
    }
}
