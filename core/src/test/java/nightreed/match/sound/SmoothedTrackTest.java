package nightreed.match.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Paths as they are heard: what is slow by its moments, what is fast by how deep it is. */
class SmoothedTrackTest {
    private static final int FRAMES = 200;

    private static SmoothedTrack level(DoubleUnaryOperator db) {
        double[] power = IntStream.range(0, FRAMES)
                .mapToDouble(f -> Math.pow(10, db.applyAsDouble(f * LoudnessTracks.HOP) / 10))
                .toArray();
        return SmoothedTrack.ofLevel(power, 0);
    }

    private static DoubleUnaryOperator swing(double hz, double db, double phase) {
        return t -> db * Math.sin(2 * Math.PI * hz * t + phase);
    }

    private static double usual(SmoothedTrack a, SmoothedTrack b) {
        double[] away = IntStream.range(20, FRAMES - 20)
                .mapToDouble(f -> a.away(b, f))
                .sorted()
                .toArray();
        return away[away.length / 2];
    }

    @Test
    void whereAFastSwingStandsIsNotHeardButHowDeepItIs() {
        SmoothedTrack rough = level(swing(31, 4, 0));
        assertThat(usual(rough, level(swing(31, 4, 2)))).isLessThan(0.5);
        assertThat(usual(rough, level(swing(33, 4, 0)))).isLessThan(0.5);
        assertThat(usual(rough, level(t -> 0))).isGreaterThan(2.5);
    }

    @Test
    void aSlowSwingIsFollowedMomentByMoment() {
        SmoothedTrack slow = level(swing(3, 4, 0));
        assertThat(usual(slow, level(swing(3, 4, Math.PI)))).isGreaterThan(4);
        assertThat(usual(slow, level(t -> 0))).isCloseTo(2.6, within(0.6));
    }

    @Test
    void gainIsADistanceAsLargeAsItself() {
        double[] even = new double[FRAMES];
        Arrays.fill(even, 0.01);
        assertThat(usual(SmoothedTrack.ofLevel(even, 0), SmoothedTrack.ofLevel(even, 3)))
                .isCloseTo(3, within(1e-6));
    }

    @Test
    void whatIsNotKnownIsNoDifference() {
        double[] bark = new double[FRAMES];
        double[] weights = new double[FRAMES];
        Arrays.fill(bark, 5);
        Arrays.fill(weights, 1);
        bark[50] = Double.NaN;
        SmoothedTrack c = SmoothedTrack.of(bark, weights);
        assertThat(c.slow()[50]).isNaN();
        assertThat(c.slow()[51]).isCloseTo(5, within(1e-12));
        assertThat(c.away(c, 51)).isZero();
    }
}
