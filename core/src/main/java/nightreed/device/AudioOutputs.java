package nightreed.device;

/** Chooses an output. */
public final class AudioOutputs {
    /** Rate of everything that is played [Hz]. */
    public static final int SAMPLE_RATE_HZ = 48_000;

    private AudioOutputs() {}

    /** The sound card through Java Sound, or the stand-in where there is none or it refuses. */
    public static AudioOutput open(AudioSource source) {
        AudioOutput card = JavaSoundOutput.open(source, SAMPLE_RATE_HZ);
        return card != null ? card : new StandInOutput(source, SAMPLE_RATE_HZ);
    }
}
