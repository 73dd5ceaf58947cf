package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.SingleCycle;
import nightreed.recipe.part.VelocityMap;

/**
 * One to nine oscillators and breath through a filter with a course of its own.
 *
 * @param oscillators 1 to {@value #MOST_OSCILLATORS}
 * @param cycle       one cycle of the recording, for oscillators of that wave; null if there is none
 * @param unison      several copies of each oscillator; null for one
 * @param breath      noise through the same filter; null for none
 * @param filter      null for none
 * @param second      a filter behind or beside the first; null for none
 * @param amplitude   level over time
 * @param exciter     noise of the start beside them, null for none
 */
@RecordBuilder
public record SubtractiveRecipe(
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

        @Part(
                id = "osc",
                name = "oscillator",
                group = Group.SOURCE,
                least = 1,
                most = SubtractiveRecipe.MOST_OSCILLATORS)
        List<Oscillator> oscillators,

        @Part(group = Group.SOURCE) SingleCycle cycle,

        @Part(id = "unison", name = "unison", group = Group.SOURCE)
        Unison unison,

        @Part(id = "breath", name = "breath", group = Group.SOURCE)
        Breath breath,

        @Part(id = "filter", name = "filter", group = Group.SHAPING)
        Filter filter,

        @Part(id = "second", name = "second filter", group = Group.SHAPING)
        SecondFilter second,

        @Part(id = "amp", name = "level", group = Group.SHAPING)
        Envelope amplitude,

        @Part(group = Group.EXCITER) Exciter exciter,
        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,
        @Part Common common)
        implements Recipe, SubtractiveRecipeBuilder.With, PartlyIdle {
    public static final int MOST_OSCILLATORS = 9;

    public SubtractiveRecipe {
        oscillators = oscillators == null ? List.of() : List.copyOf(oscillators);
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        if (amplitude == null) {
            throw new IllegalArgumentException("a subtractive recipe needs an envelope for its level");
        }
        Range.check("number of oscillators", oscillators.size(), 1, MOST_OSCILLATORS, "");
        Range.check("key", key, 0, 127, "");
        ParameterAccess.check(SubtractiveRecipe.class, key, tuningCents, levelDb);
    }

    /** With one filter, or none. */
    public SubtractiveRecipe(
            int key,
            double tuningCents,
            double levelDb,
            List<Oscillator> oscillators,
            SingleCycle cycle,
            Unison unison,
            Breath breath,
            Filter filter,
            Envelope amplitude,
            Exciter exciter,
            VelocityMap velocity,
            Common common) {
        this(
                key,
                tuningCents,
                levelDb,
                oscillators,
                cycle,
                unison,
                breath,
                filter,
                null,
                amplitude,
                exciter,
                velocity,
                common);
    }

    @Override
    public String method() {
        return "subtractive";
    }

    @Override
    public SubtractiveRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public SubtractiveRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public SubtractiveRecipe played() {
        return Recipe.withMacros(this);
    }

    @Override
    public boolean inEffect(String id) {
        return !id.startsWith("harmonic.")
                || oscillators.stream().anyMatch(o -> o.wave() == Oscillator.Wave.MEASURED && !o.silent());
    }
}
