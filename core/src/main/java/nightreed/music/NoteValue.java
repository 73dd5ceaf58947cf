package nightreed.music;

/**
 * A length in time as a note value at a tempo: a quarter lasts 60 s over the beats per minute, a dotted value half as long
 * again, a triplet two thirds.
 *
 * @param name     such as "1/8", "1/8 dotted" or "1/8 triplet"
 * @param seconds  how long it lasts at the tempo [s]
 * @param offShare by how much the given time is longer, as a share of it
 */
public record NoteValue(String name, double seconds, double offShare) {
    private static final int[] PARTS = {1, 2, 4, 8, 16, 32, 64};

    /**
     * The value closest to a time, on a scale of ratios.
     *
     * @param seconds time, above 0 [s]
     * @param bpm     quarters a minute, above 0
     */
    public static NoteValue nearest(double seconds, double bpm) {
        if (!(seconds > 0) || !(bpm > 0)) {
            throw new IllegalArgumentException(
                    "a time and a tempo above 0 are needed, got " + seconds + " s and " + bpm + " bpm");
        }
        NoteValue best = null;
        for (int part : PARTS) {
            double plain = 4 * 60 / bpm / part;
            for (int kind = 0; kind < 3; kind++) {
                double length = kind == 0 ? plain : kind == 1 ? 1.5 * plain : plain * 2 / 3;
                double off = seconds / length - 1;
                if (best == null || Math.abs(Math.log1p(off)) < Math.abs(Math.log1p(best.offShare))) {
                    String more = kind == 0 ? "" : kind == 1 ? " dotted" : " triplet";
                    best = new NoteValue("1/" + part + more, length, off);
                }
            }
        }
        return best;
    }
}
