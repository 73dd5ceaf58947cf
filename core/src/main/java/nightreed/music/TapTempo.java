package nightreed.music;

import java.util.ArrayList;
import java.util.List;

/** A tempo from taps: the mean of the last few gaps. A long rest begins anew. Not for several threads. */
public final class TapTempo {
    private static final int MOST_TAPS = 8;

    /** Slower than 30 beats a minute nobody taps [s]. */
    private static final double REST_SECONDS = 2;

    private final List<Double> taps = new ArrayList<>();

    /** @param seconds of a clock that only goes forward @return quarters a minute; null until there are two taps */
    public Double tap(double seconds) {
        if (!taps.isEmpty() && seconds - taps.get(taps.size() - 1) > REST_SECONDS) {
            taps.clear();
        }
        taps.add(seconds);
        if (taps.size() > MOST_TAPS) {
            taps.remove(0);
        }
        double span = seconds - taps.get(0);
        return taps.size() < 2 || span <= 0 ? null : (Double) (60 * (taps.size() - 1) / span);
    }
}
