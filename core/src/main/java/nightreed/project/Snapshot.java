package nightreed.project;

import io.soabase.recordbuilder.core.RecordBuilder;
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
@RecordBuilder
public record Snapshot(
        Long recordingId,
        Recipe recipe,
        Recipe fitted,
        Recipe under,
        String note,
        ManualCorrections hand,
        Set<String> locked,
        AspectWeights marks)
        implements SnapshotBuilder.With {
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

    /** A recipe that the machine has just fitted, with nothing under it. */
    public Snapshot withFit(Recipe r) {
        return with(b -> b.recipe(r).fitted(r).under(null));
    }

    /** With a value locked or set free. */
    public Snapshot withLocked(String id, boolean lock) {
        Set<String> ids = new TreeSet<>(locked);
        if (lock) {
            ids.add(id);
        } else {
            ids.remove(id);
        }
        return withLocked(ids);
    }
}
