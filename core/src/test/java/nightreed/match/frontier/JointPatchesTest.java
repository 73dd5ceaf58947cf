package nightreed.match.frontier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.hearing.Use;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

class JointPatchesTest {
    private static final int FS = 44_100;

    @Test
    void patchesForTwoKeysGetSimplerAndAreJudgedByBoth() throws Exception {
        Recipe bar = FirstRecipe.of("resonators");
        List<Note> notes = new ArrayList<>();
        for (int key : new int[] {60, 67}) {
            notes.add(new Note(
                    ImitationRenderer.side(Renderer.at(Patch.of(bar), key, 0.7, 0.1, 2, 2, FS), Progress.NONE),
                    key,
                    0.7));
        }
        FitOptions little = FitOptions.USUAL.trying(0.1);
        JointPatches.Found found = JointPatches.of("resonators", notes, notes.get(0), little, Progress.NONE);
        List<Point> points = found.frontier().points();
        assertThat(points).hasSizeGreaterThan(1);
        for (int i = 0; i < points.size(); i++) {
            Point p = points.get(i);
            assertThat(p.size()).isEqualTo(PatchSize.of(p.recipe()));
            assertThat(found.result(p).notes()).hasSize(2);
            double fresh =
                    JointFit.judged(p.recipe(), notes, notes.get(0), little).meanJnd();
            assertThat(p.totalJnd()).isCloseTo(fresh, within(0.05));
            if (i > 0) {
                assertThat(p.size()).isGreaterThan(points.get(i - 1).size());
                assertThat(p.totalJnd()).isLessThan(points.get(i - 1).totalJnd());
            }
        }
        Point best = found.frontier().recommended(Use.ALONE);
        assertThat(best.totalJnd()).isLessThan(1.5);
        assertThat(best.size()).as("the bar itself takes " + PatchSize.of(bar)).isLessThan(PatchSize.of(bar) + 6);
    }
}
