/**
 * How far two sounds are apart.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.compare.PerceptualComparator} compares two analysed sounds and returns a {@link
 * nightreed.match.compare.Comparison}. {@link nightreed.match.compare.ImitationRenderer} renders a recipe as a recording is laid out in
 * time; {@link nightreed.match.compare.Prediction} computes the measurement of plain modes without a render.
 */
package nightreed.match.compare;
