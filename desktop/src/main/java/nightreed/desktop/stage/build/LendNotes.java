package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.project.Imitation;
import nightreed.project.Take;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ValueDifferences;
import nightreed.recipe.part.Lending;

/** Parts taken over from other imitations and takes of the project; what they would change is shown first. */
final class LendNotes {
    /** Differences that are listed; the rest is counted. */
    private static final int LISTED = 7;

    private final Workspace bench;
    private final Runnable changed;
    private final LateMenu menu = new LateMenu("take over", "lend", this::look);
    private Proposal proposal;

    /** What is about to be taken over. @param recipe that is shaped now @param then with the part */
    private record Proposal(String title, Recipe recipe, Recipe then) {}

    /** @param name of an imitation or a take */
    private record Source(String name, Patch patch) {}

    LendNotes(Workspace bench, Runnable changed) {
        this.bench = bench;
        this.changed = changed;
    }

    /** Parts of other imitations and takes. */
    LateMenu menu() {
        return menu;
    }

    /** Reads what the project has, beside the window. */
    private void look() {
        Recipe here = bench.state().recipe();
        if (here == null) {
            return;
        }
        bench.ask(
                project -> {
                    List<Source> all = new ArrayList<>();
                    for (Imitation i : project.imitations()) {
                        Patch now = project.now(i).patch();
                        if (now != null) {
                            all.add(new Source(i.name(), now));
                        }
                        for (Take t : project.takes(i)) {
                            all.add(new Source(i.name() + ", " + t.name(), t.patch()));
                        }
                    }
                    return all;
                },
                all -> fill(here, all));
    }

    private void fill(Recipe here, List<Source> all) {
        menu.getItems().clear();
        for (Source s : all) {
            for (int k = 0; k < s.patch().layers().size(); k++) {
                Layer layer = s.patch().layers().get(k);
                String name = s.patch().layers().size() == 1 ? s.name() : s.name() + ", layer " + (k + 1);
                Menu from = new Menu(name);
                for (Lending.Lent part : Lending.possible((Record) here, (Record) layer.recipe())) {
                    MenuItem item = new MenuItem(part.name());
                    item.setOnAction(e -> propose(here, layer.recipe(), part, name));
                    from.getItems().add(item);
                }
                MenuItem whole = new MenuItem("the whole layer, beside this one");
                whole.setOnAction(e -> bench.shaping().addLayer(layer, "layer of " + name));
                from.getItems().add(whole);
                menu.getItems().add(from);
            }
        }
    }

    private void propose(Recipe here, Recipe donor, Lending.Lent part, String from) {
        try {
            Recipe then = (Recipe) Lending.lent((Record) here, (Record) donor, part.path());
            proposal = new Proposal(part.name() + " of " + from, here, then);
            changed.run();
        } catch (IllegalArgumentException refused) {
            bench.say("That part does not fit here: " + refused.getMessage() + ".");
        }
    }

    void notes(WorkspaceState s, Notes margin) {
        if (s.recipe() == null) {
            return;
        }
        if (proposal != null && proposal.recipe != s.recipe()) {
            proposal = null; // it was made for another
        }
        if (proposal == null) {
            return;
        }
        margin.add(Notes.heading("Take over: " + proposal.title));
        List<ValueDifferences.Difference> all = ValueDifferences.of(proposal.recipe, proposal.then);
        for (ValueDifferences.Difference d : all.subList(0, Math.min(LISTED, all.size()))) {
            margin.add(Notes.quiet(d.name() + ": " + d.before() + " to " + d.after()));
        }
        if (all.size() > LISTED) {
            margin.add(Notes.quiet("and " + (all.size() - LISTED) + " more values"));
        }
        Proposal p = proposal;
        Button take = NodeFactory.link("lend-take", "Take it over", () -> {
            proposal = null;
            bench.shaping().use(p.then, "take over " + p.title);
        });
        Button leave = NodeFactory.link("lend-leave", "Leave it", () -> {
            proposal = null;
            changed.run();
        });
        margin.add(Notes.of(new HBox(14, take, leave)), Notes.space(4));
    }
}
