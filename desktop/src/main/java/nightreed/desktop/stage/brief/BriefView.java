package nightreed.desktop.stage.brief;

import java.io.File;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Slider;
import javafx.scene.control.Spinner;
import javafx.scene.control.SpinnerValueFactory;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.util.StringConverter;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.RecordingImport;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.music.Pitch;
import nightreed.project.Imitation;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.size.PatchSize;
import nightreed.room.RecordingRoom;
import nightreed.sound.file.SoundFiles;
import nightreed.typical.Family;
import nightreed.typical.StartingPoint;

/** Brief: what must be imitated, and where its sound comes from. */
public final class BriefView implements StageView {
    private final Workspace bench;
    private final VBox centre = new VBox(14);
    private final Notes margin = new Notes(8);
    private final VBox list = new VBox(4);
    private final Label dropText = NodeFactory.heading("");
    private final MicrophonePanel microphone;
    private final SpanPicker picker = new SpanPicker();
    private final Map<String, Region> parts = new LinkedHashMap<>();
    private final TargetPanel target;
    private final MusicPanel music;
    private final ClaimsPanel claims;
    private final HBox recorded = new HBox(14);
    private final VBox sources = new VBox(10);
    private final ToggleGroup ways = new ToggleGroup();
    private boolean ready; // to fill the notes
    private final VBox spanPanel = NodeFactory.panel();
    private final ComboBox<RecordingRoom.Instrument> instrument = new ComboBox<>();
    private final Button fit = new Button("Fit an imitation");

    public BriefView(Workspace bench, PreferenceStore preferences) {
        this.bench = bench;
        music = new MusicPanel(bench, preferences);
        claims = new ClaimsPanel(bench);
        microphone = new MicrophonePanel(bench);
        target = new TargetPanel(bench, this::refill);
        recorded.getChildren().addAll(fromFile(), microphone, fromRoom());
        for (Node n : recorded.getChildren()) {
            HBox.setHgrow(n, Priority.ALWAYS);
            ((Region) n).setPrefWidth(280);
            ((Region) n).setMinWidth(200);
        }
        sources.getChildren().addAll(ways(), recorded, target);
        showWay(true);
        ScrollPane all = new ScrollPane(list);
        all.setFitToWidth(true);
        all.setMinHeight(60);
        all.getStyleClass().add("plain-scroll");
        VBox.setVgrow(all, Priority.ALWAYS);
        VBox imitations = NodeFactory.panel(byHand(), all);
        VBox.setVgrow(imitations, Priority.ALWAYS);
        VBox.setVgrow(claims, Priority.ALWAYS);
        parts.put("Imitations", imitations);
        parts.put("Heard or read about it", claims);
        parts.put("Chord and tempo", music);
        centre.getChildren().addAll(sources, spanPanel, parts());
        centre.getChildren().addAll(parts.values());
        showPart("Imitations");
        spanPanel.setVisible(false);
        spanPanel.setManaged(false);
        span();
        fit.getStyleClass().add("accent-button");
        fit.setId("brief-fit");
        fit.setOnAction(e -> bench.fitting().fit());
        ready = true;
    }

    /** Starting points that lead to the family that is described. */
    private void waysToBegin() {
        Family family = target.asked().family();
        margin.add(Notes.heading("Ways to begin"));
        StartingPoint.to(family).stream()
                .filter(p -> p.families().contains(family.id()))
                .forEach(p -> {
                    Button b = NodeFactory.link(
                            "way-" + p.id(), p.title(), () -> bench.recipes().startingPoint(p));
                    b.setWrapText(true);
                    b.setMaxWidth(240);
                    b.setAlignment(Pos.CENTER_LEFT);
                    b.setMinHeight(Region.USE_PREF_SIZE);
                    margin.add(Notes.of(b));
                    margin.add(Notes.quiet(PatchSize.of(p.patch()) + " values"));
                });
        margin.add(Notes.space(4));
    }

    /** A recording, or none: what stands below follows. */
    private HBox ways() {
        HBox row = new HBox(6);
        for (boolean real : new boolean[] {true, false}) {
            ToggleButton b = new ToggleButton(real ? "There is a recording" : "There is none: describe it");
            b.setId(real ? "way-recorded" : "way-described");
            b.setToggleGroup(ways);
            b.getStyleClass().add("plain-toggle");
            b.setSelected(real);
            b.setOnAction(e -> {
                b.setSelected(true);
                showWay(real);
            });
            row.getChildren().add(b);
        }
        return row;
    }

    /** What stands in the lower half: one thing at a time, or the window would be too low for it. */
    private HBox parts() {
        HBox row = new HBox(6);
        ToggleGroup group = new ToggleGroup();
        parts.keySet().forEach(name -> {
            ToggleButton b = new ToggleButton(name);
            b.setId("part-" + name.toLowerCase(Locale.ROOT).replace(" ", "-"));
            b.setToggleGroup(group);
            b.getStyleClass().add("plain-toggle");
            b.setSelected(name.equals("Imitations"));
            b.setOnAction(e -> {
                b.setSelected(true);
                showPart(name);
            });
            row.getChildren().add(b);
        });
        return row;
    }

    private void showPart(String name) {
        parts.forEach((n, part) -> {
            part.setVisible(n.equals(name));
            part.setManaged(n.equals(name));
        });
    }

    /** The notes anew, when the description has changed and not the bench. */
    private void refill() {
        if (ready) {
            show(bench.state());
        }
    }

    private void showWay(boolean real) {
        recorded.setVisible(real);
        recorded.setManaged(real);
        target.setVisible(!real);
        target.setManaged(!real);
        Drawing.freshen(target);
        refill();
    }

    private VBox fromFile() {
        Button choose = new Button("Choose a file…");
        choose.setId("choose-file");
        choose.setOnAction(e -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("Recording to imitate");
            List<String> patterns = SoundFiles.ENDINGS.stream()
                    .flatMap(e2 -> Stream.of("*." + e2, "*." + e2.toUpperCase(Locale.ROOT)))
                    .toList();
            chooser.getExtensionFilters()
                    .addAll(
                            new FileChooser.ExtensionFilter("Recordings", patterns),
                            new FileChooser.ExtensionFilter("All files", "*.*"));
            File f = chooser.showOpenDialog(centre.getScene().getWindow());
            if (f != null) {
                bench.intake().file(f.toPath());
            }
        });
        VBox box = NodeFactory.panel(
                dropText,
                NodeFactory.quiet(
                        "One note, struck, plucked, bowed or blown, to its end, with a little silence before it. WAV, AIFF, FLAC, Ogg"
                                + " Vorbis or MP3."),
                choose);
        box.getStyleClass().add("drop");
        box.setMinHeight(220);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** Recipes that need no recording. */
    private HBox byHand() {
        MenuButton fresh = new MenuButton("new from a method");
        fresh.setId("new-from-method");
        fresh.getStyleClass().add("link-menu");
        for (String m : FirstRecipe.METHODS) {
            MenuItem item = new MenuItem(MethodNames.of(m));
            item.setId("new-" + m);
            item.setOnAction(e -> bench.recipes().ofMethod(m));
            fresh.getItems().add(item);
        }
        Button open = new Button("open a recipe or patch…");
        open.setId("open-recipe");
        open.getStyleClass().add("link");
        open.setOnAction(e -> {
            FileChooser chooser = new FileChooser();
            chooser.setTitle("Recipe or patch");
            chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter("Recipes and patches", "*.json"));
            File f = chooser.showOpenDialog(centre.getScene().getWindow());
            if (f != null) {
                bench.recipes().file(f.toPath());
            }
        });
        MenuButton points = new MenuButton("starting points");
        points.setId("starting-points");
        points.getStyleClass().add("link-menu");
        for (StartingPoint p : StartingPoint.all()) {
            MenuItem item = new MenuItem(p.title());
            item.setId("begin-" + p.id());
            item.setOnAction(e -> bench.recipes().startingPoint(p));
            points.getItems().add(item);
        }
        HBox row = new HBox(18, NodeFactory.quiet("Without a recording:"), points, fresh, open);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private VBox fromRoom() {
        instrument.getItems().addAll(RecordingRoom.instruments());
        instrument.setConverter(new StringConverter<>() {
            @Override
            public String toString(RecordingRoom.Instrument i) {
                return i == null ? "" : i.title();
            }

            @Override
            public RecordingRoom.Instrument fromString(String s) {
                return null;
            }
        });
        instrument.getSelectionModel().selectFirst();
        instrument.setAccessibleText("Instrument");
        RecordingRoom.Instrument first = RecordingRoom.instruments().get(0);
        Spinner<Integer> key = new Spinner<>(range(first));
        instrument.setId("room-instrument");
        instrument.setMaxWidth(Double.MAX_VALUE);
        instrument.valueProperty().addListener((o, a, i) -> key.setValueFactory(range(i)));
        key.setId("room-key");
        key.setPrefWidth(84);
        key.setAccessibleText("Key");
        Label keyName = NodeFactory.figures(Pitch.name(first.usualKey()));
        key.valueProperty().addListener((o, a, k) -> keyName.setText(Pitch.name(k)));
        Slider strength = new Slider(0.1, 1, 0.7);
        strength.setAccessibleText("Strength of the blow");
        Label strengthText = NodeFactory.figures("0.7");
        strength.valueProperty()
                .addListener((o, a, v) -> strengthText.setText(String.format(Locale.ROOT, "%.1f", v.doubleValue())));
        Spinner<Integer> moment = new Spinner<>(new SpinnerValueFactory.IntegerSpinnerValueFactory(1, 999, 1));
        moment.setPrefWidth(84);
        moment.setAccessibleText("Which of its kind, and which moment");
        Button record = new Button("Record it");
        record.setId("room-record");
        record.setOnAction(e -> bench.intake()
                .record(
                        instrument.getValue(),
                        key.getValue(),
                        Math.round(strength.getValue() * 10) / 10.0,
                        moment.getValue()));
        GridPane grid = new GridPane();
        grid.setHgap(10);
        grid.setVgap(8);
        grid.addRow(0, label("instrument"), instrument);
        grid.addRow(1, label("key"), new HBox(8, key, centred(keyName)));
        grid.addRow(2, label("strength"), new HBox(8, strength, centred(strengthText)));
        grid.addRow(3, label("which one"), moment);
        VBox box = NodeFactory.panel(
                NodeFactory.heading("Or have one played"),
                NodeFactory.quiet("The recording room: a simulated player, not quite at concert pitch."),
                grid,
                record);
        return box;
    }

    private static SpinnerValueFactory<Integer> range(RecordingRoom.Instrument i) {
        return new SpinnerValueFactory.IntegerSpinnerValueFactory(i.lowestKey(), i.highestKey(), i.usualKey());
    }

    private static HBox centred(Label l) {
        HBox box = new HBox(l);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** Puts the keyboard on the recording room. */
    public void focusRoom() {
        instrument.requestFocus();
    }

    /** Lets go of the microphone. */
    @Override
    public void close() {
        microphone.close();
    }

    /** The part of a long file that is wanted. */
    private void span() {
        Label what = NodeFactory.heading("");
        Button take = new Button("Take in this span");
        take.setId("take-span");
        take.getStyleClass().add("accent-button");
        take.setOnAction(e -> {
            RecordingImport.LongFile f = bench.intake().longFileProperty().get();
            if (f != null) {
                bench.intake()
                        .span(
                                f.file(),
                                picker.fromProperty().get(),
                                picker.toProperty().get());
            }
        });
        Button other = new Button("Another recording");
        other.setId("leave-long-file");
        other.getStyleClass().add("link");
        other.setOnAction(e -> bench.intake().leaveLongFile());
        spanPanel
                .getChildren()
                .setAll(
                        what,
                        NodeFactory.quiet(
                                "Too long to be one note. Drag the edges of the span onto the note that is meant."),
                        picker,
                        new HBox(8, take, other));
        bench.intake().longFileProperty().addListener((o, a, f) -> {
            spanPanel.setVisible(f != null);
            spanPanel.setManaged(f != null);
            sources.setVisible(f == null);
            sources.setManaged(f == null);
            if (f != null) {
                what.setText(String.valueOf(f.file().getFileName()));
                picker.show(f.outline(), SoundFiles.LONGEST_SECONDS);
            }
        });
    }

    private static Label label(String text) {
        Label l = NodeFactory.quiet(text);
        l.setMinWidth(66);
        return l;
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
        dropText.setText(s.recording() == null ? "Drop a recording" : "Drop another one");
        music.show(s);
        claims.show(s);
        list.getChildren().clear();
        for (Imitation i : s.imitations()) {
            Button b = new Button(i.name());
            b.setMaxWidth(Double.MAX_VALUE);
            b.setAlignment(Pos.CENTER_LEFT);
            b.getStyleClass().add(i.equals(s.current()) ? "row-chosen" : "row");
            b.setOnAction(e -> bench.choose(i));
            list.getChildren().add(b);
        }
        if (target.isVisible()) {
            waysToBegin();
        }
        margin.add(Notes.heading("What is asked for"));
        if (s.recording() == null && s.recipe() != null) {
            margin.add(Notes.body(
                    "This one is built by hand: shape it under Build, play it under Play. A recording that is"
                            + " brought in while it is on the bench is held against it from then on."));
            s.snapshot().note().lines().forEach(line -> margin.add(Notes.quiet(line)));
            return;
        }
        if (s.recording() == null) {
            margin.add(
                    Notes.body("Bring in the sound that must be imitated, or describe it if there is no recording."
                            + " Everything after this is computed from it."),
                    Notes.quiet("First a recording, then its numbers, then a recipe that you can play, compare"
                            + " and take away."));
            return;
        }
        margin.add(Notes.body(s.recordingName()), Notes.space(2));
        var m = s.recording().measurement();
        margin.add(
                Notes.pair("length", String.format(Locale.ROOT, "%.2f s", m.durationSeconds())),
                Notes.pair("sounds", m.f0Hz() == null ? "no clear pitch" : m.nearestNote()),
                Notes.pair("rate", m.sampleRateHz() + " Hz"),
                Notes.pair(
                        "loudness",
                        m.loudnessLufs() == null
                                ? "under the gate"
                                : String.format(Locale.ROOT, "%.1f LUFS", m.loudnessLufs())));
        if (m.typical() != null) {
            margin.add(
                    Notes.space(4),
                    Notes.body("Typical of its family, not recorded. Comparisons ask only for what the family has in"
                            + " common; a recording that is brought in now takes its place."));
            m.typical().sources().forEach(source -> margin.add(Notes.quiet(source)));
        }
        for (String remark : m.remarks()) {
            margin.add(Notes.quiet(remark));
        }
        if (s.recipe() == null) {
            margin.add(
                    Notes.space(6),
                    Notes.body("It has been measured. Look at it under Measure, or go on at once:"),
                    Notes.of(fit));
        }
    }
}
