package nightreed.desktop.stage;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.workspace.SimplerPatches;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.frontier.Frontier;
import nightreed.match.hearing.Use;

/** The line from simpler to nearer, what the patch on the bench takes and gives in words, and what it is for. */
public final class SimplerPanel extends VBox {
    private final Workspace bench;
    private final SimplerLine line;
    private final Label words = NodeFactory.quiet("");
    private final LateMenu use;
    private final ToggleButton one = new ToggleButton("this method only");

    /** @param id of the line; its parts have ids that begin with it */
    public SimplerPanel(Workspace bench, String id) {
        super(2);
        this.bench = bench;
        SimplerPatches simpler = bench.simpler();
        line = new SimplerLine(bench, id);
        use = new LateMenu("", id + "-use", this::useMenu);
        one.getStyleClass().add("plain-toggle");
        one.setId(id + "-one");
        one.setMinWidth(Region.USE_PREF_SIZE);
        one.setTooltip(new Tooltip("Patches of the method on the bench, also where another method beats them."));
        one.selectedProperty().bindBidirectional(simpler.oneMethodProperty());
        words.setId(id + "-words");
        words.setTextOverrun(OverrunStyle.ELLIPSIS);
        words.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(words, Priority.ALWAYS);
        HBox row = new HBox(8, words, one, use);
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(line, row);
        simpler.oneMethodProperty().addListener((o, was, is) -> fill(bench.state()));
        simpler.useProperty().addListener((o, was, is) -> useText());
        useText();
        setVisible(false);
        setManaged(false);
    }

    private void useText() {
        use.setText("for use " + bench.simpler().useProperty().get().title());
    }

    private void useMenu() {
        SimplerPatches simpler = bench.simpler();
        for (Use u : Use.values()) {
            use.getItems()
                    .add(NodeFactory.item("use-" + u.name(), u.title() + ", up to " + u.mostJnd() + " JND", () -> {
                        simpler.useProperty().set(u);
                        Frontier all = simpler.line();
                        if (all != null) {
                            simpler.walkTo(all.recommended(u), true);
                        }
                    }));
        }
    }

    public void fill(WorkspaceState s) {
        line.fill(s);
        setVisible(line.isVisible());
        setManaged(line.isVisible());
        if (line.isVisible()) {
            words.setText(line.words());
            words.setTooltip(new Tooltip(line.words()));
        }
    }
}
