package nightreed.cli;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.util.concurrent.CancellationException;
import nightreed.files.Shown;
import nightreed.project.UnusableProject;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.UnusableSound;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The command {@code night-reed} itself; exit code 0 done, 1 the input could not be used, 2 wrong usage. */
@Command(
        name = "night-reed",
        mixinStandardHelpOptions = true,
        versionProvider = ProgramVersion.class,
        description = "A bench for imitating acoustic instruments with synthesis.",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            MeasureCommand.class,
            MatchCommand.class,
            StartCommand.class,
            ArithmeticCommand.class,
            RenderCommand.class,
            CompareCommand.class,
            RoomCommand.class,
            TargetCommand.class,
            ChordCommand.class,
            ClaimsCommand.class,
            TempoCommand.class
        })
public final class NightReedCommand implements Runnable {
    static final int UNUSABLE_INPUT = 1;

    @Spec
    CommandSpec spec;

    @Override
    public void run() {
        throw new ParameterException(spec.commandLine(), "Say what to do.");
    }

    /** The command line with every command of this module. */
    public static CommandLine commandLine() {
        return prepared(new CommandLine(new NightReedCommand()));
    }

    /** Lets a command line answer bad input in one line on standard error. */
    public static CommandLine prepared(CommandLine line) {
        line.setCaseInsensitiveEnumValuesAllowed(true);
        line.setExpandAtFiles(false); // a file may begin with @
        line.setExecutionExceptionHandler((e, command, parsed) -> {
            command.getErr().println(explain(e));
            return UNUSABLE_INPUT;
        });
        return line;
    }

    /**
     * Does what the arguments say. Nothing but what the commands write reaches standard output: whatever libraries print goes to standard
     * error.
     *
     * @return exit code; {@value #UNUSABLE_INPUT} too if standard output took not all of it
     */
    public static int run(CommandLine line, String... args) {
        PrintStream standard = System.out;
        System.setOut(System.err);
        PrintWriter out = new PrintWriter(new OutputStreamWriter(standard, StandardCharsets.UTF_8));
        line.setOut(out);
        int code;
        try {
            code = line.execute(args);
        } catch (OutOfMemoryError e) {
            System.err.println(
                    "There is not enough memory for this: choose a shorter span of the sound, or fewer notes at once.");
            code = UNUSABLE_INPUT;
        } catch (StackOverflowError e) {
            System.err.println("The input is nested too deeply to be read.");
            code = UNUSABLE_INPUT;
        } catch (RuntimeException | Error e) {
            System.err.println(unforeseen(e));
            code = UNUSABLE_INPUT;
        }
        out.flush();
        if (out.checkError() || standard.checkError()) {
            System.err.println("Standard output could not be written: check the disk or the pipe that it goes to.");
            return code == 0 ? UNUSABLE_INPUT : code;
        }
        return code;
    }

    private static String explain(Exception e) {
        boolean forUsers = e instanceof UnusableSound
                || e instanceof UnusableRecipe
                || e instanceof UnusableProject
                || e instanceof IOException
                || e instanceof CancellationException;
        if (!forUsers) {
            return unforeseen(e);
        }
        if (e instanceof NoSuchFileException f) {
            return "There is no " + Shown.of(f.getFile()) + ": check the name and the folder.";
        }
        String first = String.valueOf(e.getMessage()).lines().findFirst().orElse("The input could not be used.");
        return e instanceof FileSystemException f && f.getReason() == null
                ? Shown.of(f.getFile()) + " could not be used (" + e.getClass().getSimpleName() + ")."
                : first;
    }

    /** A fault of the program: one line for people, all of it for the log. */
    private static String unforeseen(Throwable e) {
        LoggerFactory.getLogger(NightReedCommand.class).error("a command ended with a fault", e);
        return "Night Reed stopped on an internal error (" + e.getClass().getSimpleName()
                + "); nothing that was there has been changed. The log has the details.";
    }
}
