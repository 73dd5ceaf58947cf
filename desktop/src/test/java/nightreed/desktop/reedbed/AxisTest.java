package nightreed.desktop.reedbed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class AxisTest {
    @ParameterizedTest
    @EnumSource(Axis.Kind.class)
    void placesAndFrequenciesUndoEachOther(Axis.Kind kind) {
        Axis a = new Axis(kind, 220, 100, 9000);
        assertThat(a.position(100)).isCloseTo(0, within(1e-9));
        assertThat(a.position(9000)).isCloseTo(1, within(1e-9));
        for (double hz = 110; hz < 9000; hz *= 1.31) {
            assertThat(a.hzAt(a.position(hz))).isCloseTo(hz, within(hz * 1e-3));
        }
    }

    @ParameterizedTest
    @EnumSource(Axis.Kind.class)
    void marksAreRoundInOrderAndNotTooClose(Axis.Kind kind) {
        Axis a = new Axis(kind, 220, 60, 12_000);
        double last = -1;
        assertThat(a.ticks(0.055)).hasSizeBetween(5, 18);
        for (Axis.Tick t : a.ticks(0.055)) {
            double x = a.position(t.hz());
            assertThat(x).isBetween(0.0, 1.0).isGreaterThanOrEqualTo(last + 0.055);
            last = x;
            double value = Double.parseDouble(t.text());
            double hz = kind == Axis.Kind.RATIO ? 220 * value : kind == Axis.Kind.HZ ? value : t.hz();
            assertThat(t.hz()).isCloseTo(hz, within(1e-6));
        }
    }

    @Test
    void anOctaveIsAsWideAnywhereOnTheRatioAxis() {
        Axis a = new Axis(Axis.Kind.RATIO, 100, 50, 6400);
        double low = a.position(200) - a.position(100);
        assertThat(a.position(3200) - a.position(1600)).isCloseTo(low, within(1e-9));
    }

    @Test
    void zoomingStaysWithinHearingAndNeverClosesIn() {
        Axis a = new Axis(Axis.Kind.HZ, 100, 50, 6400);
        Axis wide = a.over(1, 1e6);
        assertThat(wide.lowHz()).isEqualTo(15);
        assertThat(wide.highHz()).isEqualTo(24_000);
        assertThat(a.over(1000, 1001)).isEqualTo(a);
        assertThat(a.as(Axis.Kind.BARK).as(Axis.Kind.HZ)).isEqualTo(a);
    }
}
