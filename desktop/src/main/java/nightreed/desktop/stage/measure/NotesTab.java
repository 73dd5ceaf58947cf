package nightreed.desktop.stage.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.CancellationException;
import javafx.application.Platform;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.stage.BackgroundTask;
import nightreed.desktop.workspace.Family;
import nightreed.desktop.workspace.Workspace;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.NoteSet;
import nightreed.project.Imitation;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** All notes of one instrument together: of the recording, and of those that are kept together with it. */
final class NotesTab extends VBox {
    private final Workspace bench;
    private final NotesPlot plot = new NotesPlot();
    private final MenuButton together = new MenuButton("Keep together with");
    private AnalysedSound of; // what is shown
    private volatile Object asked; // stands for the latest question; older ones are not waited for

    NotesTab(Workspace bench) {
        super(2);
        this.bench = bench;
        plot.setId("picture-notes-plot");
        together.setId("keep-together");
        together.getStyleClass().add("link-menu");
        together.setAccessibleText("Other recordings of the same instrument, kept together with this one");
        VBox.setVgrow(plot, Priority.ALWAYS);
        plot.setMinHeight(60);
        getChildren().addAll(plot, together);
    }

    /** @param side null for nothing */
    void show(AnalysedSound side) {
        if (side == null) {
            asked = null;
            of = null;
            plot.say("Nothing has been brought in yet.");
        } else if (side != of || asked == null) {
            of = side;
            look();
        }
        Drawing.freshen(plot);
    }

    /** Reads who belongs together, and then measures what has to be. */
    private void look() {
        Object mine = new Object();
        asked = mine;
        AnalysedSound side = of;
        Imitation here = bench.state().current();
        bench.ask(project -> Family.of(project, here), family -> {
            if (mine == asked) {
                offer(family, here);
                count(mine, side, family);
            }
        });
    }

    private void offer(Family family, Imitation here) {
        together.getItems().clear();
        for (Imitation i : family.all()) {
            if (i.id() != here.id()) {
                CheckMenuItem item = new CheckMenuItem(i.name());
                item.setSelected(family.members().stream().anyMatch(m -> m.id() == i.id()));
                item.setOnAction(e -> bench.ask(
                        project -> {
                            if (item.isSelected()) {
                                project.keepTogether(here, i);
                            } else {
                                project.keepApart(i);
                            }
                            return i;
                        },
                        done -> look()));
                together.getItems().add(item);
            }
        }
        together.setDisable(together.getItems().isEmpty());
        int others = family.members().size() - 1;
        together.setText(
                others == 0
                        ? "Keep together with"
                        : others == 1 ? "Kept together with 1 other" : "Kept together with " + others + " others");
    }

    private void count(Object mine, AnalysedSound side, Family family) {
        boolean several = side.measurement().noteOnsets().size() > 1;
        if (!several && family.others().isEmpty()) {
            plot.say("One note. Keep it together with other recordings of the same instrument.");
            return;
        }
        plot.say("Measuring the notes ...");
        Progress progress = (fraction, doing) -> {
            if (mine != asked) {
                throw new CancellationException(); // another recording is shown by now
            }
            Platform.runLater(() -> {
                if (mine == asked) {
                    plot.say(String.format(Locale.ROOT, "Measuring the notes: %.0f %%", 100 * fraction));
                }
            });
        };
        BackgroundTask.work(
                () -> notes(side, family.others(), progress),
                set -> {
                    if (mine == asked) {
                        plot.show(set);
                    }
                },
                () -> plot.say("The notes could not be measured: see the log."));
    }

    private static NoteSet notes(AnalysedSound side, List<Family.Kept> others, Progress progress) {
        double share = 1.0 / (1 + others.size());
        List<Measurement> all = new ArrayList<>(notes(side.clip(), side.measurement(), progress.part(0, share)));
        for (int i = 0; i < others.size(); i++) {
            Family.Kept k = others.get(i);
            all.addAll(notes(
                    k.clip(),
                    k.hand().over(k.measurement(), k.clip()),
                    progress.part((i + 1) * share, (i + 2) * share)));
        }
        return NoteSet.of(all);
    }

    /** One note is as it was measured and decided; of several, each is measured by itself. */
    private static List<Measurement> notes(Clip clip, Measurement m, Progress progress) {
        if (m.noteOnsets().size() < 2) {
            progress.report(1, "measuring the notes");
            return List.of(m);
        }
        try {
            return Measurer.notes(clip, progress);
        } catch (UnusableSound e) {
            return List.of();
        }
    }
}
