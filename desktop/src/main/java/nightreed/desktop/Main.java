package nightreed.desktop;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.logging.Level;
import java.util.logging.Logger;
import javafx.application.Application;
import nightreed.cli.NightReedCommand;
import nightreed.desktop.settings.Places;
import nightreed.desktop.settings.PreferenceStore;
import picocli.CommandLine;

/** What the launcher starts: commands go to the command line, everything else opens the window. */
public final class Main {
    /** Held, as loggers that nobody holds forget what they were told. */
    private static final Logger TOOLKIT = Logger.getLogger("javafx");

    private Main() {}

    public static void main(String[] args) {
        log();
        boolean project = args.length == 1 && !args[0].startsWith("-") && isProject(args[0]);
        if (args.length == 0 || project || args[0].equals("demo") || args[0].equals("shots")) {
            scale(args);
        }
        if (args.length == 0 || project) {
            System.exit(window(args));
        }
        CommandLine line = NightReedCommand.commandLine();
        line.addSubcommand(new DemoCommand());
        line.addSubcommand(new ShotsCommand());
        line.addSubcommand(new WarmUpCommand());
        System.exit(NightReedCommand.run(NightReedCommand.prepared(line), args));
    }

    /** Opens the window and stays until it is closed. @return exit code */
    static int window(String... args) {
        try {
            Application.launch(Window.class, args);
            return 0;
        } catch (UnsupportedOperationException | UnsatisfiedLinkError e) {
            System.err.println("The window cannot be opened: "
                    + (e instanceof UnsatisfiedLinkError
                            ? "a library of the system is missing (" + e.getMessage()
                                    + "). On Debian or Ubuntu: sudo apt-get install libgtk-3-0"
                            : "the display " + System.getenv("DISPLAY")
                                    + " does not answer. Check DISPLAY, or unset it to run on a virtual one."));
            return 1;
        }
    }

    private static boolean isProject(String arg) {
        return arg.endsWith(nightreed.project.ProjectFile.ENDING)
                || Path.of(arg).toFile().isFile();
    }

    /** What goes wrong inside goes to a file; people get messages in the window. A log that has grown large starts anew. */
    private static void log() {
        Path file = Places.log();
        try {
            Files.createDirectories(file.getParent());
            if (Files.exists(file) && Files.size(file) > 2_000_000) {
                Files.move(file, file.resolveSibling(file.getFileName() + ".old"), StandardCopyOption.REPLACE_EXISTING);
            }
            System.setProperty("org.slf4j.simpleLogger.logFile", file.toString());
        } catch (IOException e) {
            System.setProperty(
                    "org.slf4j.simpleLogger.defaultLogLevel", "off"); // no place for a log is no reason to stop
        }
        System.setProperty("org.slf4j.simpleLogger.showDateTime", "true");
        System.setProperty("org.slf4j.simpleLogger.dateTimeFormat", "yyyy-MM-dd HH:mm:ss.SSS");
        TOOLKIT.setLevel(Level.SEVERE); // it warns of the class path on every start, where all is well
    }

    /** Sets the size of everything, which has to be done before the first window. */
    private static void scale(String[] args) {
        int percent = PreferenceStore.read(Places.preferences()).scalePercent();
        for (int i = 0; i + 1 < args.length; i++) {
            percent = args[i].equals("--scale") && args[i + 1].matches("\\d{2,3}")
                    ? Integer.parseInt(args[i + 1])
                    : percent;
        }
        if (percent != 100 && System.getProperty("glass.gtk.uiScale") == null) {
            System.setProperty("glass.gtk.uiScale", String.valueOf(percent / 100.0));
            System.setProperty("glass.win.uiScale", percent + "%");
        }
    }
}
