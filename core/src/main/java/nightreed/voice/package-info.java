/**
 * From a recipe to samples, in real time and offline by the same code.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.Instrument} is what is played: notes in, samples out, a recipe that may change meanwhile. {@link
 * nightreed.voice.ResonatorVoice} is one note of the resonator method. {@link nightreed.voice.Renderer} renders one note
 * to a clip.
 *
 * <h2>What it follows</h2>
 * M. Mathews, J. O. Smith, "Methods for synthesizing very high Q parametrically well behaved two pole filters", SMAC
 * 2003: a mode as a rotating complex number, whose frequency and decay may move while it rings.
 *
 * <h2>Conventions</h2>
 * Whoever renders also starts and ends notes: one thread. Only constructors allocate. Full scale = 1. A new recipe comes
 * in as one immutable snapshot.
 */
package nightreed.voice;
