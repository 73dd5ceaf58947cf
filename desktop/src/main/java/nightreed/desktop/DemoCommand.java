package nightreed.desktop;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

@Command(name = "demo", description = "Opens the window on a copy of the demo project, The Salt Lantern.")
final class DemoCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        return Main.window("--demo");
    }
}
