package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.util.concurrent.CancellationException;
import nightreed.project.UnusableProject;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.UnusableSound;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** The command {@code night-reed} itself; exit code 0 done, 1 the input could not be used, 2 wrong usage. */
@Command(
        name = "night-reed",
        mixinStandardHelpOptions = true,
        version = "Night Reed 0.1.0",
        description = "A bench for imitating acoustic instruments with synthesis.",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {
            MeasureCommand.class,
            MatchCommand.class,
            StartCommand.class,
            ArithmeticCommand.class,
            RenderCommand.class,
            CompareCommand.class,
            RoomCommand.class
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
        line.setExecutionExceptionHandler((e, command, parsed) -> {
            PrintWriter err = command.getErr();
            err.println(explain(e));
            return UNUSABLE_INPUT;
        });
        return line;
    }

    private static String explain(Exception e) throws Exception {
        boolean forUsers = e instanceof UnusableSound
                || e instanceof UnusableRecipe
                || e instanceof UnusableProject
                || e instanceof IOException
                || e instanceof CancellationException;
        if (!forUsers) {
            throw e;
        }
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("The input could not be used.");
    }
}
