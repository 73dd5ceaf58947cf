package nightreed.desktop.stage.play;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.rail.Keys;
import nightreed.desktop.ruler.Ruler;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.stage.Cells;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.stage.build.WorkspaceRulers;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.midi.MidiIn;
import nightreed.music.Pitch;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter.Group;

/** Play: the imitation under the fingers, and how it follows key and strength. */
public final class PlayView implements StageView {
    private final Workspace bench;
    private final VBox centre = new VBox(14);
    private final Notes margin = new Notes(6);
    private final Keys keys;
    private final HandsPanel hands;
    private final GridPane rulers = new GridPane();
    private final VBox table;
    private final Cells overKeys = new Cells();
    private final Map<String, Ruler> byId = new LinkedHashMap<>();

    /** @param railKeys keys of the rail, whose letters strike with the strength set here */
    public PlayView(Workspace bench, Keys railKeys, MidiIn midi, PreferenceStore preferences) {
        this.hands = new HandsPanel(bench, midi, preferences);
        this.bench = bench;
        this.keys = new Keys(bench.desk(), 5);
        keys.setPrefHeight(190);
        keys.setMinHeight(84);
        keys.setId("play-keys");
        keys.lowestProperty().set(36);
        VBox.setVgrow(keys, Priority.ALWAYS);
        Slider strength = new Slider(0.05, 1, 0.7);
        strength.setAccessibleText("Strength of the letter keys");
        strength.setPrefWidth(130);
        Label text = NodeFactory.figures("0.70");
        strength.valueProperty().addListener((o, a, v) -> {
            text.setText(String.format(Locale.ROOT, "%.2f", v.doubleValue()));
            keys.strengthProperty().set(v.doubleValue());
            railKeys.strengthProperty().set(v.doubleValue());
        });
        Button silence = new Button("Silence (Ctrl+.)");
        silence.setOnAction(e -> bench.desk().panic());
        silence.setMinWidth(Region.USE_PREF_SIZE);
        hands.getChildren().add(silence);
        Label letters = NodeFactory.quiet("strength of the letter keys");
        letters.setMinWidth(Region.USE_PREF_SIZE);
        text.setMinWidth(Region.USE_PREF_SIZE);
        HBox line = new HBox(10, letters, strength, text, NodeFactory.gap());
        line.getChildren().addAll(hands.device());
        line.setAlignment(Pos.CENTER_LEFT);
        rulers.setHgap(22);
        rulers.setVgap(4);
        for (int c = 0; c < 3; c++) {
            ColumnConstraints third = new ColumnConstraints();
            third.setPercentWidth(100.0 / 3);
            rulers.getColumnConstraints().add(third);
        }
        overKeys.setHgap(26);
        overKeys.setVgap(5);
        table = NodeFactory.panel(NodeFactory.heading("Over the keyboard"), overKeys);
        centre.getChildren()
                .addAll(
                        NodeFactory.panel(keys, line, hands),
                        NodeFactory.heading("How it follows key and strength"),
                        rulers,
                        table);
    }

    @Override
    public void close() {
        hands.close();
    }

    @Override
    public Node centre() {
        return centre;
    }

    @Override
    public Notes margin() {
        return margin;
    }

    @Override
    public void fill(WorkspaceState s) {
        margin.add(Notes.heading("Play it"));
        if (s.recipe() == null) {
            rulers.getChildren().clear();
            byId.clear();
            overKeys.begin();
            overKeys.end();
            keys.homeProperty().set(-1);
            margin.add(Notes.body("There is nothing to play yet: fit an imitation on the Build stage."));
            return;
        }
        keys.homeProperty().set(s.snapshot().patch().key());
        List<Recipe.Setting> playing = s.recipe().settings().stream()
                .filter(v -> v.parameter().group() == Group.PLAYING)
                .toList();
        Set<String> ids = new HashSet<>();
        playing.forEach(v -> ids.add(v.parameter().id()));
        if (!ids.equals(byId.keySet())) { // another method has other values
            rulers.getChildren().clear();
            byId.clear();
        }
        for (Recipe.Setting v : playing) {
            Ruler r = byId.get(v.parameter().id());
            if (r == null) {
                r = WorkspaceRulers.ruler(v.parameter(), bench);
                rulers.add(r, byId.size() % 3, byId.size() / 3);
                byId.put(v.parameter().id(), r);
            }
            r.show(v.value(), WorkspaceRulers.fitted(s, v.parameter()), null);
        }
        table(s.recipe());
        margin.add(
                Notes.body("The rows Z to M and S to J play the octave above the lowest shown in the rail; the"
                        + " mouse plays any key, harder towards the front edge."),
                Notes.space(4),
                Notes.body(String.format(
                        Locale.ROOT,
                        "The dot marks %s, the key that the values hold for.",
                        Pitch.name(s.snapshot().patch().key()))),
                Notes.body("One note cannot tell how the instrument follows key and strength: these are usual"
                        + " values, marked as such on the patch sheet."));
    }

    /** What the tracking makes of the lowest and the brightest mode on some keys. */
    private void table(Recipe recipe) {
        overKeys.begin();
        table.setVisible(recipe instanceof ResonatorRecipe);
        if (!(recipe instanceof ResonatorRecipe r)) {
            overKeys.end(); // what other methods do over the keys stands on the Build stage, under arithmetic
            return;
        }
        String[] heads = {"key", "longest T60", "brightest mode heard", "modes in band"};
        int head = overKeys.row();
        for (int c = 0; c < heads.length; c++) {
            overKeys.put(c, head, "head", heads[c], NodeFactory::quiet);
        }
        for (int key = Math.max(24, r.key() - 24); key <= Math.min(108, r.key() + 24); key += 12) {
            double factor = Math.pow(2, (key - r.key()) / 12.0);
            double longest = 0;
            double top = 0;
            int inBand = 0;
            for (Mode m : r.modes()) {
                double hz = m.ratio() * r.f0Hz() * factor;
                if (hz < 0.49 * 48_000) {
                    inBand++;
                    longest = Math.max(
                            longest,
                            m.t60Seconds() * Math.pow(factor, -r.keyTracking().decayPower()));
                    top = m.levelDb() > -40 ? Math.max(top, hz) : top;
                }
            }
            int row = overKeys.row();
            String[] cells = {
                Pitch.name(key) + (key == r.key() ? " (fitted)" : ""),
                String.format(Locale.ROOT, "%.2f s", longest),
                String.format(Locale.ROOT, "%.0f Hz", top),
                String.format(Locale.ROOT, "%d of %d", inBand, r.modes().size())
            };
            for (int c = 0; c < cells.length; c++) {
                overKeys.put(c, row, "cell", cells[c], NodeFactory::figures);
            }
        }
        overKeys.end();
    }
}
