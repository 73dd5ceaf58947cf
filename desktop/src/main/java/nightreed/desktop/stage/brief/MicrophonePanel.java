package nightreed.desktop.stage.brief;

import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.device.SoundIn;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;

/** The microphone: first its level, then a recording. */
final class MicrophonePanel extends VBox {
    /** Under this the room's noise is too near [full scale = 1]. */
    private static final double TOO_QUIET = 0.03;

    private final Workspace bench;
    private final Button listen = new Button("Listen");
    private final Button record = new Button("Record");
    private final ProgressBar level = new ProgressBar(0);
    private final Label words = NodeFactory.quiet("Listen first: the level is shown before anything is recorded.");
    private final AnimationTimer ticking = new AnimationTimer() {
        @Override
        public void handle(long now) {
            tick();
        }
    };
    private SoundIn in;
    private boolean opening;
    private double shown;
    private int count;

    MicrophonePanel(Workspace bench) {
        this.bench = bench;
        getStyleClass().add("panel");
        setSpacing(8);
        listen.setId("mic-listen");
        listen.setOnAction(e -> listenOrNot());
        record.setId("mic-record");
        record.setDisable(true);
        record.setOnAction(e -> recordOrStop());
        level.setMaxWidth(Double.MAX_VALUE);
        level.setAccessibleText("Microphone level");
        words.setId("mic-words");
        HBox buttons = new HBox(8, listen, record);
        buttons.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(NodeFactory.heading("Or record one"), words, level, buttons);
    }

    private void listenOrNot() {
        if (in != null) {
            close();
            words.setText("Not listening.");
        } else if (!opening) {
            opening = true;
            words.setText("Opening the microphone …");
            // a driver may take its time
            Thread t = new Thread(() -> {
                SoundIn opened = new SoundIn(MicrophonePanel::standIn);
                javafx.application.Platform.runLater(() -> arrived(opened));
            });
            t.setDaemon(true);
            t.start();
        }
    }

    /** What the stand-in microphone hears: a bar that is struck again and again. */
    private static Clip standIn() {
        RecordingRoom.Instrument bars = RecordingRoom.instrument("slate-bars");
        return RecordingRoom.record(bars, bars.usualKey() - 5, 0.75, 7);
    }

    private void arrived(SoundIn opened) {
        opening = false;
        in = opened;
        listen.setText("Stop listening");
        record.setDisable(false);
        ticking.start();
    }

    private void recordOrStop() {
        if (in == null) {
            return;
        }
        if (in.recording()) {
            takeIn();
        } else {
            in.record();
            record.setText("Stop");
        }
    }

    private void takeIn() {
        Clip clip = in.stop();
        long clipped = in.clipped();
        count++;
        String name = (in.input().standIn() ? "Stand-in microphone " : "Microphone ") + count;
        close();
        words.setText("Taken in.");
        if (clipped > 0) {
            bench.say(clipped + " samples of the recording were cut off at full scale: lower the microphone's level and"
                    + " record again, or its strong partials will measure too low.");
        }
        bench.intake().clip(name, clip);
    }

    private void tick() {
        SoundIn now = in;
        if (now == null) {
            return;
        }
        if (now.input().lost()) {
            close();
            words.setText("The microphone is gone: plug it in and listen again.");
            return;
        }
        double db = 20 * Math.log10(Math.max(1e-3, now.takePeak()));
        shown = Math.max((db + 60) / 60, shown - 0.01);
        level.setProgress(shown);
        level.getStyleClass().removeAll("within", "audible");
        level.getStyleClass().add(now.clipped() > 0 ? "audible" : "within");
        if (now.recording()) {
            record.setText(String.format(Locale.ROOT, "Stop (%.1f s)", now.seconds()));
        } else if (record.getText().startsWith("Stop")) {
            takeIn(); // it was as long as can be
            return;
        }
        String text = now.clipped() > 0
                ? "Too loud: samples are cut off. Lower the level."
                : now.loudest() < TOO_QUIET
                        ? "Too quiet so far: strike as hard as you will, or raise the level."
                        : String.format(
                                Locale.ROOT,
                                "Good: the loudest so far is %.0f dB under full scale.",
                                -20 * Math.log10(now.loudest()));
        text = now.input().name() + ". " + text;
        if (!text.equals(words.getText())) {
            words.setText(text);
        }
    }

    /** Lets go of the microphone. */
    void close() {
        ticking.stop();
        if (in != null) {
            in.close();
            in = null;
        }
        listen.setText("Listen");
        record.setText("Record");
        record.setDisable(true);
        level.setProgress(0);
    }
}
