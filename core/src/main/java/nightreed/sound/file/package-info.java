/**
 * Sound files of every common kind, read in a stream.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.sound.file.SoundFiles} is all that the rest of the program calls: it tells a file's kind by its first
 * bytes, reads it whole, a span of it, or only its outline. {@link nightreed.sound.file.SoundReader} is what a kind has to
 * offer; there is one per kind.
 *
 * <h2>What it follows, and what it leaves to libraries</h2>
 * WAV: "Multimedia Programming Interface and Data Specifications 1.0" (IBM, Microsoft, 1991) with WAVE_FORMAT_EXTENSIBLE and
 * EBU Tech 3306 (RF64). AIFF and AIFF-C: the specifications of 1989 and 1991. Both are chunks of plain samples and are
 * read here, as the JDK's readers give up on chunks in another order and shorten broken files in silence. FLAC, Ogg Vorbis
 * and MP3 are decoded by jFLAC, JOrbis and JLayer.
 *
 * <h2>Conventions</h2>
 * Full scale = 1; integer samples of b bits are divided by 2^(b-1). A reader stops at damage and says so in a warning.
 */
package nightreed.sound.file;
