package nightreed.measure.traits;

/**
 * Where a string was plucked or struck, read from the partials that this place cannot excite.
 *
 * @param share     share of the length from the nearer end, 0 to 0.5
 * @param shareSe   its standard error
 * @param certainty how sure it is that there is such a comb, and that it is this one, 0 to 1
 */
public record PluckPoint(double share, double shareSe, double certainty) {}
