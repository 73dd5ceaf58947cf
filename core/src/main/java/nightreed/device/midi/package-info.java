/**
 * Keyboards and controllers, with a stand-in for machines that have none.
 *
 * <h2>Where to start</h2>
 * {@link nightreed.device.midi.MidiIn} keeps the chosen {@link nightreed.device.midi.MidiInput} open while devices come and
 * go: one of the machine's own ({@link nightreed.device.midi.JavaSoundMidi}) or the {@link
 * nightreed.device.midi.ScriptedPlayer}.
 */
package nightreed.device.midi;
