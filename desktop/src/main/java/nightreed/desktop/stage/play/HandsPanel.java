package nightreed.desktop.stage.play;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.stage.FileChooser;
import javafx.util.Duration;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences.Midi;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.device.SoundOut;
import nightreed.device.WavRecorder;
import nightreed.device.midi.MidiIn;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;

/** What plays from outside, and the tape that takes down what is played. */
final class HandsPanel extends HBox {
    private static final String FIRST = "the first there is";
    private static final String NONE = "no MIDI device";

    private final Workspace bench;
    private final MidiIn midi;
    private final PreferenceStore preferences;
    private final ComboBox<String> device = new ComboBox<>();
    private final Button take = new Button("Take down what is played");
    private final Label words = NodeFactory.quiet("");
    private final Button hear = new Button("Hear it");
    private final Button measure = new Button("Measure it");
    private final Button save = new Button("Save as …");
    private final Timeline ticking = new Timeline(new KeyFrame(Duration.millis(150), e -> tick()));
    private boolean showing;
    private boolean opening;
    private WavRecorder tape;
    private Path taken;
    private String last = ""; // of the last take

    HandsPanel(Workspace bench, MidiIn midi, PreferenceStore preferences) {
        super(10);
        this.bench = bench;
        this.midi = midi;
        this.preferences = preferences;
        device.setId("midi-device");
        device.setAccessibleText("MIDI device that plays");
        device.setOnAction(e -> chosen());
        device.setOnShowing(e -> names());
        take.setId("tape");
        take.setMinWidth(Region.USE_PREF_SIZE);
        take.setOnAction(e -> takeOrStop());
        words.setId("tape-words");
        words.setMinWidth(60);
        HBox.setHgrow(words, Priority.ALWAYS);
        hear.setId("tape-hear");
        hear.setOnAction(e -> hear());
        measure.setId("tape-measure");
        measure.setOnAction(e -> bench.intake().file(taken));
        save.setId("tape-save");
        save.setOnAction(e -> save());
        for (Button b : List.of(hear, measure, save)) {
            b.setMinWidth(Region.USE_PREF_SIZE);
        }
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(take, words, hear, measure, save);
        preferences.currentProperty().addListener((o, was, is) -> names());
        names();
        after(false);
        ticking.setCycleCount(Animation.INDEFINITE);
        sceneProperty().addListener((o, was, is) -> {
            if (is == null && tape == null) {
                ticking.stop();
            } else {
                ticking.play();
            }
        });
    }

    /** Choice of what plays, for a line of its own. */
    List<Node> device() {
        Label by = NodeFactory.quiet("played by");
        by.setMinWidth(Region.USE_PREF_SIZE);
        device.setMinWidth(150);
        return List.of(by, device);
    }

    private void names() {
        List<String> all = new ArrayList<>(List.of(FIRST, NONE));
        all.addAll(midi.names());
        String wanted = preferences.get().midi().device();
        String shown = wanted == null ? FIRST : wanted.equals(MidiIn.NONE) ? NONE : wanted;
        if (!all.contains(shown)) {
            all.add(shown); // unplugged for now
        }
        showing = true;
        device.getItems().setAll(all);
        device.setValue(shown);
        showing = false;
    }

    private void chosen() {
        String v = device.getValue();
        if (!showing && v != null) {
            String name = v.equals(FIRST) ? null : v.equals(NONE) ? MidiIn.NONE : v;
            preferences.change(p -> p.withMidi(new Midi(name, p.midi().controls())));
        }
    }

    private void takeOrStop() {
        if (tape != null) {
            stop();
            return;
        }
        if (opening) {
            return;
        }
        Path project = bench.projectPathProperty().get();
        if (project == null) {
            bench.say("Open a project first: what is played is put into a folder beside it.");
            return;
        }
        opening = true;
        String when = LocalDateTime.now(java.time.ZoneId.systemDefault())
                .format(DateTimeFormatter.ofPattern("yyyy-MM-dd HH.mm.ss", Locale.ROOT));
        Path file = project.toAbsolutePath().resolveSibling("played").resolve("played " + when + ".wav");
        bench.beside(
                () -> new WavRecorder(file, SoundOut.SAMPLE_RATE_HZ),
                begun -> {
                    tape = begun;
                    bench.desk().tape(begun);
                    after(false);
                    ticking.play();
                },
                () -> opening = false);
    }

    private void stop() {
        WavRecorder ended = tape;
        bench.desk().tape(null);
        tape = null;
        take.setText("Take down what is played");
        take.setDisable(true); // until it is in the file
        bench.beside(
                () -> {
                    ended.close();
                    return ended;
                },
                this::arrived,
                () -> take.setDisable(false));
    }

    private void arrived(WavRecorder ended) {
        taken = ended.file();
        if (ended.problem() != null) {
            bench.say(ended.problem());
        } else if (ended.lostSeconds() > 0) {
            bench.say(String.format(
                    Locale.ROOT,
                    "The disk was too slow for %.1f s of the take; the rest is in the file without a gap's silence.",
                    ended.lostSeconds()));
        }
        last = String.format(
                Locale.ROOT, "%.1f s in played/%s, beside the project", ended.seconds(), taken.getFileName());
        words.setTooltip(new Tooltip(taken.toString()));
        after(true);
    }

    private void after(boolean there) {
        for (Button b : List.of(hear, measure, save)) {
            b.setVisible(there);
            b.setManaged(there);
        }
    }

    private void hear() {
        Path file = taken;
        bench.beside(
                () -> {
                    try {
                        return SoundFiles.read(file).clip();
                    } catch (UnusableSound e) {
                        throw new IOException(e.getMessage(), e);
                    }
                },
                clip -> bench.desk().audition(clip),
                () -> {});
    }

    private void save() {
        FileChooser c = new FileChooser();
        c.setTitle("Save what was played");
        c.setInitialFileName(String.valueOf(taken.getFileName()));
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("WAV", "*.wav"));
        File f = c.showSaveDialog(getScene().getWindow());
        if (f != null) {
            Path from = taken;
            bench.beside(
                    () -> Files.copy(from, f.toPath(), StandardCopyOption.REPLACE_EXISTING),
                    to -> last = "saved as " + to,
                    () -> {});
        }
    }

    private void tick() {
        WavRecorder now = tape;
        if (now != null) {
            set(take, String.format(Locale.ROOT, "Stop (%.1f s)", now.seconds()));
            if (now.problem() != null) {
                stop();
            }
        }
        String name = midi.name();
        String from = name == null
                ? "Nothing plays from outside. Plug a keyboard in, or choose the scripted player, a stand-in."
                : String.format(Locale.ROOT, "%s: %d messages so far.", name, midi.messages());
        set(words, now != null || last.isEmpty() ? from : last);
    }

    private static void set(javafx.scene.control.Labeled l, String text) {
        if (!text.equals(l.getText())) {
            l.setText(text);
        }
    }

    /** Ends a take that is under way; what came so far is in its file. */
    void close() {
        ticking.stop();
        WavRecorder now = tape;
        if (now != null) {
            bench.desk().tape(null);
            tape = null;
            now.close();
        }
    }
}
