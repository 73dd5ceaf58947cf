package nightreed.desktop;

import java.nio.file.Path;
import java.util.List;
import javafx.application.Application;
import javafx.stage.Stage;
import nightreed.desktop.bench.DemoProject;
import nightreed.measure.Progress;
import nightreed.project.ProjectFile;

/** The JavaFX application: opens a project, the demo, or a new project in the user's own folder. */
public final class Window extends Application {
    private Workbench workbench;

    @Override
    public void start(Stage stage) throws Exception {
        workbench = new Workbench();
        workbench.show(stage);
        List<String> args = getParameters().getRaw();
        String what = args.isEmpty() ? "" : args.get(0);
        // the window is there first; opening takes a moment on a slow disk
        Thread opener = new Thread(() -> open(what), "night-reed open");
        opener.setDaemon(true);
        opener.start();
    }

    private void open(String what) {
        try {
            ProjectFile project = what.equals("--demo")
                    ? DemoProject.open(Main.builtDemo(), Progress.NONE)
                    : what.isEmpty() ? HomeProject.open() : ProjectFile.open(Path.of(what));
            workbench.bench().open(project);
        } catch (Exception e) {
            workbench.bench().say(String.valueOf(e.getMessage()));
            if (!what.isEmpty()) {
                open(""); // a bench that works, beside the word about what did not
            }
        }
    }

    @Override
    public void stop() {
        workbench.close();
    }
}
