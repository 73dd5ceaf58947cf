package nightreed.desktop.stage.build;

import java.io.File;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import javafx.scene.control.MenuItem;
import javafx.stage.FileChooser;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.Notes;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.project.Imitation;
import nightreed.project.Recording;
import nightreed.recipe.Feeds;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;

/** What drives a bank of resonators besides its strike, and how near to endless its combs are. */
final class FeedNotes {
    /** Of each round: combs that keep more sound on for longer than most notes last. */
    private static final double NEARLY_ENDLESS = 0.9995;

    private final Workspace bench;
    private final LateMenu menu = new LateMenu("feed", "feed", this::look);

    FeedNotes(Workspace bench) {
        this.bench = bench;
    }

    /** Sounds that can drive it. */
    LateMenu menu() {
        return menu;
    }

    void notes(WorkspaceState s, Notes margin) {
        menu.setVisible(s.recipe() instanceof ResonatorRecipe);
        if (!(s.recipe() instanceof ResonatorRecipe r)) {
            return;
        }
        if (r.feed() != null) {
            double seconds = (double) r.feed().samples().length / r.feed().sampleRateHz();
            margin.add(Notes.body(String.format(Locale.ROOT, "Fed by %.2f s of a recording.", seconds)));
        }
        if (r.body() == ResonatorRecipe.Body.COMBS) {
            double kept = Feeds.kept(r);
            margin.add(Notes.quiet(String.format(
                    Locale.ROOT,
                    "The longest comb keeps %.3f %% each time round%s.",
                    100 * kept,
                    kept > NEARLY_ENDLESS ? ": nearly endless, turn down first" : "")));
        }
    }

    private void look() {
        bench.ask(
                project -> {
                    Map<String, Recording> all = new LinkedHashMap<>();
                    for (Imitation i : project.imitations()) {
                        Long row = project.now(i).recordingId();
                        if (row != null) {
                            all.put(i.name(), project.recording(row));
                        }
                    }
                    return all;
                },
                this::fill);
    }

    private void fill(Map<String, Recording> all) {
        menu.getItems().clear();
        all.forEach((name, r) -> item(
                "the recording of " + name,
                () -> use(
                        name,
                        r.clip(),
                        r.measurement() == null ? 0 : r.measurement().onsetSeconds())));
        item("a file…", this::choose);
        item("nothing: only the strike", () -> {
            if (bench.state().recipe() instanceof ResonatorRecipe r && r.feed() != null) {
                bench.shaping().use(r.withFeed(null), "no feed");
            }
        });
    }

    private void item(String text, Runnable action) {
        MenuItem item = new MenuItem(text);
        item.setOnAction(e -> action.run());
        menu.getItems().add(item);
    }

    private void choose() {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Sound that drives the resonators");
        File f = chooser.showOpenDialog(menu.getScene().getWindow());
        if (f != null) {
            bench.beside(
                    () -> {
                        try {
                            return SoundFiles.read(f.toPath()).clip();
                        } catch (UnusableSound e) {
                            bench.say(e.getMessage());
                            return null;
                        }
                    },
                    clip -> {
                        if (clip != null) {
                            use(f.getName(), clip, 0);
                        }
                    },
                    () -> {});
        }
    }

    private void use(String name, Clip clip, double onsetSeconds) {
        Recipe now = bench.state().recipe();
        if (now instanceof ResonatorRecipe r) {
            try {
                bench.shaping().use(r.withFeed(Feeds.of(clip, onsetSeconds)), "fed by " + name);
            } catch (IllegalArgumentException refused) {
                bench.say(name + " cannot drive anything: " + refused.getMessage() + ".");
            }
        }
    }
}
