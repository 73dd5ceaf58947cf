package nightreed.device;

import java.util.List;

/** A machine without sound cards: whatever is played goes to the stand-in. For pictures, benchmarks and tests. */
public final class NoDevices implements OutputDevices {
    @Override
    public List<String> names() {
        return List.of();
    }

    @Override
    public AudioOutput open(String name, int blockSamples, AudioSource source) {
        return null;
    }
}
