package nightreed.measure.held;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.dsp.SincReader;
import nightreed.measure.MadeUpNote;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The parts that held notes are measured with. */
class PitchPathTest {
    @Test
    void timeAndCyclesAreInverse() {
        Random r = new Random(1);
        double[] t = new double[20];
        double[] hz = new double[20];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.1 * i + 0.05 * r.nextDouble();
            hz[i] = 200 + 150 * r.nextDouble();
        }
        PitchPath p = new PitchPath(t, hz);
        for (double at = -0.5; at < 3; at += 0.037) {
            assertThat(p.secondsAt(p.cyclesAt(at))).isCloseTo(at, within(1e-9));
        }
        assertThat(p.hzAt(-1)).isEqualTo(hz[0]);
        assertThat(p.hzAt(9)).isEqualTo(hz[19]);
    }

    @Test
    void aSineIsReadBetweenItsSamples() {
        double[] x = new double[400];
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.sin(0.9 * i);
        }
        SincReader reader = new SincReader(x);
        for (double at = 50; at < 350; at += 0.317) {
            assertThat(reader.at(at)).isCloseTo(Math.sin(0.9 * at), within(2e-4));
        }
        assertThat(reader.at(-100)).isZero();
        assertThat(reader.at(1000)).isZero();
    }

    @ParameterizedTest
    @CsvSource({"55, 40", "196, 20", "440, 40", "1760, 30", "3520, 40"})
    void theFundamentalOfAStretch(double f0, double snr) {
        double[] x = new MadeUpNote(2, 0, 0.4)
                .held(f0, 8, 0.001, 1, t -> 0, t -> 0)
                .noise(snr)
                .samples();
        Yin.Look look = new Yin(MadeUpNote.FS).at(x, 1000);
        assertThat(1200 * Math.log(look.hz() / f0) / Math.log(2)).isCloseTo(0, within(12.0));
        assertThat(look.aperiodicity()).isLessThan(0.1);
    }

    @Test
    void noiseHasNoPeriod() {
        double[] x = new double[8000];
        Random r = new Random(3);
        for (int i = 0; i < x.length; i++) {
            x[i] = r.nextGaussian();
        }
        assertThat(new Yin(MadeUpNote.FS).at(x, 0).aperiodicity()).isGreaterThan(0.4);
    }

    @Test
    void anotherHarmonicDoesNotLeakIntoOne() {
        // harmonics 1 and 3 only: the second has to read as nothing, however the pitch swings
        double[] x = new double[2 * MadeUpNote.FS];
        double[] t = new double[401];
        double[] hz = new double[401];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.005 * i;
            hz[i] = 250 * Math.pow(2, 30 * Math.sin(35 * t[i]) / 1200);
        }
        PitchPath path = new PitchPath(t, hz);
        for (int i = 0; i < x.length; i++) {
            double c = 2 * Math.PI * path.cyclesAt((double) i / MadeUpNote.FS);
            x[i] = 0.3 * Math.cos(c) + 0.2 * Math.cos(3 * c + 1);
        }
        Harmonics h = Harmonics.along(new SincReader(x), MadeUpNote.FS, path, 0.1, 1.8);
        for (int f = 0; f < h.frames(); f++) {
            assertThat(Math.sqrt(h.power(1, f))).isCloseTo(0.3, within(1e-3));
            assertThat(Math.sqrt(h.power(2, f))).isLessThan(1e-3);
            assertThat(Math.sqrt(h.power(3, f))).isCloseTo(0.2, within(1e-3));
            assertThat(Math.atan2(h.im(3, f), h.re(3, f))).isCloseTo(1, within(0.01));
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4})
    void noiseAloneIsNoMovement(int seed) {
        Random r = new Random(seed);
        double[] t = new double[300];
        double[] y = new double[300];
        double[] w = new double[300];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.006 * i;
            y[i] = 3 + 2 * t[i] + r.nextGaussian();
            w[i] = 1;
        }
        MovementFit.Result fit = new MovementFit(t, y, w).run(0);
        assertThat(fit.movement()).isNull();
        assertThat(fit.slope()).isCloseTo(2, within(0.5));
    }

    @Test
    void aSwingUnderNoiseIsRead() {
        Random r = new Random(9);
        double[] t = new double[300];
        double[] y = new double[300];
        double[] w = new double[300];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.006 * i;
            double growth = Math.max(0, Math.min(1, (t[i] - 0.4) / 0.3));
            y[i] = 5 + growth * 4 * Math.sin(2 * Math.PI * 5.5 * t[i] + 1) + r.nextGaussian();
            w[i] = 1;
        }
        MovementFit.Result fit = new MovementFit(t, y, w).run(0);
        Movement m = fit.movement();
        assertThat(m.rateHz()).isCloseTo(5.5, within(3 * m.rateSeHz()));
        assertThat(m.depth()).isCloseTo(4, within(4 * m.depthSe()));
        double worst = 0;
        for (double at = 0.8; at < 1.7; at += 0.01) {
            worst = Math.max(worst, Math.abs(m.at(at) - 4 * Math.sin(2 * Math.PI * 5.5 * at + 1)));
        }
        assertThat(worst).isLessThan(0.8);
    }
}
