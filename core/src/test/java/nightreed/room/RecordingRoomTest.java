package nightreed.room;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.partial.Partial;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RecordingRoomTest {
    private static final RecordingRoom.Instrument BARS = RecordingRoom.instrument("slate-bars");

    @ParameterizedTest
    @ValueSource(ints = {50, 86})
    void aBarSoundsItsKeyButNotAtConcertPitch(int key) throws Exception {
        Measurement m = Measurer.measure(RecordingRoom.record(BARS, key, 0.8, 4));
        assertThat(nightreed.music.Pitch.nearestKey(m.f0Hz())).isEqualTo(key);
        assertThat(Math.abs(m.centsFromConcert())).isBetween(0.3, 40.0);
        assertThat(m.partials().get(0).t60Seconds()).isBetween(0.3, 3.0);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {62, 74})
    void moreABarSoundsItsKeyButNotAtConcertPitch(int key) throws Exception {
        aBarSoundsItsKeyButNotAtConcertPitch(key);
    }

    @Test
    void aHarderBlowIsLouderAndBrighter() throws Exception {
        Clip soft = RecordingRoom.record(BARS, 57, 0.3, 4);
        Clip hard = RecordingRoom.record(BARS, 57, 1.0, 4);
        assertThat(20 * Math.log10(hard.peak() / soft.peak())).isGreaterThan(10);
        assertThat(upper(Measurer.measure(hard))).isGreaterThan(upper(Measurer.measure(soft)) + 3);
    }

    /** Energy of the modes from the fourth on against the first [dB]. */
    private static double upper(Measurement m) {
        double sum = 0;
        for (Partial p : m.reliablePartials()) {
            sum += p.ratio() > 7 ? p.amplitude() * p.amplitude() : 0;
        }
        return 10 * Math.log10(sum / Math.pow(m.reliablePartials().get(0).amplitude(), 2));
    }

    @ParameterizedTest
    @ValueSource(ints = {62})
    void theBuoyBellIsATunedBellOfPairsThatRingFromTheHumUp(int key) throws Exception {
        RecordingRoom.Instrument bell = RecordingRoom.instrument("buoy-bell");
        Measurement m = Measurer.measure(RecordingRoom.record(bell, key, 0.8, 4));
        assertThat(m.series().series().name()).isEqualTo("tuned bell");
        assertThat(nightreed.music.Pitch.nearestKey(m.f0Hz())).isEqualTo(key);
        Partial hum = m.reliablePartials().get(0);
        assertThat(hum.ratio()).isBetween(0.48, 0.52);
        assertThat(hum.t60Seconds()).isGreaterThan(8);
        long pairs = m.partials().stream()
                .filter(p -> p.beatHz() != null && p.beatHz() < 6)
                .count();
        assertThat(pairs).isGreaterThanOrEqualTo(8); // the members of at least four
        Partial high = m.reliablePartials().get(m.reliablePartials().size() - 1);
        assertThat(high.t60Seconds()).isLessThan(hum.t60Seconds() / 4);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {54, 76})
    void moreTheBuoyBellIsATunedBellOfPairsThatRingFromTheHumUp(int key) throws Exception {
        theBuoyBellIsATunedBellOfPairsThatRingFromTheHumUp(key);
    }

    @Test
    void theSameRequestGivesTheSameRecording() {
        assertThat(RecordingRoom.record(BARS, 60, 0.5, 9).channel(0))
                .containsExactly(RecordingRoom.record(BARS, 60, 0.5, 9).channel(0))
                .isNotEqualTo(RecordingRoom.record(BARS, 60, 0.5, 10).channel(0));
    }

    @Test
    void allKeysAndStrengthsStayWithinFullScale() {
        for (int key = BARS.lowestKey(); key <= BARS.highestKey(); key += 5) {
            double peak = RecordingRoom.record(BARS, key, 1, 2).peak();
            assertThat(peak).as("key " + key).isBetween(0.02, 1.0);
        }
    }

    @Test
    void impossibleRequestsAreExplained() {
        assertThatThrownBy(() -> RecordingRoom.instrument("kazoo")).hasMessageContaining("slate-bars");
        assertThatThrownBy(() -> RecordingRoom.record(BARS, 20, 0.5, 1)).hasMessageContaining("48 to 91");
        assertThatThrownBy(() -> RecordingRoom.record(BARS, 60, 0, 1)).hasMessageContaining("velocity");
        assertThatThrownBy(() -> RecordingRoom.record(BARS, 60, Double.NaN, 1)).hasMessageContaining("velocity");
    }

    @ParameterizedTest
    @ValueSource(ints = {43})
    void theHornIsHeldAndGrowsBrighterAsItGrowsLouder(int key) throws Exception {
        RecordingRoom.Instrument horn = RecordingRoom.instrument("ferry-horn");
        Clip soft = RecordingRoom.record(horn, key, 0.3, 4);
        Clip loud = RecordingRoom.record(horn, key, 1, 4);
        Measurement m = Measurer.measure(loud);
        assertThat(m.held()).isNotNull();
        assertThat(nightreed.music.Pitch.nearestKey(m.f0Hz())).isEqualTo(key);
        assertThat(20 * Math.log10(loud.peak() / soft.peak())).isGreaterThan(6);
        assertThat(highs(m) - highs(Measurer.measure(soft))).isGreaterThan(6);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {53, 65})
    void moreTheHornIsHeldAndGrowsBrighterAsItGrowsLouder(int key) throws Exception {
        theHornIsHeldAndGrowsBrighterAsItGrowsLouder(key);
    }

    /** Energy of the harmonics over the seventh against all [dB]. */
    private static double highs(Measurement m) {
        double high = 0;
        double all = 0;
        for (Partial p : m.partials()) {
            double e = p.amplitude() * p.amplitude();
            all += e;
            high += p.ratio() > 7.5 ? e : 0;
        }
        return 10 * Math.log10(high / all + 1e-9);
    }

    @ParameterizedTest
    @ValueSource(ints = {69})
    void theLongBowHoldsItsNoteWithALateVibrato(int key) throws Exception {
        Measurement m = Measurer.measure(RecordingRoom.record(RecordingRoom.instrument("long-bow"), key, 0.6, 4));
        assertThat(m.held()).isNotNull();
        assertThat(nightreed.music.Pitch.nearestKey(m.f0Hz())).isEqualTo(key);
        assertThat(m.held().vibrato()).isNotNull();
        assertThat(m.held().vibrato().rateHz()).isBetween(4.8, 6.0);
        assertThat(m.held().vibrato().depth()).isBetween(8.0, 25.0);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {48, 57})
    void moreTheLongBowHoldsItsNoteWithALateVibrato(int key) throws Exception {
        theLongBowHoldsItsNoteWithALateVibrato(key);
    }

    @ParameterizedTest
    @ValueSource(ints = {50})
    void theEelLuteIsAStringWhosePartialsComeInPairs(int key) throws Exception {
        Measurement m = Measurer.measure(RecordingRoom.record(RecordingRoom.instrument("eel-lute"), key, 0.7, 4));
        assertThat(nightreed.music.Pitch.nearestKey(m.f0Hz())).isEqualTo(key);
        assertThat(m.series().series().name()).containsAnyOf("string", "harmonic");
        assertThat(m.partials().stream()
                        .filter(p -> p.beatHz() != null || p.stages() != null)
                        .count())
                .isGreaterThan(2);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {42, 64})
    void moreTheEelLuteIsAStringWhosePartialsComeInPairs(int key) throws Exception {
        theEelLuteIsAStringWhosePartialsComeInPairs(key);
    }

    @Test
    void theKitsWoodIsShortAndItsMetalLong() throws Exception {
        RecordingRoom.Instrument kit = RecordingRoom.instrument("ratchet-kit");
        assertThat(longest(Measurer.measure(RecordingRoom.record(kit, 55, 0.7, 4))))
                .isLessThan(0.3);
        assertThat(longest(Measurer.measure(RecordingRoom.record(kit, 76, 0.7, 4))))
                .isGreaterThan(0.8);
    }

    private static double longest(Measurement m) {
        return m.reliablePartials().stream()
                .filter(p -> p.t60Seconds() != null)
                .mapToDouble(Partial::t60Seconds)
                .max()
                .orElse(0);
    }
}
