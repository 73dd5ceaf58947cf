package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nightreed.desktop.stage.WorkStage;
import nightreed.measure.partial.Partial;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** Walks through the Measure stage by keyboard and mouse: what is decided by hand, heard by itself, and split. */
class MeasureWalkTest extends WindowTest {
    private List<Partial> sure() {
        return state().recording().measurement().reliablePartials();
    }

    private void measuredBar() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        idle();
        stage(WorkStage.MEASURE);
    }

    @Test
    void aPartialIsLeftOutTakenBackAndTheDecisionIsKept() throws Exception {
        measuredBar();
        int all = sure().size();
        TableView<?> table = find("partial-table", TableView.class);
        fx(() -> {
            table.requestFocus();
            return null;
        });
        robot.type(KeyCode.DOWN);
        WaitForAsyncUtils.waitForFxEvents();
        Partial chosen = fx(() -> workbench.bench().selectedProperty().get());
        robot.type(KeyCode.DELETE);
        await(
                "it is left out",
                s -> s.recording().measurement().reliablePartials().size() == all - 1);
        assertThat(state().snapshot().hand().leavesOut(chosen)).isTrue();
        assertThat(state().undoLabel()).contains("left out");
        assertThat(fx(() -> table.getItems().size())).isEqualTo(all); // it stays in the table, struck through
        robot.press(KeyCode.CONTROL).type(KeyCode.Z).release(KeyCode.CONTROL);
        await(
                "undo takes it back",
                s -> s.recording().measurement().reliablePartials().size() == all);
        robot.press(KeyCode.CONTROL, KeyCode.SHIFT).type(KeyCode.Z).release(KeyCode.SHIFT, KeyCode.CONTROL);
        await(
                "redo leaves it out again",
                s -> s.recording().measurement().reliablePartials().size() == all - 1);
        fx(() -> {
            workbench.close();
            return null;
        });
        idle();
        try (ProjectFile p = ProjectFile.open(projectPath)) {
            assertThat(p.now(p.imitations().get(0)).hand().leavesOut(chosen)).isTrue();
        }
    }

    @Test
    void aMissingPartialIsLookedForWhereSomebodyPoints() throws Exception {
        measuredBar();
        Partial third = sure().get(2);
        int all = sure().size();
        fx(() -> {
            workbench.bench().selectedProperty().set(third);
            return null;
        });
        press("leave-out");
        await("it is gone", s -> s.recording().measurement().reliablePartials().size() == all - 1);
        takeIn(String.valueOf(Math.round(third.frequencyHz() + 1)));
        await(
                "it is found again",
                s -> s.recording().measurement().reliablePartials().size() == all);
        assertThat(sure()).anySatisfy(p -> assertThat(p.frequencyHz()).isCloseTo(third.frequencyHz(), within(0.5)));
        takeIn("17011");
        awaitMessage("Nothing stands out");
        takeIn("many");
        awaitMessage("A frequency from 20 to 20000 Hz");
        assertThat(sure()).hasSize(all);
    }

    private void takeIn(String hz) throws Exception {
        idle();
        fx(() -> {
            find("take-in", TextField.class).setText(hz);
            find("take-in-button", Button.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void partsOfTheSoundAreHeardByThemselves() throws Exception {
        measuredBar();
        fx(() -> {
            workbench.bench().desk().volumeDb(-6);
            workbench
                    .bench()
                    .selectedProperty()
                    .set(state().recording().measurement().strongest());
            find("measure-bed", Node.class).requestFocus();
            return null;
        });
        double all = 0;
        for (KeyCode key : new KeyCode[] {KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT5}) {
            robot.type(key);
            WaitForAsyncUtils.waitFor(
                    10, TimeUnit.SECONDS, () -> workbench.bench().desk().playing());
            Clip heard = played(0.4);
            assertThat(heard.peak()).as("key %s", key).isGreaterThan(1e-4);
            if (key == KeyCode.DIGIT2) {
                all = power(heard);
            } else if (key == KeyCode.DIGIT3) {
                assertThat(power(heard)).isLessThan(0.2 * all); // the burst and the room are left
            }
            fx(() -> {
                workbench.bench().desk().stop();
                return null;
            });
            WaitForAsyncUtils.waitFor(
                    5, TimeUnit.SECONDS, () -> !workbench.bench().desk().playing());
        }
    }

    private static double power(Clip c) {
        double sum = 0;
        for (float v : c.channel(0)) {
            sum += (double) v * v;
        }
        return sum;
    }

    @Test
    void theNotesOfARecordingAreMarkedAndMeasuredOneByOne() throws Exception {
        float[] x = new float[4 * 48_000];
        int[] keys = {57, 64};
        for (int i = 0; i < keys.length; i++) {
            float[] one = RecordingRoom.record(RecordingRoom.instrument("slate-bars"), keys[i], 0.8, i)
                    .channel(0);
            for (int k = 0; k < one.length && k + i * 90_000 < x.length; k++) {
                x[k + i * 90_000] += one[k];
            }
        }
        Path wav = folder.resolve("two bars.wav");
        WavFiles.write(Clip.mono(x, 48_000), WavFiles.Format.PCM24, wav);
        drop(wav);
        await("the first is measured", s -> s.recording() != null);
        assertThat(state().recording().measurement().noteOnsets()).hasSize(2);
        assertThat(state().recording().measurement().nearestNote()).isEqualTo("A3");
        idle();
        Node wave = find("waveform", Node.class);
        double share = state().recording().measurement().noteOnsets().get(1) / 4;
        robot.clickOn(fx(() -> wave.localToScreen(
                10 + (wave.getLayoutBounds().getWidth() - 20) * share,
                wave.getLayoutBounds().getHeight() / 2)));
        await(
                "the second has an imitation of its own",
                s -> s.imitations().size() == 2
                        && s.recording() != null
                        && "E4".equals(s.recording().measurement().nearestNote()));
    }

    @Test
    void partialsAreJoinedAndLockedByKeys() throws Exception {
        double[] x = new double[2 * 48_000];
        double[][] modes = {{500, 0.2, 1.4}, {501.1, 0.12, 1.1}, {1350, 0.1, 0.6}};
        for (double[] m : modes) {
            for (int i = 9_600; i < x.length; i++) {
                double t = (i - 9_600) / 48_000.0;
                x[i] += m[1] * Math.pow(10, -3 * t / m[2]) * Math.cos(2 * Math.PI * m[0] * t + m[0]);
            }
        }
        Path wav = folder.resolve("pair.wav");
        WavFiles.write(Clip.mono(x, 48_000), WavFiles.Format.PCM24, wav);
        drop(wav);
        await("the pair is measured", s -> s.recording() != null);
        idle();
        assertThat(sure()).hasSize(3);
        fx(() -> {
            find("measure-bed", Node.class).requestFocus();
            workbench.bench().selectedProperty().set(sure().get(0));
            return null;
        });
        shortcut(KeyCode.J);
        await(
                "the two are one",
                s -> s.recording().measurement().reliablePartials().size() == 2);
        assertThat(state().undoLabel()).contains("joined");
        assertThat(fx(() -> workbench.bench().selectedProperty().get().frequencyHz()))
                .isBetween(499.5, 501.5);
        idle();
        shortcut(KeyCode.Z);
        await(
                "undo takes them apart",
                s -> s.recording().measurement().reliablePartials().size() == 3);
        idle();
        shortcut(KeyCode.L);
        await("it is locked", s -> !s.snapshot().hand().lockedHz().isEmpty());
        assertThat(fx(() -> find("merge-partial", Button.class).isDisabled())).isTrue();
        assertThat(fx(() -> find("lock-partial", Button.class).getText())).isEqualTo("Free");
        shortcut(KeyCode.L);
        await("it is free again", s -> s.snapshot().hand().lockedHz().isEmpty());
    }

    private void shortcut(KeyCode key) {
        robot.press(KeyCode.CONTROL).type(key).release(KeyCode.CONTROL);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void aSpanIsChosenHeardAndMeasuredByKeys() throws Exception {
        measuredBar();
        fx(() -> {
            find("waveform", Node.class).requestFocus();
            return null;
        });
        assertThat(fx(() -> find("measure-span", Button.class).isDisabled())).isTrue();
        robot.type(KeyCode.RIGHT);
        robot.press(KeyCode.SHIFT).type(KeyCode.RIGHT).type(KeyCode.RIGHT).release(KeyCode.SHIFT);
        robot.type(KeyCode.UP, KeyCode.UP);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(fx(() -> find("waveform", Node.class).getAccessibleText())).contains("chosen");
        robot.type(KeyCode.DIGIT4);
        WaitForAsyncUtils.waitFor(
                10, TimeUnit.SECONDS, () -> workbench.bench().desk().playing());
        idle();
        double whole = state().recording().clip().seconds();
        String note = state().recording().measurement().nearestNote();
        fx(() -> {
            find("measure-span", Button.class).fire();
            return null;
        });
        await(
                "the span is a recording of its own",
                s -> s.imitations().size() == 2
                        && s.recording() != null
                        && s.recording().clip().seconds() < 0.5 * whole);
        assertThat(state().recording().measurement().nearestNote()).isEqualTo(note);
        assertThat(fx(() -> find("measure-span", Button.class).isDisabled())).isTrue();
    }

    @Test
    void everySmallPictureSaysWhatItShows() throws Exception {
        measuredBar();
        for (String id : new String[] {
            "picture-first",
            "picture-brightness",
            "picture-loudness",
            "picture-noise",
            "picture-formants",
            "picture-pitch",
            "picture-notes",
            "picture-decay"
        }) {
            fx(() -> {
                find(id, ToggleButton.class).fire();
                return null;
            });
            assertThat(fx(() -> find(id, ToggleButton.class).isSelected())).isTrue();
        }
        assertThat(fx(() -> robot.lookup(
                                (Node n) -> n instanceof Label l && l.getText().startsWith("A plain bar"))
                        .queryAll()))
                .isNotEmpty();
    }

    @Test
    void recordingsOfOneInstrumentAreKeptTogether() throws Exception {
        for (int key : new int[] {53, 60, 67, 74}) {
            Path file = folder.resolve("bar " + key + ".wav");
            Clip clip = RecordingRoom.record(RecordingRoom.instrument("slate-bars"), key, 0.7, key);
            WavFiles.write(clip, WavFiles.Format.PCM16, file);
            drop(file);
            await(
                    "bar " + key + " is measured",
                    s -> s.recording() != null && s.current().name().equals("bar " + key));
            idle();
        }
        stage(WorkStage.MEASURE);
        fx(() -> {
            find("picture-notes", ToggleButton.class).fire();
            return null;
        });
        Node plot = find("picture-notes-plot", Node.class);
        awaitText(plot, "One note. Keep it together");
        MenuButton together = find("keep-together", MenuButton.class);
        for (int i = 0; i < 3; i++) {
            MenuItem item = together.getItems().get(together.getItems().size() - 1 - i);
            fx(() -> {
                ((CheckMenuItem) item).setSelected(true);
                item.fire();
                return null;
            });
            String others = "Kept together with " + (i + 1);
            WaitForAsyncUtils.waitFor(
                    30, TimeUnit.SECONDS, () -> together.getText().startsWith(others));
        }
        awaitText(plot, "T60 ~ f^-");
        assertThat(fx(together::getText)).isEqualTo("Kept together with 3 others");
        fx(() -> {
            workbench.close();
            return null;
        });
        idle();
        try (ProjectFile p = ProjectFile.open(projectPath)) {
            List<Imitation> all = p.imitations();
            assertThat(p.family(all.get(all.size() - 1))).hasSize(4);
        }
    }

    private static void awaitText(Node node, String text) throws Exception {
        WaitForAsyncUtils.waitFor(
                30, TimeUnit.SECONDS, () -> node.getAccessibleText().contains(text));
    }

    @Test
    void measuringCanBeStopped() throws Exception {
        drop(bar());
        fx(() -> {
            workbench.bench().cancel();
            return null;
        });
        idle();
        assertThat(state().recording()).isNull();
        drop(bar());
        await("it can be begun again", s -> s.recording() != null);
    }
}
