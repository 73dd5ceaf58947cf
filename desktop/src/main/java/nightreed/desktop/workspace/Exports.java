package nightreed.desktop.workspace;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import nightreed.files.OutputFile;
import nightreed.files.Written;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.sheet.PartialCsv;
import nightreed.sheet.PatchSheet;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.voice.PlayingLevel;
import nightreed.work.Progress;

/** The files that are taken away from the Keep stage. */
final class Exports {
    private Exports() {}

    /**
     * @param judged what is compared and told on the sheet, with or without effects; sound and recipe have them
     * @param tell   given what happened to the sound on its way, if anything
     */
    static List<Path> write(WorkspaceState s, Patch judged, Path folder, Progress progress, Consumer<String> tell)
            throws IOException, UnusableSound {
        String stem = stem(s, folder);
        Path sheet = folder.resolve(stem + "-sheet.html");
        Path sound = folder.resolve(stem + ".wav");
        Path recipe = folder.resolve(stem + "-recipe.json");
        Path partials = folder.resolve(stem + "-partials.csv");
        Patch patch = s.snapshot().patch();
        boolean recorded = s.recording() != null;
        progress.report(0.1, "computing how far each value may move");
        // only where a moved value can be judged without listening is it known how far it may move
        var tolerances = !recorded || !s.tolerances().isEmpty()
                ? s.tolerances()
                : Tolerances.of(s.recording(), s.snapshot().shaped(), progress.part(0.1, 0.6));
        var comparison = recorded
                ? PerceptualComparator.compare(s.recording(), ImitationRenderer.imitation(s.recording(), judged))
                : null;
        progress.report(0.6, "writing");
        OutputFile.write(
                sheet,
                PatchSheet.html(
                        s.projectName(),
                        s.current().name(),
                        recorded ? s.recording().measurement() : null,
                        judged,
                        s.snapshot().fitted(),
                        tolerances,
                        comparison,
                        s.snapshot().note()));
        WavFiles.write(sound(s, patch, sound, tell), WavFiles.Format.PCM24, sound);
        OutputFile.write(recipe, patch.isOne() ? RecipeJson.text(s.recipe()) : RecipeJson.text(patch));
        if (!recorded) {
            return List.of(sheet, sound, recipe);
        }
        OutputFile.write(partials, PartialCsv.text(s.recording().measurement()));
        return List.of(sheet, sound, recipe, partials);
    }

    /** As the recording is laid out, or as the recipe sounds by itself; both sides where they differ. */
    private static Clip sound(WorkspaceState s, Patch patch, Path file, Consumer<String> tell) {
        Clip clip;
        if (s.recording() == null) {
            clip = ByItself.sound(patch);
        } else {
            double gain = Math.pow(10, PlayingLevel.gainDb(patch) / 20);
            PlayingLevel.Safe safe = PlayingLevel.safe(
                    ImitationRenderer.render(patch, s.recording()).scaled(gain));
            if (!safe.words().isEmpty()) {
                tell.accept(file.getFileName() + ": " + safe.words());
            }
            clip = safe.clip();
        }
        return clip.isSided() ? clip : clip.summed();
    }

    /** Name that the files begin with: one of its own for each imitation, and none that would replace the work of another program. */
    private static String stem(WorkspaceState s, Path folder) throws IOException {
        String own = inFileName(s.current().name());
        long before = s.imitations().stream()
                .takeWhile(i -> !i.equals(s.current()))
                .filter(i -> inFileName(i.name()).equalsIgnoreCase(own))
                .count();
        String stem = before == 0 ? own : own + "-" + (before + 1);
        String free = stem;
        for (int n = 2; isTaken(folder, free); n++) {
            free = stem + "-" + n;
        }
        return free;
    }

    private static boolean isTaken(Path folder, String stem) throws IOException {
        for (String ending : List.of("-sheet.html", ".wav", "-recipe.json", "-partials.csv")) {
            if (Written.byAnother(folder.resolve(stem + ending))) {
                return true;
            }
        }
        return false;
    }

    /** Letters of any script stay; what separates folders, controls a terminal or is reserved somewhere goes. */
    static String inFileName(String name) {
        String plain = name.toLowerCase(Locale.ROOT)
                .replaceAll("[\\p{Cntrl}\\p{Cf}\\s/\\\\:*?\"<>|,;]+", "-")
                .replaceAll("^[-.]+|[-.]+$", "");
        String shortened =
                plain.substring(0, plain.offsetByCodePoints(0, Math.min(60, plain.codePointCount(0, plain.length()))));
        return shortened.isEmpty() ? "imitation" : shortened;
    }
}
