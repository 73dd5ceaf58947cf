package nightreed.desktop.stage.build;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nightreed.desktop.shape.EnvelopeDrawing;
import nightreed.desktop.shape.ExciterDrawing;
import nightreed.desktop.shape.LfoDrawing;
import nightreed.desktop.shape.RecordedLevel;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;

/** The envelopes, LFOs and strikes of a group of values as drawings, one at a time. */
final class DrawnParts extends VBox {
    private final Workspace bench;
    private final Runnable again;
    private final EnvelopeDrawing envelope = new EnvelopeDrawing();
    private final LfoDrawing lfo = new LfoDrawing();
    private final ExciterDrawing exciter = new ExciterDrawing();
    private final StackPane place = new StackPane(envelope, lfo, exciter);
    private final FlowPane choices = new FlowPane(2, 0);
    private final ToggleGroup which = new ToggleGroup();
    private List<String> shown = List.of();
    private String chosen;
    private AnalysedSound levelOf;
    private RecordedLevel level;

    /** @param again fills anew, when another part is chosen */
    DrawnParts(Workspace bench, Runnable again) {
        super(2);
        this.again = again;
        this.bench = bench;
        place.setMinHeight(92);
        place.setPrefHeight(124);
        getChildren().addAll(choices, place);
    }

    /** Shows the parts of a group; hides itself if there is none. @param shows whether values that begin so are wanted */
    void fill(WorkspaceState s, Group group, Predicate<String> shows) {
        Record recipe = (Record) s.recipe();
        List<ParameterAccess.Found<?>> all = new ArrayList<>();
        all.addAll(ParameterAccess.parts(recipe, Exciter.class));
        all.addAll(ParameterAccess.parts(recipe, Envelope.class));
        all.addAll(ParameterAccess.parts(recipe, Lfo.class));
        all.removeIf(f -> f.group() != group || !shows.test(f.id() + "."));
        setVisible(!all.isEmpty());
        setManaged(!all.isEmpty());
        if (all.isEmpty()) {
            return;
        }
        choices(all.stream().map(f -> f.id()).toList(), all);
        ParameterAccess.Found<?> f =
                all.stream().filter(q -> q.id().equals(chosen)).findFirst().orElse(all.get(0));
        envelope.setVisible(f.part() instanceof Envelope);
        lfo.setVisible(f.part() instanceof Lfo);
        exciter.setVisible(f.part() instanceof Exciter);
        if (f.part() instanceof Envelope e) {
            boolean whole = f.id().equals("amp"); // others are no levels
            envelope.show(
                    title(f), f.id() + ".", e, s.recipe(), whole ? level(s.recording()) : null, bench.shaping()::set);
        } else if (f.part() instanceof Lfo l) {
            lfo.show(
                    title(f),
                    f.id() + ".",
                    l,
                    s.recipe(),
                    bench.shaping()::set,
                    (points, done) -> corners(l, points, done));
        } else if (f.part() instanceof Exciter e) {
            exciter.show(
                    e, s.recipe(), s.recording() == null ? null : s.recording().measurement(), bench.shaping()::set);
        }
    }

    /** Beginning of the ids of what is drawn; empty if nothing is, or if it is all of the group. */
    String drawn() {
        return !isManaged() || chosen == null || exciter.isVisible() ? "" : chosen + ".";
    }

    private static String title(ParameterAccess.Found<?> f) {
        return f.part() instanceof Exciter ? "strike" : f.name().isEmpty() ? "level" : f.name();
    }

    private void choices(List<String> ids, List<ParameterAccess.Found<?>> all) {
        if (ids.equals(shown)) {
            return;
        }
        shown = ids;
        choices.getChildren().clear();
        if (!ids.contains(chosen)) {
            chosen = ids.get(0);
        }
        for (ParameterAccess.Found<?> f : all) {
            ToggleButton b = new ToggleButton(title(f));
            b.getStyleClass().add("plain-toggle");
            b.setId("drawn-" + f.id());
            b.setToggleGroup(which);
            b.setSelected(f.id().equals(chosen));
            b.setOnAction(e -> {
                b.setSelected(true);
                chosen = f.id();
                again.run();
            });
            choices.getChildren().add(b);
        }
        choices.setVisible(all.size() > 1);
        choices.setManaged(all.size() > 1);
    }

    private RecordedLevel level(AnalysedSound recording) {
        if (!Objects.equals(recording, levelOf)) {
            levelOf = recording;
            level = recording == null ? null : new RecordedLevel(recording);
        }
        return level;
    }

    private void corners(Lfo was, List<Double> points, boolean settled) {
        Lfo next = new Lfo(
                was.shape(),
                was.rate(),
                was.per(),
                was.startDegrees(),
                was.delaySeconds(),
                was.fadeSeconds(),
                was.duty(),
                was.edge(),
                was.free(),
                was.common(),
                points);
        Recipe now = bench.state().recipe();
        bench.shaping().shape((Recipe) ParameterAccess.exchanged((Record) now, was, next), "zigzag drawn", settled);
    }
}
