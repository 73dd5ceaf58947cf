package nightreed.desktop.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.TransferMode;
import nightreed.desktop.workspace.RecipeIntake;
import nightreed.desktop.workspace.Workspace;
import nightreed.project.ProjectFile;

/** Files that are dropped on the window: a recording is measured, a recipe or a project opened. */
final class FileDrop {
    private FileDrop() {}

    static void onto(Node window, Workspace bench) {
        window.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        window.setOnDragDropped(e -> {
            take(bench, e.getDragboard().getFiles());
            e.setDropCompleted(true);
            e.consume();
        });
    }

    /** The first of the files is taken in; of more, a word is said. */
    static void take(Workspace bench, List<File> files) {
        if (files.size() > 1) {
            bench.say("One recording at a time: the first of the " + files.size() + " files is taken in.");
        }
        if (!files.isEmpty()) {
            Path first = files.get(0).toPath();
            if (first.toString().endsWith(ProjectFile.ENDING)) {
                bench.openProject(first);
            } else if (RecipeIntake.takes(first)) {
                bench.recipes().file(first);
            } else {
                bench.intake().file(first);
            }
        }
    }
}
