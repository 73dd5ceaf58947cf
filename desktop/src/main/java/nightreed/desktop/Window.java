package nightreed.desktop;

import java.nio.file.Path;
import java.util.List;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import nightreed.project.ProjectFile;
import nightreed.sound.file.SoundFiles;

/** The JavaFX application: shows the window at once and opens a project behind it. */
public final class Window extends Application {
    private Workbench workbench;

    @Override
    public void start(Stage stage) {
        StartTimes times = new StartTimes();
        times.reached("toolkit");
        workbench = new Workbench();
        times.reached("built");
        workbench.show(stage);
        times.reached("shown");
        times.reachedWhenDrawn("drawn");
        workbench.onCompleted(times::tellWhenComplete);
        List<String> args = getParameters().getRaw();
        String what = args.isEmpty() ? "" : args.get(0);
        List<String> recent = workbench.preferences().get().recent();
        // the window is there first; opening takes a moment on a slow disk
        Thread opener = new Thread(() -> open(what, recent), "night-reed open");
        opener.setDaemon(true);
        opener.start();
    }

    private void open(String what, List<String> recent) {
        try {
            boolean sound = !what.endsWith(ProjectFile.ENDING) && SoundFiles.looksLikeSound(Path.of(what));
            Projects.Opened opened = Projects.open(sound ? "" : what, recent);
            workbench.bench().open(opened.project());
            if (sound) { // opened with a recording, from a folder perhaps
                Platform.runLater(() -> workbench.bench().intake().file(Path.of(what)));
            }
            if (opened.message() != null) {
                workbench.bench().say(opened.message());
            }
        } catch (Exception e) {
            workbench.bench().say(String.valueOf(e.getMessage()));
        }
    }

    @Override
    public void stop() {
        workbench.close();
        Platform.exit();
    }
}
