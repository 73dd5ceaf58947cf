/**
 * Recording against imitation: how far apart they are to the ear, how to come closer, and what fits best.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.Matcher} is the facade: measure, fit, make simpler, render, compare, advise in one call. Below it are rooms, each of which uses
 * only those before it: {@link nightreed.match.hearing} (thresholds), {@link nightreed.match.sound} (a sound as a listener follows
 * it), {@link nightreed.match.compare} (differences in JND), {@link nightreed.match.start} (starting values), {@link
 * nightreed.match.method} (the list of methods), {@link nightreed.match.fit} (search), {@link nightreed.match.advice} (what to do
 * next), {@link nightreed.match.frontier} (patches from the simplest to the nearest).
 *
 * <h2>Conventions</h2>
 * 1 JND is what half the listeners would just notice. The worst aspect leads; the total is the root mean square of all aspects, and
 * a match is within hearing only when no aspect is above 1.
 */
package nightreed.match;
