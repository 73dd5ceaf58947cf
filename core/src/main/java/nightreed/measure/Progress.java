package nightreed.measure;

/**
 * Told how far a long piece of work has come. An implementation may throw {@link
 * java.util.concurrent.CancellationException} to end the work; nothing is changed then.
 */
@FunctionalInterface
public interface Progress {
    /** Nobody is waiting. */
    Progress NONE = (fraction, doing) -> {};

    /**
     * @param fraction part done, 0 to 1
     * @param doing    what is being done, for people
     */
    void report(double fraction, String doing);

    /** Progress of a part of the work that runs from {@code from} to {@code to} of the whole. */
    default Progress part(double from, double to) {
        return (fraction, doing) -> report(from + fraction * (to - from), doing);
    }
}
