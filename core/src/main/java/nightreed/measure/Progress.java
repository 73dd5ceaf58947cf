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

    /** Whether what has been found so far is enough: work that only goes on to find something better ends soon with it. */
    default boolean isEnough() {
        return false;
    }

    /** The same, which tells before what is being done what it is done for. */
    default Progress named(String name) {
        Progress whole = this;
        return new Progress() {
            @Override
            public void report(double fraction, String doing) {
                whole.report(fraction, name + ": " + doing);
            }

            @Override
            public boolean isEnough() {
                return whole.isEnough();
            }
        };
    }

    /** Progress of a part of the work that runs from {@code from} to {@code to} of the whole. */
    default Progress part(double from, double to) {
        Progress whole = this;
        return new Progress() {
            @Override
            public void report(double fraction, String doing) {
                whole.report(from + fraction * (to - from), doing);
            }

            @Override
            public boolean isEnough() {
                return whole.isEnough();
            }
        };
    }
}
