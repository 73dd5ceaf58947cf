package nightreed.desktop.stage.build;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.scene.control.Button;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.stage.FileChooser;
import javafx.stage.Window;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.files.OutputFile;
import nightreed.machine.Feature;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.match.advice.LimitCosts.Price;
import nightreed.recipe.Layer;
import nightreed.recipe.UnusableRecipe;

/** Which machine has to play what is fitted, and what its limits cost. */
final class MachineMenu {
    private static final String DESCRIPTIONS = "Descriptions of machines";
    private final Workspace bench;
    private final Runnable edit;
    private final Menu menu = new Menu();
    private final Button price = new Button("Work out what its limits cost");

    /** @param edit shows what the machine can do, to change it */
    MachineMenu(Workspace bench, Runnable edit) {
        this.bench = bench;
        this.edit = edit;
        menu.setId("machine-menu");
        price.setId("machine-price");
        price.getStyleClass().add("link");
        price.setOnAction(e -> bench.fitting().price());
        bench.fitting().machineProperty().addListener((o, was, is) -> fill());
        fill();
    }

    Menu menu() {
        return menu;
    }

    private void fill() {
        Machine now = bench.fitting().machineProperty().get();
        menu.setText(now.equals(Machine.ANY) ? "For a machine" : "For '" + now.name() + "'");
        menu.getItems().clear();
        menu.getItems().add(choice("no machine in particular", Machine.ANY));
        List<Machine> all = new ArrayList<>(MachineJson.examples());
        if (!now.equals(Machine.ANY) && !all.contains(now)) {
            all.add(0, now);
        }
        all.forEach(m -> menu.getItems().add(choice(m.name(), m)));
        MenuItem change = new MenuItem("What it can do …");
        change.setId("machine-edit");
        change.setOnAction(e -> edit.run());
        MenuItem open = new MenuItem("Read a description …");
        open.setId("machine-read");
        open.setOnAction(e -> read());
        MenuItem save = new MenuItem("Write this one to a file …");
        save.setId("machine-write");
        save.setOnAction(e -> write());
        menu.getItems().addAll(new SeparatorMenuItem(), change, open, save);
    }

    private MenuItem choice(String name, Machine m) {
        boolean now = m.equals(bench.fitting().machineProperty().get());
        MenuItem item = new MenuItem(now ? name + ", now" : name);
        item.setId("machine-" + name.toLowerCase(Locale.ROOT).replaceAll("[^a-z]+", "-"));
        item.setDisable(now);
        item.setOnAction(e -> bench.fitting().on(m));
        return item;
    }

    private Window window() {
        return price.getScene() == null ? null : price.getScene().getWindow();
    }

    private static FileChooser chooser(String title) {
        FileChooser c = new FileChooser();
        c.setTitle(title);
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter(DESCRIPTIONS, "*.json"));
        return c;
    }

    private void read() {
        File file = chooser("Read the description of a machine").showOpenDialog(window());
        if (file != null) {
            read(file);
        }
    }

    /** Takes a description over; one that cannot be used is told. */
    void read(File file) {
        bench.beside(
                () -> {
                    try {
                        return MachineJson.parse(Files.readString(file.toPath()), file.getName());
                    } catch (UnusableRecipe e) {
                        throw new IOException(e.getMessage(), e);
                    } catch (IOException e) {
                        throw new IOException(
                                file + " could not be read as text: choose the description of a machine.", e);
                    }
                },
                bench.fitting()::on,
                () -> {});
    }

    private void write() {
        FileChooser c = chooser("Write the description of a machine");
        c.setInitialFileName("my machine.json");
        File file = c.showSaveDialog(window());
        if (file != null) {
            Machine now = bench.fitting().machineProperty().get();
            Machine written = now.equals(Machine.ANY) ? MachineJson.examples().get(0) : now;
            bench.beside(
                    () -> {
                        OutputFile.write(file.toPath(), MachineJson.text(written));
                        return file;
                    },
                    f -> bench.say("'" + written.name() + "' was written to " + f + "."),
                    () -> {});
        }
    }

    /** What the machine lacks for the recipe on the bench, and the prices if they are known. */
    void notes(WorkspaceState s, Notes margin) {
        Machine m = bench.fitting().machineProperty().get();
        if (m.equals(Machine.ANY) || s.recipe() == null) {
            return;
        }
        margin.add(Notes.space(4), Notes.heading("On '" + m.name() + "'"));
        List<Layer> layers = s.snapshot().patch().layers();
        if (!layers.stream().allMatch(l -> m.can(l.recipe().method()))) {
            margin.add(Notes.body(
                    layers.size() == 1
                            ? "It cannot play this method at all."
                            : "It cannot play the method of one of the layers."));
            return;
        }
        List<Feature> missing = s.snapshot().patch().layers().stream()
                .flatMap(l -> m.missing(l.recipe()).stream())
                .distinct()
                .toList();
        for (Feature f : missing) {
            margin.add(Notes.pair(f.title(), m.has(f)));
        }
        margin.add(Notes.body(
                missing.isEmpty()
                        ? "It can play this recipe as it is."
                        : "It cannot play this recipe as it is: fit it anew, and it will keep to what is there."));
        List<Price> prices = bench.fitting().pricesProperty().get();
        if (prices == null) {
            margin.add(Notes.of(price));
            return;
        }
        for (Price p : prices) {
            margin.add(Notes.quiet(p.words() + "."));
        }
        if (prices.isEmpty()) {
            margin.add(Notes.quiet("Its limits cost nothing on this note."));
        }
    }
}
