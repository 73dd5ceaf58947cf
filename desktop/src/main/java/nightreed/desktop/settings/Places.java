package nightreed.desktop.settings;

import java.nio.file.Path;

/** Where the program keeps files of its own, by the XDG base directory specification. */
public final class Places {
    private Places() {}

    /** The file of preferences; the system property {@code nightreed.settings} names another. */
    public static Path preferences() {
        String own = System.getProperty("nightreed.settings");
        return own != null ? Path.of(own) : base("XDG_CONFIG_HOME", ".config").resolve("preferences.json");
    }

    /** The log of this program. */
    public static Path log() {
        return base("XDG_STATE_HOME", ".local/state").resolve("night-reed.log");
    }

    /** The folder that projects are put in unless the user says otherwise. */
    public static Path projects() {
        return Path.of(System.getProperty("user.home"), "Night Reed");
    }

    private static Path base(String variable, String usual) {
        String set = System.getenv(variable);
        Path base = set != null && !set.isBlank() ? Path.of(set) : Path.of(System.getProperty("user.home"), usual);
        return base.resolve("night-reed");
    }
}
