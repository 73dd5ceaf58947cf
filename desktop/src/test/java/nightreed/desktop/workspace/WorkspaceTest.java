package nightreed.desktop.workspace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import nightreed.desktop.stage.WorkStage;
import nightreed.device.OutputMixer;
import nightreed.match.advice.Move;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.Snapshot;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.part.Parameter;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The presenter without a window: every executor is the test's own queue, so that each step can be looked at. */
class WorkspaceTest {
    @TempDir
    Path folder;

    private final Deque<Runnable> pending = new ArrayDeque<>();
    private final Deque<Runnable> advice = new ArrayDeque<>();
    private boolean following;
    private final List<Integer> depths = new ArrayList<>();
    private Workspace bench;
    private OutputMixer desk;
    private ProjectFile project;

    @BeforeEach
    void open() throws Exception {
        project = ProjectFile.create(folder.resolve("bench.nightreed"), "Bench");
        desk = new OutputMixer(48_000);
        bench = new Workspace(pending::add, pending::add, pending::add, this::follow, desk);
        bench.fitting().trying(0.1); // what is found is tested elsewhere
        bench.open(project);
        work();
    }

    @AfterEach
    void close() {
        project.close();
    }

    /** What follows a value is compared at once; what is asked for from there is advice on it. */
    private void follow(Runnable task) {
        (following ? advice : pending).add(() -> {
            following = true;
            task.run();
            following = false;
        });
    }

    /** Does everything that has been asked for, and what follows from it. */
    private void work() {
        while (!pending.isEmpty() || !advice.isEmpty()) {
            depths.add(pending.size());
            (pending.isEmpty() ? advice : pending).poll().run();
        }
    }

    /** The same, but nobody waits for the advice. */
    private void workWithoutAdvice() {
        while (!pending.isEmpty()) {
            pending.poll().run();
        }
        advice.clear();
    }

    private Path wav(int key) throws Exception {
        Path file = folder.resolve("bar " + key + ".wav");
        Clip clip = FittedBar.cutShort(RecordingRoom.record(RecordingRoom.instrument("slate-bars"), key, 0.7, 8));
        WavFiles.write(clip, WavFiles.Format.PCM24, file);
        return file;
    }

    private void openFittedBar() throws Exception {
        project.close();
        Path bar = folder.resolve("bar.nightreed");
        FittedBar.copyTo(bar);
        project = ProjectFile.open(bar);
        bench.open(project);
        workWithoutAdvice();
    }

    @Test
    void anEmptyProjectOffersAFirstImitation() {
        assertThat(bench.state().current().name()).isEqualTo("First imitation");
        assertThat(bench.state().recording()).isNull();
        assertThat(WorkStage.BRIEF.concern(bench.state())).isEqualTo("no recording");
        assertThat(WorkStage.BUILD.concern(bench.state())).isEmpty();
    }

    @Test
    void aFileIsMeasuredAwayFromTheUiThread() throws Exception {
        bench.intake().file(wav(64));
        assertThat(bench.state().recording()).isNull(); // the call returned at once
        assertThat(bench.taskProperty().get().name()).isEqualTo("measuring bar 64.wav");
        workWithoutAdvice();
        assertThat(bench.taskProperty().get()).isNull();
        assertThat(bench.state().recording().measurement().nearestNote()).isEqualTo("E4");
        assertThat(bench.state().current().name()).isEqualTo("bar 64");
        assertThat(bench.selectedProperty().get())
                .isEqualTo(bench.state().recording().measurement().strongest());
        assertThat(WorkStage.BUILD.concern(bench.state())).isEqualTo("not fitted");
    }

    @Test
    void aSecondRecordingBecomesASecondImitation() throws Exception {
        openFittedBar();
        Recipe first = bench.state().recipe();
        bench.intake().file(wav(76));
        workWithoutAdvice();
        assertThat(bench.state().imitations()).extracting(Imitation::name).containsExactly("bar 64", "bar 76");
        assertThat(bench.state().recipe()).isNull();
        bench.choose(bench.state().imitations().get(0));
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isEqualTo(first);
        assertThat(bench.state().recording().measurement().nearestNote()).isEqualTo("E4");
    }

    @Test
    void everyMethodStartsFromTheMeasurementIsShapedAndTakenBack() throws Exception {
        openFittedBar();
        Recipe fit = bench.state().recipe();
        for (String method : nightreed.match.method.Starts.METHODS) {
            bench.fitting().startMethod(method);
            workWithoutAdvice();
            assertThat(bench.state().recipe().method()).isEqualTo(method);
            assertThat(bench.state().comparison()).as(method).isNotNull();
            assertThat(bench.fitting().startedProperty().get().recipe().method())
                    .isEqualTo(method);
        }
        Recipe subtractive = bench.state().recipe();
        bench.shaping().addPart("reverb", "reverb");
        workWithoutAdvice();
        assertThat(bench.state().recipe().common().effects().reverb()).isNotNull();
        bench.shaping().set(bench.state().recipe().setting("reverb.mix").parameter(), 0.5, true);
        workWithoutAdvice();
        assertThat(bench.state().recipe().value("reverb.mix")).isEqualTo(0.5);
        bench.shaping().removePart("reverb", "reverb");
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isEqualTo(subtractive);
        for (int k = 0; k < 3 + nightreed.match.method.Starts.METHODS.size(); k++) {
            bench.undo();
            workWithoutAdvice();
        }
        assertThat(bench.state().recipe()).isEqualTo(fit);
    }

    @Test
    void oneTaskAtATimeAndTheSecondSaysWhy() throws Exception {
        bench.intake().file(wav(64));
        bench.intake().file(wav(65));
        workWithoutAdvice();
        assertThat(bench.messageProperty().get()).contains("still under way").contains("bar 64.wav");
        assertThat(bench.state().imitations()).hasSize(1);
        bench.dismissMessage();
        assertThat(bench.messageProperty().get()).isNull();
    }

    @Test
    void aFitIsComparedAdvisedOnAndKeptAsATake() throws Exception {
        bench.intake().file(wav(64));
        work();
        bench.fitting().fit();
        work();
        WorkspaceState s = bench.state();
        assertThat(s.comparison().totalJnd()).isLessThan(1.5);
        assertThat(s.moves()).isNotNull();
        assertThat(s.tolerances()).isNotEmpty();
        assertThat(s.takes()).hasSize(1);
        assertThat(s.takes().get(0).totalJnd()).isCloseTo(s.comparison().totalJnd(), within(1e-6));
        assertThat(s.snapshot().fitted()).isEqualTo(s.recipe());
        assertThat(WorkStage.COMPARE.audible(s)).isEqualTo(!s.comparison().withinHearing());
    }

    @Test
    void aMovedValueIsInTheStateAtOnceAndInTheProjectWhenTheHandLetsGo() throws Exception {
        openFittedBar();
        Parameter p = bench.state().recipe().setting("mode.1.t60").parameter();
        double before = bench.state().recipe().value("mode.1.t60");
        for (double f : new double[] {1.1, 1.3, 1.7}) {
            bench.shaping().set(p, before * f, false);
            assertThat(bench.state().recipe().value("mode.1.t60")).isCloseTo(before * f, within(1e-9));
        }
        workWithoutAdvice();
        assertThat(bench.state().undoLabel()).isEqualTo("fit resonators"); // a drag is no history yet
        bench.shaping().set(p, before * 2, true);
        workWithoutAdvice();
        assertThat(bench.state().undoLabel()).startsWith("mode 1 T60");
        assertThat(project.now(bench.state().current()).recipe())
                .isEqualTo(bench.state().recipe());
        assertThat(bench.state().comparison().jnd(Aspect.DECAYS)).isGreaterThan(0.5);
    }

    @Test
    void whatIsOvertakenIsNotComputed() throws Exception {
        openFittedBar();
        Parameter p = bench.state().recipe().setting("noise.level").parameter();
        for (int i = 0; i < 20; i++) {
            bench.shaping().set(p, -40 + i, false);
        }
        long start = System.nanoTime();
        work();
        double all = (System.nanoTime() - start) / 1e9;
        start = System.nanoTime();
        bench.shaping().set(p, -15, false);
        work();
        double one = (System.nanoTime() - start) / 1e9;
        assertThat(bench.state().recipe().value("noise.level")).isEqualTo(-15);
        assertThat(all).isLessThan(6 * one + 0.5); // far from twenty times
    }

    @Test
    void undoAndRedoWalkTheWholeHistory() throws Exception {
        openFittedBar();
        Recipe fit = bench.state().recipe();
        bench.shaping().set(fit.setting("tune").parameter(), 30, true);
        bench.shaping().set(fit.setting("level").parameter(), -30, true);
        workWithoutAdvice();
        Recipe last = bench.state().recipe();
        bench.undo();
        bench.undo();
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isEqualTo(fit);
        assertThat(bench.state().redoLabel()).startsWith("tuning");
        bench.undo();
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isNull();
        assertThat(bench.state().recording()).isNotNull();
        bench.undo();
        workWithoutAdvice();
        assertThat(bench.state().recording()).isNull();
        for (int i = 0; i < 6; i++) {
            bench.redo();
            workWithoutAdvice();
        }
        assertThat(bench.state().recipe()).isEqualTo(last);
        assertThat(bench.state().redoLabel()).isNull();
    }

    @Test
    void movesAreAppliedAndTakesBroughtBack() throws Exception {
        openFittedBar();
        Recipe fit = bench.state().recipe();
        bench.shaping().set(fit.setting("mode.1.t60").parameter(), 2.5 * fit.value("mode.1.t60"), true);
        work();
        double bent = bench.state().comparison().totalJnd();
        Move first = bench.state().moves().get(0);
        bench.shaping().apply(first);
        work();
        assertThat(bench.state().comparison().totalJnd()).isLessThan(bent);
        bench.keepTake("closer");
        work();
        assertThat(bench.state().takes()).hasSize(2);
        assertThat(bench.state().takes().get(1).note()).isEqualTo("closer");
        bench.shaping().set(fit.setting("noise.level").parameter(), fit.value("noise.level") - 5, true);
        bench.shaping().use(bench.state().takes().get(0).recipe(), "back to the fit");
        work();
        assertThat(bench.state().recipe()).isEqualTo(fit);
        assertThat(bench.state().undoLabel()).isEqualTo("back to the fit");
    }

    @Test
    void aSoundWithoutARecordingIsNotShownAsAnothers() throws Exception {
        bench.shaping().use(FirstRecipe.of("string"), "begin");
        work();
        AnalysedSound string = bench.state().imitation();
        assertThat(string.measurement().f0Hz()).isCloseTo(261.6, within(1.0));
        bench.addImitation("second");
        work();
        assertThat(bench.state().imitation()).isNull();
        bench.shaping().use(FirstRecipe.of("subtractive"), "begin");
        work();
        assertThat(bench.state().imitation()).isNotSameAs(string);
        assertThat(bench.state().comparison()).isNull();
        bench.choose(bench.state().imitations().get(0));
        boolean[] wrong = new boolean[1]; // for no moment is the one shown with the other's sound
        bench.stateProperty()
                .addListener((o, was, is) -> wrong[0] |= is.recipe() != null
                        && is.recipe().method().equals("string")
                        && is.imitation() != null
                        && is.imitation() == was.imitation()
                        && was.recipe() != null
                        && was.recipe().method().equals("subtractive"));
        work();
        assertThat(wrong[0]).isFalse();
        assertThat(bench.state().recipe().method()).isEqualTo("string");
        assertThat(bench.state().imitation().measurement().partials())
                .isEqualTo(string.measurement().partials());
    }

    @Test
    void effectsAreTakenOutOfTheComparisonByOneSwitch() throws Exception {
        openFittedBar();
        double fitted = bench.state().comparison().totalJnd();
        bench.shaping().addPart("reverb", "reverb");
        workWithoutAdvice();
        double wet = bench.state().comparison().totalJnd();
        assertThat(wet).isGreaterThan(fitted + 0.5);
        bench.effectsJudgedProperty().set(false);
        workWithoutAdvice();
        assertThat(bench.state().comparison().totalJnd()).isCloseTo(fitted, within(0.05));
        assertThat(bench.state().recipe().common().effects().reverb()).isNotNull();
        bench.effectsJudgedProperty().set(true);
        workWithoutAdvice();
        assertThat(bench.state().comparison().totalJnd()).isCloseTo(wet, within(1e-9));
    }

    @Test
    void aLayerUnderTheRecipeIsHeardShapedExchangedAndTakenAway() throws Exception {
        bench.intake().file(wav(64));
        workWithoutAdvice();
        bench.fitting().startMethod("string"); // which leaves much over
        workWithoutAdvice();
        double alone = bench.state().comparison().totalJnd();
        Recipe string = bench.state().recipe();
        bench.fitting().fitUnder();
        work();
        Recipe under = layer(1);
        assertThat(bench.state().undoLabel()).isEqualTo(under.method() + " under it");
        assertThat(bench.state().comparison().totalJnd()).isLessThan(alone);
        assertThat(bench.fitting().layeredProperty().get().carries()).hasSize(2);
        assertThat(bench.state().moves()).isNotNull();
        assertThat(bench.state().takes().get(0).patch())
                .isEqualTo(bench.state().snapshot().patch());
        Recipe over = bench.state().recipe();

        bench.shaping().chooseLayer(1);
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isEqualTo(under);
        assertThat(bench.state().snapshot().patch().first()).isEqualTo(over);
        bench.undo();
        workWithoutAdvice();
        bench.export(folder.resolve("out"), files -> {});
        workWithoutAdvice();
        String written = Files.readString(folder.resolve("out").resolve("bar-64-recipe.json"));
        assertThat(RecipeJson.parsePatch(written, "it"))
                .isEqualTo(bench.state().snapshot().patch());

        bench.shaping().chooseLayer(1);
        bench.shaping().removeLayer();
        workWithoutAdvice();
        assertThat(bench.state().snapshot().patch().layers()).hasSize(1);
        assertThat(bench.state().recipe()).isEqualTo(over);
        bench.shaping().use(bench.state().takes().get(0).patch(), "back");
        workWithoutAdvice();
        assertThat(layer(1)).isEqualTo(under);
        for (int i = 0; i < 4; i++) {
            bench.undo();
            workWithoutAdvice();
        }
        assertThat(bench.state().recipe()).isEqualTo(string);
        assertThat(bench.state().snapshot().patch().layers()).hasSize(1);
    }

    private Recipe layer(int number) {
        return bench.state().snapshot().patch().layers().get(number).recipe();
    }

    @Test
    void aNoteIsAnEditOnceAndOnlyIfItChanged() throws Exception {
        openFittedBar();
        bench.shaping().note("for the harbour");
        bench.shaping().note("for the harbour");
        workWithoutAdvice();
        assertThat(bench.state().undoLabel()).isEqualTo("note");
        bench.undo();
        workWithoutAdvice();
        assertThat(bench.state().snapshot().note()).isEmpty();
        assertThat(bench.state().undoLabel()).isEqualTo("fit resonators");
    }

    @Test
    void withoutARecordingTheBenchSaysWhatToDoFirst() {
        bench.fitting().fit();
        work();
        assertThat(bench.messageProperty().get()).contains("no recording");
        bench.export(folder.resolve("out"), files -> {
            throw new AssertionError("nothing can have been written");
        });
        work();
        assertThat(bench.messageProperty().get()).contains("fit an imitation first");
        assertThat(folder.resolve("out")).doesNotExist();
    }

    @Test
    void badFilesLeaveEverythingAsItWas() throws Exception {
        openFittedBar();
        WorkspaceState before = bench.state();
        Path empty = Files.createFile(folder.resolve("empty.wav"));
        Path tiny = folder.resolve("tiny.wav");
        WavFiles.write(Clip.mono(new float[] {0.5f}, 48_000), WavFiles.Format.PCM16, tiny);
        Path noise = folder.resolve("none.wav");
        for (Path bad : List.of(empty, tiny, noise)) {
            bench.intake().file(bad);
            workWithoutAdvice();
            assertThat(bench.messageProperty().get())
                    .as(bad.toString())
                    .isNotBlank()
                    .doesNotContain("Exception");
            assertThat(bench.state()).isEqualTo(before);
            assertThat(bench.taskProperty().get()).isNull();
        }
    }

    @Test
    void stoppedWorkLeavesEverythingAsItWas() throws Exception {
        bench.intake().file(wav(64));
        workWithoutAdvice();
        WorkspaceState before = bench.state();
        bench.fitting().fit();
        bench.cancel();
        workWithoutAdvice();
        assertThat(bench.state()).isEqualTo(before);
        assertThat(bench.taskProperty().get()).isNull();
        bench.fitting().fit(); // and it can be done again
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isNotNull();
    }

    @Test
    void theDeskPlaysWhatIsOnTheBench() throws Exception {
        openFittedBar();
        desk.volumeDb(0);
        desk.hearImitation(true);
        desk.play();
        float[] block = new float[512];
        double peak = 0;
        for (int i = 0; i < 60; i++) {
            desk.render(block, new float[512], 512);
            peak = Math.max(peak, desk.takePeak());
        }
        assertThat(peak).isCloseTo(bench.state().imitation().clip().peak(), within(0.2));
    }

    @Test
    void theDemoHasSomethingToHearAndToMendAndStaysWhole() throws Exception {
        Path built = DemoProject.built(); // made by the build, which takes a while
        if (!Files.exists(built)) {
            built = folder.resolve("demo.nightreed");
            DemoProject.build(built, nightreed.work.Progress.NONE).close();
        }
        byte[] before = Files.readAllBytes(built);
        try (ProjectFile copy = DemoProject.open(built, nightreed.work.Progress.NONE)) {
            assertThat(copy.path()).isNotEqualTo(built);
            assertThat(copy.name()).isEqualTo("The Salt Lantern");
            assertThat(copy.imitations()).hasSize(11);
            Workspace demo =
                    new Workspace(pending::add, pending::add, pending::add, this::follow, new OutputMixer(48_000));
            demo.open(copy);
            work();
            assertThat(demo.state().comparison().withinHearing()).isFalse();
            assertThat(demo.state().moves()).isNotEmpty();
            assertThat(demo.state().takes()).hasSize(3);
            demo.choose(copy.imitations().get(1));
            workWithoutAdvice();
            assertThat(demo.state().comparison().totalJnd()).isLessThan(1);
            demo.choose(copy.imitations().get(2));
            workWithoutAdvice();
            assertThat(demo.state().recording().measurement().series().series().name())
                    .isEqualTo("tuned bell");
            assertThat(demo.state().comparison().totalJnd()).isLessThan(3);
        }
        assertThat(Files.readAllBytes(built)).isEqualTo(before);
    }

    @Test
    void aProjectThatCannotBeReadLeavesTheOneBeforeOnTheBench() throws Exception {
        Path good = folder.resolve("good.nightreed");
        Path bad = folder.resolve("bad.nightreed");
        try (ProjectFile p = ProjectFile.create(bad, "Bad")) {
            p.commit(p.addImitation("bar"), "one", Snapshot.EMPTY.withNote("of bad"));
        }
        try (var c = java.sql.DriverManager.getConnection("jdbc:sqlite:" + bad);
                var s = c.createStatement()) {
            s.execute("update edit set recipe = '{\"method\":\"fm\"}'");
        }
        byte[] before = Files.readAllBytes(bad);
        bench.newProject(good, "Good");
        workWithoutAdvice();
        bench.openProject(bad);
        workWithoutAdvice();
        assertThat(bench.messageProperty().get()).contains("bad.nightreed");
        assertThat(bench.state().projectName()).isEqualTo("Good");
        assertThat(bench.projectPathProperty().get().getFileName()).hasToString("good.nightreed");
        bench.shaping().note("of good");
        workWithoutAdvice();
        bench.openProject(Path.of("").toAbsolutePath().relativize(good)); // the same by another name
        bench.close();
        workWithoutAdvice();
        try (ProjectFile p = ProjectFile.open(good)) {
            assertThat(p.now(p.imitations().get(0)).note()).isEqualTo("of good");
        }
        assertThat(before.length).isEqualTo((int) Files.size(bad));
        try (ProjectFile p = ProjectFile.open(bad)) { // it is not locked
            assertThat(p.name()).isEqualTo("Bad");
        }
    }

    /** What is shaped just before another project comes belongs to the one before. */
    @Test
    void anEditBeforeAnotherProjectComesIsWrittenIntoItsOwn() throws Exception {
        Path a = folder.resolve("a.nightreed");
        Path b = folder.resolve("b.nightreed");
        ProjectFile.create(b, "B").close();
        bench.newProject(a, "A");
        workWithoutAdvice();
        bench.openProject(b);
        bench.openProject(b); // a second press of the same line
        bench.shaping().note("of a");
        workWithoutAdvice();
        assertThat(bench.messageProperty().get()).isNull();
        assertThat(bench.state().projectName()).isEqualTo("B");
        assertThat(bench.state().snapshot().note()).isEmpty();
        bench.close();
        workWithoutAdvice();
        try (ProjectFile p = ProjectFile.open(a)) {
            assertThat(p.now(p.imitations().get(0)).note()).isEqualTo("of a");
        }
        try (ProjectFile p = ProjectFile.open(b)) {
            assertThat(p.now(p.imitations().get(0)).note()).isEmpty();
        }
    }

    @Test
    void editsWaitWhileTheFileCannotBeWrittenAndAreInItAfterwards() throws Exception {
        Path stick = Files.createDirectory(folder.resolve("stick"));
        Path file = stick.resolve("away.nightreed");
        bench.newProject(file, "Away");
        workWithoutAdvice();
        bench.intake().file(wav(64));
        workWithoutAdvice();
        Path pulled = Files.move(stick, folder.resolve("pulled"));
        bench.shaping().note("one");
        bench.shaping().note("two");
        workWithoutAdvice();
        assertThat(bench.unsavedProperty().get()).isEqualTo(2);
        assertThat(bench.messageProperty().get()).contains("is gone").contains("still there");
        assertThat(bench.state().snapshot().note()).isEqualTo("two");
        bench.retry();
        workWithoutAdvice();
        assertThat(bench.unsavedProperty().get()).isEqualTo(2);
        Path copy = folder.resolve("rescued.nightreed");
        bench.saveCopy(copy);
        workWithoutAdvice();
        assertThat(copy).exists();
        Files.move(pulled, stick);
        bench.retry();
        workWithoutAdvice();
        assertThat(bench.unsavedProperty().get()).isZero();
        bench.undo();
        workWithoutAdvice();
        assertThat(bench.state().snapshot().note()).isEqualTo("one");
        bench.close();
        workWithoutAdvice();
        try (ProjectFile again = ProjectFile.open(file)) {
            Imitation i = again.imitations().get(0);
            assertThat(again.redo(i).note()).isEqualTo("two");
        }
    }

    @Test
    void projectsAreOpenedOneAfterTheOtherAndAFailureKeepsTheOneThatIsOpen() throws Exception {
        openFittedBar();
        bench.newProject(folder.resolve("second.nightreed"), "Second");
        workWithoutAdvice();
        assertThat(bench.state().projectName()).isEqualTo("Second");
        assertThat(bench.projectPathProperty().get()).isEqualTo(folder.resolve("second.nightreed"));
        bench.openProject(folder.resolve("none.nightreed"));
        workWithoutAdvice();
        assertThat(bench.messageProperty().get()).contains("There is no project");
        assertThat(bench.state().projectName()).isEqualTo("Second");
        bench.openProject(folder.resolve("bar.nightreed"));
        workWithoutAdvice();
        assertThat(bench.state().recipe()).isNotNull();
        assertThat(bench.state().takes()).hasSize(1);
        bench.compact();
        workWithoutAdvice();
        assertThat(bench.messageProperty().get()).contains("MB smaller");
    }

    @Test
    void otherEarsJudgeOtherwise() throws Exception {
        openFittedBar();
        bench.shaping().set(bench.state().recipe().setting("mode.1.level").parameter(), -9, true);
        workWithoutAdvice();
        double usual = bench.state().comparison().jnd(Aspect.PARTIALS);
        var level = JndThresholds.thresholds().stream()
                .filter(t -> t.id().equals("level"))
                .findFirst()
                .orElseThrow();
        bench.hearing(level.set().apply(JndThresholds.USUAL, 2 * JndThresholds.USUAL.levelDb()));
        workWithoutAdvice();
        assertThat(bench.state().comparison().jnd(Aspect.PARTIALS)).isBetween(0.4 * usual, 0.6 * usual);
    }
}
