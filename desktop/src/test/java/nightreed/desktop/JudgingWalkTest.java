package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nightreed.desktop.stage.WorkStage;
import nightreed.machine.Machine;
import nightreed.machine.MachineJson;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.AspectWeights;
import nightreed.project.Imitation;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Filter;
import nightreed.room.RecordingRoom;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** An ear overrules thresholds, takes stand side by side, a value shows what it does, a machine sets limits. */
class JudgingWalkTest extends WindowTest {
    @BeforeEach
    void anImitation() throws Exception {
        drop(bar());
        await("the note is measured", s -> s.recording() != null);
        idle();
        fx(() -> {
            workbench.bench().fitting().startMethod("resonators");
            return null;
        });
        await("starting values", s -> s.recipe() != null && s.comparison() != null);
        idle();
    }

    private void set(String id, double value) throws Exception {
        fx(() -> {
            Recipe r = workbench.bench().state().recipe();
            workbench.bench().shaping().set(r.setting(id).parameter(), value, true);
            return null;
        });
        await(id + " is set", s -> s.recipe().value(id) == value && s.comparison() != null);
    }

    private void choose(Node at, String item) throws Exception {
        fx(() -> {
            at.requestFocus();
            return null;
        });
        robot.type(KeyCode.ENTER);
        fx(() -> {
            robot.lookup((Node n) -> item.equals(n.getId()) && n.isVisible()).query();
            return null;
        });
        robot.clickOn((Node n) -> item.equals(n.getId()) && n.isVisible());
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void anEarOverrulesAnAspectAndIsTakenAtItsWord() throws Exception {
        set("mode.2.level", state().recipe().value("mode.2.level") + 12);
        await("it is heard", s -> s.comparison() != null && s.comparison().jnd(Aspect.PARTIALS) > 1);
        double before = state().comparison().jnd(Aspect.PARTIALS);
        stage(WorkStage.COMPARE);
        choose(find("aspect-cell-partials", Node.class), "not-heard-partials");
        await("the mark is kept", s -> s.snapshot().marks().weight(Aspect.PARTIALS) < 1);
        await(
                "it counts no more than a JND",
                s -> s.comparison() != null && s.comparison().jnd(Aspect.PARTIALS) <= 1);
        assertThat(state().undoLabel()).isEqualTo("not heard: partials");
        fx(() -> {
            workbench.bench().undo();
            return null;
        });
        await(
                "it is taken back",
                s -> s.snapshot().marks().equals(AspectWeights.NONE)
                        && s.comparison() != null
                        && Math.abs(s.comparison().jnd(Aspect.PARTIALS) - before) < 0.01);
    }

    @Test
    void twoTakesStandSideBySide() throws Exception {
        fx(() -> {
            workbench.bench().keepTake("as measured");
            return null;
        });
        await("one take", s -> s.takes().size() == 1);
        set("mode.1.level", state().recipe().value("mode.1.level") - 6);
        fx(() -> {
            workbench.bench().keepTake("too soft");
            return null;
        });
        await("two takes", s -> s.takes().size() == 2);
        stage(WorkStage.COMPARE);
        fx(() -> {
            find("two-takes-toggle", ToggleButton.class).fire();
            return null;
        });
        assertThat(fx(() -> find("take-left", ComboBox.class).getValue()))
                .isEqualTo(state().takes().get(0));
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> robot.lookup("#two-takes .figures").queryAll().stream()
                        .noneMatch(n -> ((Label) n).getText().equals("…"))));
        List<String> shown = fx(() -> robot.lookup("#two-takes .label").queryAll().stream()
                .map(n -> ((Label) n).getText())
                .toList());
        assertThat(shown).contains("Values that differ", "mode 1 level");
        assertThat(shown.stream().filter(t -> t.startsWith("mode "))).containsExactly("mode 1 level");
        press("use-left");
        await("the first is back", s -> s.recipe().equals(s.takes().get(0).recipe()));
    }

    @Test
    void whatAValueDoesIsShownAndNothingIsChanged() throws Exception {
        stage(WorkStage.BUILD);
        Recipe before = state().recipe();
        fx(() -> {
            workbench.bench().askedProperty().set(before.setting("mode.1.t60").parameter());
            return null;
        });
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> robot.lookup(".margin-notes .label").queryAll().stream()
                        .anyMatch(n -> ((Label) n)
                                .getText()
                                .matches("From .* to .*: the partial at .* rings .* times as long.*"))));
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> robot.lookup(".margin-notes .label").queryAll().stream()
                        .anyMatch(n -> ((Label) n).getText().contains("nothing has been changed"))));
        assertThat(state().recipe()).isSameAs(before);
    }

    @Test
    void aMachineLimitsFitsAndPricesWhatItLacks() throws Exception {
        Path file = folder.resolve("two.json");
        Files.writeString(file, "{\"schema\": \"machine-1\", \"name\": \"Two bodies\", \"resonators\": 2}");
        Machine two = MachineJson.parse(Files.readString(file), "two.json");
        stage(WorkStage.BUILD);
        fx(() -> {
            workbench.bench().fitting().on(two);
            workbench.bench().fitting().fit();
            return null;
        });
        await(
                "two modes",
                s -> s.recipe() instanceof ResonatorRecipe r && r.modes().size() == 2);
        idle();
        fx(() -> {
            workbench.bench().fitting().price();
            return null;
        });
        WaitForAsyncUtils.waitFor(
                60,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().fitting().pricesProperty().get() != null));
        assertThat(fx(() -> workbench.bench().fitting().pricesProperty().get())
                        .get(0)
                        .words())
                .startsWith("resonators: 2 costs");
        WaitForAsyncUtils.waitForFxEvents();
        List<String> notes = fx(() -> robot.lookup(".margin-notes .label").queryAll().stream()
                .map(n -> ((Label) n).getText())
                .toList());
        assertThat(notes).contains("On 'Two bodies'", "It can play this recipe as it is.");
        assertThat(fx(() -> workbench.preferences().get().machine())).isEqualTo(two);
        fx(() -> {
            workbench.bench().fitting().startMethod("fm");
            return null;
        });
        await("another method", s -> s.recipe().method().equals("fm"));
    }

    @Test
    void whatAMachineCanDoIsChangedOnItsPage() throws Exception {
        int modes = ((ResonatorRecipe) state().recipe()).modes().size();
        stage(WorkStage.BUILD);
        fx(() -> {
            workbench.shell().openMachine();
            return null;
        });
        fx(() -> {
            robot.lookup("#machine-resonators").queryComboBox().setValue(String.valueOf(modes - 1));
            return null;
        });
        Machine mine = fx(() -> workbench.bench().fitting().machineProperty().get());
        assertThat(mine.name()).isEqualTo("my machine");
        assertThat(mine.resonators()).isEqualTo(modes - 1);
        assertThat(text("#machine-lacks")).contains("resonators");
        click("#machine-modulation");
        assertThat(text("#machine-plays")).isEqualTo("Yes: Resonators, Ring, Formant, String, Subtractive. No: FM.");
        for (String slope : List.of("6", "12", "18", "24")) {
            click("#machine-slopes-db-" + slope);
        }
        assertThat(fx(() -> workbench.bench().fitting().machineProperty().get()).slopes())
                .containsExactly(Filter.Slope.DB_24);
        assertThat(text("#message")).contains("slopes");
        assertThat(fx(() ->
                        ((ToggleButton) robot.lookup("#machine-slopes-db-24").query()).isSelected()))
                .isTrue();
        click("#machine-unlimited");
        assertThat(text("#machine-lacks")).isEmpty();
        assertThat(fx(() -> workbench.preferences().get().machine())).isNull();
    }

    private String text(String id) {
        return fx(() -> ((Label) robot.lookup(id).query()).getText());
    }

    private void click(String id) {
        fx(() -> {
            ((ButtonBase) robot.lookup(id).query()).fire();
            return null;
        });
    }

    @Test
    void notesThatAreKeptTogetherAreFittedTogether() throws Exception {
        Imitation first = state().current();
        fx(() -> {
            workbench.bench().intake().record(RecordingRoom.instrument("slate-bars"), 67, 0.5, 4);
            return null;
        });
        await("another note", s -> s.recording() != null && !s.current().equals(first));
        Imitation second = state().current();
        fx(() -> {
            workbench
                    .bench()
                    .ask(
                            project -> {
                                project.keepTogether(second, first);
                                return first;
                            },
                            workbench.bench()::choose);
            return null;
        });
        await("the first is back", s -> s.current().equals(first) && s.recipe() != null);
        idle();
        stage(WorkStage.BUILD);
        fx(() -> {
            workbench.bench().fitting().fitTogether();
            return null;
        });
        await("both are fitted", s -> "fit 2 notes together".equals(s.undoLabel()));
        assertThat(state().recipe().key()).isEqualTo(62);
        WaitForAsyncUtils.waitForFxEvents();
        List<String> notes = fx(() -> robot.lookup(".margin-notes .label").queryAll().stream()
                .map(n -> ((Label) n).getText())
                .toList());
        assertThat(notes).contains("Notes fitted together", first.name(), second.name(), "key to decay");
    }
}
