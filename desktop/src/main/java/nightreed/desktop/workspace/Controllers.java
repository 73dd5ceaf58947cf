package nightreed.desktop.workspace;

import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;

/**
 * Controllers of a MIDI device that move values of whatever recipe is on the bench. A value is taught a controller by turning
 * it; a turn becomes one step of the history once the hand rests. UI thread, but for {@link #turned}.
 */
public final class Controllers {
    private static final long REST_MILLIS = 400;

    private final Workspace bench;
    private final Executor ui;
    private final Executor later;
    private final Map<Integer, Double> waiting = new ConcurrentHashMap<>(); // newest value of each, not yet taken
    private final ReadOnlyObjectWrapper<Map<Integer, String>> taught = new ReadOnlyObjectWrapper<>(Map.of());
    private final SimpleObjectProperty<Parameter> learning = new SimpleObjectProperty<>();
    private int turns;

    Controllers(Workspace bench, Executor ui) {
        this.bench = bench;
        this.ui = ui;
        this.later = CompletableFuture.delayedExecutor(REST_MILLIS, TimeUnit.MILLISECONDS, ui);
    }

    /** Ids of values by the controller that moves each. */
    public ReadOnlyObjectProperty<Map<Integer, String>> taughtProperty() {
        return taught.getReadOnlyProperty();
    }

    /** Puts known ones back. */
    public void load(Map<Integer, String> controls) {
        taught.set(Map.copyOf(controls));
    }

    /** The value that waits for a controller to be turned, null if none does. */
    public ReadOnlyObjectProperty<Parameter> learningProperty() {
        return learning;
    }

    /** The next controller that is turned will move this value. @param value null to wait no longer */
    public void learn(Parameter value) {
        learning.set(value);
        if (value != null) {
            bench.say("Turn the controller that is to move " + value.name() + " now. Esc leaves it as it was.");
        }
    }

    /** No controller moves the value any more. */
    public void forget(String id) {
        Map<Integer, String> next = new TreeMap<>(taught.get());
        next.values().removeIf(id::equals);
        taught.set(Map.copyOf(next));
    }

    /** Number of the controller that moves a value, null if there is none. */
    public Integer of(String id) {
        for (Map.Entry<Integer, String> e : taught.get().entrySet()) {
            if (e.getValue().equals(id)) {
                return e.getKey();
            }
        }
        return null;
    }

    /** Any thread. @param controller 0 to 119 @param value 0 to 1 */
    public void turned(int controller, double value) {
        if (waiting.put(controller, value) == null) { // or one is on its way already, and will find the newer value
            ui.execute(() -> take(controller));
        }
    }

    private void take(int controller) {
        Double value = waiting.remove(controller);
        if (value == null) {
            return;
        }
        Parameter wanted = learning.get();
        if (wanted != null) {
            learning.set(null);
            Map<Integer, String> next = new TreeMap<>(taught.get());
            next.values().removeIf(wanted.id()::equals);
            next.put(controller, wanted.id());
            taught.set(Map.copyOf(next));
            bench.say("Controller " + controller + " moves " + wanted.name() + " from now on.");
            return;
        }
        Parameter moved = parameter(taught.get().get(controller));
        if (moved != null) {
            double to = moved.at(value);
            bench.shaping().set(moved, to, false);
            int mine = ++turns;
            later.execute(() -> rest(mine, moved, to));
        }
    }

    private void rest(int mine, Parameter moved, double to) {
        if (mine == turns && parameter(moved.id()) != null) {
            bench.shaping().set(moved, to, true);
        }
    }

    private Parameter parameter(String id) {
        Recipe r = bench.state().recipe();
        if (r == null || id == null) {
            return null;
        }
        return r.settings().stream()
                .map(Recipe.Setting::parameter)
                .filter(p -> p.id().equals(id))
                .findFirst()
                .orElse(null);
    }
}
