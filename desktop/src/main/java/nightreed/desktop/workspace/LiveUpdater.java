package nightreed.desktop.workspace;

import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicLong;
import nightreed.match.advice.Move;
import nightreed.match.advice.NextMoves;
import nightreed.match.advice.Sensitivity;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Imitation;
import nightreed.recipe.Patch;
import nightreed.recipe.PatchCheck;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.voice.SoundCheck;
import nightreed.work.Progress;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What follows each change of a recipe: its sound, the comparison, advice, tolerances. */
final class LiveUpdater {
    private static final Logger LOG = LoggerFactory.getLogger(LiveUpdater.class);
    private final Workspace bench;
    private final Executor ui;
    private final Executor follower;
    private final AtomicLong version = new AtomicLong();
    private volatile Imitation gainOf; // whose recipe keeps no gain
    private volatile double gainDb;

    /** @param follower one thread */
    LiveUpdater(Workspace bench, Executor ui, Executor follower) {
        this.bench = bench;
        this.ui = ui;
        this.follower = follower;
    }

    /** Renders, compares and advises for the recipe as it is now; what has been overtaken is dropped. */
    void follow() {
        WorkspaceState at = bench.state();
        long mine = version.incrementAndGet();
        if (at.recipe() == null) {
            bench.desk().patch(null);
            Clip recording = at.recording() == null ? null : at.recording().clip();
            follower.execute(() -> bench.desk().load(recording, null, 0));
            return;
        }
        bench.shaping().hearAll();
        bench.desk().patch(played(at));
        follower.execute(() -> {
            if (version.get() != mine) {
                return;
            }
            if (at.recipe().common().playingGainDb() == null && !at.current().equals(gainOf)) {
                gainDb = PlayingLevel.gainDb(at.snapshot().patch());
                gainOf = at.current();
                bench.desk().patch(played(at));
            }
            if (at.recording() == null) {
                byItself(mine, played(at));
            } else {
                compare(mine, at);
            }
        });
    }

    /** Plays and measures what no recording is held against. */
    private void byItself(long mine, Patch patch) {
        Clip clip = ByItself.sound(patch);
        bench.desk().load(null, clip, 0);
        if (version.get() != mine) {
            return;
        }
        AnalysedSound measured;
        try {
            measured = ImitationRenderer.rendered(ByItself.beginning(clip));
        } catch (UnusableSound silent) {
            measured = null;
        }
        AnalysedSound found = measured;
        onlyIf(mine, () -> bench.show(bench.state().withSound(found, null).withAdvice(List.of(), Map.of())));
        follower.execute(() -> {
            if (version.get() == mine) {
                check(mine, bench.state());
            }
        });
    }

    /** What the keys play: recipes made before gains were kept have the gain that was found when they came on the bench. */
    private Patch played(WorkspaceState at) {
        Patch patch = at.snapshot().patch();
        boolean found =
                patch.first().common().playingGainDb() == null && at.current().equals(gainOf);
        return found ? PlayingLevel.with(patch, gainDb) : patch;
    }

    /** Renders what is to be heard in place of the recipe, which is neither compared nor advised about. */
    void hear(WorkspaceState at, Patch heard) {
        long mine = version.get();
        follower.execute(() -> {
            if (version.get() == mine) {
                Comparison last = at.comparison();
                if (at.recording() == null) {
                    bench.desk().load(null, ByItself.sound(heard), 0);
                    return;
                }
                Clip clip = ImitationRenderer.render(heard, at.recording());
                bench.desk().load(at.recording().clip(), clip, last == null ? 0 : last.gainDb());
            }
        });
    }

    private void compare(long mine, WorkspaceState at) {
        try {
            Patch patch = bench.judged(at.snapshot().patch());
            if (!ImitationRenderer.isPlain(
                    at.recording(), patch)) { // measuring takes a while, and it is wanted in the ears at once
                Comparison last = at.comparison();
                Clip heard = ImitationRenderer.render(patch, at.recording());
                bench.desk().load(at.recording().clip(), heard, last == null ? 0 : last.gainDb());
            }
            AnalysedSound imitation = ImitationRenderer.imitation(at.recording(), patch);
            Comparison comparison = PerceptualComparator.compare(at.recording(), imitation);
            bench.desk().load(at.recording().clip(), imitation.clip(), comparison.gainDb());
            onlyIf(mine, () -> bench.show(bench.state().withSound(imitation, comparison)));
            follower.execute(() -> advise(mine, at, comparison));
        } catch (UnusableSound e) {
            bench.say("The imitation can be heard, but not compared: " + e.getMessage());
            onlyIf(mine, () -> bench.show(bench.state().withSound(null, null).withAdvice(List.of(), Map.of())));
        }
    }

    private void advise(long mine, WorkspaceState at, Comparison comparison) {
        if (version.get() != mine) {
            return;
        }
        check(mine, at);
        Progress unlessOvertaken = (fraction, doing) -> {
            if (version.get() != mine) {
                throw new CancellationException();
            }
        };
        Patch patch = bench.judged(at.snapshot().shaped());
        try {
            if (ImitationRenderer.isPlain(at.recording(), patch)) {
                List<Move> moves =
                        NextMoves.of(at.recording(), patch, at.snapshot().locked(), comparison, unlessOvertaken);
                onlyIf(
                        mine,
                        () -> bench.show(
                                bench.state().withAdvice(moves, bench.state().tolerances())));
                unlessOvertaken.report(0, "");
                Map<String, Tolerances.Span> spans = Tolerances.of(at.recording(), patch, unlessOvertaken);
                onlyIf(mine, () -> bench.show(bench.state().withAdvice(moves, spans)));
            } else { // both from the same renders
                Sensitivity s =
                        Sensitivity.of(at.recording(), patch, at.snapshot().locked(), unlessOvertaken);
                List<Move> moves = s.moves(comparison, unlessOvertaken);
                onlyIf(
                        mine,
                        () -> bench.show(
                                bench.state().withAdvice(moves, bench.state().tolerances())));
                Map<String, Tolerances.Span> spans = s.spans();
                onlyIf(mine, () -> bench.show(bench.state().withAdvice(moves, spans)));
            }
        } catch (CancellationException overtaken) {
            LOG.debug("advice overtaken by a newer value");
        }
    }

    private void check(long mine, WorkspaceState at) {
        List<PatchCheck.Finding> found =
                SoundCheck.of(at.snapshot().patch(), at.snapshot().chosen());
        onlyIf(mine, () -> bench.show(bench.state().withFindings(found)));
    }

    private void onlyIf(long mine, Runnable change) {
        ui.execute(() -> {
            if (version.get() == mine) {
                change.run();
            }
        });
    }
}
