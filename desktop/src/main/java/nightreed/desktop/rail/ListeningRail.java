package nightreed.desktop.rail;

import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.beans.value.ChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.device.AudioOutput;
import nightreed.device.OutputMixer;
import nightreed.device.SoundOut;

/** Recording or imitation at equal loudness, play, loop, keys, volume, meter, output. */
public final class ListeningRail extends HBox {
    private static final long LOAD_NANOS = 500_000_000L;

    private final OutputMixer desk;
    private final Label outputName = new Label();
    private final Label outputWhat = quiet("");
    private final AnimationTimer ticking;
    private final Keys keys;
    private final ToggleButton recording = new ToggleButton("Recording");
    private final ToggleButton imitation = new ToggleButton("Imitation");
    private final SVGPath playShape = new SVGPath();
    private final Button play = new Button();
    private final Meter meter = new Meter();
    private final Label output = new Label();

    public ListeningRail(Workspace bench, SoundOut sound) {
        this.desk = bench.desk();
        this.keys = new Keys(desk, 3);
        getStyleClass().add("rail");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(18);
        getChildren().addAll(sides(), transport(), keyboard(), levels(), device());
        ChangeListener<WorkspaceState> follow = (o, a, s) -> {
            imitation.setDisable(s.recipe() == null);
            recording.setDisable(s.recording() == null);
            recording.setText(s.isTypical() ? "Target" : "Recording");
            play.setDisable(s.recording() == null && s.recipe() == null);
            if (s.recording() == null && s.recipe() != null && (a.recipe() == null || a.recording() != null)) {
                hear(true);
            }
            if (s.recipe() == null && s.recording() != null) {
                hear(false);
            }
            int home = s.snapshot().patch() == null ? -1 : s.snapshot().patch().key();
            if (home >= 0 && home != keys.homeProperty().get()) {
                keys.lowestProperty().set(Math.max(0, 12 * (home / 12) - 12));
            }
            keys.homeProperty().set(home);
        };
        bench.stateProperty().addListener(follow);
        follow.changed(null, null, bench.state());
        Workspace sayer = bench;
        ticking = new AnimationTimer() {
            private boolean wasPlaying;

            @Override
            public void handle(long now) {
                meter.update(desk, now);
                boolean playing = desk.playing();
                if (playing != wasPlaying) {
                    wasPlaying = playing;
                    playShape.setContent(playing ? "M0 0 H12 V12 H0 Z" : "M0 0 L12 7 L0 14 Z");
                }
                if (desk.takeRanAway()) {
                    sayer.say(
                            "The sound kept rising and was silenced. Take back the last move (Ctrl+Z) before you play on.");
                }
                AudioOutput device = sound.output();
                long lost = device.dropOuts();
                if (lost != lostSeen || now - told > LOAD_NANOS) {
                    lostSeen = lost;
                    told = now;
                    state(device);
                }
            }

            private long lostSeen = -1;
            private long told;
        };
        ticking.start();
        show(sound.output());
    }

    /** Stops what ticks. */
    public void close() {
        ticking.stop();
    }

    /** Names the output that sounds now. */
    public void show(AudioOutput device) {
        outputName.setText(device.name());
        double khz = device.sampleRateHz() / 1000.0;
        String rate = String.format(Locale.ROOT, khz == Math.rint(khz) ? "%.0f kHz" : "%.1f kHz", khz);
        outputWhat.setText(device.standIn() ? rate + " · keeps what is played" : rate);
        state(device);
    }

    /** How much of its time the sound needs, and what was lost. */
    private void state(AudioOutput device) {
        long lost = device.dropOuts();
        double load = 100 * desk.takeLoad();
        String text = String.format(Locale.ROOT, "load %.0f %% · %s", load, lost == 0 ? "none lost" : lost + " lost");
        if (!text.equals(output.getText())) {
            output.setText(text);
        }
    }

    public Keys keys() {
        return keys;
    }

    private VBox sides() {
        ToggleGroup group = new ToggleGroup();
        recording.setToggleGroup(group);
        imitation.setToggleGroup(group);
        recording.setId("hear-recording");
        imitation.setId("hear-imitation");
        recording.getStyleClass().addAll("side", "side-recording");
        imitation.getStyleClass().addAll("side", "side-imitation");
        recording.setSelected(true);
        group.selectedToggleProperty().addListener((o, was, is) -> {
            if (is == null) {
                was.setSelected(true); // one of the two is always on
            } else {
                desk.hearImitation(is == imitation);
            }
        });
        HBox pair = new HBox(recording, imitation);
        pair.getStyleClass().add("sides");
        Label hint = quiet("Shift+Space swaps · equal loudness");
        VBox box = new VBox(5, pair, hint);
        box.setAlignment(Pos.CENTER);
        return box;
    }

    /** Chooses the side that is heard. */
    public void hear(boolean theImitation) {
        (theImitation ? imitation : recording).setSelected(true);
    }

    public void swap() {
        if (!imitation.isDisabled()) {
            hear(recording.isSelected());
        }
    }

    public void playOrStop() {
        if (desk.playing()) {
            desk.stop();
        } else if (!play.isDisabled()) {
            desk.play();
        }
    }

    private HBox transport() {
        playShape.setContent("M0 0 L12 7 L0 14 Z");
        playShape.getStyleClass().add("play-shape");
        play.setGraphic(playShape);
        play.setId("play");
        play.getStyleClass().add("play");
        play.setAccessibleText("Play or stop");
        play.setOnAction(e -> playOrStop());
        ToggleButton loop = new ToggleButton("loop");
        loop.getStyleClass().add("plain-toggle");
        loop.setId("loop");
        loop.setAccessibleText("Play over and over");
        loop.selectedProperty().addListener((o, a, on) -> desk.loop(on));
        VBox playBox = new VBox(5, play, quiet("Space"));
        playBox.setAlignment(Pos.CENTER);
        HBox box = new HBox(10, playBox, loop);
        box.setAlignment(Pos.CENTER);
        return box;
    }

    private HBox keyboard() {
        keys.setPrefHeight(62);
        keys.setMinHeight(62);
        keys.setMaxHeight(62);
        keys.setMinWidth(200);
        HBox.setHgrow(keys, Priority.ALWAYS);
        Button down = octave("‹", -1, "One octave lower");
        Button up = octave("›", 1, "One octave higher");
        HBox box = new HBox(4, down, keys, up);
        box.setAlignment(Pos.CENTER);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private Button octave(String text, int step, String help) {
        Button b = new Button(text);
        b.getStyleClass().add("octave");
        b.setAccessibleText(help);
        b.setTooltip(new Tooltip(help));
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setOnAction(e -> keys.octave(step));
        return b;
    }

    private VBox levels() {
        Slider volume = new Slider(-60, 0, OutputMixer.FIRST_VOLUME_DB);
        volume.setId("volume");
        volume.setPrefWidth(120);
        volume.setAccessibleText("Volume in dB");
        Label value = new Label();
        value.getStyleClass().add("figures");
        value.setMinWidth(52);
        volume.valueProperty().addListener((o, a, v) -> {
            desk.volumeDb(v.doubleValue() <= -59.5 ? -200 : v.doubleValue());
            value.setText(String.format(Locale.ROOT, "%.0f dB", v.doubleValue()));
        });
        value.setText(String.format(Locale.ROOT, "%.0f dB", OutputMixer.FIRST_VOLUME_DB));
        Label name = quiet("volume");
        name.setMinWidth(Region.USE_PREF_SIZE);
        HBox row = new HBox(6, name, volume, value);
        row.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(1, meter, row);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private VBox device() {
        outputName.setId("output-name");
        output.getStyleClass().add("quiet");
        output.setId("output-state");
        output.setTooltip(
                new Tooltip("Largest share of a block's own time that its sound took, and blocks that came too"
                        + " late since the start."));
        Label care = quiet("Start low, rest your ears.");
        care.setTooltip(new Tooltip("""
                Resonant sounds can jump in level, and long sessions on headphones tire the ear.
                Night Reed cannot measure the level at your ear.
                Follow the rules on noise exposure where you are."""));
        VBox box = new VBox(2, outputName, outputWhat, output, care);
        box.setMinWidth(150);
        box.setMaxWidth(190);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private static Label quiet(String text) {
        Label l = new Label(text);
        l.getStyleClass().add("quiet");
        return l;
    }
}
