package nightreed.desktop;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.concurrent.Callable;
import nightreed.desktop.workspace.DemoProject;
import nightreed.match.compare.ImitationRenderer;
import nightreed.measure.MeasurementJson;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;
import picocli.CommandLine.Command;

/** Run once after a build: makes the demo project, and by that loads the classes that are kept ready for later starts. */
@Command(name = "warm-up", hidden = true, description = "Builds the demo project.")
final class WarmUpCommand implements Callable<Integer> {
    @Override
    public Integer call() throws Exception {
        Path demo = DemoProject.built();
        if (demo != null && Files.isDirectory(demo.getParent())) {
            Path unfinished = demo.resolveSibling("unfinished-" + demo.getFileName());
            Files.deleteIfExists(unfinished);
            DemoProject.build(unfinished, Progress.NONE).close();
            Files.move(unfinished, demo, StandardCopyOption.REPLACE_EXISTING); // never half a demo, whatever happens
        }
        var clip = RecordingRoom.record(RecordingRoom.instruments().get(0), 69, 0.7, 1);
        MeasurementJson.text(ImitationRenderer.side(clip, Progress.NONE).measurement());
        return 0;
    }
}
