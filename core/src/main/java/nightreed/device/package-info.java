/**
 * Where sound goes out, with a stand-in for machines that have no sound card.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.device.AudioOutput} asks an {@link nightreed.device.AudioSource} for blocks; {@link
 * nightreed.device.AudioOutputs} chooses between {@link nightreed.device.JavaSoundOutput} and {@link
 * nightreed.device.StandInOutput}. {@link nightreed.device.Desk} is the source of the listening rail: recording or
 * imitation at equal loudness, the playable instrument, volume, meter and ceiling.
 */
package nightreed.device;
