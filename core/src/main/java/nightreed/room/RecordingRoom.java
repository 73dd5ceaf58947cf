package nightreed.room;

import java.util.List;
import nightreed.dsp.Noise;
import nightreed.sound.Clip;

/**
 * A room with a microphone and a player who strikes what is asked for, not quite at concert pitch, in a room that is not
 * quite silent. The same request gives the same recording.
 */
public final class RecordingRoom {
    /** Rate of all recordings [Hz]. */
    public static final int SAMPLE_RATE_HZ = 48_000;

    /** Loudness of a full-force strike at the microphone; softer ones are recorded softer. */
    private static final double MICROPHONE_GAIN = 0.9;

    private static final String SLATE_BARS = "slate-bars";
    private static final String BUOY_BELL = "buoy-bell";
    private static final String FERRY_HORN = "ferry-horn";
    private static final String LONG_BOW = "long-bow";
    private static final String EEL_LUTE = "eel-lute";
    private static final String RATCHET_KIT = "ratchet-kit";

    private RecordingRoom() {}

    /**
     * Something that can be recorded.
     *
     * @param id        name on the command line
     * @param title     name for people
     * @param lowestKey lowest key it has (MIDI)
     * @param highestKey highest key it has (MIDI)
     * @param usualKey  where it sounds most like itself
     */
    public record Instrument(String id, String title, int lowestKey, int highestKey, int usualKey) {}

    public static List<Instrument> instruments() {
        return List.of(
                new Instrument(SLATE_BARS, "Slate bars", 48, 91, 69),
                new Instrument(BUOY_BELL, "Ostrel buoy bell", 52, 79, 62),
                new Instrument(FERRY_HORN, "Night ferry's horn", 40, 70, 53),
                new Instrument(LONG_BOW, "Long bow", 45, 76, 57),
                new Instrument(EEL_LUTE, "Eel lute", 40, 76, 50),
                new Instrument(RATCHET_KIT, "Ratchet kit", 48, 84, 72));
    }

    /** @throws IllegalArgumentException naming what there is, if there is no such instrument */
    public static Instrument instrument(String id) {
        return instruments().stream()
                .filter(i -> i.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no '" + id + "' in the recording room; there"
                        + " is: "
                        + String.join(
                                ", ", instruments().stream().map(Instrument::id).toList())));
    }

    /**
     * Records one note.
     *
     * @param instrument what is played
     * @param key        MIDI number within its range
     * @param velocity   strength of the blow, above 0 to 1
     * @param seed       which bar of that pitch, which player, which moment
     * @return mono clip at {@link #SAMPLE_RATE_HZ}
     * @throws IllegalArgumentException if the key or the velocity is out of range
     */
    public static Clip record(Instrument instrument, int key, double velocity, long seed) {
        if (key < instrument.lowestKey() || key > instrument.highestKey()) {
            throw new IllegalArgumentException(
                    "the " + instrument.title().toLowerCase(java.util.Locale.ROOT) + " can be played on keys "
                            + instrument.lowestKey() + " to " + instrument.highestKey() + ", not " + key);
        }
        if (!(velocity > 0 && velocity <= 1)) {
            throw new IllegalArgumentException("velocity must lie above 0 and at most at 1, got " + velocity);
        }
        Noise chance = new Noise(31 * seed + key);
        double cents = 32 * (chance.uniform() * 2 - 1); // the set was tuned together, but not to A 440
        double hz = 440 * Math.pow(2, (key - 69 + cents / 100) / 12);
        double[] sound = play(instrument.id(), hz, velocity, chance);
        int lead = (int) ((0.12 + 0.1 * chance.uniform()) * SAMPLE_RATE_HZ);
        return Clip.mono(inTheRoom(sound, lead, chance), SAMPLE_RATE_HZ);
    }

    private static double[] play(String id, double hz, double velocity, Noise chance) {
        switch (id) {
            case FERRY_HORN -> {
                return new FerryHorn(hz, chance).blow(velocity, 2.2, (int) (2.6 * SAMPLE_RATE_HZ), SAMPLE_RATE_HZ);
            }
            case LONG_BOW -> {
                return new LongBow(hz, chance).bow(velocity, 2.6, (int) (3.2 * SAMPLE_RATE_HZ), SAMPLE_RATE_HZ);
            }
            case EEL_LUTE -> {
                return new EelLute(hz, chance).pluck(velocity, (int) (4.0 * SAMPLE_RATE_HZ), SAMPLE_RATE_HZ);
            }
            case RATCHET_KIT -> {
                boolean wood = hz < 440 * Math.pow(2, (RatchetKit.HIGHEST_WOOD + 0.6 - 69) / 12);
                double hit = 0.6 * Math.pow(8, velocity); // speed of the stick: 0.6 to 5 m/s
                int length = (int) ((wood ? 0.7 : 2.8) * SAMPLE_RATE_HZ);
                return new RatchetKit(hz, wood, chance).strike(hit, length, SAMPLE_RATE_HZ);
            }
            default -> {
                // the two that came first, below
            }
        }
        if (id.equals(BUOY_BELL)) {
            double speed = 0.2 * Math.pow(9, velocity); // of the clapper: 0.2 to 1.8 m/s
            double ring = Math.min(9.0, 7.0 * Math.pow(300 / hz, 0.3));
            return new BuoyBell(hz, chance).strike(speed, (int) (ring * SAMPLE_RATE_HZ), SAMPLE_RATE_HZ);
        }
        double speed = 0.25 * Math.pow(14, velocity); // of the mallet: 0.25 to 3.5 m/s
        double ring = Math.min(4.0, Math.max(1.6, 2.6 * Math.pow(440 / hz, 0.35)));
        return new SlateBar(hz, chance).strike(speed, (int) (ring * SAMPLE_RATE_HZ), SAMPLE_RATE_HZ);
    }

    /** The sound after a moment of quiet, with the room's own air: noise that falls towards the treble. */
    private static double[] inTheRoom(double[] sound, int lead, Noise chance) {
        double[] out = new double[lead + sound.length];
        double air = 0;
        double rumble = 0;
        for (int i = 0; i < out.length; i++) {
            air += 0.35 * (chance.white() - air);
            rumble += 0.02 * (chance.white() - rumble);
            out[i] = 2.5e-4 * (air + 2.5 * rumble);
            if (i >= lead) {
                out[i] += MICROPHONE_GAIN * sound[i - lead];
            }
        }
        return out;
    }
}
