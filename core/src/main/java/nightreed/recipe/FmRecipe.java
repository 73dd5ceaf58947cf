package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.VelocityMap;

/**
 * One to three pairs of a carrier and its modulator (J. Chowning, JAES 21(7), 1973), each with a level and an index that
 * follow envelopes of their own.
 *
 * @param key      key whose sound the values describe, 0..127
 * @param pairs    1 to {@value #MOST_PAIRS}
 * @param exciter  noise of the strike beside them, null for none
 * @param decayPower times of the envelopes go as frequency to the power of minus this
 * @param velocity strength moves level and index
 * @param common   what every method can have
 */
@RecordBuilder
public record FmRecipe(
        int key,

        @ParameterSpec(
                id = "tune",
                name = "tuning",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                meaning = "Offset from the key at A4 = 440 Hz.")
        double tuningCents,

        @ParameterSpec(
                name = "level",
                unit = "dBFS",
                least = -80,
                most = 6,
                decimals = 1,
                meaning = "Level of everything.")
        double levelDb,

        @Part(id = "pair", name = "pair", group = Group.SOURCE, least = 1, most = FmRecipe.MOST_PAIRS)
        List<FmPair> pairs,

        @Part(group = Group.EXCITER) Exciter exciter,

        @ParameterSpec(
                id = "track.decay",
                name = "key to decay",
                most = 3,
                group = Group.PLAYING,
                meaning = "0 keeps the envelopes on all keys; 1 halves their times an octave higher.")
        double decayPower,

        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,
        @Part Common common)
        implements Recipe, FmRecipeBuilder.With {
    public static final int MOST_PAIRS = 3;

    public FmRecipe {
        pairs = pairs == null ? List.of() : List.copyOf(pairs);
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        Range.check("number of pairs", pairs.size(), 1, MOST_PAIRS, "");
        Range.check("key", key, 0, 127, "");
        ParameterAccess.check(FmRecipe.class, key, tuningCents, levelDb, pairs, exciter, decayPower, velocity, common);
    }

    @Override
    public String method() {
        return "fm";
    }

    @Override
    public FmRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public FmRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public FmRecipe played() {
        return Recipe.withMacros(this);
    }
}
