package nightreed.voice.formant;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import nightreed.Partials;
import nightreed.Tones;
import nightreed.dsp.RealFft;
import nightreed.music.Bark;
import nightreed.music.Pitch;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.Clip;
import nightreed.voice.Instrument;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class FormantTest {
    private static final int FS = 48_000;

    private static List<FormantBand> bark(int every) {
        List<FormantBand> out = new ArrayList<>();
        for (int b = 1; b < Bark.BANDS; b += every) {
            out.add(FormantBand.of(Bark.centreHz(b), Bark.edgeHz(b + 1) - Bark.edgeHz(b), 0, 0));
        }
        return out;
    }

    private static FormantRecipe recipe(Bank bank, List<FormantBand> bands) {
        return new FormantRecipe(
                60,
                0,
                0,
                bank,
                Oscillator.of(Oscillator.Wave.SAW, 1),
                null,
                0,
                bands,
                0,
                0,
                2,
                20,
                0.01,
                new Envelope(0, 0, 0, 0, 0, 1, 1, 0.05),
                null,
                VelocityMap.USUAL,
                Common.NONE);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void allBandsUpTheBankIsFlat(int every) {
        FormantRecipe r = recipe(Bank.SIDE_BY_SIDE, bark(every));
        BankResponse response = new BankResponse(r, FS);
        for (double hz = 200; hz < 9000; hz *= 1.01) {
            assertThat(response.db(hz)).as(hz + " Hz").isCloseTo(0, within(every == 1 ? 1.0 : 0.5));
        }
    }

    @Test
    void theTableIsWhatTheBankDoes() {
        List<FormantBand> bands = new ArrayList<>(bark(2));
        for (int i = 0; i < bands.size(); i += 2) {
            bands.set(i, bands.get(i).withLevelDb(-80));
        }
        bands.set(3, bands.get(3).withLevelDb(-9));
        for (FormantRecipe r : List.of(
                recipe(Bank.SIDE_BY_SIDE, bands),
                recipe(Bank.FORMANTS, List.of(FormantBand.of(500, 80, 0, 0), FormantBand.of(1500, 150, -6, 0))))) {
            float[] y = Renderer.note(r, 45, 0.7, 0, 2, FS).channel(0);
            BankResponse response = new BankResponse(r, FS);
            for (int n = 1; n < 90; n++) {
                double hz = n * Pitch.hz(45);
                double want = response.db(hz) + 20 * Math.log10(2 / (Math.PI * n));
                if (want > -90) {
                    assertThat(Partials.db(y, FS, hz, 9600, 60_000))
                            .as(hz + " Hz")
                            .isCloseTo(want, within(0.2));
                }
            }
        }
    }

    @Test
    void bandsFallByThirtySixDecibelsAnOctave() {
        List<FormantBand> bands = new ArrayList<>();
        for (double c = 250; c < 9000; c *= 2) {
            bands.add(FormantBand.of(c, c * 0.7, c == 1000 ? 0 : -80, 0));
        }
        BankResponse r = new BankResponse(recipe(Bank.SIDE_BY_SIDE, bands), FS);
        assertThat(r.db(1000)).isCloseTo(0, within(2.5)); // an octave wide: both edges take 1 dB here
        assertThat(r.db(2828) - r.db(5657)).isGreaterThan(35.5);
        assertThat(r.db(353) - r.db(177)).isGreaterThan(35.5);
        assertThat(r.db(1000) - r.db(2828)).isGreaterThan(34); // an octave over the edge, against the centre
    }

    @Test
    void octaveBandsFavourOneNoteMoreThanBarkBands() {
        List<FormantBand> octaves = new ArrayList<>();
        List<FormantBand> critical = new ArrayList<>();
        for (double c = 110; c < 9000; c *= 2) {
            octaves.add(FormantBand.of(c, c / 8, 0, 0));
        }
        for (int b = 0; b < 22; b++) {
            critical.add(FormantBand.of(Bark.centreHz(b), Bark.centreHz(b) / 8, 0, 0));
        }
        assertThat(swing(octaves)).isGreaterThan(swing(critical) + 3);
    }

    private static double swing(List<FormantBand> bands) {
        double[] bias = new BankResponse(recipe(Bank.FORMANTS, bands), FS).bias(45);
        double low = 1e9;
        double high = -1e9;
        for (double v : bias) {
            low = Math.min(low, v);
            high = Math.max(high, v);
        }
        return high - low;
    }

    @Test
    void bandsFollowARecording() {
        // a recording whose low half stops as its high half begins
        float[] x = new float[FS];
        float[] low = Tones.sine(FS, 400, 0.5, 0.5);
        float[] high = Tones.sine(FS, 3000, 0.5, 0.5);
        System.arraycopy(low, 0, x, 0, FS / 2);
        System.arraycopy(high, 0, x, FS / 2, FS / 2);
        List<FormantBand> bands = List.of(
                FormantBand.of(400, 300, 0, 0), FormantBand.of(1100, 900, 0, 0), FormantBand.of(3000, 2000, 0, 0));
        FormantRecipe r = Followers.follow(recipe(Bank.SIDE_BY_SIDE, bands), Clip.mono(x, FS), 0);
        float[] y = Renderer.note(r, 36, 0.7, 0, 1, FS).channel(0);
        double hz = Pitch.hz(36);
        double lowLine = Math.rint(400 / hz) * hz;
        double highLine = Math.rint(3000 / hz) * hz;
        assertThat(Partials.db(y, FS, lowLine, 4800, 16_000) - Partials.db(y, FS, lowLine, 30_000, 16_000))
                .isGreaterThan(25);
        assertThat(Partials.db(y, FS, highLine, 30_000, 16_000) - Partials.db(y, FS, highLine, 4800, 16_000))
                .isGreaterThan(25);
    }

    @Test
    void aDroneSoundsOnWhileTheRestDies() {
        List<FormantBand> bands =
                List.of(FormantBand.of(400, 100, 0, 0), new FormantBand(1800, 200, 0, 0, 0, true, null, List.of()));
        FormantRecipe r = new FormantRecipe(
                60,
                0,
                0,
                Bank.FORMANTS,
                Oscillator.of(Oscillator.Wave.SAW, 1),
                null,
                -80,
                bands,
                0,
                0,
                2,
                20,
                0.01,
                Envelope.struck(0.01, 0.5, 0.1),
                null,
                VelocityMap.USUAL,
                Common.NONE);
        float[] y = Renderer.note(r, 48, 0.7, 0, 2, FS).channel(0);
        double hz = Pitch.hz(48);
        double dies = Partials.db(y, FS, 3 * hz, 2000, 4800) - Partials.db(y, FS, 3 * hz, 60_000, 4800);
        double stays = Partials.db(y, FS, 14 * hz, 2000, 4800) - Partials.db(y, FS, 14 * hz, 60_000, 4800);
        assertThat(dies).isGreaterThan(20); // what is left is the skirt of the drone
        assertThat(stays).isCloseTo(0, within(1.5));
    }

    @Test
    void aDroneDiesInTheReleaseWithoutAJump() {
        List<FormantBand> bands = List.of(new FormantBand(900, 200, 0, 0, 0, true, null, List.of()));
        FormantRecipe r = new FormantRecipe(
                60,
                0,
                0,
                Bank.FORMANTS,
                Oscillator.of(Oscillator.Wave.SAW, 1),
                null,
                -80,
                bands,
                0,
                0,
                2,
                20,
                0.01,
                new Envelope(0, 0.01, 0, 0, 0.3, 0, 0.2, 0.4),
                null,
                VelocityMap.USUAL,
                Common.NONE);
        float[] y = Renderer.played(nightreed.recipe.Patch.of(r), 72, 0.7, 1, 1.6, FS)
                .channel(0);
        double hz = Pitch.hz(72);
        double held = Math.pow(10, Partials.db(y, FS, 2 * hz, 40_000, 4800) / 20);
        for (double t : new double[] {0.1, 0.2, 0.3}) { // a straight line down within 0.4 s
            double now = Math.pow(10, Partials.db(y, FS, 2 * hz, (int) ((1 + t) * FS) - 600, 1200) / 20);
            assertThat(now / held).as(t + " s after").isCloseTo(1 - t / 0.4, within(0.03));
        }
    }

    @Test
    void notesDoNotHearTheSameNoise() {
        List<FormantBand> bands = new ArrayList<>();
        bark(1).forEach(b -> bands.add(FormantBand.of(b.centreHz(), b.widthHz(), 0, 1)));
        FormantRecipe r = recipe(Bank.SIDE_BY_SIDE, bands);
        double one = power(r, 60);
        double two = power(r, 60, 64);
        double six = power(r, 50, 55, 60, 64, 67, 72);
        // of the same noise they would be 6 and 15.6 dB louder, turned over even silent
        assertThat(10 * Math.log10(two / one)).isCloseTo(3.0, within(0.7));
        assertThat(10 * Math.log10(six / one)).isCloseTo(7.8, within(1.2));
    }

    private static double power(FormantRecipe r, int... keys) {
        Instrument i = new Instrument(r, FS);
        for (int k : keys) {
            i.noteOn(k, 0.7);
        }
        float[] left = new float[2 * FS];
        i.render(left, new float[2 * FS], 0, left.length);
        double sum = 0;
        for (int k = FS / 2; k < left.length; k++) {
            sum += (double) left[k] * left[k];
        }
        return sum;
    }

    @Test
    void noiseOfAllBandsIsAsFlatAsTheWave() {
        List<FormantBand> bands = new ArrayList<>();
        bark(2).forEach(b -> bands.add(FormantBand.of(b.centreHz(), b.widthHz(), 0, 1)));
        FormantRecipe r = recipe(Bank.SIDE_BY_SIDE, bands);
        float[] y = Renderer.note(r, 60, 0.7, 0, 8, FS).channel(0);
        RealFft fft = new RealFft(4096);
        double[] sum = new double[2049];
        for (int at = FS / 2; at + 4096 < y.length; at += 2048) {
            double[] x = new double[4096];
            for (int k = 0; k < 4096; k++) {
                x[k] = y[at + k] * Math.sin(Math.PI * (k + 0.5) / 4096);
            }
            double[] p = RealFft.power(fft.forward(x));
            for (int k = 0; k < p.length; k++) {
                sum[k] += p[k];
            }
        }
        List<Double> thirds = new ArrayList<>();
        for (double hz = 300; hz < 7000; hz *= Math.pow(2, 1 / 3.0)) {
            double s = 0;
            int n = 0;
            for (int k = (int) (hz * 4096 / FS); k < hz * 1.26 * 4096 / FS; k++) {
                s += sum[k];
                n++;
            }
            thirds.add(10 * Math.log10(s / n));
        }
        double mean = thirds.stream().mapToDouble(v -> v).average().orElseThrow();
        assertThat(thirds).allSatisfy(db -> assertThat(db - mean).isCloseTo(0, within(1.5)));
    }
}
