package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nightreed.desktop.stage.WorkStage;
import nightreed.project.ProjectFile;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** Without a recording: a sound is described, heard, built against, and gives way to a real one. */
class TargetWalkTest extends WindowTest {
    private void describe(String words) {
        fx(() -> {
            find("target-words", TextField.class).setText(words);
            find("target-words", TextField.class).requestFocus();
            return null;
        });
        robot.type(KeyCode.ENTER);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void aSoundIsDescribedBuiltAgainstAndGivesWayToARealOne() throws Exception {
        press("way-described");
        describe("very bright wobbly trumpet, slow start, C3");
        assertThat(find("family-brass", ToggleButton.class).isSelected()).isTrue();
        assertThat(find("target-bright", Slider.class).getValue()).isEqualTo(1);
        assertThat(find("target-words", TextField.class).getText()).isEqualTo("very bright brass, soft start, C3");
        assertThat(robot.lookup((Node n) -> n instanceof Label l && l.getText().startsWith("Not understood: wobbly"))
                        .tryQuery())
                .isPresent();
        // sliders and words say the same
        fx(() -> {
            find("target-bright", Slider.class).setValue(-0.6);
            return null;
        });
        assertThat(find("target-words", TextField.class).getText()).startsWith("dull brass");
        press("target-hear");
        WaitForAsyncUtils.waitFor(
                20, TimeUnit.SECONDS, () -> workbench.bench().desk().playing());

        press("target-take");
        await("the target is there", s -> s.isTypical());
        assertThat(state().current().name()).isEqualTo("Typical dull brass, soft start, C3");
        assertThat(state().recording().measurement().nearestNote()).isEqualTo("C3");
        assertThat(state().undoLabel()).isEqualTo("target dull brass, soft start, C3");
        long imitations = state().imitations().size();
        fx(() -> {
            workbench.bench().fitting().startMethod("fm");
            return null;
        });
        await("it is compared", s -> s.recipe() != null && s.comparison() != null);
        stage(WorkStage.COMPARE);
        assertThat(robot.lookup((Node n) -> n instanceof Label l && l.getText().contains("typical, not recorded"))
                        .tryQuery())
                .isPresent();

        drop(bar());
        await("the recording took its place", s -> s.recording() != null && !s.isTypical());
        assertThat(state().imitations()).hasSize((int) imitations);
        assertThat(state().recipe())
                .as("held against the recording from now on")
                .isNotNull();
        assertThat(String.join(" ", state().recording().measurement().remarks()))
                .contains("took the place of a typical one")
                .contains("it dies by itself");
        press("undo");
        await("the target is back", s -> s.isTypical());
        try (ProjectFile again = ProjectFile.open(copy())) {
            assertThat(again.recording(state().snapshot().recordingId())
                            .measurement()
                            .typical()
                            .words())
                    .isEqualTo("dull brass, soft start, C3");
        }
    }

    private java.nio.file.Path copy() throws Exception {
        java.nio.file.Path other = folder.resolve("copy.nightreed");
        fx(() -> {
            workbench.close();
            return null;
        });
        java.nio.file.Files.copy(projectPath, other);
        return other;
    }

    @Test
    void aStartingPointOpensSoundingAndSaysWhatToMove() throws Exception {
        press("way-described");
        describe("bell");
        press("way-glass-bell-fourth");
        await("it is there", s -> s.recipe() != null);
        assertThat(state().recipe().method()).isEqualTo("ring");
        assertThat(state().snapshot().note()).contains("Move first: ").contains("What goes wrong: ");
        WaitForAsyncUtils.waitFor(
                20, TimeUnit.SECONDS, () -> workbench.bench().desk().playing());
    }

    @Test
    void aChordIsNamedLaidAndPlayedAndATempoIsOneForAll() throws Exception {
        press("way-described");
        press("way-brass-fm");
        await("it is there", s -> s.recipe() != null);
        stage(WorkStage.BRIEF);
        press("part-chord-and-tempo");
        fx(() -> {
            find("chord-key", TextField.class).setText("D minor");
            find("chord", TextField.class).setText("62 65 69 72");
            find("chord", TextField.class).requestFocus();
            return null;
        });
        robot.type(KeyCode.ENTER);
        assertThat(find("chord-name", Label.class).getText()).isEqualTo("Dm7");
        assertThat(find("chord-notes", Label.class).getText()).isEqualTo("D4 F4 A4 C5");
        press("chord-drop-2");
        WaitForAsyncUtils.waitFor(
                10, TimeUnit.SECONDS, () -> workbench.bench().desk().keyDown(57));
        WaitForAsyncUtils.waitFor(
                10, TimeUnit.SECONDS, () -> !workbench.bench().desk().keyDown(57));
        fx(() -> {
            find("chord", TextField.class).setText("H7");
            find("chord", TextField.class).requestFocus();
            return null;
        });
        robot.type(KeyCode.ENTER);
        assertThat(find("chord-name", Label.class).getText()).isEmpty();

        fx(() -> {
            find("tempo-bpm", TextField.class).setText("96");
            find("tempo-bpm", TextField.class).requestFocus();
            return null;
        });
        robot.type(KeyCode.ENTER);
        await("the recipe follows", s -> s.recipe().common().tempoBpm() == 96);
        assertThat(fx(() -> workbench.preferences().get().tempoBpm())).isEqualTo(96);
    }

    @Test
    void whatWasReadIsPutToTheTestAndStaysInTheProject() throws Exception {
        drop(bar());
        await("measured", s -> s.recording() != null);
        stage(WorkStage.BRIEF);
        press("part-heard-or-read-about-it");
        claim("it is out of tune by", "49");
        awaitVerdict(1, "refuted");
        claim("the wave is", "saw");
        awaitVerdict(2, "cannot be told");
        claim("there is an echo after", "soon");
        assertThat(state().snapshot().claims()).hasSize(2);
        press("undo");
        await("one is left", s -> s.snapshot().claims().size() == 1);
        try (ProjectFile again = ProjectFile.open(copy())) {
            assertThat(again.now(again.imitations().get(0)).claims()).hasSize(1);
        }
    }

    private void claim(String kind, String value) {
        fx(() -> {
            @SuppressWarnings("unchecked")
            ComboBox<String> kinds = find("claim-kind", ComboBox.class);
            kinds.setValue(kind);
            find("claim-value", TextField.class).setText(value);
            return null;
        });
        press("claim-add");
    }

    private void awaitVerdict(int row, String words) throws Exception {
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> robot.lookup((Node n) -> ("claim-verdict-" + row).equals(n.getId())).tryQuery().stream()
                        .anyMatch(n -> ((Label) n).getText().startsWith(words))));
    }
}
