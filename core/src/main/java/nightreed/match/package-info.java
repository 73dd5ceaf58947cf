/**
 * Recording against imitation: how far apart they are to the ear, how to come closer, and what fits best.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.Matcher} walks the whole road; {@link nightreed.match.compare.Comparison} is what a listener would
 * notice, in just-noticeable differences, computed by {@link nightreed.match.compare.PerceptualComparator} from two {@link
 * nightreed.match.sound.AnalysedSound}s; {@link nightreed.match.fit} finds recipes; {@link nightreed.match.NextMoves} says what
 * to change. All thresholds of hearing stand in {@link nightreed.match.hearing.JndThresholds}.
 *
 * <h2>Conventions</h2>
 * 1 JND is what half the listeners would just notice. The worst aspect leads; the total is the root mean square of all
 * aspects, and a match is within hearing only when no aspect is above 1.
 */
package nightreed.match;
