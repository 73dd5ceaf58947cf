package nightreed.desktop.reedbed;

import javafx.scene.paint.Color;
import javafx.scene.text.Font;

/** Colours and type of the drawings, by role. Night look. */
public final class Ink {
    public static final Color GROUND = Color.web("#0A1418");
    public static final Color PANEL = Color.web("#0F1D23");
    public static final Color RAISED = Color.web("#152A32");
    public static final Color LINE = Color.web("#26434D");
    public static final Color TEXT = Color.web("#F1E8D3");
    public static final Color QUIET = Color.web("#9FB2B0");
    public static final Color RECORDING = Color.web("#F0A63F");
    public static final Color IMITATION = Color.web("#58C9C1");
    public static final Color AUDIBLE = Color.web("#F2798D");
    public static final Color WITHIN = Color.web("#9DC97C");
    public static final Color WATER = Color.web("#0D2028");

    /** Lines behind a drawing, which carry no meaning of their own. */
    public static final Color GRID = Color.web("#1A3038");

    /** For scales that carry meaning: 3:1 on the panel. */
    public static final Color SCALE = Color.web("#6F8A90");

    private Ink() {}

    public static Font text(double size) {
        return Font.font("IBM Plex Sans", size);
    }

    public static Font figures(double size) {
        return Font.font("JetBrains Mono", size);
    }
}
