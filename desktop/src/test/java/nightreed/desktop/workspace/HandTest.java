package nightreed.desktop.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.function.BooleanSupplier;
import nightreed.device.OutputMixer;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.ListChange;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.Structure;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sounds put together by hand through the presenter, which nobody listens to: what follows an edit is left undone. */
class HandTest {
    @TempDir
    Path folder;

    private final Deque<Runnable> pending = new ConcurrentLinkedDeque<>();
    private Workspace bench;
    private ProjectFile project;

    @BeforeEach
    void open() throws Exception {
        project = ProjectFile.create(folder.resolve("bench.nightreed"), "Bench");
        bench = new Workspace(pending::add, pending::add, pending::add, following -> {}, new OutputMixer(48_000));
        bench.open(project);
        work();
    }

    @AfterEach
    void close() {
        project.close();
    }

    private void work() {
        while (!pending.isEmpty()) {
            pending.poll().run();
        }
    }

    /** Files are read beside the window, in a time of their own. */
    private void workUntil(BooleanSupplier done) throws Exception {
        for (int i = 0; i < 500 && !done.getAsBoolean(); i++) {
            work();
            Thread.sleep(10);
        }
        assertThat(done.getAsBoolean()).isTrue();
    }

    private boolean said(String text) {
        String message = bench.messageProperty().get();
        return message != null && message.contains(text);
    }

    private Recipe recipe() {
        return bench.state().recipe();
    }

    @Test
    void everyStructureIsBuiltFromNothingKeptAndUndone() throws Exception {
        int steps = 0;
        for (String method : FirstRecipe.METHODS) {
            Recipe first = FirstRecipe.of(method);
            if (steps == 0) {
                bench.shaping().use(first, "begin");
            } else if (bench.state().snapshot().patch().layers().size() < Patch.MOST_LAYERS) {
                bench.shaping().addLayer(Layer.of(first), "layer " + method);
            } else {
                bench.shaping().use(first, "start " + method);
            }
            steps++;
            for (ParameterAccess.Absent part : first.absent()) {
                if (recipe().absent().contains(part)) {
                    bench.shaping().addPart(part.id(), part.name());
                    steps++;
                }
            }
            for (Structure.Listed list : recipe().lists()) {
                bench.shaping().change(ListChange.add(recipe(), list.id()));
                bench.shaping().change(ListChange.twice(list.id(), 1));
                bench.shaping().change(ListChange.move(list.id(), 1, 2));
                steps += 3;
            }
            work();
        }
        Snapshot made = bench.state().snapshot();
        assertThat(made.patch().layers()).hasSize(4);
        sounds(made.patch());
        assertThat(RecipeJson.parsePatch(RecipeJson.text(made.patch()), "it")).isEqualTo(made.patch());
        reopened();
        assertThat(bench.state().snapshot()).isEqualTo(made);
        for (int i = 0; i < steps; i++) {
            bench.undo();
            work();
        }
        assertThat(bench.state().snapshot()).isEqualTo(Snapshot.EMPTY);
        assertThat(bench.state().undoLabel()).isNull();
    }

    private void reopened() throws Exception {
        project.close();
        project = ProjectFile.open(folder.resolve("bench.nightreed"));
        bench.open(project);
        work();
    }

    private static void sounds(Patch patch) {
        Clip c = Renderer.played(patch, patch.key(), 1, 0.2, 0.3, 48_000)
                .scaled(Math.pow(10, PlayingLevel.gainDb(patch) / 20));
        assertThat(TruePeak.db(PlayingLevel.safe(c).clip())).isLessThan(-0.9);
    }

    @Test
    void fiveHundredRandomEditsAreAllUndone() throws Exception {
        Random random = new Random(500);
        List<Snapshot> before = new ArrayList<>();
        bench.recipes().ofMethod("fm");
        workUntil(() -> recipe() != null);
        for (int n = 0; before.size() < 500 && n < 5000; n++) {
            Snapshot was = bench.state().snapshot();
            edit(random);
            work();
            if (!bench.state().snapshot().equals(was)) {
                before.add(was);
            }
            if (before.size() % 50 == 49) {
                Patch p = bench.state().snapshot().patch();
                assertThat(RecipeJson.parsePatch(RecipeJson.text(p), "it")).isEqualTo(p);
                sounds(p);
            }
        }
        assertThat(before).hasSize(500);
        Snapshot last = bench.state().snapshot();
        reopened();
        assertThat(bench.state().snapshot()).isEqualTo(last);
        for (int i = before.size() - 1; i >= 0; i--) {
            bench.undo();
            work();
            assertThat(bench.state().snapshot()).isEqualTo(before.get(i));
        }
    }

    private void edit(Random random) {
        List<Structure.Listed> lists = recipe().lists();
        Structure.Listed list = lists.get(random.nextInt(lists.size()));
        int at = 1 + random.nextInt(Math.max(1, list.size()));
        int to = 1 + random.nextInt(Math.max(1, list.size()));
        List<Recipe.Setting> values = recipe().settings();
        String method = FirstRecipe.METHODS.get(random.nextInt(FirstRecipe.METHODS.size()));
        switch (random.nextInt(12)) {
            case 0 -> bench.shaping().change(ListChange.add(recipe(), list.id()));
            case 1 -> bench.shaping().change(ListChange.remove(list.id(), at));
            case 2 -> bench.shaping().change(ListChange.twice(list.id(), at));
            case 3 -> bench.shaping().change(ListChange.move(list.id(), at, to));
            case 4 -> bench.shaping().addLayer(Layer.of(FirstRecipe.of(method)), "layer");
            case 5 -> bench.shaping().removeLayer();
            case 6 ->
                bench.shaping()
                        .chooseLayer(random.nextInt(
                                bench.state().snapshot().patch().layers().size()));
            case 7 -> {
                Recipe.Setting s = values.get(random.nextInt(values.size()));
                double value = s.parameter().at(random.nextDouble());
                if (!s.parameter().format(value).equals(s.parameter().format(s.value()))) {
                    bench.shaping().set(s.parameter(), value, true);
                }
            }
            case 8 ->
                bench.shaping().lock(values.get(random.nextInt(values.size())).parameter(), random.nextBoolean());
            case 9 -> {
                List<ParameterAccess.Reading> of =
                        ParameterAccess.of(bench.state().snapshot().patch());
                ParameterAccess.Reading v = of.get(random.nextInt(of.size()));
                double value = v.parameter().at(random.nextDouble());
                if (!v.parameter().format(value).equals(v.parameter().format(v.value()))) {
                    bench.shaping().setOfPatch(v.parameter(), value, true);
                }
            }
            case 10 -> {
                List<ParameterAccess.Absent> absent = recipe().absent();
                ParameterAccess.Absent part = absent.get(random.nextInt(absent.size()));
                bench.shaping().addPart(part.id(), part.name());
            }
            default -> bench.shaping().use(FirstRecipe.of(method), "start " + method);
        }
    }

    @Test
    void recipesComeFromFilesAndWhatIsNoneIsSaid() throws Exception {
        Path file = folder.resolve("lantern-recipe.json");
        Patch patch = Patch.of(FirstRecipe.of("string"))
                .with(Layer.of(FirstRecipe.of("fm")).withTranspose(5));
        Files.writeString(file, RecipeJson.text(patch));
        bench.recipes().file(file);
        workUntil(() -> recipe() != null);
        assertThat(bench.state().current().name()).isEqualTo("lantern");
        assertThat(bench.state().snapshot().patch()).isEqualTo(patch);
        Files.writeString(file, "{\"schema\":\"recipe-9\"}");
        bench.recipes().file(file);
        workUntil(() -> said("lantern-recipe.json is not a recipe"));
        bench.recipes().file(folder);
        workUntil(() -> said("not a file"));
        assertThat(bench.state().snapshot().patch()).isEqualTo(patch);
        bench.keepTake("as it is");
        work();
        assertThat(bench.state().takes().get(0).distance()).isEqualTo("by itself");
        assertThat(bench.state().takes().get(0).patch()).isEqualTo(patch);
    }
}
