package nightreed.desktop.workspace;

import java.util.ArrayList;
import java.util.List;
import nightreed.measure.Measurement;
import nightreed.sound.Clip;
import nightreed.typical.Description;
import nightreed.typical.TypicalNote;
import nightreed.typical.TypicalSound;
import nightreed.typical.TypicalTarget;

/** How a typical sound comes to the bench where there is no recording. All public methods are called on the UI thread and return at once. */
public final class TargetIntake {
    private final Workspace bench;

    TargetIntake(Workspace bench) {
        this.bench = bench;
    }

    /** Plays what a description sounds like, and changes nothing. */
    public void hear(Description asked) {
        bench.run("making a typical " + asked.family().title(), progress -> {
            Clip clip = TypicalSound.of(TypicalNote.of(asked)).clip();
            bench.desk().audition(clip);
        });
    }

    /** Makes it what is built against; one that was there before gives way to it. */
    public void take(Description asked) {
        String words = asked.words();
        bench.run("making a typical " + asked.family().title(), progress -> {
            TypicalTarget t = TypicalTarget.of(asked, progress);
            bench.take("Typical " + words, "typical, not recorded: " + words, t.clip(), t.measurement());
        });
    }

    /** A recording's measurement, with what it says otherwise than the typical sound on the bench, whose place it takes. */
    static Measurement inPlaceOf(WorkspaceState at, Measurement recorded) {
        List<String> changes = TypicalTarget.changes(at.recording().measurement(), recorded);
        List<String> remarks = new ArrayList<>(recorded.remarks());
        remarks.add("It took the place of a typical one"
                + (changes.isEmpty() ? ", and is what was expected." : ": " + String.join(", ", changes) + "."));
        return recorded.withClip(recorded.clip().withRemarks(remarks));
    }
}
