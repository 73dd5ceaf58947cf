package nightreed.cli;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;

/** Reads recipes that are named on the command line. */
final class RecipeFiles {
    private RecipeFiles() {}

    /** A recipe or several in layers. */
    static Patch read(Path file) throws UnusableRecipe {
        try {
            return RecipeJson.parsePatch(Files.readString(file), String.valueOf(file.getFileName()));
        } catch (NoSuchFileException e) {
            throw new UnusableRecipe("There is no file " + file + ": check the name and the folder.", e);
        } catch (IOException e) {
            throw new UnusableRecipe(file + " could not be read as text: choose a recipe.json.", e);
        }
    }
}
