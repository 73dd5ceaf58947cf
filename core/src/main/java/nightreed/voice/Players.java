package nightreed.voice;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.SingleCycle;
import nightreed.voice.fm.FmSound;
import nightreed.voice.formant.FormantSound;
import nightreed.voice.formant.SharedBandNoise;
import nightreed.voice.resonator.CombSound;
import nightreed.voice.resonator.ModeSound;
import nightreed.voice.ring.RingSound;
import nightreed.voice.string.StringSound;
import nightreed.voice.subtractive.SubtractiveSound;
import nightreed.voice.wave.WaveSet;

/** Which sound belongs to which recipe. */
final class Players {
    private Players() {}

    static List<Player<?>> of(Patch patch, double fs, int most) {
        List<Player<?>> out = new ArrayList<>();
        for (Layer l : patch.layers()) {
            out.add(of(l.recipe(), fs, most));
        }
        return out;
    }

    /** Players of layers that go on as they were are kept, each for the layer in its place if it can be. */
    static List<Player<?>> of(Patch patch, Patch before, List<Player<?>> playing, double fs, int most) {
        List<Player<?>> out = new ArrayList<>();
        boolean[] taken = new boolean[playing.size()];
        for (int i = 0; i < patch.layers().size(); i++) {
            Recipe r = patch.layers().get(i).recipe();
            int at = i < taken.length && !taken[i] && goesOn(r, before, i) ? i : -1;
            for (int k = 0; at < 0 && k < taken.length; k++) {
                at = !taken[k] && isSame(r, before, k) ? k : -1;
            }
            if (at >= 0) {
                taken[at] = true;
            }
            out.add(at >= 0 ? playing.get(at) : of(r, fs, most));
        }
        return out;
    }

    private static boolean goesOn(Recipe r, Patch before, int layer) {
        return Patch.areAlike(before.layers().get(layer).recipe(), r);
    }

    /** Moved to another place as it was. */
    private static boolean isSame(Recipe r, Patch before, int layer) {
        return before.layers().get(layer).recipe().equals(r);
    }

    private static Player<?> of(Recipe recipe, double fs, int most) {
        if (recipe instanceof ResonatorRecipe r) {
            return r.body() == ResonatorRecipe.Body.COMBS
                    ? new Player<>(r, () -> new CombSound(fs, r.modes().size(), r.feed()), fs, most)
                    : new Player<>(r, () -> new ModeSound(fs, r.feed()), fs, most);
        }
        if (recipe instanceof StringRecipe r) {
            return new Player<>(r, () -> new StringSound(fs), fs, most);
        }
        if (recipe instanceof FmRecipe r) {
            return new Player<>(r, () -> new FmSound(fs), fs, most);
        }
        if (recipe instanceof RingRecipe r) {
            WaveSet cycle = cycle(r.cycle(), most, r.a(), r.b());
            return new Player<>(r, () -> new RingSound(fs, cycle), fs, most);
        }
        if (recipe instanceof FormantRecipe r) {
            WaveSet cycle = cycle(r.cycle(), most, r.source());
            SharedBandNoise field = new SharedBandNoise(fs, r);
            return new Player<>(r, () -> new FormantSound(fs, r, cycle, field), field, fs, most);
        }
        SubtractiveRecipe r = (SubtractiveRecipe) recipe;
        WaveSet cycle = cycle(r.cycle(), most, r.oscillators().toArray(Oscillator[]::new));
        return new Player<>(r, () -> new SubtractiveSound(fs, cycle), fs, most);
    }

    /** The recording's wave; null where there is none, or no one can come to ask for it. */
    private static WaveSet cycle(SingleCycle cycle, int most, Oscillator... oscillators) {
        boolean mayBeAsked = most > 1 || Arrays.stream(oscillators).anyMatch(o -> o.wave() == Oscillator.Wave.MEASURED);
        return cycle == null || !mayBeAsked ? null : WaveSet.of(cycle);
    }

    @SuppressWarnings("unchecked") // a build is only handed on to a patch with the same methods
    static <R extends Recipe> void follow(Player<R> player, Recipe recipe) {
        player.follow((R) recipe);
    }
}
