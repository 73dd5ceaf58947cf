package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.measure.partial.Partial;
import nightreed.sound.Clip;
import nightreed.sound.TimeStretch;
import org.junit.jupiter.api.Test;

/** What a person decides, and what a person listens to. */
class ManualCorrectionsTest {
    private static final MadeUpNote NOTE =
            new MadeUpNote(1, 0.2, 2).mode(400, 0.2, 1.2).mode(1100, 0.1, 0.8).mode(2160, 0.05, 0.5);

    private final Clip clip = NOTE.noise(50).clip();
    private final Measurement measured = measure(clip);

    private static Measurement measure(Clip clip) {
        try {
            return Measurer.measure(clip);
        } catch (nightreed.sound.UnusableSound e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void whatWasMeasuredIsNotChangedByWhatIsDecided() {
        Partial second = measured.reliablePartials().get(1);
        ManualCorrections hand = ManualCorrections.NONE.leaveOut(second.frequencyHz());
        Measurement own = hand.over(measured, clip);
        assertThat(own.reliablePartials()).hasSize(2).doesNotContain(second);
        assertThat(own.remarks()).anyMatch(r -> r.startsWith("By hand: 1 left out"));
        assertThat(hand.forget(second.frequencyHz()).over(measured, clip)).isSameAs(measured);
        assertThat(measured.reliablePartials()).hasSize(3);
    }

    @Test
    void aChosenStrikeNoteMovesAllRatios() {
        Measurement own = ManualCorrections.NONE.strikeNote(200.0).over(measured, clip);
        assertThat(own.f0Hz()).isEqualTo(200);
        assertThat(own.nearestNote()).isEqualTo("G3");
        assertThat(own.reliablePartials().get(0).ratio()).isCloseTo(2, within(0.001));
    }

    @Test
    void aPartialIsEstimatedWhereSomebodyPoints() {
        ManualCorrections without = ManualCorrections.NONE.leaveOut(
                measured.reliablePartials().get(2).frequencyHz());
        Partial found = PartialNear.find(clip, without.over(measured, clip), 2150);
        assertThat(found.frequencyHz()).isCloseTo(2160, within(0.1));
        assertThat(found.t60Seconds()).isCloseTo(0.5, within(0.03));
        assertThat(PartialNear.find(clip, measured, 9000)).isNull();
    }

    @Test
    void onePartialIsTakenApartAndTwoAreJoined() throws Exception {
        Clip pair = new MadeUpNote(4, 0.2, 2.5)
                .mode(500, 0.2, 1.5)
                .mode(500.9, 0.1, 1.2)
                .mode(1300, 0.1, 0.6)
                .noise(50)
                .clip();
        Measurement two = Measurer.measure(pair);
        assertThat(two.reliablePartials()).hasSize(3);
        ManualCorrections joined = ManualCorrections.NONE.merge(500.4);
        Measurement one = joined.over(two, pair);
        assertThat(one.reliablePartials()).hasSize(2);
        assertThat(one.reliablePartials().get(0).frequencyHz()).isBetween(499.8, 500.7);
        Measurement again =
                joined.split(one.reliablePartials().get(0).frequencyHz()).over(two, pair);
        assertThat(again.reliablePartials())
                .as("what was joined is taken apart again")
                .hasSize(3);
        assertThat(again.reliablePartials().get(0).frequencyHz()).isCloseTo(500, within(0.02));
        assertThat(again.reliablePartials().get(1).frequencyHz()).isCloseTo(500.9, within(0.02));
        assertThat(again.reliablePartials().get(0).t60Seconds()).isCloseTo(1.5, within(0.05));
        ManualCorrections without = joined.split(one.reliablePartials().get(0).frequencyHz())
                .leaveOut(again.reliablePartials().get(0).frequencyHz());
        assertThat(without.over(two, pair).reliablePartials())
                .as("one of a pair can be left out")
                .hasSize(2);
    }

    @Test
    void whatIsLockedStaysWhenItsNeighbourIsEstimatedAgain() throws Exception {
        Clip close = new MadeUpNote(5, 0.2, 2.5)
                .mode(500, 0.2, 1.5)
                .mode(512, 0.15, 1.1)
                .noise(40)
                .clip();
        Measurement m = Measurer.measure(close);
        Partial upper = m.reliablePartials().get(1);
        ManualCorrections hand = ManualCorrections.NONE
                .lock(upper.frequencyHz())
                .split(m.reliablePartials().get(0).frequencyHz());
        assertThat(hand.over(m, close).partials()).contains(upper);
        assertThat(hand.split(upper.frequencyHz()).over(m, close).partials()).contains(upper);
        assertThat(hand.locks(upper)).isTrue();
        assertThat(hand.unlock(upper.frequencyHz()).locks(upper)).isFalse();
    }

    @Test
    void partsAddUpToTheRecording() {
        Clip first = PartialSounds.of(
                clip, measured, List.of(measured.reliablePartials().get(0)));
        assertThat(power(first)).isCloseTo(power(tone(400, 0.2, 1.2)), within(0.03 * power(first)));
        Clip rest = PartialSounds.rest(clip, measured);
        assertThat(power(rest)).isLessThan(0.002 * power(clip));
    }

    @Test
    void harmonicsOfAHeldNoteAreTakenOutOfIt() {
        Clip held = new MadeUpNote(2, 0.1, 2)
                .held(220, 8, 0.05, 1.6, t -> 20 * Math.sin(34 * t), t -> 2 * Math.sin(20 * t))
                .clip();
        Measurement m = measure(held);
        assertThat(power(PartialSounds.rest(held, m))).isLessThan(0.01 * power(held));
    }

    @Test
    void sidebandsAreCutOutOfTheRecording() {
        Clip fm = new MadeUpNote(3, 0.1, 2)
                .modulated(400, 646, 3, 0.3, 2)
                .noise(60)
                .clip();
        Measurement m = measure(fm);
        Clip all = PartialSounds.of(fm, m, m.reliablePartials());
        assertThat(power(all)).isCloseTo(power(fm), within(0.1 * power(fm)));
    }

    @Test
    void slowerIsLongerAndNotLower() {
        Clip slow = TimeStretch.slower(tone(400, 0.2, 3), 2);
        assertThat(slow.seconds()).isCloseTo(2 * 1.8, within(0.01));
        float[] x = slow.channel(0);
        int crossings = 0;
        for (int i = 24_000; i < 72_000; i++) {
            crossings += x[i - 1] < 0 && x[i] >= 0 ? 1 : 0;
        }
        assertThat(crossings).isCloseTo(400, within(4));
        assertThatThrownBy(() -> TimeStretch.slower(slow, 0.5)).hasMessageContaining("1 to 8");
    }

    private static Clip tone(double hz, double amplitude, double t60) {
        return new MadeUpNote(1, 0, 1.8).mode(hz, amplitude, t60).clip();
    }

    private static double power(Clip c) {
        double sum = 0;
        for (float v : c.channel(0)) {
            sum += (double) v * v;
        }
        return sum;
    }
}
