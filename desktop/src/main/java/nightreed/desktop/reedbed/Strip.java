package nightreed.desktop.reedbed;

import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.BrightnessPath;
import nightreed.measure.FirstMoments;
import nightreed.measure.StrikeBands;
import nightreed.measure.partial.Partial;
import nightreed.music.Bark;

/**
 * Under the bed, on the same axis: one thing exactly, for recording and imitation together, with the span of one JND
 * shaded.
 */
public final class Strip extends Drawing {
    /** What the strip shows. */
    public enum Shows {
        T60("T60", "Decay of each partial, recording (disc) against imitation (ring)"),
        LEVEL("level", "Level of each partial of the imitation against the recording's"),
        FIRST("first 100 ms", "Where the imitation speaks louder or softer than the recording: time runs down"),
        BRIGHTNESS("brightness", "Centroid of both: time runs down"),
        NOISE("noise", "Level of the strike in each band, without the partials");

        private final String title;
        private final String help;

        Shows(String title, String help) {
            this.title = title;
            this.help = help;
        }

        public String help() {
            return help;
        }

        public String title() {
            return title;
        }
    }

    private static final double FIRST_SECONDS = 0.1;
    private static final double FIRST_RANGE_DB = 42;
    private static final double NOISE_LOWEST_DB = -70;

    private final SimpleObjectProperty<Partial> selected;
    private Comparison comparison;
    private AnalysedSound recording;
    private AnalysedSound imitation;
    private FirstMoments firstRecording; // made when they are looked at
    private FirstMoments firstImitation;
    private BrightnessPath pathRecording;
    private BrightnessPath pathImitation;
    private Axis axis;
    private Shows shows = Shows.T60;

    public Strip(SimpleObjectProperty<Partial> selected) {
        this.selected = selected;
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Decay or level of each partial, recording against imitation");
        selected.addListener((o, a, b) -> redraw());
    }

    /** Both sounds and how they compare; null for nothing. */
    public void setSounds(AnalysedSound r, AnalysedSound i, Comparison c) {
        recording = r;
        imitation = i;
        comparison = c;
        firstRecording = null;
        firstImitation = null;
        pathRecording = null;
        pathImitation = null;
        redraw();
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
        if (axis == null || comparison == null || w < 40 || h < 30) {
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
    }

    /** The recording's spectrum as it comes in, and over it where the imitation is heard to differ. */
    private void first(StripGround s) {
        if (recording == null || imitation == null) {
            return;
        }
        if (firstRecording == null) {
            firstRecording = FirstMoments.of(recording.clip(), recording.measurement(), FIRST_SECONDS);
            firstImitation = FirstMoments.of(imitation.clip(), imitation.measurement(), FIRST_SECONDS);
        }
        GraphicsContext g = s.g();
        double[][] mine = firstRecording.levelDb();
        double[][] theirs = firstImitation.levelDb();
        int frames = Math.min(mine[0].length, theirs[0].length);
        double height = (s.h() - 4) / frames;
        for (int k = 0; k < FirstMoments.HALF_BANDS; k++) {
            double left = Math.max(StripGround.LEFT, s.x(Math.max(20, Bark.hz(k / 2.0))));
            double right = Math.min(s.right(), s.x(Math.max(20, Bark.hz((k + 1) / 2.0))));
            for (int f = 0; f < frames && right > left; f++) {
                double share = 1 + Math.max(mine[k][f], theirs[k][f]) / FIRST_RANGE_DB;
                if (share <= 0) {
                    continue;
                }
                double jnd = Math.abs(theirs[k][f] - mine[k][f]) / JndThresholds.USUAL.noiseDb();
                double y = 2 + f * height;
                double own = Math.max(0, 1 + mine[k][f] / FIRST_RANGE_DB);
                g.setFill(Palette.faint(Palette.of(g).recording(), 0.05 + 0.6 * own));
                g.fillRect(left, y, right - left + 0.3, height + 0.3);
                if (jnd > 2) {
                    g.setFill(Palette.faint(Palette.of(g).audible(), Math.min(0.85, 0.1 * jnd * Math.min(1, share))));
                    g.fillRect(left, y, right - left + 0.3, height + 0.3);
                }
            }
        }
        s.line(2 + 0.005 / (FIRST_SECONDS + 0.005) * (s.h() - 4), "0 ms");
        s.line(2 + 0.055 / (FIRST_SECONDS + 0.005) * (s.h() - 4), "50 ms");
    }

    private void brightness(StripGround s) {
        if (recording == null || imitation == null) {
            return;
        }
        if (pathRecording == null) {
            pathRecording = BrightnessPath.of(recording.clip(), recording.measurement());
            pathImitation = BrightnessPath.of(imitation.clip(), imitation.measurement());
        }
        int last = Math.max(StripGround.lastClear(pathRecording), 2);
        GraphicsContext g = s.g();
        double jnd = JndThresholds.USUAL.brightnessBark();
        g.setFill(Palette.faint(Palette.of(g).within(), 0.28));
        double step = (s.foot() - s.top()) / last;
        for (int f = 0; f < last; f++) {
            double hz = pathRecording.centroidHz()[f];
            if (hz > 0) {
                double left = Math.max(StripGround.LEFT, s.x(Bark.hz(Math.max(0.3, Bark.of(hz) - jnd))));
                double right = Math.min(s.right(), s.x(Bark.hz(Bark.of(hz) + jnd)));
                g.fillRect(left, s.top() + f * step, Math.max(1, right - left), step + 0.3);
            }
        }
        g.setStroke(Palette.of(g).recording());
        s.trace(pathRecording, last, last);
        g.setStroke(Palette.of(g).imitation());
        g.setLineDashes(6, 4);
        s.trace(pathImitation, Math.min(last, StripGround.lastClear(pathImitation)), last);
        g.setLineDashes();
        s.quarters(last * pathRecording.hopSeconds());
    }

    /** Burst of the strike per critical band, over all of its spans, against the strongest partial. */
    private void noise(StripGround s) {
        StrikeBands mine = recording == null ? null : recording.measurement().strikeBands();
        StrikeBands theirs = imitation == null ? null : imitation.measurement().strikeBands();
        if (mine == null || theirs == null || recording.measurement().held() != null) {
            s.instead("Noise: shown for what is struck or plucked.");
            return;
        }
        double low = NOISE_LOWEST_DB;
        double high = -10;
        for (int b = 0; b < Bark.BANDS; b++) {
            high = Math.max(high, Math.max(burstDb(mine, b), burstDb(theirs, b)) + 4);
        }
        s.levels(low, high, 20);
        GraphicsContext g = s.g();
        for (int b = 0; b < Bark.BANDS; b++) {
            double left = Math.max(StripGround.LEFT, s.x(Math.max(20, Bark.edgeHz(b))));
            double right = Math.min(s.right(), s.x(Bark.edgeHz(b + 1)));
            double db = burstDb(mine, b);
            double other = burstDb(theirs, b);
            if (right - left < 2) {
                continue;
            }
            double jnd = JndThresholds.USUAL.noiseDb();
            if (db > low) {
                g.setFill(Palette.faint(Palette.of(g).within(), 0.28));
                double top = s.y(Math.min(high, db + jnd), low, high);
                g.fillRect(left + 1, top, right - left - 2, s.y(Math.max(low, db - jnd), low, high) - top);
                g.setStroke(Palette.of(g).recording());
                g.setLineWidth(2);
                g.strokeLine(left + 1, s.y(db, low, high), right - 1, s.y(db, low, high));
            }
            if (other > low) {
                g.setStroke(
                        Math.abs(other - db) > 2 * jnd
                                ? Palette.of(g).audible()
                                : Palette.of(g).imitation());
                g.setLineWidth(2);
                g.setLineDashes(4, 3);
                g.strokeLine(left + 1, s.y(other, low, high), right - 1, s.y(other, low, high));
                g.setLineDashes();
            }
        }
    }

    private static double burstDb(StrikeBands bands, int band) {
        double sum = 0;
        double seconds = 0;
        for (int k = 0; k < bands.spans(); k++) {
            sum += bands.burst()[k][band] * bands.spanSeconds(k);
            seconds += bands.spanSeconds(k);
        }
        return 10 * Math.log10(sum / seconds + 1e-12);
    }

    private void decays(StripGround s) {
        double least = Double.POSITIVE_INFINITY;
        double most = 0;
        for (PartialDifference d : comparison.partials()) {
            for (Partial p : new Partial[] {d.recording(), d.imitation()}) {
                if (p != null && p.t60Seconds() != null) {
                    least = Math.min(least, p.t60Seconds());
                    most = Math.max(most, p.t60Seconds());
                }
            }
        }
        if (most <= 0) {
            s.instead("A held note: none of its partials dies by itself. Level, brightness and noise tell it apart.");
            return;
        }
        double low = Math.log(least / 1.6);
        double high = Math.log(most * 1.6);
        s.times(low, high);
        for (PartialDifference d : comparison.partials()) {
            double x = s.x(d.either().frequencyHz());
            if (!s.visible(x)) {
                continue;
            }
            Double r = d.recording() == null ? null : d.recording().t60Seconds();
            Double i = d.imitation() == null ? null : d.imitation().t60Seconds();
            if (r != null) {
                double top = s.y(Math.log(r * JndThresholds.USUAL.decayLonger()), low, high);
                double foot = s.y(Math.log(r * JndThresholds.USUAL.decayShorter()), low, high);
                s.within(x, top, foot);
                s.mark(x, s.y(Math.log(r), low, high), d.recording().equals(selected.get()));
            }
            if (i != null) {
                s.ring(x, s.y(Math.log(i), low, high), d.weight() * d.decayJnd() > 1);
            }
        }
    }

    private void levels(StripGround s) {
        double most = 4;
        for (PartialDifference d : comparison.partials()) {
            most = Math.max(most, Math.min(20, Math.abs(d.levelDb())));
        }
        double reach = most * 1.1;
        s.levels(-reach, reach, most > 10 ? 10 : most > 5 ? 5 : 2);
        for (PartialDifference d : comparison.partials()) {
            double x = s.x(d.either().frequencyHz());
            if (s.visible(x)) {
                double jnd = JndThresholds.USUAL.levelDb();
                s.within(x, s.y(jnd, -reach, reach), s.y(-jnd, -reach, reach));
                if (d.recording() != null) {
                    s.mark(x, s.y(0, -reach, reach), d.recording().equals(selected.get()));
                }
                double db = Math.max(-reach, Math.min(reach, d.levelDb()));
                s.ring(x, s.y(db, -reach, reach), d.weight() * d.levelJnd() > 1);
            }
        }
    }
}
