package nightreed.desktop.reedbed;

import java.util.List;
import java.util.Locale;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.TextAlignment;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.BrightnessPath;
import nightreed.measure.FirstMoments;
import nightreed.measure.Measurement;
import nightreed.measure.NoiseBands;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.DecayLaw;
import nightreed.music.Bark;

/** Under the bed of a recording by itself, on the same axis: one thing exactly, with its 95 % interval where it has one. */
public final class RecordingStrip extends Drawing {
    /** What the strip shows. */
    public enum Shows {
        T60("T60", "Decay of each partial with its 95 % interval, and the law that the decays follow"),
        LEVEL("level", "Level of each partial at the onset with its 95 % interval"),
        FIRST("first 100 ms", "Which part of the spectrum speaks first: time runs down"),
        BRIGHTNESS("brightness", "Where the centroid goes: time runs down"),
        NOISE("noise", "What is left without the partials: level of each band, and how soon it dies");

        private final String title;
        private final String help;

        Shows(String title, String help) {
            this.title = title;
            this.help = help;
        }

        public String title() {
            return title;
        }

        public String help() {
            return help;
        }
    }

    private static final double FIRST_SECONDS = 0.1;
    private static final double FIRST_RANGE_DB = 42;

    /** Levels and noise under this are not shown [dB]. */
    private static final double LOWEST_DB = -80;

    private final SimpleObjectProperty<Partial> selected;
    private final ReadOnlyStringWrapper caption = new ReadOnlyStringWrapper("");
    private AnalysedSound side;
    private NoiseBands noise;
    private String noNoise = "";
    private FirstMoments first; // made when they are looked at
    private BrightnessPath brightness;
    private Axis axis;
    private Shows shows = Shows.T60;

    public RecordingStrip(SimpleObjectProperty<Partial> selected) {
        this.selected = selected;
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText(shows.help());
        selected.addListener((o, a, b) -> redraw());
    }

    /** What the picture says in figures, for a line above it. */
    public ReadOnlyStringProperty captionProperty() {
        return caption.getReadOnlyProperty();
    }

    /** @param s null for nothing */
    public void setRecording(AnalysedSound s) {
        boolean same = s != null && side != null && s.clip() == side.clip();
        side = s;
        if (!same) {
            noise = null;
            noNoise = "";
        }
        first = null;
        brightness = null;
        redraw();
    }

    /** @param n null where there is none (yet), for which {@code instead} is said */
    public void setNoise(NoiseBands n, String instead) {
        noise = n;
        noNoise = instead;
        if (shows == Shows.NOISE) {
            redraw();
        }
    }

    public void setAxis(Axis a) {
        axis = a;
        redraw();
    }

    public void show(Shows what) {
        shows = what;
        setAccessibleText(what.help());
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        caption.set("");
        if (axis == null || side == null || w < 40 || h < 30) {
            return;
        }
        StripGround s = new StripGround(g, axis, w, h);
        switch (shows) {
            case T60 -> decays(s);
            case LEVEL -> levels(s);
            case FIRST -> first(s);
            case BRIGHTNESS -> brightness(s);
            case NOISE -> noise(s);
        }
        corners(g, w, h);
    }

    private Measurement measurement() {
        return side.measurement();
    }

    private void decays(StripGround s) {
        List<Partial> dying = measurement().reliablePartials().stream()
                .filter(p -> p.t60Seconds() != null)
                .toList();
        if (dying.isEmpty()) {
            s.instead("T60: no partial of this recording dies by one rate.");
            return;
        }
        double low =
                Math.log(dying.stream().mapToDouble(Partial::t60Seconds).min().orElse(1) / 1.6);
        double high =
                Math.log(dying.stream().mapToDouble(Partial::t60Seconds).max().orElse(1) * 1.6);
        s.times(low, high);
        law(s, low, high);
        for (Partial p : dying) {
            double x = s.x(p.frequencyHz());
            if (s.visible(x)) {
                double half = p.t60SeSeconds() == null ? 0 : 2 * p.t60SeSeconds();
                s.interval(
                        x,
                        s.y(Math.log(p.t60Seconds() + half), low, high),
                        s.y(Math.log(Math.max(0.2 * p.t60Seconds(), p.t60Seconds() - half)), low, high));
                s.mark(x, s.y(Math.log(p.t60Seconds()), low, high), p.equals(selected.get()));
            }
        }
    }

    /** The power law of the decays as a dashed line, and its exponent. */
    private void law(StripGround s, double low, double high) {
        DecayLaw law = measurement().traits().decayLaw();
        if (law == null) {
            return;
        }
        GraphicsContext g = s.g();
        g.setStroke(Palette.of(g).quiet());
        g.setLineWidth(1);
        g.setLineDashes(4, 4);
        g.beginPath();
        for (double x = StripGround.LEFT; x <= s.right(); x += 8) {
            double y = Math.max(2, Math.min(s.h() - 2, s.y(Math.log(law.t60At(s.hzAt(x))), low, high)));
            if (x == StripGround.LEFT) {
                g.moveTo(x, y);
            } else {
                g.lineTo(x, y);
            }
        }
        g.stroke();
        g.setLineDashes();
        caption.set(String.format(Locale.ROOT, "T60 ~ f^%.2f ± %.2f", -law.exponent(), 2 * law.exponentSe()));
    }

    private void levels(StripGround s) {
        List<Partial> partials = measurement().reliablePartials();
        if (partials.isEmpty()) {
            s.instead("Level: no partial is sure enough.");
            return;
        }
        double low = Math.max(
                        LOWEST_DB,
                        partials.stream().mapToDouble(Partial::levelDb).min().orElse(0))
                - 6;
        s.levels(low, 6, 20);
        for (Partial p : partials) {
            double x = s.x(p.frequencyHz());
            if (s.visible(x) && p.levelDb() >= LOWEST_DB) {
                double half = levelHalfDb(p);
                s.interval(x, s.y(p.levelDb() + half, low, 6), s.y(p.levelDb() - half, low, 6));
                s.mark(x, s.y(p.levelDb(), low, 6), p.equals(selected.get()));
            }
        }
        Partial p = selected.get();
        caption.set(
                p == null || p.levelDb() < LOWEST_DB
                        ? "level re the strongest"
                        : String.format(
                                Locale.ROOT,
                                "%.2f ± %.2f dB re the strongest",
                                p.levelDb() + 0.0, // no minus before a zero
                                Math.max(0.01, levelHalfDb(p))));
    }

    /** Two standard errors of a level [dB]: with the decay unknown as well, half of the energy tells of it. */
    private static double levelHalfDb(Partial p) {
        return Math.min(20, 2 * 20 / Math.log(10) * Math.pow(10, -p.snrDb() / 20));
    }

    private void first(StripGround s) {
        if (first == null) {
            first = FirstMoments.of(side.clip(), measurement(), firstSeconds());
        }
        GraphicsContext g = s.g();
        double end = first.startSeconds() + first.levelDb()[0].length * first.hopSeconds();
        double pace = (s.h() - 4) / (end - first.startSeconds());
        for (int k = 0; k < FirstMoments.HALF_BANDS; k++) {
            double left = Math.max(StripGround.LEFT, s.x(Math.max(20, Bark.hz(k / 2.0))));
            double right = Math.min(s.right(), s.x(Math.max(20, Bark.hz((k + 1) / 2.0))));
            double[] level = first.levelDb()[k];
            for (int f = 0; f < level.length && right > left; f++) {
                double share = 1 + level[f] / FIRST_RANGE_DB;
                if (share > 0) {
                    g.setFill(Palette.faint(Palette.of(g).recording(), Math.min(1, 0.05 + 0.95 * share)));
                    g.fillRect(
                            left,
                            2 + f * first.hopSeconds() * pace,
                            right - left + 0.3,
                            first.hopSeconds() * pace + 0.3);
                }
            }
        }
        s.line(2 - first.startSeconds() * pace, "0 ms");
        double round = end > 0.15 ? 0.1 : 0.05;
        for (double t = round; t < end; t += round) {
            s.line(2 + (t - first.startSeconds()) * pace, String.format(Locale.ROOT, "%.0f ms", 1000 * t));
        }
        if (measurement().held() != null) {
            for (HeldHarmonic n : measurement().held().harmonics()) {
                double x = s.x(n.frequencyHz());
                if (n.delaySeconds() != null && n.attackSeconds() != null && s.visible(x)) {
                    double middle = 2 + (n.delaySeconds() - first.startSeconds()) * pace;
                    double half = 0.5 * n.attackSeconds() * pace;
                    g.setStroke(Palette.of(g).text());
                    g.setLineWidth(1);
                    g.strokeLine(x, middle - half, x, middle + half);
                    g.strokeLine(x - 3, middle, x + 3, middle);
                }
            }
            caption.set("bar: 10 to 90 %, tick: half of the level");
        }
    }

    /** A slow note takes longer than the first 100 ms to speak. */
    private double firstSeconds() {
        double last = FIRST_SECONDS;
        if (measurement().held() != null) {
            for (HeldHarmonic n : measurement().held().harmonics()) {
                if (n.delaySeconds() != null && n.attackSeconds() != null) {
                    last = Math.max(last, n.delaySeconds() + 0.6 * n.attackSeconds());
                }
            }
        }
        return Math.min(0.4, last);
    }

    private void brightness(StripGround s) {
        if (brightness == null) {
            brightness = BrightnessPath.of(side.clip(), measurement());
        }
        int last = StripGround.lastClear(brightness);
        if (last < 1) {
            s.instead("Brightness: too short to follow.");
            return;
        }
        GraphicsContext g = s.g();
        g.setStroke(Palette.of(g).recording());
        s.trace(brightness, last, last);
        s.quarters(last * brightness.hopSeconds());
        caption.set("centroid, from the strike down");
    }

    private void noise(StripGround s) {
        if (noise == null) {
            s.instead(noNoise);
            return;
        }
        double most = Double.NEGATIVE_INFINITY;
        double least = 0;
        for (double db : noise.startDb()) {
            most = Double.isNaN(db) ? most : Math.max(most, db);
            least = Double.isNaN(db) ? least : Math.min(least, db);
        }
        if (Double.isInfinite(most)) {
            s.instead("Noise: nothing but the background is left without the partials.");
            return;
        }
        double low = Math.max(LOWEST_DB, least) - 6;
        double high = most + 6;
        s.levels(low, high, high - low > 40 ? 20 : 10);
        GraphicsContext g = s.g();
        boolean dies = false;
        for (int b = 0; b < Bark.BANDS; b++) {
            double left = Math.max(StripGround.LEFT, s.x(Bark.edgeHz(b)));
            double right = Math.min(s.right(), s.x(Bark.edgeHz(b + 1)));
            double db = noise.startDb()[b];
            if (Double.isNaN(db) || right <= left || db < low) {
                continue;
            }
            double y = s.y(db, low, high);
            g.setFill(Palette.faint(Palette.of(g).recording(), 0.30));
            g.fillRect(left + 1, y, Math.max(1, right - left - 2), s.foot() - y);
            g.setStroke(Palette.of(g).recording());
            g.setLineWidth(1.6);
            g.strokeLine(left + 1, y, right - 1, y);
            if (!Double.isNaN(noise.t60Seconds()[b]) && right - left > 34) {
                dies = true;
                g.setFill(Palette.of(g).text());
                g.setFont(Palette.figuresFont(11));
                g.setTextAlign(TextAlignment.CENTER);
                g.fillText(
                        String.format(Locale.ROOT, "%.2fs", noise.t60Seconds()[b]),
                        (left + right) / 2,
                        Math.max(y + 8, Math.min(s.foot() - 6, y + 9)));
            }
        }
        caption.set(dies ? "level of each band, and its T60" : "level of each band; too short for a T60");
    }
}
