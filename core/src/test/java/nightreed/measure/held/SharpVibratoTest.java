package nightreed.measure.held;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import nightreed.measure.held.Movement.Shape;
import org.junit.jupiter.api.Test;

/** Swings of lines that lie at no multiples of a pitch. */
class SharpVibratoTest {
    private static final int FS = 48_000;
    private static final Movement SWING = vibrato(6.3, 80, 0.4, 0.3);

    private static Movement vibrato(double rateHz, double cents, double delay, double ramp) {
        return new Movement(rateHz, cents, 1, delay, ramp, 0.001, 0.1, Shape.SINE, 1, null, null);
    }

    /** Two rows of lines 223 Hz apart that lie 40 Hz beside each other, as of a modulation off its pitch. */
    private static double[] lines(Movement swing) {
        double[] x = new double[(int) (2.4 * FS)];
        double cycles = 0;
        for (int i = 0; i < x.length; i++) {
            double t = (double) i / FS;
            double cents = swing == null ? 0 : swing.at(t);
            cycles += Math.pow(2, cents / 1200) / FS;
            for (int k = 0; k < 8; k++) {
                x[i] += Math.sin(2 * Math.PI * cycles * (240 + 223 * k)) / (2 + k);
                x[i] += Math.sin(2 * Math.PI * cycles * (200 + 223 * k) + k) / (3 + k);
            }
        }
        return x;
    }

    private static Movement found(Movement followed, Movement swing) {
        double[] x = lines(swing);
        return SharpVibrato.near(followed, x, FS, 0, x.length);
    }

    @Test
    void aSwingThatWasFollowedTooShallowGetsItsDepthAndItsStart() {
        Movement found = found(vibrato(6.33, 72, 0.36, 0.34), SWING);
        assertThat(found.depth()).isCloseTo(80, within(0.5));
        assertThat(found.rateHz()).isCloseTo(6.3, within(0.005));
        assertThat(found.delaySeconds()).isCloseTo(0.4, within(0.03));
        assertThat(found.at(1.7)).isCloseTo(SWING.at(1.7), within(2.0));
    }

    @Test
    void aSwingThatWasNotFollowedAtAllIsFound() {
        Movement found = found(null, SWING);
        assertThat(found.depth()).isCloseTo(80, within(1.0));
        assertThat(found.rateHz()).isCloseTo(6.3, within(0.01));
        assertThat(found.at(1.7)).isCloseTo(SWING.at(1.7), within(3.0));
    }

    @Test
    void aSwingWithCornersIsLeftAsItWasFollowed() {
        Movement triangle = new Movement(6.3, 80, 1, 0.4, 0.3, 0.001, 0.1, Shape.TRIANGLE, 1, null, null);
        assertThat(found(triangle, SWING)).isSameAs(triangle);
    }

    @Test
    void linesThatStandStillGetNoSwing() {
        assertThat(found(null, null)).isNull();
    }
}
