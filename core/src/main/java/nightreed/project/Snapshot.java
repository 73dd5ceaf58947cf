package nightreed.project;

import nightreed.recipe.ResonatorRecipe;

/**
 * What an imitation is at one point of its history.
 *
 * @param recordingId row of the recording it is made after, null if there is none yet
 * @param recipe      recipe, null if nothing has been fitted yet
 * @param fitted      recipe as the machine last fitted it, null likewise; rulers mark its values
 * @param note        note for the patch sheet, never null
 */
public record Snapshot(Long recordingId, ResonatorRecipe recipe, ResonatorRecipe fitted, String note) {
    public static final Snapshot EMPTY = new Snapshot(null, null, null, "");

    public Snapshot withRecipe(ResonatorRecipe r) {
        return new Snapshot(recordingId, r, fitted, note);
    }

    public Snapshot withNote(String n) {
        return new Snapshot(recordingId, recipe, fitted, n);
    }
}
