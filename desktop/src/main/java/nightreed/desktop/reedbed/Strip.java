package nightreed.desktop.reedbed;

import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.GraphicsContext;
import nightreed.desktop.drawing.Drawing;
import nightreed.match.Comparison;
import nightreed.match.Hearing;
import nightreed.match.PartialDifference;
import nightreed.measure.Partial;

/**
 * Under the bed, on the same axis: one thing exactly, for recording and imitation together, with the span of one JND
 * shaded.
 */
public final class Strip extends Drawing {
    /** What the strip shows. */
    public enum Shows {
        T60("T60"),
        LEVEL("Level");

        private final String title;

        Shows(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    private final SimpleObjectProperty<Partial> selected;
    private Comparison comparison;
    private Axis axis;
    private Shows shows = Shows.T60;

    public Strip(SimpleObjectProperty<Partial> selected) {
        this.selected = selected;
        setAccessibleRole(AccessibleRole.IMAGE_VIEW);
        setAccessibleText("Decay or level of each partial, recording against imitation");
        selected.addListener((o, a, b) -> redraw());
    }

    public void setComparison(Comparison c) {
        comparison = c;
        redraw();
    }

    public void setAxis(Axis a) {
        axis = a;
        redraw();
    }

    public void show(Shows what) {
        shows = what;
        redraw();
    }

    @Override
    protected void paint(GraphicsContext g, double w, double h) {
        ground(g, w, h);
        if (axis == null || comparison == null || w < 40 || h < 30) {
            return;
        }
        StripGround s = new StripGround(g, axis, w, h);
        if (shows == Shows.T60) {
            decays(s);
        } else {
            levels(s);
        }
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
                double top = s.y(Math.log(r * Hearing.USUAL.decayLonger()), low, high);
                double foot = s.y(Math.log(r * Hearing.USUAL.decayShorter()), low, high);
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
                double jnd = Hearing.USUAL.levelDb();
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
