package nightreed.desktop.shell;

import java.io.File;
import java.nio.file.Path;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.stage.FileChooser;
import nightreed.desktop.settings.Places;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.workspace.Workspace;
import nightreed.project.ProjectFile;

/** The project's name, and what can be done with projects; also the way to preferences, guide and about. */
final class ProjectMenu extends MenuButton {
    private final Workspace bench;
    private final PreferenceStore preferences;
    private final Shell shell;

    ProjectMenu(Workspace bench, PreferenceStore preferences, Shell shell) {
        this.bench = bench;
        this.preferences = preferences;
        this.shell = shell;
        getStyleClass().addAll("title", "quiet-title");
        setId("project-menu");
        setAccessibleText("Project: new, open, save a copy, preferences, guide");
        getItems().add(new MenuItem("")); // a menu without items would not open; they are made when it does
        setOnShowing(e -> fill());
    }

    private void fill() {
        Menu recent = new Menu("Opened before");
        for (String r : preferences.get().recent()) {
            Path file = Path.of(r);
            MenuItem i = new MenuItem(file.getFileName() + "   " + file.getParent());
            i.setMnemonicParsing(false);
            i.setOnAction(e -> bench.openProject(file));
            recent.getItems().add(i);
        }
        recent.setDisable(recent.getItems().isEmpty());
        getItems()
                .setAll(
                        item("New project …", "Ctrl+N", "project-new", this::chooseNew),
                        item("Open a project …", "Ctrl+O", "project-open", this::chooseOpen),
                        recent,
                        item("Save a copy …", "Ctrl+Shift+S", "project-copy", this::chooseCopy),
                        item("Compact", "", "project-compact", bench::compact),
                        item("Open the demo", "", "project-demo", bench::openDemo),
                        new SeparatorMenuItem(),
                        item("Preferences", "Ctrl+comma", "project-preferences", shell::openPreferences),
                        item("Guide", "Shift+F1", "project-guide", () -> shell.openGuide("index")),
                        item("Keys", "", "project-keys", () -> shell.openGuide("keys")),
                        item("About Night Reed", "", "project-about", shell::openAbout));
    }

    private static MenuItem item(String title, String keys, String id, Runnable action) {
        MenuItem i = new MenuItem(keys.isEmpty() ? title : title + "    " + keys);
        i.setId(id);
        i.setOnAction(e -> action.run());
        return i;
    }

    private FileChooser chooser(String title) {
        FileChooser c = new FileChooser();
        c.setTitle(title);
        c.getExtensionFilters().add(new FileChooser.ExtensionFilter("Night Reed projects", "*" + ProjectFile.ENDING));
        Path now = bench.projectPathProperty().get();
        Path folder = now == null ? Places.projects() : now.toAbsolutePath().getParent();
        if (folder != null && folder.toFile().isDirectory()) {
            c.setInitialDirectory(folder.toFile());
        }
        return c;
    }

    void chooseNew() {
        File f = chooser("New project").showSaveDialog(getScene().getWindow());
        if (f != null) {
            Path file = withEnding(f.toPath());
            String name = String.valueOf(file.getFileName());
            bench.newProject(file, name.substring(0, name.length() - ProjectFile.ENDING.length()));
        }
    }

    void chooseOpen() {
        File f = chooser("Open a project").showOpenDialog(getScene().getWindow());
        if (f != null) {
            bench.openProject(f.toPath());
        }
    }

    void chooseCopy() {
        File f = chooser("Save a copy of the project").showSaveDialog(getScene().getWindow());
        if (f != null) {
            bench.saveCopy(withEnding(f.toPath()));
        }
    }

    private static Path withEnding(Path p) {
        return p.toString().endsWith(ProjectFile.ENDING) ? p : p.resolveSibling(p.getFileName() + ProjectFile.ENDING);
    }
}
