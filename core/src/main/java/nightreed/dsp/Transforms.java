package nightreed.dsp;

import java.util.TreeMap;

/**
 * Transforms of the lengths that one piece of work needs, each with its tables made once. Not for several threads at a time;
 * the transforms it hands out are.
 */
public final class Transforms {
    /** A length that is there already is taken if it leaves out no more than this part of the samples. */
    private static final double LEFT_OUT = 0.01;

    private final TreeMap<Integer, RealFft> made = new TreeMap<>();

    /** @param length as {@link RealFft#RealFft(int)} takes it */
    public RealFft of(int length) {
        return made.computeIfAbsent(length, RealFft::new);
    }

    /** Fast length of at most {@code n} samples, {@code n} at least 2; one that was used before if it is nearly as long. */
    public int lengthUpTo(int n) {
        Integer used = made.floorKey(n);
        return used != null && used > (1 - LEFT_OUT) * n ? used : RealFft.fastLengthUpTo(n);
    }
}
