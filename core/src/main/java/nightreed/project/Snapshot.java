package nightreed.project;

import nightreed.measure.Hand;
import nightreed.recipe.Recipe;

/**
 * What an imitation is at one point of its history.
 *
 * @param recordingId row of the recording it is made after, null if there is none yet
 * @param recipe      recipe, null if nothing has been fitted yet
 * @param fitted      recipe as the machine last fitted it, null likewise; rulers mark its values
 * @param note        note for the patch sheet, never null
 * @param hand        what was decided by hand about the measurement
 */
public record Snapshot(Long recordingId, Recipe recipe, Recipe fitted, String note, Hand hand) {
    public static final Snapshot EMPTY = new Snapshot(null, null, null, "");

    /** With the measurement as it is. */
    public Snapshot(Long recordingId, Recipe recipe, Recipe fitted, String note) {
        this(recordingId, recipe, fitted, note, Hand.NONE);
    }

    public Snapshot withRecipe(Recipe r) {
        return new Snapshot(recordingId, r, fitted, note, hand);
    }

    /** A recipe that the machine has just fitted. */
    public Snapshot withFit(Recipe r) {
        return new Snapshot(recordingId, r, r, note, hand);
    }

    public Snapshot withNote(String n) {
        return new Snapshot(recordingId, recipe, fitted, n, hand);
    }

    public Snapshot withHand(Hand h) {
        return new Snapshot(recordingId, recipe, fitted, note, h);
    }
}
