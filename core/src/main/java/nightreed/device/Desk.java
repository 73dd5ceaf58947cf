package nightreed.device;

import java.util.concurrent.ConcurrentLinkedQueue;
import nightreed.dsp.CeilingLimiter;
import nightreed.dsp.RiseGuard;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.voice.Instrument;

/**
 * What is heard: a recording or its imitation at equal loudness, and the instrument that is played by hand, under one
 * volume and one ceiling that cannot be passed.
 *
 * <p>Any thread may call the public methods; what they want crosses to the audio thread as immutable values. The audio
 * thread alone calls {@link #render}.
 */
public final class Desk implements AudioSource {
    /** Highest true peak that leaves the desk [dBTP]. */
    public static final double CEILING_DB = -1;

    /** Volume at the first start: low, as nobody knows what the headphones are set to [dB]. */
    public static final double FIRST_VOLUME_DB = -18;

    private final int sampleRateHz;
    private final CeilingLimiter limiter;
    private final RiseGuard guard;
    private final ConcurrentLinkedQueue<Note> notes = new ConcurrentLinkedQueue<>();
    private volatile Programme programme = new Programme(new float[0], new float[0]);
    private volatile boolean imitationHeard;
    private volatile boolean looping;
    private volatile Start start;
    private volatile Instrument instrument;
    private volatile double volume = Math.pow(10, FIRST_VOLUME_DB / 20);
    private volatile boolean silenced;
    private volatile boolean softly = true;
    private volatile boolean ranAway;

    /** Time in which the sound comes up when an output starts [s]. */
    private static final double SOFT_START = 0.3;

    // the audio thread's own
    private double opening; // 0 to 1 while an output starts
    private Start running;
    private int position = -1;
    private double swap; // 0 recording, 1 imitation; glides
    private double level;
    private double envelope; // of the player, so that stopping does not click
    private final float[] scratch;

    private volatile float peak;
    private volatile float power;
    private volatile double held = 1;
    private volatile int positionSeen = -1;

    /** Both sides at the output's rate, made equally loud. */
    private record Programme(float[] recording, float[] imitation) {}

    /** A wish to play from the start, or to stop. @param instead what is played in place of the programme, or null */
    private record Start(boolean play, Programme instead) {}

    private record Note(int key, double velocity, boolean on, boolean panic) {}

    /** @param sampleRateHz rate of the output */
    public Desk(int sampleRateHz) {
        this.sampleRateHz = sampleRateHz;
        this.limiter = new CeilingLimiter(CEILING_DB, sampleRateHz);
        this.guard = new RiseGuard(sampleRateHz);
        this.scratch = new float[4096];
    }

    /**
     * Puts a recording and its imitation on the desk.
     *
     * @param recording  may be null
     * @param imitation  may be null
     * @param gainDb     gain of the imitation that makes both equally loud [dB]
     */
    public void load(Clip recording, Clip imitation, double gainDb) {
        float[] r =
                recording == null ? new float[0] : recording.at(sampleRateHz).mixedFloats();
        float[] i = imitation == null
                ? new float[0]
                : imitation.at(sampleRateHz).scaled(Math.pow(10, gainDb / 20)).mixedFloats();
        programme = new Programme(r, i);
    }

    /** Puts a recipe under the keys; sounding notes follow it. */
    public void instrument(Recipe recipe) {
        Instrument now = instrument;
        if (recipe == null) {
            instrument = null;
        } else if (now == null) {
            instrument = new Instrument(recipe, sampleRateHz);
        } else {
            now.recipe(recipe);
        }
    }

    /** Plays from the start. */
    public void play() {
        silenced = false;
        start = new Start(true, null);
    }

    /** Plays something else once, such as a part of the recording; what is loaded stays. */
    public void audition(Clip clip) {
        silenced = false;
        start = new Start(true, new Programme(clip.at(sampleRateHz).mixedFloats(), new float[0]));
    }

    public void stop() {
        start = new Start(false, null);
    }

    public boolean playing() {
        return positionSeen >= 0;
    }

    /** Place of the player in the recording [s], or -1 if it is not playing. */
    public double positionSeconds() {
        int p = positionSeen;
        return p < 0 ? -1 : (double) p / sampleRateHz;
    }

    public void hearImitation(boolean imitation) {
        imitationHeard = imitation;
    }

    public boolean imitationHeard() {
        return imitationHeard;
    }

    public void loop(boolean on) {
        looping = on;
    }

    public void noteOn(int key, double velocity) {
        silenced = false;
        notes.add(new Note(key, velocity, true, false));
    }

    public void noteOff(int key) {
        notes.add(new Note(key, 0, false, false));
    }

    /** Silences everything at once: player and all notes. */
    public void panic() {
        silenced = true;
        stop();
        notes.add(new Note(0, 0, false, true));
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

    /** Mean square of the last block. */
    public double power() {
        return power;
    }

    /** How far the ceiling held the sound back since the last call [dB, 0 or less]; resets. */
    public double takeReductionDb() {
        double h = held;
        held = 1;
        return 20 * Math.log10(h);
    }

    @Override
    public void render(float[] block, int n) {
        java.util.Arrays.fill(block, 0, n, 0);
        for (int from = 0; from < n; from += scratch.length) {
            player(block, from, Math.min(scratch.length, n - from));
        }
        Instrument played = instrument;
        if (played != null) {
            for (Note e = notes.poll(); e != null; e = notes.poll()) {
                if (e.panic) {
                    played.panic();
                } else if (e.on) {
                    played.noteOn(e.key, e.velocity);
                } else {
                    played.noteOff(e.key);
                }
            }
            played.render(block, 0, n);
            if (guard.runsAway(block, n)) {
                played.panic();
                java.util.Arrays.fill(block, 0, n, 0);
                guard.reset();
                ranAway = true;
            }
        } else {
            notes.clear();
        }
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
            block[i] *= (float) (level * opening * opening);
        }
        limiter.process(block, 0, n);
        held = Math.min(held, limiter.takeReduction());
        meter(block, n);
    }

    private void player(float[] block, int from, int n) {
        Start wish = start;
        if (wish != running) {
            running = wish;
            if (wish.play()) {
                position = 0;
            }
        }
        boolean on = running != null && running.play();
        boolean other = running != null && running.instead() != null;
        Programme p = other ? running.instead() : programme;
        int length = Math.max(p.recording.length, p.imitation.length);
        double fade = 1 - Math.exp(-1 / (0.003 * sampleRateHz));
        double cross = 1 - Math.exp(-1 / (0.006 * sampleRateHz));
        for (int i = 0; i < n && position >= 0; i++) {
            if (position >= length) {
                position = looping && on && !other && length > 0 ? 0 : -1;
                if (position < 0) {
                    envelope = 0; // and the wish stays answered until there is another
                    break;
                }
            }
            swap += ((imitationHeard && !other ? 1 : 0) - swap) * cross;
            envelope += ((on ? 1 : 0) - envelope) * fade;
            double r = position < p.recording.length ? p.recording[position] : 0;
            double m = position < p.imitation.length ? p.imitation[position] : 0;
            block[from + i] += (float) (envelope * ((1 - swap) * r + swap * m));
            position++;
            if (!on && envelope < 1e-4) {
                position = -1;
            }
        }
        positionSeen = position;
    }

    private void meter(float[] block, int n) {
        float top = peak;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            top = Math.max(top, Math.abs(block[i]));
            sum += (double) block[i] * block[i];
        }
        peak = top;
        power = (float) (sum / n);
    }
}
