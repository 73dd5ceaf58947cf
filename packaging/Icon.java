import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.io.File;
import javax.imageio.ImageIO;

/** Draws the icon: three reeds on night ground, the middle one in the amber of the window. {@code java Icon.java OUT.png} */
public final class Icon {
    private static final int SIZE = 256;

    public static void main(String[] args) throws Exception {
        BufferedImage image = new BufferedImage(SIZE, SIZE, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setColor(new Color(0x12161c));
        g.fill(new RoundRectangle2D.Double(8, 8, SIZE - 16, SIZE - 16, 56, 56));
        reed(g, 88, 210, 74, 96, 10, new Color(0x5f7a86));
        reed(g, 128, 222, 132, 46, 14, new Color(0xe0a44a));
        reed(g, 168, 210, 188, 116, 10, new Color(0x8fa9a0));
        g.dispose();
        ImageIO.write(image, "png", new File(args[0]));
    }

    private static void reed(Graphics2D g, double x0, double y0, double x1, double y1, float width, Color color) {
        Path2D stem = new Path2D.Double();
        stem.moveTo(x0, y0);
        stem.quadTo(x0, (y0 + y1) / 2, x1, y1);
        g.setColor(color);
        g.setStroke(new BasicStroke(width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.draw(stem);
        g.setStroke(new BasicStroke(2.2f * width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        Path2D head = new Path2D.Double();
        head.moveTo(x1, y1);
        head.lineTo(x1 + 0.12 * (x1 - x0), y1 + 34);
        g.draw(head);
    }
}
