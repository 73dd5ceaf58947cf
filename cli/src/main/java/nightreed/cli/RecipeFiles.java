package nightreed.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;

/** Reads recipes that are named on the command line. */
final class RecipeFiles {
    private RecipeFiles() {}

    /** A recipe or several in layers. */
    static Patch read(Path file) throws UnusableRecipe {
        return RecipeJson.parsePatch(text(file, "a recipe.json"), String.valueOf(file.getFileName()));
    }

    /** The limits of a machine. */
    static Machine machine(Path file) throws UnusableRecipe {
        return MachineJson.parse(text(file, "the description of a machine"), String.valueOf(file.getFileName()));
    }

    private static String text(Path file, String wanted) throws UnusableRecipe {
        try {
            return Files.readString(file);
        } catch (NoSuchFileException e) {
            throw new UnusableRecipe("There is no file " + file + ": check the name and the folder.", e);
        } catch (IOException e) {
            throw new UnusableRecipe(file + " could not be read as text: choose " + wanted + ".", e);
        }
    }
}
