package nightreed.desktop.workspace;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nightreed.match.Matcher;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/**
 * The Salt Lantern: a radio serial whose instruments drowned with the cargo. Two slate bars and the buoy bell from
 * the recording room, measured and fitted, one bar then bent by hand, so that there is something to hear and to mend.
 */
public final class DemoProject {
    private static final String BAR_NOTE = "For the harbour scene. Yarn mallet, dry room; the hall comes later.";
    private static final String BELL_NOTE = "Far out, under the fog. It may ring on into the next scene.";

    private DemoProject() {}

    /** Where the build leaves the demo project, beside the program; null if it runs from elsewhere. */
    public static Path built() {
        try {
            Path jar = Path.of(DemoProject.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            return jar.resolveSibling("demo" + ProjectFile.ENDING);
        } catch (java.net.URISyntaxException | RuntimeException e) {
            return null;
        }
    }

    /** Copies the demo to a new folder, so that nobody can spoil it; builds it first where it has not been built. */
    public static ProjectFile open(Path built, Progress progress) throws UnusableProject, UnusableSound, IOException {
        Path copy = Files.createTempDirectory("night-reed-demo").resolve("The Salt Lantern" + ProjectFile.ENDING);
        if (built != null && Files.isRegularFile(built)) {
            Files.copy(built, copy);
        } else {
            build(copy, progress).close();
        }
        return ProjectFile.open(copy);
    }

    public static ProjectFile build(Path path, Progress progress) throws UnusableProject, UnusableSound {
        ProjectFile p = ProjectFile.create(path, "The Salt Lantern");
        RecordingRoom.Instrument bars = RecordingRoom.instrument("slate-bars");
        add(p, bars, "Slate bar, low, hard", 57, 0.9, BAR_NOTE, progress.part(0, 0.3), true);
        add(p, bars, "Slate bar, high, soft", 72, 0.4, BAR_NOTE, progress.part(0.3, 0.6), false);
        RecordingRoom.Instrument bell = RecordingRoom.instrument("buoy-bell");
        add(p, bell, "Ostrel buoy bell", 62, 0.7, BELL_NOTE, progress.part(0.6, 0.9), false);
        started(p, "ferry-horn", "Night ferry's horn", 53, 0.8, "subtractive", "Scene 9: leaves without them.");
        started(p, "long-bow", "Long bow", 57, 0.6, "string", "Under the captain's letter, scene 4.");
        started(p, "eel-lute", "Eel lute", 50, 0.7, "string", "The tavern, scene 3.");
        started(p, "ratchet-kit", "Ratchet kit, iron", 72, 0.7, "formant", "Chains and winches.");
        return p;
    }

    /** An imitation by another method, as the measurement gives it. */
    private static void started(
            ProjectFile p, String instrument, String name, int key, double velocity, String method, String note)
            throws UnusableProject, UnusableSound {
        Clip clip = RecordingRoom.record(RecordingRoom.instrument(instrument), key, velocity, 3);
        AnalysedSound side = ImitationRenderer.side(clip, Progress.NONE);
        Imitation i = p.addImitation(name);
        long recording = p.addRecording("recording room: " + name, clip, side.measurement());
        Snapshot s = new Snapshot(recording, null, null, "");
        p.commit(i, "recording", s);
        Recipe start = Starts.of(method, side).recipe();
        p.commit(i, "start " + method, new Snapshot(recording, start, start, note));
        Comparison heard = PerceptualComparator.compare(side, ImitationRenderer.imitation(side, start));
        p.addTake(i, "starting values", "as measured", heard, start);
    }

    private static void add(
            ProjectFile p,
            RecordingRoom.Instrument instrument,
            String name,
            int key,
            double velocity,
            String note,
            Progress progress,
            boolean bend)
            throws UnusableProject, UnusableSound {
        Clip clip = RecordingRoom.record(instrument, key, velocity, 3);
        AnalysedSound side = ImitationRenderer.side(clip, progress.part(0, 0.3));
        Imitation i = p.addImitation(name);
        long recording = p.addRecording("recording room: " + name, clip, side.measurement());
        Snapshot s = new Snapshot(recording, null, null, "");
        p.commit(i, "recording", s);
        ResonatorRecipe start = Matcher.startingValues(side);
        p.addTake(i, "starting values", "as measured", ImitationRenderer.predict(side, start), start);
        ResonatorRecipe fitted = (ResonatorRecipe) Fits.of("resonators", side, FitOptions.USUAL, progress.part(0.3, 1))
                .recipe();
        s = new Snapshot(recording, fitted, fitted, note);
        p.commit(i, "fit resonators", s);
        p.addTake(i, "fit, " + fitted.modes().size() + " modes", "", ImitationRenderer.predict(side, fitted), fitted);
        if (bend) {
            ResonatorRecipe bent = fitted;
            bent = commit(p, i, s, bent.with("mode.2.t60", 1.8 * bent.value("mode.2.t60")), "mode 2 T60 longer");
            bent = commit(p, i, s, bent.with("mode.3.level", bent.value("mode.3.level") - 5), "mode 3 level lower");
            bent = commit(p, i, s, bent.with("noise.level", bent.value("noise.level") + 7), "noise level up");
            p.addTake(
                    i,
                    "by hand",
                    "rings on like glass; the strike is too stony",
                    ImitationRenderer.predict(side, bent),
                    bent);
        }
    }

    private static ResonatorRecipe commit(ProjectFile p, Imitation i, Snapshot s, ResonatorRecipe recipe, String label)
            throws UnusableProject {
        p.commit(i, label, s.withRecipe(recipe));
        return recipe;
    }
}
