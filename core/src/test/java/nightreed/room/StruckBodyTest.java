package nightreed.room;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The physics of a blow: what follows from the contact, not what was put in. */
class StruckBodyTest {
    private static final double FS = 48_000;

    private static StruckBody body(double... hz) {
        int n = hz.length;
        double[] decay = new double[n];
        double[] one = new double[n];
        for (int i = 0; i < n; i++) {
            decay[i] = 5;
            one[i] = 1;
        }
        return new StruckBody(hz, decay, one, one, 0.3);
    }

    private static double[] blow(StruckBody b, double speed, double stiffness) {
        return b.strike(new StruckBody.Hammer(0.02, stiffness, 0.2, speed), force -> 0, 24_000, FS);
    }

    private static double amplitude(double[] x, double hz) {
        double re = 0;
        double im = 0;
        int n = 9600;
        for (int i = 0; i < n; i++) {
            double w = 0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n);
            re += w * x[2400 + i] * Math.cos(2 * Math.PI * hz * i / FS);
            im += w * x[2400 + i] * Math.sin(2 * Math.PI * hz * i / FS);
        }
        return 4 * Math.hypot(re, im) / n;
    }

    @Test
    void aHarderBlowIsShorterAndSoBrighter() {
        StruckBody b = body(300, 4000);
        double[] soft = blow(b, 0.4, 4e6);
        double[] hard = blow(b, 3, 4e6);
        double softShare = amplitude(soft, 4000) / amplitude(soft, 300);
        double hardShare = amplitude(hard, 4000) / amplitude(hard, 300);
        assertThat(20 * Math.log10(hardShare / softShare)).isGreaterThan(3);
    }

    @Test
    void aStifferHammerIsBrighter() {
        StruckBody b = body(300, 4000);
        double[] yarn = blow(b, 1, 1e6);
        double[] wood = blow(b, 1, 1e8);
        assertThat(amplitude(wood, 4000) / amplitude(wood, 300))
                .isGreaterThan(4 * amplitude(yarn, 4000) / amplitude(yarn, 300));
    }

    @ParameterizedTest
    @ValueSource(doubles = {150, 440, 2500})
    void whatRingsOnIsTheModeAtItsOwnPitchAndDecay(double hz) {
        double[] x = blow(body(hz), 1, 4e6);
        double level = amplitude(x, hz);
        assertThat(level).isGreaterThan(20 * amplitude(x, 1.5 * hz));
        double early = 0;
        double late = 0;
        for (int i = 0; i < 4800; i++) {
            early += x[2400 + i] * x[2400 + i];
            late += x[12_000 + i] * x[12_000 + i];
        }
        // 0.2 s at 5 nepers a second, in power
        assertThat(Math.log(early / late)).isCloseTo(2 * 5 * 0.2, within(0.05));
    }

    @Test
    void theContactGivesTheBodyNoMoreEnergyThanTheHammerHad() {
        StruckBody b = body(200, 700, 1500);
        double speed = 2;
        double[] x = blow(b, speed, 4e6);
        double energy = 0;
        for (double hz : new double[] {200, 700, 1500}) {
            double v = amplitude(x, hz) * Math.exp(5 * 0.15); // velocity of the mode, back at the blow
            energy += 0.5 * 0.3 * v * v;
        }
        assertThat(energy).isBetween(0.05 * 0.5 * 0.02 * speed * speed, 0.5 * 0.02 * speed * speed);
    }

    @Test
    void modesBeyondTheBandAreLeftOutAndNothingGrows() {
        double[] x = blow(body(500, 23_500, 40_000), 3.5, 4e8);
        for (double v : x) {
            assertThat(Math.abs(v)).isLessThan(20);
        }
        assertThat(Math.abs(x[23_000])).isLessThan(Math.abs(x[100]) + 1);
    }
}
