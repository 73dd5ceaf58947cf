/**
 * What all methods share of one note: where it is in time and pitch, what moves it, and the filters about it.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.voice.note.VoiceModel} is what a method has to do; {@link nightreed.voice.note.Note} is what it is told.
 *
 * <h2>Conventions</h2>
 * Values move in steps of at most {@value nightreed.voice.note.Note#STEP} samples and glide within them. Steps are counted
 * from the instrument's own clock, so that the size of the blocks it is asked for changes nothing. Nothing here allocates
 * after its constructor.
 */
package nightreed.voice.note;
