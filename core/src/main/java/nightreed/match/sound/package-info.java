/**
 * A sound as a listener follows it.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.match.sound.AnalysedSound} is a clip with its measurement, its loudness over time and the moment its key is released.
 * {@link nightreed.match.sound.LoudnessTracks} holds loudness and brightness frame by frame; {@link nightreed.match.sound.NoteOffDetector}
 * finds the key release of held notes.
 */
package nightreed.match.sound;
