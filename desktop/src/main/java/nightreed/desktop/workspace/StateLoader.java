package nightreed.desktop.workspace;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.hearing.ListenerProfile;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Recording;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;

/** Makes a state of the workspace from what a project holds of an imitation. For the thread that the project belongs to. */
final class StateLoader {
    private final ProjectFile project;
    private final JndThresholds hearing;

    StateLoader(ProjectFile project, JndThresholds hearing) {
        this.project = project;
        this.hearing = hearing;
    }

    /** @param known a state whose recording is not read again if it is the same one; may be null */
    WorkspaceState load(Imitation imitation, Snapshot snapshot, WorkspaceState known) throws UnusableProject {
        AnalysedSound recording = null;
        String name = null;
        if (snapshot.recordingId() != null) {
            if (known != null
                    && known.recording() != null
                    && Objects.equals(known.snapshot().recordingId(), snapshot.recordingId())) {
                recording = again(known, snapshot);
                name = known.recordingName();
            } else {
                Recording r = project.recording(snapshot.recordingId());
                recording = heard(hearing, new AnalysedSound(r.clip(), r.measurement()), snapshot);
                recording =
                        snapshot.hand().equals(ManualCorrections.NONE) ? recording : recording.byHand(snapshot.hand());
                name = r.name();
            }
        }
        return new WorkspaceState(
                project.name(),
                project.imitations(),
                imitation,
                name,
                recording,
                snapshot,
                null,
                null,
                null,
                Map.of(),
                List.of(),
                project.takes(imitation),
                snapshot.recordingId() == null
                        ? null
                        : project.frontier(imitation, snapshot.recordingId()).orElse(null),
                project.undoLabel(imitation).orElse(null),
                project.redoLabel(imitation).orElse(null));
    }

    private AnalysedSound again(WorkspaceState known, Snapshot snapshot) {
        AnalysedSound same = known.snapshot().hand().equals(snapshot.hand())
                ? known.recording()
                : known.recording().byHand(snapshot.hand());
        return known.snapshot().marks().equals(snapshot.marks()) ? same : heard(hearing, same, snapshot);
    }

    /** The recording as its listener hears it. */
    static AnalysedSound heard(JndThresholds hearing, AnalysedSound recording, Snapshot snapshot) {
        return recording.heardBy(new ListenerProfile(hearing, snapshot.marks()));
    }

    /** With the comparison of the state before, until there is a new one, where the recording is the same. */
    static WorkspaceState keepingComparison(WorkspaceState next, WorkspaceState before) {
        boolean other = before.recording() != next.recording() || !Objects.equals(before.current(), next.current());
        return next.recipe() == null || other || before.imitation() == null
                ? next
                : new WorkspaceState(
                        next.projectName(),
                        next.imitations(),
                        next.current(),
                        next.recordingName(),
                        next.recording(),
                        next.snapshot(),
                        before.imitation(),
                        before.comparison(),
                        null,
                        before.tolerances(),
                        List.of(),
                        next.takes(),
                        next.patches(),
                        next.undoLabel(),
                        next.redoLabel());
    }

    /** The partial that is selected from then on: of the same sound the one that it has become, otherwise the strongest. */
    static Partial selection(WorkspaceState next, WorkspaceState before, Partial selected) {
        if (next.recording() == null) {
            return null;
        }
        Measurement m = next.recording().measurement();
        boolean same = before.recording() != null
                && before.recording().clip() == next.recording().clip();
        return same && selected != null
                ? m.partials().stream()
                        .min(Comparator.comparingDouble(p -> Math.abs(p.frequencyHz() - selected.frequencyHz())))
                        .orElse(null)
                : m.strongest();
    }
}
