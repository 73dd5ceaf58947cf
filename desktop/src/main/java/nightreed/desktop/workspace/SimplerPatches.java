package nightreed.desktop.workspace;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.match.fit.FitOptions;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.hearing.Use;
import nightreed.project.Snapshot;
import nightreed.recipe.Recipe;

/** The patches that fits found for what is on the bench, from the simplest to the nearest, and the walk along them. UI thread. */
public final class SimplerPatches {
    private final Workspace bench;
    private final SimpleObjectProperty<Use> use = new SimpleObjectProperty<>(Use.ALONE);
    private final BooleanProperty oneMethod = new SimpleBooleanProperty();

    SimplerPatches(Workspace bench) {
        this.bench = bench;
    }

    /** What the imitation is for: how near the patch has to be that a fit puts on the bench. */
    public SimpleObjectProperty<Use> useProperty() {
        return use;
    }

    /** Whether only patches of the method on the bench are walked along. */
    public BooleanProperty oneMethodProperty() {
        return oneMethod;
    }

    /** What is walked along, null if there is nothing. */
    public Frontier line() {
        Frontier all = bench.state().patches();
        if (all == null) {
            return null;
        }
        Recipe now = bench.state().recipe();
        return oneMethod.get() && now != null ? all.by(now.method()) : Frontier.of(all.points());
    }

    /** Keeps what methods came to, beside what others came to before; the bench has it with what arrives next. Any thread. */
    void keep(WorkspaceState at, List<Found> results) {
        List<Point> points = new ArrayList<>();
        results.forEach(f -> points.addAll(f.frontier().points()));
        Long recording = at.snapshot().recordingId();
        bench.change(project -> {
            for (Point p : project.frontier(at.current(), recording)
                    .map(Frontier::points)
                    .orElse(List.of())) {
                if (results.stream().noneMatch(f -> f.method().equals(p.method()))) {
                    points.add(p);
                }
            }
            project.keepFrontier(at.current(), recording, new Frontier(points));
        });
    }

    /** Puts a patch on the bench; what is locked stays where it is. @param settled whether it stays */
    public void walkTo(Point p, boolean settled) {
        Snapshot now = bench.state().snapshot();
        if (now.isLayerLocked()) {
            bench.say("This layer is locked: choose another one, or set it free.");
            return;
        }
        Recipe r = now.recipe() == null || now.locked().isEmpty()
                ? p.recipe()
                : FitOptions.USUAL.keeping(now.recipe(), now.locked()).kept(p.recipe());
        bench.shaping()
                .shape(r, String.format(Locale.ROOT, "%s, %d values", MethodNames.of(p.method()), p.size()), settled);
    }

    /** The point on the bench, null if it is none of them. */
    public Point here() {
        Frontier all = line();
        Recipe now = bench.state().recipe();
        return all == null
                ? null
                : all.points().stream()
                        .filter(p -> p.recipe().equals(now))
                        .findFirst()
                        .orElse(null);
    }
}
