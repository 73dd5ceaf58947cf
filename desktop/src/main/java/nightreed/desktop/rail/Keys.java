package nightreed.desktop.rail;

import java.util.BitSet;
import java.util.EnumMap;
import java.util.Map;
import javafx.animation.AnimationTimer;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.Scene;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import javafx.stage.Window;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.device.OutputMixer;
import nightreed.music.Pitch;

/** Playable keys on the screen. How far down a key is struck sets the strength. */
public final class Keys extends Drawing {
    private static final boolean[] BLACK = {
        false, true, false, true, false, false, true, false, true, false, true, false
    };

    /** Two rows of letters: the lower plays the white keys, the row above it the black ones between them. */
    private static final Map<KeyCode, Integer> LETTERS = Map.ofEntries(
            Map.entry(KeyCode.Z, 0),
            Map.entry(KeyCode.S, 1),
            Map.entry(KeyCode.X, 2),
            Map.entry(KeyCode.D, 3),
            Map.entry(KeyCode.C, 4),
            Map.entry(KeyCode.V, 5),
            Map.entry(KeyCode.G, 6),
            Map.entry(KeyCode.B, 7),
            Map.entry(KeyCode.H, 8),
            Map.entry(KeyCode.N, 9),
            Map.entry(KeyCode.J, 10),
            Map.entry(KeyCode.M, 11));

    private final OutputMixer desk;
    private final int octaves;
    private final SimpleIntegerProperty lowest = new SimpleIntegerProperty(48);
    private final SimpleIntegerProperty home = new SimpleIntegerProperty(-1);
    private final SimpleDoubleProperty strength = new SimpleDoubleProperty(0.7);
    private final BitSet down = new BitSet(128); // by this keyboard
    private final BitSet lit = new BitSet(128); // by whatever plays
    private final Map<KeyCode, Integer> letters = new EnumMap<>(KeyCode.class); // what each letter that is down struck
    private int mouseKey = -1;

    public Keys(OutputMixer desk, int octaves) {
        this.desk = desk;
        this.octaves = octaves;
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Piano keys; the letter rows Z to M and S to J play them");
        setOnMousePressed(this::press);
        setOnMouseDragged(this::press);
        setOnMouseReleased(e -> release(mouseKey));
        lowest.addListener((o, a, b) -> redraw());
        home.addListener((o, a, b) -> redraw());
        AnimationTimer ticking = new AnimationTimer() {
            @Override
            public void handle(long now) {
                light();
            }
        };
        // what ticks is kept in memory, and all of its window with it
        sceneProperty()
                .flatMap(Scene::windowProperty)
                .flatMap(Window::showingProperty)
                .orElse(false)
                .addListener((o, a, shown) -> {
                    if (shown) {
                        ticking.start();
                    } else {
                        ticking.stop();
                    }
                });
    }

    /** Lowest key shown, a C. */
    public SimpleIntegerProperty lowestProperty() {
        return lowest;
    }

    /** The recipe's own key, marked; -1 for none. */
    public SimpleIntegerProperty homeProperty() {
        return home;
    }

    /** Strength with which letters strike, 0 to 1. */
    public SimpleDoubleProperty strengthProperty() {
        return strength;
    }

    public void octave(int up) {
        lowest.set(Math.max(0, Math.min(120 - 12 * octaves, lowest.get() + 12 * up)));
    }

    /** Plays a letter; returns whether it is one that plays. The middle octave is under the hand. */
    public boolean letterDown(KeyCode code) {
        Integer step = LETTERS.get(code);
        if (step == null) {
            return false;
        }
        int key = lowest.get() + 12 * (octaves / 2) + step;
        if (letters.putIfAbsent(code, key) == null) {
            strike(key, strength.get());
        }
        return true;
    }

    public boolean letterUp(KeyCode code) {
        Integer key = letters.remove(code);
        if (key != null) {
            release(key); // not the one under the letter now: the octave may have changed meanwhile
        }
        return LETTERS.containsKey(code);
    }

    /** Strikes a key unless it is held already. */
    public void strike(int key, double velocity) {
        if (key >= 0 && key < 128 && !down.get(key)) {
            down.set(key);
            desk.noteOn(key, velocity);
            redraw();
        }
    }

    public void release(int key) {
        if (key >= 0 && down.get(key)) {
            down.clear(key);
            desk.noteOff(key);
            redraw();
        }
        if (key == mouseKey) {
            mouseKey = -1;
        }
    }

    /** Lets go of everything. */
    public void releaseAll() {
        for (int k = down.nextSetBit(0); k >= 0; k = down.nextSetBit(k + 1)) {
            desk.noteOff(k);
        }
        down.clear();
        letters.clear();
        redraw();
    }

    /** Lights the keys that are down, here or on a keyboard outside. */
    private void light() {
        boolean changed = false;
        for (int k = lowest.get(); k < lowest.get() + 12 * octaves; k++) {
            boolean now = desk.keyDown(k);
            changed |= now != lit.get(k);
            lit.set(k, now);
        }
        if (changed) {
            redraw();
        }
    }

    private void press(MouseEvent e) {
        int key = keyAt(e.getX(), e.getY());
        if (key != mouseKey) {
            release(mouseKey);
            if (key >= 0) {
                mouseKey = key;
                strike(key, Math.max(0.15, Math.min(1, 0.2 + 0.8 * e.getY() / getHeight())));
            }
        }
    }

    private double whiteWidth() {
        return getWidth() / (7 * octaves);
    }

    private static int whitesBelow(int step) {
        int n = 0;
        for (int i = 0; i < step; i++) {
            n += BLACK[i] ? 0 : 1;
        }
        return n;
    }

    private double left(int key) {
        int from = key - lowest.get();
        double white = whiteWidth() * (7 * (from / 12) + whitesBelow(from % 12));
        return BLACK[from % 12] ? white - whiteWidth() * 0.3 : white;
    }

    private int keyAt(double x, double y) {
        int white = -1;
        for (int k = lowest.get(); k < lowest.get() + 12 * octaves; k++) {
            boolean black = BLACK[k % 12];
            double w = whiteWidth() * (black ? 0.6 : 1);
            if (x >= left(k) && x < left(k) + w) {
                if (black && y < getHeight() * 0.58) {
                    return k;
                }
                if (!black) {
                    white = k;
                }
            }
        }
        return white;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        g.clearRect(0, 0, w, h);
        g.setFont(Palette.figuresFont(11));
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.BOTTOM);
        for (int pass = 0; pass < 2; pass++) {
            for (int k = lowest.get(); k < lowest.get() + 12 * octaves; k++) {
                boolean black = BLACK[k % 12];
                if (black == (pass == 1)) {
                    key(g, k, black, h);
                }
            }
        }
    }

    private void key(GraphicsContext g, int k, boolean black, double h) {
        double w = whiteWidth() * (black ? 0.6 : 1);
        double x = left(k);
        double tall = black ? h * 0.58 : h;
        boolean held = down.get(k) || lit.get(k);
        g.setFill(
                held
                        ? Palette.of(g).imitation()
                        : black
                                ? darker(Palette.of(g).ground(), Palette.of(g).text())
                                : k == home.get()
                                        ? Palette.of(g).line()
                                        : Palette.of(g).raised());
        g.fillRoundRect(x + 1, -4, w - 2, tall + 3, 5, 5);
        if (!black) {
            g.setStroke(Palette.of(g).line());
            g.setLineWidth(1);
            g.strokeRoundRect(x + 1, -4, w - 2, tall + 3, 5, 5);
        }
        if (k == home.get()) {
            g.setFill(Palette.of(g).recording());
            g.fillOval(x + w / 2 - 3, tall - (black ? 12 : 24), 6, 6);
        }
        if (k % 12 == 0 && w > 14) {
            g.setFill(held ? Palette.of(g).ground() : Palette.of(g).quiet());
            g.fillText(Pitch.name(k), x + w / 2, h - 3);
        }
    }

    /** Black keys are the dark ones in either look. */
    private static Color darker(Color a, Color b) {
        return a.getBrightness() < b.getBrightness() ? a : b;
    }
}
