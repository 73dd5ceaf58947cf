package nightreed.desktop.workspace;

import java.util.ArrayList;
import java.util.List;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Recording;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.sound.Clip;

/**
 * Recordings of one instrument, on other keys or of other strength, that are kept together.
 *
 * @param all     all imitations of the project
 * @param members those whose recordings are kept together with that on the bench, the latter among them
 * @param others  recordings of the other members
 */
public record Family(List<Imitation> all, List<Imitation> members, List<Kept> others) {
    /**
     * A recording of a member.
     *
     * @param name        of its imitation
     * @param measurement as measured
     * @param hand        what was decided by hand about it
     */
    public record Kept(String name, Clip clip, Measurement measurement, ManualCorrections hand) {}

    /** The family of an imitation, read from the project. */
    public static Family of(ProjectFile project, Imitation imitation) throws UnusableProject {
        List<Imitation> members = project.family(imitation);
        List<Kept> others = new ArrayList<>();
        for (Imitation member : members) {
            Snapshot now = member.id() == imitation.id() ? Snapshot.EMPTY : project.now(member);
            if (now.recordingId() != null) {
                Recording r = project.recording(now.recordingId());
                if (r.measurement() != null) {
                    others.add(new Kept(member.name(), r.clip(), r.measurement(), now.hand()));
                }
            }
        }
        return new Family(project.imitations(), members, others);
    }
}
