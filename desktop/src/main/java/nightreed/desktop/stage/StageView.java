package nightreed.desktop.stage;

import javafx.scene.Node;
import nightreed.desktop.bench.BenchState;

/** One stage: what stands in the centre, and the notes in the margin. */
public interface StageView {
    Node centre();

    Node margin();

    /** Shows a state. Called for the visible stage on every change, and when a stage becomes visible. */
    void show(BenchState s);
}
