package nightreed.desktop.stage.measure;

import java.util.Comparator;
import java.util.Locale;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import nightreed.desktop.workspace.Workspace;
import nightreed.measure.ManualCorrections;
import nightreed.measure.partial.Partial;

/** What a person does to the chosen partial: leave it out, lock it, take it apart or together with a neighbour. */
final class HandTools extends FlowPane {
    private final Workspace bench;
    private final Button leaveOut = button("leave-out", "Leave out", "Not part of the sound (Delete)");
    private final Button lock =
            button("lock-partial", "Lock", "It stays as it is, whatever is estimated again around it (Ctrl+L)");
    private final Button split =
            button("split-partial", "Take apart", "Two partials, or two stages, where one was found (Ctrl+D)");
    private final Button merge = button(
            "merge-partial", "Join to next", "One partial where two were found: this and the next one up (Ctrl+J)");
    private final TextField takeIn = new TextField();

    HandTools(Workspace bench) {
        super(2, 2);
        this.bench = bench;
        setAlignment(Pos.CENTER_LEFT);
        leaveOut.setOnAction(e -> leaveOutOrBack());
        lock.setOnAction(e -> lockOrFree());
        split.setOnAction(e -> split());
        merge.setOnAction(e -> merge());
        takeIn.setId("take-in");
        takeIn.setPromptText("Hz");
        takeIn.setPrefColumnCount(4);
        takeIn.setAccessibleText("Frequency of a missing partial to take in, in Hz");
        takeIn.setTooltip(new Tooltip("A partial is missing near so many Hz"));
        takeIn.setOnAction(e -> takeIn());
        Button take = button("take-in-button", "Take in", "Looks for a missing partial near the frequency");
        take.setOnAction(e -> takeIn());
        HBox missing = new HBox(2, takeIn, take);
        missing.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(leaveOut, lock, split, merge, missing);
        bench.selectedProperty().addListener((o, a, p) -> refresh());
        refresh();
    }

    private static Button button(String id, String text, String help) {
        Button b = new Button(text);
        b.setId(id);
        b.getStyleClass().add("link");
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setTooltip(new Tooltip(help));
        b.setAccessibleHelp(help);
        return b;
    }

    /** Has the buttons say what they would do to the partial that is chosen now. */
    void refresh() {
        Partial p = chosen();
        ManualCorrections hand = hand();
        boolean out = p != null && hand.leavesOut(p);
        boolean locked = p != null && hand.locks(p);
        boolean fixed = p == null || out || locked || p.t60Seconds() == null;
        leaveOut.setText(out ? "Take back" : "Leave out");
        leaveOut.setDisable(p == null);
        lock.setText(locked ? "Free" : "Lock");
        lock.setDisable(p == null || out);
        split.setDisable(fixed);
        merge.setDisable(fixed || next(p) == null);
    }

    private Partial chosen() {
        return bench.state().recording() == null
                ? null
                : bench.selectedProperty().get();
    }

    private ManualCorrections hand() {
        return bench.state().snapshot() == null
                ? ManualCorrections.NONE
                : bench.state().snapshot().hand();
    }

    private static String name(Partial p) {
        return String.format(Locale.ROOT, "partial at %.1f Hz ", p.frequencyHz());
    }

    void leaveOutOrBack() {
        Partial p = chosen();
        if (p != null && hand().leavesOut(p)) {
            bench.shaping().decide(name(p) + "taken back", hand().forget(p.frequencyHz()));
        } else if (p != null) {
            bench.shaping().decide(name(p) + "left out", hand().leaveOut(p.frequencyHz()));
        }
    }

    void lockOrFree() {
        Partial p = chosen();
        if (p != null && hand().locks(p)) {
            bench.shaping().decide(name(p) + "freed", hand().unlock(p.frequencyHz()));
        } else if (p != null) {
            bench.shaping().decide(name(p) + "locked", hand().lock(p.frequencyHz()));
        }
    }

    void split() {
        if (!split.isDisabled()) {
            Partial p = chosen();
            refit(
                    name(p) + "taken apart",
                    h -> h.split(p.frequencyHz()),
                    "No two partials are to be had here: one" + " decay explains the recording at this frequency.");
        }
    }

    void merge() {
        if (!merge.isDisabled()) {
            Partial p = chosen();
            Partial q = next(p);
            refit(
                    String.format(Locale.ROOT, "partials at %.1f and %.1f Hz joined", p.frequencyHz(), q.frequencyHz()),
                    h -> h.merge((p.frequencyHz() + q.frequencyHz()) / 2),
                    "The two lie too far apart to be one.");
        }
    }

    private void refit(String label, UnaryOperator<ManualCorrections> change, String otherwise) {
        bench.intake().refit(label, change.apply(hand()), otherwise);
    }

    /** The next reliable partial above, if it is close enough to be the same. */
    private Partial next(Partial p) {
        return p == null
                ? null
                : bench.state().recording().measurement().reliablePartials().stream()
                        .filter(q -> q.frequencyHz() > p.frequencyHz() && q.frequencyHz() < 1.06 * p.frequencyHz() + 20)
                        .min(Comparator.comparingDouble(Partial::frequencyHz))
                        .filter(q -> q.t60Seconds() != null && !hand().locks(q))
                        .orElse(null);
    }

    private void takeIn() {
        try {
            double hz = Double.parseDouble(takeIn.getText().trim().replace(',', '.'));
            if (!(hz >= 20 && hz <= 20_000)) {
                throw new NumberFormatException();
            }
            bench.intake().takeInNear(hz);
            takeIn.clear();
        } catch (NumberFormatException e) {
            bench.say(
                    "A frequency from 20 to 20000 Hz is needed to look for a partial, not '" + takeIn.getText() + "'.");
        }
    }
}
