package nightreed.desktop.workspace;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import nightreed.match.Matcher;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.fit.FitOptions;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.project.UnusableProject;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;

/**
 * The Salt Lantern: a radio serial whose instruments drowned with the cargo. Two slate bars and the buoy bell from
 * the recording room, measured and fitted, one bar then bent by hand, so that there is something to hear and to mend; beside them
 * other methods as measured, and patches put together by hand.
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

    /** A note of the recording room, measured. */
    private record Heard(String name, RecordingRoom.Instrument instrument, int key, double velocity) {
        AnalysedSound sound() throws UnusableSound {
            Clip clip = RecordingRoom.record(instrument, key, velocity, 3);
            return ImitationRenderer.side(clip, Progress.NONE);
        }
    }

    /** An imitation of it, fitted or as the measurement gives it. */
    private record Made(Heard heard, AnalysedSound sound, Recipe start, Found fitted) {}

    public static ProjectFile build(Path path, Progress progress) throws UnusableProject, UnusableSound {
        List<Made> all = made(progress);
        ProjectFile p = ProjectFile.create(path, "The Salt Lantern");
        fitted(p, all.get(0), BAR_NOTE, true);
        fitted(p, all.get(1), BAR_NOTE, false);
        long bell = fitted(p, all.get(2), BELL_NOTE, false);
        started(p, all.get(3), "Scene 9: leaves without them.");
        started(p, all.get(4), "Under the captain's letter, scene 4.");
        Snapshot lute = started(p, all.get(5), "The tavern, scene 3.");
        started(p, all.get(6), "Chains and winches.");
        byHand(p, "Lute with its ghost", DemoPatches.luteWithGhost(lute), "Wheel up: the drowned one plays along.");
        Clip drowned = p.recording(bell).clip();
        byHand(p, "Hull in the fog", DemoPatches.hullFedBy(drowned), "Combs, driven by the buoy bell's recording.");
        byHand(p, "Chapel organ, two manuals", DemoPatches.organ(), "Under C4 an octave up. Gated in eighths.");
        byHand(p, "Lantern glass", DemoPatches.glass(), "No recording: nobody has heard it yet.");
        return p;
    }

    /** Fits take their time: they are made side by side. */
    private static List<Made> made(Progress progress) throws UnusableSound {
        List<CompletableFuture<Made>> all = new ArrayList<>();
        all.add(begin(
                new Heard("Slate bar, low, hard", RecordingRoom.instrument("slate-bars"), 57, 0.9), "resonators"));
        all.add(begin(
                new Heard("Slate bar, high, soft", RecordingRoom.instrument("slate-bars"), 72, 0.4), "resonators"));
        all.add(begin(new Heard("Ostrel buoy bell", RecordingRoom.instrument("buoy-bell"), 62, 0.7), "resonators"));
        all.add(begin(new Heard("Night ferry's horn", RecordingRoom.instrument("ferry-horn"), 53, 0.8), "subtractive"));
        all.add(begin(new Heard("Long bow", RecordingRoom.instrument("long-bow"), 57, 0.6), "string"));
        all.add(begin(new Heard("Eel lute", RecordingRoom.instrument("eel-lute"), 50, 0.7), "string"));
        all.add(begin(new Heard("Ratchet kit, iron", RecordingRoom.instrument("ratchet-kit"), 72, 0.7), "formant"));
        List<Made> out = new ArrayList<>();
        for (CompletableFuture<Made> m : all) {
            try {
                out.add(m.join());
            } catch (CompletionException e) {
                if (e.getCause() instanceof UnusableSound unusable) {
                    throw unusable;
                }
                throw e;
            }
            progress.report((double) out.size() / all.size(), "making the demo");
        }
        return out;
    }

    private static CompletableFuture<Made> begin(Heard heard, String method) {
        return CompletableFuture.supplyAsync(() -> {
            try {
                AnalysedSound side = heard.sound();
                Recipe start = method.equals("resonators")
                        ? Matcher.startingValues(side)
                        : Starts.of(method, side).recipe();
                Found fitted =
                        method.equals("resonators") ? Patches.of(method, side, FitOptions.USUAL, Progress.NONE) : null;
                return new Made(heard, side, start, fitted);
            } catch (UnusableSound e) {
                throw new CompletionException(e);
            }
        });
    }

    /** A patch that no recording was fitted for. */
    private static void byHand(ProjectFile p, String name, Patch patch, String note) throws UnusableProject {
        Patch kept = PlayingLevel.kept(patch);
        Imitation i = p.addImitation(name);
        Snapshot s = Snapshot.EMPTY.with(b -> b.patch(kept).origin(kept).note(note));
        p.commit(i, "by hand", s);
        p.addTake(i, "take 1", "as it is", null, kept);
    }

    /** An imitation by another method, as the measurement gives it. */
    private static Snapshot started(ProjectFile p, Made m, String note) throws UnusableProject, UnusableSound {
        Imitation i = p.addImitation(m.heard.name);
        long recording = recorded(p, i, m);
        Snapshot s = new Snapshot(recording, m.start, m.start, note);
        p.commit(i, "start " + m.start.method(), s);
        Comparison heard = PerceptualComparator.compare(m.sound, ImitationRenderer.imitation(m.sound, m.start));
        p.addTake(i, "starting values", "as measured", heard, m.start);
        return s;
    }

    private static long recorded(ProjectFile p, Imitation i, Made m) throws UnusableProject {
        long recording = p.addRecording("recording room: " + m.heard.name, m.sound.clip(), m.sound.measurement());
        p.commit(i, "recording", new Snapshot(recording, null, null, ""));
        return recording;
    }

    /** @return row of its recording */
    private static long fitted(ProjectFile p, Made m, String note, boolean bend) throws UnusableProject {
        Imitation i = p.addImitation(m.heard.name);
        long recording = recorded(p, i, m);
        ResonatorRecipe start = (ResonatorRecipe) m.start;
        ResonatorRecipe fitted = (ResonatorRecipe) m.fitted.frontier().nearest().recipe();
        p.keepFrontier(i, recording, m.fitted.frontier());
        p.addTake(i, "starting values", "as measured", ImitationRenderer.predict(m.sound, start), start);
        Snapshot s = new Snapshot(recording, fitted, fitted, note);
        p.commit(i, "fit resonators", s);
        p.addTake(
                i, "fit, " + fitted.modes().size() + " modes", "", ImitationRenderer.predict(m.sound, fitted), fitted);
        if (bend) {
            ResonatorRecipe bent = fitted;
            bent = commit(p, i, s, bent.with("mode.2.t60", 1.8 * bent.value("mode.2.t60")), "mode 2 T60 longer");
            bent = commit(p, i, s, bent.with("mode.3.level", bent.value("mode.3.level") - 5), "mode 3 level lower");
            bent = commit(p, i, s, bent.with("noise.level", bent.value("noise.level") + 7), "noise level up");
            p.addTake(
                    i,
                    "by hand",
                    "rings on like glass; the strike is too stony",
                    ImitationRenderer.predict(m.sound, bent),
                    bent);
        }
        return recording;
    }

    private static ResonatorRecipe commit(ProjectFile p, Imitation i, Snapshot s, ResonatorRecipe recipe, String label)
            throws UnusableProject {
        p.commit(i, label, s.withRecipe(recipe));
        return recipe;
    }
}
