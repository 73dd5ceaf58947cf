package nightreed.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import nightreed.voice.Renderer;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "render", description = "Plays one note of a recipe into a WAV file.")
final class RenderCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "RECIPE.json", description = "Recipe as 'match' writes it.")
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

    @Option(names = "--out", paramLabel = "OUT.wav", required = true, description = "WAV file to write.")
    Path out;

    @Override
    public Integer call() throws UnusableRecipe, IOException {
        if (velocity != null && !(velocity >= 0 && velocity <= 1)) {
            throw new ParameterException(spec.commandLine(), "--velocity must lie in 0 to 1, got " + velocity);
        }
        if (!(seconds > 0 && seconds <= 120)) {
            throw new ParameterException(
                    spec.commandLine(), "--seconds must lie above 0 and up to 120, got " + seconds);
        }
        Recipe r = read(recipe);
        double strength = velocity != null
                ? velocity
                : r instanceof ResonatorRecipe m ? m.velocity().reference() : 0.7;
        Clip clip = Renderer.note(r, key == null ? r.key() : key, strength, 0, seconds, 48_000);
        WavFiles.write(clip, WavFiles.Format.PCM24, out);
        return 0;
    }

    private static Recipe read(Path file) throws UnusableRecipe {
        try {
            return RecipeJson.parse(Files.readString(file), String.valueOf(file.getFileName()));
        } catch (NoSuchFileException e) {
            throw new UnusableRecipe("There is no file " + file + ": check the name and the folder.", e);
        } catch (IOException e) {
            throw new UnusableRecipe(file + " could not be read as text: choose a recipe.json.", e);
        }
    }
}
