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

    /** @param tell given what happened to the sound on its way, if anything */
    static List<Path> write(WorkspaceState s, Path folder, Progress progress, Consumer<String> tell)
            throws IOException, UnusableSound {
        String stem = stem(s, folder);
        Path sheet = folder.resolve(stem + "-sheet.html");
        Path sound = folder.resolve(stem + ".wav");
        Path recipe = folder.resolve(stem + "-recipe.json");
        Path partials = folder.resolve(stem + "-partials.csv");
        Patch patch = s.snapshot().patch();
        progress.report(0.1, "computing how far each value may move");
        // only where a moved value can be judged without listening is it known how far it may move
        var tolerances = s.tolerances().isEmpty()
                ? Tolerances.of(s.recording(), patch, progress.part(0.1, 0.6))
                : s.tolerances();
        var comparison = PerceptualComparator.compare(s.recording(), ImitationRenderer.imitation(s.recording(), patch));
        progress.report(0.6, "writing");
        OutputFile.write(
                sheet,
                PatchSheet.html(
                        s.projectName(),
                        s.current().name(),
                        s.recording().measurement(),
                        patch,
                        s.snapshot().fitted(),
                        tolerances,
                        comparison,
                        s.snapshot().note()));
        double gain = Math.pow(10, PlayingLevel.gainDb(patch) / 20);
        Clip played = ImitationRenderer.render(patch, s.recording()).scaled(gain);
        PlayingLevel.Safe safe = PlayingLevel.safe(played);
        if (!safe.words().isEmpty()) {
            tell.accept(sound.getFileName() + ": " + safe.words());
        }
        WavFiles.write(safe.clip(), WavFiles.Format.PCM24, sound);
        OutputFile.write(recipe, patch.layers().size() == 1 ? RecipeJson.text(s.recipe()) : RecipeJson.text(patch));
        OutputFile.write(partials, PartialCsv.text(s.recording().measurement()));
        return List.of(sheet, sound, recipe, partials);
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
