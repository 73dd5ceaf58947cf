package nightreed.desktop.drawing;

import javafx.scene.Node;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;

/**
 * Colours of the drawings by role, one set per look. The style sheets night.css and day.css say the same for controls. A
 * part of the window carries its ink, so that drawings need not be told.
 *
 * @param ground    behind everything
 * @param panel     behind a drawing
 * @param raised    what stands out of a panel
 * @param line      edges that carry no meaning
 * @param text      words and figures
 * @param quiet     words and figures of less weight
 * @param recording the recording
 * @param imitation the imitation
 * @param audible   a difference that would be heard
 * @param within    within tolerance
 * @param water     under the waterline
 * @param scale     scales, which carry meaning: 3:1 on the panel
 * @param grid      lines behind a drawing
 */
public record Palette(
        Color ground,
        Color panel,
        Color raised,
        Color line,
        Color text,
        Color quiet,
        Color recording,
        Color imitation,
        Color audible,
        Color within,
        Color water,
        Color scale,
        Color grid) {
    public static final Palette NIGHT = of(
            "#0A1418", "#0F1D23", "#152A32", "#26434D", "#F1E8D3", "#9FB2B0", "#F0A63F", "#58C9C1", "#F2798D",
            "#9DC97C", "#0D2028", "#6F8A90", "#1A3038");

    /** The same roles on paper. */
    public static final Palette DAY = of(
            "#EFE9DB", "#FAF7EE", "#E9E2D0", "#CFC6B0", "#1C2A2D", "#4C5C60", "#8F5200", "#00665F", "#B01E46",
            "#3D6717", "#E3EDEA", "#6F7F7C", "#E2DBC9");

    private static Palette of(String... c) {
        return new Palette(
                Color.web(c[0]),
                Color.web(c[1]),
                Color.web(c[2]),
                Color.web(c[3]),
                Color.web(c[4]),
                Color.web(c[5]),
                Color.web(c[6]),
                Color.web(c[7]),
                Color.web(c[8]),
                Color.web(c[9]),
                Color.web(c[10]),
                Color.web(c[11]),
                Color.web(c[12]));
    }

    /** Ink of the part of the window that a canvas is in; night ink as long as it is in none. */
    public static Palette of(GraphicsContext g) {
        for (Node n = g.getCanvas(); n != null; n = n.getParent()) {
            if (n.hasProperties() && n.getProperties().get(Palette.class) instanceof Palette ink) {
                return ink;
            }
        }
        return NIGHT;
    }

    /** Gives a part of the window its ink. */
    public void fill(Node part) {
        part.getProperties().put(Palette.class, this);
    }

    public static Font textFont(double size) {
        return Font.font("IBM Plex Sans", size);
    }

    public static Font figuresFont(double size) {
        return Font.font("JetBrains Mono", size);
    }

    public static Color faint(Color c, double opacity) {
        return Color.color(c.getRed(), c.getGreen(), c.getBlue(), opacity);
    }
}
