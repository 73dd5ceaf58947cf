package nightreed.voice.string;

import nightreed.voice.note.Note;

/**
 * A string under a bow: two delays that meet at the bow, which holds the string or lets it slip (M. E. McIntyre, R. T.
 * Schumacher, J. Woodhouse, 1983; J. O. Smith, 1986). The delays together are those of the loop, so that the pitch is its.
 *
 * <p>What the bow gives is rounded, as by hair that yields (R. Pitteroff, J. Woodhouse, 1998). Corners as sharp as a sample
 * leave ripples between bow and bridge that nothing damps, and of the many ways to slip several times in a period it is then a
 * matter of the last digit which one a note falls into.
 */
final class BowedString {
    /** Speed of the hair in the model's own unit for 1 m/s. */
    private static final double UNIT = 0.8;

    /** Time in which the hair yields, in periods: what rounds a corner of one note rounds that of another alike. */
    private static final double YIELDS_PERIODS = 0.055;

    /** Longest such time [s]: hair that yields longer lets low strings slip as they like. Both chosen by how near the harmonics come to a fall of 6 dB per octave, keys 28 to 90. */
    private static final double YIELDS_SECONDS = 0.0004;

    /** Steepness of the friction under no force, and what is left of it under all of it: the more force, the longer it holds. */
    private static final double STEEPEST = 0.5;

    private static final double LEAST_STEEP = 0.3;

    private final double[] nut;
    private final int mask;
    private final StringLoop bridge;
    private final double[] wave = new double[Note.STEP];
    private int at;
    private int toNut = 1;
    private boolean fresh = true;
    private double share = 0.1;
    private double yields;
    private final double fs;
    private double given; // by the bow

    BowedString(int longest, double sampleRateHz) {
        fs = sampleRateHz;
        nut = new double[Integer.highestOneBit(Math.max(16, longest + 4)) << 1];
        mask = nut.length - 1;
        bridge = new StringLoop(longest);
    }

    void start(LoopDesign d, double point) {
        java.util.Arrays.fill(nut, 0);
        bridge.clear();
        given = 0;
        fresh = true;
        take(d, point);
    }

    void take(LoopDesign d, double point) {
        yields = 1 - Math.exp(-1 / Math.min(YIELDS_PERIODS * d.period(), YIELDS_SECONDS * fs));
        share = Math.max(0.03, Math.min(0.5, point <= 0 ? 0.12 : point));
        int wanted = Math.max(1, Math.min(d.whole - 1, (int) Math.round((1 - share) * d.period())));
        wanted = Math.min(wanted, nut.length - 2);
        if (fresh || Math.abs(wanted - toNut) > 0.06 * toNut || toNut >= d.whole) {
            toNut = wanted; // small moves of the pitch are left to the bridge's side, whose delay fades
        }
        fresh = false;
        bridge.take(d, toNut);
    }

    /** Samples that can be rendered in one go. */
    int room() {
        return Math.min(toNut, bridge.room());
    }

    void flush() {
        bridge.flush();
    }

    /**
     * Renders the wave at the bridge, about ±1 for a usual speed.
     *
     * @param y     noise that is put in beside the bow; becomes the sound
     * @param n     at most {@link #room}
     * @param speed of the hair [m/s]
     * @param force 0 to 1
     * @param sign  -1 for a loop that turns the wave over
     * @param extra further gain once round
     * @param extraStep by which that gain moves each sample
     */
    void render(double[] y, int n, double speed, double force, double sign, double extra, double extraStep) {
        bridge.pull(wave, n);
        double steep = STEEPEST * Math.pow(LEAST_STEEP, force);
        double grip = Math.min(1, force * 8);
        double scale = share * 2 / (0.25 * UNIT);
        for (int i = 0; i < n; i++) {
            double fromBridge = -sign * (extra + extraStep * i) * wave[i];
            double fromNut = -nut[(at - toNut) & mask];
            double slip = speed * UNIT - (fromBridge + fromNut);
            double q = Math.abs(slip * steep) + 0.75;
            double added = force > 0 ? grip * slip * Math.min(1, 1 / (q * q * q * q)) : 0;
            given += yields * (added - given);
            nut[at] = fromBridge + given;
            at = (at + 1) & mask;
            wave[i] = fromNut + given + y[i];
            y[i] = fromBridge * scale;
        }
        bridge.push(wave, n);
    }
}
