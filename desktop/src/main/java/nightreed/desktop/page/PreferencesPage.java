package nightreed.desktop.page;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.DoubleFunction;
import java.util.function.ToDoubleFunction;
import java.util.function.UnaryOperator;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.device.SoundOut;
import nightreed.match.hearing.JndThresholds;

/** Preferences; what is changed takes effect at once. */
public final class PreferencesPage extends Page {
    private static final String SYSTEM = "the system's own choice";

    private final PreferenceStore store;
    private final SoundOut sound;
    private final List<Runnable> refresh = new ArrayList<>();
    private final ComboBox<String> output = new ComboBox<>();
    private boolean showing;
    private Node first;

    public PreferencesPage(PreferenceStore store, SoundOut sound, Runnable leave) {
        super("Preferences", leave);
        this.store = store;
        this.sound = sound;
        VBox box = new VBox(10, look(), soundPart(), pitch(), hearing());
        box.setPadding(new Insets(6, 10, 20, 0));
        box.setMaxWidth(860);
        setContents(box);
        store.currentProperty().addListener((o, a, b) -> show());
        show();
    }

    private void show() {
        showing = true;
        refresh.forEach(Runnable::run);
        showing = false;
    }

    private void change(UnaryOperator<Preferences> how) {
        if (!showing) {
            store.change(how);
        }
    }

    @Override
    public void arrive() {
        List<String> names = new ArrayList<>(List.of(SYSTEM));
        names.addAll(sound.names());
        String wanted = store.get().output();
        if (wanted != null && !names.contains(wanted)) {
            names.add(wanted); // unplugged for now
        }
        showing = true;
        output.getItems().setAll(names);
        showing = false;
        show();
        first.requestFocus();
    }

    private <T> HBox choices(
            String what,
            List<T> values,
            java.util.function.Function<T, String> title,
            java.util.function.Function<Preferences, T> get,
            java.util.function.BiFunction<Preferences, T, Preferences> set) {
        ToggleGroup group = new ToggleGroup();
        HBox row = row(what);
        for (T v : values) {
            ToggleButton b = new ToggleButton(title.apply(v));
            b.getStyleClass().add("plain-toggle");
            b.setToggleGroup(group);
            b.setAccessibleText(what + ": " + title.apply(v));
            b.setId("prefer-" + title.apply(v).toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-"));
            b.setOnAction(e -> {
                b.setSelected(true);
                change(p -> set.apply(p, v));
            });
            refresh.add(() -> b.setSelected(get.apply(store.get()).equals(v)));
            first = first == null ? b : first;
            row.getChildren().add(b);
        }
        return row;
    }

    private VBox look() {
        return new VBox(
                6,
                heading("Look"),
                choices(
                        "look",
                        List.of(Look.values()),
                        l -> l == Look.NIGHT ? "Night" : "Day",
                        Preferences::look,
                        Preferences::withLook),
                choices(
                        "size",
                        List.of(100, 125, 150, 175, 200),
                        s -> s + " %",
                        Preferences::scalePercent,
                        Preferences::withScalePercent),
                quiet("The size takes effect when Night Reed is started again."),
                choices(
                        "pictures start with",
                        List.of(Axis.Kind.values()),
                        Axis.Kind::title,
                        Preferences::axis,
                        Preferences::withAxis));
    }

    private VBox soundPart() {
        output.setId("prefer-output");
        output.setAccessibleText("Sound output");
        output.setOnAction(e -> {
            String name = output.getValue();
            if (name != null) {
                change(p -> p.withOutput(name.equals(SYSTEM) ? null : name, p.blockSamples()));
            }
        });
        refresh.add(() -> output.setValue(
                store.get().output() == null ? SYSTEM : store.get().output()));
        return new VBox(
                6,
                heading("Sound"),
                row("output", output),
                choices(
                        "samples at a time",
                        Preferences.BLOCKS,
                        String::valueOf,
                        Preferences::blockSamples,
                        (p, b) -> p.withOutput(p.output(), b)),
                quiet("Fewer are heard sooner, more are safer on a busy machine: 256 samples last 5 ms."));
    }

    private VBox pitch() {
        return new VBox(
                6,
                heading("Pitch and tempo"),
                row(
                        "A4",
                        number(
                                "prefer-a4",
                                "Pitch of A4 in Hz",
                                400,
                                480,
                                p -> p.referenceHz(),
                                v -> p -> p.withReferenceHz(v)),
                        quiet("Hz, 400 to 480")),
                row(
                        "tempo",
                        number(
                                "prefer-tempo",
                                "Tempo in quarters a minute",
                                20,
                                400,
                                p -> p.tempoBpm(),
                                v -> p -> p.withTempoBpm(v)),
                        quiet("quarters a minute: rates and delays are named as note values at it")));
    }

    private VBox hearing() {
        GridPane grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(5);
        int r = 0;
        for (JndThresholds.Threshold t : JndThresholds.thresholds()) {
            TextField f = number(
                    "prefer-" + t.id(),
                    t.title() + " in " + t.unit(),
                    t.least(),
                    t.most(),
                    p -> t.get().applyAsDouble(p.hearing()),
                    v -> p -> p.withHearing(t.set().apply(p.hearing(), v)));
            Label name = new Label(t.title());
            name.getStyleClass().add("body");
            name.setMinWidth(190);
            grid.addRow(r++, name, f, quiet(t.unit()), quiet(t.source()));
        }
        Button usual = new Button("Back to the usual ones");
        usual.setId("prefer-usual-hearing");
        usual.setOnAction(e -> change(p -> p.withHearing(JndThresholds.USUAL)));
        return new VBox(
                6,
                heading("What is heard"),
                quiet("One just-noticeable difference, and the level at which playback is assumed."),
                grid,
                usual);
    }

    private TextField number(
            String id,
            String what,
            double least,
            double most,
            ToDoubleFunction<Preferences> get,
            DoubleFunction<UnaryOperator<Preferences>> set) {
        TextField f = new TextField();
        f.setId(id);
        f.setPrefColumnCount(6);
        f.setAccessibleText(what);
        Runnable back = () -> f.setText(shortly(get.applyAsDouble(store.get())));
        Runnable typed = () -> {
            try {
                double v = Double.parseDouble(f.getText().trim().replace(',', '.'));
                if (v >= least && v <= most && !shortly(v).equals(shortly(get.applyAsDouble(store.get())))) {
                    change(set.apply(v));
                }
            } catch (NumberFormatException e) {
                f.setPromptText(least + " to " + most);
            }
            back.run(); // what cannot be is put back
        };
        f.setOnAction(e -> typed.run());
        f.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                typed.run();
            }
        });
        refresh.add(back);
        return f;
    }

    private static String shortly(double v) {
        String s = String.format(Locale.ROOT, "%.4f", v);
        return s.replaceFirst("\\.?0+$", "");
    }
}
