package nightreed.voice;

import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.DcBlocker;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.PerformanceControls;
import nightreed.voice.note.VoiceModel;

/** One note on its way: its sound, then filter, level and place between the sides. */
final class Voice<R extends Recipe> {
    /** Samples from one look at what moves to the next while envelopes are steep, just after key-down and key-up. */
    private static final int FINE = 8;

    /** In which a note comes in whose sound was built anew [s]; as long as the fade of what it takes over from. */
    private static final double CARRY_SECONDS = 0.01;

    /** How long that is [s]: nine whole steps. Chosen; by then the shortest attacks are over. */
    private static final double FINE_SECONDS = 0.012;

    private final double fs;
    private final VoiceModel<R> sound;
    private final Note note;
    private final MovingFilter leftAfter;
    private final MovingFilter rightAfter;
    private final DcBlocker leftSwing;
    private final DcBlocker rightSwing;
    private final double[] left = new double[Note.STEP];
    private final double[] right = new double[Note.STEP];
    private int untilStep;
    private int fine; // samples for which steps are short
    private boolean sounding;
    private boolean sustained; // key is up, but the pedal is down
    private boolean fading;
    private double fade = 1;
    private double fadeStep;
    private double gainLeft;
    private double gainRight;
    private double stepLeft;
    private double stepRight;
    private double layerGain = 1;
    private long started;

    Voice(VoiceModel<R> sound, PerformanceControls hands, double sampleRateHz) {
        this.fs = sampleRateHz;
        this.sound = sound;
        this.note = new Note(sampleRateHz, hands);
        this.leftAfter = new MovingFilter(sampleRateHz);
        this.rightAfter = new MovingFilter(sampleRateHz);
        this.leftSwing = new DcBlocker(sampleRateHz);
        this.rightSwing = new DcBlocker(sampleRateHz);
    }

    /** @param order number of the note, for telling the older from the newer @param gain of this key */
    void start(R recipe, int key, double velocity, long seed, double fromKey, long order, double gain) {
        sounding = true;
        sustained = false;
        fading = false;
        fade = 1;
        fadeStep = 0;
        started = order;
        layerGain = gain;
        leftAfter.reset();
        rightAfter.reset();
        leftSwing.reset();
        rightSwing.reset();
        note.start(recipe, key, velocity, seed, fromKey);
        sound.start(recipe, note);
        sides(recipe);
        gainLeft = stepLeft;
        gainRight = stepRight;
        stepLeft = 0;
        stepRight = 0;
        beginFinely();
    }

    /**
     * A note that another voice has begun and fades out: where this sound follows envelopes it goes on from where they are,
     * otherwise it starts anew; either way it fades in.
     *
     * @param age since key-down [s]
     */
    void carryOn(R recipe, int key, double velocity, long seed, long order, double gain, double age) {
        start(recipe, key, velocity, seed, key, order, gain);
        if (sound.goesOn()) {
            note.goOn(recipe, age);
            sound.start(recipe, note);
        }
        fade = 0;
        fadeStep = -1 / (CARRY_SECONDS * fs);
    }

    /** Since key-down [s]. */
    double age() {
        return note.age();
    }

    /** From this sample on, whatever envelopes do is followed closely. */
    private void beginFinely() {
        untilStep = 0;
        fine = sound.followsFinely() ? (int) (FINE_SECONDS * fs) : 0;
    }

    /** Gains that the recipe and its routes ask for, left in the step fields. */
    private void sides(R recipe) {
        double pan = Math.max(-1, Math.min(1, recipe.common().pan() + note.added(Target.PAN)));
        double level = layerGain * note.gain(Target.LEVEL);
        double angle = (pan + 1) * Math.PI / 4;
        stepLeft = level * Math.sqrt(2) * Math.cos(angle);
        stepRight = level * Math.sqrt(2) * Math.sin(angle);
    }

    void follow(R recipe) {
        if (sounding) {
            sound.follow(recipe, note);
        }
    }

    /**
     * Sets what the next samples glide towards, if it is time for that.
     *
     * @param most samples for which it may be set
     * @return samples until it is time again
     */
    int prepare(R recipe, int most) {
        if (sounding && untilStep == 0) {
            untilStep = Math.min(most, fine > 0 ? FINE : Note.STEP);
            step(recipe, untilStep);
        }
        return sounding ? untilStep : most;
    }

    private void step(R recipe, int n) {
        note.advance(recipe, n);
        sound.step(recipe, note, n);
        sides(recipe);
        stepLeft = (stepLeft - gainLeft) / n;
        stepRight = (stepRight - gainRight) / n;
        Common c = recipe.common();
        if (c.after() != null) {
            Filter f = c.after();
            double cutoff = MovingFilter.cutoffHz(f, recipe, note);
            leftAfter.step(f, cutoff, n);
            rightAfter.step(f, cutoff, n);
        }
        if (sound.over() || fading && fade <= 0) {
            sounding = false;
        }
    }

    /** Adds the next samples to both sides. At most as many as {@link #prepare} told. */
    void render(R recipe, double[] outLeft, double[] outRight, int from, int to) {
        if (!sounding) {
            return;
        }
        int n = to - from;
        java.util.Arrays.fill(left, 0, n, 0);
        boolean two = sound.stereo();
        if (two) {
            java.util.Arrays.fill(right, 0, n, 0);
        }
        sound.render(left, right, 0, n);
        untilStep -= n;
        fine -= n;
        if (recipe.common().after() != null) {
            leftAfter.process(left, 0, n);
            if (two) {
                rightAfter.process(right, 0, n);
            }
        }
        if (sound.drifts()) {
            leftSwing.process(left, 0, n);
            if (two) {
                rightSwing.process(right, 0, n);
            }
        }
        double[] second = two ? right : left;
        if (fadeStep == 0) { // most of the time; a fade is a chain in which each sample waits for the one before
            for (int i = 0; i < n; i++) {
                outLeft[from + i] += left[i] * gainLeft;
                outRight[from + i] += second[i] * gainRight;
                gainLeft += stepLeft;
                gainRight += stepRight;
            }
            return;
        }
        for (int i = 0; i < n; i++) {
            outLeft[from + i] += left[i] * gainLeft * fade;
            outRight[from + i] += second[i] * gainRight * fade;
            gainLeft += stepLeft;
            gainRight += stepRight;
            fade = Math.max(0, Math.min(1, fade - fadeStep));
        }
        if (fadeStep < 0 && fade == 1) {
            fadeStep = 0; // it has come in
        }
    }

    void release(R recipe) {
        sustained = false;
        if (sounding && note.held()) {
            note.advance(recipe, -untilStep); // which was ahead, up to the end of the step
            beginFinely();
            note.letGo();
            sound.release(recipe, note);
        }
    }

    /** Key-up while the pedal is down. */
    void sustain() {
        sustained = true;
    }

    /** Fades the voice out, for a note that needs its place or for silence. */
    void fadeOut(double seconds) {
        fading = true;
        fadeStep = Math.max(Math.max(0, fadeStep), 1 / Math.max(1, seconds * fs));
    }

    void glideTo(R recipe, int key) {
        note.glideTo(recipe, key);
        sustained = false;
    }

    boolean sounding() {
        return sounding;
    }

    boolean fading() {
        return fading;
    }

    /** Whether its key is down. */
    boolean down() {
        return sounding && note.held() && !sustained && !fading;
    }

    boolean sustained() {
        return sounding && sustained && note.held();
    }

    int key() {
        return note.key();
    }

    double glideKey() {
        return note.glideKey();
    }

    double energy() {
        return sound.energy() * fade * fade * (gainLeft * gainLeft + gainRight * gainRight) / 2;
    }

    long started() {
        return started;
    }
}
