package nightreed.desktop.stage;

import javafx.scene.Node;
import javafx.scene.input.KeyEvent;
import nightreed.desktop.workspace.WorkspaceState;

/** One stage: what stands in the centre, and the notes in the margin. */
public interface StageView {
    Node centre();

    Notes margin();

    /** Shows a state in the centre and tells its notes. Called through {@link #show}. */
    void fill(WorkspaceState s);

    /** A key that nothing else took. @return whether it was used */
    default boolean key(KeyEvent e) {
        return false;
    }

    /** Lets go of devices and files before the window closes. */
    default void close() {}

    /** Shows a state. Called for the visible stage on every change, and when a stage becomes visible. */
    default void show(WorkspaceState s) {
        if (margin().begin()) {
            fill(s);
            margin().end();
        }
    }
}
