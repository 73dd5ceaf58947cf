package nightreed.device;

import java.util.Arrays;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicLongArray;
import nightreed.dsp.CeilingLimiter;
import nightreed.dsp.RiseGuard;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.voice.Instrument;
import nightreed.voice.Playable;

/**
 * What is heard: a recording or its imitation at equal loudness, and the instrument that is played by hand, under one
 * volume and one ceiling that cannot be passed.
 *
 * <p>Any thread may call the public methods; what they want crosses to the audio thread as immutable values. The audio
 * thread alone calls {@link #render}.
 */
public final class OutputMixer implements AudioSource, Playable {
    /** Highest true peak that leaves the desk [dBTP]. */
    public static final double CEILING_DB = -1;

    /** Volume at the first start: low, as nobody knows what the headphones are set to [dB]. */
    public static final double FIRST_VOLUME_DB = -18;

    /** Time in which the sound comes up when an output starts [s]. */
    private static final double SOFT_START = 0.3;

    /** Largest piece that is rendered at once [samples]. */
    private static final int PIECE = 512;

    private final int sampleRateHz;
    private final CeilingLimiter limiter;
    private final RiseGuard guard;
    private final AbPlayer player;
    private final ConcurrentLinkedQueue<Event> events = new ConcurrentLinkedQueue<>();
    private final AtomicLongArray keysDown = new AtomicLongArray(2); // keys that are down, a bit each
    private volatile Instrument instrument;
    private volatile double volume = Math.pow(10, FIRST_VOLUME_DB / 20);
    private volatile boolean silenced;
    private volatile boolean softly = true;
    private volatile boolean ranAway;
    private volatile WavRecorder tape;

    // the audio thread's own
    private double opening; // 0 to 1 while an output starts
    private double level;
    private final float[] playedLeft = new float[PIECE];
    private final float[] playedRight = new float[PIECE];

    private volatile float peak;
    private volatile float power;
    private volatile float load;
    private volatile double held = 1;

    private enum What {
        NOTE_ON,
        NOTE_OFF,
        PEDAL,
        BEND,
        WHEEL,
        PANIC
    }

    private record Event(What what, int key, double value) {
        void to(Playable p) {
            switch (what) {
                case NOTE_ON -> p.noteOn(key, value);
                case NOTE_OFF -> p.noteOff(key);
                case PEDAL -> p.pedal(value > 0);
                case BEND -> p.bend(value);
                case WHEEL -> p.wheel(value);
                case PANIC -> p.panic();
            }
        }
    }

    /** @param sampleRateHz rate of the output */
    public OutputMixer(int sampleRateHz) {
        this.sampleRateHz = sampleRateHz;
        this.limiter = new CeilingLimiter(CEILING_DB, sampleRateHz);
        this.guard = new RiseGuard(sampleRateHz);
        this.player = new AbPlayer(sampleRateHz);
    }

    /**
     * Puts a recording and its imitation on the desk.
     *
     * @param recording  may be null
     * @param imitation  may be null
     * @param gainDb     gain of the imitation that makes both equally loud [dB]
     */
    public void load(Clip recording, Clip imitation, double gainDb) {
        player.load(recording, imitation, gainDb);
    }

    /** Puts a recipe under the keys; sounding notes follow it. */
    public void instrument(Recipe recipe) {
        patch(recipe == null ? null : Patch.of(recipe));
    }

    /** Puts layers under the keys; sounding notes follow them. @param patch null for nothing */
    public void patch(Patch patch) {
        Instrument now = instrument;
        if (patch == null) {
            instrument = null;
        } else if (now == null) {
            instrument = new Instrument(patch, sampleRateHz);
        } else {
            now.patch(patch);
        }
    }

    /** Plays from the start. */
    public void play() {
        silenced = false;
        player.play();
    }

    /** Plays something else once, such as a part of the recording; what is loaded stays. */
    public void audition(Clip clip) {
        silenced = false;
        player.audition(clip);
    }

    public void stop() {
        player.stop();
    }

    public boolean playing() {
        return player.position() >= 0;
    }

    public void hearImitation(boolean imitation) {
        player.hearImitation(imitation);
    }

    public boolean imitationHeard() {
        return player.imitationHeard();
    }

    public void loop(boolean on) {
        player.loop(on);
    }

    @Override
    public void noteOn(int key, double velocity) {
        silenced = false;
        keysDown.accumulateAndGet(key >> 6 & 1, 1L << key, (a, b) -> a | b);
        events.add(new Event(What.NOTE_ON, key, velocity));
    }

    @Override
    public void noteOff(int key) {
        keysDown.accumulateAndGet(key >> 6 & 1, ~(1L << key), (a, b) -> a & b);
        events.add(new Event(What.NOTE_OFF, key, 0));
    }

    @Override
    public void pedal(boolean down) {
        events.add(new Event(What.PEDAL, 0, down ? 1 : 0));
    }

    @Override
    public void bend(double value) {
        events.add(new Event(What.BEND, 0, value));
    }

    @Override
    public void wheel(double value) {
        events.add(new Event(What.WHEEL, 0, value));
    }

    /** Silences everything at once: player and all notes. */
    @Override
    public void panic() {
        silenced = true;
        keysDown.set(0, 0);
        keysDown.set(1, 0);
        stop();
        events.add(new Event(What.PANIC, 0, 0));
    }

    /** @param db volume [dB], at most 0 */
    public void volumeDb(double db) {
        volume = Math.pow(10, Math.min(0, db) / 20);
    }

    public double volumeDb() {
        return 20 * Math.log10(volume);
    }

    /** Lets the sound come up slowly: to be called when another output takes over, whose level nobody knows. */
    public void softStart() {
        softly = true;
    }

    /**
     * Gives what is played by hand to a tape from now on, as it is before the volume.
     *
     * @param next null for none
     */
    public void tape(WavRecorder next) {
        tape = next;
    }

    /** Whether a sound that ran away has been silenced since the last call; resets. */
    public boolean takeRanAway() {
        boolean r = ranAway;
        ranAway = false;
        return r;
    }

    /** Largest sample since the last call, after the ceiling; resets. */
    public double takePeak() {
        float p = peak;
        peak = 0;
        return p;
    }

    /** Mean square of the last block, of both sides. */
    public double power() {
        return power;
    }

    /** Largest share of a block's own length that was needed to render it since the last call; resets. */
    public double takeLoad() {
        float l = load;
        load = 0;
        return l;
    }

    /** Whether a key is down, by whatever plays it. */
    public boolean keyDown(int key) {
        return (keysDown.get(key >> 6 & 1) >>> key & 1) != 0;
    }

    /** Notes that sound now. */
    public int voices() {
        Instrument played = instrument;
        return played == null ? 0 : played.voices();
    }

    /** How far the ceiling held the sound back since the last call [dB, 0 or less]; resets. */
    public double takeReductionDb() {
        double h = held;
        held = 1;
        return 20 * Math.log10(h);
    }

    @Override
    public void render(float[] left, float[] right, int n) {
        long began = System.nanoTime();
        Arrays.fill(left, 0, n, 0);
        Arrays.fill(right, 0, n, 0);
        player.render(left, right, n);
        for (int from = 0; from < n; from += PIECE) {
            instrument(left, right, from, Math.min(n, from + PIECE));
        }
        volume(left, right, n);
        limiter.process(left, right, 0, n);
        held = Math.min(held, limiter.takeReduction());
        meter(left, right, n);
        double took = (System.nanoTime() - began) * 1e-9;
        load = Math.max(load, (float) (took * sampleRateHz / n));
    }

    /** Adds what is played by hand. */
    private void instrument(float[] left, float[] right, int from, int to) {
        int n = to - from;
        Arrays.fill(playedLeft, 0, n, 0);
        Arrays.fill(playedRight, 0, n, 0);
        Instrument played = instrument;
        if (played == null) {
            events.clear();
        } else {
            for (Event e = events.poll(); e != null; e = events.poll()) {
                e.to(played);
            }
            played.render(playedLeft, playedRight, 0, n);
            if (guard.runsAway(playedLeft, playedRight, n)) {
                played.panic();
                Arrays.fill(playedLeft, 0, n, 0);
                Arrays.fill(playedRight, 0, n, 0);
                guard.reset();
                ranAway = true;
            }
        }
        WavRecorder t = tape;
        if (t != null) {
            t.put(playedLeft, playedRight, n);
        }
        for (int i = 0; i < n; i++) {
            left[from + i] += playedLeft[i];
            right[from + i] += playedRight[i];
        }
    }

    private void volume(float[] left, float[] right, int n) {
        double target = silenced ? 0 : volume;
        double glide = 1 - Math.exp(-1 / (0.005 * sampleRateHz));
        if (softly) {
            softly = false;
            limiter.clear(); // or the new output would begin with what the old one's volume was right for
            opening = 0;
        }
        double step = 1 / (SOFT_START * sampleRateHz);
        for (int i = 0; i < n; i++) {
            level += (target - level) * glide;
            opening = Math.min(1, opening + step);
            float gain = (float) (level * opening * opening);
            left[i] *= gain;
            right[i] *= gain;
        }
    }

    private void meter(float[] left, float[] right, int n) {
        float top = peak;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            top = Math.max(top, Math.max(Math.abs(left[i]), Math.abs(right[i])));
            sum += 0.5 * ((double) left[i] * left[i] + (double) right[i] * right[i]);
        }
        peak = top;
        power = (float) (sum / n);
    }
}
