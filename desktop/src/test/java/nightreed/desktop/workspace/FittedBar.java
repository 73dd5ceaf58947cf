package nightreed.desktop.workspace;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Queue;
import nightreed.device.OutputMixer;
import nightreed.project.ProjectFile;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;

/** The project that many tests begin with: a slate bar that was brought, measured and fitted with resonators. Made once. */
public final class FittedBar {
    private static final double SECONDS = 1.3;
    private static Path made;

    private FittedBar() {}

    /** The beginning of a recording: where it matters little how a note dies, less has to be measured and rendered. */
    public static Clip cutShort(Clip recording) {
        return recording.span(0, (int) (SECONDS * recording.sampleRateHz()));
    }

    /** Copies it to a file. */
    public static synchronized void copyTo(Path file) throws Exception {
        if (made == null) {
            Path folder = Files.createTempDirectory("night-reed-test");
            Path bar = folder.resolve("bar 64.wav");
            WavFiles.write(
                    cutShort(RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 64, 0.7, 8)),
                    WavFiles.Format.PCM24,
                    bar);
            Path project = folder.resolve("bar.nightreed");
            bring(bar, project);
            made = project;
            for (Path p : new Path[] {bar, project, folder}) {
                p.toFile().deleteOnExit(); // in the order opposite to this one
            }
        }
        Files.copy(made, file);
    }

    private static void bring(Path wav, Path project) throws Exception {
        Queue<Runnable> pending = new ArrayDeque<>();
        Workspace workspace =
                new Workspace(pending::add, pending::add, pending::add, pending::add, new OutputMixer(48_000));
        try (ProjectFile file = ProjectFile.create(project, "Bench")) {
            workspace.fitting().trying(0.1); // what is found is tested elsewhere
            workspace.open(file);
            work(pending);
            workspace.intake().file(wav);
            work(pending);
            workspace.fitting().fit();
            work(pending);
        }
    }

    private static void work(Queue<Runnable> pending) {
        while (!pending.isEmpty()) {
            pending.poll().run();
        }
    }
}
