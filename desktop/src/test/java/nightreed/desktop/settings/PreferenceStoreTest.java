package nightreed.desktop.settings;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.IntStream;
import nightreed.desktop.reedbed.Axis;
import nightreed.match.hearing.JndThresholds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PreferenceStoreTest {
    @TempDir
    Path folder;

    @Test
    void everythingIsThereAgain() {
        Path file = folder.resolve("deep").resolve("preferences.json");
        PreferenceStore store = new PreferenceStore(file, Runnable::run);
        store.change(p -> p.withLook(Preferences.Look.DAY)
                .withScalePercent(150)
                .withOutput("headphones", 512)
                .withReferenceHz(443)
                .withTempoBpm(96.5)
                .withAxis(Axis.Kind.BARK)
                .withHearing(JndThresholds.thresholds().get(2).set().apply(JndThresholds.USUAL, 0.7))
                .withPlace(new Preferences.Place(10, 20, 1400, 900, false, 0.7, false))
                .withRecent("a.nightreed")
                .asWelcomed());
        assertThat(PreferenceStore.read(file)).isEqualTo(store.get());
        assertThat(store.get().hearing().levelDb()).isEqualTo(0.7);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "null", "[]", "{\"look\":\"DUSK\"}", "{ \"look\": ", "{\"blockSamples\": \"many\"}"})
    void aDamagedFileGivesTheUsualOnes(String text) throws Exception {
        Path file = Files.writeString(folder.resolve("preferences.json"), text);
        assertThat(PreferenceStore.read(file)).isEqualTo(Preferences.USUAL);
    }

    @Test
    void absurdValuesAndUnknownOnesAreMended() throws Exception {
        Path file = Files.writeString(
                folder.resolve("preferences.json"),
                "{\"look\":\"DAY\",\"scalePercent\":4000,\"blockSamples\":7,\"referenceHz\":-1,\"tempoBpm\":9000,\"fromTheFuture\":true}");
        Preferences p = PreferenceStore.read(file);
        assertThat(p.look()).isEqualTo(Preferences.Look.DAY);
        assertThat(p.scalePercent()).isEqualTo(200);
        assertThat(p.blockSamples()).isEqualTo(256);
        assertThat(p.referenceHz()).isEqualTo(440);
        assertThat(p.tempoBpm()).isEqualTo(120);
        assertThat(p.hearing()).isEqualTo(JndThresholds.USUAL);
    }

    @Test
    void theLatestProjectsAreRememberedOnce() {
        Preferences p = Preferences.USUAL;
        for (int i : IntStream.range(0, 12).toArray()) {
            p = p.withRecent("p" + i).withRecent("often");
        }
        assertThat(p.recent()).hasSize(8).startsWith("often", "p11").doesNotHaveDuplicates();
    }

    @Test
    void everyThresholdOfHearingCanBeChangedAlone() {
        for (JndThresholds.Threshold t : JndThresholds.thresholds()) {
            double usual = t.get().applyAsDouble(JndThresholds.USUAL);
            assertThat(usual).as(t.title()).isBetween(t.least(), t.most());
            JndThresholds other = t.set().apply(JndThresholds.USUAL, (usual + t.most()) / 2);
            assertThat(other).isNotEqualTo(JndThresholds.USUAL);
            assertThat(t.set().apply(other, usual)).isEqualTo(JndThresholds.USUAL);
        }
    }
}
