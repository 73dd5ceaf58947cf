package nightreed.desktop;

import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/** Draws windows into memory where there is no display, so that the walks run anywhere. */
public final class HeadlessWhereThereIsNoDisplay implements LauncherSessionListener {
    @Override
    public void launcherSessionOpened(LauncherSession session) {
        String display = System.getenv("DISPLAY");
        if (display == null || display.isBlank()) {
            System.setProperty("testfx.robot", "glass");
            System.setProperty("testfx.headless", "true");
            System.setProperty("glass.platform", "Monocle");
            System.setProperty("monocle.platform", "Headless");
            System.setProperty("prism.order", "sw");
            System.setProperty("prism.text", "t2k");
        }
    }
}
