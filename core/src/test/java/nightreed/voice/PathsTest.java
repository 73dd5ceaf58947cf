package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.recipe.Feeds;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.sound.Clip;
import nightreed.voice.note.MovingFilter;
import org.junit.jupiter.api.Test;

/** What paths, chains, polarities and macros do to the sound, against theory. */
class PathsTest {
    private static final int FS = 48_000;

    private static float[] play(Recipe r) {
        return Renderer.note(r, r.key(), 0.7, 0, 1, FS).channel(0);
    }

    private static double levelDb(float[] x, double hz) {
        return 20 * Math.log10(Tones.amplitudeAt(x, FS, hz, 12_000, 24_000) + 1e-12);
    }

    private static RingRecipe ring() {
        RingRecipe r = (RingRecipe) FirstRecipe.of("ring");
        return r.withAmplitude(Envelope.held(0.005, 0.1))
                .withDriftCents(0)
                .withA(Oscillator.of(Oscillator.Wave.SINE, 1))
                .withB(Oscillator.of(Oscillator.Wave.SINE, 3.4));
    }

    @Test
    void productAndDryPathHaveFiltersOfTheirOwn() {
        double f0 = ring().f0Hz();
        float[] plain = play(ring());
        for (Filter.Slope slope : Filter.Slope.values()) {
            for (double q : new double[] {0.71, 6}) {
                Filter f = new Filter(Filter.Kind.LOW, slope, 700, q, 0, 0, 0, 0, null);
                float[] wet = play(ring().withProductFilter(f));
                float[] dry = play(ring().withDryFilter(f));
                for (double ratio : new double[] {2.4, 4.4}) { // difference and sum
                    double wanted = MovingFilter.levelDb(Filter.Kind.LOW, slope, q, 700, ratio * f0, 2.0 * FS);
                    assertThat(levelDb(wet, ratio * f0) - levelDb(plain, ratio * f0))
                            .as(slope + " Q " + q + " ratio " + ratio)
                            .isCloseTo(wanted, within(0.1));
                    assertThat(levelDb(dry, ratio * f0)).isCloseTo(levelDb(plain, ratio * f0), within(0.02));
                }
                double wanted = MovingFilter.levelDb(Filter.Kind.LOW, slope, q, 700, f0, 2.0 * FS);
                assertThat(levelDb(dry, f0) - levelDb(plain, f0)).isCloseTo(wanted, within(0.1));
                assertThat(levelDb(wet, f0)).isCloseTo(levelDb(plain, f0), within(0.02));
            }
        }
    }

    @Test
    void aPairInAChainBendsTheOneBeforeIt() {
        FmRecipe r = (FmRecipe) FirstRecipe.of("fm")
                .with("pair.1.amp.sustain", 1)
                .with("pair.1.index", 0)
                .with("pair.1.carrierRatio", 3);
        Recipe two = nightreed.recipe.ListChange.add(r, "pair")
                .on(r)
                .with("pair.2.index", 0)
                .with("pair.2.carrierRatio", 1)
                .with("pair.2.amp.sustain", 1)
                .with("pair.2.amp.attack", 0.001)
                .with("pair.2.chain", 1.5);
        float[] x = play(two);
        double f0 = r.f0Hz();
        double[] j = nightreed.voice.fm.Sidebands.bessel(1.5, 3);
        for (int k = 1; k <= 2; k++) {
            double wanted = 20 * Math.log10(j[k] / j[0]);
            assertThat(levelDb(x, (3 + k) * f0) - levelDb(x, 3 * f0)).isCloseTo(wanted, within(0.2));
        }
    }

    @Test
    void invertedCombsSoundOddHarmonicsAtTheirPitch() {
        ResonatorRecipe bar = (ResonatorRecipe) FirstRecipe.of("resonators");
        ResonatorRecipe comb = bar.withBody(ResonatorRecipe.Body.COMBS)
                .withModes(bar.modes().subList(0, 1))
                .withPolarity(ResonatorRecipe.Polarity.INVERTED);
        float[] x = play(comb);
        double f0 = comb.f0Hz();
        assertThat(levelDb(x, 2 * f0)).isLessThan(levelDb(x, f0) - 30);
        assertThat(levelDb(x, 3 * f0)).isGreaterThan(levelDb(x, 2 * f0) + 20);
        double t60 = Tones.t60OfBand(x, FS, f0, 1.6);
        assertThat(t60).isCloseTo(comb.modes().get(0).t60Seconds(), within(0.08 * t60));
        assertThat(Feeds.kept(comb)).isBetween(0.98, 1.0);
    }

    @Test
    void aFeedDrivesTheBodyFromItsFirstSampleOn() {
        float[] tone = Tones.sine(FS, 523, 0.2, 0.5);
        ResonatorRecipe bar = (ResonatorRecipe) FirstRecipe.of("resonators");
        ResonatorRecipe fed = bar.withFeed(Feeds.of(Clip.mono(tone, FS), 0));
        float[] with = play(fed);
        float[] without = play(bar);
        double d = 0;
        for (int i = 0; i < 24_000; i++) {
            d += Math.abs(with[i] - without[i]);
        }
        assertThat(d).isGreaterThan(1);
    }

    @Test
    void bandsAreNarrowedSplitAndLed() {
        FormantRecipe r = Recipes.formant();
        assertThat(levelDb(play(r.withQFactor(4.0)), 7 * r.f0Hz())).isLessThan(levelDb(play(r), 7 * r.f0Hz()) - 3);
        Patch sides = Patch.of(r.withApart(1.0));
        Clip c = Renderer.played(sides, r.key(), 0.7, 0.8, 0.8, FS);
        assertThat(Tones.rmsDb(c.channel(0), 9600, 38_000))
                .isNotCloseTo(Tones.rmsDb(c.channel(1), 9600, 38_000), within(0.5));
        float[] odd = play(r.withEvenDb(-80.0));
        float[] all = play(r);
        assertThat(Tones.rmsDb(odd, 9600, 38_000)).isLessThan(Tones.rmsDb(all, 9600, 38_000));
        float[] led =
                play(r.withFollowDb(0.0).withSource(r.source().withLevelDb(-80)).withNoiseDb(-80));
        assertThat(Tones.rmsDb(led, 9600, 38_000)).isLessThan(-150);
    }

    @Test
    void twoFiltersBesideEachOtherAddAndBehindEachOtherMultiply() {
        SubtractiveRecipe r = (SubtractiveRecipe) FirstRecipe.of("subtractive");
        r = r.withOscillators(List.of(Oscillator.of(Oscillator.Wave.SINE, 1))).withFilter(Filter.lowPass(400, 0.71));
        Recipe behind = r.withPart("second").with("second.cutoff", 800);
        double f0 = r.f0Hz();
        double high = MovingFilter.levelDb(Filter.Kind.HIGH, Filter.Slope.DB_12, 0.71, 800, f0, FS);
        assertThat(levelDb(play(behind), f0) - levelDb(play(r), f0)).isCloseTo(high, within(0.1));
        Recipe beside = behind.with("second.place", 1).with("filter.cutoff", 10);
        Recipe alone = behind.with("filter.cutoff", 20_000);
        assertThat(levelDb(play(beside), f0)).isCloseTo(levelDb(play(alone), f0), within(0.2));
    }

    @Test
    void fromPluckToBowIsEquallyLoud() {
        StringRecipe string = ((StringRecipe) FirstRecipe.of("string")).pluckToBow();
        double before = span(EvenMacro.along(string, 1));
        Recipe even = EvenMacro.of(string, 1);
        assertThat(before).isGreaterThan(5);
        assertThat(span(EvenMacro.along(even, 1))).isLessThan(1);
        assertThat(even.played().levelDb()).isCloseTo(string.levelDb(), within(0.01)); // as it stands, nothing changes
    }

    private static double span(double[] v) {
        return java.util.Arrays.stream(v).max().orElseThrow()
                - java.util.Arrays.stream(v).min().orElseThrow();
    }
}
