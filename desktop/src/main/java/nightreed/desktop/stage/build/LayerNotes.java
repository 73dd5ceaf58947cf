package nightreed.desktop.stage.build;

import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.Layers.Layered;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;

/** What sounds under the recipe that is shaped, and what can be done with it. */
final class LayerNotes {
    private final Workspace bench;
    private final FlowPane actions = new FlowPane(12, 2);

    LayerNotes(Workspace bench) {
        this.bench = bench;
        actions.getChildren()
                .addAll(
                        link("under-hear", "Hear it alone", this::hear),
                        link("under-exchange", "Shape this one", bench.shaping()::exchangeLayers),
                        link("under-drop", "Take it away", bench.shaping()::dropUnder));
    }

    private static Button link(String id, String text, Runnable action) {
        Button b = new Button(text);
        b.setId(id);
        b.getStyleClass().add("link");
        b.setOnAction(e -> action.run());
        return b;
    }

    private void hear() {
        AnalysedSound recording = bench.state().recording();
        Recipe under = bench.state().snapshot().under();
        if (recording != null && under != null) {
            bench.audition("the layer under it", () -> ImitationRenderer.render(under, recording));
        }
    }

    void notes(WorkspaceState s, Notes margin) {
        Recipe under = s.snapshot().under();
        if (s.recipe() == null || under == null) {
            return;
        }
        margin.add(Notes.heading("Under it: " + MethodNames.of(under.method())));
        Layered found = bench.fitting().layeredProperty().get();
        boolean asFound = found != null
                && found.patch().layers().size() == 2
                && found.patch().layers().get(1).recipe().equals(under);
        if (asFound) {
            found.carries().forEach(c -> margin.add(Notes.quiet("As found, " + c + ".")));
        }
        margin.add(
                Notes.quiet("Both are heard and compared; rulers, moves and fits are of the layer over it."),
                Notes.of(actions),
                Notes.space(4));
    }
}
