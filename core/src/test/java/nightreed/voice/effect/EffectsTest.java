package nightreed.voice.effect;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import nightreed.Partials;
import nightreed.Tones;
import nightreed.dsp.HalfBand;
import nightreed.dsp.RealFft;
import nightreed.music.Pitch;
import nightreed.recipe.part.Effects;
import nightreed.recipe.part.Effects.Chorus;
import nightreed.recipe.part.Effects.Delay;
import nightreed.recipe.part.Effects.Drive;
import nightreed.recipe.part.Effects.Reverb;
import nightreed.recipe.part.Effects.Tone;
import nightreed.recipe.part.Effects.Tremolo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class EffectsTest {
    private static final int FS = 48_000;
    private static final int STEP = 32;

    private static float[][] through(Effects e, float[] x) {
        EffectChain chain = new EffectChain(FS);
        float[][] y = new float[2][x.length];
        double[] l = new double[STEP];
        double[] r = new double[STEP];
        for (int at = 0; at + STEP <= x.length; at += STEP) {
            for (int i = 0; i < STEP; i++) {
                l[i] = x[at + i];
                r[i] = x[at + i];
            }
            chain.step(e, 120);
            chain.process(l, r, STEP);
            for (int i = 0; i < STEP; i++) {
                y[0][at + i] = (float) l[i];
                y[1][at + i] = (float) r[i];
            }
        }
        return y;
    }

    /** Effects rest in silence; what was in their lines before must not come back when a time grows afterwards. */
    @Test
    void nothingFromBeforeASilenceIsHeardAfterIt() {
        EffectChain chain = new EffectChain(FS);
        Effects near = new Effects(null, null, null, new Delay(0.1, false, 0.3, 0.5, 0, false, 8000), null, null);
        Effects far = new Effects(null, null, null, new Delay(3.5, false, 0.3, 0.5, 0, false, 8000), null, null);
        double loudest = 0;
        for (int step = 0; step < 12 * FS / STEP; step++) {
            double[] l = new double[STEP];
            double[] r = new double[STEP];
            double seconds = (double) step * STEP / FS;
            java.util.Arrays.fill(l, seconds < 0.05 ? 0.5 : 0);
            l[0] += seconds >= 5 && seconds < 5.01 ? 1e-4 : 0; // wakes them
            chain.step(seconds < 5 ? near : far, 120);
            chain.process(l, r, STEP);
            for (int i = 0; i < STEP && seconds >= 5; i++) {
                loudest = Math.max(loudest, Math.abs(l[i]));
            }
        }
        assertThat(loudest).isLessThan(2e-4);
    }

    @ParameterizedTest
    @ValueSource(doubles = {0.4, 1.5, 4})
    void aRoomDiesInItsTime(double t60) {
        Random chance = new Random(4);
        float[] x = new float[(int) (FS * (0.2 + 0.8 * t60))];
        for (int i = 0; i < 4800; i++) {
            x[i] = (float) (0.3 * chance.nextGaussian());
        }
        x = Tones.lowPassed(x, FS, 1500); // at the top of the band even an undamped room falls faster
        float[] y = through(new Effects(null, null, null, null, new Reverb(0.5, t60, 0, 20, 20_000, 1), null), x)[0];
        int from = 7000;
        int hop = (int) (0.4 * t60 * FS);
        int length = (int) (0.15 * t60 * FS);
        double fall = Tones.rmsDb(y, from, from + length) - Tones.rmsDb(y, from + hop, from + hop + length);
        assertThat(60 / fall * hop / FS).isCloseTo(t60, within(0.1 * t60));
    }

    @Test
    void aChorusSwingsAsFarAsItSays() {
        Chorus c = new Chorus(1, 3, 1, 1);
        float[] y = through(new Effects(null, c, null, null, null, null), Tones.sine(FS, 1000, 0.5, 3))[0];
        float[] x = Tones.sine(FS, 1000, 0.5, 3);
        float[] copy = new float[y.length];
        for (int i = 0; i < y.length; i++) {
            copy[i] = 1.5f * y[i] - x[i]; // what was added to the sound
        }
        double high = 0;
        for (int t = FS; t < 2 * FS; t += 480) {
            high = Math.max(high, Pitch.cents(1000, Partials.hz(copy, FS, 1000, t, 1440, 48)));
        }
        assertThat(high).isCloseTo(c.swingCents(), within(2.0));
    }

    @Test
    void repeatsComeInTime() {
        float[] x = new float[FS];
        x[100] = 1;
        float[] y = through(
                new Effects(null, null, null, new Delay(0.5, true, 0.5, 0.5, 0, false, 20_000), null, null), x)[0];
        int first = loudest(y, 5000, 20_000);
        int second = loudest(y, 20_000, 30_000);
        assertThat(first).isBetween(12_099, 12_101); // an eighth at 120 bpm: a quarter of a second
        assertThat(second - first).isBetween(11_999, 12_001);
    }

    private static int loudest(float[] y, int from, int to) {
        int at = from;
        for (int i = from; i < to; i++) {
            at = Math.abs(y[i]) > Math.abs(y[at]) ? i : at;
        }
        return at;
    }

    private static float[][] room(double size, double t60, double dampingHz, double seconds) {
        float[] x = new float[(int) (seconds * FS)];
        x[0] = 1;
        // without the sound itself, that is 1 at the first sample
        float[][] y = through(new Effects(null, null, null, null, new Reverb(size, t60, 0, 20, dampingHz, 1), null), x);
        y[0][0] -= 1;
        y[1][0] -= 1;
        return y;
    }

    @ParameterizedTest
    @CsvSource({"0, 0.5", "0.4, 1.2", "1, 3"})
    void aRoomGivesBackTheEnergyOfTheSoundWhateverItsSize(double size, double t60) {
        for (float[] side : room(size, t60, 20_000, 1.5 * t60)) {
            double energy = 0;
            for (float v : side) {
                energy += (double) v * v;
            }
            assertThat(10 * Math.log10(energy)).isCloseTo(0, within(1.5));
        }
    }

    @ParameterizedTest
    @CsvSource({"0, 0.6", "0.4, 1.2", "1, 3"})
    void lowAndHighBandsDieInTheirTime(double size, double t60) {
        float[][] y = room(size, t60, 2000, 1.3 * t60);
        for (double hz : new double[] {250, 500, 8000}) {
            // a shelf whose loss goes over from once to twice about the damping frequency
            double share = hz * hz / (hz * hz + 2000.0 * 2000);
            double wanted = t60 / (1 + share);
            double both = (Tones.t60OfBand(y[0], FS, hz, wanted) + Tones.t60OfBand(y[1], FS, hz, wanted)) / 2;
            assertThat(both).as("%.0f Hz", hz).isCloseTo(wanted, within(0.07 * wanted));
        }
    }

    /** J. Abel, P. Huang, "A simple, robust measure of reverberation echo density", 2006: 1 where it is as dense as noise. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 0.4, 1})
    void echoesAreAsDenseAsNoiseWithin80Ms(double size) {
        float[] y = room(size, 2, 10_000, 1)[0];
        int n = FS / 50;
        int from = FS * 80 / 1000;
        double mean = 0;
        for (int k = 0; k < 10; k++) {
            double power = 0;
            for (int i = 0; i < n; i++) {
                power += y[from + k * n + i] * y[from + k * n + i] / n;
            }
            int outside = 0;
            for (int i = 0; i < n; i++) {
                outside += Math.abs(y[from + k * n + i]) > Math.sqrt(power) ? 1 : 0;
            }
            mean += outside / (double) n / 0.3173 / 10;
        }
        assertThat(mean).isBetween(0.9, 1.15);
    }

    @Test
    void noModeOfTheTailStandsOut() {
        float[] y = room(0.4, 2, 20_000, 2)[0];
        int n = 1 << 15;
        double[] x = new double[n];
        for (int i = 0; i < n; i++) {
            double t = (i + 0.0) / FS;
            x[i] = y[FS / 5 + i]
                    * Math.exp(Math.log(1000) / 2 * t)
                    * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n));
        }
        double[] p = RealFft.power(new RealFft(n).forward(x));
        double sum = 0;
        double square = 0;
        int count = 0;
        for (double centre = 200;
                centre < 8000;
                centre *= Math.pow(2, 1 / 12.0)) { // by bands of a twelfth of an octave
            double band = 0;
            int from = (int) (centre * n / FS);
            int to = Math.max(from + 4, (int) (centre * Math.pow(2, 1 / 12.0) * n / FS));
            for (int k = from; k < to; k++) {
                band += p[k] / (to - from);
            }
            double db = 10 * Math.log10(band);
            sum += db;
            square += db * db;
            count++;
        }
        double deviation = Math.sqrt(square / count - sum / count * sum / count);
        assertThat(deviation).isLessThan(3);
    }

    @Test
    void tremoloAndToneDoWhatTheySay() {
        float[] x = Tones.sine(FS, 1000, 0.5, 2);
        float[] t = through(new Effects(null, null, new Tremolo(2, 12, 0), null, null, null), x)[0];
        double top = -200;
        double bottom = 200;
        for (int at = 4800; at < 2 * FS - 480; at += 240) {
            double db = Tones.rmsDb(t, at, at + 480);
            top = Math.max(top, db);
            bottom = Math.min(bottom, db);
        }
        assertThat(top - bottom).isCloseTo(12, within(0.3));
        float[] cut = through(new Effects(null, null, null, null, null, new Tone(20, 1000)), x)[0];
        assertThat(Tones.rmsDb(cut, FS, 2 * FS) - Tones.rmsDb(x, FS, 2 * FS)).isCloseTo(-3, within(0.1));
    }

    @Test
    void driveMakesOddHarmonicsAndNothingFolds() {
        float[] x = Tones.sine(FS, 2093, 0.8, 2);
        float[] y = through(new Effects(new Drive(24, 1), null, null, null, null, null), x)[0];
        double first = Partials.db(y, FS, 2093, FS, 24_000);
        assertThat(Partials.db(y, FS, 3 * 2093, FS, 24_000) - first).isBetween(-20.0, -8.0);
        assertThat(Partials.db(y, FS, 2 * 2093, FS, 24_000) - first).isLessThan(-90);
        for (int n = 23; n < 200; n += 2) { // odd harmonics above the band would fold to here
            double folded = Math.abs(Math.IEEEremainder(n * 2093, FS));
            if (folded > 300 && Math.abs(folded / 2093 - Math.rint(folded / 2093)) > 0.02) {
                assertThat(Partials.db(y, FS, folded, FS, 24_000) - first).isLessThan(-80);
            }
        }
    }

    @Test
    void halvingTheRateKeepsTheBandAndTakesTheRest() {
        for (double hz : new double[] {100, 5000, 15_000, 20_000, 21_000}) {
            assertThat(halved(hz)).as(hz + " Hz").isCloseTo(0, within(0.05));
        }
        for (double hz : new double[] {27_500, 30_000, 40_000, 47_000}) {
            assertThat(halved(hz)).as(hz + " Hz").isLessThan(-90);
        }
    }

    private static double halved(double hz) {
        double[] x = new double[1 << 15];
        for (int i = 0; i < x.length; i++) {
            x[i] = Math.sin(2 * Math.PI * hz * i / 96_000);
        }
        double[] y = new double[x.length / 2];
        HalfBand.steep().down(x, y, y.length);
        double s = 0;
        for (int i = 4000; i < y.length; i++) {
            s += y[i] * y[i];
        }
        return 10 * Math.log10(2 * s / (y.length - 4000) + 1e-15);
    }
}
