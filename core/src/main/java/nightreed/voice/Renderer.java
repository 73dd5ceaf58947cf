package nightreed.voice;

import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;

/** One note of a recipe as a clip, by the same code that sounds live. */
public final class Renderer {
    private Renderer() {}

    /**
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
        if (recipe instanceof ResonatorRecipe r && lead < out.length) {
            Instrument instrument = new Instrument(r, sampleRateHz);
            instrument.noteOn(key, velocity);
            instrument.render(out, lead, out.length);
        }
        return Clip.mono(out, sampleRateHz);
    }

    /** The recipe's own key at its reference velocity. */
    public static Clip asFitted(ResonatorRecipe recipe, double leadSeconds, double totalSeconds, int sampleRateHz) {
        return note(recipe, recipe.key(), recipe.velocity().reference(), leadSeconds, totalSeconds, sampleRateHz);
    }
}
