package nightreed.desktop.workspace;

import java.util.List;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.claim.Claim;
import nightreed.match.advice.Move;
import nightreed.match.hearing.AspectWeights;
import nightreed.measure.ManualCorrections;
import nightreed.project.Snapshot;
import nightreed.recipe.AuditionMode;
import nightreed.recipe.Layer;
import nightreed.recipe.ListChange;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/** What a hand does to the imitation on the bench. Called on the UI thread; all of it can be undone. */
public final class RecipeEditor {
    private final Workspace bench;
    private final LiveUpdater following;
    private final SimpleObjectProperty<AuditionMode> emphasised = new SimpleObjectProperty<>();

    RecipeEditor(Workspace bench, LiveUpdater following) {
        this.bench = bench;
        this.following = following;
    }

    /** Locks a value, so that no fit and no advice moves it, or sets it free. */
    public void lock(Parameter p, boolean locked) {
        WorkspaceState at = bench.state();
        if (at.recipe() != null) {
            Snapshot next = at.snapshot().withLocked(p.id(), locked);
            if (next.equals(at.snapshot())) {
                return;
            }
            bench.show(at.withSnapshot(next));
            following.follow(); // advice may not name it any more
            bench.commit((locked ? "lock " : "unlock ") + p.name(), next);
        }
    }

    /** Overrules the thresholds of hearing for the sound on the bench. */
    public void mark(String label, AspectWeights marks) {
        WorkspaceState at = bench.state();
        if (at.recording() != null && !marks.equals(at.snapshot().marks())) {
            bench.arrive(at, label, at.snapshot().withMarks(marks), project -> {});
        }
    }

    /**
     * Lets an element be heard by itself, without or more than it is; the recipe stays as it is. What is listened to ends when
     * another recipe comes on the bench.
     *
     * @param emphasis null for everything as it is
     */
    public void listen(AuditionMode emphasis) {
        WorkspaceState at = bench.state();
        if (at.recipe() == null) {
            return;
        }
        emphasised.set(emphasis);
        Recipe first = emphasis == null ? at.recipe() : emphasis.of(at.recipe());
        boolean alone = emphasis != null && emphasis.way() == AuditionMode.Way.ALONE;
        Patch heard = alone ? Patch.of(first) : at.snapshot().withRecipe(first).patch();
        bench.desk().patch(heard);
        following.hear(at, heard);
    }

    /** Nothing is listened to by itself any more. */
    void hearAll() {
        emphasised.set(null);
    }

    /** What is listened to by itself; null for everything as it is. */
    public ReadOnlyObjectProperty<AuditionMode> emphasisedProperty() {
        return emphasised;
    }

    /** Adds a part to the recipe in its usual form, such as a reverb. */
    public void addPart(String id, String name) {
        if (bench.state().recipe() != null) {
            use(bench.state().recipe().withPart(id), "add " + name);
        }
    }

    /** Takes a part out of the recipe. */
    public void removePart(String id, String name) {
        if (bench.state().recipe() != null) {
            use(bench.state().recipe().withoutPart(id), "take out " + name);
        }
    }

    /**
     * Moves a value. It is heard at once; it becomes part of the history when the hand lets go.
     *
     * @param settled whether this is where the value stays
     */
    public void set(Parameter parameter, double value, boolean settled) {
        Recipe recipe = bench.state().recipe();
        if (recipe == null) {
            return;
        }
        Recipe moved;
        try {
            moved = recipe.with(parameter.id(), value);
        } catch (IllegalArgumentException refused) { // such as a band that would pass its neighbour
            bench.say("That cannot be done: " + refused.getMessage() + ".");
            return;
        }
        Snapshot next = bench.state().snapshot().withRecipe(moved);
        bench.show(bench.state().withSnapshot(next));
        following.follow();
        if (settled) {
            bench.commit(parameter.name() + " " + parameter.formatWithUnit(moved.value(parameter.id())), next);
        }
    }

    /**
     * Puts another form of the recipe in its place, as {@link #set} does with one value.
     *
     * @param settled whether it stays
     */
    public void shape(Recipe moved, String label, boolean settled) {
        Snapshot next = bench.state().snapshot().withRecipe(moved);
        bench.show(bench.state().withSnapshot(next));
        following.follow();
        if (settled) {
            bench.commit(label, next);
        }
    }

    public void apply(Move move) {
        set(move.parameter(), move.to(), true);
    }

    /** Makes a list of the recipe longer or shorter, or puts its elements into another order. */
    public void change(ListChange change) {
        Snapshot now = bench.state().snapshot();
        if (now.recipe() != null) {
            attempt(() -> use(now.with(change), change.label(now.recipe())));
        }
    }

    /** What cannot be, such as a list that has no room left, is told and changes nothing. */
    public void attempt(Runnable edit) {
        try {
            edit.run();
        } catch (IllegalArgumentException refused) {
            bench.say("That cannot be done: " + refused.getMessage() + ".");
        }
    }

    /** Puts a kept patch back on the bench. */
    public void use(Patch patch, String label) {
        use(bench.state().snapshot().with(b -> b.patch(patch).chosen(0)), label);
    }

    /** Puts another recipe in the place of the one that is shaped; other layers stay. */
    public void use(Recipe recipe, String label) {
        attempt(() -> use(bench.state().snapshot().withRecipe(recipe), label));
    }

    /**
     * Puts a recipe on the bench that takes a moment to make out of the one that is there; if that has changed meanwhile, it is
     * left as it is.
     */
    public void make(String label, UnaryOperator<Recipe> made) {
        Recipe from = bench.state().recipe();
        if (from != null) {
            bench.beside(
                    () -> made.apply(from),
                    then -> {
                        if (bench.state().recipe() == from) {
                            use(then, label);
                        }
                    },
                    () -> {});
        }
    }

    // ---- layers ----

    /** Puts one more layer beside the others; it is the one that is shaped from then on. */
    public void addLayer(Layer layer, String label) {
        Snapshot now = bench.state().snapshot();
        if (now.patch() == null) {
            use(layer.recipe(), label);
        } else {
            attempt(() -> use(now.withLayer(layer), label));
        }
    }

    /** Takes the layer that is shaped out. */
    public void removeLayer() {
        Snapshot now = bench.state().snapshot();
        if (now.patch() != null) {
            attempt(() -> use(now.withoutLayer(), "take out layer " + (now.chosen() + 1)));
        }
    }

    /** Lets another layer, from 0, be the one that is shaped. */
    public void chooseLayer(int layer) {
        Snapshot now = bench.state().snapshot();
        if (now.patch() != null && layer != now.chosen()) {
            use(now.withChosen(layer), "shape layer " + (layer + 1));
        }
    }

    /** Locks the layer that is shaped as a whole, or sets it free. */
    public void lockLayer(boolean locked) {
        Snapshot now = bench.state().snapshot();
        if (now.patch() != null) {
            String layer = "layer " + (now.chosen() + 1);
            use(now.withLocked(Snapshot.ALL, locked), (locked ? "lock " : "unlock ") + layer);
        }
    }

    /** Makes the keyboard two manuals: what lies under a key sounds an octave higher. */
    public void split(int at) {
        Snapshot now = bench.state().snapshot();
        if (now.recipe() != null) {
            attempt(() -> use(Patch.split(now.recipe(), at, 12), "split at key " + at));
        }
    }

    /**
     * Moves a value of the patch: the cross-fade, or one of a layer such as {@code layer.2.pan}.
     *
     * @param settled whether this is where the value stays
     */
    public void setOfPatch(Parameter p, double value, boolean settled) {
        Snapshot now = bench.state().snapshot();
        if (now.patch() == null) {
            return;
        }
        attempt(() -> {
            Snapshot next = now.withPatch(now.patch().with(p.id(), value));
            bench.show(bench.state().withSnapshot(next));
            following.follow();
            if (settled) {
                bench.commit(p.name() + " " + p.formatWithUnit(p.clamp(value)), next);
            }
        });
    }

    /** An edit that changes nothing is none. */
    private void use(Snapshot next, String label) {
        if (next.equals(bench.state().snapshot())) {
            return;
        }
        bench.show(bench.state().withSnapshot(next));
        following.follow();
        bench.commit(label, next);
    }

    /**
     * Decides something about the measurement by hand.
     *
     * @param label what it is called in the history
     */
    public void decide(String label, ManualCorrections hand) {
        WorkspaceState at = bench.state();
        if (at.recording() == null || hand.equals(at.snapshot().hand())) {
            return;
        }
        bench.arrive(at, label, at.snapshot().withHand(hand), project -> {});
    }

    /** What was heard or read of the sound from now on. */
    public void claims(String label, List<Claim> claims) {
        if (bench.state().current() != null
                && !claims.equals(bench.state().snapshot().claims())) {
            Snapshot next = bench.state().snapshot().withClaims(claims);
            bench.show(bench.state().withSnapshot(next));
            bench.commit(label, next);
        }
    }

    public void note(String text) {
        if (!text.equals(bench.state().snapshot().note())) {
            Snapshot next = bench.state().snapshot().withNote(text);
            bench.show(bench.state().withSnapshot(next));
            bench.commit("note", next);
        }
    }
}
