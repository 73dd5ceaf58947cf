package nightreed.project;

import java.util.Set;
import java.util.TreeSet;
import nightreed.match.hearing.AspectWeights;
import nightreed.measure.ManualCorrections;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * What an imitation is at one point of its history.
 *
 * @param recordingId row of the recording it is made after, null if there is none yet
 * @param recipe      recipe, null if nothing has been fitted yet
 * @param fitted      recipe as the machine last fitted it, null likewise; rulers mark its values
 * @param under       recipe that sounds under it, null for none
 * @param note        note for the patch sheet, never null
 * @param hand        what was decided by hand about the measurement
 * @param locked      values of the recipe that no fit may move, by id
 * @param marks       where an ear has overruled the thresholds of hearing
 */
public record Snapshot(
        Long recordingId,
        Recipe recipe,
        Recipe fitted,
        Recipe under,
        String note,
        ManualCorrections hand,
        Set<String> locked,
        AspectWeights marks) {
    public static final Snapshot EMPTY = new Snapshot(null, null, null, "");

    public Snapshot {
        locked = Set.copyOf(locked);
    }

    /** All that sounds; null if nothing has been fitted yet. */
    public Patch patch() {
        return recipe == null ? null : Patch.of(recipe, under);
    }

    /** With the measurement as it is, nothing locked and nothing marked. */
    public Snapshot(Long recordingId, Recipe recipe, Recipe fitted, String note) {
        this(recordingId, recipe, fitted, null, note, ManualCorrections.NONE, Set.of(), AspectWeights.NONE);
    }

    public Snapshot withRecipe(Recipe r) {
        return new Snapshot(recordingId, r, fitted, under, note, hand, locked, marks);
    }

    /** A recipe that the machine has just fitted, with nothing under it. */
    public Snapshot withFit(Recipe r) {
        return new Snapshot(recordingId, r, r, null, note, hand, locked, marks);
    }

    /** With another recipe under it. @param r null for none */
    public Snapshot withUnder(Recipe r) {
        return new Snapshot(recordingId, recipe, fitted, r, note, hand, locked, marks);
    }

    public Snapshot withNote(String n) {
        return new Snapshot(recordingId, recipe, fitted, under, n, hand, locked, marks);
    }

    public Snapshot withHand(ManualCorrections h) {
        return new Snapshot(recordingId, recipe, fitted, under, note, h, locked, marks);
    }

    /** With a value locked or set free. */
    public Snapshot withLocked(String id, boolean lock) {
        Set<String> ids = new TreeSet<>(locked);
        if (lock) {
            ids.add(id);
        } else {
            ids.remove(id);
        }
        return new Snapshot(recordingId, recipe, fitted, under, note, hand, ids, marks);
    }

    /** With these values locked and no others. */
    public Snapshot withLocked(Set<String> ids) {
        return new Snapshot(recordingId, recipe, fitted, under, note, hand, ids, marks);
    }

    /** As an ear hears it. */
    public Snapshot withMarks(AspectWeights m) {
        return new Snapshot(recordingId, recipe, fitted, under, note, hand, locked, m);
    }
}
