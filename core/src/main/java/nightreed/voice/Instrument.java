package nightreed.voice;

import nightreed.recipe.ResonatorRecipe;

/**
 * A recipe that can be played: polyphonic, with voices that are taken from the oldest quiet notes when all are in use.
 * One thread renders and plays; another may hand in a new recipe at any time through {@link #recipe(ResonatorRecipe)}.
 * After the constructor nothing allocates.
 */
public final class Instrument {
    private static final int VOICES = 24;
    private static final int BLOCK = 64;
    private final ResonatorVoice[] voices = new ResonatorVoice[VOICES];
    private volatile ResonatorRecipe wanted;
    private ResonatorRecipe current;
    private long strikes;

    public Instrument(ResonatorRecipe recipe, double sampleRateHz) {
        wanted = recipe;
        current = recipe;
        for (int i = 0; i < VOICES; i++) {
            voices[i] = new ResonatorVoice(sampleRateHz, BLOCK);
        }
    }

    /** Changes the recipe; sounding notes follow from the next 64 samples on. Any thread. */
    public void recipe(ResonatorRecipe recipe) {
        wanted = recipe;
    }

    public ResonatorRecipe recipe() {
        return wanted;
    }

    /** @param velocity 0 to 1 */
    public void noteOn(int key, double velocity) {
        takeOver();
        int quietest = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < VOICES; i++) {
            if (!voices[i].sounding()) {
                start(voices[i], key, velocity);
                return;
            }
            double e = voices[i].energy() * (voices[i].held() ? 4 : 1);
            if (e < least) {
                least = e;
                quietest = i;
            }
        }
        start(voices[quietest], key, velocity); // the least audible of all makes room
    }

    private void start(ResonatorVoice v, int key, double velocity) {
        // each strike has its own noise, yet the same events give the same samples
        v.strike(current, key, Math.max(0, Math.min(1, velocity)), 1000 + strikes++);
    }

    public void noteOff(int key) {
        takeOver();
        for (ResonatorVoice v : voices) {
            if (v.sounding() && v.held() && v.key() == key) {
                v.release(current);
            }
        }
    }

    /** Silences everything within 10 ms. */
    public void panic() {
        for (ResonatorVoice v : voices) {
            v.fadeOut(0.01);
        }
    }

    public boolean sounding() {
        for (ResonatorVoice v : voices) {
            if (v.sounding()) {
                return true;
            }
        }
        return false;
    }

    /** Adds the next samples to {@code out[from..to)}. */
    public void render(float[] out, int from, int to) {
        takeOver();
        for (int at = from; at < to; at += BLOCK) {
            int n = Math.min(BLOCK, to - at);
            for (ResonatorVoice v : voices) {
                v.render(out, at, n);
            }
        }
    }

    private void takeOver() {
        ResonatorRecipe next = wanted;
        if (next != current) {
            current = next;
            for (ResonatorVoice v : voices) {
                if (v.sounding()) {
                    v.follow(next);
                }
            }
        }
    }
}
