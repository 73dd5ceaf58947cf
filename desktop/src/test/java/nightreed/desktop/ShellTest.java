package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.page.GuidePage;
import nightreed.desktop.page.PreferencesPage;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.FittedBar;
import nightreed.project.ProjectFile;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import org.junit.jupiter.api.Test;
import org.testfx.util.WaitForAsyncUtils;

/** The window around the stages: keyboard, names for those who do not see, pages, help, preferences, files and microphone. */
class ShellTest extends WindowTest {
    private Path fitted;

    private void openFittedBar() throws Exception {
        fitted = folder.resolve("fitted.nightreed");
        FittedBar.copyTo(fitted);
        run(() -> workbench.bench().openProject(fitted));
        await("it is open and compared", s -> s.comparison() != null);
        idle();
    }

    private static void walk(Node n, List<Node> out) {
        if (n.isVisible()) {
            out.add(n);
            if (n instanceof Parent p) {
                p.getChildrenUnmodifiable().forEach(c -> walk(c, out));
            }
        }
    }

    private List<Node> visible() {
        return fx(() -> {
            List<Node> all = new ArrayList<>();
            walk(workbench.shell(), all);
            return all;
        });
    }

    /** Whether a node is something to operate, and not a part of one. */
    private static boolean operable(Node n) {
        boolean inside = false;
        for (Node p = n.getParent(); p != null; p = p.getParent()) {
            inside |= p instanceof Control && !(p instanceof ScrollPane);
        }
        boolean scrolls = n instanceof ScrollPane || n instanceof javafx.scene.control.ScrollBar;
        boolean shown = n instanceof Control && !(n instanceof Label) && !scrolls;
        return !inside && (shown || n.isFocusTraversable() && !scrolls);
    }

    private static String name(Node n) {
        return n.getAccessibleText() != null ? n.getAccessibleText() : n instanceof Labeled l ? l.getText() : null;
    }

    private List<Runnable> everyScreen() {
        List<Runnable> all = new ArrayList<>();
        for (WorkStage s : WorkStage.values()) {
            all.add(() -> workbench.shell().go(s));
        }
        all.add(() -> workbench.shell().openGuide("keys"));
        all.add(() -> workbench.shell().openPreferences());
        all.add(() -> workbench.shell().openAbout());
        return all;
    }

    @Test
    void everythingThatCanBeOperatedHasANameAndIsReachedWithTab() throws Exception {
        openFittedBar();
        await("advised", s -> s.moves() != null && !s.tolerances().isEmpty());
        run(() -> workbench.bench().keepTake("as fitted"));
        await("a take is kept", s -> s.takes().size() == 2);
        for (Runnable screen : everyScreen()) {
            run(screen);
            Set<Node> wanted = new LinkedHashSet<>();
            List<Node> unnamed = new ArrayList<>();
            for (Node n : visible()) {
                if (operable(n)) {
                    if (name(n) == null || name(n).isBlank()) {
                        unnamed.add(n);
                    }
                    if (n.isFocusTraversable() && !n.isDisabled()) {
                        wanted.add(n);
                    }
                }
            }
            assertThat(unnamed).as("without a name").isEmpty();
            assertThat(wanted).hasSizeGreaterThan(10);
            Set<Node> reached = new LinkedHashSet<>();
            run(() -> workbench.shell().lookup("#hear-recording").requestFocus());
            for (int i = 0; i < 3 * wanted.size() + 40 && !reached.containsAll(wanted); i++) {
                robot.type(KeyCode.TAB);
                Node owner = fx(() -> workbench.shell().getScene().getFocusOwner());
                for (Node n = owner; n != null; n = n.getParent()) {
                    reached.add(n); // a spinner hands the keyboard to the field within
                    if (n instanceof ToggleButton b && b.getToggleGroup() != null) {
                        // a group is one stop; the arrows walk within it
                        b.getToggleGroup().getToggles().forEach(t -> reached.add((Node) t));
                    }
                }
            }
            wanted.removeAll(reached);
            assertThat(wanted).as("not reached with Tab").isEmpty();
        }
    }

    @Test
    void arrowsWalkWithinAGroup() throws Exception {
        openFittedBar();
        run(() -> find("hear-recording", Node.class).requestFocus());
        robot.type(KeyCode.RIGHT);
        assertThat(fx(() -> workbench.shell().getScene().getFocusOwner().getId()))
                .isEqualTo("hear-imitation");
        robot.type(KeyCode.SPACE);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(find("hear-imitation", ToggleButton.class).isSelected()).isTrue();
    }

    @Test
    void f1ExplainsWhatHasTheKeyboardAndLeadsIntoTheGuide() throws Exception {
        openFittedBar();
        stage(WorkStage.BUILD);
        run(() -> find("line-exciter.contact", Node.class).requestFocus());
        robot.type(KeyCode.F1);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(find("message", Label.class).getText()).startsWith("contact").contains("mallet touches");
        press("read-more");
        GuidePage guide = (GuidePage) fx(() -> workbench.shell().page());
        assertThat(guide.chapter()).isEqualTo("build");
        robot.type(KeyCode.ESCAPE);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(fx(() -> workbench.shell().page())).isNull();
        assertThat(fx(() -> workbench.shell().stage())).isEqualTo(WorkStage.BUILD);
        robot.press(KeyCode.SHIFT).type(KeyCode.F1).release(KeyCode.SHIFT);
        assertThat(guide.chapter()).isEqualTo("index");
        stage(WorkStage.PLAY); // a stage is one key away from anywhere
        assertThat(fx(() -> workbench.shell().page())).isNull();
    }

    @Test
    void preferencesTakeEffectAtOnceAndAreKept() throws Exception {
        openFittedBar();
        run(() -> workbench
                .bench()
                .shaping()
                .set(workbench.bench().state().recipe().setting("tune").parameter(), 20, true));
        await("compared", s -> s.comparison() != null && s.comparison().jnd(nightreed.match.hearing.Aspect.PITCH) > 1);
        double before = state().comparison().jnd(nightreed.match.hearing.Aspect.PITCH);
        robot.press(KeyCode.CONTROL).type(KeyCode.COMMA).release(KeyCode.CONTROL);
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(fx(() -> workbench.shell().page())).isInstanceOf(PreferencesPage.class);
        run(() -> find("prefer-day", ToggleButton.class).fire());
        assertThat(fx(() -> workbench.shell().getScene().getFill())).isEqualTo(Palette.DAY.ground());
        run(() -> {
            TextField pitch = find("prefer-pitch", TextField.class);
            pitch.setText("10"); // half as sharp an ear
            pitch.getOnAction().handle(null);
            TextField a4 = find("prefer-a4", TextField.class);
            a4.setText("9000");
            a4.getOnAction().handle(null);
            assertThat(a4.getText()).isEqualTo("440");
            a4.setText("442,5");
            a4.getOnAction().handle(null);
        });
        await(
                "judged anew",
                s -> s.comparison() != null
                        && Math.abs(s.comparison().jnd(nightreed.match.hearing.Aspect.PITCH) - before / 2) < 1e-3);
        Path file = folder.resolve("preferences.json");
        WaitForAsyncUtils.waitFor(
                10, TimeUnit.SECONDS, () -> PreferenceStore.read(file).referenceHz() == 442.5);
        Preferences kept = PreferenceStore.read(file);
        assertThat(kept.look()).isEqualTo(Preferences.Look.DAY);
        assertThat(kept.hearing().pitchCents()).isEqualTo(10);
        assertThat(kept.centsAtReference(0)).isCloseTo(-9.81, within(0.01));
        press("prefer-usual-hearing");
        assertThat(workbench.preferences().get().hearing()).isEqualTo(nightreed.match.hearing.JndThresholds.USUAL);
    }

    @Test
    void theMicrophoneShowsItsLevelAndIsTakenIn() throws Exception {
        stage(WorkStage.BRIEF);
        assertThat(find("mic-record", Button.class).isDisabled()).isTrue(); // the level first
        press("mic-listen");
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> fx(() -> find("mic-words", Label.class).getText().contains("Good: the loudest so far")));
        assertThat(find("mic-words", Label.class).getText()).startsWith("stand-in microphone");
        press("mic-record");
        WaitForAsyncUtils.waitFor(
                30,
                TimeUnit.SECONDS,
                () -> fx(() -> find("mic-record", Button.class).getText().matches("Stop \\((3\\.[5-9]|4).*")));
        press("mic-record");
        await("measured", s -> s.recording() != null);
        assertThat(state().recordingName()).isEqualTo("Stand-in microphone 1");
        assertThat(state().recording().measurement().f0Hz()).isCloseTo(330, within(12.0));
    }

    @Test
    void ofALongFileASpanIsTakenIn() throws Exception {
        Path file = folder.resolve("session.wav");
        float[] session = new float[90 * 48_000];
        for (int note = 0; note < 3; note++) {
            Clip bar =
                    RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 60 + 3 * note, 0.5 + 0.2 * note, note);
            System.arraycopy(bar.channel(0), 0, session, (10 + 30 * note) * 48_000, bar.length());
        }
        WavFiles.write(Clip.mono(session, 48_000), WavFiles.Format.PCM16, file);
        drop(file);
        WaitForAsyncUtils.waitFor(
                30,
                TimeUnit.SECONDS,
                () -> fx(() -> workbench.bench().intake().longFileProperty().get() != null));
        idle();
        assertThat(state().recording()).isNull(); // nothing is measured before the note is pointed out
        run(() -> find("span-picker", Node.class).requestFocus());
        robot.press(KeyCode.CONTROL)
                .type(KeyCode.LEFT, KeyCode.LEFT, KeyCode.LEFT)
                .release(KeyCode.CONTROL);
        WaitForAsyncUtils.waitForFxEvents();
        press("take-span"); // from the loudest, the third, half a minute back
        await("measured", s -> s.recording() != null);
        assertThat(state().recording().measurement().nearestNote()).isEqualTo("Eb4");
        assertThat(state().recordingName()).contains("session.wav from");
        assertThat(fx(() -> workbench.bench().intake().longFileProperty().get()))
                .isNull();
    }

    @Test
    void theProjectMenuLeadsToOtherProjectsAndBack() throws Exception {
        openFittedBar();
        Path other = folder.resolve("other.nightreed");
        Path copy = folder.resolve("copy.nightreed");
        run(() -> workbench.bench().saveCopy(copy));
        awaitMessage("A copy of the project was written");
        run(() -> workbench.bench().newProject(other, "Other"));
        await("the other is open", s -> s.projectName().equals("Other"));
        assertThat(state().recording()).isNull();
        ProjectFile.open(fitted).close(); // the first was let go
        run(() -> workbench.shell().drop(List.of(copy.toFile()))); // a project can be dropped, too
        await("the copy is open", s -> s.projectName().equals("Bench") && s.recording() != null);
        assertThat(state().takes()).hasSize(1);
        Path letter = Files.writeString(folder.resolve("letter.nightreed"), "no");
        run(() -> workbench.bench().openProject(letter));
        awaitMessage("is not a Night Reed project");
        assertThat(state().projectName()).isEqualTo("Bench"); // and what was open stays open
    }

    @Test
    void whatWentWrongBeforeTheWindowWasCompleteIsStillSaid() throws Exception {
        Workbench early =
                OnStage.fx(() -> new Workbench(new nightreed.device.NoDevices(), folder.resolve("other.json")));
        early.bench().say("The project may not be written.");
        OnStage.fx(() -> {
            early.shell().complete();
            return null;
        });
        Label message = (Label) OnStage.fx(() -> early.shell().lookup("#message"));
        assertThat(message.getText()).isEqualTo("The project may not be written.");
        assertThat(message.getParent().isVisible()).isTrue();
        OnStage.fx(() -> {
            early.close();
            return null;
        });
    }
}
