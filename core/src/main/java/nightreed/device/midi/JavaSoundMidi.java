package nightreed.device.midi;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.sound.midi.MidiDevice;
import javax.sound.midi.MidiMessage;
import javax.sound.midi.MidiSystem;
import javax.sound.midi.MidiUnavailableException;
import javax.sound.midi.Receiver;
import javax.sound.midi.Sequencer;
import javax.sound.midi.Synthesizer;
import javax.sound.midi.Transmitter;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** MIDI devices through Java Sound. */
public final class JavaSoundMidi implements MidiDevices {
    private static final Logger LOG = LoggerFactory.getLogger(JavaSoundMidi.class);

    @Override
    public List<String> names() {
        return new ArrayList<>(devices().keySet());
    }

    private static Map<String, MidiDevice.Info> devices() {
        Map<String, MidiDevice.Info> out = new LinkedHashMap<>();
        for (MidiDevice.Info info : MidiSystem.getMidiDeviceInfo()) {
            try {
                MidiDevice d = MidiSystem.getMidiDevice(info);
                if (d.getMaxTransmitters() != 0 && !(d instanceof Sequencer) && !(d instanceof Synthesizer)) {
                    String name = info.getName();
                    for (int k = 2; out.containsKey(name); k++) {
                        name = info.getName() + " (" + k + ")";
                    }
                    out.put(name, info);
                }
            } catch (MidiUnavailableException | IllegalArgumentException e) {
                LOG.debug("{} has gone: {}", info.getName(), e.toString());
            }
        }
        return out;
    }

    @Override
    public MidiInput open(String name, MidiInput.Listener listener) {
        MidiDevice.Info info = devices().get(name);
        if (info == null) {
            return null;
        }
        try {
            MidiDevice device = MidiSystem.getMidiDevice(info);
            device.open();
            Transmitter t = device.getTransmitter();
            t.setReceiver(new Inward(listener));
            return new Open(name, device);
        } catch (MidiUnavailableException | IllegalArgumentException | SecurityException e) {
            LOG.info("{}: {}", name, e.toString()); // most often another program has it
            return null;
        }
    }

    private record Inward(MidiInput.Listener listener) implements Receiver {
        @Override
        public void send(MidiMessage message, long micros) {
            byte[] b = message.getMessage();
            if (b.length > 0 && (b[0] & 0xFF) < 0xF0) {
                listener.message(b[0] & 0xFF, b.length > 1 ? b[1] & 0x7F : 0, b.length > 2 ? b[2] & 0x7F : 0);
            }
        }

        @Override
        public void close() {
            // the device is closed by whoever opened it
        }
    }

    private record Open(String name, MidiDevice device) implements MidiInput {
        @Override
        public boolean standIn() {
            return false;
        }

        @Override
        public void close() {
            device.close();
        }
    }
}
