package nightreed.desktop.workspace;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import nightreed.files.Shown;
import nightreed.project.Snapshot;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;
import nightreed.typical.StartingPoint;
import nightreed.voice.PlayingLevel;

/** How recipes come here that no recording was fitted for. Called on the UI thread. */
public final class RecipeIntake {
    /** Larger files are no recipes: the longest feed with everything else is under it [bytes]. */
    private static final long MOST_BYTES = 20_000_000;

    private final Workspace bench;

    RecipeIntake(Workspace bench) {
        this.bench = bench;
    }

    /** A first recipe of a method, as an imitation of its own, or in the one on the bench while that is empty. */
    public void ofMethod(String method) {
        bench.beside(
                () -> PlayingLevel.kept(Patch.of(FirstRecipe.of(method))),
                patch -> bench.begin(MethodNames.of(method) + " by hand", "new, " + method, with(patch)),
                () -> {});
    }

    /** A starting point that ships with the program, heard at once; what to know of it is its note. */
    public void startingPoint(StartingPoint p) {
        bench.beside(
                () -> ByItself.sound(p.patch()),
                sound -> {
                    bench.begin(
                            p.title(),
                            "begin with " + p.title(),
                            with(p.patch()).withNote(p.note()));
                    bench.desk().audition(sound);
                },
                () -> {});
    }

    /** A recipe or a patch from a file; what is wrong with it is told. */
    public void file(Path file) {
        String name = Shown.of(String.valueOf(file.getFileName()));
        bench.beside(
                () -> read(file, name),
                patch -> {
                    if (patch != null) {
                        String own = name.replaceFirst("(?i)(-recipe)?\\.json$", "");
                        bench.begin(own.isBlank() ? "Recipe" : own, "open " + name, with(patch));
                    }
                },
                () -> {});
    }

    /** Null if it is none, which is told. */
    private Patch read(Path file, String name) throws IOException {
        if (!Files.isRegularFile(file)) {
            bench.say(name + " is not a file that can be read.");
            return null;
        }
        if (Files.size(file) > MOST_BYTES) {
            bench.say(name + " is larger than 20 MB, which no recipe is.");
            return null;
        }
        try {
            return RecipeJson.parsePatch(new String(Files.readAllBytes(file), StandardCharsets.UTF_8), name);
        } catch (UnusableRecipe e) {
            bench.say(e.getMessage());
            return null;
        }
    }

    private static Snapshot with(Patch patch) {
        return Snapshot.EMPTY.with(b -> b.patch(patch).origin(patch));
    }

    /** Whether a dropped or chosen file is to be read as a recipe. */
    public static boolean takes(Path file) {
        return String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT).endsWith(".json");
    }
}
