package nightreed.voice;

import java.util.function.Supplier;
import nightreed.recipe.Layer;
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

    /** In which a mix comes near where it is wanted. Chosen: no step is heard, and no wait. */
    private static final double MIX_SECONDS = 0.005;

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
    private Layer layer;
    private double gain; // of the patch; 0 for a layer that is not heard
    private double crossFade; // of the patch, without the wheel
    private boolean mixed; // whether the next two have been set
    private double mixLeft;
    private double mixRight;
    private double mixStepLeft;
    private double mixStepRight;
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

    /** A note that another player has begun, from where it is. @param age since key-down [s] */
    void carryOn(int key, double velocity, double gainOfKey, double age) {
        press(key);
        free().carryOn(recipe, key, velocity, FIRST_CHANCE + strikes, strikes, gainOfKey, age);
        strikes++;
    }

    /** How long a key that is down has been sounding [s]; below 0 if it does not. */
    double age(int key) {
        double most = -1;
        for (int i = 0; i < voices.length; i++) {
            Voice<R> v = voice(i);
            most = v.down() && v.key() == key ? Math.max(most, v.age()) : most;
        }
        return most;
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

    /**
     * Where its layer stands from the next step on.
     *
     * @param gainOfPatch 0 if the layer is not heard
     * @param place       of the patch's cross-fade, to which the wheel adds
     */
    void mix(Layer itsLayer, double gainOfPatch, double place) {
        layer = itsLayer;
        hands.tuneTo(itsLayer.fineCents());
        gain = gainOfPatch;
        crossFade = place;
    }

    /** Adds the next samples to both sides. */
    void render(float[] outLeft, float[] outRight, int from, int to) {
        int at = from;
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
            for (int i = 0; i < n; i++) {
                mixLeft += mixStepLeft;
                mixRight += mixStepRight;
                outLeft[at + i] += (float) (mixLeft * left[i]);
                outRight[at + i] += (float) (mixRight * right[i]);
            }
            untilStep -= n;
            at += n;
        }
    }

    /** Balance, pan and cross-fade on their way to where they are wanted. */
    private void glideMix() {
        double level = gain * layer.gain() * layer.gainOnTheWay(crossFade + hands.wheel());
        double angle = (layer.pan() + 1) * Math.PI / 4;
        double toLeft = level * (layer.pan() == 0 ? 1 : Math.sqrt(2) * Math.cos(angle));
        double toRight = level * (layer.pan() == 0 ? 1 : Math.sqrt(2) * Math.sin(angle));
        double share = mixed ? 1 - Math.exp(-Note.STEP / (MIX_SECONDS * fs)) : 1;
        mixStepLeft = share * (toLeft - mixLeft) / Note.STEP;
        mixStepRight = share * (toRight - mixRight) / Note.STEP;
        if (!mixed) {
            mixed = true;
            mixLeft = toLeft;
            mixRight = toRight;
            mixStepLeft = 0;
            mixStepRight = 0;
        }
    }

    private void step() {
        untilStep = Note.STEP;
        hands.advance(recipe.common(), Note.STEP / fs);
        glideMix();
        shared.step(recipe);
        if (clearing && count() == 0) {
            clearing = false;
            effects.clear();
        }
        effects.step(recipe.common().effects(), recipe.common().tempoBpm());
    }
}
