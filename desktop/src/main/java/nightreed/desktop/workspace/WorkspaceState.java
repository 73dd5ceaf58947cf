package nightreed.desktop.workspace;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Map;
import nightreed.match.advice.Move;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.frontier.Frontier;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Imitation;
import nightreed.project.Snapshot;
import nightreed.project.Take;
import nightreed.recipe.PatchCheck;
import nightreed.recipe.Recipe;

/**
 * Everything the window shows, at one moment.
 *
 * @param projectName   name of the project
 * @param imitations    all imitations of the project
 * @param current       the one on the bench
 * @param recordingName where its recording came from, null if there is none
 * @param recording     recording and measurement, null if there is none
 * @param snapshot      recipe, fitted recipe and note as they are now
 * @param imitation     the recipe rendered, null if there is none, or while it is being rendered for the first time
 * @param comparison    recording against imitation, null likewise
 * @param moves         next moves, null while they are being looked for
 * @param tolerances    how far each value may move, empty while it is being computed
 * @param findings      what listening to the patch found amiss
 * @param takes         kept takes, oldest first
 * @param patches       all patches that fits found for this recording, from the simplest to the nearest; null before there were any
 * @param undoLabel     what undo would take back, null if nothing
 * @param redoLabel     what redo would bring back, null if nothing
 */
@RecordBuilder
public record WorkspaceState(
        String projectName,
        List<Imitation> imitations,
        Imitation current,
        String recordingName,
        AnalysedSound recording,
        Snapshot snapshot,
        AnalysedSound imitation,
        Comparison comparison,
        List<Move> moves,
        Map<String, Tolerances.Span> tolerances,
        List<PatchCheck.Finding> findings,
        List<Take> takes,
        Frontier patches,
        String undoLabel,
        String redoLabel)
        implements WorkspaceStateBuilder.With {
    public static final WorkspaceState EMPTY = new WorkspaceState(
            "",
            List.of(),
            null,
            null,
            null,
            Snapshot.EMPTY,
            null,
            null,
            null,
            Map.of(),
            List.of(),
            List.of(),
            null,
            null,
            null);

    /** The recipe on the bench, null if there is none. */
    /** Whether what is imitated is typical of a family, and no recording. */
    public boolean isTypical() {
        return recording != null && recording.measurement().typical() != null;
    }

    public Recipe recipe() {
        return snapshot.recipe();
    }

    WorkspaceState withSound(AnalysedSound newImitation, Comparison newComparison) {
        return with(b -> b.imitation(newImitation).comparison(newComparison).moves(null));
    }

    WorkspaceState withAdvice(List<Move> newMoves, Map<String, Tolerances.Span> newTolerances) {
        return with(b -> b.moves(newMoves).tolerances(newTolerances));
    }

    WorkspaceState withHistory(List<Imitation> newImitations, List<Take> newTakes, String undo, String redo) {
        return with(
                b -> b.imitations(newImitations).takes(newTakes).undoLabel(undo).redoLabel(redo));
    }
}
