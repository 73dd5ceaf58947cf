package nightreed.optim;

/** Residuals that stop growing: outliers then pull no harder than large residuals. */
public final class RobustLoss {
    /** Multiple of what matters beyond which a residual counts hardly more; chosen: 3 standard deviations. */
    private static final double OUTLIER = 3;

    private RobustLoss() {}

    /** A residual in units of what matters, at most 3 (S. Geman, D. McClure, 1987). */
    public static double limited(double residual) {
        return limited(residual, OUTLIER);
    }

    /** The same with another limit. @param most what the result approaches for large residuals, above 0 */
    public static double limited(double residual, double most) {
        return residual / Math.sqrt(1 + residual * residual / (most * most));
    }
}
