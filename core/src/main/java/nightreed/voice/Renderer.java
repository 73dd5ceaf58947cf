package nightreed.voice;

import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;

/** One note of a recipe as a clip, by the same code that sounds live. */
public final class Renderer {
    /** Seed of the noises in a note rendered alone. */
    public static final long CHANCE_OF_NOTE = Player.FIRST_CHANCE;

    /** Seed of the random steps that the second LFO takes in a note rendered alone, for {@link nightreed.recipe.part.Lfo#at}. */
    public static final long STEPS_OF_SECOND = Player.FIRST_CHANCE + 1;

    private Renderer() {}

    /**
     * Both sides mixed to one.
     *
     * @param recipe       what to play
     * @param key          MIDI number
     * @param velocity     0 to 1
     * @param leadSeconds  silence before the strike [s]
     * @param totalSeconds length of the clip [s], lead included; the key is held all the time
     * @param sampleRateHz rate of the clip
     */
    public static Clip note(
            Recipe recipe, int key, double velocity, double leadSeconds, double totalSeconds, int sampleRateHz) {
        int lead = (int) Math.round(leadSeconds * sampleRateHz);
        float[] out = new float[Math.max(1, (int) Math.round(totalSeconds * sampleRateHz))];
        if (lead < out.length) {
            Instrument instrument = new Instrument(Patch.of(recipe), sampleRateHz, 1);
            instrument.noteOn(key, velocity);
            instrument.render(out, lead, out.length);
        }
        return Clip.mono(out, sampleRateHz);
    }

    /**
     * Both sides, and the key let go after a while.
     *
     * @param heldSeconds  time from key-down to key-up [s]
     * @param totalSeconds length of the clip [s]
     * @return clip of two channels
     */
    public static Clip played(
            Patch patch, int key, double velocity, double heldSeconds, double totalSeconds, int sampleRateHz) {
        int n = Math.max(1, (int) Math.round(totalSeconds * sampleRateHz));
        int up = Math.min(n, (int) Math.round(heldSeconds * sampleRateHz));
        float[][] out = new float[2][n];
        Instrument instrument = new Instrument(patch, sampleRateHz, 1);
        instrument.noteOn(key, velocity);
        instrument.render(out[0], out[1], 0, up);
        instrument.noteOff(key);
        instrument.render(out[0], out[1], up, n);
        return new Clip(out, sampleRateHz);
    }

    /** The recipe's own key at its reference velocity. */
    public static Clip asFitted(Recipe recipe, double leadSeconds, double totalSeconds, int sampleRateHz) {
        return note(recipe, recipe.key(), recipe.velocity().reference(), leadSeconds, totalSeconds, sampleRateHz);
    }

    /**
     * The same with the key let go after a while.
     *
     * @param heldSeconds time from key-down to key-up [s]; infinite if it is never let go
     */
    public static Clip asFitted(
            Recipe recipe, double leadSeconds, double heldSeconds, double totalSeconds, int sampleRateHz) {
        return at(
                recipe,
                recipe.key(),
                recipe.velocity().reference(),
                leadSeconds,
                heldSeconds,
                totalSeconds,
                sampleRateHz);
    }

    /**
     * All layers on the patch's own key, each with the strength that its values hold for, as gains of playing are left out.
     *
     * @param heldSeconds time from key-down to key-up [s]; infinite if it is never let go
     * @return clip of two channels
     */
    public static Clip asFitted(
            Patch patch, double leadSeconds, double heldSeconds, double totalSeconds, int sampleRateHz) {
        int lead = (int) Math.round(leadSeconds * sampleRateHz);
        float[][] out = new float[2][Math.max(1, (int) Math.round(totalSeconds * sampleRateHz))];
        int n = out[0].length;
        int up = (int) Math.min(n, lead + Math.rint(heldSeconds * sampleRateHz));
        if (lead < n) {
            Instrument instrument = new Instrument(patch, sampleRateHz, 1);
            instrument.noteAsFitted();
            instrument.render(out[0], out[1], lead, up);
            instrument.noteOff(patch.key());
            instrument.render(out[0], out[1], up, n);
        }
        return new Clip(out, sampleRateHz);
    }

    /**
     * One note that is let go after a while.
     *
     * @param key         MIDI number
     * @param velocity    0 to 1
     * @param heldSeconds time from key-down to key-up [s]; infinite if it is never let go
     */
    public static Clip at(
            Recipe recipe,
            int key,
            double velocity,
            double leadSeconds,
            double heldSeconds,
            double totalSeconds,
            int sampleRateHz) {
        return at(Patch.of(recipe), key, velocity, leadSeconds, heldSeconds, totalSeconds, sampleRateHz);
    }

    /** The same of layers; both sides mixed to one. */
    public static Clip at(
            Patch patch,
            int key,
            double velocity,
            double leadSeconds,
            double heldSeconds,
            double totalSeconds,
            int sampleRateHz) {
        int lead = (int) Math.round(leadSeconds * sampleRateHz);
        float[] out = new float[Math.max(1, (int) Math.round(totalSeconds * sampleRateHz))];
        int up = (int) Math.min(out.length, lead + Math.rint(heldSeconds * sampleRateHz));
        if (lead < out.length) {
            Instrument instrument = new Instrument(patch, sampleRateHz, 1);
            instrument.noteOn(key, velocity);
            instrument.render(out, lead, up);
            instrument.noteOff(key);
            instrument.render(out, up, out.length);
        }
        return Clip.mono(out, sampleRateHz);
    }
}
