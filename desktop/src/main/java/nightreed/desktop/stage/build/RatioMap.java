package nightreed.desktop.stage.build;

import java.util.Locale;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.paint.Color;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.workspace.Workspace;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.voice.fm.FmColour;

/**
 * Harmonic against dissonant over modulator ratio and index of one pair: the brighter a place, the more of the power lies off
 * the harmonics. A press or an arrow key chooses both values.
 */
final class RatioMap extends Drawing {
    private static final double LOW_RATIO = 0.25;
    private static final double HIGH_RATIO = 8;
    private static final double MOST_INDEX = 12;
    private static final int COLUMNS = 121; // twenty-four to the octave: every just interval has its own
    private static final int ROWS = 25;
    private static final double LEFT = 44;
    private static final double BOTTOM = 24;
    private static final double TOP = 22;

    private final Workspace bench;
    private final PairWords words = new PairWords();
    private double[][] map;
    private FmRecipe recipe;
    private int pair;
    private FmPair mapped;
    private double mappedHz;

    RatioMap(Workspace bench) {
        this.bench = bench;
        setId("ratio-map");
        setMinHeight(120);
        setPrefHeight(240);
        setFocusTraversable(true);
        addEventHandler(MouseEvent.MOUSE_PRESSED, e -> {
            requestFocus();
            choose(e, false);
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, e -> choose(e, false));
        addEventHandler(MouseEvent.MOUSE_RELEASED, e -> choose(e, true));
        addEventHandler(KeyEvent.KEY_PRESSED, this::key);
    }

    /** @param number of the pair, from 1; the first where none is chosen */
    void show(FmRecipe r, int number) {
        recipe = r;
        pair = Math.max(1, Math.min(r.pairs().size(), number));
        FmPair p = r.pairs().get(pair - 1);
        boolean same = mapped != null
                && mapped.carrierRatio() == p.carrierRatio()
                && mapped.carrierPhaseRad() == p.carrierPhaseRad()
                && mapped.modulatorPhaseRad() == p.modulatorPhaseRad()
                && mappedHz == r.f0Hz();
        if (!same) {
            mapped = p;
            mappedHz = r.f0Hz();
            double hz = mappedHz;
            bench.beside(
                    () -> FmColour.map(p, ratios(), indexes(), hz),
                    found -> {
                        if (mapped == p) {
                            map = found;
                            redraw();
                        }
                    },
                    () -> {});
        }
        setAccessibleText(words.of(r, pair));
        redraw();
    }

    private static double[] ratios() {
        double[] out = new double[COLUMNS];
        for (int i = 0; i < COLUMNS; i++) {
            out[i] = LOW_RATIO * Math.pow(HIGH_RATIO / LOW_RATIO, i / (COLUMNS - 1.0));
        }
        return out;
    }

    private static double[] indexes() {
        double[] out = new double[ROWS];
        for (int i = 0; i < ROWS; i++) {
            out[i] = MOST_INDEX * i / (ROWS - 1.0);
        }
        return out;
    }

    private void choose(MouseEvent e, boolean settled) {
        double x = (e.getX() - LEFT) / Math.max(1, getWidth() - LEFT - 8);
        double y = (getHeight() - BOTTOM - e.getY()) / Math.max(1, getHeight() - BOTTOM - TOP);
        double ratio = LOW_RATIO * Math.pow(HIGH_RATIO / LOW_RATIO, Math.max(0, Math.min(1, x)));
        set(ratio, MOST_INDEX * Math.max(0, Math.min(1, y)), settled);
        e.consume();
    }

    private void key(KeyEvent e) {
        FmPair p = recipe == null ? null : recipe.pairs().get(pair - 1);
        double step = e.isShiftDown() ? 1.001 : 1.01;
        if (p == null) {
            return;
        }
        switch (e.getCode()) {
            case LEFT -> set(p.modulatorRatio() / step, p.index(), true);
            case RIGHT -> set(p.modulatorRatio() * step, p.index(), true);
            case UP -> set(p.modulatorRatio(), p.index() + (e.isShiftDown() ? 0.02 : 0.2), true);
            case DOWN -> set(p.modulatorRatio(), p.index() - (e.isShiftDown() ? 0.02 : 0.2), true);
            default -> {
                return;
            }
        }
        e.consume();
    }

    private void set(double ratio, double index, boolean settled) {
        String head = "pair." + pair + ".";
        FmRecipe moved = recipe.with(head + "modulatorRatio", ratio).with(head + "index", index);
        FmPair p = moved.pairs().get(pair - 1);
        bench.shaping()
                .shape(
                        moved,
                        String.format(
                                Locale.ROOT, "pair %d ratio %.4f, index %.2f", pair, p.modulatorRatio(), p.index()),
                        settled);
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        Palette colours = Palette.of(g);
        g.clearRect(0, 0, w, h);
        g.setFont(Palette.figuresFont(11));
        double wide = w - LEFT - 8;
        double high = h - BOTTOM - TOP;
        if (map != null) {
            double cell = wide / COLUMNS;
            double row = high / ROWS;
            for (int i = 0; i < ROWS; i++) {
                for (int k = 0; k < COLUMNS; k++) {
                    Color c = Palette.faint(colours.audible(), 0.04 + 0.66 * map[i][k]);
                    g.setFill(c);
                    double x = Math.rint(LEFT + k * cell); // whole pixels, or seams would be seen
                    double y = Math.rint(TOP + high - (i + 1) * row);
                    g.fillRect(x, y, Math.rint(LEFT + (k + 1) * cell) - x, Math.rint(TOP + high - i * row) - y);
                }
            }
        }
        g.setFill(colours.quiet());
        g.setTextAlign(TextAlignment.CENTER);
        for (double r : new double[] {0.25, 0.5, 1, 1.5, 2, 3, 4, 5, 6, 7, 8}) {
            String text = r == Math.rint(r) ? String.valueOf((int) r) : String.valueOf(r);
            g.fillText(text, LEFT + wide * at(r), h - 8);
        }
        g.setTextAlign(TextAlignment.RIGHT);
        for (int i = 0; i <= MOST_INDEX; i += 4) {
            g.fillText(String.valueOf(i), LEFT - 6, TOP + high - high * i / MOST_INDEX + 4);
        }
        g.fillText("index", LEFT - 6, TOP - 8);
        if (recipe == null) {
            return;
        }
        FmPair p = recipe.pairs().get(pair - 1);
        // at the other end, so that it does not run on from the name of the axis
        g.fillText("pair " + pair + ": " + words.of(recipe, pair), w - 8, TOP - 8);
        double x = LEFT + wide * Math.max(0, Math.min(1, at(p.modulatorRatio())));
        double y = TOP + high - high * Math.min(1, p.index() / MOST_INDEX);
        g.setStroke(colours.imitation());
        g.setLineWidth(2);
        g.strokeOval(x - 6, y - 6, 12, 12);
    }

    private static double at(double ratio) {
        return Math.log(ratio / LOW_RATIO) / Math.log(HIGH_RATIO / LOW_RATIO);
    }
}
