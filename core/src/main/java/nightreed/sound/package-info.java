/**
 * Recorded sound as a value, its files, and how loud it is.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.sound.Clip} is the value everything passes around; {@code nightreed.sound.file} brings it in,
 * {@link nightreed.sound.WavFiles} out; {@link nightreed.sound.Loudness} and {@link nightreed.sound.TruePeak} follow ITU-R BS.1770-4.
 *
 * <h2>Conventions</h2>
 * Full scale = 1, levels in dB, loudness in LUFS. What a user can do about a bad file is said by the message of
 * {@link nightreed.sound.UnusableSound}.
 */
package nightreed.sound;
