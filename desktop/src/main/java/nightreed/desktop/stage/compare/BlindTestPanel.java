package nightreed.desktop.stage.compare;

import java.util.Locale;
import java.util.function.LongSupplier;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.BlindTest;
import nightreed.sound.Clip;

/** A blind test of recording against imitation at equal loudness; the result becomes a take. */
final class BlindTestPanel extends VBox {
    private static final int TRIALS = 12;

    private final Workspace bench;
    private final LongSupplier seed;
    private final Label trial = NodeFactory.heading("");
    private final Label result = NodeFactory.body("");
    private final Label sides = NodeFactory.quiet("");
    private final Button isRecording = new Button("X is the recording");
    private final Button isImitation = new Button("X is the imitation");
    private final Button again = new Button("Once more");
    private BlindTest test;
    private Clip recording;
    private Clip imitation;

    /** @param seed of a new test */
    BlindTestPanel(Workspace bench, LongSupplier seed) {
        super(14);
        this.bench = bench;
        this.seed = seed;
        setId("blind-test-panel");
        setAlignment(Pos.TOP_LEFT);
        setPadding(new Insets(48, 0, 0, 24));
        VBox.setVgrow(this, Priority.ALWAYS);
        Button a = play("Recording", "blind-recording", () -> recording);
        Button b = play("Imitation", "blind-imitation", () -> imitation);
        Button x = play("X", "blind-x", () -> test.xIsImitation() ? imitation : recording);
        x.getStyleClass().add("accent-button");
        isRecording.setId("blind-is-recording");
        isRecording.setOnAction(e -> answer(false));
        isImitation.setId("blind-is-imitation");
        isImitation.setOnAction(e -> answer(true));
        again.setId("blind-again");
        again.setOnAction(e -> begin());
        getChildren()
                .addAll(
                        trial,
                        NodeFactory.body(
                                "Each time, X is one of the two, both equally loud. Listen as often as you like, then say"
                                        + " which it is. Rest your ears between the trials."),
                        sides,
                        new HBox(10, a, b, x),
                        new HBox(10, isRecording, isImitation),
                        result,
                        again);
    }

    private interface Sound {
        Clip get();
    }

    private Button play(String title, String id, Sound sound) {
        Button b = new Button("▶  " + title);
        b.setId(id);
        b.setOnAction(e -> {
            if (!test.over() || !id.equals("blind-x")) {
                bench.desk().audition(sound.get());
            }
        });
        return b;
    }

    /** Starts anew with what is on the bench now. */
    void begin() {
        WorkspaceState s = bench.state();
        recording = s.recording().clip();
        double gain = Math.pow(10, s.comparison().gainDb() / 20);
        imitation = s.imitation().clip().scaled(gain);
        // where only one of the two has sides, they would give the answer away
        boolean summed = recording.isSided() != imitation.isSided();
        if (summed) {
            recording = recording.summed();
            imitation = imitation.summed();
        }
        sides.setText(
                summed
                        ? "Both are heard with left and right as one, as only one of them has two sides."
                        : recording.isSided() ? "Both are heard in stereo." : "Both are heard in mono.");
        test = BlindTest.of(TRIALS, seed.getAsLong());
        show();
    }

    private void answer(boolean saysImitation) {
        bench.desk().stop();
        test = test.answered(saysImitation);
        if (test.over()) {
            bench.keepTake("blind test: " + test.verdict());
        }
        show();
    }

    private void show() {
        boolean over = test.over();
        trial.setText(
                over ? "The test is over" : String.format(Locale.ROOT, "Trial %d of %d", test.trial() + 1, TRIALS));
        result.setText(over ? test.verdict() + " It is kept with a take." : "");
        isRecording.setDisable(over);
        isImitation.setDisable(over);
        again.setVisible(over);
    }
}
