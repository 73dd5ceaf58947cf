package nightreed.desktop.stage.measure;

import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.RecordingStrip;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.stage.StageView;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.PartialSounds;
import nightreed.measure.Typical;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.sound.Clip;
import nightreed.sound.TimeStretch;

/** Measure: what the recording is made of. */
public final class MeasureView implements StageView {
    /** Strike notes that are less likely are not offered. */
    private static final double LEAST_CERTAINTY = 0.005;

    private final VBox centre = new VBox(8);
    private final Notes margin = new Notes(6);
    private final Workspace bench;
    private final PreferenceStore preferences;
    private final Waveform waveform;
    private final Reedbed bed;
    private final RecordingStrip strip;
    private final PartialTable table = new PartialTable();
    private final ResidualNoise noise = new ResidualNoise();
    private final MeasurePictures pictures;
    private final HandTools hand;
    private final Button fit = new Button("Fit an imitation");
    private final Button measureSpan = new Button("Measure the chosen span");
    private final List<Button> listening;
    private RecordingStrip.Shows stripShows = RecordingStrip.Shows.T60;
    private AnalysedSound shown;
    private ManualCorrections shownHand = ManualCorrections.NONE;

    public MeasureView(Workspace bench, PreferenceStore preferences) {
        this.bench = bench;
        this.preferences = preferences;
        this.waveform = new Waveform(bench.intake()::note, this::spanChanged);
        this.bed = new Reedbed(bench.selectedProperty());
        this.strip = new RecordingStrip(bench.selectedProperty());
        this.pictures = new MeasurePictures(bench, table, noise);
        this.hand = new HandTools(bench);
        bed.setEmptyText("No recording yet: bring one in on the Brief stage.");
        bed.setId("measure-bed");
        bed.setOnAxis(strip::setAxis);
        strip.setId("measure-strip");
        waveform.setMinHeight(76);
        waveform.setPrefHeight(76);
        bed.setPrefHeight(240);
        bed.setMinHeight(140);
        strip.setMinHeight(66);
        strip.setPrefHeight(66);
        VBox.setVgrow(bed, Priority.ALWAYS);
        HBox below = new HBox(8, pictures, partials());
        HBox.setHgrow(pictures, Priority.ALWAYS);
        below.setPrefHeight(252);
        below.setMinHeight(190);
        centre.getChildren().addAll(waveform, bed, new VBox(2, stripChoice(), strip), below);
        table.getSelectionModel().selectedItemProperty().addListener((o, a, p) -> {
            if (p != null) {
                bench.selectedProperty().set(p);
            }
        });
        bench.selectedProperty().addListener((o, a, p) -> select(p));
        fit.getStyleClass().add("accent-button");
        fit.setId("measure-fit");
        fit.setOnAction(e -> bench.fitting().fit());
        measureSpan.getStyleClass().add("link");
        measureSpan.setId("measure-span");
        measureSpan.setOnAction(e -> bench.intake().part(waveform.span()[0], waveform.span()[1]));
        listening = List.of(
                listen("the chosen partials", "1", "listen-partial", () -> sound(chosen())),
                listen(
                        "all partials together",
                        "2",
                        "listen-partials",
                        () -> sound(measured().reliablePartials())),
                listen("what is left without them", "3", "listen-rest", () -> PartialSounds.rest(clip(), measured())),
                listen("the chosen span", "4", "listen-span", this::span),
                listen("half speed", "5", "listen-half", () -> TimeStretch.slower(span(), 2)),
                listen("quarter speed", "6", "listen-quarter", () -> TimeStretch.slower(span(), 4)));
        spanChanged();
    }

    // ---- what stands in the centre ----

    private HBox stripChoice() {
        ToggleGroup group = new ToggleGroup();
        HBox row = new HBox(2, NodeFactory.quiet("exactly:"));
        for (RecordingStrip.Shows s : RecordingStrip.Shows.values()) {
            ToggleButton b = new ToggleButton(s.title());
            b.getStyleClass().addAll("plain-toggle", "small-toggle");
            b.setId("strip-" + s.name().toLowerCase(Locale.ROOT));
            b.setAccessibleText(s.help());
            b.setTooltip(new Tooltip(s.help()));
            b.setToggleGroup(group);
            b.setSelected(s == stripShows);
            b.setOnAction(e -> {
                b.setSelected(true); // one is always on
                stripShows = s;
                strip.show(s);
                noiseInStrip();
            });
            row.getChildren().add(b);
        }
        Label caption = NodeFactory.figures("");
        caption.getStyleClass().add("strip-caption");
        caption.textProperty().bind(strip.captionProperty());
        row.getChildren().addAll(NodeFactory.gap(), caption);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void noiseInStrip() {
        if (stripShows == RecordingStrip.Shows.NOISE && shown != null) {
            noise.ask(shown, strip::setNoise);
        }
    }

    private VBox partials() {
        VBox.setVgrow(table, Priority.ALWAYS);
        table.setMinHeight(80);
        table.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        table.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.DELETE) {
                hand.leaveOutOrBack();
                e.consume();
            }
        });
        centre.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.isShortcutDown() && !e.isShiftDown() && !e.isAltDown()) {
                switch (e.getCode()) {
                    case L -> hand.lockOrFree();
                    case D -> hand.split();
                    case J -> hand.merge();
                    default -> {
                        return;
                    }
                }
                e.consume();
            }
        });
        VBox box = new VBox(4, hand, table);
        box.setPrefWidth(470);
        box.setMinWidth(430);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private void select(Partial p) {
        if (p != null && !table.getSelectionModel().getSelectedItems().contains(p)) {
            table.getSelectionModel().clearSelection();
            table.getSelectionModel().select(p);
            table.scrollTo(p);
        }
    }

    private void spanChanged() {
        boolean chosen = waveform != null && waveform.span() != null;
        measureSpan.setDisable(!chosen);
        if (listening != null) {
            listening.get(3).setDisable(!chosen);
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

    private List<Partial> chosen() {
        List<Partial> rows = table.getSelectionModel().getSelectedItems().stream()
                .filter(p -> p != null)
                .toList();
        Partial p = bench.selectedProperty().get();
        return !rows.isEmpty() ? rows : p == null ? List.of() : List.of(p);
    }

    /** The chosen span of the recording, or all of it. */
    private Clip span() {
        double[] s = waveform.span();
        double fs = clip().sampleRateHz();
        return s == null ? clip() : clip().span((int) (s[0] * fs), (int) Math.min(clip().length(), s[1] * fs));
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
    public void fill(WorkspaceState s) {
        if (s.recording() == null) {
            shown = null;
            bed.setModel(BedModel.EMPTY);
            table.show(null, ManualCorrections.NONE);
            waveform.show(null);
            strip.setRecording(null);
            pictures.show(null);
            hand.refresh();
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
            strip.setRecording(shown);
            noiseInStrip();
            select(bench.selectedProperty().get());
            pictures.show(shown);
            hand.refresh();
        }
        notes(s);
    }

    private void notes(WorkspaceState s) {
        Measurement m = measured();
        margin.add(Notes.heading("What this is"));
        if (m.typical() != null) {
            margin.add(Notes.body("Typical, not recorded: " + m.typical().words()
                    + ". Instruments of the family differ: partials by "
                    + Math.round(Typical.SPREAD_CENTS) + " cents, levels by " + Math.round(Typical.LEVEL_DB)
                    + " dB, decays and rises by half to twice."));
            m.typical().sources().forEach(source -> margin.add(Notes.quiet(source)));
        }
        for (String sentence : MeasurementText.about(m)) {
            margin.add(Notes.body(sentence));
        }
        margin.add(Notes.space(4), Notes.heading(m.typical() == null ? "Also measured" : "Also typical"));
        margin.add(Notes.pair("offset", offset(m)));
        for (String[] pair : MeasurementText.figures(m)) {
            margin.add(Notes.pair(pair[0], pair[1]));
        }
        for (String[] pair : MeasurementText.noteValues(m, preferences.get().tempoBpm())) {
            margin.add(Notes.pair(pair[0], pair[1]));
        }
        for (String remark : m.remarks()) {
            margin.add(Notes.quiet(remark));
        }
        margin.add(Notes.space(4), Notes.heading("Listen to"));
        for (Button b : listening) {
            margin.add(Notes.of(b));
        }
        margin.add(Notes.of(measureSpan));
        strikeNotes(s, m);
        if (s.recipe() == null) {
            margin.add(Notes.space(6), Notes.of(fit));
        }
    }

    private String offset(Measurement m) {
        if (m.centsFromConcert() == null) {
            return "no pitch";
        }
        double a4 = preferences.get().referenceHz();
        String cents =
                String.format(Locale.ROOT, "%+.1f cents", preferences.get().centsAtReference(m.centsFromConcert()));
        return a4 == 440 ? cents : String.format(Locale.ROOT, "%s at A4 %.1f", cents, a4);
    }

    /** Other pitches that the note may be heard at; one click takes one of them. */
    private void strikeNotes(WorkspaceState s, Measurement m) {
        ManualCorrections decided = s.snapshot().hand();
        if (decided.strikeNoteHz() != null) {
            margin.add(Notes.of(choice(
                    "Strike note as measured",
                    () -> bench.shaping().decide("strike note as measured", decided.strikeNote(null)))));
        } else if (m.strikeNotes().size() > 1 && m.strikeNotes().get(0).certainty() < 0.9) {
            for (StrikeNote n :
                    m.strikeNotes().subList(m.isChord() ? 0 : 1, m.strikeNotes().size())) {
                if (n.certainty() < LEAST_CERTAINTY) {
                    continue;
                }
                String text = String.format(Locale.ROOT, "Heard as %s (%.0f %%)", n.note(), 100 * n.certainty());
                margin.add(Notes.of(choice(
                        text,
                        () -> bench.shaping().decide("strike note " + n.note(), decided.strikeNote(n.frequencyHz())))));
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
