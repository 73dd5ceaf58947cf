package nightreed.desktop.shape;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Palette;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Exciter;
import nightreed.voice.note.ContactPulse;
import nightreed.voice.note.Section;
import nightreed.voice.note.StrikeNoise;

/**
 * What strikes the body: on the left the push of the contact and the noise that goes with it, over time; on the right what of
 * the spectrum each reaches, above the partials of the recording.
 */
public final class ExciterDrawing extends Handled {
    private static final double FS = 48_000;
    private static final double LEFT = 44;
    private static final double RIGHT = 14;
    private static final double TOP = 34;
    private static final double BOTTOM = 20;
    private static final double FLOOR_DB = -60;
    private static final double LOW_HZ = 30;
    private static final double HIGH_HZ = 20_000;
    private static final double SPREAD = 0.5;
    private static final double SHARE = 0.48;

    private Exciter exciter;
    private Shaped values;
    private Measurement measurement;
    private double span = 0.1; // time shown [s]
    private double topDb; // of the scale over time
    private float[] push = new float[0];
    private float[] noise = new float[0];

    public ExciterDrawing() {
        super("What strikes");
        setId("exciter-drawing");
    }

    /** @param of the recording, null for none */
    public void show(Exciter e, Recipe recipe, Measurement of, ValueMoved changed) {
        exciter = e;
        measurement = of;
        values = new Shaped(recipe.settings(), "", changed);
        if (!held()) {
            span = Math.min(
                    2, Math.max(0.004, Math.max(3 * e.contactMs() / 1000, e.noisy() ? e.noiseT60Ms() / 1000 : 0)));
        }
        if (!held()) {
            topDb = e.noiseDb() > 0 ? 24 : 0;
        }
        sound();
        redraw();
    }

    /** The very samples that a voice would play. */
    private void sound() {
        int n = (int) Math.min(2 * FS, span * FS);
        double[] x = new double[n];
        ContactPulse pulse = new ContactPulse(FS);
        pulse.start(exciter.contactMs(), 1);
        pulse.add(x, 0, n);
        push = new float[n];
        double top = 1e-12;
        for (double v : x) {
            top = Math.max(top, Math.abs(v));
        }
        for (int i = 0; i < n; i++) {
            push[i] = (float) (x[i] / top);
        }
        double[] y = new double[n];
        StrikeNoise strike = new StrikeNoise(FS);
        strike.start(exciter, 1, 1, 1, 7);
        strike.add(y, 0, n, 1);
        noise = new float[n];
        for (int i = 0; i < n; i++) {
            noise[i] = (float) y[i];
        }
    }

    private double split(double w) {
        return LEFT + SHARE * (w - LEFT - RIGHT);
    }

    private double x(double t, double w) {
        return LEFT + (split(w) - 18 - LEFT) * Math.pow(Math.max(0, Math.min(1, t / span)), SPREAD);
    }

    private double time(double x, double w) {
        return span * Math.pow(Math.max(0, Math.min(1, (x - LEFT) / (split(w) - 18 - LEFT))), 1 / SPREAD);
    }

    private double xHz(double hz, double w) {
        double from = split(w) + 30;
        double part = Math.log(hz / LOW_HZ) / Math.log(HIGH_HZ / LOW_HZ);
        return from + (w - RIGHT - from) * Math.max(0, Math.min(1, part));
    }

    private double hz(double x, double w) {
        double from = split(w) + 30;
        double part = Math.max(0, Math.min(1, (x - from) / (w - RIGHT - from)));
        return LOW_HZ * Math.pow(HIGH_HZ / LOW_HZ, part);
    }

    /** On a scale that ends at a level [dB]. */
    private static double y(double db, double top, double h) {
        double share = (Math.max(FLOOR_DB, Math.min(top, db)) - top) / (FLOOR_DB - top);
        return TOP + (h - TOP - BOTTOM) * share;
    }

    private double db(double y, double h) {
        return topDb + (FLOOR_DB - topDb) * Math.max(0, Math.min(1, (y - TOP) / (h - TOP - BOTTOM)));
    }

    @Override
    protected String title() {
        return exciter == null
                ? ""
                : String.format(Locale.ROOT, "what strikes · contact %.2f ms", exciter.contactMs())
                        + (exciter.noisy()
                                ? String.format(
                                        Locale.ROOT,
                                        ", noise %.1f dB for %.0f ms, %.0f to %.0f Hz",
                                        exciter.noiseDb(),
                                        exciter.noiseT60Ms(),
                                        exciter.noiseLowHz(),
                                        exciter.noiseHighHz())
                                : ", no noise");
    }

    @Override
    protected List<Handle> handles(double w, double h) {
        List<Handle> out = new ArrayList<>();
        Exciter e = exciter;
        if (e == null) {
            return out;
        }
        out.add(new Handle(
                values.say("exciter.contact", e.contactMs()),
                x(e.contactMs() / 1000, w),
                y(-20, topDb, h),
                (x, y, done) -> values.set("exciter.contact", 1000 * time(x, w), done)));
        out.add(new Handle(
                values.say("noise.level", e.noiseDb()),
                LEFT + 12,
                y(e.noiseDb(), topDb, h),
                (x, y, done) -> values.set("noise.level", db(y, h) <= FLOOR_DB + 0.3 ? -100 : db(y, h), done)));
        if (e.noisy()) {
            out.add(new Handle(
                    values.say("noise.t60", e.noiseT60Ms()),
                    x(e.noiseT60Ms() / 1000, w),
                    h - BOTTOM,
                    (x, y, done) -> values.set("noise.t60", 1000 * time(x, w), done)));
            out.add(new Handle(
                    values.say("noise.low", e.noiseLowHz()),
                    xHz(e.noiseLowHz(), w),
                    y(-3, 0, h),
                    (x, y, done) -> values.set("noise.low", hz(x, w), done)));
            out.add(new Handle(
                    values.say("noise.high", e.noiseHighHz()),
                    xHz(e.noiseHighHz(), w),
                    y(-3, 0, h),
                    (x, y, done) -> values.set("noise.high", hz(x, w), done)));
        }
        return out;
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (exciter == null || w < 300) {
            return;
        }
        grid(g, w, h);
        course(g, noise, Palette.faint(Palette.of(g).imitation(), 0.45), w, h);
        course(g, push, Palette.of(g).imitation(), w, h);
        spectra(g, w, h);
        paintHandles(g, w, h);
    }

    /** Level over time: the largest sample of each pixel [dB]. */
    private void course(GraphicsContext g, float[] samples, javafx.scene.paint.Color colour, double w, double h) {
        g.setStroke(colour);
        g.setLineWidth(1.8);
        g.beginPath();
        double end = split(w) - 18;
        for (double px = LEFT; px < end; px++) {
            int from = (int) (time(px, w) * FS);
            int to = Math.max(from + 1, (int) (time(px + 1, w) * FS));
            double top = 1e-9;
            for (int i = from; i < Math.min(to, samples.length); i++) {
                top = Math.max(top, Math.abs(samples[i]));
            }
            double y = y(20 * Math.log10(top), topDb, h);
            if (px == LEFT) {
                g.moveTo(px, y);
            } else {
                g.lineTo(px, y);
            }
        }
        g.stroke();
    }

    private void spectra(GraphicsContext g, double w, double h) {
        double from = split(w) + 30;
        if (measurement != null) {
            g.setStroke(Palette.faint(Palette.of(g).recording(), 0.7));
            g.setLineWidth(1.5);
            for (Partial p : measurement.reliablePartials()) {
                double x = Math.rint(xHz(p.frequencyHz(), w)) + 0.5;
                g.strokeLine(x, h - BOTTOM, x, h - BOTTOM - 10);
            }
        }
        double pole = new ContactPulse(FS).pole(exciter.contactMs());
        Section low = new Section();
        Section high = new Section();
        low.highPass(Math.min(exciter.noiseLowHz(), 0.45 * FS), Math.sqrt(0.5), FS);
        high.lowPass(Math.min(exciter.noiseHighHz(), 0.49 * FS), Math.sqrt(0.5), FS);
        for (int pass = exciter.noisy() ? 0 : 1; pass < 2; pass++) {
            g.setStroke(
                    pass == 0
                            ? Palette.faint(Palette.of(g).imitation(), 0.45)
                            : Palette.of(g).imitation());
            g.setLineWidth(1.8);
            g.beginPath();
            for (double px = from; px <= w - RIGHT; px++) {
                double a = 2 * Math.PI * hz(px, w) / FS;
                double power = pass == 0
                        ? low.power(a) * high.power(a)
                        : Math.pow((1 - pole) * (1 - pole) / (1 - 2 * pole * Math.cos(a) + pole * pole), 2);
                double y = y(10 * Math.log10(Math.max(1e-12, power)), 0, h);
                if (px == from) {
                    g.moveTo(px, y);
                } else {
                    g.lineTo(px, y);
                }
            }
            g.stroke();
        }
    }

    private void grid(GraphicsContext g, double w, double h) {
        g.setFont(Palette.figuresFont(11));
        g.setTextBaseline(VPos.CENTER);
        g.setLineWidth(1);
        double from = split(w) + 30;
        for (double db = 20; db >= FLOOR_DB; db -= 20) {
            double right = Math.rint(y(db, 0, h)) + 0.5;
            g.setStroke(Palette.of(g).grid());
            g.strokeLine(from, right, w - RIGHT, right);
            if (db == 0 || db == FLOOR_DB) { // its scale is not that on the left
                g.setFill(Palette.of(g).quiet());
                g.setTextAlign(TextAlignment.RIGHT);
                g.fillText(String.format(Locale.ROOT, "%.0f", db), from - 6, right);
            }
            if (db > topDb) {
                continue;
            }
            double y = Math.rint(y(db, topDb, h)) + 0.5;
            g.strokeLine(LEFT, y, split(w) - 18, y);
            g.setFill(Palette.of(g).quiet());
            g.setTextAlign(TextAlignment.RIGHT);
            g.fillText(String.format(Locale.ROOT, "%.0f", db) + (db == 0 ? " dB" : ""), LEFT - 6, y);
        }
        g.setTextAlign(TextAlignment.CENTER);
        double used = LEFT - 20;
        for (double ms : new double[] {0.1, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000}) {
            double x = x(ms / 1000, w);
            if (ms / 1000 < span && x > used + 40) {
                g.fillText(String.format(Locale.ROOT, ms < 1 ? "%.1f ms" : "%.0f ms", ms), x, h - BOTTOM + 10);
                used = x;
            }
        }
        for (double hz : new double[] {100, 300, 1000, 3000, 10_000}) {
            g.fillText(
                    hz < 1000 ? String.format(Locale.ROOT, "%.0f", hz) : String.format(Locale.ROOT, "%.0fk", hz / 1000),
                    xHz(hz, w),
                    h - BOTTOM + 10);
        }
        g.setTextAlign(TextAlignment.RIGHT);
        g.fillText("Hz", w - RIGHT, h - BOTTOM + 10);
    }
}
