package nightreed.voice;

import java.util.function.Supplier;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Keyboard.Voicing;
import nightreed.voice.effect.EffectChain;
import nightreed.voice.note.Note;
import nightreed.voice.note.PerformanceControls;
import nightreed.voice.note.Shared;
import nightreed.voice.note.VoiceModel;

/**
 * All notes of one recipe, and the effects behind them. One thread renders and plays. After the constructor nothing
 * allocates.
 */
final class Player<R extends Recipe> {
    /** Notes that sound at once. */
    static final int VOICES = 32;

    /** Places for notes that are fading out to make room. */
    private static final int SPARE = 8;

    /** Seed of the chance in the first note. */
    static final long FIRST_CHANCE = 1000;

    private static final double MAKE_ROOM_SECONDS = 0.006;
    private static final double PANIC_SECONDS = 0.01;

    private final double fs;
    private final int most;
    private final Voice<?>[] voices;
    private final PerformanceControls hands = new PerformanceControls();
    private final Shared<R> shared;
    private final EffectChain effects;
    private final double[] left = new double[Note.STEP];
    private final double[] right = new double[Note.STEP];
    private final int[] downKeys = new int[128]; // keys that are down, the newest last
    private int downCount;
    private R recipe;
    private boolean pedal;
    private boolean clearing; // effects are emptied once the last note has faded
    private int untilStep;
    private double reached = Double.NaN; // gain of what was rendered last
    private long strikes;

    /** @param most notes that sound at once; 1 for a single note of a recipe that stays as it is */
    Player(R recipe, Supplier<VoiceModel<R>> sounds, double sampleRateHz, int most) {
        this(recipe, sounds, Shared.nothing(), sampleRateHz, most);
    }

    /** @param shared what all notes use together */
    Player(R recipe, Supplier<VoiceModel<R>> sounds, Shared<R> shared, double sampleRateHz, int most) {
        this.shared = shared;
        this.recipe = recipe;
        this.fs = sampleRateHz;
        this.most = most;
        boolean alone = most == 1; // then there is one note, and the recipe stays as it is
        voices = new Voice<?>[alone ? 1 : most + Math.min(most, SPARE)];
        for (int i = 0; i < voices.length; i++) {
            voices[i] = new Voice<>(sounds.get(), hands, sampleRateHz);
        }
        effects = alone ? EffectChain.only(recipe.common().effects(), sampleRateHz) : new EffectChain(sampleRateHz);
    }

    @SuppressWarnings("unchecked") // all voices are made by the constructor, for R
    private Voice<R> voice(int i) {
        return (Voice<R>) voices[i];
    }

    R recipe() {
        return recipe;
    }

    /** Takes over a changed recipe of the same build. */
    void follow(R changed) {
        recipe = changed;
        for (int i = 0; i < voices.length; i++) {
            voice(i).follow(changed);
        }
    }

    /** @param gain of this key in the layer */
    void noteOn(int key, double velocity, double gain) {
        press(key);
        Voicing way = recipe.common().keys().voicing();
        if (way == Voicing.MANY) {
            start(key, velocity, key, gain);
            return;
        }
        Voice<R> now = newest();
        if (now == null) {
            start(key, velocity, key, gain);
        } else if (way == Voicing.ONE_BOUND && now.down()) {
            now.glideTo(recipe, key);
        } else {
            double from = now.glideKey();
            now.fadeOut(MAKE_ROOM_SECONDS);
            start(key, velocity, from, gain);
        }
    }

    private void start(int key, double velocity, double fromKey, double gain) {
        Voice<R> v = free();
        // each strike has its own noise, yet the same events give the same samples
        v.start(recipe, key, velocity, FIRST_CHANCE + strikes, fromKey, strikes, gain);
        strikes++;
    }

    /** A place for a new note; the least audible of all makes room if there is none. */
    private Voice<R> free() {
        int busy = 0;
        Voice<R> quietest = null;
        double least = Double.POSITIVE_INFINITY;
        Voice<R> place = null;
        Voice<R> faded = voice(0);
        for (int i = 0; i < voices.length; i++) {
            Voice<R> v = voice(i);
            if (!v.sounding()) {
                place = v;
                continue;
            }
            faded = v.fading() && (!faded.fading() || v.energy() < faded.energy()) ? v : faded;
            if (v.fading()) {
                continue;
            }
            busy++;
            double e = v.energy() * (v.down() ? 4 : 1);
            if (e < least && strikes - v.started() > 1) {
                least = e;
                quietest = v;
            }
        }
        if (busy >= most && quietest != null) {
            quietest.fadeOut(MAKE_ROOM_SECONDS);
        }
        return place != null ? place : faded;
    }

    private Voice<R> newest() {
        Voice<R> best = null;
        for (int i = 0; i < voices.length; i++) {
            Voice<R> v = voice(i);
            if (v.sounding() && !v.fading() && (best == null || v.started() > best.started())) {
                best = v;
            }
        }
        return best;
    }

    void noteOff(int key) {
        letUp(key);
        boolean one = recipe.common().keys().voicing() != Voicing.MANY;
        for (int i = 0; i < voices.length; i++) {
            Voice<R> v = voice(i);
            if (!v.down() || v.key() != key) {
                continue;
            }
            if (one && downCount > 0) {
                v.glideTo(recipe, downKeys[downCount - 1]);
            } else if (pedal) {
                v.sustain();
            } else {
                v.release(recipe);
            }
        }
    }

    private void press(int key) {
        letUp(key);
        downKeys[downCount++] = key;
    }

    private void letUp(int key) {
        int kept = 0;
        for (int i = 0; i < downCount; i++) {
            if (downKeys[i] != key) {
                downKeys[kept++] = downKeys[i];
            }
        }
        downCount = kept;
    }

    void pedal(boolean down) {
        pedal = down;
        for (int i = 0; i < voices.length && !down; i++) {
            if (voice(i).sustained()) {
                voice(i).release(recipe);
            }
        }
    }

    PerformanceControls hands() {
        return hands;
    }

    void panic() {
        downCount = 0;
        pedal = false;
        for (int i = 0; i < voices.length; i++) {
            voice(i).fadeOut(PANIC_SECONDS);
        }
        clearing = true;
    }

    boolean sounding() {
        for (int i = 0; i < voices.length; i++) {
            if (voice(i).sounding()) {
                return true;
            }
        }
        return effects.sounding();
    }

    /** Notes that sound now. */
    int count() {
        int n = 0;
        for (int i = 0; i < voices.length; i++) {
            n += voice(i).sounding() ? 1 : 0;
        }
        return n;
    }

    /** Adds the next samples, times a gain, to both sides. */
    void render(float[] outLeft, float[] outRight, int from, int to, double gain) {
        int at = from;
        reached = Double.isNaN(reached) ? gain : reached;
        while (at < to) {
            if (untilStep == 0) {
                step();
            }
            int n = Math.min(untilStep, to - at);
            for (int i = 0; i < voices.length; i++) {
                n = Math.min(n, voice(i).prepare(recipe, untilStep));
            }
            java.util.Arrays.fill(left, 0, n, 0);
            java.util.Arrays.fill(right, 0, n, 0);
            if (count() > 0) {
                shared.render(n);
            }
            for (int i = 0; i < voices.length; i++) {
                voice(i).render(recipe, left, right, 0, n);
            }
            effects.process(left, right, n);
            double step = (gain - reached) / n;
            for (int i = 0; i < n; i++) {
                reached += step;
                outLeft[at + i] += (float) (reached * left[i]);
                outRight[at + i] += (float) (reached * right[i]);
            }
            reached = gain;
            untilStep -= n;
            at += n;
        }
    }

    private void step() {
        untilStep = Note.STEP;
        hands.advance(recipe.common(), Note.STEP / fs);
        shared.step(recipe);
        if (clearing && count() == 0) {
            clearing = false;
            effects.clear();
        }
        effects.step(recipe.common().effects(), recipe.common().tempoBpm());
    }
}
