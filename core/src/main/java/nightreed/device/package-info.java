/**
 * Where sound goes out, with a stand-in for machines that have no sound card.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.device.OutputMixer} is what is heard: recording or imitation at equal loudness, the playable instrument, volume,
 * meter, ceiling and guard. {@link nightreed.device.SoundOut} keeps it sounding through whatever {@link
 * nightreed.device.AudioOutput} there is: a sound card ({@link nightreed.device.JavaSoundDevices}) or the {@link
 * nightreed.device.StandInOutput}. {@link nightreed.device.WavRecorder} takes down what is played. {@link nightreed.device.SoundIn} listens to a microphone or its stand-in.
 *
 * <h2>Conventions</h2>
 * Everything is rendered at 48 kHz; an output of another rate resamples. Audio threads take no locks, allocate nothing and
 * never log.
 */
package nightreed.device;
