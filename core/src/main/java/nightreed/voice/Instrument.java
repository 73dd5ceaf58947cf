package nightreed.voice;

import java.util.List;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * What is played: up to four recipes together, each with notes of its own, so that a tail is never cut by the next note. One
 * thread renders and plays; another may hand in a new recipe at any time through {@link #recipe(Recipe)}. Rendering and
 * playing allocate nothing, and the same events give the same samples in blocks of any size.
 */
public final class Instrument implements Playable {
    /** Notes that sound at once. */
    public static final int VOICES = Player.VOICES;

    private final double fs;
    private final int most;
    private volatile Build wanted;
    private Build current;
    private Build old; // fades out after a change of method
    private double bend;
    private double wheel;
    private boolean pedal;
    private final float[] mixLeft = new float[128];
    private final float[] mixRight = new float[128];
    private final double[] strength = new double[128]; // of the keys that are down, below 0 for those that are up

    /** Players for the layers of a patch. */
    private static final class Build {
        private final Patch patch;
        private final List<Player<?>> players;
        private final double gain;

        Build(Patch patch, List<Player<?>> players, boolean alone) {
            this.patch = patch;
            this.players = players;
            Double db = patch.first().common().playingGainDb();
            this.gain = alone || db == null ? 1 : Math.pow(10, db / 20);
        }

        boolean has(Player<?> player) {
            for (int i = 0; i < players.size(); i++) {
                if (players.get(i) == player) {
                    return true;
                }
            }
            return false;
        }

        /** Tells each player where its layer stands. */
        void aim() {
            for (int i = 0; i < players.size(); i++) {
                double heard = patch.isHeard(i) ? gain : 0;
                players.get(i).mix(patch.layers().get(i), heard, patch.crossFade());
            }
        }
    }

    public Instrument(Recipe recipe, double sampleRateHz) {
        this(Patch.of(recipe), sampleRateHz);
    }

    public Instrument(Patch patch, double sampleRateHz) {
        this(patch, sampleRateHz, Player.VOICES);
    }

    /** @param most notes of one recipe that sound at once; 1 for a single note of a patch that stays as it is */
    Instrument(Patch patch, double sampleRateHz, int most) {
        this.fs = sampleRateHz;
        this.most = most;
        java.util.Arrays.fill(strength, -1);
        Patch played = patch.played();
        wanted = new Build(played, Players.of(played, fs, most), most == 1);
        current = wanted;
        current.aim();
    }

    /** Changes the recipe; sounding notes follow. Not on the audio thread. */
    public void recipe(Recipe recipe) {
        patch(Patch.of(recipe));
    }

    /** Changes what is played; notes of layers that are built alike follow, others fade. Not on the audio thread. */
    public void patch(Patch patch) {
        Patch played = patch.played();
        wanted = new Build(played, Players.of(played, wanted.patch, wanted.players, fs, most), most == 1);
    }

    public Recipe recipe() {
        return wanted.patch.layers().get(0).recipe();
    }

    @Override
    public void noteOn(int key, double velocity) {
        takeOver();
        double v = Math.max(0, Math.min(1, velocity));
        strength[key & 127] = v;
        for (int i = 0; i < current.players.size(); i++) {
            Layer l = current.patch.layers().get(i);
            double gain = l.answers(v) ? l.gainAt(key) : 0;
            int played = key + l.transpose();
            if (gain > 0 && played >= 0 && played <= 127) {
                current.players.get(i).noteOn(played, v, gain);
            }
        }
    }

    /** Strikes the patch's own key, each recipe with the strength that its values hold for. */
    void noteAsFitted() {
        for (int i = 0; i < current.players.size(); i++) {
            Layer l = current.patch.layers().get(i);
            int played = current.patch.key() + l.transpose();
            double v = l.recipe().velocity().reference();
            double gain = l.answers(v) ? l.gainAt(current.patch.key()) : 0;
            if (gain > 0 && played >= 0 && played <= 127) {
                current.players.get(i).noteOn(played, v, gain);
            }
        }
    }

    /**
     * Has a layer that was built anew, or that sounds other keys now, sound the notes that are held.
     *
     * @param before what sounded them up to now
     * @param in     layer's place
     */
    private void carryOn(Build before, int in) {
        Layer l = current.patch.layers().get(in);
        for (int key = 0; key < strength.length; key++) {
            int played = key + l.transpose();
            boolean answers = strength[key] >= 0 && l.answers(strength[key]) && played >= 0 && played <= 127;
            double gain = answers ? l.gainAt(key) : 0;
            double age = gain > 0 ? age(before, key) : -1;
            if (age >= 0) {
                current.players.get(in).carryOn(played, strength[key], gain, age);
            }
        }
    }

    /** How long a key that is held has been sounding in any layer [s]; below 0 if it sounds in none. */
    private static double age(Build b, int key) {
        double most = -1;
        for (int i = 0; i < b.players.size(); i++) {
            most = Math.max(
                    most, b.players.get(i).age(key + b.patch.layers().get(i).transpose()));
        }
        return most;
    }

    /** Notes that a layer sounds on other keys from now on end where they are. */
    private void letGo(Player<?> p, int transposed) {
        for (int key = 0; key < strength.length; key++) {
            if (strength[key] >= 0) {
                p.noteOff(key + transposed);
            }
        }
    }

    @Override
    public void noteOff(int key) {
        takeOver();
        strength[key & 127] = -1;
        for (int i = 0; i < current.players.size(); i++) {
            current.players.get(i).noteOff(key + current.patch.layers().get(i).transpose());
        }
    }

    @Override
    public void pedal(boolean down) {
        takeOver();
        pedal = down;
        for (int i = 0; i < current.players.size(); i++) {
            current.players.get(i).pedal(down);
        }
    }

    @Override
    public void bend(double value) {
        bend = value;
        wheels();
    }

    @Override
    public void wheel(double value) {
        wheel = value;
        wheels();
    }

    private void wheels() {
        takeOver();
        for (int i = 0; i < current.players.size(); i++) {
            current.players.get(i).hands().bendTo(bend);
            current.players.get(i).hands().wheelTo(wheel);
        }
    }

    /** Within 10 ms. */
    @Override
    public void panic() {
        takeOver();
        pedal = false;
        java.util.Arrays.fill(strength, -1);
        for (int i = 0; i < current.players.size(); i++) {
            current.players.get(i).panic();
        }
    }

    public boolean sounding() {
        for (int i = 0; i < current.players.size(); i++) {
            if (current.players.get(i).sounding()) {
                return true;
            }
        }
        return false;
    }

    /** Notes that sound now, of all layers. */
    public int voices() {
        int n = 0;
        for (int i = 0; i < current.players.size(); i++) {
            n += current.players.get(i).count();
        }
        return n;
    }

    /** Adds the next samples to {@code left[from..to)} and {@code right[from..to)}, which are different arrays. */
    public void render(float[] left, float[] right, int from, int to) {
        takeOver();
        render(current, left, right, from, to);
        if (old != null) {
            boolean sounding = false;
            for (int i = 0; i < old.players.size(); i++) {
                Player<?> p = old.players.get(i);
                if (!current.has(p)) {
                    p.render(left, right, from, to);
                    sounding |= p.sounding();
                }
            }
            old = sounding ? old : null;
        }
    }

    private static void render(Build b, float[] left, float[] right, int from, int to) {
        for (int i = 0; i < b.players.size(); i++) {
            b.players.get(i).render(left, right, from, to);
        }
    }

    /** Adds the mean of both sides to {@code out[from..to)}. */
    public void render(float[] out, int from, int to) {
        int at = from;
        while (at < to) {
            int n = Math.min(mixLeft.length, to - at);
            java.util.Arrays.fill(mixLeft, 0);
            java.util.Arrays.fill(mixRight, 0);
            render(mixLeft, mixRight, 0, n);
            for (int i = 0; i < n; i++) {
                out[at + i] += 0.5f * (mixLeft[i] + mixRight[i]);
            }
            at += n;
        }
    }

    private void takeOver() {
        Build next = wanted;
        if (next == current) {
            return;
        }
        Build before = current;
        current = next;
        boolean anew = false;
        for (int i = 0; i < next.players.size(); i++) {
            Player<?> p = next.players.get(i);
            if (before.has(p)) {
                Players.follow(p, next.patch.layers().get(i).recipe());
            } else {
                anew = true;
                p.hands().bendTo(bend);
                p.hands().wheelTo(wheel);
                p.pedal(pedal);
            }
        }
        next.aim();
        old = next.players.size() == before.players.size() && !anew ? old : before;
        for (int i = 0; i < next.players.size(); i++) {
            if (!before.has(next.players.get(i))) {
                carryOn(before, i);
            }
        }
        transpose(before, next);
        for (int i = 0; i < before.players.size(); i++) {
            if (!next.has(before.players.get(i))) {
                before.players.get(i).panic();
            }
        }
    }

    /** Held notes of layers that go on, but on other keys: they would never be let go. */
    private void transpose(Build before, Build next) {
        for (int i = 0; i < before.players.size(); i++) {
            int at = next.players.indexOf(before.players.get(i));
            int was = before.patch.layers().get(i).transpose();
            if (at >= 0 && next.patch.layers().get(at).transpose() != was) {
                carryOn(before, at);
                letGo(before.players.get(i), was);
            }
        }
    }
}
