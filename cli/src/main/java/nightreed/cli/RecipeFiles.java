package nightreed.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import nightreed.files.Shown;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.StrictJson;
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
        if (Files.isDirectory(file)) {
            throw new UnusableRecipe(Shown.of(file) + " is a folder: choose " + wanted + ".");
        }
        try (InputStream in = Files.newInputStream(file)) { // a pipe too, and a device only so far
            byte[] bytes = in.readNBytes(StrictJson.MOST_CHARACTERS + 1);
            if (bytes.length > StrictJson.MOST_CHARACTERS) {
                throw new UnusableRecipe(Shown.of(file) + " is larger than " + StrictJson.MOST_CHARACTERS / 1_000_000
                        + " MB: choose " + wanted + ".");
            }
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
        } catch (NoSuchFileException e) {
            throw new UnusableRecipe("There is no file " + Shown.of(file) + ": check the name and the folder.", e);
        } catch (AccessDeniedException e) {
            throw new UnusableRecipe(
                    Shown.of(file) + " may not be read: change its permissions or copy it elsewhere.", e);
        } catch (IOException e) {
            throw new UnusableRecipe(Shown.of(file) + " could not be read as text: choose " + wanted + ".", e);
        }
    }
}
