package nightreed.desktop;

import java.lang.management.ManagementFactory;
import java.util.Locale;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;

/**
 * When the steps of a start were reached. With {@code -Dnightreed.timing=true} they are told on standard output once the
 * window has been drawn, and the program ends; the benchmark of the start reads them.
 */
final class StartTimes {
    private final StringBuilder steps = new StringBuilder();

    /** Notes that a step has been reached. */
    void reached(String step) {
        steps.append(String.format(Locale.ROOT, "%s %d ms; ", step, sinceStart()));
    }

    private static long sinceStart() {
        return System.currentTimeMillis() - ManagementFactory.getRuntimeMXBean().getStartTime();
    }

    /** Notes the step after the second frame from now. */
    void reachedWhenDrawn(String step) {
        afterTwoFrames(() -> reached(step));
    }

    /** Tells all steps after the second frame from now, and ends, if that has been asked for. */
    void tellWhenComplete() {
        if (Boolean.getBoolean("nightreed.timing")) {
            afterTwoFrames(() -> {
                reached("complete");
                System.out.println(steps);
                Platform.exit();
                System.exit(0);
            });
        }
    }

    private static void afterTwoFrames(Runnable then) {
        new AnimationTimer() {
            private int frames;

            @Override
            public void handle(long now) {
                if (++frames == 2) {
                    stop();
                    then.run();
                }
            }
        }.start();
    }
}
