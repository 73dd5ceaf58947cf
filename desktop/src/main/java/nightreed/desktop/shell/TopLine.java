package nightreed.desktop.shell;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.TaskState;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.project.Imitation;

/** Names of project and imitation, the task under way, what is not in the file yet, undo and redo, the notes' fold. */
final class TopLine extends HBox {
    private final Workspace bench;
    private final Shell shell;
    private final MenuButton imitation = new MenuButton();
    private final Button undo = link("undo", "Undo");
    private final Button redo = link("redo", "Redo");
    private final Button fold = link("fold-notes", "Notes ›");
    private final Button unsaved = link("unsaved", "");
    private final Label underWay = new Label("•");
    private final HBox task = new HBox(8);
    private final Button enough = link("enough", "stop and keep the best");
    private final Label taskName = new Label();
    private final ProgressBar taskBar = new ProgressBar(0);

    TopLine(Workspace bench, Shell shell, ProjectMenu project) {
        super(8);
        this.bench = bench;
        this.shell = shell;
        imitation.getStyleClass().add("title");
        imitation.setId("imitations");
        imitation.setAccessibleText("Imitation on the bench");
        Label slash = new Label("/");
        slash.getStyleClass().add("quiet-title");
        undo.setOnAction(e -> bench.undo());
        redo.setOnAction(e -> bench.redo());
        fold.setAccessibleText("Fold the margin notes away or out");
        fold.setOnAction(e -> shell.foldNotes());
        unsaved.getStyleClass().add("unsaved");
        unsaved.setAccessibleHelp(
                "They are kept in the window and written as soon as it can be done. Press to save a copy.");
        unsaved.setOnAction(e -> project.chooseCopy());
        unsaved(0);
        task();
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        underWay.setId("under-way");
        underWay.getStyleClass().add("under-way");
        underWay.setAccessibleText("The last change is being written");
        underWay.visibleProperty().bind(bench.underWayProperty().greaterThan(0));
        getChildren().addAll(project, slash, imitation, underWay, gap, task, unsaved, undo, redo, fold);
        setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("top");
    }

    private static Button link(String id, String text) {
        Button b = new Button(text);
        b.getStyleClass().add("link");
        b.setId(id);
        b.setMinWidth(Region.USE_PREF_SIZE);
        return b;
    }

    private void task() {
        taskBar.setPrefWidth(90);
        taskBar.setAccessibleText("Progress of the task");
        taskName.getStyleClass().add("quiet");
        Button stop = link("stop-task", "stop");
        stop.setAccessibleText("Stop the task");
        stop.setOnAction(e -> bench.cancel());
        enough.setAccessibleText("End with the nearest that was found so far");
        enough.setOnAction(e -> {
            enough.setDisable(true);
            bench.enough();
        });
        task.getChildren().addAll(taskName, taskBar, enough, stop);
        task.getStyleClass().add("task");
        task.setAlignment(Pos.CENTER_LEFT);
        show((TaskState) null);
    }

    /** @param changes how many are not in the project file yet */
    void unsaved(int changes) {
        unsaved.setText(changes == 1 ? "1 change is not in the file" : changes + " changes are not in the file");
        unsaved.setVisible(changes > 0);
        unsaved.setManaged(changes > 0);
    }

    void notes(boolean open) {
        fold.setText(open ? "Notes ›" : "‹ Notes");
    }

    /** @param before what was shown until now */
    void show(WorkspaceState before, WorkspaceState s) {
        imitation.setText(s.current() == null ? "" : s.current().name());
        if (!s.imitations().equals(before.imitations()) || imitation.getItems().isEmpty()) {
            list(s.imitations());
        }
        undo.setText(s.undoLabel() == null ? "Undo" : "Undo: " + s.undoLabel());
        undo.setDisable(s.undoLabel() == null);
        redo.setText(s.redoLabel() == null ? "Redo" : "Redo: " + s.redoLabel());
        redo.setDisable(s.redoLabel() == null);
    }

    private void list(List<Imitation> all) {
        imitation.getItems().clear();
        for (Imitation i : all) {
            MenuItem item = new MenuItem(i.name());
            item.setOnAction(e -> bench.choose(i));
            imitation.getItems().add(item);
        }
        MenuItem fresh = new MenuItem("New imitation");
        fresh.setOnAction(e -> {
            bench.addImitation("Imitation " + (all.size() + 1));
            shell.go(WorkStage.BRIEF);
        });
        imitation.getItems().add(fresh);
    }

    /** @param t null while nothing is under way: then it leaves its place to the names */
    void show(TaskState t) {
        task.setVisible(t != null);
        task.setManaged(t != null);
        if (t == null) {
            enough.setDisable(false);
        } else {
            enough.setVisible(t.search());
            enough.setManaged(t.search());
            String doing = t.doing().isEmpty() ? "" : ": " + t.doing();
            taskName.setText(t.name() + doing);
            taskBar.setProgress(t.fraction());
        }
    }
}
