package nightreed.match.start;

/**
 * A value that was measured better than a search can hear it: how far it may be moved before it costs a JND.
 *
 * @param logarithmic whether ratios count instead of differences
 * @param jnd         change that counts as one, of the value or of its logarithm
 * @param weight      factor on the residual
 */
public record Anchor(double value, boolean logarithmic, double jnd, double weight) {
    /** Residual for where the value is now [JND times the root of its weight]. */
    public double difference(double now) {
        double by = logarithmic ? Math.log(now / value) : now - value;
        return weight * by / jnd;
    }
}
