package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import nightreed.play.Performance;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.Clip;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "render",
        description = "Plays one note, or a MIDI file, of a recipe or of several in layers into a WAV file.")
final class RenderCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "RECIPE.json", description = "Recipe as 'match' and 'start' write it.")
    Path recipe;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key (57 or A3); the recipe's own by default.")
    Integer key;

    @Option(names = "--velocity", description = "Strength of the strike, 0 to 1; the recipe's own by default.")
    Double velocity;

    @Option(names = "--seconds", paramLabel = "S", description = "Length, up to 120 s; 3 by default.")
    double seconds = 3;

    @Option(
            names = "--midi",
            paramLabel = "FILE.mid",
            description =
                    "Plays a Standard MIDI File in place of one note; --seconds is then how long its end may ring.")
    Path midi;

    @Mixin
    FileLevel level;

    @Option(names = "--out", paramLabel = "OUT.wav", required = true, description = "WAV file to write.")
    Path out;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableRecipe, IOException {
        if (velocity != null && !(velocity >= 0 && velocity <= 1)) {
            throw new ParameterException(spec.commandLine(), "--velocity must lie in 0 to 1, got " + velocity);
        }
        if (!(seconds > 0 && seconds <= 120)) {
            throw new ParameterException(
                    spec.commandLine(), "--seconds must lie above 0 and up to 120, got " + seconds);
        }
        results.check(out, midi == null ? List.of(recipe) : List.of(recipe, midi));
        Patch patch = RecipeFiles.read(recipe);
        PrintWriter err = spec.commandLine().getErr();
        if (midi != null) {
            level.write(Performance.read(midi).render(PlayingLevel.with(patch, 0), 48_000, seconds), patch, out, err);
            return 0;
        }
        Recipe first = patch.layers().get(0).recipe();
        double strength = velocity != null ? velocity : first.velocity().reference();
        Clip clip = Renderer.played(patch, key == null ? first.key() : key, strength, seconds, seconds, 48_000);
        boolean oneSide = Arrays.equals(clip.channel(0), clip.channel(1));
        level.write(oneSide ? Clip.mono(clip.channel(0), 48_000) : clip, patch, out, err);
        return 0;
    }
}
