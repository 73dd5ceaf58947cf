package nightreed.desktop.shell;

import java.util.ArrayList;
import java.util.List;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.scene.Node;
import javafx.util.Duration;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.Workspace;

/**
 * Styles and lays out what has not been seen yet, a piece at a time while nothing else happens, so that the first visit to a stage
 * is as quick as every other.
 */
final class WarmUp {
    /** When the first piece is made, and how long after it each next one [ms]; chosen, so that the start is not held up. */
    private static final double FIRST_MS = 600;

    private static final double EVERY_MS = 120;

    private final Shell shell;
    private final Workspace bench;

    WarmUp(Shell shell, Workspace bench) {
        this.shell = shell;
        this.bench = bench;
    }

    void begin() {
        List<Runnable> pieces = new ArrayList<>();
        for (WorkStage s : WorkStage.values()) {
            pieces.add(() -> glimpse(s, shell.view(s).centre(), true));
            pieces.add(() -> glimpse(s, shell.view(s).centre(), false));
            pieces.add(() -> glimpse(s, shell.view(s).margin(), true));
            pieces.add(() -> glimpse(s, shell.view(s).margin(), false));
        }
        pieces.add(shell::guide);
        pieces.add(shell::preferencesPage);
        Timeline quietly = new Timeline();
        for (int i = 0; i < pieces.size(); i++) {
            Runnable piece = pieces.get(i);
            quietly.getKeyFrames().add(new KeyFrame(Duration.millis(FIRST_MS + EVERY_MS * i), e -> piece.run()));
        }
        quietly.play();
    }

    private void glimpse(WorkStage s, Node n, boolean on) {
        if (shell.page() != null || s != shell.stage()) {
            if (on) {
                shell.view(s).show(bench.state());
            }
            Shell.unseen(n, on);
            shell.show(n, on);
        } else {
            Shell.unseen(n, false);
        }
    }
}
