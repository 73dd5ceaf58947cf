package nightreed.desktop;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import nightreed.desktop.settings.Places;
import nightreed.desktop.workspace.DemoProject;
import nightreed.project.ProjectFile;
import nightreed.project.UnusableProject;
import nightreed.work.Progress;

/** Which project a window starts with: the one that was named, the last one, or a first one; never none. */
final class Projects {
    private Projects() {}

    /** A project, and what its user should know about how it was opened (null if nothing). */
    record Opened(ProjectFile project, String message) {}

    /**
     * @param what   path of a project, "--demo", or empty for whatever there is
     * @param recent projects opened before, the latest first
     */
    static Opened open(String what, List<String> recent) throws UnusableProject {
        if (what.equals("--demo")) {
            try {
                return new Opened(DemoProject.open(DemoProject.built(), Progress.NONE), null);
            } catch (Exception e) {
                return ownInstead("The demo could not be opened: " + e.getMessage());
            }
        }
        if (!what.isEmpty()) {
            return named(Path.of(what));
        }
        for (String r : recent) {
            Path file = Path.of(r);
            if (Files.isRegularFile(file)) {
                return named(file);
            }
        }
        return own(null);
    }

    private static Opened named(Path file) throws UnusableProject {
        try {
            return new Opened(ProjectFile.open(file), null);
        } catch (UnusableProject e) {
            if (Files.isRegularFile(file) && Files.isReadable(file) && mayNotBeWritten(file)) {
                return copyOf(file);
            }
            return ownInstead(e.getMessage());
        }
    }

    /** The file, or the folder: edits are written beside it. */
    private static boolean mayNotBeWritten(Path file) {
        return !Files.isWritable(file)
                || !Files.isWritable(file.toAbsolutePath().getParent());
    }

    /** A project that may not be written is worked on as a copy. */
    private static Opened copyOf(Path file) throws UnusableProject {
        String stem = String.valueOf(file.getFileName()).replaceFirst("\\" + ProjectFile.ENDING + "$", "");
        Path copy = unused(Places.projects(), stem + " (copy)");
        try {
            Files.createDirectories(copy.getParent());
            Files.copy(file, copy);
            copy.toFile().setWritable(true);
            return new Opened(
                    ProjectFile.open(copy),
                    file + " may not be written: you are working on a copy of it, " + copy + ".");
        } catch (IOException | UnusableProject e) {
            return ownInstead(file + " may not be written, and could not be copied to " + copy.getParent() + ".");
        }
    }

    /** A bench that works, beside the word about what did not. */
    private static Opened ownInstead(String why) throws UnusableProject {
        return own(why);
    }

    private static Opened own(String why) throws UnusableProject {
        Path folder = Places.projects();
        try {
            Files.createDirectories(folder);
            Path file = folder.resolve("My imitations" + ProjectFile.ENDING);
            ProjectFile p = Files.exists(file) ? ProjectFile.open(file) : ProjectFile.create(file, "My imitations");
            return new Opened(p, why);
        } catch (IOException | UnusableProject e) {
            return another(folder, why == null ? e.getMessage() : why);
        }
    }

    /** Beside the usual one, if that is taken or damaged; where nothing can be written, in the folder for temporary files. */
    private static Opened another(Path folder, String why) throws UnusableProject {
        try {
            return new Opened(ProjectFile.create(unused(folder, "More imitations"), "More imitations"), why);
        } catch (UnusableProject notThere) {
            try {
                Path temporary = Files.createTempDirectory("night-reed").resolve("Imitations" + ProjectFile.ENDING);
                return new Opened(
                        ProjectFile.create(temporary, "Imitations, not kept"),
                        why
                                + " What you do now is only kept until this machine is switched off: save a copy elsewhere.");
            } catch (IOException none) {
                throw new UnusableProject(
                        "Neither " + folder + " nor the folder for temporary files can be written: free some space or"
                                + " change the permissions.",
                        none);
            }
        }
    }

    private static Path unused(Path folder, String stem) {
        Path p = folder.resolve(stem + ProjectFile.ENDING);
        for (int i = 2; Files.exists(p); i++) {
            p = folder.resolve(stem + " " + i + ProjectFile.ENDING);
        }
        return p;
    }
}
