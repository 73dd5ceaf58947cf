package nightreed.device;

import java.util.ArrayList;
import java.util.List;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.Line;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.Mixer;
import javax.sound.sampled.SourceDataLine;

/** Sound cards through Java Sound. */
public final class JavaSoundDevices implements OutputDevices {
    private static final int[] RATES = {SoundOut.SAMPLE_RATE_HZ, 44_100, 96_000};

    @Override
    public List<String> names() {
        List<String> out = new ArrayList<>();
        for (Mixer.Info m : AudioSystem.getMixerInfo()) {
            if (AudioSystem.getMixer(m).isLineSupported(new Line.Info(SourceDataLine.class))) {
                out.add(m.getName());
            }
        }
        return out;
    }

    @Override
    public AudioOutput open(String name, int blockSamples, AudioSource source) {
        for (int rate : RATES) {
            DataLine.Info info = new DataLine.Info(SourceDataLine.class, JavaSoundOutput.format(rate));
            try {
                SourceDataLine line = line(name, info);
                if (line != null) {
                    return JavaSoundOutput.start(line, name == null ? "sound card" : name, rate, blockSamples, source);
                }
            } catch (LineUnavailableException | IllegalArgumentException | SecurityException e) {
                // Java Sound says "no" in three different ways; another rate may suit it better
                org.slf4j.LoggerFactory.getLogger(JavaSoundDevices.class)
                        .info("{} at {} Hz: {}", name, rate, e.toString());
            }
        }
        return null;
    }

    private static SourceDataLine line(String name, DataLine.Info info) throws LineUnavailableException {
        if (name == null) {
            return AudioSystem.isLineSupported(info) ? (SourceDataLine) AudioSystem.getLine(info) : null;
        }
        for (Mixer.Info m : AudioSystem.getMixerInfo()) {
            if (m.getName().equals(name) && AudioSystem.getMixer(m).isLineSupported(info)) {
                return (SourceDataLine) AudioSystem.getMixer(m).getLine(info);
            }
        }
        return null;
    }
}
