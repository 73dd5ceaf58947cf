package nightreed.project;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.List;
import java.util.Random;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.frontier.Frontier;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.MadeUpNote;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ProjectFileTest {
    @TempDir
    Path folder;

    private ProjectFile fresh() throws UnusableProject {
        return ProjectFile.create(folder.resolve("test.nightreed"), "The Salt Lantern");
    }

    @Test
    void everythingIsThereAgainAfterReopening() throws Exception {
        ResonatorRecipe recipe = RecipeTest.bar();
        Clip clip = Renderer.asFitted(recipe, 0.2, 1.2, 48_000);
        Measurement measured = Measurer.measure(clip);
        AnalysedSound side = new AnalysedSound(clip, measured);
        Comparison close = ImitationRenderer.predict(side, recipe.with("mode.2.level", -30));
        Snapshot snapshot;
        try (ProjectFile p = fresh()) {
            Imitation bar = p.addImitation("Slate bar");
            p.addImitation("Buoy bell");
            long recording = p.addRecording("bar.wav", clip, measured);
            snapshot = new Snapshot(recording, recipe.with("tune", 3), recipe, "for the harbour <scene>")
                    .withLocked("noise.t60", true)
                    .withLocked("tune", true)
                    .withLocked("mode.1.t60", true)
                    .withLocked("tune", false)
                    .withLayer(Layer.of(recipe.with("level", -30)))
                    .withChosen(0);
            p.commit(bar, "fit", snapshot);
            p.addTake(
                    bar,
                    "fit, 4 modes",
                    "a little bright",
                    close,
                    snapshot.patch().withFirst(recipe));
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("test.nightreed"))) {
            assertThat(p.name()).isEqualTo("The Salt Lantern");
            assertThat(p.imitations()).extracting(Imitation::name).containsExactly("Slate bar", "Buoy bell");
            Imitation bar = p.imitations().get(0);
            assertThat(p.now(bar)).isEqualTo(snapshot);
            assertThat(p.now(bar).locked()).containsExactlyInAnyOrder("noise.t60", "mode.1.t60");
            assertThat(p.now(p.imitations().get(1))).isEqualTo(Snapshot.EMPTY);
            Recording r = p.recording(snapshot.recordingId());
            assertThat(r.clip().channel(0)).containsExactly(clip.channel(0));
            assertThat(r.measurement().partials()).isEqualTo(measured.partials());
            assertThat(r.measurement().strikeBands().burst())
                    .isDeepEqualTo(measured.strikeBands().burst());
            assertThat(r.measurement().series().nameOf(measured.f0Hz())).isEqualTo("mode 1");
            Take t = p.takes(bar).get(0);
            assertThat(t.recipe()).isEqualTo(recipe);
            assertThat(t.note()).isEqualTo("a little bright");
            assertThat(t.totalJnd()).isEqualTo(close.totalJnd());
            assertThat(t.worst()).isEqualTo(close.worst().title());
            assertThat(t.worstJnd()).isEqualTo(close.worstJnd());
            assertThat(t.picture()).isEqualTo(TakePicture.of(close));
            assertThat(t.picture().strokes()).hasSameSizeAs(close.partials());
        }
    }

    @Test
    void whatWasMeasuredOfAHeldNoteIsThereAgainToo() throws Exception {
        Clip clip = new MadeUpNote(3, 0.2, 2)
                .held(180, 24, 0.04, 1.7, t -> 12 * Math.sin(2 * Math.PI * 5 * t), t -> 0)
                .noise(60)
                .clip();
        Measurement held = Measurer.measure(clip);
        Clip echoed = new MadeUpNote(4, 0.2, 2)
                .mode(300, 0.3, 1)
                .mode(830, 0.1, 0.6)
                .burst(0.1, 0.03)
                .echo(0.3, 0.5, true)
                .noise(60)
                .clip();
        Measurement struck = Measurer.measure(echoed);
        long first;
        long second;
        try (ProjectFile p = fresh()) {
            p.addImitation("held");
            first = p.addRecording("held.wav", clip, held);
            second = p.addRecording("echo.wav", echoed, struck);
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("test.nightreed"))) {
            Measurement again = p.recording(first).measurement();
            assertThat(again.traits()).isEqualTo(held.traits());
            assertThat(again.traits().sources()).isNotEmpty();
            assertThat(again.held().vibrato()).isEqualTo(held.held().vibrato());
            assertThat(p.recording(second).measurement().echo()).isNotNull().isEqualTo(struck.echo());
        }
    }

    @Test
    void decisionsByHandAreKeptInTheirOrder() throws Exception {
        ManualCorrections hand = ManualCorrections.NONE
                .merge(500.4)
                .split(499.9)
                .lock(1300)
                .leaveOut(2000.5)
                .takeIn(310)
                .strikeNote(250.0);
        try (ProjectFile p = fresh()) {
            Imitation i = p.addImitation("by hand");
            p.commit(i, "decided", Snapshot.EMPTY.withHand(hand));
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("test.nightreed"))) {
            ManualCorrections again = p.now(p.imitations().get(0)).hand();
            assertThat(again).isEqualTo(hand);
            assertThat(again.refits())
                    .extracting(ManualCorrections.Refit::apart)
                    .containsExactly(false, true);
        }
    }

    @Test
    void historyGoesBackForthAndSurvivesClosing() throws Exception {
        Imitation i;
        try (ProjectFile p = fresh()) {
            i = p.addImitation("bar");
            for (int k = 1; k <= 5; k++) {
                p.commit(i, "tuning " + k, new Snapshot(null, RecipeTest.bar().with("tune", k), null, ""));
            }
            assertThat(p.undoLabel(i)).contains("tuning 5");
            assertThat(p.redoLabel(i)).isEmpty();
            assertThat(p.undo(i).recipe().tuningCents()).isEqualTo(4);
            assertThat(p.undo(i).recipe().tuningCents()).isEqualTo(3);
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("test.nightreed"))) {
            i = p.imitations().get(0);
            assertThat(p.now(i).recipe().tuningCents()).isEqualTo(3);
            assertThat(p.redoLabel(i)).contains("tuning 4");
            assertThat(p.redo(i).recipe().tuningCents()).isEqualTo(4);
            p.undo(i);
            p.commit(i, "another way", new Snapshot(null, RecipeTest.bar().with("tune", 50), null, ""));
            assertThat(p.redoLabel(i)).isEmpty();
            for (int k = 0; k < 10; k++) {
                p.undo(i);
            }
            assertThat(p.now(i)).isEqualTo(Snapshot.EMPTY);
            assertThat(p.undoLabel(i)).isEmpty();
            p.undo(i);
            assertThat(p.now(i)).isEqualTo(Snapshot.EMPTY);
        }
    }

    @Test
    void undoOfOneImitationLeavesTheOthersAlone() throws Exception {
        try (ProjectFile p = fresh()) {
            Imitation a = p.addImitation("a");
            Imitation b = p.addImitation("b");
            p.commit(a, "one", Snapshot.EMPTY.withNote("of a"));
            p.commit(b, "two", Snapshot.EMPTY.withNote("of b"));
            p.commit(a, "three", Snapshot.EMPTY.withNote("of a again"));
            p.undo(a);
            assertThat(p.now(a).note()).isEqualTo("of a");
            assertThat(p.now(b).note()).isEqualTo("of b");
            assertThat(p.undoLabel(b)).contains("two");
        }
    }

    @Test
    void whatIsNotAProjectIsRefusedAndLeftAsItIs() throws Exception {
        byte[] junk = new byte[50_000];
        new Random(3).nextBytes(junk);
        Path garbage = Files.write(folder.resolve("garbage.nightreed"), junk);
        assertThatThrownBy(() -> ProjectFile.open(garbage))
                .isInstanceOf(UnusableProject.class)
                .hasMessageContaining("garbage.nightreed is not a Night Reed project");
        assertThat(Files.readAllBytes(garbage)).isEqualTo(junk);
        assertThatThrownBy(() -> ProjectFile.open(folder.resolve("none.nightreed")))
                .hasMessageContaining("There is no");
        assertThatThrownBy(() -> ProjectFile.open(Files.createFile(folder.resolve("empty.nightreed"))))
                .hasMessageContaining("is not a Night Reed project");
    }

    @Test
    void aDamagedProjectIsRefusedAndLeftAsItIs() throws Exception {
        Path file = folder.resolve("test.nightreed");
        fresh().close();
        byte[] bytes = Files.readAllBytes(file);
        Random r = new Random(5);
        for (int k = 200; k < bytes.length; k++) {
            bytes[k] = (byte) r.nextInt(256);
        }
        Files.write(file, bytes);
        assertThatThrownBy(() -> ProjectFile.open(file))
                .isInstanceOf(UnusableProject.class)
                .hasMessageContaining("damaged")
                .hasMessageContaining("backup");
        assertThat(Files.readAllBytes(file)).isEqualTo(bytes);
    }

    @Test
    void databasesOfOthersAndOfLaterVersionsAreRefused() throws Exception {
        Path file = folder.resolve("test.nightreed");
        fresh().close();
        sql(file, "pragma user_version = 99");
        assertThatThrownBy(() -> ProjectFile.open(file)).hasMessageContaining("newer version");
        sql(file, "pragma application_id = 1");
        assertThatThrownBy(() -> ProjectFile.open(file)).hasMessageContaining("a database, but not");
    }

    private static void sql(Path file, String statement) throws Exception {
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file);
                Statement s = c.createStatement()) {
            s.execute(statement);
        }
    }

    @Test
    void aFolderThatCannotBeWrittenIsExplained() throws Exception {
        Path inTheWay = Files.writeString(folder.resolve("file"), "x");
        assertThatThrownBy(() -> ProjectFile.create(inTheWay.resolve("a.nightreed"), "a"))
                .isInstanceOf(UnusableProject.class)
                .hasMessageContaining("cannot be created");
        fresh().close();
        assertThatThrownBy(this::fresh).hasMessageContaining("exists already");
    }

    @Test
    void oneWindowAtATimeHasAProject() throws Exception {
        Path file = folder.resolve("test.nightreed");
        try (ProjectFile first = fresh()) {
            first.addImitation("bar");
            assertThatThrownBy(() -> ProjectFile.open(file))
                    .isInstanceOf(UnusableProject.class)
                    .hasMessageContaining("open in another window");
            first.addImitation("and the first goes on");
        }
        try (ProjectFile second = ProjectFile.open(file)) {
            assertThat(second.imitations()).hasSize(2);
        }
    }

    @Test
    void recordingsOfOneInstrumentAreKeptTogether() throws Exception {
        try (ProjectFile p = fresh()) {
            Imitation low = p.addImitation("low");
            Imitation high = p.addImitation("high");
            Imitation bell = p.addImitation("bell");
            assertThat(p.family(low)).containsExactly(low);
            p.keepTogether(low, high);
            p.keepTogether(high, bell);
            assertThat(p.family(bell)).containsExactly(low, high, bell);
            p.keepApart(bell);
            assertThat(p.family(bell)).containsExactly(bell);
            assertThat(p.family(low)).containsExactly(low, high);
            p.keepTogether(bell, high);
            assertThat(p.family(low))
                    .as("who joins another family leaves the first")
                    .containsExactly(low);
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("test.nightreed"))) {
            assertThat(p.family(p.imitations().get(2)))
                    .extracting(Imitation::name)
                    .containsExactly("high", "bell");
        }
    }

    @Test
    void patchesThatWereFoundAreKeptWithTheRecordingTheyAreOf() throws Exception {
        Path path = folder.resolve("patches.nightreed");
        Frontier frontier = new Frontier(List.of(
                new Frontier.Point(4, FirstRecipe.of("fm"), 2.5), new Frontier.Point(9, FirstRecipe.of("ring"), 1.25)));
        long recording;
        try (ProjectFile project = ProjectFile.create(path, "Patches")) {
            Imitation imitation = project.addImitation("bar");
            recording = project.addRecording("bar", Clip.mono(new double[4800], 48_000), null);
            project.keepFrontier(imitation, recording, frontier);
        }
        try (ProjectFile project = ProjectFile.open(path)) {
            Imitation imitation = project.imitations().get(0);
            assertThat(project.frontier(imitation, recording)).contains(frontier);
            assertThat(project.frontier(imitation, recording + 1)).isEmpty();
            assertThat(project.frontier(imitation, null)).isEmpty();
        }
    }

    /** As version 1 wrote it: no aspect and no picture in a take, nothing by hand. */
    @Test
    void anOlderProjectIsBroughtUpToDateAndKept() throws Exception {
        Path file = folder.resolve("test.nightreed");
        ResonatorRecipe recipe = RecipeTest.bar();
        try (ProjectFile p = fresh()) {
            p.commit(p.addImitation("bar"), "fit", new Snapshot(null, recipe, recipe, ""));
        }
        for (String column : new String[] {"worst_aspect", "worst_jnd", "picture"}) {
            sql(file, "alter table take drop column " + column);
        }
        sql(file, "alter table edit drop column hand");
        sql(file, "alter table edit drop column locked");
        sql(file, "alter table edit drop column marks");
        sql(file, "alter table edit drop column chosen");
        sql(file, "alter table edit drop column claims");
        sql(file, "alter table imitation drop column family");
        sql(
                file,
                "insert into take(imitation, name, note, at, total_jnd, recipe) select 1, 'old', 'kept', '2026', 0.5,"
                        + " recipe from edit where recipe is not null");
        sql(file, "pragma user_version = 1");
        try (ProjectFile p = ProjectFile.open(file)) {
            Take old = p.takes(p.imitations().get(0)).get(0);
            assertThat(old.note()).isEqualTo("kept");
            assertThat(old.recipe()).isEqualTo(recipe);
            assertThat(old.picture()).isNull();
            assertThat(old.worstJnd()).isNull();
            assertThat(p.now(p.imitations().get(0)).hand()).isEqualTo(ManualCorrections.NONE);
        }
        Path backup = folder.resolve("test.nightreed.schema1.backup");
        try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + backup);
                Statement s = c.createStatement();
                var r = s.executeQuery("pragma user_version")) {
            assertThat(r.getInt(1)).isEqualTo(1);
        }
    }

    @Test
    void aFileThatVanishesIsWrittenAgainWithEverythingInIt() throws Exception {
        Path file = folder.resolve("test.nightreed");
        try (ProjectFile p = fresh()) {
            Imitation bar = p.addImitation("bar");
            p.commit(bar, "one", Snapshot.EMPTY.withNote("before"));
            Files.delete(file);
            p.commit(bar, "two", Snapshot.EMPTY.withNote("after"));
            assertThat(file).exists();
            p.commit(bar, "three", Snapshot.EMPTY.withNote("and on"));
        }
        try (ProjectFile p = ProjectFile.open(file)) {
            Imitation bar = p.imitations().get(0);
            assertThat(p.now(bar).note()).isEqualTo("and on");
            assertThat(p.undo(bar).note()).isEqualTo("after");
            assertThat(p.undo(bar).note()).isEqualTo("before");
        }
    }

    @Test
    void aFolderThatVanishesIsSaidAndWorkGoesOnOnceItIsBack() throws Exception {
        Path stick = Files.createDirectory(folder.resolve("stick"));
        Path file = stick.resolve("test.nightreed");
        try (ProjectFile p = ProjectFile.create(file, "On a stick")) {
            Imitation bar = p.addImitation("bar");
            Path away = Files.move(stick, folder.resolve("pulled"));
            assertThatThrownBy(() -> p.commit(bar, "one", Snapshot.EMPTY))
                    .isInstanceOf(UnusableProject.class)
                    .hasMessageContaining("is gone")
                    .hasMessageContaining("save a copy");
            p.saveCopy(folder.resolve("rescued.nightreed"));
            Files.move(away, stick);
            p.commit(bar, "one", Snapshot.EMPTY.withNote("back"));
            assertThat(p.now(bar).note()).isEqualTo("back");
        }
        try (ProjectFile p = ProjectFile.open(folder.resolve("rescued.nightreed"))) {
            assertThat(p.imitations()).extracting(Imitation::name).containsExactly("bar");
        }
    }

    @Test
    void aCopyHoldsTheHistoryAndCompactingGivesRoomBack() throws Exception {
        Clip long_ = Clip.mono(new float[200_000], 48_000);
        Path copy = folder.resolve("copy.nightreed");
        try (ProjectFile p = fresh()) {
            Imitation bar = p.addImitation("bar");
            long kept = p.addRecording("kept", long_, null);
            p.addRecording("in no edit", long_, null);
            p.commit(bar, "recording", new Snapshot(kept, null, null, ""));
            p.saveCopy(copy);
            assertThatThrownBy(() -> p.saveCopy(copy)).hasMessageContaining("exists already");
            assertThatThrownBy(() -> p.saveCopy(folder.resolve("none").resolve("x.nightreed")))
                    .hasMessageContaining("No copy was written");
            assertThat(p.compact()).isGreaterThan(700_000);
            assertThat(p.recording(kept).clip().length()).isEqualTo(200_000);
        }
        try (ProjectFile p = ProjectFile.open(copy)) {
            assertThat(p.undoLabel(p.imitations().get(0))).contains("recording");
        }
    }

    @Test
    void measurementOfBeforeItsValuesStoodInGroupsIsReadAsItWas() throws Exception {
        Measurement measured = Measurer.measure(Renderer.asFitted(RecipeTest.bar(), 0.2, 1.2, 48_000));
        ObjectNode flat = JsonMapper.builder().build().valueToTree(measured);
        for (String group : List.of("clip", "pitch", "lines", "strike", "room")) {
            flat.setAll((ObjectNode) flat.remove(group));
        }

        assertThat(new StoredValues().measurement(flat.toString()))
                .usingRecursiveComparison()
                .isEqualTo(measured);
    }
}
