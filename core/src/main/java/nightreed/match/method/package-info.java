/**
 * The list of methods, and the way to their starting values.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.method.Methods} lists the descriptors ({@link nightreed.match.start.Method}); {@link
 * nightreed.match.method.Starts} computes starting values by any of them.
 */
package nightreed.match.method;
