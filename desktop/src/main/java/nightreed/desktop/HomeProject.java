package nightreed.desktop;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import nightreed.project.ProjectFile;
import nightreed.project.UnusableProject;

/** The project that is opened when none is named: the last one in the user's folder, or a first one. */
final class HomeProject {
    private HomeProject() {}

    static ProjectFile open() throws UnusableProject {
        Path folder = Path.of(System.getProperty("user.home"), "Night Reed");
        try {
            Files.createDirectories(folder);
            return openIn(folder);
        } catch (IOException | UnusableProject e) {
            // a home that cannot be written must not keep anyone from working
            try {
                return ProjectFile.create(
                        Files.createTempDirectory("night-reed").resolve("My imitations" + ProjectFile.ENDING),
                        "My imitations (kept until this machine is switched off)");
            } catch (IOException none) {
                throw new UnusableProject(
                        "Neither " + folder + " nor the folder for temporary files can be written: free some space or"
                                + " change the permissions.",
                        none);
            }
        }
    }

    private static ProjectFile openIn(Path folder) throws UnusableProject {
        Path file = folder.resolve("My imitations" + ProjectFile.ENDING);
        return Files.exists(file) ? ProjectFile.open(file) : ProjectFile.create(file, "My imitations");
    }
}
