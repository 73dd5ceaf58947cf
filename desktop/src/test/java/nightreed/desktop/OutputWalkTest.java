package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.stage.Stage;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.stage.WorkStage;
import nightreed.device.AudioOutput;
import nightreed.device.AudioSource;
import nightreed.device.OutputDevices;
import nightreed.device.StandInOutput;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Outputs that come and go while the window is open. */
class OutputWalkTest {
    @TempDir
    Path folder;

    private final Cards cards = new Cards();
    private final FxRobot robot = new FxRobot();
    private Workbench workbench;

    /** Cards that are stand-ins under another name. */
    private static final class Cards implements OutputDevices {
        final List<String> there = new CopyOnWriteArrayList<>();
        volatile Card last;

        @Override
        public List<String> names() {
            return List.copyOf(there);
        }

        @Override
        public AudioOutput open(String name, int blockSamples, AudioSource source) {
            last = new Card(name == null ? there.get(0) : name, new StandInOutput(source, 48_000));
            return last;
        }
    }

    private record Card(String name, StandInOutput inner, boolean[] pulled) implements AudioOutput {
        Card(String name, StandInOutput inner) {
            this(name, inner, new boolean[1]);
        }

        @Override
        public boolean standIn() {
            return false;
        }

        @Override
        public int sampleRateHz() {
            return inner.sampleRateHz();
        }

        @Override
        public double latencySeconds() {
            return inner.latencySeconds();
        }

        @Override
        public long dropOuts() {
            return 0;
        }

        @Override
        public long played() {
            return inner.played();
        }

        @Override
        public boolean lost() {
            return pulled[0];
        }

        @Override
        public void close() {
            inner.close();
        }
    }

    @BeforeEach
    void open() throws Exception {
        FxToolkit.registerPrimaryStage();
        FxToolkit.setupFixture(() -> {
            workbench = new Workbench(cards, folder.resolve("preferences.json"));
            workbench.preferences().change(Preferences::asWelcomed);
            workbench.shell().go(WorkStage.BRIEF);
            workbench.show(new Stage());
        });
    }

    @AfterEach
    void close() throws Exception {
        OnStage.fx(() -> {
            workbench.close();
            return null;
        });
        FxToolkit.cleanupStages();
    }

    private void awaitName(String name) throws Exception {
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> OnStage.fx(() -> {
                    Label l = (Label) robot.lookup((Node n) -> "output-name".equals(n.getId()))
                            .query();
                    return l.getText().equals(name);
                }));
    }

    @Test
    void theRailNamesTheOutputInUse() throws Exception {
        awaitName("stand-in output");
        cards.there.add("desk speakers");
        awaitName("desk speakers");
        cards.there.clear();
        cards.last.pulled()[0] = true;
        awaitName("stand-in output");
    }

    @Test
    void anOutputThatIsChosenIsUsedAndRemembered() throws Exception {
        cards.there.addAll(List.of("desk speakers", "headphones"));
        awaitName("desk speakers");
        OnStage.fx(() -> {
            workbench.preferences().change(p -> p.withOutput("headphones", 512));
            return null;
        });
        awaitName("headphones");
        Path file = folder.resolve("preferences.json");
        WaitForAsyncUtils.waitFor(
                10,
                TimeUnit.SECONDS,
                () -> "headphones".equals(PreferenceStore.read(file).output()));
        assertThat(PreferenceStore.read(file).blockSamples()).isEqualTo(512);
    }
}
