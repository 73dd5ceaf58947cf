package nightreed.desktop.page;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.Workspace;
import nightreed.machine.Feature;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.match.method.Starts;
import nightreed.recipe.Layer;

/** What the machine can do that has to play what is fitted; what is changed takes effect at once. */
public final class MachinePage extends Page {
    private static final String ANY = "any";
    private static final String NONE = "none";

    private final Workspace bench;
    private final TextField name = new TextField();
    private final Label plays = body();
    private final Label lacks = body(); // what the recipe on the bench needs and it does not have
    private final Map<Feature, HBox> rows = new EnumMap<>(Feature.class);
    private final List<Runnable> refresh = new ArrayList<>();
    private boolean showing;

    public MachinePage(Workspace bench, Runnable leave) {
        super("What your machine can do", leave);
        this.bench = bench;
        VBox left = new VBox(
                6,
                part("Bodies and strings", Feature.RESONATORS, Feature.BANDS, Feature.FOLLOWERS, Feature.LOOPS),
                part(
                        "Oscillators",
                        Feature.OSCILLATORS,
                        Feature.MODULATION,
                        Feature.FEEDBACK,
                        Feature.RING,
                        Feature.WAVES,
                        Feature.UNISON,
                        Feature.NOISE));
        VBox right = new VBox(
                6,
                part("Filters", Feature.FILTERS, Feature.SLOPES),
                part(
                        "Envelopes and movement",
                        Feature.ENVELOPES,
                        Feature.LFOS,
                        Feature.LFO_SHAPES,
                        Feature.KEY_TRACKING),
                new VBox(4, heading("What it can play"), plays, lacks));
        left.setPrefWidth(560);
        right.setPrefWidth(520);
        VBox all = new VBox(10, naming(), new HBox(30, left, right));
        all.setPadding(new Insets(6, 10, 20, 0));
        setContents(all);
        bench.fitting().machineProperty().addListener((o, was, is) -> show());
        bench.stateProperty().addListener((o, was, is) -> {
            if (isVisible() && was.snapshot() != is.snapshot()) {
                show();
            }
        });
        lacks.setId("machine-lacks");
        plays.setId("machine-plays");
        lacks.getStyleClass().setAll("lacking");
        show();
    }

    @Override
    public void arrive() {
        show();
        name.requestFocus();
    }

    private Machine machine() {
        return bench.fitting().machineProperty().get();
    }

    private void show() {
        showing = true;
        refresh.forEach(Runnable::run);
        showing = false;
        Machine m = machine();
        plays.setText("Yes: " + methods(m, true) + ". No: " + methods(m, false) + ".");
        List<Feature> missing = missing(m);
        lacks.setText(lack(m, missing));
        rows.forEach(
                (f, row) -> row.getChildren().get(0).getStyleClass().setAll(missing.contains(f) ? "lacking" : "body"));
    }

    private static String methods(Machine m, boolean can) {
        String all = Starts.METHODS.stream()
                .filter(method -> m.can(method) == can)
                .map(MethodNames::of)
                .collect(Collectors.joining(", "));
        return all.isEmpty() ? "none" : all;
    }

    private String lack(Machine m, List<Feature> missing) {
        boolean plays = bench.state().recipe() == null
                || bench.state().snapshot().patch().layers().stream()
                        .allMatch(l -> m.can(l.recipe().method()));
        if (!plays) {
            return "It cannot play the recipe on the bench.";
        }
        return missing.isEmpty()
                ? ""
                : "The recipe on the bench needs more: "
                        + missing.stream().map(Feature::title).collect(Collectors.joining(", ")) + ".";
    }

    /** What the recipe on the bench asks for and the machine does not have. */
    private List<Feature> missing(Machine m) {
        if (bench.state().recipe() == null) {
            return List.of();
        }
        return bench.state().snapshot().patch().layers().stream()
                .map(Layer::recipe)
                .filter(r -> m.can(r.method()))
                .flatMap(r -> m.missing(r).stream())
                .distinct()
                .toList();
    }

    private void change(Feature f, Object limit) {
        if (showing) {
            return;
        }
        Machine now = machine();
        boolean shipped = now.equals(Machine.ANY) || MachineJson.examples().contains(now);
        bench.fitting().on((shipped ? now.named("my machine") : now).with(f, limit));
    }

    private Node naming() {
        name.setId("machine-name");
        name.setAccessibleText("Name of the machine");
        name.setPrefColumnCount(20);
        refresh.add(() ->
                name.setText(machine().equals(Machine.ANY) ? "" : machine().name()));
        name.setPromptText("no limits");
        name.setOnAction(e -> rename());
        name.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                rename();
            }
        });
        Button unlimited = new Button("No limits");
        unlimited.setId("machine-unlimited");
        unlimited.setOnAction(e -> bench.fitting().on(Machine.ANY));
        Label says = quiet("What is changed takes effect at once: the next fit keeps to it. The menu of the fit button"
                + " writes it to a file, and reads others.");
        return new VBox(6, row("name", name, unlimited), says);
    }

    private void rename() {
        String typed = name.getText().trim();
        Machine now = machine();
        boolean same = typed.equals(now.name()) || typed.isEmpty() && now.equals(Machine.ANY);
        if (same || typed.isEmpty()) {
            show(); // it needs a name
            return;
        }
        bench.fitting().on(now.named(typed.substring(0, Math.min(60, typed.length()))));
    }

    private VBox part(String title, Feature... features) {
        VBox box = new VBox(4, heading(title));
        for (Feature f : features) {
            HBox row = row(f.title(), control(f));
            rows.put(f, row);
            box.getChildren().add(row);
        }
        return box;
    }

    private Node control(Feature f) {
        if (f.isCounted()) {
            return number(f);
        }
        return f.kinds().isEmpty() ? there(f) : kinds(f);
    }

    private Node number(Feature f) {
        ComboBox<String> box = new ComboBox<>();
        box.setId(id(f, ""));
        box.setAccessibleText("How many " + f.title());
        box.getItems().add(ANY);
        IntStream.rangeClosed(f.least(), f.most())
                .mapToObj(n -> n == 0 ? NONE : String.valueOf(n))
                .forEach(box.getItems()::add);
        refresh.add(() -> box.setValue(machine().has(f)));
        box.setOnAction(e -> {
            String chosen = box.getValue();
            change(f, chosen.equals(ANY) ? null : chosen.equals(NONE) ? 0 : Integer.valueOf(chosen));
        });
        return box;
    }

    private Node there(Feature f) {
        ToggleButton b = toggle("", f.title());
        b.setId(id(f, ""));
        refresh.add(() -> {
            b.setSelected(!Boolean.FALSE.equals(machine().limit(f)));
            b.setText(b.isSelected() ? "there" : "not there");
        });
        b.setOnAction(e -> change(f, b.isSelected() ? null : Boolean.FALSE));
        return b;
    }

    private Node kinds(Feature f) {
        HBox row = new HBox(2);
        for (Enum<?> kind : f.kinds()) {
            ToggleButton b = toggle(Machine.word(kind), f.title() + ": " + Machine.word(kind));
            b.setId(id(f, "-" + kind.name()));
            refresh.add(() -> b.setSelected(kindsOf(f).contains(kind)));
            b.setOnAction(e -> choose(f, kind, b.isSelected()));
            row.getChildren().add(b);
        }
        return row;
    }

    private void choose(Feature f, Enum<?> kind, boolean there) {
        Set<Object> kinds = new HashSet<>(kindsOf(f));
        if (there) {
            kinds.add(kind);
        } else {
            kinds.remove(kind);
        }
        try {
            change(f, kinds.size() == f.kinds().size() ? null : kinds);
        } catch (IllegalArgumentException noneLeft) {
            bench.say("A machine has one of the " + f.title()
                    + " at least: choose another before the last is taken away.");
            show();
        }
    }

    private Set<?> kindsOf(Feature f) {
        Object limit = machine().limit(f);
        return limit == null ? Set.copyOf(f.kinds()) : (Set<?>) limit;
    }

    private static ToggleButton toggle(String text, String spoken) {
        ToggleButton b = new ToggleButton(text);
        b.getStyleClass().add("plain-toggle");
        b.setAccessibleText(spoken);
        return b;
    }

    private static String id(Feature f, String kind) {
        return "machine-" + (f.name() + kind).toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static Label body() {
        Label l = new Label();
        l.getStyleClass().add("body");
        l.setWrapText(true);
        l.setMinHeight(Region.USE_PREF_SIZE);
        return l;
    }
}
