/**
 * From a recipe to samples, in real time and offline by the same code.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.Instrument} is what is played: notes in, samples out, a recipe that may change meanwhile. {@link
 * nightreed.voice.Renderer} renders one note to a clip. What a method has to do is {@link nightreed.voice.note.VoiceModel};
 * each method has a package of its own, with the arithmetic that explains it.
 *
 * <h2>Conventions</h2>
 * Whoever renders also starts and ends notes: one thread. Only constructors allocate. Full scale = 1. A new recipe comes
 * in as one immutable snapshot.
 */
package nightreed.voice;
