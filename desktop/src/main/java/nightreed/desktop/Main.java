package nightreed.desktop;

import java.nio.file.Path;
import javafx.application.Application;
import nightreed.cli.NightReedCommand;
import picocli.CommandLine;

/** What the launcher starts: commands go to the command line, everything else opens the window. */
public final class Main {
    private Main() {}

    public static void main(String[] args) {
        boolean project = args.length == 1 && !args[0].startsWith("-") && isProject(args[0]);
        if (args.length == 0 || project) {
            Application.launch(Window.class, args);
            System.exit(0);
        }
        CommandLine line = NightReedCommand.commandLine();
        line.addSubcommand(new DemoCommand());
        line.addSubcommand(new ShotsCommand());
        line.addSubcommand(new WarmUpCommand());
        System.exit(NightReedCommand.prepared(line).execute(args));
    }

    private static boolean isProject(String arg) {
        return arg.endsWith(nightreed.project.ProjectFile.ENDING)
                || Path.of(arg).toFile().isFile();
    }

    /** Where the build leaves the demo project, beside the program; null if it runs from elsewhere. */
    static Path builtDemo() {
        try {
            Path jar = Path.of(Main.class
                    .getProtectionDomain()
                    .getCodeSource()
                    .getLocation()
                    .toURI());
            return jar.resolveSibling("demo" + nightreed.project.ProjectFile.ENDING);
        } catch (java.net.URISyntaxException | RuntimeException e) {
            return null;
        }
    }
}
