package nightreed.voice.note;

import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Keyboard;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Target;

/** Where one note is: key, strength, time, pitch, and what the routes of its recipe add to each target. */
public final class Note {
    /** Most samples between two looks at what moves. */
    public static final int STEP = 64;

    private static final List<Target> TARGETS = List.of(Target.values());
    private static final double[] MOST =
            TARGETS.stream().mapToDouble(Target::most).toArray();
    private static final int DEPTH_OF_FIRST = TARGETS.indexOf(Target.LFO_1_DEPTH);
    private static final int RATE_OF_FIRST = TARGETS.indexOf(Target.LFO_1_RATE);

    private final double fs;
    private final PerformanceControls hands;
    private final double[] added = new double[TARGETS.size()];
    private int key;
    private double glideKey; // fractional key on its way to the key
    private double glideStep; // keys a second
    private double velocity;
    private long seed;
    private boolean held;
    private double time; // since key-down [s]
    private double letGoAt; // time of key-up [s]
    private double firstCycles;
    private double secondCycles;
    private double hz;
    private double hzOf = Double.NaN; // fractional key that it belongs to

    /**
     * @param sampleRateHz rate of the sound
     * @param hands        wheels and common LFOs
     */
    public Note(double sampleRateHz, PerformanceControls hands) {
        this.fs = sampleRateHz;
        this.hands = hands;
    }

    /** Begins. @param fromKey where the pitch comes from, for a glide; the key itself for none */
    public void start(Recipe recipe, int newKey, double newVelocity, long newSeed, double fromKey) {
        key = newKey;
        velocity = newVelocity;
        seed = newSeed;
        held = true;
        time = 0;
        letGoAt = 0;
        glideKey = fromKey;
        glideTo(recipe, newKey);
        Common c = recipe.common();
        firstCycles = c.first() != null && c.first().free() ? hands.firstCycles() : 0;
        secondCycles = c.second() != null && c.second().free() ? hands.secondCycles() : 0;
        advance(recipe, 0);
    }

    /** Moves to another key without a new start. */
    public void glideTo(Recipe recipe, int newKey) {
        key = newKey;
        double ms = recipe.common().keys().glideMs();
        boolean byRate = recipe.common().keys().glideBy() == Keyboard.GlideBy.RATE;
        double way = byRate ? 12 : Math.abs(newKey - glideKey);
        glideStep = ms < 1 ? Double.POSITIVE_INFINITY : way / (ms / 1000);
    }

    /** Goes to a later moment of the same note. @param age since key-down [s] */
    public void goOn(Recipe recipe, double age) {
        time = age;
        Common c = recipe.common();
        firstCycles += c.first() == null ? 0 : age * c.first().hz(c.tempoBpm());
        secondCycles += c.second() == null ? 0 : age * c.second().hz(c.tempoBpm());
        advance(recipe, 0);
    }

    /** Since key-down [s]. */
    public double age() {
        return time;
    }

    public void letGo() {
        held = false;
        letGoAt = time;
    }

    /** Moves on by {@code n} samples. */
    public void advance(Recipe recipe, int n) {
        double dt = n / fs;
        time += dt;
        double way = key - glideKey;
        glideKey = Math.abs(way) <= glideStep * dt || glideStep == Double.POSITIVE_INFINITY
                ? key
                : glideKey + Math.signum(way) * glideStep * dt;
        routes(recipe, dt);
        double cents = recipe.tuningCents()
                + added(Target.PITCH)
                + hands.cents()
                + 100 * recipe.common().keys().bendSemitones() * hands.bend();
        double pitch = glideKey + cents / 100;
        if (pitch != hzOf) {
            hzOf = pitch;
            hz = Pitch.hz(pitch);
        }
    }

    private void routes(Recipe recipe, double dt) {
        Common c = recipe.common();
        java.util.Arrays.fill(added, 0);
        double second = c.second() == null ? 0 : second(c, dt);
        double envelope = c.envelope() == null ? 0 : course(c.envelope(), 1);
        for (int pass = 0; pass < 2; pass++) {
            // what moves the first LFO comes before what the first LFO moves
            double first = pass == 0 || c.first() == null ? 0 : first(c, dt);
            for (int i = 0; i < c.routes().size(); i++) {
                Route r = c.routes().get(i);
                boolean early = r.target() == Target.LFO_1_DEPTH || r.target() == Target.LFO_1_RATE;
                if (early == (pass == 0)) {
                    added[TARGETS.indexOf(r.target())] += r.depth()
                            * switch (r.source()) {
                                case LFO_1 -> first;
                                case LFO_2 -> second;
                                case ENVELOPE -> envelope;
                                case VELOCITY -> strength(recipe, r);
                                case KEY -> (glideKey - recipe.key()) / 12;
                                case WHEEL -> hands.wheel();
                                case CHANCE -> chance(1);
                            };
                }
            }
        }
        for (int i = 0; i < added.length; i++) { // what moves an LFO's depth could take its routes beyond any range
            added[i] = Math.max(-MOST[i], Math.min(MOST[i], added[i]));
        }
    }

    /** Strength against that at which the recipe's values hold, bent by the route's curve, no softer than the floor. */
    private double strength(Recipe recipe, Route r) {
        double v = Math.max(velocity, recipe.velocity().floor());
        double reference = recipe.velocity().reference();
        if (r.curve() == 0) {
            return v - reference;
        }
        double bend = Math.pow(4, r.curve());
        return Math.pow(v, bend) - Math.pow(reference, bend);
    }

    private double first(Common c, double dt) {
        Lfo lfo = c.first();
        firstCycles += dt * lfo.hz(c.tempoBpm()) * Math.pow(2, added[RATE_OF_FIRST]);
        double cycles = lfo.common() ? hands.firstCycles() : firstCycles;
        return lfo.at(cycles, lfo.common() ? 0 : seed) * lfo.grown(time) * Math.pow(2, added[DEPTH_OF_FIRST]);
    }

    private double second(Common c, double dt) {
        Lfo lfo = c.second();
        secondCycles += dt * lfo.hz(c.tempoBpm());
        double cycles = lfo.common() ? hands.secondCycles() : secondCycles;
        return lfo.at(cycles, lfo.common() ? 0 : seed + 1) * lfo.grown(time);
    }

    /** Value of an envelope now. @param pace factor on its decay */
    public double course(Envelope e, double pace) {
        return held ? e.at(time, pace) : e.released(e.at(letGoAt, pace), time - letGoAt);
    }

    /** Since key-up; 0 while the key is held [s]. */
    public double sinceLetGo() {
        return held ? 0 : time - letGoAt;
    }

    /** Slow wandering of a pitch, up to so many cents either way [cents]. @param which tells several of them apart */
    public double wander(double cents, int which) {
        return cents == 0
                ? 0
                : cents
                        * 0.5
                        * (Math.sin(2 * Math.PI * (0.31 * time + chance(1000 + 2 * which)))
                                + Math.sin(2 * Math.PI * (0.83 * time + chance(1001 + 2 * which))));
    }

    /** Whether an envelope has come to its end and stays there. */
    public boolean ended(Envelope e, double pace) {
        if (!held) {
            return time - letGoAt >= e.releaseSeconds();
        }
        return e.dies() && time >= e.delaySeconds() + e.attackSeconds() + pace * (e.holdSeconds() + e.decaySeconds());
    }

    /** Sum of all routes to a target, in its unit. */
    public double added(Target target) {
        return added[TARGETS.indexOf(target)];
    }

    /** Routes to a level in dB, as a factor on the amplitude. */
    public double gain(Target target) {
        double db = added(target);
        return db == 0 ? 1 : Math.pow(10, db / 20);
    }

    /** Routes in octaves, as a factor. */
    public double factor(Target target) {
        double octaves = added(target);
        return octaves == 0 ? 1 : Math.pow(2, octaves);
    }

    /** A number of -1 to 1 that is the same all through this note. @param which tells several such numbers apart */
    public double chance(int which) {
        long z = (seed * 31 + which) * 0x9E3779B97F4A7C15L;
        z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        return ((z ^ (z >>> 31)) >>> 11) * 0x1.0p-52 - 1;
    }

    public int key() {
        return key;
    }

    /** Key that sounds now, on its way in a glide. */
    public double glideKey() {
        return glideKey;
    }

    /** Frequency of the key now over that of the recipe's own key, without movement. */
    public double keyFactor(Recipe recipe) {
        return Math.pow(2, (glideKey - recipe.key()) / 12);
    }

    public double velocity() {
        return velocity;
    }

    public long seed() {
        return seed;
    }

    public boolean held() {
        return held;
    }

    /** Since key-down [s]. */
    public double time() {
        return time;
    }

    /** Frequency of ratio 1 now: glide, bend and routes included [Hz]. */
    public double hz() {
        return hz;
    }

    public double sampleRateHz() {
        return fs;
    }
}
