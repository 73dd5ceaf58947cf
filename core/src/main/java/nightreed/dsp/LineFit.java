package nightreed.dsp;

/** Straight line through weighted points by least squares: y = intercept + slope · x. Points are added one by one. */
public final class LineFit {
    private int count;
    private double sw;
    private double sx;
    private double sy;
    private double sxx;
    private double sxy;

    public void add(double x, double y) {
        add(x, y, 1);
    }

    /** @param weight one over the variance of y, at least 0 */
    public void add(double x, double y, double weight) {
        count++;
        sw += weight;
        sx += weight * x;
        sy += weight * y;
        sxx += weight * x * x;
        sxy += weight * x * y;
    }

    public int count() {
        return count;
    }

    /** Sum of the weights. */
    public double weight() {
        return sw;
    }

    /** Whether the points determine a slope: at least two that lie apart. */
    public boolean settled() {
        return count >= 2 && determinant() > 1e-12 * sw * sxx;
    }

    private double determinant() {
        return sw * sxx - sx * sx;
    }

    /** Slope, 0 if the points do not {@link #settled settle} one. */
    public double slope() {
        return settled() ? (sw * sxy - sx * sy) / determinant() : 0;
    }

    /** Value at x = 0; the weighted mean if there is no slope. */
    public double intercept() {
        return (sy - slope() * sx) / sw;
    }

    /** Weighted mean of y. */
    public double mean() {
        return sy / sw;
    }

    /** Variance of the slope for points whose weights are one over their variances. */
    public double slopeVariance() {
        return sw / determinant();
    }

    /** Variance of the intercept, as {@link #slopeVariance}. */
    public double interceptVariance() {
        return sxx / determinant();
    }

    /** Covariance of intercept and slope, as {@link #slopeVariance}. */
    public double covariance() {
        return -sx / determinant();
    }
}
