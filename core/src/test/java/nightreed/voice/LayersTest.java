package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Layer.CrossFade;
import nightreed.recipe.ListChange;
import nightreed.recipe.Patch;
import nightreed.recipe.PatchCheck.Finding;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;

/** Layers side by side, and what happens to notes that sound while a patch is built anew. */
class LayersTest {
    private static final int FS = 48_000;

    private static double db(float[] x, int from, int to) {
        return Tones.rmsDb(x, from, to);
    }

    private static float[][] play(Patch patch, double wheel) {
        Instrument i = new Instrument(patch, FS);
        i.wheel(wheel);
        float[][] out = new float[2][FS];
        i.render(out[0], out[1], 0, 4800); // wheels glide
        java.util.Arrays.fill(out[0], 0);
        i.noteOn(60, 0.7);
        i.render(out[0], out[1], 0, FS);
        return out;
    }

    @Test
    void aLayerAFourthUpSoundsAFourthUpAndFineTuningIsCents() {
        Recipe sine = FirstRecipe.of("fm").with("pair.1.index", 0);
        Patch up = Patch.of(sine).with("layer.1.transpose", 5).with("layer.1.fine", 20);
        float[] y = play(up, 0)[0];
        double best = 0;
        double cents = 0;
        for (double c = -30; c <= 30; c++) {
            double level = Tones.amplitudeAt(y, FS, 261.6256 * Math.pow(2, (520 + c) / 1200), 9600, 38_000);
            cents = level > best ? c : cents;
            best = Math.max(best, level);
        }
        assertThat(cents).isCloseTo(0, within(1.0));
    }

    @Test
    void aCrossFadeKeepsThePowerOfTwoUnlikeSoundsAllTheWay() {
        Recipe low = FirstRecipe.of("subtractive");
        Recipe high = low.with("osc.1.ratio", 2.31).with("osc.2.ratio", 2.31);
        Patch p = new Patch(List.of(
                Layer.of(low).withCrossFade(CrossFade.GOES_OUT), Layer.of(high).withCrossFade(CrossFade.COMES_IN)));
        double first = db(play(Patch.of(low), 0)[0], 24_000, 48_000);
        double last = db(play(Patch.of(high), 0)[0], 24_000, 48_000);
        for (double w = 0; w <= 1; w += 0.25) {
            double at = db(play(p, w)[0], 24_000, 48_000);
            double share = Math.pow(Math.sin(Math.PI / 2 * w), 2);
            double wanted = 10 * Math.log10((1 - share) * Math.pow(10, first / 10) + share * Math.pow(10, last / 10));
            assertThat(at).as("wheel at " + w).isCloseTo(wanted, within(0.4));
            assertThat(db(play(p.with("crossfade", w), 0)[0], 24_000, 48_000)).isCloseTo(wanted, within(0.4));
        }
    }

    @Test
    void mutedLayersAreNotHeardAndSoloOnesAlone() {
        Recipe a = FirstRecipe.of("fm");
        Recipe b = FirstRecipe.of("string");
        Patch both = Patch.of(a).with(Layer.of(b));
        float[] alone = play(Patch.of(b), 0)[0];
        assertThat(play(both.with("layer.1.muted", 1), 0)[0]).containsExactly(alone);
        assertThat(play(both.with("layer.2.solo", 1), 0)[0]).containsExactly(alone);
        float[][] sides = play(Patch.of(b).with("layer.1.pan", -1), 0);
        assertThat(db(sides[1], 0, FS)).isLessThan(db(sides[0], 0, FS) - 200);
    }

    @Test
    void strengthsChooseLayersAndASplitRaisesTheLowerHalf() {
        Recipe r = FirstRecipe.of("fm");
        Patch soft = Patch.of(r).with("layer.1.highVelocity", 0.5);
        assertThat(db(play(soft, 0)[0], 0, FS)).isLessThan(-200);
        Patch manuals = Patch.split(r, 66, 12);
        float[] below = new float[FS];
        Instrument one = new Instrument(manuals, FS);
        one.noteOn(60, 0.7);
        one.render(below, 0, FS);
        float[] above = new float[FS];
        Instrument two = new Instrument(manuals, FS);
        two.noteOn(72, 0.7);
        two.render(above, 0, FS);
        assertThat(below).containsExactly(above);
    }

    @Test
    void aHeldNoteOfALayerThatIsTransposedMovesAndIsLetGo() {
        Patch p = Patch.of(FirstRecipe.of("fm").with("pair.1.index", 0).with("pair.1.amp.sustain", 1));
        Instrument i = new Instrument(p, FS);
        float[] out = new float[2 * FS];
        i.noteOn(60, 0.7);
        i.render(out, 0, 24_000);
        i.patch(p.with("layer.1.transpose", 5));
        i.render(out, 24_000, FS);
        assertThat(Tones.amplitudeAt(out, FS, 349.23, 28_000, 16_000))
                .isGreaterThan(0.5 * Tones.amplitudeAt(out, FS, 261.63, 4000, 16_000));
        i.noteOff(60);
        i.render(out, FS, 2 * FS);
        for (int k = 0; k < 20 && i.sounding(); k++) {
            i.render(new float[FS], 0, FS);
        }
        assertThat(i.voices()).isZero();
    }

    @Test
    void aLayerThatIsPutBesideAHeldNoteSoundsItAtItsOwnInterval() {
        Patch one = Patch.of(FirstRecipe.of("fm").with("pair.1.index", 0).with("pair.1.amp.sustain", 1));
        Patch two = one.with(one.layers().get(0).withTranspose(5));
        float[] out = new float[FS];
        Instrument i = new Instrument(one, FS);
        i.noteOn(60, 0.7);
        i.render(out, 0, 24_000);
        i.patch(two);
        i.render(out, 24_000, FS);
        double low = Tones.amplitudeAt(out, FS, 261.63, 28_000, 16_000);
        assertThat(Tones.amplitudeAt(out, FS, 349.23, 28_000, 16_000)).isGreaterThan(0.7 * low);
        assertThat(low).isGreaterThan(0.9 * Tones.amplitudeAt(out, FS, 261.63, 4000, 16_000));
    }

    /** Structure changed under a held note: heard within 50 ms, without a step, while other layers do not notice. */
    @Test
    void aHeldNoteGoesOnThroughAChangeOfStructureWithoutAClick() {
        for (Recipe r : List.of(FirstRecipe.of("subtractive"), Recipes.formant(), heldFm())) {
            Recipe more = ListChange.add(r, r.lists().get(0).id()).on(r);
            float[] plain = held(r, r);
            float[] changed = held(r, more);
            int at = 24_000;
            double steady = db(plain, at, at + 4800);
            assertThat(db(changed, at + 2400, at + 4800)).as(r.method()).isGreaterThan(steady - 12);
            assertThat(db(difference(plain, changed), at + 480, at + 2400)).isGreaterThan(steady - 40);
            // a click is wide: what lies far over the tone grows by less than a step of -60 dB would make it
            double rough = highs(changed, at - 240, at + 960);
            double usual = Math.max(highs(plain, at - 240, at + 960), highs(changed, at + 9600, at + 10_800));
            assertThat(rough).as(r.method()).isLessThan(Math.max(usual + 3, steady - 60));
        }
    }

    private static Recipe heldFm() {
        return FirstRecipe.of("fm").with("pair.1.amp.sustain", 1).with("pair.1.bend.sustain", 0.3);
    }

    private static float[] held(Recipe before, Recipe after) {
        float[] out = new float[FS];
        Instrument i = new Instrument(before, FS);
        i.noteOn(before.key(), 0.7);
        i.render(out, 0, 24_000);
        i.recipe(after);
        i.render(out, 24_000, FS);
        return out;
    }

    private static float[] difference(float[] a, float[] b) {
        float[] d = new float[a.length];
        for (int i = 0; i < d.length; i++) {
            d[i] = a[i] - b[i];
        }
        return d;
    }

    /** Level of the fourth difference, which passes what lies near the top of the band [dB]. */
    private static double highs(float[] x, int from, int to) {
        float[] d = new float[to - from];
        for (int i = 0; i < d.length; i++) {
            int k = from + i;
            d[i] = (x[k - 2] - 4 * x[k - 1] + 6 * x[k] - 4 * x[k + 1] + x[k + 2]) / 16;
        }
        double most = 0;
        for (float v : d) {
            most = Math.max(most, Math.abs(v));
        }
        return 20 * Math.log10(most + 1e-12);
    }

    @Test
    void listeningFindsDeadAndInvertedSidesAndWhatIsTooLoud() {
        Recipe r = FirstRecipe.of("subtractive");
        assertThat(SoundCheck.of(Patch.of(r), 0)).isEmpty();
        assertThat(texts(Patch.of(r.with("pan", 1)))).anyMatch(t -> t.contains("left side is dead"));
        assertThat(texts(Patch.of(r.with("osc.1.level", -80).with("osc.2.level", -80))))
                .anyMatch(t -> t.contains("Nothing is heard"));
        Recipe kept = PlayingLevel.set(r);
        List<Finding> loud = SoundCheck.of(Patch.of(kept.with("level", 6)), 0);
        assertThat(loud).extracting(Finding::text).anyMatch(t -> t.contains("ceiling"));
        assertThat(SoundCheck.of(Patch.of(loud.get(0).mended()), 0)).isEmpty();
    }

    private static List<String> texts(Patch p) {
        return SoundCheck.of(p, 0).stream().map(Finding::text).toList();
    }

    @Test
    void whatIsFittedInLayersIsWhatIsPlayed() {
        Patch p = Patch.of(FirstRecipe.of("fm"))
                .with(Layer.of(FirstRecipe.of("string")).withTranspose(5));
        Clip asFitted = Renderer.asFitted(p, 0, 0.5, 0.5, FS);
        Clip played = Renderer.played(p, p.key(), 0.7, 0.5, 0.5, FS);
        assertThat(asFitted.channel(0)).containsExactly(played.channel(0));
        assertThat(asFitted.channel(1)).containsExactly(played.channel(1));
    }
}
