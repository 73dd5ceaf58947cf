package nightreed.desktop.stage;

import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nightreed.desktop.bench.Bench;
import nightreed.desktop.bench.BenchState;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.match.Side;
import nightreed.measure.Hand;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.measure.PartialSounds;
import nightreed.measure.StrikeNote;
import nightreed.sound.Clip;
import nightreed.sound.TimeStretch;

/** Measure: what the recording is made of. */
public final class MeasureView implements StageView {
    /** Small pictures beside the table. */
    private enum Picture {
        DECAY("decay", "How the chosen partial dies"),
        FIRST("100 ms", "The first 100 ms"),
        BRIGHTNESS("brightness", "The centroid over time"),
        PITCH("pitch", "The pitch of a held note over time");

        private final String title;
        private final String help;

        Picture(String title, String help) {
            this.title = title;
            this.help = help;
        }
    }

    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final Bench bench;
    private final PreferenceStore preferences;
    private final Waveform waveform;
    private final Reedbed bed;
    private final DecayPlot decay = new DecayPlot();
    private final PathPlot path = new PathPlot();
    private final PartialTable table = new PartialTable();
    private final ToggleGroup pictures = new ToggleGroup();
    private final Button leaveOut = new Button("Leave out (Delete)");
    private final TextField takeIn = new TextField();
    private final Button fit = new Button("Fit an imitation");
    private final List<Button> listening;
    private Picture picture = Picture.DECAY;
    private Side shown;
    private Hand shownHand = Hand.NONE;

    public MeasureView(Bench bench, PreferenceStore preferences) {
        this.bench = bench;
        this.preferences = preferences;
        this.waveform = new Waveform(bench::measureNote);
        this.bed = new Reedbed(bench.selectedProperty());
        bed.setEmptyText("No recording yet: bring one in on the Brief stage.");
        bed.setId("measure-bed");
        waveform.setMinHeight(84);
        waveform.setPrefHeight(84);
        bed.setPrefHeight(280);
        bed.setMinHeight(150);
        VBox.setVgrow(bed, Priority.ALWAYS);
        HBox below = new HBox(8, pictures(), partials());
        below.setPrefHeight(252);
        below.setMinHeight(190);
        centre.getChildren().addAll(waveform, bed, below);
        table.getSelectionModel().selectedItemProperty().addListener((o, a, p) -> {
            if (p != null) {
                bench.selectedProperty().set(p);
            }
        });
        bench.selectedProperty().addListener((o, a, p) -> select(p));
        fit.getStyleClass().add("accent-button");
        fit.setId("measure-fit");
        fit.setOnAction(e -> bench.fit());
        listening = List.of(
                listen("this partial", "1", "listen-partial", () -> sound(selectedOnly())),
                listen(
                        "all partials together",
                        "2",
                        "listen-partials",
                        () -> sound(measured().reliablePartials())),
                listen("what is left without them", "3", "listen-rest", () -> PartialSounds.rest(clip(), measured())),
                listen("half speed", "4", "listen-half", () -> TimeStretch.slower(clip(), 2)),
                listen("quarter speed", "5", "listen-quarter", () -> TimeStretch.slower(clip(), 4)));
    }

    // ---- what stands in the centre ----

    private VBox pictures() {
        HBox tabs = new HBox(2);
        for (Picture p : Picture.values()) {
            ToggleButton b = new ToggleButton(p.title);
            b.getStyleClass().add("plain-toggle");
            b.setId("picture-" + p.name().toLowerCase(Locale.ROOT));
            b.setMinWidth(Region.USE_PREF_SIZE);
            b.setAccessibleText(p.help);
            b.setTooltip(new Tooltip(p.help));
            b.setToggleGroup(pictures);
            b.setSelected(p == picture);
            b.setOnAction(e -> {
                b.setSelected(true); // one is always on
                picture = p;
                draw();
            });
            tabs.getChildren().add(b);
        }
        StackPane one = new StackPane(decay, path);
        one.setMinHeight(80);
        VBox.setVgrow(one, Priority.ALWAYS);
        VBox box = new VBox(4, tabs, one);
        box.setPrefWidth(350);
        box.setMinWidth(220);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private VBox partials() {
        leaveOut.setId("leave-out");
        leaveOut.getStyleClass().add("link");
        leaveOut.setMinWidth(Region.USE_PREF_SIZE);
        leaveOut.setOnAction(e -> leaveOutOrBack());
        takeIn.setId("take-in");
        takeIn.setPromptText("Hz");
        takeIn.setPrefColumnCount(5);
        takeIn.setAccessibleText("Frequency of a partial to take in, in Hz");
        takeIn.setOnAction(e -> takeIn());
        Button take = new Button("Take in");
        take.setId("take-in-button");
        take.getStyleClass().add("link");
        take.setMinWidth(Region.USE_PREF_SIZE);
        take.setOnAction(e -> takeIn());
        HBox hand = new HBox(6, leaveOut, Parts.gap(), Parts.quiet("missing one near"), takeIn, take);
        hand.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(table, Priority.ALWAYS);
        table.setMinHeight(80);
        table.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.DELETE) {
                leaveOutOrBack();
                e.consume();
            }
        });
        VBox box = new VBox(4, hand, table);
        box.setPrefWidth(500);
        box.setMinWidth(430);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private void draw() {
        boolean one = picture == Picture.DECAY;
        decay.setVisible(one);
        path.setVisible(!one);
        Drawing.freshen(one ? decay : path);
        if (shown == null) {
            decay.show(null, null, null);
            path.show(null);
            return;
        }
        switch (picture) {
            case DECAY -> {
                Partial p = bench.selectedProperty().get();
                String name = table.name(p);
                decay.show(shown, p, name.isEmpty() ? null : name);
            }
            case FIRST -> path.show(MeasuredPaths.first(shown));
            case BRIGHTNESS -> path.show(MeasuredPaths.brightness(shown));
            case PITCH -> path.show(MeasuredPaths.pitch(shown.measurement()));
        }
    }

    private void select(Partial p) {
        if (p != null && !p.equals(table.getSelectionModel().getSelectedItem())) {
            table.getSelectionModel().select(p);
            table.scrollTo(p);
        }
        boolean out = p != null && bench.state().snapshot().hand().leavesOut(p);
        leaveOut.setText(out ? "Take back (Delete)" : "Leave out (Delete)");
        leaveOut.setDisable(p == null);
        if (picture == Picture.DECAY) {
            draw();
        }
    }

    // ---- by hand ----

    private void leaveOutOrBack() {
        Partial p = bench.selectedProperty().get();
        if (p == null || shown == null) {
            return;
        }
        Hand hand = bench.state().snapshot().hand();
        String which = String.format(Locale.ROOT, "partial at %.1f Hz ", p.frequencyHz());
        if (hand.leavesOut(p)) {
            bench.decide(which + "taken back", hand.forget(p.frequencyHz()));
        } else {
            bench.decide(which + "left out", hand.leaveOut(p.frequencyHz()));
        }
    }

    private void takeIn() {
        try {
            double hz = Double.parseDouble(takeIn.getText().trim().replace(',', '.'));
            if (!(hz >= 20 && hz <= 20_000)) {
                throw new NumberFormatException();
            }
            bench.takeInNear(hz);
            takeIn.clear();
        } catch (NumberFormatException e) {
            bench.say(
                    "A frequency from 20 to 20000 Hz is needed to look for a partial, not '" + takeIn.getText() + "'.");
        }
    }

    // ---- listening ----

    private Button listen(String what, String key, String id, Supplier<Clip> sound) {
        Button b = new Button("▸  " + what + "  (" + key + ")");
        b.setId(id);
        b.getStyleClass().addAll("row", "listen");
        b.setMaxWidth(Double.MAX_VALUE);
        b.setAlignment(Pos.CENTER_LEFT);
        b.setAccessibleText("Listen to " + what);
        b.setOnAction(e -> bench.audition(what, sound));
        return b;
    }

    private Measurement measured() {
        return shown.measurement();
    }

    private Clip clip() {
        return shown.clip();
    }

    private List<Partial> selectedOnly() {
        Partial p = bench.selectedProperty().get();
        return p == null ? List.of() : List.of(p);
    }

    private Clip sound(List<Partial> partials) {
        return PartialSounds.of(clip(), measured(), partials);
    }

    @Override
    public boolean key(KeyEvent e) {
        int digit = e.getCode().isDigitKey()
                ? e.getCode().getName().charAt(e.getCode().getName().length() - 1) - '0'
                : 0;
        if (shown != null && digit >= 1 && digit <= listening.size()) {
            listening.get(digit - 1).fire();
            return true;
        }
        return false;
    }

    // ---- what is shown ----

    @Override
    public Node centre() {
        return centre;
    }

    @Override
    public Notes margin() {
        return margin;
    }

    @Override
    public void fill(BenchState s) {
        if (s.recording() == null) {
            shown = null;
            bed.setModel(BedModel.EMPTY);
            table.show(null, Hand.NONE);
            waveform.show(null);
            draw();
            margin.add(Notes.heading("What this is"), Notes.body("Nothing has been brought in yet."));
            return;
        }
        if (shown == null
                || s.recording().measurement() != shown.measurement()
                || !s.snapshot().hand().equals(shownHand)) {
            shown = s.recording();
            shownHand = s.snapshot().hand();
            waveform.show(shown);
            bed.setModel(BedModel.of(measured(), null, preferences.get().axis()));
            table.show(measured(), shownHand);
            select(bench.selectedProperty().get());
            draw();
        }
        notes(s);
    }

    private void notes(BenchState s) {
        Measurement m = measured();
        margin.add(Notes.heading("What this is"));
        for (String sentence : PlainWords.about(m)) {
            margin.add(Notes.body(sentence));
        }
        margin.add(Notes.space(4), Notes.heading("Also measured"));
        margin.add(Notes.pair(
                "offset",
                m.centsFromConcert() == null
                        ? "no pitch"
                        : String.format(
                                Locale.ROOT,
                                "%+.1f cents at A4 %.5s",
                                preferences.get().centsAtReference(m.centsFromConcert()),
                                preferences.get().referenceHz())));
        for (String[] pair : PlainWords.figures(m)) {
            margin.add(Notes.pair(pair[0], pair[1]));
        }
        for (String remark : m.remarks()) {
            margin.add(Notes.quiet(remark));
        }
        margin.add(Notes.space(4), Notes.heading("Listen to"));
        for (Button b : listening) {
            margin.add(Notes.of(b));
        }
        strikeNotes(s, m);
        if (s.recipe() == null) {
            margin.add(Notes.space(6), Notes.of(fit));
        }
    }

    /** Other pitches that the note may be heard at; one click takes one of them. */
    private void strikeNotes(BenchState s, Measurement m) {
        Hand hand = s.snapshot().hand();
        if (hand.strikeNoteHz() != null) {
            margin.add(Notes.of(choice(
                    "Strike note as measured", () -> bench.decide("strike note as measured", hand.strikeNote(null)))));
        } else if (m.strikeNotes().size() > 1 && m.strikeNotes().get(0).certainty() < 0.9) {
            for (StrikeNote n : m.strikeNotes().subList(1, m.strikeNotes().size())) {
                String text = String.format(Locale.ROOT, "Heard as %s (%.0f %%)", n.note(), 100 * n.certainty());
                margin.add(Notes.of(
                        choice(text, () -> bench.decide("strike note " + n.note(), hand.strikeNote(n.frequencyHz())))));
            }
        }
    }

    private static Button choice(String text, Runnable action) {
        Button b = new Button(text);
        b.getStyleClass().add("link");
        b.setOnAction(e -> action.run());
        return b;
    }
}
