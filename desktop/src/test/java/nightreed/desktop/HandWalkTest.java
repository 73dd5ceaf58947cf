package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import nightreed.desktop.stage.LateMenu;
import nightreed.desktop.stage.WorkStage;
import nightreed.project.Snapshot;
import nightreed.recipe.Layer.CrossFade;
import nightreed.recipe.Patch;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** A sound put together by hand in the real window, without a recording at first. */
class HandWalkTest extends WindowTest {
    private static final int FS = 48_000;

    @Test
    void fromAMethodToLayersAndBackOutOfAFile() throws Exception {
        choose("new-from-method", "new-fm");
        await("a first recipe is there", s -> s.recipe() != null && s.recording() == null);
        assertThat(state().current().name()).isEqualTo("FM by hand");
        stage(WorkStage.BUILD);
        fire("pair-add");
        await("there is a second pair", s -> s.recipe().lists().get(0).size() == 2);
        assertThat(state().undoLabel()).isEqualTo("add pair 2");

        choose("add-layer", "add-layer-string");
        await("strings beside it", s -> s.snapshot().patch().layers().size() == 2);
        assertThat(state().recipe().method()).isEqualTo("string");
        fx(() -> {
            find("group-layer", ToggleButton.class).setSelected(true);
            return null;
        });
        value("layer.2.transpose", 5);
        value("layer.2.crossfade", List.of(CrossFade.values()).indexOf(CrossFade.COMES_IN));
        fire("layer-1");
        await("the pairs are shaped again", s -> s.snapshot().chosen() == 0);
        value("layer.1.crossfade", List.of(CrossFade.values()).indexOf(CrossFade.GOES_OUT));

        Clip still = heard(0);
        Clip turned = heard(1);
        assertThat(still.peak()).isGreaterThan(0.003);
        assertThat(turned.peak()).isGreaterThan(0.003);

        // a recording comes, and the layer that is locked is left as it is
        fire("layer-2");
        fire("lock-layer");
        await("locked", s -> s.snapshot().isLayerLocked());
        fire("layer-1");
        drop(bar());
        await("the note is held against it", s -> s.recording() != null && s.comparison() != null);
        stage(WorkStage.BUILD);
        Patch before = state().snapshot().patch();
        fx(() -> {
            workbench.bench().fitting().trying(0.05);
            workbench.bench().fitting().fitFromHere();
            return null;
        });
        await("fitted from here", s -> s.undoLabel() != null && s.undoLabel().startsWith("fit from here"));
        Patch fitted = state().snapshot().patch();
        assertThat(fitted.layers().get(1)).isEqualTo(before.layers().get(1));
        assertThat(fitted.layers().get(0)).isNotEqualTo(before.layers().get(0));
        await("it is a take", s -> !s.takes().isEmpty());

        opensItsOwnFile(fitted);
        undoesToTheStart();
    }

    /** What is taken away and opened again sounds the same, sample for sample. */
    private void opensItsOwnFile(Patch patch) throws Exception {
        stage(WorkStage.KEEP);
        Path out = folder.resolve("out");
        fx(() -> {
            workbench.bench().export(out, files -> {});
            return null;
        });
        WaitForAsyncUtils.waitFor(60, java.util.concurrent.TimeUnit.SECONDS, () -> json(out) != null);
        idle();
        Snapshot made = state().snapshot();
        drop(json(out));
        await("its recipe is an imitation of its own", s -> s.recording() == null && s.recipe() != null);
        Patch opened = state().snapshot().patch();
        assertThat(opened).isEqualTo(patch);
        Clip a = Renderer.played(made.patch(), 60, 0.8, 0.6, 1, FS);
        Clip b = Renderer.played(opened, 60, 0.8, 0.6, 1, FS);
        assertThat(b.channel(0)).containsExactly(a.channel(0));
        assertThat(b.channel(1)).containsExactly(a.channel(1));
        fx(() -> {
            workbench.bench().choose(state().imitations().get(0));
            return null;
        });
        await("back at what was made", s -> s.recording() != null);
    }

    private static Path json(Path folder) {
        if (!Files.isDirectory(folder)) {
            return null;
        }
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(p -> p.toString().endsWith("-recipe.json"))
                    .findFirst()
                    .orElse(null);
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private void undoesToTheStart() throws Exception {
        while (state().undoLabel() != null) {
            String label = state().undoLabel();
            fx(() -> {
                workbench.bench().undo();
                return null;
            });
            await("undone: " + label, s -> label.equals(s.redoLabel()));
        }
        assertThat(state().snapshot()).isEqualTo(Snapshot.EMPTY);
    }

    private void value(String id, double value) throws Exception {
        fx(() -> {
            var p = state().snapshot().patch();
            workbench
                    .bench()
                    .shaping()
                    .setOfPatch(
                            nightreed.recipe.part.ParameterAccess.of(p).stream()
                                    .filter(r -> r.parameter().id().equals(id))
                                    .findFirst()
                                    .orElseThrow()
                                    .parameter(),
                            value,
                            true);
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private Clip heard(double wheel) throws Exception {
        fx(() -> {
            workbench.bench().desk().volumeDb(-6);
            workbench.bench().desk().wheel(wheel);
            workbench.bench().desk().noteOn(60, 0.8);
            return null;
        });
        Clip c = played(0.4);
        fx(() -> {
            workbench.bench().desk().noteOff(60);
            return null;
        });
        return c;
    }

    private void fire(String id) throws Exception {
        WaitForAsyncUtils.waitForFxEvents();
        fx(() -> {
            find(id, ButtonBase.class).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void choose(String menu, String item) throws Exception {
        WaitForAsyncUtils.waitForFxEvents();
        fx(() -> {
            MenuButton button = find(menu, MenuButton.class);
            if (button instanceof LateMenu late) {
                late.fill();
            }
            in(button.getItems(), item).fire();
            return null;
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private static MenuItem in(List<MenuItem> items, String id) {
        for (MenuItem i : items) {
            MenuItem found = id.equals(i.getId()) ? i : i instanceof Menu m ? in(m.getItems(), id) : null;
            if (found != null) {
                return found;
            }
        }
        return null;
    }
}
