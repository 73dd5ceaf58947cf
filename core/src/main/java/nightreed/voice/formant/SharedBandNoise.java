package nightreed.voice.formant;

import nightreed.dsp.Noise;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.Note;
import nightreed.voice.note.Shared;

/**
 * Noise in bands, made once for all notes of a player. Four sets sound at once, from sources of their own; each note hears one
 * of them from a moment of its own, up to 40 ms ago, so that up to four notes hear unlike noise and more of them noise that
 * differs by more than most bands remember.
 */
public final class SharedBandNoise implements Shared<FormantRecipe> {
    private static final int SETS = 4;
    private static final int KEPT = 2048; // samples, a power of two
    private final int bands;
    private final boolean sideBySide;
    private final Noise[] sources = new Noise[SETS];
    private final SplitBank[] banks = new SplitBank[SETS];
    private final float[][][] kept; // [set][band][ring]
    private final double[] rest = new double[Note.STEP];
    private final double[] low = new double[Note.STEP];
    private final boolean[] running = new boolean[SETS]; // whether a note has asked for it yet
    private FormantRecipe placed;
    private boolean wanted;
    private long at;

    /** @param like gives number and kind of the bands */
    public SharedBandNoise(double sampleRateHz, FormantRecipe like) {
        sideBySide = like.bank() == FormantRecipe.Bank.SIDE_BY_SIDE;
        bands = sideBySide ? like.bands().size() : 0;
        kept = new float[SETS][bands][KEPT];
        for (int s = 0; s < SETS; s++) {
            sources[s] = new Noise(41 + 10L * s);
            banks[s] = new SplitBank(bands, sampleRateHz);
        }
        step(like);
    }

    /** A note is going to hear a set: from now on it is made, and what of it lies behind is made up for. */
    void use(int set) {
        int s = set & SETS - 1;
        if (wanted && !running[s]) {
            running[s] = true;
            for (int k = KEPT; k > 0; k -= Note.STEP) {
                render(s, at - k, Note.STEP);
            }
        }
    }

    /** Whether notes of a recipe can hear the same noise: not if something moves bands or noise of each note by itself. */
    static boolean suits(FormantRecipe r) {
        boolean moved = false;
        for (int i = 0; i < r.common().routes().size(); i++) {
            moved |= r.common().routes().get(i).target() == Target.SHIFT;
        }
        return r.bank() == FormantRecipe.Bank.SIDE_BY_SIDE && r.common().before() == null && !moved;
    }

    private static boolean heard(FormantRecipe r) {
        boolean share = false;
        for (int i = 0; i < r.bands().size(); i++) {
            share |= r.bands().get(i).noiseShare() > 0;
        }
        return share && r.noiseDb() > FormantRecipe.OFF_DB;
    }

    @Override
    public void step(FormantRecipe r) {
        if (placed != r && sideBySide) {
            placed = r;
            wanted = suits(r) && heard(r);
            double factor = Math.pow(2, r.shiftCents() / 1200);
            for (int i = 0; i <= bands; i++) {
                banks[0].edge(i, BankResponse.edgeHz(r, i) * factor);
            }
            for (int s = 1; s < SETS; s++) {
                banks[s].edgesOf(banks[0]);
            }
        }
    }

    @Override
    public void render(int n) {
        for (int s = 0; s < SETS && wanted; s++) {
            if (running[s]) {
                render(s, at, n);
            }
        }
        at += n;
    }

    private void render(int s, long from, int n) {
        for (int i = 0; i < n; i++) {
            rest[i] = sources[s].white();
        }
        banks[s].split(0, rest, low, n);
        for (int b = 0; b < bands; b++) {
            banks[s].split(b + 1, rest, low, n);
            float[] ring = kept[s][b];
            for (int i = 0; i < n; i++) {
                ring[(int) (from + i & KEPT - 1)] = (float) low[i];
            }
        }
    }

    /** A moment for a note to hear the noise from [samples ago]. @param chance -1 to 1 */
    static int ago(double chance) {
        return 2 * Note.STEP + (int) ((0.5 + 0.5 * chance) * (KEPT - 4 * Note.STEP));
    }

    /**
     * Mixes the noise of a band in the samples rendered last into a sound.
     *
     * @param x     becomes {@code (1 - share) x + share gain noise}
     * @param share 0 to 1
     */
    void mix(int set, int band, int ago, double[] x, double share, double gain, int n) {
        float[] ring = kept[set & SETS - 1][band];
        int from = (int) (at - n - ago & KEPT - 1);
        int first = Math.min(n, KEPT - from);
        double dry = 1 - share;
        double wet = share * gain;
        for (int i = 0; i < first; i++) {
            x[i] = dry * x[i] + wet * ring[from + i];
        }
        for (int i = first; i < n; i++) {
            x[i] = dry * x[i] + wet * ring[i - first];
        }
    }
}
