package nightreed.desktop.stage.brief;

import java.util.List;
import java.util.Locale;
import javafx.animation.PauseTransition;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.music.ChordName;
import nightreed.music.Pitch;
import nightreed.music.TapTempo;
import nightreed.music.Tonality;
import nightreed.music.Voicing;
import nightreed.voice.Instrument;

/** Chord and tempo: a chord is named, laid in several ways and played; the tempo is typed, tapped or measured, and told in note values. */
final class MusicPanel extends HBox {
    private static final double CHORD_SECONDS = 1.6;
    private static final double CHORD_VELOCITY = 0.6;

    private static final double LEAST_BPM = 20;
    private static final double MOST_BPM = 400;

    private final Workspace bench;
    private final PreferenceStore preferences;
    private final TextField chord = new TextField();
    private final TextField key = new TextField();
    private final Label name = NodeFactory.heading("");
    private final Label notes = NodeFactory.figures("");
    private final Label next = NodeFactory.quiet("");
    private final HBox ways = new HBox(2);
    private final TextField bpm = new TextField();
    private final Label from = NodeFactory.quiet("");
    private final GridPane values = new GridPane();
    private final TapTempo taps = new TapTempo();
    private List<Integer> sounding = List.of();

    MusicPanel(Workspace bench, PreferenceStore preferences) {
        super(24);
        this.bench = bench;
        this.preferences = preferences;
        getStyleClass().add("panel");
        chord.setId("chord");
        chord.setPromptText("D4 F4 A4 C5, or Dm7");
        chord.setAccessibleText("Chord: its notes, keys or name");
        chord.setOnAction(e -> named());
        key.setId("chord-key");
        key.setPromptText("in the key");
        key.setPrefWidth(92);
        key.setAccessibleText("Key that it is written in, such as D minor");
        key.setOnAction(e -> named());
        HBox.setHgrow(chord, Priority.ALWAYS);
        name.setId("chord-name");
        notes.setId("chord-notes");
        for (Label l : List.of(next, from)) {
            l.setWrapText(true);
            l.setMinHeight(Region.USE_PREF_SIZE);
        }
        HBox named = new HBox(10, name, notes);
        named.setAlignment(Pos.BASELINE_LEFT);
        VBox left = new VBox(6, NodeFactory.heading("Chord"), new HBox(6, chord, key), named, ways, next);
        left.setPrefWidth(400);
        HBox.setHgrow(left, Priority.ALWAYS);
        getChildren().addAll(left, tempo());
        from.managedProperty().bind(from.textProperty().isNotEmpty());
        bpm.setText(text(preferences.get().tempoBpm()));
        values();
        preferences.currentProperty().addListener((o, was, is) -> {
            if (was.tempoBpm() != is.tempoBpm()) {
                bpm.setText(text(is.tempoBpm()));
                values();
            }
        });
    }

    private VBox tempo() {
        bpm.setId("tempo-bpm");
        bpm.setPrefWidth(70);
        bpm.setAccessibleText("Tempo in quarters a minute");
        bpm.setOnAction(e -> typed());
        Button tap = NodeFactory.link("tempo-tap", "Tap", () -> {
            Double v = taps.tap(System.nanoTime() / 1e9);
            if (v != null) {
                set(v, "tapped");
            }
        });
        Button measure = NodeFactory.link("tempo-measure", "measure", this::measure);
        Tooltip.install(measure, new Tooltip("From the notes of the recording, or from its echo"));
        HBox row = new HBox(6, bpm, NodeFactory.quiet("bpm"), tap, measure);
        row.setAlignment(Pos.CENTER_LEFT);
        values.setHgap(12);
        values.setVgap(1);
        return new VBox(6, NodeFactory.heading("Tempo"), row, from, values);
    }

    // ---- chord ----

    private void named() {
        ways.getChildren().clear();
        notes.setText("");
        next.setText("");
        try {
            Tonality in = key.getText().isBlank() ? null : Tonality.of(key.getText());
            if (chord.getText().isBlank()) {
                name.setText("");
                return;
            }
            ChordName c = ChordName.parse(chord.getText(), in);
            name.setText(c.name());
            notes.setText(String.join(" ", c.notes()));
            way("play", c.keys());
            way("close", Voicing.close(c));
            way("open", Voicing.open(c));
            for (int drop = 2; drop <= 3 && drop <= Voicing.close(c).size(); drop++) {
                way("drop " + drop, Voicing.drop(c, drop));
            }
            String voices = c.voices() + " of " + Instrument.VOICES + " voices";
            next.setText(in == null ? voices + "; name a key to be told what may come next" : voices + next(c, in));
        } catch (IllegalArgumentException e) {
            name.setText("");
            next.setText(e.getMessage());
        }
    }

    private static String next(ChordName c, Tonality in) {
        Voicing.Next n = Voicing.next(c, in).get(0);
        return String.format(
                Locale.ROOT,
                "; next with most common tones: %s, %d shared",
                n.chord().name(),
                n.common());
    }

    private void way(String label, List<Integer> keys) {
        Button b = NodeFactory.link("chord-" + label.replace(" ", "-"), label, () -> play(keys));
        b.setAccessibleText(
                label + ": " + String.join(" ", keys.stream().map(Pitch::name).toList()));
        ways.getChildren().add(b);
    }

    /** With what is on the bench; without a recipe nothing sounds, and that is said. */
    private void play(List<Integer> keys) {
        if (bench.state().recipe() == null) {
            bench.say("A chord is played by the imitation on the bench: fit one, or begin with a starting point.");
            return;
        }
        sounding.forEach(bench.desk()::noteOff);
        sounding = keys.stream().filter(k -> k >= 0 && k <= 127).toList();
        sounding.forEach(k -> bench.desk().noteOn(k, CHORD_VELOCITY));
        List<Integer> mine = sounding;
        PauseTransition end = new PauseTransition(Duration.seconds(CHORD_SECONDS));
        end.setOnFinished(e -> {
            if (sounding == mine) {
                mine.forEach(bench.desk()::noteOff);
                sounding = List.of();
            }
        });
        end.play();
    }

    /** The chord that was found in the recording, where nothing was typed. */
    void show(WorkspaceState s) {
        if (chord.getText().isBlank()
                && s.recording() != null
                && s.recording().measurement().isChord()) {
            chord.setText(String.join(
                    " ",
                    s.recording().measurement().strikeNotes().stream()
                            .map(n -> n.note())
                            .toList()));
            named();
        }
    }

    // ---- tempo ----

    private void typed() {
        try {
            set(Double.parseDouble(bpm.getText().trim().replace(',', '.')), "typed");
        } catch (NumberFormatException e) {
            from.setText("'" + bpm.getText() + "' is no tempo: type quarters a minute, such as 112.");
        }
    }

    private void measure() {
        if (bench.state().recording() == null) {
            bench.say("There is no recording to measure a tempo in.");
            return;
        }
        bench.intake().tempo(found -> {
            if (found.bpm() == null) {
                from.setText("No tempo: it takes four notes or more, or an echo.");
            } else {
                set(
                        found.bpm(),
                        String.format(
                                Locale.ROOT,
                                "measured %s, ±%.1f, odds %.0f %%",
                                found.from(),
                                found.bpmSe(),
                                100 * found.odds()));
            }
        });
    }

    /** One tempo for everything: preferences, and the recipe on the bench. */
    private void set(double quarters, String how) {
        if (!(quarters >= LEAST_BPM && quarters <= MOST_BPM)) {
            from.setText(
                    String.format(Locale.ROOT, "%.0f bpm is outside %.0f to %.0f.", quarters, LEAST_BPM, MOST_BPM));
            return;
        }
        double v = Math.round(100 * quarters) / 100.0;
        from.setText(how);
        preferences.change(p -> p.withTempoBpm(v));
        bpm.setText(text(v));
        values();
        WorkspaceState s = bench.state();
        if (s.recipe() != null) {
            s.recipe().settings().stream()
                    .filter(set -> set.parameter().id().equals("tempo"))
                    .filter(set -> Math.abs(set.value() - v) > 0.005)
                    .findFirst()
                    .ifPresent(set -> bench.shaping().set(set.parameter(), v, true));
        }
    }

    private static String text(double v) {
        return v == Math.rint(v) ? String.format(Locale.ROOT, "%.0f", v) : String.format(Locale.ROOT, "%.2f", v);
    }

    private void values() {
        values.getChildren().clear();
        double quarter = 60 / preferences.get().tempoBpm();
        String[] heads = {"", "straight", "dotted", "triplet"};
        double[] kinds = {1, 1.5, 2 / 3.0};
        for (int c = 0; c < heads.length; c++) {
            values.add(NodeFactory.quiet(heads[c]), c, 0);
        }
        int[] parts = {4, 8, 16};
        for (int r = 0; r < parts.length; r++) {
            values.add(NodeFactory.quiet("1/" + parts[r]), 0, r + 1);
            for (int c = 0; c < kinds.length; c++) {
                double seconds = quarter * 4 / parts[r] * kinds[c];
                values.add(
                        NodeFactory.figures(String.format(Locale.ROOT, "%.0f ms %.2f Hz", 1000 * seconds, 1 / seconds)),
                        c + 1,
                        r + 1);
            }
        }
    }
}
