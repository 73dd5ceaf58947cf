package nightreed.project;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import nightreed.claim.Claim;
import nightreed.match.hearing.AspectWeights;
import nightreed.measure.ManualCorrections;
import nightreed.recipe.Layer;
import nightreed.recipe.ListChange;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * What an imitation is at one point of its history.
 *
 * @param recordingId row of the recording it is made after, null if there is none
 * @param patch       all that sounds, null if there is nothing yet
 * @param origin      each layer as the machine last fitted it, or as it was put there; rulers mark its values. Null if that is not known
 * @param chosen      layer that is shaped, from 0
 * @param note        note for the patch sheet, never null
 * @param hand        what was decided by hand about the measurement
 * @param locks       values that no fit may move: those of the first layer by id, of others {@code 2/id} and so on; {@code *}
 *                    stands for a whole layer
 * @param marks       where an ear has overruled the thresholds of hearing
 * @param claims      what was heard or read of the sound
 */
@RecordBuilder
public record Snapshot(
        Long recordingId,
        Patch patch,
        Patch origin,
        int chosen,
        String note,
        ManualCorrections hand,
        Set<String> locks,
        AspectWeights marks,
        List<Claim> claims)
        implements SnapshotBuilder.With {
    public static final Snapshot EMPTY = new Snapshot(null, null, null, "");

    /** Stands for every value of a layer. */
    public static final String ALL = "*";

    public Snapshot {
        locks = Set.copyOf(locks);
        claims = List.copyOf(claims);
        chosen = patch == null ? 0 : Math.max(0, Math.min(patch.layers().size() - 1, chosen));
        origin = patch == null || origin == null ? null : asMany(origin, patch);
    }

    private static Patch asMany(Patch origin, Patch patch) {
        int has = origin.layers().size();
        int wanted = patch.layers().size();
        if (has == wanted) {
            return origin;
        }
        List<Layer> all = new ArrayList<>(origin.layers().subList(0, Math.min(has, wanted)));
        all.addAll(patch.layers().subList(all.size(), wanted));
        return origin.withLayers(all);
    }

    /** One recipe, with the measurement as it is, nothing locked and nothing marked. */
    public Snapshot(Long recordingId, Recipe recipe, Recipe fitted, String note) {
        this(
                recordingId,
                recipe == null ? null : Patch.of(recipe),
                fitted == null ? null : Patch.of(fitted),
                0,
                note,
                ManualCorrections.NONE,
                Set.of(),
                AspectWeights.NONE,
                List.of());
    }

    /** Recipe of the layer that is shaped, null if there is none. */
    public Recipe recipe() {
        return patch == null ? null : patch.layers().get(chosen).recipe();
    }

    /** That recipe as it was fitted or put there, null if that is not known. */
    public Recipe fitted() {
        return origin == null ? null : origin.layers().get(chosen).recipe();
    }

    /** All that sounds, what is shaped before the others; null if there is nothing. */
    public Patch shaped() {
        return patch == null ? null : patch.shaping(chosen);
    }

    /** With another recipe as the one that is shaped. */
    public Snapshot withRecipe(Recipe r) {
        return withPatch(patch == null ? Patch.of(r) : patch.withRecipe(chosen, r));
    }

    /** A recipe that the machine has just made, by itself; locks stay where the method does. */
    public Snapshot withFit(Recipe r) {
        boolean same = recipe() != null && recipe().method().equals(r.method());
        Set<String> kept = same ? locked() : Set.of();
        return with(b -> b.patch(Patch.of(r)).origin(Patch.of(r)).chosen(0).locks(kept));
    }

    /** A recipe that the machine has just made in place of the one that is shaped; other layers and all locks stay. */
    public Snapshot withFitHere(Recipe r) {
        Patch was = origin == null ? patch : origin;
        return with(b -> b.patch(patch.withRecipe(chosen, r)).origin(was.withRecipe(chosen, r)));
    }

    /** With one more layer, which is shaped from then on. @throws IllegalArgumentException if there is no room for it */
    public Snapshot withLayer(Layer layer) {
        Patch more = patch.with(layer);
        return with(b -> b.patch(more).chosen(more.layers().size() - 1));
    }

    /** With the layer that is shaped taken out. @throws IllegalArgumentException if it is the only one */
    public Snapshot withoutLayer() {
        Patch less = patch.without(chosen);
        ListChange out = ListChange.remove("layer", chosen + 1);
        return with(b -> b.patch(less)
                .origin(origin == null ? null : origin.without(chosen))
                .chosen(Math.max(0, chosen - 1))
                .locks(renumbered(out)));
    }

    private Set<String> renumbered(ListChange change) {
        Set<String> whole = locks.stream()
                .map(l -> l.contains("/") ? "layer." + l.replaceFirst("/", ".") : "layer.1." + l)
                .collect(Collectors.toSet());
        return change.renamed(whole).stream()
                .map(l -> l.substring("layer.".length()))
                .map(l -> l.startsWith("1.") ? l.substring(2) : l.replaceFirst("\\.", "/"))
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /** With a list of the recipe that is shaped changed; locks and marks on rulers go along. */
    public Snapshot with(ListChange change) {
        Recipe changed = change.on(recipe());
        Recipe was = fitted();
        return with(b -> {
            b.patch(patch.withRecipe(chosen, changed)).locks(withLockedHere(change.renamed(locked())));
            if (was != null && was.lists().equals(recipe().lists())) {
                b.origin(origin.withRecipe(chosen, change.on(was)));
            }
        });
    }

    private String head() {
        return chosen == 0 ? "" : chosen + 1 + "/";
    }

    /** Ids of the values of the recipe that is shaped that no fit may move. */
    public Set<String> locked() {
        return locks.stream()
                .filter(this::isHere)
                .map(l -> l.substring(head().length()))
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private boolean isHere(String lock) {
        return chosen == 0 ? !lock.contains("/") : lock.startsWith(head());
    }

    /** Whether nothing of the layer that is shaped may be moved. */
    public boolean isLayerLocked() {
        return locked().contains(ALL);
    }

    private Set<String> withLockedHere(Set<String> ids) {
        Set<String> all = locks.stream().filter(l -> !isHere(l)).collect(Collectors.toCollection(TreeSet::new));
        ids.forEach(id -> all.add(head() + id));
        return all;
    }

    /** With a value of the recipe that is shaped locked or set free. */
    public Snapshot withLocked(String id, boolean lock) {
        Set<String> ids = new TreeSet<>(locked());
        if (lock) {
            ids.add(id);
        } else {
            ids.remove(id);
        }
        return withLocked(ids);
    }

    /** With other values of the recipe that is shaped locked. */
    public Snapshot withLocked(Set<String> ids) {
        return withLocks(withLockedHere(ids));
    }
}
